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
        var model = new PieceModel(problem);
        var solver = new CpSolver
        {
            StringParameters = string.Create(
                System.Globalization.CultureInfo.InvariantCulture,
                $"num_workers:1 random_seed:1 max_deterministic_time:{work}"
            ),
        };
        var status = solver.Solve(model.Model);
        return status is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? new(
                [.. model.Chosen.Select(slot => slot.ToList().FindIndex(x => solver.BooleanValue(x)))],
                (long)Math.Round(solver.ObjectiveValue),
                (long)Math.Ceiling(solver.BestObjectiveBound - 1e-6)
            )
            : null;
    }
}
