using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Solver;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>
/// Two coaches and a roster run do at once whatever comes to them with one student's weeks. Whatever the order: what is trained never changes, no part of a day
/// has two sessions, every place says the same, and nothing that was acknowledged is lost.
/// </summary>
public sealed class SessionModelTests
{
    private const int Rounds = 9;
    private const int DaysAhead = 13;

    [Theory]
    [InlineData(1)]
    [InlineData(20)]
    [InlineData(101)]
    public async Task Whatever_is_done_at_once_each_place_says_the_same_and_nothing_is_lost(int seed)
    {
        await using var app = new StudioApp { Solver = new CpWeekSolver(), Rosters = true };
        var una = await app.Studio();
        var tova = await app.Studio(Data.Role.Coach, una.StudioId);
        var student = await una.Student();
        await una.Place(student, 4, 4);
        var studio = new Model(app, una, student, new Random(seed));
        await studio.Plan(una);
        for (var round = 0; round < Rounds; round++)
        {
            await Task.WhenAll(
                studio.Step(una),
                studio.Step(tova),
                studio.Step(tova),
                round % 3 == 1 ? studio.Roster() : Task.CompletedTask
            );
            await studio.Hold();
            if (round % 4 == 3)
                await studio.Tomorrow(una, tova);
        }
        Assert.True(
            studio.Done.Count(d => d.Contains("OK", StringComparison.Ordinal) || d.Contains("Created", StringComparison.Ordinal)) > Rounds,
            string.Join('\n', studio.Done)
        );
    }

    private sealed class Model(StudioApp app, StudioClient coach, Guid student, Random random)
    {
        private readonly Lock chance = new();
        private readonly Dictionary<Guid, string> trained = [];
        private readonly HashSet<Guid> told = [];
        private readonly HashSet<Guid> sets = [];
        private int seq;

        public List<string> Done { get; } = [];

        private DateTimeOffset Now => app.Time.GetUtcNow();

        private DateOnly Today => DateOnly.FromDateTime(Now.UtcDateTime.AddHours(1));

        private int Next(int below)
        {
            lock (chance)
                return random.Next(below);
        }

        private async Task<JsonElement> Page(StudioClient by) => (await by.Get($"/students/{student}/programme")).GetProperty("plan");

        private static IEnumerable<JsonElement> Days(JsonElement plan) =>
            plan.GetProperty("weeks").EnumerateArray().SelectMany(w => w.GetProperty("days").EnumerateArray());

        private async Task Say(string what, HttpResponseMessage answer)
        {
            lock (Done)
                Done.Add($"{what}: {answer.StatusCode}");
            Assert.True((int)answer.StatusCode < 500, $"{what}: {await answer.Content.ReadAsStringAsync()}");
        }

        public async Task Plan(StudioClient by)
        {
            var plan = await Page(by);
            var stands = plan.ValueKind == JsonValueKind.Object;
            var sketch =
                stands && Next(2) == 0
                    ? plan.GetProperty("sketch")
                    : (object)
                        StudioClient.Sketch(
                            Today,
                            30 + 15 * Next(3),
                            4,
                            (Next(2), "pm"),
                            (2 + Next(2), "pm"),
                            (5, Next(2) == 0 ? "am" : "pm")
                        );
            await Say("plan", await by.Plan(student, sketch, stands ? plan.GetProperty("number").GetInt32() : 0));
        }

        public async Task Roster() => await Say("roster", await coach.Post("/roster-runs", new { id = Guid.NewGuid(), alsoNew = true }));

        public async Task Tomorrow(params StudioClient[] coaches)
        {
            app.Time.Advance(TimeSpan.FromDays(1));
            foreach (var one in coaches)
                await one.SignIn();
        }

