using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Demo;

namespace Tensarch.Server.Tests.OldData;

/// <summary>A row that slipped in past every door spoils its own line and no other.</summary>
public sealed class BadRowTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private readonly Dictionary<string, Guid> students = [];

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        foreach (var name in new[] { "Ada", "Bo", "Cleo" })
        {
            students[name] = await coach.Student(name);
            await coach.ReadAll(students[name]);
            await coach.Place(students[name], 1, 1);
        }
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<int> Spoil(FormattableString sql) => app.Rows(db => db.Database.ExecuteSqlAsync(sql));

    /// <summary>As a new fact would.</summary>
    private async Task MakeDue()
    {
        await Spoil($"UPDATE Roster SET DueAt = 0");
        await Spoil($"UPDATE Board SET DueAt = 0");
    }

    private async Task AllPagesAnswer(params string[] but)
    {
        await MakeDue();
        foreach (var page in await Pages.Of(app, coach))
            if (!but.Any(b => page.StartsWith(b, StringComparison.Ordinal)))
                Assert.True((await coach.Http.GetAsync("/api/v1" + page)).StatusCode == HttpStatusCode.OK, page);
    }

    private async Task<JsonElement> RosterLine(string name) =>
        (await coach.Get("/students")).GetProperty("students").EnumerateArray().Single(s => s.GetProperty("name").GetString() == name);

    [Fact]
    public async Task Whoever_cannot_be_worked_out_says_so_and_the_others_are_shown()
    {
        await Spoil($"UPDATE Skills SET Approach = 'nonsense' WHERE StudentId = {students["Bo"]}");
        await AllPagesAnswer();
        Assert.True((await RosterLine("Bo")).GetProperty("unreadable").GetBoolean());
        foreach (var name in new[] { "Ada", "Cleo" })
        {
            var line = await RosterLine(name);
            Assert.False(line.GetProperty("unreadable").GetBoolean());
            Assert.Equal(1, line.GetProperty("skills").GetArrayLength());
        }
        var held = (await coach.Get("/readiness?group=blocked")).GetProperty("lines").EnumerateArray().ToList();
        Assert.Equal(2, held.Count);
        Assert.All(
            held,
            l => Assert.Equal(("Bo", JsonValueKind.Null), (l.GetProperty("name").GetString(), l.GetProperty("line").ValueKind))
        );
        var counts = (await coach.Get("/readiness/counts")).EnumerateArray().ToList();
        Assert.Equal(6, counts.Sum(c => c.GetProperty("gates").GetInt32()));
        // Nothing is planned on what cannot be worked out, and that is no accident of the server's.
        var planned = await coach.Post(
            $"/students/{students["Bo"]}/sessions",
            new
            {
                id = Guid.NewGuid(),
                date = (string?)null,
                minutes = 45,
            }
        );
        Assert.Equal("unknownApproach", await planned.Problem(HttpStatusCode.UnprocessableEntity));
    }

    [Theory]
    [InlineData("UPDATE Readings SET Value = 1e300 WHERE Id = {0}")]
    [InlineData("UPDATE Readings SET StandardError = -1 WHERE Id = {0}")]
    [InlineData("UPDATE Readings SET Sem = 1e200 WHERE Id = {0}")]
    [InlineData("UPDATE Readings SET Trials = '[1e300]' WHERE Id = {0}")]
    [InlineData("UPDATE Readings SET Trials = '[]' WHERE Id = {0}")]
    [InlineData("UPDATE Readings SET Attempts = 0 WHERE Id = {0}")]
    public async Task A_reading_that_cannot_be_reckoned_with_counts_for_nothing_and_can_be_voided(string spoil)
    {
        var id = await app.Rows(db =>
            db.Readings.IgnoreQueryFilters().Where(r => r.StudentId == students["Ada"]).Select(r => r.Id).FirstAsync()
        );
        await app.Rows(db => db.Database.ExecuteSqlRawAsync(spoil, id));
        await AllPagesAnswer("/measures/", "/ladders/");
        Assert.Equal(1, (await RosterLine("Ada")).GetProperty("leftOut").GetInt32());
        Assert.Equal(1, (await coach.Get($"/students/{students["Ada"]}")).GetProperty("leftOut").GetInt32());
        var listed = (await coach.Get("/readings")).GetProperty("readings").EnumerateArray().ToList();
        Assert.Equal(36, listed.Count);
        Assert.Equal(id, Assert.Single(listed, r => r.GetProperty("unreadable").GetBoolean()).GetProperty("id").GetGuid());
        Assert.Equal(
            HttpStatusCode.Created,
            (await coach.Post($"/students/{students["Ada"]}/readings/{id}/void", new { reason = "nonsense" })).StatusCode
        );
        Assert.Equal(0, (await RosterLine("Ada")).GetProperty("leftOut").GetInt32());
    }

    [Fact]
    public async Task A_stored_document_that_is_none_spoils_one_line()
    {
        var session = await coach.Session(students["Ada"]);
        var ladder = await coach.OwnLadder("Own");
        var (sitting, picture) = (Guid.NewGuid(), Guid.NewGuid());
        await coach.Post(
            $"/students/{students["Ada"]}/sittings",
            new
            {
                id = sitting,
                scope = "single",
                measures = new[] { "passive-slr" },
                cold = false,
            }
        );
        await coach.Http.PostAsync(
            $"/api/v1/students/{students["Ada"]}/pictures?id={picture}&view=handstand-line",
            new ByteArrayContent(SamplePicture.Handstand(5, 5, 1).Draw())
        );
        await Spoil($"UPDATE PlanVersions SET PlanJson = '{{' WHERE SessionId = {session}");
        await Spoil($"UPDATE OwnLadders SET Json = 'x' WHERE LadderKey = {ladder}");
        await Spoil($"UPDATE Sittings SET ItemsJson = '[1]' WHERE Id = {sitting}");
        await Spoil($"UPDATE Decisions SET EvidenceJson = '' WHERE StudentId = {students["Ada"]}");
        await Spoil($"UPDATE Decisions SET ToStage = 99 WHERE StudentId = {students["Cleo"]}");
        await Spoil($"UPDATE Bodies SET BodyJson = 'x' WHERE StudentId = {students["Ada"]}");
        await Spoil($"UPDATE Students SET GoalsJson = 'x', DaysJson = '7' WHERE Id = {students["Ada"]}");
        await Spoil($"UPDATE Studios SET BlocksJson = '[]'");
        await Spoil($"UPDATE Skills SET LadderKey = 'gone' WHERE StudentId = {students["Bo"]}");
        File.Delete(
            Directory.GetFiles(Path.Combine(app.DataFolder, "pictures"), $"{picture:N}.webp", SearchOption.AllDirectories).Single()
        );

        await AllPagesAnswer(
            $"/sessions/{session}",
            $"/ladders/{ladder}/",
            $"/students/{students["Ada"]}/pictures/{picture}/image",
            $"/students/{students["Bo"]}/skills/front-split"
        );
        var gone = await coach.Http.GetAsync($"/api/v1/students/{students["Bo"]}/skills/front-split");
        Assert.Equal("notOnLadder", await gone.Problem(HttpStatusCode.NotFound));

        Assert.Equal("planUnreadable", await (await coach.Http.GetAsync($"/api/v1/sessions/{session}")).Problem(HttpStatusCode.Conflict));
        Assert.Equal(
            "planUnreadable",
            await (await coach.Http.GetAsync($"/api/v1/sessions/{session}/pack")).Problem(HttpStatusCode.Conflict)
        );
        Assert.Equal(
            "notFound",
            await (await coach.Http.GetAsync($"/api/v1/ladders/{ladder}/versions/1")).Problem(HttpStatusCode.NotFound)
        );
        var image = await coach.Http.GetAsync($"/api/v1/students/{students["Ada"]}/pictures/{picture}/image");
        Assert.Equal("notFound", await image.Problem(HttpStatusCode.NotFound));
        var own = (await coach.Get("/ladders")).EnumerateArray().Single(l => l.GetProperty("key").GetString() == ladder);
        Assert.True(own.GetProperty("unreadable").GetBoolean());
        Assert.Equal(1, (await RosterLine("Bo")).GetProperty("leftOut").GetInt32());
        Assert.Equal(1, (await RosterLine("Cleo")).GetProperty("skills")[0].GetProperty("sides")[0].GetProperty("stage").GetInt32());
    }

    [Fact]
    public async Task A_plan_that_cannot_be_read_is_planned_anew_and_nobody_else_is_touched()
    {
        var today = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime);
        foreach (var student in students.Values)
            Assert.Equal(HttpStatusCode.Created, (await Plan(student, 0)).StatusCode);
        Assert.Equal(HttpStatusCode.Created, (await coach.Post("/roster-runs", new { id = Guid.NewGuid(), alsoNew = false })).StatusCode);
        await Spoil($"UPDATE Plans SET SketchJson = '{{' WHERE StudentId = {students["Ada"]}");
        await Spoil($"UPDATE Plans SET DaysJson = '[]' WHERE StudentId = {students["Bo"]}");
        await Spoil($"UPDATE RosterRuns SET LinesJson = 'x'");
        await Spoil(
            $"UPDATE PlanVersions SET PlanJson = '7' WHERE SessionId IN (SELECT Id FROM Sessions WHERE StudentId = {students["Cleo"]})"
        );
        var holes = """{"minutes":45,"drills":[null,{},{"drill":"gone","reason":null}]}""";
        await Spoil(
            $"UPDATE PlanVersions SET PlanJson = {holes} WHERE SessionId IN (SELECT Id FROM Sessions WHERE StudentId = {students["Bo"]})"
        );
        await AllPagesAnswer($"/students/{students["Ada"]}/programme/", $"/students/{students["Bo"]}/programme/", "/sessions/");
        foreach (var name in new[] { "Ada", "Bo" })
            Assert.Equal(
                "planUnreadable",
                await (await coach.Http.GetAsync($"/api/v1/students/{students[name]}/programme/versions/1")).Problem(
                    HttpStatusCode.Conflict
                )
            );
        Assert.Equal(3, (await coach.Get("/today")).GetProperty("sessions").GetArrayLength());
        // It is no dead end either.
        Assert.Equal(HttpStatusCode.Created, (await Plan(students["Ada"], 0)).StatusCode);
        Assert.Equal(2, (await coach.Get($"/students/{students["Ada"]}/programme")).GetProperty("plan").GetProperty("number").GetInt32());
        Assert.Equal(3, (await coach.Get("/today")).GetProperty("sessions").GetArrayLength());
        await AllPagesAnswer($"/students/{students["Ada"]}/programme/", $"/students/{students["Bo"]}/programme/", "/sessions/");

        Task<HttpResponseMessage> Plan(Guid student, int basedOn) =>
            coach.Plan(student, StudioClient.Sketch(today, 45, 4, (0, "pm")), basedOn);
    }
}
