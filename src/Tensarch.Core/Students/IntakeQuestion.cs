namespace Tensarch.Core.Students;

public enum TagScope
{
    /// <summary>The tags that are listed.</summary>
    Listed,
    Regions,
    All,
}

/// <summary>What a "yes" does to some tags.</summary>
public sealed record BarEffect(BarLevel Level, TagScope Scope, IReadOnlyList<LoadTag> Tags)
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
public sealed record IntakeQuestion(
    string Key,
    string Text,
    string Label,
    IReadOnlyList<BarEffect> Effects,
    string Advice,
    int? SensationCeiling = null,
    int? RampTopPercent = null,
    IReadOnlyList<string>? DayGates = null
)
{
    /// <summary>A yes asks for a guardian's consent before anything, like a birth date less than 18 years ago.</summary>
    public const string Under18 = "under-18";
}