        public async Task Step(StudioClient by)
        {
            var plan = await Page(by);
            var ids = await app.Rows(db =>
                db.Sessions.IgnoreQueryFilters()
                    .Where(s => s.StudentId == student && s.Date >= Today.AddDays(-2))
                    .Select(s => s.Id)
                    .ToListAsync()
            );
            var session = ids[Next(ids.Count)];
            var date = Today.AddDays(Next(10)).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);
            Task<HttpResponseMessage> Change(string kind, string? to = null) =>
                by.Post(
                    $"/sessions/{session}/changes",
                    new
                    {
                        kind,
                        date = to,
                        id = Guid.NewGuid(),
                    }
                );
            switch (Next(11))
            {
                case 0:
                    await Plan(by);
                    break;
                case 1 or 2:
                    await Say("move", await Change("move", date));
                    break;
                case 3:
                    await Say("delete", await Change("delete"));
                    break;
                case 4:
                    await Say("restore", await Change("restore"));
                    break;
                case 5:
                    await Say("again", await Change("again"));
                    break;
                case 6:
                    await Edit(by, session);
                    break;
                case 7 when Days(plan).Where(d => d.GetProperty("state").GetString() == "planned").ToList() is { Count: > 0 } planned:
                    await Wall(by, plan, planned[Next(planned.Count)], date);
                    break;
                case 8:
                    await Correct(by);
                    break;
                default:
                    await Tell(by, session);
                    break;
            }
        }

        private async Task Edit(StudioClient by, Guid session)
        {
            var sheet = await by.Get($"/sessions/{session}");
            var drills = sheet.GetProperty("plan").GetProperty("drills").EnumerateArray().ToList();
            await Say(
                "edit",
                await by.Post(
                    $"/sessions/{session}/edits",
                    new
                    {
                        id = Guid.NewGuid(),
                        of = sheet.GetProperty("version").GetString(),
                        changes = new[]
                        {
                            new
                            {
                                kind = "cue",
                                id = drills[Next(drills.Count)].GetProperty("id").GetString(),
                                text = $"slow {Next(9)}",
                            },
                        },
                    }
                )
            );
        }

        private async Task Wall(StudioClient by, JsonElement plan, JsonElement day, string to) =>
            await Say(
                "wall",
                await by.Post(
                    $"/students/{student}/programme/edits",
                    new
                    {
                        id = Guid.NewGuid(),
                        basedOn = plan.GetProperty("number").GetInt32(),
                        edit = new
                        {
                            kind = Next(2) == 0 ? "pin" : "move",
                            day = day.GetProperty("day").GetString(),
                            half = day.GetProperty("half").GetString(),
                            to,
                        },
                    }
                )
            );

        private async Task Correct(StudioClient by)
        {
            Guid of;
            lock (sets)
                of = sets.FirstOrDefault();
            await Say(
                "correct",
                await by.Post(
                    $"/students/{student}/corrections",
                    new
                    {
                        id = Guid.NewGuid(),
                        what = "set",
                        of,
                        instead = new { seconds = 20 + Next(20) },
                        reason = "counted again",
                    }
                )
            );
        }

        private async Task Tell(StudioClient by, Guid session)
        {
            var (id, set) = (Guid.NewGuid(), Guid.NewGuid());
            var entry = FloorEntries.EntryOf(session, id, Interlocked.Increment(ref seq), Now, FloorEntries.Set(Now, id: set));
            var answer = await by.Post("/facts", new { sentAt = Now, entries = new[] { entry } });
            await Say("tell", answer);
            if (!answer.IsSuccessStatusCode)
                return;
            if (FloorEntries.Told(await answer.Content.ReadFromJsonAsync<JsonElement>())[0].Is != "stored")
                return;
            lock (sets)
            {
                told.Add(id);
                sets.Add(set);
            }
        }

        /// <summary>Once all that was asked has been answered.</summary>
        public async Task Hold()
        {
            await RosterEnded();
            var rows = await app.Rows(db =>
                db.Sessions.IgnoreQueryFilters()
                    .Where(s => s.StudentId == student)
                    .Select(s => new
                    {
                        s.Id,
                        s.Date,
                        s.Half,
                        Gone = s.DeletedAt != null,
                        s.Plan,
                        s.Planned.PlanJson,
                        Trained = s.Training == null || s.Training.StartedAt == null ? null : (int?)s.Training.Plan,
                    })
                    .ToListAsync()
            );
            Assert.All(rows.Where(r => r is { Gone: false, Half: not null }).GroupBy(r => (r.Date, r.Half)), g => Assert.Single(g));
            foreach (var row in rows.Where(r => r.Trained is not null))
            {
                Assert.False(row.Gone);
                Assert.Equal(row.Plan, row.Trained);
                Assert.Equal(trained.TryGetValue(row.Id, out var before) ? before : trained[row.Id] = row.PlanJson, row.PlanJson);
            }
            Assert.All(trained.Keys, id => Assert.Contains(rows, r => r.Id == id && r.Trained is not null));
            var there = await app.Rows(async db =>
                (
                    await db.Events.IgnoreQueryFilters().Select(e => e.Id).ToListAsync(),
                    await db.Sets.IgnoreQueryFilters().Select(s => s.Id).ToListAsync()
                )
            );
            Assert.Subset(there.Item1.ToHashSet(), told);
            Assert.Subset(there.Item2.ToHashSet(), sets);
            await EverywhereTheSame();
        }

