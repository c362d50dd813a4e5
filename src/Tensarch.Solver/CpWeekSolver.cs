using Google.OrTools.Sat;
using Tensarch.Core.Programmes;

namespace Tensarch.Solver;

/// <summary>
/// Plans a piece by constraint programming: one choice a session, rules as constraints, wishes as weights. One worker, a fixed seed and a limit
/// that counts work and not time: the same problem has the same answer on any machine.
/// </summary>
/// <param name="work">The limit, in the solver's own deterministic unit: about a second of work.</param>
public sealed class CpWeekSolver(double work = CpWeekSolver.UsualWork) : IWeekSolver
{
    public const double UsualWork = 1;

    /// <summary>Where the limit ends before any plan is found, nothing is proven: it is tried again with so much more.</summary>
    private const int LongerBy = 4;

    private const double MostWork = 64;

    public PieceAnswer? Solve(PieceProblem problem)
    {
        for (var limit = work; ; limit *= LongerBy)
        {
            var model = new PieceModel(problem, RuleBook.Whole);
            var solver = Solver(limit);
            var status = solver.Solve(model.Model);
            if (status == CpSolverStatus.Unknown && limit < MostWork)
                continue;
            return status is CpSolverStatus.Optimal or CpSolverStatus.Feasible
                ? new(
                    [.. model.Chosen.Select(slot => slot.ToList().FindIndex(x => solver.BooleanValue(x)))],
                    (long)Math.Round(solver.ObjectiveValue),
                    (long)Math.Ceiling(solver.BestObjectiveBound - 1e-6)
                )
                : null;
        }
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

    private static CpSolver Solver(double work) =>
        new()
        {
            StringParameters = string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"num_workers:1 random_seed:1 max_deterministic_time:{work} linearization_level:2 symmetry_level:0 add_lp_constraints_lazily:false"
            ),
        };
}
