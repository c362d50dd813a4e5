using Tensarch.Core;
using Tensarch.Core.Skills;

namespace Tensarch.Server.Skills;

/// <summary>A gate in one line: for lists.</summary>
/// <param name="Nearest">The unmet test that is closest to being met.</param>
public sealed record SideSummary(
    Side Side,
    int Stage,
    string? StageName,
    GateState State,
    int Met,
    int Tests,
    NextStep Next,
    TestVerdict? Nearest
)
{
    public static SideSummary Of(Ladder ladder, GateVerdict verdict) =>
        new(
            verdict.Side,
            verdict.Stage,
            verdict.Stage < ladder.Keystone ? ladder.StageAt(verdict.Stage).Name : null,
            verdict.State,
            verdict.MetCount,
            verdict.Tests.Count,
            verdict.Next,
            verdict.NearestMiss is { } i ? verdict.Tests[i] : null
        );
}

/// <summary>A skill of a student: the arch, both gates with their tests, and what the sides differ by.</summary>
public sealed record SkillPage(
    string Ladder,
    int LadderVersion,
    string Approach,
    string Standard,
    DateTimeOffset StartedAt,
    IReadOnlyList<Stone> Arch,
    IReadOnlyList<SideGate> Sides,
    SideComparison Comparison,
    IReadOnlyList<StageTests> Stages
);

/// <summary>One side's gate.</summary>
/// <param name="EnteredAt">When the side came to this stage; none when it was never decided.</param>
public sealed record SideGate(
    Side Side,
    int Stage,
    GateState State,
    string Reason,
    int MetCount,
    int? NearestMiss,
    NextStep Next,
    IReadOnlyList<TestVerdict> Tests,
    IReadOnlyList<StepBackReason> StepBack,
    DateTimeOffset? EnteredAt
);

/// <param name="Difference">Right minus left, in the measure's unit; none before both were read.</param>
public sealed record SideComparison(string Measure, double? Difference, double? Mdc95, Side? Weaker);

/// <summary>The tests of any stage, judged today, for whoever looks at its stone.</summary>
public sealed record StageTests(int Stage, Side Side, IReadOnlyList<TestVerdict> Tests);

public sealed record PlacementResponse(IReadOnlyList<PlacementSide> Sides);

public sealed record PlacementSide(Side Side, int SuggestedStage, IReadOnlyList<TestVerdict> Unmet);

/// <summary>Puts a student on a ladder, each side at the stage that the coach confirmed.</summary>
public sealed record SkillStart(
    Guid Id,
    string Ladder,
    string Approach,
    Guid LeftDecisionId,
    int LeftStage,
    Guid RightDecisionId,
    int RightStage
);

public sealed record DecisionRequest(Guid Id, Side Side, DecisionKind Kind, int FromStage, string? Reason);

public sealed record DecisionView(
    Guid Id,
    Side? Side,
    DecisionKind Kind,
    int FromStage,
    int ToStage,
    string? Reason,
    DateTimeOffset At,
    string By,
    DecisionEvidence? Evidence
);

/// <summary>What the gate said when the decision was taken.</summary>
public sealed record DecisionEvidence(GateState State, string Standard, IReadOnlyList<TestVerdict> Tests);

public sealed record FormCheckRequest(Guid Id, int Stage, Side Side, IReadOnlyList<string> Ticked);

/// <summary>A tested hold or counted repetitions, on the bench.</summary>
public sealed record BenchSetRequest(
    Guid Id,
    string Drill,
    string Variant,
    Side Side,
    double? Seconds,
    int? CleanReps,
    int? Quality,
    DateTimeOffset? At
);

public sealed record ReadinessResponse(IReadOnlyList<ReadinessLine> Lines, string? Next);

public sealed record ReadinessLine(Guid StudentId, string Name, SideSummary Gate);
