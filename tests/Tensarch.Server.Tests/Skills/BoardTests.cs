using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;

namespace Tensarch.Server.Tests.Skills;

public sealed class BoardTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;

    public async ValueTask InitializeAsync() => coach = await app.Studio();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<List<JsonElement>> Board(string group, string query = "") =>
        [.. (await coach.Get($"/readiness?group={group}{query}")).GetProperty("lines").EnumerateArray()];

    private async Task<Dictionary<string, int>> Counts() =>
        (await coach.Get("/readiness/counts"))
            .EnumerateArray()
            .GroupBy(c => c.GetProperty("group").GetString()!)
            .ToDictionary(g => g.Key, g => g.Sum(c => c.GetProperty("gates").GetInt32()));

    /// <summary>Ready on both sides at stage 2: everything read, two sessions without pain.</summary>
    private async Task<Guid> Ready(string name)
    {
        var student = await coach.Student(name);
        await coach.Place(student, 2, 2);
        await coach.ReadAll(student);
        for (var i = 0; i < 2; i++)
        {
            var session = await coach.Session(student);
            var now = app.Time.GetUtcNow();
            await coach.Log(session, now, [StudioClient.Set("low-lunge", "deep", "left", now)]);
        }
        return student;
    }

    [Fact]
    public async Task A_page_is_one_query_for_one_student_and_for_many()
    {
        await Ready("Ada One");
        await Board("ready");
        var before = app.Commands.Count;
        Assert.Equal(2, (await Board("ready")).Count);
        Assert.Equal(1, app.Commands.Count - before);

        for (var i = 0; i < 12; i++)
            await Ready($"Ada {i:00}");
        await Board("ready");
        before = app.Commands.Count;
        Assert.Equal(26, (await Board("ready")).Count);
        Assert.Equal(1, app.Commands.Count - before);
        before = app.Commands.Count;
        Assert.Equal(26, (await Counts())["ready"]);
        Assert.Equal(1, app.Commands.Count - before);
    }

    [Fact]
    public async Task A_new_fact_moves_the_line_before_anyone_looks()
    {
        var student = await Ready("Bela Quick");
        Assert.Equal(2, (await Board("ready")).Count);
        await coach.Answer(student, "hip-replacement");
        Assert.Empty(await Board("ready"));
        Assert.All(await Board("blocked"), l => Assert.Equal(student.ToString(), l.GetProperty("studentId").GetString()));
        await coach.Answer(student);
        await coach.Decide(student, "left", "advance", 2);
        Assert.Equal("right", (await Board("ready")).Single().GetProperty("line").GetProperty("gate").GetProperty("side").GetString());
    }

    [Fact]
    public async Task What_goes_stale_leaves_the_ready_by_itself()
    {
        await Ready("Cleo Stale");
        Assert.Equal(2, (await Board("ready")).Count);
        app.Time.Advance(TimeSpan.FromDays(22));
        await coach.SignIn();
        Assert.Empty(await Board("ready"));
        Assert.Equal(2, (await Board("nearly")).Count);
    }

    [Fact]
    public async Task A_voided_reading_is_looked_at_again_at_once()
    {
        var student = await Ready("Dora Void");
        await Board("ready");
        var reading = await app.Rows(db =>
            db.Readings.IgnoreQueryFilters().Where(r => r.StudentId == student && r.Measure == "passive-slr").Select(r => r.Id).FirstAsync()
        );
        await coach.Post($"/students/{student}/readings/{reading}/void", new { reason = "read on the wrong leg" });
        Assert.Single(await Board("ready"));
    }

    [Fact]
    public async Task The_board_is_filtered_by_skill_pages_by_key_and_leaves_out_the_archived()
    {
        var students = new List<Guid>();
        for (var i = 0; i < 42; i++)
        {
            students.Add(await coach.Student($"Esra {i:00}"));
            await coach.Place(students[^1], "handstand", 1);
        }
        await coach.Place(students[0], 1, 1);
        var first = await coach.Get("/readiness?group=training&skill=handstand");
        Assert.Equal(40, first.GetProperty("lines").GetArrayLength());
        var second = await coach.Get($"/readiness?group=training&skill=handstand&after={first.GetProperty("next").GetString()}");
        var ids = first
            .GetProperty("lines")
            .EnumerateArray()
            .Concat(second.GetProperty("lines").EnumerateArray())
            .Select(l => l.GetProperty("studentId").GetString())
            .ToList();
        Assert.Equal(students.Select(s => s.ToString()).Order(), ids.Order());
        Assert.Equal(2, (await Board("training", "&skill=front-split")).Count);

        using var archive = new HttpRequestMessage(HttpMethod.Post, $"/api/v1/students/{students[1]}/archive")
        {
            Content = new StringContent("""{"archived":true}""", null, "application/json"),
        };
        archive.Headers.Add("If-Match", "\"1\"");
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.SendAsync(archive)).StatusCode);
        Assert.Equal(43, (await Counts())["training"]);
    }

    [Fact]
    public async Task A_group_that_there_is_not_is_refused() =>
        Assert.Equal(
            "unknownWord",
            await (await coach.Http.GetAsync("/api/v1/readiness?group=lucky")).Problem(HttpStatusCode.UnprocessableEntity, "group")
        );
}
