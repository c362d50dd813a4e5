using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Programmes;
using Tensarch.Solver;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>Sessions of planned weeks under commands from every side: what is trained stays, and each place says the same of the rest.</summary>
public sealed class SessionCommandTests : IAsyncLifetime
{
    /// <summary>Plans like the real one, and lets something happen first.</summary>
    private sealed class WhileSolving : IWeekSolver
    {
        private readonly CpWeekSolver solver = new();

        public Func<Task>? Happens { get; set; }

        public PieceAnswer? Solve(PieceProblem problem)
        {
            if (Happens is { } once)
            {
                Happens = null;
                once().GetAwaiter().GetResult();
            }
            return solver.Solve(problem);
        }

        public IReadOnlyList<PieceRule> Conflict(PieceProblem problem, bool asked) => solver.Conflict(problem, asked);
    }

    private readonly WhileSolving solving = new();
    private StudioApp app = null!;
    private StudioClient coach = null!;
    private Guid student;
    private DateOnly today;

    public async ValueTask InitializeAsync()
    {
        app = new() { Solver = solving };
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 4, 4);
        today = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime);
    }

    public async ValueTask DisposeAsync() => await app.DisposeAsync();

    private DateTimeOffset Now => app.Time.GetUtcNow();

    private object Sketch(int minutes = 45) => StudioClient.Sketch(today, minutes, 4, (0, "pm"), (2, "pm"), (5, "pm"));

    private async Task<int> Number() =>
        (await Page()).GetProperty("plan") is { ValueKind: JsonValueKind.Object } plan ? plan.GetProperty("number").GetInt32() : 0;

    private async Task<JsonElement> Page() => await coach.Get($"/students/{student}/programme");

    private async Task<List<JsonElement>> Days() =>
        [
            .. (await Page())
                .GetProperty("plan")
                .GetProperty("weeks")
                .EnumerateArray()
                .SelectMany(w => w.GetProperty("days").EnumerateArray()),
        ];

    private async Task Plan(int minutes = 45, object? sketch = null)
    {
        var planned = await coach.Plan(student, sketch ?? Sketch(minutes), await Number());
        Assert.True(planned.StatusCode == HttpStatusCode.Created, await planned.Content.ReadAsStringAsync());
    }

    private async Task<Guid> SessionOn(DateOnly day) =>
        (await Days()).Single(d => d.GetProperty("day").GetString() == $"{day:yyyy-MM-dd}").GetProperty("session").GetGuid();

    private Task<HttpResponseMessage> Change(Guid session, string kind, DateOnly? date = null, Guid? id = null, int? seen = null) =>
        coach.Post(
            $"/sessions/{session}/changes",
            new
            {
                kind,
                date,
                id,
                seen,
            }
        );

    private async Task Changed(Guid session, string kind, DateOnly? date = null)
    {
        var changed = await Change(session, kind, date);
        Assert.True(changed.IsSuccessStatusCode, await changed.Content.ReadAsStringAsync());
    }

    /// <summary>Every place that shows what is planned: by day, the weeks, the list and the calendar.</summary>
    private async Task<string[]> Everywhere(DateOnly from, DateOnly until)
    {
        var wall = (await Days())
            .Where(d => d.GetProperty("state").GetString() is "planned" or "running" or "done" or "missed")
            .Select(d => (Day: d.GetProperty("day").GetString()!, Session: d.GetProperty("session").GetGuid()))
            .Where(d => InRange(d.Day))
            .Select(d => $"{d.Day} {d.Session}")
            .Order()
            .ToArray();
        var list = (await coach.Get($"/students/{student}/sessions"))
            .EnumerateArray()
            .Select(s => (Day: s.GetProperty("date").GetString()!, Session: s.GetProperty("id").GetGuid()))
            .Where(d => InRange(d.Day))
            .Select(d => $"{d.Day} {d.Session}")
            .Order()
            .ToArray();
        Assert.Equal(list, wall);
        var calendar = await coach.Http.GetStringAsync($"/api/v1/students/{student}/calendar");
        foreach (var line in list)
        {
            var (day, id) = (line.Split(' ')[0], line.Split(' ')[1]);
            var at = calendar.IndexOf(Guid.Parse(id).ToString("N"), StringComparison.OrdinalIgnoreCase);
            Assert.True(at >= 0, line);
            var end = calendar.IndexOf("END:VEVENT", at, StringComparison.Ordinal);
            var begin = calendar.LastIndexOf("BEGIN:VEVENT", at, StringComparison.Ordinal);
            Assert.Contains(day.Replace("-", "", StringComparison.Ordinal), calendar[begin..end], StringComparison.Ordinal);
            Assert.Equal(day, (await coach.Get($"/sessions/{id}")).GetProperty("plan").GetProperty("date").GetString());
        }
        return list;

        bool InRange(string day) =>
            string.CompareOrdinal(day, $"{from:yyyy-MM-dd}") >= 0 && string.CompareOrdinal(day, $"{until:yyyy-MM-dd}") <= 0;
    }

    private Task<HttpResponseMessage> Begin(Guid session, int? plan = null) => Tell(session, plan, FloorEntries.Set(Now));

    private Task<HttpResponseMessage> Tell(Guid session, int? plan, params object[] facts) =>
        coach.Post(
            "/facts",
            new
            {
                sentAt = Now,
                entries = new[]
                {
                    new
                    {
                        @event = new
                        {
                            id = Guid.NewGuid(),
                            session,
                            seq = 1,
                            at = Now,
                            said = """{"is":"started"}""",
                            plan,
                        },
                        facts,
                    },
                },
            }
        );

    [Fact]
    public async Task A_session_that_begins_while_its_weeks_are_planned_anew_stays_what_it_is()
    {
        await Plan(60);
        var session = await SessionOn(today);
        var before = (await coach.Get($"/sessions/{session}")).GetProperty("plan").GetRawText();
        solving.Happens = async () => Assert.True((await Begin(session)).IsSuccessStatusCode);
        await Plan(30);
        Assert.Null(solving.Happens);
        Assert.Equal(before, (await coach.Get($"/sessions/{session}")).GetProperty("plan").GetRawText());
        Assert.Contains($"{today:yyyy-MM-dd} {session}", await Everywhere(today, today.AddDays(10)));
        Assert.All(
            await Days(),
            d =>
                Assert.Equal(
                    d.GetProperty("session").ValueKind == JsonValueKind.String && d.GetProperty("session").GetGuid() == session ? 60 : 30,
                    d.GetProperty("minutes").GetInt32()
                )
        );
    }

    [Fact]
    public async Task A_runner_that_has_only_begun_keeps_its_session_through_a_plan_without_its_day()
    {
        await Plan();
        var session = await SessionOn(today);
        Assert.True((await Tell(session, null)).IsSuccessStatusCode);
        await Plan(sketch: StudioClient.Sketch(today, 45, 4, (2, "pm"), (5, "pm")));
        Assert.False((await coach.Get($"/sessions/{session}")).GetProperty("deleted").GetBoolean());
        Assert.True((await Begin(session)).IsSuccessStatusCode);
        Assert.NotEqual(JsonValueKind.Null, (await coach.Get($"/sessions/{session}")).GetProperty("startedAt").ValueKind);
    }

    [Fact]
    public async Task What_was_trained_by_an_older_plan_without_the_network_is_told_as_it_was()
    {
        await Plan(60);
        var session = await SessionOn(today);
        var pack = await coach.Get($"/sessions/{session}/pack");
        var ran = (await coach.Get($"/sessions/{session}")).GetProperty("plan").GetRawText();
        await Plan(30);
        Assert.NotEqual(ran, (await coach.Get($"/sessions/{session}")).GetProperty("plan").GetRawText());
        await Plan(sketch: StudioClient.Sketch(today, 45, 4, (2, "pm"), (5, "pm")));
        Assert.True((await coach.Get($"/sessions/{session}")).GetProperty("deleted").GetBoolean());
        app.Time.Advance(TimeSpan.FromMinutes(40));
        Assert.True((await Begin(session, pack.GetProperty("plan").GetInt32())).IsSuccessStatusCode);
        Assert.Equal(ran, (await coach.Get($"/sessions/{session}")).GetProperty("plan").GetRawText());
        foreach (var (kind, date) in new[] { ("delete", (DateOnly?)null), ("move", today.AddDays(1)), ("again", null), ("takeBack", null) })
            Assert.Equal("alreadyBegun", await (await Change(session, kind, date)).Problem(HttpStatusCode.UnprocessableEntity, "kind"));
        await Plan(45);
        Assert.Equal(ran, (await coach.Get($"/sessions/{session}")).GetProperty("plan").GetRawText());
        Assert.Equal(1, (await coach.Get("/today")).GetProperty("sessions").GetArrayLength());
    }

    [Fact]
    public async Task What_moves_on_its_own_page_moves_everywhere_and_does_not_come_back()
    {
        await Plan();
        var (from, to) = (today.AddDays(5), today.AddDays(4));
        var session = await SessionOn(from);
        await Changed(session, "move", to);
        var moved = await Everywhere(today, today.AddDays(8));
        Assert.Contains($"{to:yyyy-MM-dd} {session}", moved);
        await Plan(sketch: (await Page()).GetProperty("plan").GetProperty("sketch"));
        await Plan(sketch: (await Page()).GetProperty("plan").GetProperty("sketch"));
        Assert.Equal(moved, await Everywhere(today, today.AddDays(8)));
        // And back, as the page offers to.
        await Changed(session, "move", from);
        await Plan(sketch: (await Page()).GetProperty("plan").GetProperty("sketch"));
        var back = await Everywhere(today, today.AddDays(8));
        Assert.Contains($"{from:yyyy-MM-dd} {session}", back);
        Assert.Equal(moved.Length, back.Length);
    }

    [Fact]
    public async Task What_is_thrown_away_on_its_own_page_stays_away_and_comes_back_when_it_is_brought_back()
    {
        await Plan();
        var session = await SessionOn(today.AddDays(2));
        var before = await Everywhere(today, today.AddDays(8));
        await Changed(session, "delete");
        var without = before.Where(l => !l.EndsWith($"{session}", StringComparison.Ordinal)).ToArray();
        Assert.Equal(without, await Everywhere(today, today.AddDays(8)));
        Assert.Contains(await Days(), d => d.GetProperty("state").GetString() == "dropped");
        await Plan();
        await Plan(30);
        Assert.Equal(without.Length, (await Everywhere(today, today.AddDays(8))).Length);
        Assert.DoesNotContain(
            await Everywhere(today, today.AddDays(8)),
            l => l.StartsWith($"{today.AddDays(2):yyyy-MM-dd}", StringComparison.Ordinal)
        );
        await Changed(session, "restore");
        Assert.Contains($"{today.AddDays(2):yyyy-MM-dd} {session}", await Everywhere(today, today.AddDays(8)));
    }

    [Fact]
    public async Task What_is_made_again_on_its_own_page_is_there_once()
    {
        await Plan();
        var session = await SessionOn(today);
        var before = await Everywhere(today, today.AddDays(8));
        await Changed(session, "again");
        Assert.Equal(before, await Everywhere(today, today.AddDays(8)));
        await Plan();
        Assert.Equal(before, await Everywhere(today, today.AddDays(8)));
    }

    [Fact]
    public async Task After_two_goals_change_places_each_session_names_what_it_is_for_and_is_run()
    {
        Assert.Equal(HttpStatusCode.Created, (await coach.Start(student, "deep-squat", (null, 2))).StatusCode);
        object Goals(params string[] skills) =>
            new
            {
                start = today,
                weeks = 4,
                goals = skills.Select((skill, i) => new { skill, priority = i + 1 }),
                days = new[] { 0, 2, 5 }.Select(o => new
                {
                    weekday = today.AddDays(o).DayOfWeek.ToString().ToLowerInvariant(),
                    date = (DateOnly?)null,
                    minutes = 45,
                    half = "pm",
                }),
            };
        await Plan(sketch: Goals("front-split", "deep-squat"));
        await Plan(sketch: Goals("deep-squat", "front-split"));
        foreach (var day in await Days())
        {
            var sheet = await coach.Get($"/sessions/{day.GetProperty("session").GetGuid()}");
            var plan = sheet.GetProperty("plan");
            Assert.Equal(plan.GetProperty("skill").GetString(), sheet.GetProperty("skill").GetString());
            Assert.Contains(
                day.GetProperty("blocks").EnumerateArray(),
                b => b.GetProperty("skill").GetString() == sheet.GetProperty("skill").GetString()
            );
        }
        await coach.Get($"/sessions/{await SessionOn(today)}/pack");
    }

    [Fact]
    public async Task A_command_is_made_on_what_was_seen_and_answers_the_same_when_it_is_sent_again()
    {
        await Plan();
        var session = await SessionOn(today.AddDays(2));
        var seen = (await coach.Get($"/sessions/{session}")).GetProperty("version").GetString()!;
        var id = Guid.NewGuid();
        var first = await Change(session, "delete", id: id, seen: int.Parse(seen, null));
        Assert.Equal(HttpStatusCode.OK, first.StatusCode);
        await Changed(session, "restore");
        var again = await Change(session, "delete", id: id, seen: int.Parse(seen, null));
        Assert.Equal(await first.Content.ReadAsStringAsync(), await again.Content.ReadAsStringAsync());
        Assert.False((await coach.Get($"/sessions/{session}")).GetProperty("deleted").GetBoolean());
        Assert.Equal("idTaken", await (await Change(session, "again", id: id)).Problem(HttpStatusCode.Conflict));
        var late = await Change(session, "delete", id: Guid.NewGuid(), seen: int.Parse(seen, null));
        Assert.Equal(HttpStatusCode.PreconditionFailed, late.StatusCode);
        var both = await late.Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal("changedMeanwhile", both.GetProperty("code").GetString());
        Assert.True(both.GetProperty("now").GetProperty("version").GetInt32() > int.Parse(seen, null));
    }

    [Fact]
    public async Task A_plan_under_which_the_facts_keep_changing_is_not_kept()
    {
        await Plan();
        var number = await Number();
        async Task Hurts()
        {
            Assert.Equal(
                HttpStatusCode.Created,
                (
                    await coach.Post(
                        $"/students/{student}/readings",
                        StudioClient.Reading("passive-slr", "left", [80, 80, 80], Guid.NewGuid(), pain: 5)
                    )
                ).StatusCode
            );
            solving.Happens = Hurts;
        }
        solving.Happens = Hurts;
        var late = await coach.Plan(student, Sketch(30), number);
        solving.Happens = null;
        Assert.Equal("changedMeanwhile", await late.Problem(HttpStatusCode.PreconditionFailed, "basedOn"));
        Assert.Equal(number, await Number());
    }

    [Fact]
    public async Task A_coachs_hand_passes_neither_the_step_of_the_week_nor_its_ceiling()
    {
        app.Time.Advance(TimeSpan.FromDays(8));
        await coach.SignIn();
        today = DateOnly.FromDateTime(Now.UtcDateTime);
        await Plan();
        var session = await SessionOn(today);
        var sheet = await coach.Get($"/sessions/{session}");
        var ramp = sheet
            .GetProperty("plan")
            .GetProperty("drills")
            .EnumerateArray()
            .First(d => d.GetProperty("sides")[0].GetProperty("dose").GetProperty("kind").GetString() == "ramped")
            .GetProperty("id")
            .GetString();
        object Edit(object dose) =>
            new
            {
                id = Guid.NewGuid(),
                of = sheet.GetProperty("version").GetString(),
                changes = new[]
                {
                    new
                    {
                        kind = "dose",
                        id = ramp,
                        dose,
                    },
                },
            };
        var hard = await coach.Post($"/sessions/{session}/edits", Edit(new { rounds = 10, toPercent = 100 }));
        var said = await hard.Content.ReadAsStringAsync();
        Assert.Equal(HttpStatusCode.UnprocessableEntity, hard.StatusCode);
        Assert.Contains("overStep", said, StringComparison.Ordinal);
        Assert.Contains("overWeeksLoad", said, StringComparison.Ordinal);
        // On its own session of the same day as well, with nobody's weeks around it.
        await coach.Post($"/students/{student}/programme/end", new { });
        var own = await coach.Session(student);
        sheet = await coach.Get($"/sessions/{own}");
        var alone = await coach.Post(
            $"/sessions/{own}/edits",
            Edit(
                new
                {
                    rounds = 10,
                    toPercent = 60,
                    pressSeconds = 60,
                    liftSeconds = 60,
                }
            )
        );
        Assert.Equal("editRefused", await alone.Problem(HttpStatusCode.UnprocessableEntity, "overWeeksLoad"));
    }

    [Fact]
    public async Task Whoever_trains_every_day_is_given_no_more_than_the_week_holds()
    {
        app.Time.Advance(TimeSpan.FromDays(9));
        await coach.SignIn();
        var monday = WeekAround.MondayOf(DateOnly.FromDateTime(Now.UtcDateTime));
        var made = new List<Guid>();
        for (var i = 0; i < 6; i++)
        {
            today = DateOnly.FromDateTime(Now.UtcDateTime);
            var answer = await coach.Post(
                $"/students/{student}/sessions",
                new
                {
                    id = Guid.NewGuid(),
                    date = (string?)null,
                    minutes = 90,
                    second = true,
                }
            );
            if (answer.StatusCode == HttpStatusCode.Created)
                made.Add((await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("id").GetGuid());
            else
                Assert.Equal("weekFull", await answer.Problem(HttpStatusCode.UnprocessableEntity, "date"));
        }
        Assert.NotEmpty(made);
        var over = await app.Rows(async db =>
        {
            var plans = await db.PlanVersions.IgnoreQueryFilters().Where(p => made.Contains(p.SessionId)).ToListAsync();
            var content = Core.Catalogue.ContentLoader.Load();
            var history = plans.Aggregate(
                Core.Sessions.TrainingHistory.None,
                (done, p) =>
                {
                    var plan = Data.StoredJson.Read<Core.Planning.SessionPlan>(p.PlanJson);
                    return done.With(plan.Date, Core.Sessions.Work.Planned(plan, content), content);
                }
            );
            var ceiling = new LoadCeiling(content.Programme.Load, monday);
            return LoadCeiling
                .Counted.Select(t => new Core.Sessions.LoadKey(t, Core.Side.Left))
                .Where(k => history.Week(monday)[k] > ceiling.Of(k, 0, Core.Sessions.TrainingHistory.None))
                .Select(k => $"{k} {history.Week(monday)[k]}")
                .ToList();
        });
        Assert.Empty(over);
    }
}
