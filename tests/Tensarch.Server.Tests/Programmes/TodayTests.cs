using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Tensarch.Server.Tests.Programmes;

/// <summary>What a coach opens in the morning.</summary>
public sealed class TodayTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    private DateOnly Day => DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime);

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 4, 4);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    /// <summary>Four weeks with a session today, in two and in five days.</summary>
    private async Task<JsonElement> Plan(int basedOn = 0)
    {
        var answer = await coach.Plan(student, StudioClient.Sketch(Day, 45, 4, (0, "pm"), (2, "pm"), (5, "pm")), basedOn);
        Assert.True(answer.StatusCode == HttpStatusCode.Created, await answer.Content.ReadAsStringAsync());
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private async Task<List<JsonElement>> Of(string list) =>
        [.. (await coach.Get("/today")).GetProperty(list).EnumerateArray().Where(e => e.GetProperty("studentId").GetGuid() == student)];

    [Fact]
    public async Task It_says_who_trains_and_what_hurt()
    {
        Assert.Empty(await Of("sessions"));
        var plan = await Plan();
        var planned = plan.GetProperty("weeks")[0].GetProperty("days")[0].GetProperty("session").GetGuid();
        var session = Assert.Single(await Of("sessions"));
        Assert.Equal(planned, session.GetProperty("session").GetGuid());
        Assert.Equal(45, session.GetProperty("minutes").GetInt32());
        var logged = await coach.Log(
            planned,
            app.Time.GetUtcNow(),
            signals: [StudioClient.Signal("dullPain", app.Time.GetUtcNow(), "hamstring", 5)]
        );
        Assert.Equal(HttpStatusCode.OK, logged.StatusCode);
        Assert.Equal(5, Assert.Single(await Of("signals")).GetProperty("pain").GetInt32());
        Assert.NotEqual(JsonValueKind.Null, Assert.Single(await Of("sessions")).GetProperty("startedAt").ValueKind);
        // Another studio sees nothing of it.
        Assert.Equal(0, (await (await app.Studio()).Get("/today")).GetProperty("sessions").GetArrayLength());
    }

    [Fact]
    public async Task What_was_missed_is_said_until_it_is_planned_again_whatever_versions_there_are()
    {
        await Plan();
        await Plan(1);
        app.Time.Advance(TimeSpan.FromDays(3));
        var missed = Assert.Single(await Of("missed"));
        Assert.Equal(2, missed.GetProperty("sessions").GetInt32());
        Assert.Equal(Day.AddDays(-1).ToString("yyyy-MM-dd", null), missed.GetProperty("last").GetString());
        await Plan(2);
        Assert.Empty(await Of("missed"));
    }

    [Fact]
    public async Task Tests_that_are_due_are_those_that_wait_for_one_today()
    {
        // Ready at stage 2, until what was read is too old.
        student = await coach.Student("Bo Quill");
        await coach.Place(student, 2, 2);
        await coach.ReadAll(student);
        for (var i = 0; i < 2; i++)
        {
            var now = app.Time.GetUtcNow();
            await coach.Log(await coach.Session(student), now, [StudioClient.Set("low-lunge", "deep", "left", now)]);
        }
        Assert.Empty(await Of("tests"));
        app.Time.Advance(TimeSpan.FromDays(22));
        await coach.SignIn();
        await coach.Get("/readiness?group=nearly");
        var due = await Of("tests");
        Assert.Equal(["left", "right"], due.Select(t => t.GetProperty("side").GetString()).Order());
        Assert.All(due, t => Assert.Equal("retest", t.GetProperty("nearest").GetProperty("next").GetProperty("code").GetString()));
    }

    [Fact]
    public async Task What_is_barred_since_yesterday_is_said_for_two_days()
    {
        Assert.Empty(await Of("bars"));
        await coach.Answer(student, "knee");
        var bar = Assert.Single(await Of("bars"));
        Assert.Equal("knee", bar.GetProperty("reason").GetProperty("question").GetString());
        Assert.NotEqual(0, bar.GetProperty("tags").GetArrayLength());
        app.Time.Advance(TimeSpan.FromDays(1));
        Assert.Single(await Of("bars"));
        app.Time.Advance(TimeSpan.FromDays(1));
        Assert.Empty(await Of("bars"));
    }

    [Fact]
    public async Task A_clearance_that_lapses_and_a_screen_that_falls_due_bar_anew()
    {
        var screened = Day;
        await coach.Answer(student, "knee");
        app.Time.Advance(TimeSpan.FromDays(3));
        await coach.SignIn();
        Assert.Empty(await Of("bars"));
        var tags = (await coach.Get($"/students/{student}"))
            .GetProperty("bars")
            .GetProperty("tags")
            .EnumerateArray()
            .Where(t => t.GetProperty("level").GetString() != "free")
            .Select(t => t.GetProperty("tag").GetString())
            .ToList();
        var clearance = new
        {
            id = Guid.NewGuid(),
            role = "physician",
            tags,
            from = Day,
            until = Day.AddDays(5),
        };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/clearances", clearance)).StatusCode);
        Assert.Empty(await Of("bars"));
        app.Time.Advance(TimeSpan.FromDays(6));
        var lapsed = Assert.Single(await Of("bars"));
        Assert.Equal(Day.ToString("yyyy-MM-dd", null), lapsed.GetProperty("reason").GetProperty("lapsedOn").GetString());
        Assert.True(Assert.Single(await Of("clearances")).GetProperty("lapsed").GetBoolean());

        app.Time.Advance(TimeSpan.FromDays(screened.AddMonths(6).DayNumber - Day.DayNumber));
        await coach.SignIn();
        var screen = Assert.Single(await Of("bars"));
        Assert.Equal("screenDue", screen.GetProperty("reason").GetProperty("code").GetString());
    }

    [Fact]
    public async Task Whoever_says_that_something_changed_is_barred_from_everything_until_asked()
    {
        var changed = new { id = Guid.NewGuid(), note = "tingling in the left hand" };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/changes", changed)).StatusCode);
        var bar = Assert.Single(await Of("bars"));
        Assert.Equal("somethingChanged", bar.GetProperty("reason").GetProperty("code").GetString());
        app.Time.Advance(TimeSpan.FromMinutes(1));
        await coach.Answer(student);
        Assert.Empty(await Of("bars"));
    }
}
