using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Programmes;

namespace Tensarch.Server.Tests.Programmes;

/// <summary>Weeks that are planned, kept, changed by hand, planned again and ended.</summary>
public sealed class ProgrammeTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;
    private DateOnly today;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 4, 4);
        today = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private object Sketch(int minutes = 45, int weeks = 4, params int[] offsets) =>
        StudioClient.Sketch(today, minutes, weeks, [.. (offsets.Length > 0 ? offsets : [0, 2, 5]).Select(o => (o, "pm"))]);

    private Task<HttpResponseMessage> Plan(object sketch, int basedOn = 0, Guid? id = null) => coach.Plan(student, sketch, basedOn, id);

    private Task<HttpResponseMessage> Edit(object edit, int basedOn) =>
        coach.Post(
            $"/students/{student}/programme/edits",
            new
            {
                id = Guid.NewGuid(),
                basedOn,
                edit,
            }
        );

    private static async Task<JsonElement> Read(HttpResponseMessage answer, HttpStatusCode status = HttpStatusCode.Created)
    {
        Assert.True(answer.StatusCode == status, await answer.Content.ReadAsStringAsync());
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static List<JsonElement> Days(JsonElement plan) =>
        [.. plan.GetProperty("weeks").EnumerateArray().SelectMany(w => w.GetProperty("days").EnumerateArray())];

    private static DateOnly DayOf(JsonElement day) => DateOnly.Parse(day.GetProperty("day").GetString()!, null);

    private async Task<JsonElement> Page() => await coach.Get($"/students/{student}/programme");

    private sealed class EndsAlways : IWeekSolver
    {
        public PieceAnswer? Solve(PieceProblem problem) => throw new SolverEndedException();

        public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked) => throw new SolverEndedException();
    }

    [Fact]
    public async Task A_solver_that_ends_is_said_and_nothing_is_kept()
    {
        await using var other = new StudioApp { Solver = new EndsAlways() };
        var owner = await other.Studio();
        var who = await owner.Student();
        await owner.Place(who, 4, 4);
        foreach (var path in new[] { "try", "room" })
            await Ended(await owner.Post($"/students/{who}/programme/{path}", Sketch()));
        await Ended(await owner.Plan(who, Sketch(), 0, Guid.NewGuid()));
        Assert.Equal(JsonValueKind.Null, (await owner.Get($"/students/{who}/programme")).GetProperty("plan").ValueKind);

        static async Task Ended(HttpResponseMessage answer) =>
            Assert.Equal(
                "plannerEnded",
                (await Read(answer, HttpStatusCode.UnprocessableEntity)).GetProperty("errors")[0].GetProperty("code").GetString()
            );
    }

    [Fact]
    public async Task Whoever_is_new_is_suggested_what_they_said_and_planned_for()
    {
        var page = await Page();
        Assert.Equal(JsonValueKind.Null, page.GetProperty("plan").ValueKind);
        Assert.Equal("front-split", page.GetProperty("suggested").GetProperty("goals")[0].GetProperty("skill").GetString());
        Assert.Equal(3, page.GetProperty("suggested").GetProperty("days").GetArrayLength());

        var tried = await Read(await coach.Post($"/students/{student}/programme/try", Sketch()), HttpStatusCode.OK);
        Assert.Equal(0, tried.GetProperty("number").GetInt32());
        Assert.Equal(12, Days(tried).Count);
        Assert.Equal(0, await app.Rows(db => db.Sessions.IgnoreQueryFilters().CountAsync(s => s.StudentId == student)));

        var kept = await Read(await Plan(Sketch()));
        Assert.Equal(
            Days(tried).Select(d => d.GetProperty("blocks").GetRawText()),
            Days(kept).Select(d => d.GetProperty("blocks").GetRawText())
        );
        Assert.True(kept.GetProperty("weeks")[3].GetProperty("backOff").GetBoolean());
        Assert.All(Days(kept), d => Assert.Equal("planned", d.GetProperty("state").GetString()));
        Assert.All(
            kept.GetProperty("loads").EnumerateArray().SelectMany(l => l.GetProperty("weeks").EnumerateArray()),
            w => Assert.True(w.GetProperty("load").GetDouble() <= w.GetProperty("ceiling").GetDouble())
        );
        // Each is a session like any other, and today's is run.
        var first = Days(kept)[0].GetProperty("session").GetGuid();
        Assert.Equal(today.ToString("O"), (await coach.Get($"/sessions/{first}")).GetProperty("plan").GetProperty("date").GetString());
        await coach.Get($"/sessions/{first}/pack");
        Assert.Empty((await Page()).GetProperty("news").EnumerateArray());
    }

    [Fact]
    public async Task Every_session_says_why_it_is_there_and_goes_on_saying_it()
    {
        static List<(string? Kind, double Number)> Why(JsonElement day) =>
            [
                .. day.GetProperty("why")
                    .EnumerateArray()
                    .Select(r =>
                        (
                            r.GetProperty("kind").GetString(),
                            r.GetProperty("number") is { ValueKind: JsonValueKind.Number } n ? n.GetDouble() : 0
                        )
                    ),
            ];
        await Read(await Plan(Sketch(45, 4, 0, 1, 2, 3, 5)));
        var plan = (await Page()).GetProperty("plan");
        foreach (var week in plan.GetProperty("weeks").EnumerateArray())
        {
            var days = week.GetProperty("days").EnumerateArray().ToList();
            Assert.All(days, d => Assert.NotEmpty(Why(d)));
            var exposures = days.SelectMany(Why).Where(r => r.Kind == "exposure").Select(r => r.Number).ToList();
            Assert.Equal(Enumerable.Range(1, exposures.Count).Select(n => (double)n), exposures);
            // Nobody is asked for more than three, and for two in the back-off week.
            Assert.InRange(exposures.Count, 1, week.GetProperty("backOff").GetBoolean() ? 2 : 3);
        }
        var first = plan.GetProperty("weeks")[0].GetProperty("days")[0];
        await Read(
            await Edit(
                new
                {
                    kind = "pin",
                    day = DayOf(first),
                    half = "pm",
                    to = (DateOnly?)null,
                    toHalf = (string?)null,
                },
                1
            )
        );
        Assert.Contains(Why(Days((await Page()).GetProperty("plan"))[0]), r => r.Kind == "pinned");
    }

    [Fact]
    public async Task The_same_request_twice_is_one_version_and_two_coaches_are_told_apart()
    {
        var id = Guid.NewGuid();
        await Read(await Plan(Sketch(), id: id));
        Assert.Equal(HttpStatusCode.OK, (await Plan(Sketch(), id: id)).StatusCode);
        Assert.Equal(HttpStatusCode.Conflict, (await Plan(Sketch(60), id: id)).StatusCode);
        // The other one saw no plan yet.
        var late = await Plan(Sketch(60));
        Assert.Equal(HttpStatusCode.PreconditionFailed, late.StatusCode);
        Assert.Equal(1, (await coach.Get($"/students/{student}/programme/versions")).GetArrayLength());
        await Read(await Plan(Sketch(60), basedOn: 1));
        Assert.Equal(45, Days(await coach.Get($"/students/{student}/programme/versions/1"))[0].GetProperty("minutes").GetInt32());
        Assert.Equal(60, Days(await coach.Get($"/students/{student}/programme/versions/2"))[0].GetProperty("minutes").GetInt32());
    }

    [Fact]
    public async Task A_new_version_changes_the_sessions_that_are_open_and_throws_away_what_is_planned_no_more()
    {
        var one = await Read(await Plan(Sketch()));
        var two = await Read(await Plan(Sketch(45, 4, 0, 3), basedOn: 1));
        Assert.Equal(8, Days(two).Count);
        Assert.Equal(Days(one)[0].GetProperty("session").GetGuid(), Days(two)[0].GetProperty("session").GetGuid());
        var open = await app.Rows(db =>
            db.Sessions.IgnoreQueryFilters().Where(s => s.StudentId == student && s.DeletedAt == null).Select(s => s.Date).ToListAsync()
        );
        Assert.Equal(Days(two).Select(DayOf), open.Order());
    }

    [Fact]
    public async Task A_session_moves_by_hand_where_the_rules_let_it_and_stays_there()
    {
        var plan = await Read(await Plan(Sketch()));
        // The second week: two days that both load the hamstrings heavily, side by side.
        var (wednesday, saturday) = (Days(plan)[4], Days(plan)[5]);
        object Move(JsonElement day, DateOnly to) =>
            new
            {
                kind = "move",
                day = DayOf(day),
                half = "pm",
                to,
            };
        var beside = Move(wednesday, DayOf(saturday).AddDays(-1));
        var tried = await Read(await coach.Post($"/students/{student}/programme/edits/try", new { edit = beside }), HttpStatusCode.OK);
        var refused = tried.GetProperty("refused").EnumerateArray().Select(r => r.GetProperty("code").GetString()).ToList();
        Assert.Contains("tooSoonForRegion", refused);
        Assert.Equal("editRefused", await (await Edit(beside, 1)).Problem(HttpStatusCode.UnprocessableEntity, "edit"));

        var later = Move(wednesday, DayOf(wednesday).AddDays(1));
        var moved = await Read(await Edit(later, 1));
        var there = Days(moved).Single(d => DayOf(d) == DayOf(wednesday).AddDays(1));
        Assert.True(there.GetProperty("pinned").GetBoolean());
        Assert.Equal(wednesday.GetProperty("session").GetGuid(), there.GetProperty("session").GetGuid());
        Assert.DoesNotContain(Days(moved), d => DayOf(d) == DayOf(wednesday));
        // Planned again it is still there, and the day that it left stays free.
        var again = await Read(await Plan(moved.GetProperty("sketch"), 2));
        Assert.Equal(Days(moved).Select(DayOf), Days(again).Select(DayOf));
        Assert.Equal(
            there.GetProperty("blocks").GetRawText(),
            Days(again).Single(d => DayOf(d) == DayOf(there)).GetProperty("blocks").GetRawText()
        );
    }

    [Fact]
    public async Task Missed_sessions_and_new_bars_ask_for_a_new_plan_and_what_was_missed_stays_readable()
    {
        await Read(await Plan(Sketch()));
        app.Time.Advance(TimeSpan.FromDays(6));
        var missed = (await coach.Get("/today"))
            .GetProperty("missed")
            .EnumerateArray()
            .Single(m => m.GetProperty("studentId").GetGuid() == student);
        Assert.Equal(3, missed.GetProperty("sessions").GetInt32());
        var news = (await Page()).GetProperty("news").EnumerateArray().ToList();
        Assert.Contains(news, n => n.GetProperty("code").GetString() == "missed" && n.GetProperty("number").GetInt32() == 3);
        await coach.Answer(student, "knee");
        today = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime);
        var page = await Page();
        var sketch = page.GetProperty("plan").GetProperty("sketch");
        var again = await Read(await Plan(sketch, 1));
        Assert.Equal(3, Days(again).Count(d => d.GetProperty("state").GetString() == "missed"));
        Assert.DoesNotContain(
            (await Page()).GetProperty("news").EnumerateArray(),
            n => n.GetProperty("code").GetString() is "barred" or "outdated"
        );
    }

    [Fact]
    public async Task What_cannot_stand_is_said_at_its_field()
    {
        async Task<string> Code(object sketch, string field) =>
            await (await coach.Post($"/students/{student}/programme/try", sketch)).Problem(HttpStatusCode.UnprocessableEntity, field);
        object Of(object goals, object days) =>
            new
            {
                start = today,
                weeks = 4,
                goals,
                days,
            };
        var goal = new { skill = "front-split", priority = 1 };
        var day = new
        {
            weekday = "monday",
            date = (DateOnly?)null,
            minutes = 45,
            half = "pm",
        };
        Assert.Equal("noGoals", await Code(Of(Array.Empty<object>(), new[] { day }), "goals"));
        Assert.Equal("namedTwice", await Code(Of(new[] { goal, goal }, new[] { day }), "goals[1].skill"));
        Assert.Equal("noTime", await Code(Of(new[] { goal }, Array.Empty<object>()), "days"));
        Assert.Equal("notOnLadder", await Code(Of(new[] { new { skill = "crow", priority = 1 } }, new[] { day }), "goals[0].skill"));
    }

    [Fact]
    public async Task An_ended_plan_leaves_no_session_open()
    {
        await Read(await Plan(Sketch()));
        Assert.Equal(HttpStatusCode.NoContent, (await coach.Post($"/students/{student}/programme/end", new { })).StatusCode);
        Assert.Equal(
            0,
            await app.Rows(db => db.Sessions.IgnoreQueryFilters().CountAsync(s => s.StudentId == student && s.DeletedAt == null))
        );
        Assert.NotEqual(JsonValueKind.Null, (await Page()).GetProperty("plan").GetProperty("endedAt").ValueKind);
        // Whoever still saw it standing is told; whoever saw that it is over begins another one.
        Assert.Equal("changedMeanwhile", await (await Plan(Sketch(), 1)).Problem(HttpStatusCode.PreconditionFailed));
        Assert.Equal(2, (await Read(await coach.Plan(student, Sketch(), 1, ended: true))).GetProperty("number").GetInt32());
    }

    /// <summary>Seconds of work of a dose, its rests left out.</summary>
    private static int WorkOf(JsonElement dose)
    {
        int At(string name) => dose.TryGetProperty(name, out var n) && n.ValueKind == JsonValueKind.Number ? n.GetInt32() : 0;
        return dose.GetProperty("kind").GetString() switch
        {
            "hold" => At("rounds") * (At("seconds") + 5 * At("breaths")),
            "ramped" => At("settleSeconds") + At("rounds") * (At("pressSeconds") + At("liftSeconds") + At("resettleSeconds")),
            "reps" => At("sets") * At("reps") * At("secondsPerRep"),
            "rhythm" => 5 * At("reps"),
            "attempts" => At("attempts") * At("maxSeconds"),
            "supportLadder" => At("rounds") * dose.GetProperty("rungs").EnumerateArray().Sum(r => r.GetProperty("seconds").GetInt32()),
            _ => At("rounds") * 30,
        };
    }

    [Fact]
    public async Task A_session_of_the_weeks_that_is_made_again_stays_what_they_ask_of_it()
    {
        await Read(await Plan(Sketch()));
        // The lightest one there is: made as any other session it would be a whole one.
        var days = Days((await Page()).GetProperty("plan"));
        var light = days.First(d => d.GetProperty("blocks").EnumerateArray().All(b => b.GetProperty("level").GetInt32() < 100));
        var id = light.GetProperty("session").GetString();
        async Task<int> Seconds() =>
            (await coach.Get($"/sessions/{id}"))
                .GetProperty("plan")
                .GetProperty("drills")
                .EnumerateArray()
                .Where(d => d.GetProperty("reason").GetProperty("code").GetString() is "core" or "standIn" or "practice")
                .SelectMany(d => d.GetProperty("sides").EnumerateArray())
                .Sum(s => WorkOf(s.GetProperty("dose")));
        var before = await Seconds();
        var made = await coach.Post($"/sessions/{id}/changes", new { kind = "again" });
        Assert.Equal(HttpStatusCode.OK, made.StatusCode);
        Assert.InRange(await Seconds(), 1, before);
        // Where the weeks have a session already, no other goes: not as a second one either, on the same half of the day.
        object To(bool second) =>
            new
            {
                kind = "move",
                date = today,
                second,
            };
        var asked = await coach.Post($"/sessions/{id}/changes", To(false));
        Assert.Equal("dayHasSession", await asked.Problem(HttpStatusCode.UnprocessableEntity, "date"));
        var moved = await coach.Post($"/sessions/{id}/changes", To(true));
        Assert.Equal("dayTaken", await moved.Problem(HttpStatusCode.UnprocessableEntity, "date"));
    }
}
