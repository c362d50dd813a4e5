namespace Tensarch.Core;

/// <summary>A side of the body. What has no side (a bilateral measure) has none, rather than a third value.</summary>
public enum Side
{
    Left,
    Right,
}

public static class SideExtensions
{
    public static readonly IReadOnlyList<Side> Both = [Side.Left, Side.Right];

    public static Side Other(this Side side) => side == Side.Left ? Side.Right : Side.Left;
}
