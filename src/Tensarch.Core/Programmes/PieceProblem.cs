using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>A few weeks to be planned: for each session one of the days that it may be. All that the rules need of it is counted already.</summary>
/// <param name="Slots">In order of time.</param>
/// <param name="Loads">What is limited by the week; a choice's loads are in this order.</param>
/// <param name="Asked">What each goal asks of each week.</param>
/// <param name="Heavy">Tags that were loaded heavily before the first day, by day.</param>
public sealed record PieceProblem(
    IReadOnlyList<PieceSlot> Slots,
    IReadOnlyList<LoadTrack> Loads,
    IReadOnlyList<GoalOfWeek> Asked,
    IReadOnlyList<(DateOnly Day, IReadOnlySet<LoadTag> Tags)> Heavy,
    PlanCosts Costs
);

/// <summary>A session that is to be planned.</summary>
/// <param name="Week">Of the programme, counted from 0.</param>
/// <param name="Choices">At least one.</param>
public sealed record PieceSlot(DateOnly Day, int Week, IReadOnlyList<Choice> Choices);

/// <summary>What a session may be, with what the rules ask of it.</summary>
/// <param name="Cost">Of its own: unfilled minutes, steps down, moving what was seen.</param>
/// <param name="Loads">In the order of the piece's loads.</param>
/// <param name="Heavy">Loaded heavily.</param>
/// <param name="Spacing">Of those, regions that keep so many calendar days clear before.</param>
/// <param name="Tests">Skills that are tested.</param>
/// <param name="Fresh">What must not have been loaded heavily the day before.</param>
/// <param name="Hard">A hard day.</param>
/// <param name="Nerve">It wants fresh nerves.</param>
public sealed record Choice(
    int Cost,
    IReadOnlyList<int> Loads,
    IReadOnlySet<LoadTag> Heavy,
    IReadOnlyDictionary<LoadTag, int> Spacing,
    IReadOnlySet<string> Exposes,
    IReadOnlySet<string> Tests,
    IReadOnlySet<LoadTag> Fresh,
    bool Hard,
    bool Nerve
);

/// <summary>A load that the week limits.</summary>
/// <param name="Key">One side stands for both where they are always the same.</param>
/// <param name="Step">So much more than before is always allowed.</param>
/// <param name="Entry">So much is allowed whatever was before.</param>
/// <param name="Carried">The most that one of the weeks shortly before it loaded: only what is larger is a largest week.</param>
/// <param name="Weeks">By week of the piece.</param>
public sealed record LoadTrack(
    Sessions.LoadKey Key,
    int Step,
    int Entry,
    int GrowthPercent,
    int BackOffPercent,
    int Carried,
    IReadOnlyList<WeekLimit> Weeks
)
{
    /// <returns>
    /// What the largest week costs where it loads so much, if as much as anyone may begin with costs <paramref name="each"/>: only what is above what
    /// was carried counts, rounded up. Of what anyone may begin with, so that no region weighs more than another.
    /// </returns>
    public int CostOf(int load, int each) => (int)Math.Ceiling((double)each * Math.Max(0, load - Carried) / Entry);
}

/// <summary>The limit of one week.</summary>
/// <param name="Week">Of the programme.</param>
/// <param name="Most">Where it is known already: of the first week, and after a long gap; none where the weeks before it decide.</param>
/// <param name="Before">Load of the week before the piece, where that is one of the two that decide.</param>
/// <param name="Done">Load that was done in the week already.</param>
/// <param name="BackOff">A back-off week.</param>
public sealed record WeekLimit(int Week, int? Most, int Before, int Done, bool BackOff);

/// <summary>What a goal asks of a week.</summary>
/// <param name="Exposures">At least so many; each one less costs.</param>
/// <param name="Test">It is tested in this week.</param>
/// <param name="ExtraCost">Of each exposure more than asked for: a back-off week is to have fewer.</param>
public sealed record GoalOfWeek(int Week, string Skill, int Exposures, int MissingCost, bool Test, int ExtraCost = 0);

/// <summary>Chooses for each session of a piece. Same problem, same answer, on any machine.</summary>
public interface IWeekSolver
{
    /// <returns>None where no choice keeps every rule.</returns>
    /// <exception cref="SolverEndedException" />
    PieceAnswer? Solve(PieceProblem problem);

    /// <summary>Why not: rules that cannot all hold.</summary>
    /// <param name="asked">What goals ask for is a rule as well, and not a wish.</param>
    /// <exception cref="SolverEndedException" />
    /// <returns>As few as possible: without any one of them the others hold together. Empty where all rules hold together.</returns>
    IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked);
}

/// <param name="Chosen">By slot, the place of its choice.</param>
/// <param name="Cost">Of all of it.</param>
/// <param name="Bound">No answer costs less than this.</param>
public sealed record PieceAnswer(IReadOnlyList<int> Chosen, long Cost, long Bound)
{
    /// <summary>At most so much of the cost could be saved.</summary>
    public double Gap => (double)(Cost - Bound) / (1000 + Cost);
}

/// <summary>The solver ended over a piece without any answer, whichever way it searched.</summary>
public sealed class SolverEndedException() : Exception("The solver ended over a piece.");