        private async Task<string> Told() =>
            string.Join('\n', Done)
            + string.Join(
                '\n',
                await app.Rows(db =>
                    db.Sessions.IgnoreQueryFilters()
                        .Where(s => s.StudentId == student)
                        .Select(s =>
                            $"{s.Id} {s.Date} {s.Half} gone {s.DeletedAt} plan {s.Plan} {s.Planned.Why} trained {s.Training!.StartedAt}"
                        )
                        .ToListAsync()
                )
            );

        private async Task RosterEnded()
        {
            for (var i = 0; i < 600; i++)
            {
                if ((await coach.Get("/roster-runs/newest")).GetProperty("run") is not { ValueKind: JsonValueKind.Object } run)
                    return;
                if (run.GetProperty("endedAt").ValueKind != JsonValueKind.Null)
                    return;
                await Task.Delay(50);
            }
            throw new TimeoutException("The roster did not end.");
        }

        private async Task EverywhereTheSame()
        {
            var (from, until) = ($"{Today:yyyy-MM-dd}", $"{Today.AddDays(DaysAhead):yyyy-MM-dd}");
            bool InRange(string day) => string.CompareOrdinal(day, from) >= 0 && string.CompareOrdinal(day, until) <= 0;
            var wall = Days(await Page(coach))
                .Where(d => d.GetProperty("session").ValueKind == JsonValueKind.String && InRange(d.GetProperty("day").GetString()!))
                .Select(d => $"{d.GetProperty("day").GetString()} {d.GetProperty("session").GetGuid()}")
                .Order()
                .ToList();
            // One that was moved out of weeks that are over is a session of its own.
            var ofWeeks = await app.Rows(db =>
                db.Sessions.IgnoreQueryFilters().Where(s => s.StudentId == student && s.Half != null).Select(s => s.Id).ToListAsync()
            );
            var listed = (await coach.Get($"/students/{student}/sessions"))
                .EnumerateArray()
                .Where(s => InRange(s.GetProperty("date").GetString()!) && ofWeeks.Contains(s.GetProperty("id").GetGuid()))
                .ToList();
            var list = listed.Select(s => $"{s.GetProperty("date").GetString()} {s.GetProperty("id").GetGuid()}").Order().ToList();
            Assert.True(list.SequenceEqual(wall), $"list {string.Join(", ", list)}\nwall {string.Join(", ", wall)}\n{await Told()}");
            var calendar = (await coach.Http.GetStringAsync($"/api/v1/students/{student}/calendar")).Split("BEGIN:VEVENT");
            foreach (var line in list)
            {
                var (day, id) = (line[..10], Guid.Parse(line[11..]));
                var shown = Assert.Single(calendar, e => e.Contains($"{id:N}", StringComparison.OrdinalIgnoreCase));
                Assert.Contains(day.Replace("-", "", StringComparison.Ordinal), shown, StringComparison.Ordinal);
                Assert.Equal(day, (await coach.Get($"/sessions/{id}")).GetProperty("plan").GetProperty("date").GetString());
            }
            var today = (await coach.Get("/today"))
                .GetProperty("sessions")
                .EnumerateArray()
                .Select(s => s.GetProperty("session").GetGuid())
                .Where(ofWeeks.Contains)
                .Order();
            var trainees = list.Where(l => l.StartsWith(from, StringComparison.Ordinal)).Select(l => Guid.Parse(l[11..])).Order();
            Assert.True(trainees.SequenceEqual(today), $"list {string.Join(", ", list)}\ntoday {string.Join(", ", today)}\n{await Told()}");
            foreach (var pack in (await coach.Get("/sessions/packs")).EnumerateArray().Where(p => !p.GetProperty("ahead").GetBoolean()))
                Assert.Equal(
                    (await coach.Get($"/sessions/{pack.GetProperty("sessionId").GetGuid()}"))
                        .GetProperty("plan")
                        .GetProperty("date")
                        .GetString(),
                    from
                );
        }
    }
}
