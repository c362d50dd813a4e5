using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Programmes;
using Tensarch.Solver;

namespace Tensarch.Server.Tests.Programmes;

/// <summary>A whole roster, planned in the background.</summary>
public sealed class RosterTests : IAsyncLifetime
{
    private readonly StudioApp app = new() { Rosters = true };
    private StudioClient coach = null!;

    public async ValueTask InitializeAsync() => coach = await app.Studio();

    public ValueTask DisposeAsync() => app.DisposeAsync();

    private async Task<Guid> Student(string name, bool placed = true)
    {
        var student = await coach.Student(name);
        if (placed)
            await coach.Place(student, 4, 4);
        return student;
    }

    private async Task<JsonElement> Run(bool alsoNew, Guid? id = null)
    {
        var answer = await coach.Post("/roster-runs", new { id = id ?? Guid.NewGuid(), alsoNew });
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync());
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private Task<JsonElement> Ended() => Ended(coach);

    private static async Task<JsonElement> Ended(StudioClient coach)
    {
        for (var i = 0; i < 600; i++)
        {
            var run = (await coach.Get("/roster-runs/newest")).GetProperty("run");
            if (run.GetProperty("endedAt").ValueKind != JsonValueKind.Null)
                return run;
            await Task.Delay(50);
        }
        throw new TimeoutException("The roster did not end.");
    }

    private static List<string> Outcomes(JsonElement run) =>
        [
            .. run.GetProperty("lines")
                .EnumerateArray()
                .Select(l => $"{l.GetProperty("name").GetString()} {l.GetProperty("outcome").GetString()}"),
        ];

    [Fact]
    public async Task Everybody_is_planned_and_what_cannot_be_does_not_stop_the_rest()
    {
        await Student("Anna");
        await Student("Berit", placed: false);
        var broken = await Student("Carl");
        await Student("Dora");
        // A row that slipped in: its programme names an approach that is gone.
        await app.Rows(async db =>
            await db
                .Skills.IgnoreQueryFilters()
                .Where(s => s.StudentId == broken)
                .ExecuteUpdateAsync(s => s.SetProperty(x => x.Approach, "gone"))
        );
        await Run(alsoNew: true);
        var run = await Ended();
        Assert.Equal(["Anna planned", "Berit skipped", "Carl failed", "Dora planned"], Outcomes(run));
        Assert.Equal(4, run.GetProperty("done").GetInt32());
        Assert.Equal(2, await app.Rows(db => db.Plans.IgnoreQueryFilters().CountAsync(p => p.StudioId == coach.StudioId)));

        // Again, and nothing is another than it was.
        app.Time.Advance(TimeSpan.FromMinutes(1));
        await Run(alsoNew: true);
        Assert.Equal(["Anna same", "Berit skipped", "Carl failed", "Dora same"], Outcomes(await Ended()));
    }

    /// <summary>Ends over what it is asked first.</summary>
    private sealed class EndsOnce : IWeekSolver
    {
        private readonly CpWeekSolver solver = new();
        private int asked;

        public PieceAnswer? Solve(PieceProblem problem) =>
            Interlocked.Increment(ref asked) == 1 ? throw new SolverEndedException() : solver.Solve(problem);

        public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked) => solver.Conflict(problem, asked);
    }

    [Fact]
    public async Task Over_whom_the_solver_ends_is_named_and_the_rest_are_planned()
    {
        await using var other = new StudioApp { Rosters = true, Solver = new EndsOnce() };
        var owner = await other.Studio();
        foreach (var name in new[] { "Anna", "Berit", "Carl" })
            await owner.Place(await owner.Student(name), 4, 4);
        (await owner.Post("/roster-runs", new { id = Guid.NewGuid(), alsoNew = true })).EnsureSuccessStatusCode();
        var lines = (await Ended(owner)).GetProperty("lines").EnumerateArray().ToList();
        var failed = Assert.Single(lines, l => l.GetProperty("outcome").GetString() == "failed");
        Assert.Equal("plannerEnded", failed.GetProperty("code").GetString());
        Assert.Equal(2, lines.Count(l => l.GetProperty("outcome").GetString() == "planned"));
    }

    [Fact]
    public async Task Whose_plan_was_ended_is_planned_anew()
    {
        var anna = await Student("Anna");
        await Run(alsoNew: true);
        await Ended();
        await coach.Post($"/students/{anna}/programme/end", new { });
        app.Time.Advance(TimeSpan.FromMinutes(1));
        await Run(alsoNew: true);
        Assert.Equal(["Anna planned"], Outcomes(await Ended()));
    }

    [Fact]
    public async Task Who_has_no_plan_is_left_alone_where_nobody_asked()
    {
        await Student("Anna");
        await Run(alsoNew: false);
        Assert.Equal(["Anna skipped"], Outcomes(await Ended()));
    }

    [Fact]
    public async Task A_run_that_is_cancelled_leaves_the_rest_as_it_is()
    {
        for (var i = 0; i < 12; i++)
            await Student($"Student {i:00}");
        var run = await Run(alsoNew: true);
        var cancelled = await coach.Post($"/roster-runs/{run.GetProperty("id").GetString()}/cancel", new { });
        Assert.Equal(HttpStatusCode.OK, cancelled.StatusCode);
        var ended = await Ended();
        Assert.Contains(Outcomes(ended), o => o.EndsWith("waiting", StringComparison.Ordinal));
        Assert.Equal(
            Outcomes(ended).Count(o => o.EndsWith("planned", StringComparison.Ordinal)),
            await app.Rows(db => db.Plans.IgnoreQueryFilters().CountAsync(p => p.StudioId == coach.StudioId))
        );
    }

    [Fact]
    public async Task What_did_not_end_goes_on_when_the_server_starts_again()
    {
        await Student("Anna");
        var id = Guid.NewGuid();
        await using (var still = new StudioApp { DataFolder = app.DataFolder })
        {
            // This server plans nothing: it is the one that went down.
            var there = new StudioClient(still.CreateClient(), coach.StudioId, coach.UserId, coach.Email);
            await there.SignIn();
            await there.Post("/roster-runs", new { id, alsoNew = true });
        }
        await using var again = new StudioApp { DataFolder = app.DataFolder, Rosters = true };
        coach = new(again.CreateClient(), coach.StudioId, coach.UserId, coach.Email);
        await coach.SignIn();
        Assert.Equal(["Anna planned"], Outcomes(await Ended()));
    }
}
