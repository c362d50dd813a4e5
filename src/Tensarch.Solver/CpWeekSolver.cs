using Google.OrTools.Sat;
using Tensarch.Core.Programmes;

namespace Tensarch.Solver;

/// <summary>
/// Plans a piece by constraint programming: one choice a session, rules as constraints, wishes as weights. One worker, a fixed seed and a limit
/// that counts work and not time: the same problem has the same answer on any machine.
/// </summary>
/// <param name="work">The limit of one search, in the solver's own deterministic unit: some seconds of work.</param>
/// <param name="left">The search ends where at most so much could still be saved: less than a step down costs, and under 2 % of any piece.</param>
/// <param name="again">In another way than usual: for what the usual one did not come back from.</param>
public sealed class CpWeekSolver(double work = CpWeekSolver.UsualWork, int left = CpWeekSolver.UsualLeft, bool again = false) : IWeekSolver
{
    public const double UsualWork = 1.5;

    public const int UsualLeft = 19;

    /// <summary>
    /// So many searches at most, from the best answer so far: the first led by the relaxation, the next the solver's own with a seed of its own,
    /// which is seldom stuck where that was.
    /// </summary>
    private const int Searches = 2;

    /// <summary>Where the limit ends before any plan is found, nothing is proven: it is tried again with so much more.</summary>
    private const int LongerBy = 4;

    private const double MostWork = 64;

    /// <summary>The models are small: to probe them takes longer than it saves.</summary>
    private const string Usual = "linearization_level:2 symmetry_level:0 cp_model_probing_level:0";

    /// <summary>Led by the linear relaxation, whole and without cuts: the relaxation is near the end, and what is missing are good plans.</summary>
    private const string Led = $"{Usual} search_branching:LP_SEARCH cut_level:0 add_lp_constraints_lazily:false";

    /// <summary>A week alone is small.</summary>
    private const double WeekWork = 0.05;

    public PieceAnswer? Solve(PieceProblem problem)
    {
        var (begin, limit, found) = (WeekByWeek(problem), work, (PieceAnswer?)null);
        for (var seed = 1; ; seed++)
        {
            var (status, answer) = Solve(problem, seed == 1 ? Led : Usual, limit, found?.Chosen ?? begin, seed);
            found = Better(found, answer);
            if (status is CpSolverStatus.Infeasible || found is null && limit >= MostWork)
                return null;
            if (found is null)
                limit *= LongerBy;
            else if (seed >= Searches || found.Cost - found.Bound <= left)
                return found with { Cost = CostOf(problem, found.Chosen) };
        }
    }

    /// <summary>The answer that costs less, and the most that was proven of either.</summary>
    private static PieceAnswer? Better(PieceAnswer? one, PieceAnswer? other) =>
        one is null || other is null
            ? other ?? one
            : (one.Cost < other.Cost ? one : other) with
            {
                Bound = Math.Max(one.Bound, other.Bound),
            };

    /// <summary>A search that ends early has not always seen how little its answer costs.</summary>
    private long CostOf(PieceProblem problem, IReadOnlyList<int> chosen) =>
        Solve(
            problem with
            {
                Slots = [.. problem.Slots.Select((s, i) => s with { Choices = [s.Choices[chosen[i]]] })],
            },
            Usual,
            MostWork
        ).Answer!.Cost;

    private (CpSolverStatus Status, PieceAnswer? Answer) Solve(
        PieceProblem problem,
        string search,
        double limit,
        IReadOnlyList<int>? begin = null,
        int seed = 1
    )
    {
        var model = new PieceModel(problem, RuleBook.Whole);
        if (begin is not null)
            model.Begin(begin);
        var solver = Solver(limit, search, seed);
        var status = solver.Solve(model.Model);
        return (
            status,
            status is CpSolverStatus.Optimal or CpSolverStatus.Feasible
                ? new(
                    [.. model.Chosen.Select(slot => slot.ToList().FindIndex(x => solver.BooleanValue(x)))],
                    (long)Math.Round(solver.ObjectiveValue),
                    (long)Math.Ceiling(solver.BestObjectiveBound - 1e-6)
                )
                : null
        );
    }

    /// <summary>
    /// Where the search begins: from the lightest of every session, which keeps the rules, so that there is an answer however early it ends; and each
    /// week at its best with those before it. The whole is seldom far from it.
    /// </summary>
    private int[] WeekByWeek(PieceProblem problem)
    {
        var chosen = problem
            .Slots.Select(s => s.Choices.Index().MinBy(c => (c.Item.Spacing.Count, c.Item.Heavy.Count, c.Item.Loads.Sum())).Index)
            .ToArray();
        foreach (var week in problem.Slots.Select(s => s.Week).Distinct())
        {
            var open = problem with
            {
                Slots = [.. problem.Slots.Select((s, i) => s.Week == week ? s : s with { Choices = [s.Choices[chosen[i]]] })],
            };
            if (Solve(open, Usual, WeekWork).Answer is { } answer)
                foreach (var (i, _) in problem.Slots.Index().Where(s => s.Item.Week == week))
                    chosen[i] = answer.Chosen[i];
        }
        return chosen;
    }

    /// <summary>
    /// The solver's own core of assumptions, made smaller by taking away one rule after the other. What says least to a coach goes first, and whole
    /// kinds before single rules: of several true reasons the plainest is left.
    /// </summary>
    public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked)
    {
        var all = RuleBook.Assumed(asked);
        if (Solver(work).Solve(new PieceModel(problem, all).Model) != CpSolverStatus.Infeasible)
            return [];
        bool Conflicts(IReadOnlySet<PieceRule> of) =>
            Solver(work).Solve(new PieceModel(problem, RuleBook.Of(of, asked)).Model) == CpSolverStatus.Infeasible;
        var left = all.Rules.ToHashSet();
        foreach (var kind in left.Select(r => r.Kind).Distinct().OrderDescending().ToList())
            if (left.Where(r => r.Kind != kind).ToHashSet() is var without && Conflicts(without))
                left = without;
        var (assumed, solver) = (RuleBook.Assumed(asked, left), Solver(work));
        solver.Solve(new PieceModel(problem, assumed).Model);
        var core = assumed.Named(solver.SufficientAssumptionsForInfeasibility()).ToHashSet();
        foreach (var rule in core.OrderByDescending(r => r.Kind).ToList())
        {
            core.Remove(rule);
            if (!Conflicts(core))
                core.Add(rule);
        }
        return [.. core.OrderBy(r => r.Kind).ThenBy(r => r.Week).ThenBy(r => r.Day)];
    }

    private CpSolver Solver(double work, string search = Usual, int seed = 1) =>
        new()
        {
            StringParameters = string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"num_workers:1 random_seed:{seed} max_deterministic_time:{work} absolute_gap_limit:{left} cp_model_presolve:{(again ? "false" : "true")} {search}"
            ),
        };
}
