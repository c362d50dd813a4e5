using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Sessions;
using Tensarch.Server.Demo;
using Tensarch.Server.Tests.Sessions;

namespace Tensarch.Server.Tests.OldData;

/// <summary>
/// A studio of before plans had versions and sessions trainings: moved, edited, deleted, begun, doubled sessions, programmes, corrections, a
/// roster run, feeds; and a device that still holds what was said to it.
/// </summary>
public sealed class BeforeTrainingsTests : IAsyncLifetime
{
    private static readonly FrozenStudio Old = new("2026-12-01", new(2026, 12, 1, 12, 31, 0, TimeSpan.Zero));
    private readonly StudioApp app = Old.Open();
    private StudioClient coach = null!;
    private JsonElement said;

    public async ValueTask InitializeAsync()
    {
        coach = await FrozenStudio.SignIn(app, DemoStudio.Accounts[0]);
        said = await Old.Read("said.json");
    }

    public ValueTask DisposeAsync() => app.DisposeAsync();

    private Task<JsonElement> Sheet(JsonElement session) => coach.Get($"/sessions/{session.GetString()}");

    [Fact]
    public async Task Every_page_answers_and_the_links_that_were_given_away_do()
    {
        foreach (var page in await Pages.Of(app, coach))
            Assert.True((await coach.Http.GetAsync("/api/v1" + page)).StatusCode == HttpStatusCode.OK, page);
        foreach (var feed in said.GetProperty("feeds").EnumerateArray())
            Assert.StartsWith("BEGIN:VCALENDAR", await app.CreateClient().GetStringAsync(feed.GetString()), StringComparison.Ordinal);
    }

    [Fact]
    public async Task What_was_barred_is_barred_no_less()
    {
        var students = (await coach.Get("/students")).GetProperty("students").EnumerateArray();
        var ids = students.ToDictionary(s => s.GetProperty("name").GetString()!, s => s.GetProperty("id").GetString());
        foreach (var student in (await Old.Read("bars.json")).EnumerateObject())
        {
            var tags = (await coach.Get($"/students/{ids[student.Name]}")).GetProperty("bars").GetProperty("tags").EnumerateArray();
            var now = tags.ToDictionary(t => t.GetProperty("tag").GetString()!, t => t.GetProperty("level").GetString());
            foreach (var tag in student.Value.EnumerateObject())
                Assert.True(
                    now.GetValueOrDefault(tag.Name) is { } level && (level == "offLimits" || level == tag.Value.GetString()),
                    $"{student.Name}: {tag.Name} was {tag.Value}"
                );
        }
    }

    [Fact]
    public async Task What_was_done_with_sessions_stands_as_it_stood()
    {
        foreach (var moved in new[] { "movedOnTheWall", "movedOnItsPage", "movedLast" })
            if (said.GetProperty(moved) is var was && moved != "movedOnItsPage")
                Assert.Equal(
                    was.GetProperty("to").GetString(),
                    (await Sheet(was.GetProperty("session"))).GetProperty("plan").GetProperty("date").GetString()
                );
        Assert.Contains(
            (await Sheet(said.GetProperty("edited"))).GetProperty("plan").GetProperty("drills").EnumerateArray(),
            d => d.GetProperty("note").GetString() == "Slower than last week."
        );
        var begun = await Sheet(said.GetProperty("begun"));
        Assert.NotEqual(JsonValueKind.Null, begun.GetProperty("startedAt").ValueKind);
        Assert.Equal(JsonValueKind.Null, begun.GetProperty("endedAt").ValueKind);
        Assert.Contains(
            begun.GetProperty("done").EnumerateArray(),
            d => d.GetProperty("longestSeconds").ValueKind == JsonValueKind.Number && d.GetProperty("longestSeconds").GetDouble() == 21
        );
        Assert.Equal(2, (await Sheet(said.GetProperty("doubled"))).GetProperty("doubled").GetInt32());
        Assert.NotEqual(JsonValueKind.Null, (await Sheet(said.GetProperty("loggedByHand"))).GetProperty("endedAt").ValueKind);
    }

    [Fact]
    public async Task Work_that_was_kept_without_its_instants_is_drawn_again()
    {
        var kept = await app.Rows(db =>
            db.Trainings.IgnoreQueryFilters()
                .Where(s => s.StartedAt != null && db.Sets.IgnoreQueryFilters().Any(x => x.SessionId == s.SessionId))
                .Select(s => s.Worked)
                .ToListAsync()
        );
        Assert.True(kept.Count > 300, $"{kept.Count}");
        Assert.All(kept, worked => Assert.All(worked, w => Assert.NotNull(Work.Parse(w)!.When)));
        Assert.All(kept, Assert.NotEmpty);
    }

    [Fact]
    public async Task What_a_device_still_holds_is_taken_once_as_its_shell_sends_it()
    {
        var device = await Old.Read("device.json.gz");
        var session = said.GetProperty("onTheDevice").GetGuid();
        var kept = device.GetProperty("entries").EnumerateArray().ToList();
        var entries = kept.Select(k => Travelling(session, k.GetProperty("entry"))).ToList();
        Assert.Equal((16, 14), (entries.Count, kept.Count(k => k.GetProperty("state").GetString() == "waiting")));
        var body = new
        {
            sentAt = Old.At,
            author = kept[0].GetProperty("author").GetGuid(),
            device = device.GetProperty("localStorage").GetProperty("device").GetGuid(),
            entries,
        };
        for (var time = 0; time < 2; time++)
        {
            var answer = await coach.Post("/facts", body);
            Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
            var told = FloorEntries.Told(await answer.Content.ReadFromJsonAsync<JsonElement>());
            Assert.Equal(
                kept.Select(k => k.GetProperty("state").GetString() == "sent" || time > 0 ? "same" : "stored"),
                told.Select(t => t.Is)
            );
        }
        Assert.Equal(entries.Count, (await coach.Get($"/sessions/{session}/events")).GetArrayLength());
        var student = (await Sheet(said.GetProperty("onTheDevice"))).GetProperty("studentId").GetString();
        Assert.Contains(
            (await coach.Get($"/students/{student}/facts")).GetProperty("facts").EnumerateArray(),
            f => f.GetProperty("region").GetString() == "elbow" && f.GetProperty("pain").GetInt32() == 4
        );
    }

    /// <summary>An entry as the shell of then sends it: see <c>sent</c> in its <c>outbox.svelte.ts</c>.</summary>
    private static object Travelling(Guid session, JsonElement entry)
    {
        static object At(JsonElement at) =>
            DateTimeOffset.FromUnixTimeMilliseconds(at.GetInt64()).ToString("yyyy-MM-ddTHH:mm:ss.fffZ", null);
        var e = entry.GetProperty("event");
        var rest = e.EnumerateObject().Where(p => p.Name is not ("id" or "seq" or "at")).ToDictionary(p => p.Name, p => p.Value);
        return new
        {
            @event = new
            {
                id = e.GetProperty("id").GetString(),
                session,
                seq = e.GetProperty("seq").GetInt32(),
                at = At(e.GetProperty("at")),
                said = JsonSerializer.Serialize(rest),
            },
            facts = entry
                .GetProperty("facts")
                .EnumerateArray()
                .Select(f =>
                    f.EnumerateObject()
                        .ToDictionary(
                            p => p.Name,
                            p =>
                                p.Name switch
                                {
                                    "at" => At(p.Value),
                                    "answers" => p.Value.EnumerateObject().Select(a => new { check = a.Name, answer = a.Value }),
                                    _ => (object)p.Value,
                                }
                        )
                )
                .ToList(),
        };
    }
}
