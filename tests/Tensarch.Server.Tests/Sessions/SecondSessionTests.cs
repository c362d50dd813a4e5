using System.Net;
using System.Text.Json;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>A day that has a session gets another one from a coach who says so, and from no other: on every way that leads to a day.</summary>
public sealed class SecondSessionTests : IAsyncLifetime
{
    private StudioApp app = null!;
    private StudioClient coach = null!;
    private Guid student;
    private DateOnly today;

    public async ValueTask InitializeAsync()
    {
        app = new();
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 4, 4);
        today = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime);
    }

    public async ValueTask DisposeAsync() => await app.DisposeAsync();

    private Task<HttpResponseMessage> Make(DateOnly? date = null, bool second = false, Guid? id = null) =>
        coach.Post(
            $"/students/{student}/sessions",
            new
            {
                id = id ?? Guid.NewGuid(),
                date,
                minutes = 30,
                second,
            }
        );

    private async Task<Guid> Made(DateOnly? date = null)
    {
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await Make(date, id: id)).StatusCode);
        return id;
    }

    private Task<HttpResponseMessage> Change(Guid session, string kind, DateOnly? date = null, bool second = false) =>
        coach.Post(
            $"/sessions/{session}/changes",
            new
            {
                kind,
                date,
                second,
            }
        );

    private static async Task Asked(HttpResponseMessage answer, string field = "date") =>
        Assert.Equal("dayHasSession", await answer.Problem(HttpStatusCode.UnprocessableEntity, field));

    private async Task<int> On(DateOnly day) =>
        (await coach.Get($"/students/{student}/sessions"))
            .EnumerateArray()
            .Count(s => s.GetProperty("date").GetString() == $"{day:yyyy-MM-dd}");

    private async Task Weeks() =>
        Assert.Equal(
            HttpStatusCode.Created,
            (await coach.Plan(student, StudioClient.Sketch(today, 45, 4, (0, "pm"), (2, "pm"), (5, "pm")))).StatusCode
        );

    private async Task<string[]> News() =>
        [
            .. (await coach.Get($"/students/{student}/programme"))
                .GetProperty("news")
                .EnumerateArray()
                .Select(n => $"{n.GetProperty("code").GetString()} {n.GetProperty("day").GetString()}"),
        ];

    [Fact]
    public async Task The_same_day_is_asked_for_by_name()
    {
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await Make(id: id)).StatusCode);
        await Asked(await Make());
        // The same request again is the same session.
        Assert.Equal(HttpStatusCode.OK, (await Make(id: id)).StatusCode);
        Assert.Equal(1, await On(today));
        Assert.Equal(HttpStatusCode.Created, (await Make(second: true)).StatusCode);
        Assert.Equal(2, await On(today));
    }

    [Fact]
    public async Task Of_two_who_ask_at_once_one_is_told()
    {
        var answers = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => Make()));
        Assert.Equal(1, answers.Count(a => a.StatusCode == HttpStatusCode.Created));
        Assert.Equal(1, await On(today));
    }

    [Fact]
    public async Task A_session_that_is_moved_made_again_or_brought_back_asks_as_a_new_one_does()
    {
        var (first, later) = (await Made(), await Made(today.AddDays(2)));
        await Asked(await Change(later, "move", today));
        Assert.Equal(HttpStatusCode.OK, (await Change(first, "delete")).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Change(later, "move", today)).StatusCode);
        await Asked(await Change(first, "restore"));
        // On its own day it is in nobody's way.
        Assert.Equal(HttpStatusCode.OK, (await Change(later, "again")).StatusCode);
        Assert.Equal(1, await On(today));
        Assert.Equal(HttpStatusCode.OK, (await Change(first, "restore", second: true)).StatusCode);
        Assert.Equal(2, await On(today));
        app.Time.Advance(TimeSpan.FromDays(1));
        await coach.SignIn();
        await Made();
        await Asked(await Change(later, "again"));
        Assert.Equal(HttpStatusCode.OK, (await Change(later, "again", second: true)).StatusCode);
    }

    [Fact]
    public async Task What_is_under_way_is_asked_about_and_what_is_over_is_not()
    {
        var first = await Made();
        app.Time.Advance(TimeSpan.FromMinutes(40));
        var now = app.Time.GetUtcNow();
        await coach.Log(first, now, [StudioClient.Set("low-lunge", "padded-knee", "left", now)]);
        await Asked(await Make());
        Assert.Equal(HttpStatusCode.OK, (await Change(first, "end")).StatusCode);
        await Made();
        Assert.Equal(2, await On(today));
    }

    [Fact]
    public async Task Planned_weeks_are_asked_and_say_where_a_day_has_two()
    {
        await Weeks();
        await Asked(await Make());
        await Asked(await Make(today.AddDays(2)));
        var loose = await Made(today.AddDays(1));
        object Edit(DateOnly to) =>
            new
            {
                edit = new
                {
                    kind = "move",
                    day = today,
                    half = "pm",
                    to,
                },
            };
        await Asked(await coach.Post($"/students/{student}/programme/edits/try", Edit(today.AddDays(1))), "edit.to");
        Assert.DoesNotContain(await News(), n => n.StartsWith("twice", StringComparison.Ordinal));
        await Asked(await Change(loose, "move", today.AddDays(2)));
        Assert.Equal(HttpStatusCode.OK, (await Change(loose, "move", today.AddDays(2), second: true)).StatusCode);
        Assert.Contains($"twice {today.AddDays(2):yyyy-MM-dd}", await News());
        Assert.Equal(HttpStatusCode.OK, (await Change(loose, "delete")).StatusCode);
        Assert.DoesNotContain(await News(), n => n.StartsWith("twice", StringComparison.Ordinal));
    }

    [Fact]
    public async Task Weeks_that_are_planned_over_a_session_of_today_say_so()
    {
        var mine = await Made();
        await Weeks();
        Assert.Contains($"twice {today:yyyy-MM-dd}", await News());
        Assert.Equal(JsonValueKind.Null, (await coach.Get($"/sessions/{mine}")).GetProperty("startedAt").ValueKind);
    }

    [Fact]
    public async Task What_the_weeks_planned_before_a_break_is_not_run_after_it_and_is_made_again_in_its_place()
    {
        app.Time.Advance(TimeSpan.FromDays(14));
        await coach.SignIn();
        var done = await Made(DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime));
        var now = app.Time.GetUtcNow();
        await coach.Log(done, now, [StudioClient.Set("low-lunge", "padded-knee", "left", now)]);
        Assert.Equal(HttpStatusCode.OK, (await Change(done, "end")).StatusCode);
        today = DateOnly.FromDateTime(now.UtcDateTime).AddDays(1);
        await Weeks();
        app.Time.Advance(TimeSpan.FromDays(15));
        await coach.SignIn();
        var day = $"{DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime):yyyy-MM-dd}";
        var session = (await coach.Get($"/students/{student}/sessions"))
            .EnumerateArray()
            .Single(s => s.GetProperty("date").GetString() == day)
            .GetProperty("id")
            .GetGuid();
        async Task<string?> Refused() =>
            await coach.Http.GetAsync($"/api/v1/sessions/{session}/pack") is { IsSuccessStatusCode: false } refused
                ? await refused.Problem(HttpStatusCode.Conflict)
                : null;
        Assert.Equal("planOutdated", await Refused());
        Assert.Contains(
            "overReturnDose",
            (await coach.Get($"/sessions/{session}")).GetProperty("outdated").EnumerateArray().Select(o => o.GetString())
        );
        Assert.Equal(HttpStatusCode.OK, (await Change(session, "again")).StatusCode);
        Assert.Null(await Refused());
    }
}
