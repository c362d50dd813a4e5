using Tensarch.Core;

namespace Tensarch.Server.Sessions;

/// <summary>One drill that was worked in a session, at a variant and on a side.</summary>
public sealed record WorkedDrill(string Drill, string Variant, Side? Side)
{
    public override string ToString() => $"{Drill}/{Variant}/{Side}";

    public static WorkedDrill Parse(string text)
    {
        var parts = text.Split('/');
        return new(parts[0], parts[1], parts[2].Length == 0 ? null : Enum.Parse<Side>(parts[2]));
    }
}
