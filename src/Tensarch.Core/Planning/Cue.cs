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
/// <param name="Must">It is said in every round, before anything else.</param>
public sealed record Cue(
    string Says,
    CueBreath Breath = CueBreath.Free,
    Phase? At = null,
    string? Position = null,
    string? Variant = null,
    bool Must = false
)
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

    internal bool IsOf(string variant) => Variant is null || Variant == variant;
}
