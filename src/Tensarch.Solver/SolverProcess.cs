using System.Collections.Concurrent;
using System.Diagnostics;
using System.Text.Json;
using Tensarch.Core.Programmes;

namespace Tensarch.Solver;

/// <summary>
/// Has the weeks solved in processes of its own. The solver is native code, and where that gives up it ends its whole process: then it is one
/// planner that ends, and not the server with all that others are doing. What it ended over is asked once more, to be searched in another way.
/// </summary>
/// <param name="work"><inheritdoc cref="CpWeekSolver" path="/param[@name='work']"/></param>
/// <param name="left"><inheritdoc cref="CpWeekSolver" path="/param[@name='left']"/></param>
/// <param name="start">How a process is started; none for the solver's own.</param>
public sealed class SolverProcess(double work = CpWeekSolver.UsualWork, int left = CpWeekSolver.UsualLeft, ProcessStartInfo? start = null)
    : IWeekSolver,
        IDisposable
{
    private readonly ProcessStartInfo start = Talking(start ?? Own);
    private readonly ConcurrentBag<Process> idle = [];

    /// <exception cref="SolverEndedException">It ended over both ways to search.</exception>
    public PieceAnswer? Solve(PieceProblem problem) => Ask(new(problem, work, left)).Answer;

    /// <exception cref="SolverEndedException">It ended over both ways to search.</exception>
    public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked) => Ask(new(problem, work, left, asked)).Conflict ?? [];

    private static ProcessStartInfo Own =>
        new(
            Path.GetFileNameWithoutExtension(Environment.ProcessPath) == "dotnet" ? Environment.ProcessPath! : "dotnet",
            ["exec", Path.Combine(AppContext.BaseDirectory, $"{typeof(SolverProcess).Assembly.GetName().Name}.dll")]
        );

    private static ProcessStartInfo Talking(ProcessStartInfo start)
    {
        (start.RedirectStandardInput, start.RedirectStandardOutput, start.UseShellExecute) = (true, true, false);
        return start;
    }

    private SolverReply Ask(SolverQuestion question) =>
        Once(question) ?? Once(question with { Again = true }) ?? throw new SolverEndedException();

    /// <returns>None where the process ended over it.</returns>
    private SolverReply? Once(SolverQuestion question)
    {
        var process = Idle() ?? Begin();
        try
        {
            process.StandardInput.WriteLine(SolverWorker.Line(question));
            process.StandardInput.Flush();
            if (process.StandardOutput.ReadLine() is { } line)
            {
                var reply = SolverWorker.Read<SolverReply>(line);
                Keep(process);
                return reply;
            }
        }
        // It ended before it was asked, or in the middle of its answer.
        catch (Exception e) when (e is IOException or JsonException) { }
        End(process);
        return null;
    }

    /// <summary>Behind everything else on the machine: whoever answers a question about a body comes first.</summary>
    private Process Begin()
    {
        var process = Process.Start(start)!;
        try
        {
            process.PriorityClass = ProcessPriorityClass.BelowNormal;
        }
        // It has ended already, or nobody may say so here: it plans all the same.
        catch (Exception e) when (e is InvalidOperationException or System.ComponentModel.Win32Exception) { }
        return process;
    }

    private Process? Idle()
    {
        while (idle.TryTake(out var process))
            if (process.HasExited)
                process.Dispose();
            else
                return process;
        return null;
    }

    private void Keep(Process process)
    {
        if (idle.Count < Environment.ProcessorCount)
            idle.Add(process);
        else
            End(process);
    }

    private static void End(Process process)
    {
        process.Kill();
        process.Dispose();
    }

    public void Dispose()
    {
        while (idle.TryTake(out var process))
            End(process);
    }
}
