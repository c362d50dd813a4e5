using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Skills;

/// <summary>A session that was trained, without its plan.</summary>
public sealed record TrainedSession(Guid Id, Guid StudentId, DateTimeOffset StartedAt, DateOnly StartedOn, Side FirstSide);

/// <summary>One student with everything that is judged: the facts, the stages and the cautions of today.</summary>
/// <param name="Skill">The skill they are on; none before they are put on a ladder.</param>
/// <param name="Answers">The newest answer to each question.</param>
public sealed record Standing(
    StudentRow Student,
    SkillRow? Skill,
    Ladder? Ladder,
    Evidence Evidence,
    IReadOnlyList<ReviewHold> Holds,
    IReadOnlyDictionary<string, AnswerRow> Answers,
    IReadOnlyList<ClearanceRow> Clearances,
    IReadOnlyList<HoldReview> Reviews,
    IReadOnlyList<TrainedSession> Sessions,
    bool Screened
)
{
    public DateOnly? LastSessionOn => Sessions.LastOrDefault()?.StartedOn;

    public int? DaysSinceLast => LastSessionOn is { } last ? Evidence.Today.DayNumber - last.DayNumber : null;

    public Cautions Cautions => Evidence.Cautions;

    public int StageOf(Side side) => Evidence.Decisions.LastOrDefault(d => d.Side == side)?.ToStage ?? 1;

    public GateVerdict Judge(Gate gate, Side side) => gate.Judge(Ladder!, side, StageOf(side), StageOf(side.Other()), Evidence);

    /// <summary>Left against right in the ladder's side measure, warm, under the student's standard; none before both were read.</summary>
    public (string Measure, Asymmetry? Asymmetry) Compare(CatalogueContent catalogue)
    {
        var measure = catalogue.Measure(Ladder!.SideMeasureAt(Math.Min(StageOf(Side.Left), StageOf(Side.Right))));
        var left = PooledTest.From(Evidence.Of(measure, Side.Left, Warmth.Warm)).LastOrDefault();
        var right = PooledTest.From(Evidence.Of(measure, Side.Right, Warmth.Warm)).LastOrDefault();
        return left is null || right is null
            ? (measure.Key, null)
            : (measure.Key, Asymmetry.Between(left.Estimate, right.Estimate, measure.Better, left.TakenBy == right.TakenBy));
    }
}
