using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;

namespace Tensarch.Server.Tests.Students;

/// <summary>Whatever was entered is corrected, with a reason; what rests on it follows at once, and what was said first is still there.</summary>
public sealed class CorrectionTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 1, 1);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private DateTimeOffset Now => app.Time.GetUtcNow();

    private async Task<JsonElement[]> Facts(string what) =>
        [
            .. (await coach.Get($"/students/{student}/facts"))
                .GetProperty("facts")
                .EnumerateArray()
                .Where(f => f.GetProperty("what").GetString() == what),
        ];

    private async Task<Guid> Fact(string what) => (await Facts(what))[0].GetProperty("id").GetGuid();

    private Task<HttpResponseMessage> Correct(string what, Guid of, object? instead = null, string reason = "Written down by mistake.")
    {
        app.Time.Advance(TimeSpan.FromSeconds(1));
        return coach.Post(
            $"/students/{student}/corrections",
            new
            {
                id = Guid.NewGuid(),
                what,
                of,
                reason,
                instead,
            }
        );
    }

    private async Task Corrected(string what, Guid of, object? instead = null)
    {
        var answer = await Correct(what, of, instead);
        Assert.True(answer.StatusCode == HttpStatusCode.Created, await answer.Content.ReadAsStringAsync());
    }

    private async Task<Guid> Trained(object[]? signals = null, params object[] sets)
    {
        var session = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromMinutes(10));
        await coach.Log(session, Now, sets, signals);
        return session;
    }

    private async Task<string?> Level(string tag) =>
        (await coach.Get($"/students/{student}"))
            .GetProperty("bars")
            .GetProperty("tags")
            .EnumerateArray()
            .Where(t => t.GetProperty("tag").GetString() == tag)
            .Select(t => t.GetProperty("level").GetString())
            .SingleOrDefault();

    private async Task<int> Exposure() => (await coach.Test(student, "left", "exposure")).GetProperty("count").GetInt32();

    [Fact]
    public async Task What_is_told_late_says_when_it_was_told()
    {
        foreach (var hours in new[] { 0, 5 })
        {
            var reading = StudioClient.Reading("passive-slr", "left", [60, 61, 60], takenAt: Now.AddHours(-hours));
            Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/readings", reading)).StatusCode);
        }
        var heard = (await Facts("reading")).Select(f => f.GetProperty("heardAt")).ToList();
        Assert.Equal(JsonValueKind.Null, heard[0].ValueKind);
        Assert.Equal(Now, heard[1].GetDateTimeOffset());
    }

    [Fact]
    public async Task A_set_that_was_not_done_is_no_exposure_and_comes_back_when_it_is_undone()
    {
        await Trained(null, StudioClient.Set("low-lunge", "padded-knee", "left", Now.AddMinutes(5)));
        var set = await Fact("set");
        Assert.Equal(1, await Exposure());
        await Corrected("set", set);
        Assert.Equal(0, await Exposure());
        var line = (await Facts("set"))[0];
        Assert.True(line.GetProperty("gone").GetBoolean());
        Assert.Equal(60, line.GetProperty("seconds").GetDouble());
        var said = Assert.Single(line.GetProperty("corrections").EnumerateArray());
        Assert.Equal(("Written down by mistake.", "Coach"), (said.GetProperty("reason").GetString(), said.GetProperty("by").GetString()));
        await Corrected("set", set, new { });
        Assert.Equal(1, await Exposure());
        Assert.Equal(2, (await Facts("set"))[0].GetProperty("corrections").GetArrayLength());
    }

    [Fact]
    public async Task A_signal_said_of_the_wrong_place_moves_its_bar_and_a_void_lifts_it()
    {
        for (var i = 0; i < 2; i++)
            await Trained([StudioClient.Signal("sharpPain", Now.AddMinutes(5), "hamstring", 7)]);
        Assert.Equal("offLimits", await Level("hamstring"));
        var signals = await Facts("signal");
        await Corrected("signal", signals[0].GetProperty("id").GetGuid(), new { region = "adductor" });
        Assert.Null(await Level("hamstring"));
        await Corrected("signal", signals[1].GetProperty("id").GetGuid(), new { region = "adductor", pain = 5 });
        Assert.Equal("offLimits", await Level("adductor"));
        await Corrected("signal", signals[1].GetProperty("id").GetGuid());
        Assert.Null(await Level("adductor"));
    }

    [Fact]
    public async Task A_whole_session_counts_for_nothing_but_what_a_body_said_in_it_stays()
    {
        var session = await Trained(
            [StudioClient.Signal("numbness", Now.AddMinutes(5), "hamstring")],
            StudioClient.Set("low-lunge", "padded-knee", "left", Now.AddMinutes(4))
        );
        await Corrected("session", session);
        Assert.Equal(0, await Exposure());
        Assert.Equal(JsonValueKind.Null, (await coach.Get($"/students/{student}")).GetProperty("lastSessionOn").ValueKind);
        Assert.Equal("offLimits", await Level("hamstring"));
    }

    [Fact]
    public async Task A_reading_that_was_voided_stands_again_and_both_are_in_the_history()
    {
        await coach.ReadAll(student);
        async Task<int> Standing() =>
            (await coach.Get($"/students/{student}/readings"))
                .GetProperty("readings")
                .EnumerateArray()
                .Count(r => r.GetProperty("voidReason").ValueKind == JsonValueKind.Null);
        var before = await Standing();
        var reading = await Fact("reading");
        Assert.Equal(
            "readAnew",
            await (await Correct("reading", reading, new { seconds = 4 })).Problem(HttpStatusCode.UnprocessableEntity, "instead")
        );
        await Corrected("reading", reading);
        Assert.Equal(before - 1, await Standing());
        Assert.True((await Facts("reading")).Single(r => r.GetProperty("id").GetGuid() == reading).GetProperty("gone").GetBoolean());
        await Corrected("reading", reading, new { });
        Assert.Equal(before, await Standing());
        // Voided from its own row it can be brought back as well.
        app.Time.Advance(TimeSpan.FromSeconds(1));
        await coach.Post($"/students/{student}/readings/{reading}/void", new { reason = "wrong side" });
        await Corrected("reading", reading, new { });
        Assert.Equal(before, await Standing());
        var line = (await Facts("reading")).Single(r => r.GetProperty("id").GetGuid() == reading);
        Assert.Equal(
            [true, false, true, false],
            line.GetProperty("corrections").EnumerateArray().Select(c => c.GetProperty("gone").GetBoolean())
        );
    }

    [Fact]
    public async Task The_newest_decision_is_taken_back_and_an_earlier_one_is_not()
    {
        async Task<int> Stage() => (await coach.Gate(student, "left")).GetProperty("stage").GetInt32();
        await coach.Decide(student, "left", "override", 1, "Seen in class, far beyond this stage.");
        app.Time.Advance(TimeSpan.FromSeconds(1));
        await coach.Decide(student, "left", "stepBack", 2);
        app.Time.Advance(TimeSpan.FromSeconds(1));
        await coach.Decide(student, "left", "override", 1, "Seen in class, far beyond this stage.");
        var decisions = (await Facts("decision")).Where(d => d.GetProperty("side").GetString() == "left").ToList();
        Assert.Equal([true, false, false, false], decisions.Select(d => d.GetProperty("mayBeTakenBack").GetBoolean()));
        var refused = await Correct("decision", decisions[1].GetProperty("id").GetGuid());
        Assert.Equal("notTheNewest", await refused.Problem(HttpStatusCode.UnprocessableEntity, "of"));
        await Corrected("decision", decisions[0].GetProperty("id").GetGuid());
        Assert.Equal(1, await Stage());
        await Corrected("decision", decisions[1].GetProperty("id").GetGuid());
        Assert.Equal(2, await Stage());
        Assert.Equal(4, (await Facts("decision")).Count(d => d.GetProperty("side").GetString() == "left"));
    }

    [Fact]
    public async Task A_way_out_that_was_miscounted_no_longer_opens_what_it_opened()
    {
        await coach.Place(student, "crow", 3);
        await coach.Post(
            $"/students/{student}/skills/crow/exit-checks",
            new
            {
                id = Guid.NewGuid(),
                stage = 3,
                side = (string?)null,
                safe = 5,
                of = 5,
            }
        );
        async Task<string> Exit() =>
            (await coach.Gate(student, null, "crow"))
                .GetProperty("tests")
                .EnumerateArray()
                .First(t => t.GetProperty("test").GetProperty("kind").GetString() == "exit")
                .GetProperty("outcome")
                .GetString()!;
        Assert.Equal("met", await Exit());
        var exit = await Fact("exit");
        Assert.Equal(
            "successesOutOfRange",
            await (await Correct("exit", exit, new { safe = 7 })).Problem(HttpStatusCode.UnprocessableEntity, "instead.safe")
        );
        await Corrected("exit", exit, new { safe = 3 });
        Assert.Equal("notMet", await Exit());
        await Corrected("exit", exit);
        Assert.Equal("noData", await Exit());
    }

    [Fact]
    public async Task Nothing_is_corrected_without_a_reason_or_of_another_student()
    {
        await Trained(null, StudioClient.Set("low-lunge", "padded-knee", "left", Now.AddMinutes(5)));
        var set = await Fact("set");
        Assert.Equal("reasonTooShort", await (await Correct("set", set, null, "no")).Problem(HttpStatusCode.UnprocessableEntity, "reason"));
        var other = await coach.Student("Other");
        var answer = await coach.Post(
            $"/students/{other}/corrections",
            new
            {
                id = Guid.NewGuid(),
                what = "set",
                of = set,
                reason = "Written down by mistake.",
            }
        );
        Assert.Equal("noSuchFact", await answer.Problem(HttpStatusCode.UnprocessableEntity, "of"));
        Assert.Equal(1, await Exposure());
    }

    [Fact]
    public async Task Of_two_corrections_the_newer_stands_in_whatever_order_they_arrived()
    {
        await Trained(null, StudioClient.Set("low-lunge", "padded-knee", "left", Now.AddMinutes(5)));
        var set = await Fact("set");
        await Corrected("set", set);
        await Corrected("set", set, new { seconds = 20 });
        await app.Rows(db => db.Database.ExecuteSqlRawAsync("UPDATE Corrections SET At = At - 600000000 WHERE InsteadJson IS NOT NULL"));
        Assert.True((await Facts("set"))[0].GetProperty("gone").GetBoolean());
    }

    [Fact]
    public async Task Pages_lose_and_double_nothing_of_one_instant()
    {
        var at = Now.AddMinutes(5);
        await Trained(null, [.. Enumerable.Range(0, 90).Select(_ => StudioClient.Set("low-lunge", "padded-knee", "left", at))]);
        var (seen, before) = (new List<Guid>(), "");
        do
        {
            var page = await coach.Get($"/students/{student}/facts?before={before}");
            seen.AddRange(page.GetProperty("facts").EnumerateArray().Select(f => f.GetProperty("id").GetGuid()));
            before = page.GetProperty("before").GetString();
        } while (before is not null);
        // Ninety sets, the session they were done in, and the placing of two sides.
        Assert.Equal((93, 93), (seen.Count, seen.Distinct().Count()));
    }
}
