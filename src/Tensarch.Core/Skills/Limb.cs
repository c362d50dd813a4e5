namespace Tensarch.Core.Skills;

/// <summary>Which limb a test reads.</summary>
public enum Limb
{
    ThisSide,

    /// <summary>In a front split the rear hip is the other side's.</summary>
    OtherSide,

    /// <summary>Left and right, each on its own.</summary>
    EachSide,

    /// <summary>The side that does better: a kick-up asks for one good leg.</summary>
    BetterSide,

    /// <summary>What has no side.</summary>
    Bilateral,
}

public static class Limbs
{
    /// <summary>The sides to read for a gate on a side; for a bilateral gate the side is none.</summary>
    public static IReadOnlyList<Side?> ReadFor(this Limb limb, Side? side) =>
        limb switch
        {
            Limb.EachSide or Limb.BetterSide => [Side.Left, Side.Right],
            Limb.OtherSide => [side?.Other()],
            Limb.Bilateral => [null],
            _ => [side],
        };
}
