using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>A planned session is thrown away or moved, one under way is ended; and each of these is taken back.</summary>
public sealed class SessionChangeTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;
    private Guid session;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 3, 3);
        session = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromMinutes(10));
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Change(string kind, DateOnly? date = null) =>
        coach.Post($"/sessions/{session}/changes", new { kind, date });

    private async Task Changed(string kind, DateOnly? date = null) =>
        Assert.Equal(HttpStatusCode.OK, (await Change(kind, date)).StatusCode);

    private async Task<int> Listed() => (await coach.Get($"/students/{student}/sessions")).GetArrayLength();

    private Task<JsonElement> Sheet() => coach.Get($"/sessions/{session}");

    private Task<HttpResponseMessage> Begin() =>
        coach.Log(session, app.Time.GetUtcNow(), [StudioClient.Set("low-lunge", "padded-knee", "left", app.Time.GetUtcNow())]);

    [Fact]
    public async Task One_that_was_not_begun_is_thrown_away_and_brought_back()
    {
        await Changed("delete");
        await Changed("delete");
        Assert.Equal(0, await Listed());
        Assert.True((await Sheet()).GetProperty("deleted").GetBoolean());
        var pack = await coach.Http.GetAsync($"/api/v1/sessions/{session}/pack");
        Assert.Equal("sessionDeleted", await pack.Problem(HttpStatusCode.Conflict));
        await Changed("restore");
        Assert.Equal(1, await Listed());
    }

    [Fact]
    public async Task A_device_keeps_the_packs_of_today_and_of_nothing_that_may_not_be_run()
    {
        async Task<List<string>> Kept()
        {
            var keys = new List<string>();
            foreach (var head in (await coach.Get("/sessions/packs")).EnumerateArray())
                if (
                    await coach.Http.GetAsync($"/api/v1/sessions/{head.GetProperty("sessionId")}/pack?keep=true") is
                    { StatusCode: HttpStatusCode.OK } answer
                )
                {
                    var pack = await answer.Content.ReadFromJsonAsync<JsonElement>();
                    Assert.Equal(head.GetProperty("key").GetString(), pack.GetProperty("key").GetString());
                    keys.Add(pack.GetProperty("key").GetString()!);
                }
            return keys;
        }
        Assert.Equal(session, (await coach.Get("/sessions/packs"))[0].GetProperty("sessionId").GetGuid());
        var first = Assert.Single(await Kept());
        Assert.Equal([first], await Kept());
        await Changed("delete");
        Assert.Empty(await Kept());
        await Changed("restore");
        Assert.NotEqual(first, Assert.Single(await Kept()));
        Assert.Equal(0, (await (await app.Studio()).Get("/sessions/packs")).GetArrayLength());
        await coach.Answer(student, "hip-replacement");
        Assert.Empty(await Kept());
        Assert.Equal("doorClosed", await (await coach.Http.GetAsync("/api/v1/sessions/today")).Problem(HttpStatusCode.Gone));
    }

    [Fact]
    public async Task What_is_kept_of_tomorrow_is_good_from_when_tomorrow_begins_and_judged_as_it_stands_then()
    {
        var tomorrow = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime).AddDays(1);
        var id = Guid.NewGuid();
        Assert.Equal(
            HttpStatusCode.Created,
            (
                await coach.Post(
                    $"/students/{student}/sessions",
                    new
                    {
                        id,
                        date = tomorrow,
                        minutes = 45,
                    }
                )
            ).StatusCode
        );
        Task<HttpResponseMessage> Pack(string how) => coach.Http.GetAsync($"/api/v1/sessions/{id}/pack{how}");
        Assert.Equal("planOutdated", await (await Pack("")).Problem(HttpStatusCode.Conflict, "otherDay"));
        Assert.True(
            (await coach.Get("/sessions/packs"))
                .EnumerateArray()
                .Single(h => h.GetProperty("sessionId").GetGuid() == id)
                .GetProperty("ahead")
                .GetBoolean()
        );
        var pack = await (await Pack("?keep=true")).Content.ReadFromJsonAsync<JsonElement>();
        var from = pack.GetProperty("goodFrom").GetDateTimeOffset();
        Assert.True(from > app.Time.GetUtcNow());
        Assert.True(pack.GetProperty("expiresAt").GetDateTimeOffset() <= app.Time.GetUtcNow().AddHours(24));
        // What is answered today holds tomorrow.
        await coach.Answer(student, "hip-replacement");
        Assert.Equal(HttpStatusCode.NoContent, (await Pack("?keep=true")).StatusCode);
    }

    [Fact]
    public async Task What_is_told_of_one_that_was_thrown_away_brings_it_back()
    {
        await Changed("delete");
        await Begin();
        Assert.Equal(1, await Listed());
        Assert.Equal("alreadyBegun", await (await Change("delete")).Problem(HttpStatusCode.UnprocessableEntity, "kind"));
    }

    [Fact]
    public async Task One_that_moves_is_made_anew_for_its_day_and_keeps_its_skill_and_minutes()
    {
        var day = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime).AddDays(3);
        await Changed("move", day);
        var plan = (await Sheet()).GetProperty("plan");
        Assert.Equal((day.ToString("O"), 45), (plan.GetProperty("date").GetString(), plan.GetProperty("minutes").GetInt32()));
        Assert.Equal("required", await (await Change("move")).Problem(HttpStatusCode.UnprocessableEntity, "date"));
        Assert.Equal("dateInPast", await (await Change("move", day.AddDays(-9))).Problem(HttpStatusCode.UnprocessableEntity, "date"));
        Assert.Equal(day.ToString("O"), (await Sheet()).GetProperty("plan").GetProperty("date").GetString());
        Assert.Equal(1, await Listed());
    }

    [Fact]
    public async Task One_under_way_is_ended_without_its_runner_and_opened_again_the_same_day()
    {
        Assert.Equal("notBegun", await (await Change("end")).Problem(HttpStatusCode.UnprocessableEntity, "kind"));
        await Begin();
        await Changed("end");
        Assert.NotEqual(JsonValueKind.Null, (await Sheet()).GetProperty("endedAt").ValueKind);
        await Changed("reopen");
        Assert.Equal(JsonValueKind.Null, (await Sheet()).GetProperty("endedAt").ValueKind);
        await Changed("end");
        app.Time.Advance(TimeSpan.FromDays(1));
        Assert.Equal("sessionOver", await (await Change("reopen")).Problem(HttpStatusCode.UnprocessableEntity, "kind"));
    }
}
