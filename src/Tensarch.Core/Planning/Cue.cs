using System.Text.Json.Serialization;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Planning;

/// <summary>How the breath goes with a movement.</summary>
public enum CueBreath
{
    /// <summary>However it comes.</summary>
    Free,
    In,
    Out,
}

/// <summary>One short thing to say.</summary>
/// <param name="At">The phase that it belongs to; none for what may be said in any.</param>
/// <param name="Position">The position of a flow, or the rung, that it belongs to.</param>
/// <param name="Variant">The variant that it belongs to; none for all of them.</param>
public sealed record Cue(string Says, CueBreath Breath = CueBreath.Free, Phase? At = null, string? Position = null, string? Variant = null)
{
    /// <summary>At an unhurried pace.</summary>
    private const double WordsPerSecond = 2.5;

    /// <summary>As it is said, with its breath.</summary>
    [JsonIgnore]
    public string Aloud =>
        Breath switch
        {
            CueBreath.In => $"{Says}, breathing in",
            CueBreath.Out => $"{Says}, breathing out",
            _ => Says,
        };

    /// <summary>To say so much, in seconds.</summary>
    public static double SecondsToSay(string aloud) => aloud.Split(' ', StringSplitOptions.RemoveEmptyEntries).Length / WordsPerSecond;

    /// <summary>
    /// What is said in one stretch of work: what belongs to its position or phase, else what belongs to none, another one each time; of a
    /// repeated movement both ways with their breath.
    /// </summary>
    /// <param name="turn">How many stretches of this phase came before.</param>
    internal static string? For(IReadOnlyList<Cue> cues, string variant, Phase phase, string? label, int turn)
    {
        var mine = cues.Where(c => c.Variant is null || c.Variant == variant).ToList();
        var here = mine.Where(c => c.Position is not null && c.Position == label).ToList();
        if (here.Count == 0)
            here = [.. mine.Where(c => c.Position is null && c.At == phase)];
        if (here.Count == 0)
            here = [.. mine.Where(c => c is { Position: null, At: null })];
        var ways = here.Where(c => c.Breath != CueBreath.Free).ToList();
        List<string> said =
            phase == Phase.Repeat && ways.Count > 1
                ? [string.Join("; ", ways.Select(c => c.Aloud)), .. here.Except(ways).Select(c => c.Aloud)]
                : [.. here.Select(c => c.Aloud)];
        return said.Count == 0 ? null : said[turn % said.Count];
    }
}
