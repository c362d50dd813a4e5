using Tensarch.Core.Programmes;
using Tensarch.Solver;

namespace Tensarch.Core.Tests.Programmes;

/// <summary>The solver as the server asks it: in processes of its own, which end with the tests.</summary>
internal static class Solvers
{
    public static IWeekSolver Usual { get; } = new SolverProcess();

    /// <summary>Nothing is left to be saved.</summary>
    public static IWeekSolver Exact { get; } = new SolverProcess(left: 0);

    /// <summary>It ends as good as before it begins.</summary>
    public static IWeekSolver Hasty { get; } = new SolverProcess(1e-7, 0);
}
