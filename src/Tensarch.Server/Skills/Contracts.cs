using System.ComponentModel.DataAnnotations;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Hosting.Door;

namespace Tensarch.Server.Skills;

/// <summary>A gate in one line: for lists.</summary>
/// <param name="Side">None on a bilateral ladder.</param>
/// <param name="Nearest">The unmet test that is closest to being met.</param>
public sealed record SideSummary(
    Side? Side,
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

/// <summary>A skill of a student in a list: a small arch, and a line for each side.</summary>
/// <param name="Compared">Both sides were read; none on a bilateral ladder.</param>
public sealed record SkillSummary(
    string Skill,
    string LadderName,
    IReadOnlyList<StageName> Stages,
    IReadOnlyList<SideSummary> Sides,
    IReadOnlyList<Stone> Arch,
    Side? Weaker,
    bool? Compared
)
{
    public static SkillSummary Of(Course skill, Gate gate, CatalogueContent catalogue)
    {
        var verdicts = skill.Judge(gate);
        var comparison = skill.Compare(catalogue);
        return new(
            skill.Skill,
            skill.Ladder.Name,
            [.. skill.Ladder.Stages.Select(s => new StageName(s.Number, s.Name))],
            [.. verdicts.Select(v => SideSummary.Of(skill.Ladder, v))],
            Core.Skills.Arch.Of(skill.Ladder, verdicts),
            comparison?.Weaker,
            comparison is null ? null : comparison.Difference is not null
        );
    }
}

public sealed record StageName(int Number, string Name);

/// <summary>A skill of a student: the arch, the gates with their tests, and what the sides differ by.</summary>
/// <param name="NewestVersion">Of the ladder that is followed; more than the ladder's own version when there is a newer one.</param>
/// <param name="Standard">None where the ladder has no standards.</param>
/// <param name="Comparison">None on a bilateral ladder.</param>
public sealed record SkillPage(
    string Skill,
    Ladder Ladder,
    int NewestVersion,
    string Approach,
    string? Standard,
    DateTimeOffset StartedAt,
    IReadOnlyList<Stone> Arch,
    IReadOnlyList<SideGate> Sides,
    SideComparison? Comparison,
    IReadOnlyList<StageTests> Stages
);

/// <summary>One side's gate, or the one of a bilateral ladder.</summary>
/// <param name="Group">Where it lies on the readiness board.</param>
/// <param name="EnteredAt">When the side came to this stage; none when it was never decided.</param>
public sealed record SideGate(
    Side? Side,
    int Stage,
    GateState State,
    ReadinessGroup Group,
    string Reason,
    int MetCount,
    int? NearestMiss,
    NextStep Next,
    IReadOnlyList<TestVerdict> Tests,
    IReadOnlyList<StepBackReason> StepBack,
    Plateau? Plateau,
    DateTimeOffset? EnteredAt
);

/// <summary>The tests of any stage, judged today, for whoever looks at its stone.</summary>
public sealed record StageTests(int Stage, Side? Side, IReadOnlyList<TestVerdict> Tests);

public sealed record PlacementResponse(Ladder Ladder, IReadOnlyList<StartAdvice> Courses);

/// <summary>Puts a student on a ladder, each course at the stage that the coach confirmed.</summary>
/// <param name="LadderKey">A coach's own ladder; the skill's newest shipped one when none is named.</param>
public sealed record SkillStart(
    Guid Id,
    [RegularExpression(Key.Pattern)] string Skill,
    [RegularExpression(Key.Pattern)] string Approach,
    [MaxLength(2)] IReadOnlyList<CourseStart> Courses,
    [RegularExpression(Key.Pattern)] string? LadderKey = null,
    [Range(1, 100_000)] int? LadderVersion = null
);

/// <param name="Side">None on a bilateral ladder.</param>
public sealed record CourseStart(Guid DecisionId, Side? Side, [Range(0, 100)] int Stage);

/// <summary>Moves a student to another version of the ladder, or to another ladder of the skill.</summary>
public sealed record SkillMove(
    [RegularExpression(Key.Pattern)] string LadderKey,
    [Range(1, 100_000)] int LadderVersion,
    [MaxLength(2)] IReadOnlyList<CourseStart> Courses,
    [StringLength(500)] string? Reason
);

public sealed record DecisionRequest(
    Guid Id,
    Side? Side,
    DecisionKind Kind,
    [Range(0, 100)] int FromStage,
    [StringLength(500)] string? Reason
);

public sealed record DecisionView(
    Guid Id,
    string Skill,
    Side? Side,
    DecisionKind Kind,
    int FromStage,
    int ToStage,
    string? Reason,
    DateTimeOffset At,
    string By,
    DecisionEvidence? Evidence
);

/// <summary>What the gate said when the decision was taken, under which version of which ladder.</summary>
public sealed record DecisionEvidence(
    GateState State,
    string? Standard,
    IReadOnlyList<TestVerdict> Tests,
    string? LadderName = null,
    int? LadderVersion = null
);

public sealed record FormCheckRequest(
    Guid Id,
    [Range(0, 100)] int Stage,
    Side? Side,
    [MaxLength(10), RegularExpression(Key.Pattern)] IReadOnlyList<string> Ticked
);

/// <param name="Drill">Which way out it was, with its variant, where the gate asks for several.</param>
public sealed record ExitCheckRequest(
    Guid Id,
    [Range(0, 100)] int Stage,
    Side? Side,
    [Range(0, 50)] int Safe,
    [Range(1, 50)] int Of,
    [RegularExpression(Key.Pattern)] string? Drill = null,
    [RegularExpression(Key.Pattern)] string? Variant = null
);

/// <summary>A tested hold or counted repetitions, on the bench.</summary>
public sealed record BenchSetRequest(
    Guid Id,
    [RegularExpression(Key.Pattern)] string Drill,
    [RegularExpression(Key.Pattern)] string Variant,
    Side? Side,
    [Range(0, 600)] double? Seconds,
    [Range(0, 200)] int? CleanReps,
    [Range(1, 5)] int? Quality,
    [NotFuture] DateTimeOffset? At
);
