namespace Tensarch.Core.Students;

public enum TagScope
{
    /// <summary>The tags that are listed.</summary>
    Listed,
    Regions,
    All,
}

/// <summary>How light "light only" is.</summary>
public enum LightManner
{
    /// <summary>The easiest version, half the work, low effort; nothing of it beside the core.</summary>
    Few,

    /// <summary>Holds of at most 30 s; the rounds stay.</summary>
    Brief,

    /// <summary>Only what is heavy is out.</summary>
    NotHeavy,
}

/// <summary>What a "yes" does to some tags.</summary>
/// <param name="Manner">Where it makes them light only.</param>
/// <param name="AnyClearance">Any clearance that knows of the answer lifts it; what else the answer bars stays.</param>
/// <param name="On">It bars the tags only in what loads this as well.</param>
public sealed record BarEffect(
    BarLevel Level,
    TagScope Scope,
    IReadOnlyList<LoadTag> Tags,
    LightManner Manner = LightManner.Few,
    bool AnyClearance = false,
    LoadTag? On = null
)
{
    public IEnumerable<LoadTag> Covers =>
        Scope switch
        {
            TagScope.All => LoadTags.All,
            TagScope.Regions => LoadTags.Regions,
            _ => Tags,
        };
}

/// <summary>One yes/no question of the intake screen, in plain words, with what a "yes" puts off limits or makes light only.</summary>
/// <param name="SensationCeiling">Of 10; the student's own ceiling is cut to it.</param>
/// <param name="RampTopPercent">Ramped contractions top out here.</param>
/// <param name="Advice">Shown at once when the answer is yes.</param>
/// <param name="DayGates">Day gates that after a yes stand before all main work that loads one of its tags, in every session.</param>
/// <param name="Signs">What is asked in its place, and counted.</param>
/// <param name="AddedLater">Who was screened before it is asked at the next start, and trains on until then.</param>
public sealed record IntakeQuestion(
    string Key,
    string Text,
    string Label,
    IReadOnlyList<BarEffect> Effects,
    string Advice,
    int? SensationCeiling = null,
    int? RampTopPercent = null,
    IReadOnlyList<string>? DayGates = null,
    bool AddedLater = false,
    JointSigns? Signs = null
)
{
    /// <summary>A yes asks for a guardian's consent before anything, like a birth date less than 18 years ago.</summary>
    public const string Under18 = "under-18";
}
