using System.Diagnostics;
using Tensarch.Core.Programmes;

namespace Tensarch.Weeks;

/// <summary>A solver with its watch: keeps what it solved.</summary>
internal sealed class TimedSolver(IWeekSolver solver) : IWeekSolver
{
    /// <summary>In milliseconds.</summary>
    public List<double> Times { get; } = [];

    public List<(PieceProblem Problem, PieceAnswer Answer)> Solved { get; } = [];

    public PieceAnswer? Solve(PieceProblem problem)
    {
        var watch = Stopwatch.StartNew();
        var answer = solver.Solve(problem);
        Times.Add(watch.Elapsed.TotalMilliseconds);
        if (answer is not null)
            Solved.Add((problem, answer));
        return answer;
    }

    public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked) => solver.Conflict(problem, asked);
}
