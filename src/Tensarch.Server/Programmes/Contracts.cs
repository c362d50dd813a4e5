using System.ComponentModel.DataAnnotations;
using Tensarch.Core;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;

namespace Tensarch.Server.Programmes;

/// <param name="BasedOn">The version that the coach saw; 0 where there was none. Another one stands by now: 412.</param>
/// <param name="Ended">It was over when they saw it. Where somebody ended it meanwhile: 412 as well.</param>
public sealed record PlanProgramme(Guid Id, [Range(0, 10_000)] int BasedOn, ProgrammeSketch Sketch, bool Ended = false);

public enum PlanEditKind
{
    Pin,
    Unpin,

    /// <summary>To another day, as it is; it is pinned there.</summary>
    Move,
}

/// <param name="To">Where it moves to.</param>
public sealed record PlanEdit(PlanEditKind Kind, DateOnly Day, DayHalf Half, DateOnly? To = null, DayHalf? ToHalf = null);

public sealed record TryPlanEdit(PlanEdit Edit);

/// <inheritdoc cref="PlanProgramme"/>
public sealed record KeepPlanEdit(Guid Id, [Range(0, 10_000)] int BasedOn, PlanEdit Edit);

/// <summary>What a coach needs to begin: what is set, or what suggests itself, and what the student is on.</summary>
/// <param name="Suggested">From the student's goals and days; none where they are on no skill yet.</param>
/// <param name="Plan">The newest version.</param>
/// <param name="News">Why it should be planned again.</param>
public sealed record ProgrammePage(ProgrammeSketch? Suggested, IReadOnlyList<string> Skills, PlanView? Plan, IReadOnlyList<PlanNews> News);

/// <param name="Code">
/// <c>stageChanged</c>, <c>missed</c> (number: sessions; days since the last: see <paramref name="Days"/>), <c>barred</c>, <c>outdated</c>, <c>twice</c> (a session of
/// no weeks stands beside the planned one) or <c>over</c>.
/// </param>
/// <param name="Band">Of missed sessions: <c>shift</c>, <c>repeat</c>, <c>lighter</c> or <c>reBaseline</c>.</param>
public sealed record PlanNews(
    string Code,
    string? Skill = null,
    int? Number = null,
    int? Days = null,
    string? Band = null,
    DateOnly? Day = null
);

/// <param name="Number">0: it is not kept.</param>
public sealed record PlanView(
    int Number,
    DateTimeOffset At,
    string By,
    string Why,
    DateTimeOffset? EndedAt,
    ProgrammeSketch Sketch,
    IReadOnlyList<PlanWeek> Weeks,
    IReadOnlyList<LoadStrip> Loads,
    IReadOnlyList<ShortGoal> TooFew,
    IReadOnlyList<UntestedGoal> Untested,
    double Gap,
    int Changed,
    IReadOnlyList<ExpectedGate> Gates,
    IReadOnlyList<TargetVerdict> Targets,
    IReadOnlyList<DayDifference> Changes
);

public enum DayDifferenceKind
{
    New,
    Gone,
    Changed,
}

/// <summary>What is another than in the version before, and why.</summary>
/// <param name="Why">
/// <c>timeAdded</c>, <c>timeGone</c>, <c>minutes</c>, <c>stage</c> (of a skill), <c>goals</c>, <c>theme</c>, <c>pinned</c>, <c>barred</c>, <c>missed</c>, or
/// <c>around</c>: what stands around it changed.
/// </param>
public sealed record DayDifference(
    DateOnly Day,
    DayHalf Half,
    DayDifferenceKind Kind,
    IReadOnlyList<StoredBlock> Was,
    IReadOnlyList<StoredBlock> Now,
    string Why,
    string? Skill = null
);

/// <summary>A goal that is trained less often than it asks for.</summary>
/// <param name="Fewer">Exposures, in all.</param>
/// <param name="Weeks">In which.</param>
/// <param name="Never">No session of the plan has the core of it: something bars it.</param>
/// <param name="Why">Of the first of the weeks: rules that leave no room for all that goals ask for.</param>
public sealed record ShortGoal(string Skill, int Fewer, IReadOnlyList<int> Weeks, bool Never, IReadOnlyList<PieceRule> Why);

/// <param name="Number">Counted from 1.</param>
/// <param name="Tested">Goals that are tested in it.</param>
public sealed record PlanWeek(int Number, DateOnly Start, bool BackOff, IReadOnlyList<string> Tested, IReadOnlyList<PlanDayView> Days);

public enum PlanDayState
{
    Planned,
    Running,
    Done,
    Missed,

    /// <summary>Nothing may be done on it.</summary>
    Barred,

    /// <summary>The session was thrown away.</summary>
    Dropped,
}

public enum PlanDayChange
{
    Same,
    New,
    Changed,
}

/// <param name="Change">Against the version before.</param>
/// <param name="ByHand">A coach changed the session itself.</param>
/// <param name="FirstSide">None where nothing in it has sides.</param>
/// <param name="Drills">Of the main work, in order.</param>
public sealed record PlanDayView(
    DateOnly Day,
    DayHalf Half,
    int Minutes,
    PlanDayState State,
    IReadOnlyList<StoredBlock> Blocks,
    int FrameSeconds,
    int TestMinutes,
    IReadOnlyList<string> Tested,
    Guid? Session,
    bool Pinned,
    bool ByHand,
    IReadOnlyList<string> Broken,
    PlanDayChange Change,
    Side? FirstSide,
    IReadOnlyList<string> Drills,
    IReadOnlyList<DayReason> Why
);

/// <summary>One load over the weeks of a plan.</summary>
/// <param name="Side">None where both sides carry the same.</param>
/// <param name="InBodyweight">In bodyweight-seconds; else in minutes of heavy work.</param>
public sealed record LoadStrip(LoadTag Tag, Side? Side, bool InBodyweight, double Most, IReadOnlyList<LoadOfWeek> Weeks);

public sealed record LoadOfWeek(int Week, double Done, double Load, double Ceiling);

/// <summary>What the checker says of a change by hand.</summary>
/// <param name="Refused">Rules that it would break: it is not kept.</param>
public sealed record PlanEditVerdict(IReadOnlyList<BrokenRule> Refused);

/// <param name="Load">Of a week's load: so much, where so much is the most, in minutes or bodyweight-seconds.</param>
public sealed record BrokenRule(DateOnly Day, string Code, string? Drill, LoadTag? Tag, Side? Side, double? Load, double? Most);

public sealed record PlanVersionLine(int Number, DateTimeOffset At, string By, string Why);
