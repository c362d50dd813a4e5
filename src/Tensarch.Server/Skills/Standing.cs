using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Sessions;

namespace Tensarch.Server.Skills;

/// <summary>A session that was trained, without its plan and its rounds.</summary>
public sealed record TrainedSession(
    Guid Id,
    Guid StudentId,
    string Skill,
    DateTimeOffset StartedAt,
    DateOnly StartedOn,
    Side FirstSide,
    IReadOnlyList<WorkedDrill> Worked
);

/// <summary>The intake screen as it stands.</summary>
/// <param name="ScreenedOn">When the whole screen was last gone through.</param>
/// <param name="DueOn">When it is repeated.</param>
/// <param name="Changed">What was said to have changed since.</param>
public sealed record ScreenView(ScreenState State, DateOnly? ScreenedOn, DateOnly? DueOn, string? Changed);

/// <summary>One student with everything that is judged: the facts, the cautions of today, and every skill they are on.</summary>
/// <param name="Facts">Of no skill: without a standard, forms, exits and decisions.</param>
/// <param name="Answers">The newest answer to each question.</param>
/// <param name="LastSessionOn">However long ago.</param>
/// <param name="LeftOut">Stored entries that cannot be reckoned with and count for nothing.</param>
/// <param name="Clearances">All of them, with the day on which one was withdrawn.</param>
public sealed record Standing(
    StudentRow Student,
    IReadOnlyList<SkillStanding> Skills,
    Evidence Facts,
    SkillFacts SkillFacts,
    IReadOnlyList<ReviewHold> Holds,
    IReadOnlyDictionary<string, AnswerRow> Answers,
    IReadOnlyList<(ClearanceRow Row, Clearance Clearance)> Clearances,
    IReadOnlyList<HoldReview> Reviews,
    IReadOnlyList<TrainedSession> Sessions,
    ScreenView Screen,
    DateOnly? LastSessionOn,
    int LeftOut
)
{
    public bool Screened => Screen.State == ScreenState.Current;

    public int? DaysSinceLast => LastSessionOn is { } last ? Facts.Today.DayNumber - last.DayNumber : null;

    public Cautions Cautions => Facts.Cautions;

    public SkillStanding? On(string skill) => Skills.FirstOrDefault(s => s.Row.Skill == skill);

    /// <summary>The facts on which a ladder's gates are judged, whether the student is on it or not.</summary>
    public Evidence For(Ladder ladder) => SkillFacts.Of(Facts, ladder, Student.SplitStandard);
}

/// <summary>What belongs to one skill or another: forms, exits and decisions, by skill.</summary>
public sealed record SkillFacts(
    IReadOnlyList<FormCheck> Forms,
    IReadOnlyList<ExitCheck> Exits,
    IReadOnlyList<(string Skill, StageDecision Decision)> Decisions
)
{
    public Evidence Of(Evidence facts, Ladder ladder, string standard) =>
        facts with
        {
            Standard = ladder.Standards.Count > 0 ? standard : null,
            Forms = [.. Forms.Where(f => f.Ladder == ladder.Skill)],
            Exits = [.. Exits.Where(e => e.Ladder == ladder.Skill)],
            // A stage that this ladder does not have says nothing about it.
            Decisions =
            [
                .. Decisions
                    .Where(d => d.Skill == ladder.Skill && d.Decision.ToStage >= 1 && d.Decision.ToStage <= ladder.Keystone)
                    .Select(d => d.Decision),
            ],
        };
}

/// <summary>One skill of a student, on the version of the ladder that they follow.</summary>
public sealed record SkillStanding(SkillRow Row, Ladder Ladder, Evidence Evidence)
{
    public int StageOf(Side? side) => Evidence.StageOf(side);

    /// <summary>Left and right, or the one bilateral verdict.</summary>
    public IReadOnlyList<GateVerdict> Judge(Gate gate) => [.. Ladder.Courses.Select(side => gate.Judge(Ladder, side, Evidence))];

    /// <summary>Left against right in the ladder's side measure, warm, under the student's standard; none on a bilateral ladder.</summary>
    public SideComparison? Compare(CatalogueContent catalogue)
    {
        if (Ladder.SideMeasureAt(Ladder.Courses.Min(StageOf)) is not { } read)
            return null;
        var measure = catalogue.Measure(read.Measure);
        return measure.Kind == MeasureKind.Hold ? Holds(measure, read.Level) : Ranges(measure, read.Level);
    }

    private SideComparison Ranges(Measure measure, string? level)
    {
        var left = PooledTest.From(Evidence.Of(measure, Side.Left, Warmth.Warm, level)).LastOrDefault();
        var right = PooledTest.From(Evidence.Of(measure, Side.Right, Warmth.Warm, level)).LastOrDefault();
        if (left is null || right is null)
            return new(measure.Key, null, null, null);
        var asymmetry = Asymmetry.Between(left.Estimate, right.Estimate, measure.Better, left.TakenBy == right.TakenBy);
        return new(measure.Key, asymmetry.Change.Difference, asymmetry.Change.Mdc95, asymmetry.Weaker);
    }

    /// <summary>Holds have no standard error: the best are put side by side, and no side is called weaker.</summary>
    private SideComparison Holds(Measure measure, string? level)
    {
        double? Best(Side side) =>
            Evidence.Of(measure, side, Warmth.Warm, level).Where(r => !r.Disqualified).Select(r => (double?)r.Trials.Max()).Max();
        return new(measure.Key, Best(Side.Right) - Best(Side.Left), null, null);
    }
}
