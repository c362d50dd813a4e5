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

    public PieceAnswer? Solve(PieceProblem problem)
    {
        var model = new PieceModel(problem, RuleBook.Whole);
        var solver = Solver();
        return solver.Solve(model.Model) is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? new(
                [.. model.Chosen.Select(slot => slot.ToList().FindIndex(x => solver.BooleanValue(x)))],
                (long)Math.Round(solver.ObjectiveValue),
                (long)Math.Ceiling(solver.BestObjectiveBound - 1e-6)
            )
            : null;
    }

    /// <summary>The solver's own core of assumptions, made smaller by taking away one rule after the other.</summary>
    public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked)
    {
        var rules = RuleBook.Assumed(asked);
        var model = new PieceModel(problem, rules);
        var solver = Solver();
        if (solver.Solve(model.Model) != CpSolverStatus.Infeasible)
            return [];
        var core = rules.Named(solver.SufficientAssumptionsForInfeasibility()).ToHashSet();
        // What says least to a coach goes first.
        foreach (var rule in core.OrderByDescending(r => r.Kind).ToList())
        {
            core.Remove(rule);
            if (Solver().Solve(new PieceModel(problem, RuleBook.Of(core, asked)).Model) != CpSolverStatus.Infeasible)
                core.Add(rule);
        }
        return [.. core.OrderBy(r => r.Kind).ThenBy(r => r.Week).ThenBy(r => r.Day)];
    }

    private CpSolver Solver() =>
        new()
        {
            StringParameters = string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"num_workers:1 random_seed:1 max_deterministic_time:{work}"
            ),
        };
}
