using System.ComponentModel.DataAnnotations;
using System.Text.Json.Serialization;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>A skill's stages from preparation to mastery. Data; a coach can copy one and change it.</summary>
/// <param name="Skill">The shipped skill that it trains: drills serve stages of it. The key itself for a shipped ladder.</param>
/// <param name="SideMeans">What the side names, such as "front leg".</param>
/// <param name="Regions">Where pain counts.</param>
/// <param name="RequiredTags">What no hold may lie on, and from which stage.</param>
/// <param name="LeadLimit">How many stages one side may be ahead of the other.</param>
/// <param name="SideMeasures">What tells which side is weaker; none on a bilateral ladder.</param>
/// <param name="StartsAtOne">Everyone begins at stage 1, whatever the readings say.</param>
/// <param name="EveryGate">Tests that stand in every gate of the ladder.</param>
public sealed record Ladder(
    [RegularExpression(Core.Key.Pattern)] string Key,
    [Range(1, 100_000)] int Version,
    [StringLength(200)] string Name,
    [RegularExpression(Core.Key.Pattern)] string Skill,
    bool PerSide,
    [StringLength(60)] string? SideMeans,
    [MaxLength(6), RegularExpression(Core.Key.Pattern)] IReadOnlyList<string> Standards,
    IReadOnlyList<LoadTag> Regions,
    IReadOnlyList<RequiredTag> RequiredTags,
    int LeadLimit,
    IReadOnlyList<SideMeasure> SideMeasures,
    bool StartsAtOne,
    IReadOnlyList<ReadinessTest> EveryGate,
    IReadOnlyList<Stage> Stages
)
{
    /// <summary>The stage after the last: the skill is owned, the keystone stands.</summary>
    [JsonIgnore]
    public int Keystone => Stages.Count + 1;

    /// <summary>The sides that climb on their own: left and right, or the one bilateral course.</summary>
    [JsonIgnore]
    public IReadOnlyList<Side?> Courses => PerSide ? [Side.Left, Side.Right] : [null];

    /// <exception cref="ArgumentOutOfRangeException">No such stage.</exception>
    public Stage StageAt(int number) =>
        number >= 1 && number <= Stages.Count
            ? Stages[number - 1]
            : throw new ArgumentOutOfRangeException(nameof(number), number, $"{Key} has stages 1 to {Stages.Count}.");

    /// <summary>All tests of the gate from a stage to the next, the stage's own first.</summary>
    public IReadOnlyList<ReadinessTest> GateOf(int stage) => [.. StageAt(stage).Tests, .. EveryGate];

    /// <summary>Tags that must be free of holds at the gate of a stage: those of the stage and of the one that it opens.</summary>
    public IReadOnlyList<LoadTag> RequiredAt(int stage) => [.. RequiredTags.Where(r => r.FromStage <= stage + 1).Select(r => r.Tag)];

    /// <summary>The shipped stage whose drills a stage trains with; the last one once the skill is owned.</summary>
    public int TrainsAs(int stage)
    {
        var at = StageAt(Math.Clamp(stage, 1, Stages.Count));
        return at.TrainsAs ?? at.Number;
    }

    /// <summary>A test of the gate from this stage reads what is done in a drill at a variant.</summary>
    public bool Reads(string drill, string variant, int stage) =>
        GateOf(Math.Clamp(stage, 1, Stages.Count))
            .Any(t => t is HoldCriterion or RepsCriterion && t.ReadDrill == drill && (t.ReadVariant ?? variant) == variant);

    /// <summary>The measure that tells which side is weaker, at the lower of both sides' stages; none on a bilateral ladder.</summary>
    public SideMeasure? SideMeasureAt(int lowerStage) => SideMeasures.LastOrDefault(m => m.FromStage <= Math.Max(1, lowerStage));
}

/// <summary>A tag on which no hold may lie, at the gates that lead to this stage and above.</summary>
public sealed record RequiredTag(LoadTag Tag, [Range(1, 100)] int FromStage = 1);

/// <param name="Level">The level of a hold, where it has levels.</param>
public sealed record SideMeasure(
    [Range(1, 100)] int FromStage,
    [RegularExpression(Key.Pattern)] string Measure,
    [RegularExpression(Key.Pattern)] string? Level = null
);

/// <param name="Work">What a student does here, in one line.</param>
/// <param name="Tests">The gate to the next stage.</param>
/// <param name="TrainsAs">In a coach's copy: the shipped stage whose drills it trains with; the same number when none.</param>
/// <param name="Core">Drills that make the stage what it is; none in a coach's copy of before there were any.</param>
public sealed record Stage(
    int Number,
    string Name,
    string Work,
    IReadOnlyList<ReadinessTest> Tests,
    int? TrainsAs = null,
    [MaxLength(3), RegularExpression(Key.Pattern)] IReadOnlyList<string>? Core = null
);
