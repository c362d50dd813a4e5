using System.Diagnostics;
using CsCheck;
using Tensarch.Core.Programmes;
using Tensarch.Solver;

namespace Tensarch.Core.Tests.Programmes;

/// <summary>The solver in processes of its own, and what is left when one of them ends.</summary>
public sealed class SolverProcessTests : IDisposable
{
    private static readonly string Worker = Path.Combine(AppContext.BaseDirectory, "Tensarch.Solver.dll");
    private static readonly PieceProblem Problem = SolverTests.AnyProblem.Where(p => Solvers.Usual.Solve(p) is not null).Single();

    private readonly string marks = Directory.CreateTempSubdirectory("solver-").FullName;

    public void Dispose() => Directory.Delete(marks, true);

    private SolverProcess Of(string script) =>
        new(start: new ProcessStartInfo("sh", ["-c", script]) { Environment = { ["MARKS"] = marks, ["WORKER"] = Worker } });

    private int Started => Directory.GetFiles(marks).Length;

    /// <summary>Asks twice, here and there, and holds that it is the same.</summary>
    private sealed class Comparing(IWeekSolver there) : IWeekSolver
    {
        private readonly CpWeekSolver here = new();

        public int Pieces { get; private set; }

        public PieceAnswer? Solve(PieceProblem problem)
        {
            var (one, other) = (here.Solve(problem), there.Solve(problem));
            Assert.Equal((one?.Cost, one?.Bound), (other?.Cost, other?.Bound));
            Assert.Equal(one?.Chosen, other?.Chosen);
            Pieces++;
            return one;
        }

        public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked)
        {
            var core = here.Conflict(problem, asked);
            Assert.Equal(core, there.Conflict(problem, asked));
            return core;
        }
    }

    [Fact]
    public void It_answers_what_the_solver_answers()
    {
        using var process = new SolverProcess();
        var comparing = new Comparing(process);
        var who = Students.Middle(("handstand", 4), ("front-split", 3));
        var made = Students.For(who, Students.Weekly(who, 8, (DayOfWeek.Monday, 45), (DayOfWeek.Wednesday, 30), (DayOfWeek.Saturday, 60)));
        Assert.True(new Planner(Shipped.Content, comparing).Plan(made).IsOk);
        Assert.True(comparing.Pieces > 1);
    }

    /// <summary>Found by a long search: its presolve ends the library's process (<c>absl::btree_map::at</c>, version 9.15).</summary>
    [Fact]
    public void A_piece_that_ends_the_library_has_its_plan()
    {
        var asked = SolverWorker.Read<SolverQuestion>(
            File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Programmes/ends-the-library.json"))
        );
        var answer = Solvers.Exact.Solve(asked.Problem)!;
        var best = SolverTests.Every(asked.Problem).Select(a => SolverTests.CostOf(asked.Problem, a)).Where(c => c is not null).Min();
        Assert.Equal(best, answer.Cost);
        Assert.Equal(best, SolverTests.CostOf(asked.Problem, answer.Chosen));
    }

    [Fact]
    public void What_it_ends_over_is_asked_once_more_in_another_process()
    {
        // The first one ends over its question as native code does; the ones after it work.
        using var process = Of(
            "touch $MARKS/$$; [ $(ls $MARKS | wc -l) -gt 1 ] || { read line; kill -ABRT $$; }; exec dotnet exec $WORKER"
        );
        var answer = process.Solve(Problem);
        Assert.Equal(new CpWeekSolver(again: true).Solve(Problem)!.Chosen, answer!.Chosen);
        Assert.Equal(2, Started);
        Assert.NotNull(process.Solve(Problem));
        Assert.Equal(2, Started);
    }

    [Fact]
    public void One_that_ends_every_time_says_so()
    {
        using var process = Of("touch $MARKS/$$; read line; kill -ABRT $$");
        Assert.Throws<SolverEndedException>(() => process.Solve(Problem));
        Assert.Throws<SolverEndedException>(() => process.Conflict(Problem, true));
        Assert.Equal(4, Started);
    }

    [Fact]
    public void One_that_ends_in_the_middle_of_its_answer_has_not_answered()
    {
        using var process = Of(
            "touch $MARKS/$$; [ $(ls $MARKS | wc -l) -gt 1 ] || { read line; printf '{\"answer\":{\"cho'; exit 1; }; exec dotnet exec $WORKER"
        );
        Assert.NotNull(process.Solve(Problem));
        Assert.Equal(2, Started);
    }

    [Fact]
    public void One_that_ended_while_it_waited_is_no_loss()
    {
        using var process = Of("touch $MARKS/$$; head -n 1 | dotnet exec $WORKER");
        for (var i = 0; i < 3; i++)
            Assert.NotNull(process.Solve(Problem));
    }

    /// <summary>The other way to search keeps the rules as well, and is as good.</summary>
    [Fact]
    public void The_other_way_is_as_good() =>
        SolverTests.AnyProblem.Sample(
            problem =>
            {
                var (usual, other) = (Solvers.Exact.Solve(problem), new CpWeekSolver(left: 0, again: true).Solve(problem));
                Assert.Equal(usual?.Cost, other?.Cost);
                if (other is not null)
                    Assert.Equal(other.Cost, SolverTests.CostOf(problem, other.Chosen));
            },
            time: Budget.Seconds,
            threads: 1
        );
}
