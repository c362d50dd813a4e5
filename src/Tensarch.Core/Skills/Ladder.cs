using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>A skill's stages from preparation to mastery. Data; a coach can copy one and change it.</summary>
/// <param name="SideMeans">What the side names, such as "front leg".</param>
/// <param name="LeadLimit">How many stages one side may be ahead of the other.</param>
/// <param name="EveryGate">Tests that stand in every gate of the ladder.</param>
public sealed record Ladder(
    string Key,
    int Version,
    string Name,
    bool PerSide,
    string? SideMeans,
    IReadOnlyList<string> Standards,
    IReadOnlyList<LoadTag> Regions,
    IReadOnlyList<LoadTag> RequiredTags,
    int LeadLimit,
    IReadOnlyList<SideMeasure> SideMeasures,
    IReadOnlyList<ReadinessTest> EveryGate,
    IReadOnlyList<Stage> Stages
)
{
    /// <summary>The stage after the last: the skill is owned, the keystone stands.</summary>
    public int Keystone => Stages.Count + 1;

    /// <exception cref="ArgumentOutOfRangeException">No such stage.</exception>
    public Stage StageAt(int number) =>
        number >= 1 && number <= Stages.Count
            ? Stages[number - 1]
            : throw new ArgumentOutOfRangeException(nameof(number), number, $"{Key} has stages 1 to {Stages.Count}.");

    /// <summary>All tests of the gate from a stage to the next, the stage's own first.</summary>
    public IReadOnlyList<ReadinessTest> GateOf(int stage) => [.. StageAt(stage).Tests, .. EveryGate];

    /// <summary>The measure that tells which side is weaker, at the lower of both sides' stages.</summary>
    public string SideMeasureAt(int lowerStage) => SideMeasures.Last(m => m.FromStage <= Math.Max(1, lowerStage)).Measure;
}

public sealed record SideMeasure(int FromStage, string Measure);

/// <param name="Work">What a student does here, in one line.</param>
/// <param name="Tests">The gate to the next stage.</param>
public sealed record Stage(int Number, string Name, string Work, IReadOnlyList<ReadinessTest> Tests);
