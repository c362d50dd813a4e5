using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>One session for two ladders, from the form to the exposure of each.</summary>
public sealed class SeveralSkillsTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 1, 1);
        await coach.Place(student, "crow", 1);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Make(Guid id, int minutes, params string[] beside) =>
        coach.Post(
            $"/students/{student}/sessions",
            new
            {
                id,
                date = (string?)null,
                minutes,
                skill = "front-split",
                beside,
            }
        );

    private async Task<int> Exposure(string skill, string? side) =>
        (await coach.Gate(student, side, skill))
            .GetProperty("tests")
            .EnumerateArray()
            .First(t => t.GetProperty("test").GetProperty("kind").GetString() == "exposure")
            .GetProperty("count")
            .GetInt32();

    [Fact]
    public async Task A_session_for_two_skills_counts_for_each_what_was_planned_for_it()
    {
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await Make(id, 60, "crow")).StatusCode);
        var sheet = await coach.Get($"/sessions/{id}");
        Assert.Equal("crow", sheet.GetProperty("beside")[0].GetString());
        var drills = sheet.GetProperty("plan").GetProperty("drills").EnumerateArray().ToList();
        Assert.Equal(["crow", "front-split"], drills.Select(d => d.GetProperty("skill").GetString()!).Distinct().Order());
        var pack = (await coach.Get($"/sessions/{id}/pack")).GetProperty("pack");
        Assert.Contains(
            pack.GetProperty("slots").EnumerateArray(),
            s => s.GetProperty("versions")[0].GetProperty("skill").GetString() == "crow"
        );

        app.Time.Advance(TimeSpan.FromMinutes(70));
        var logged = await coach.Post(
            $"/sessions/{id}/log",
            new
            {
                id = Guid.NewGuid(),
                endedAt = (DateTimeOffset?)null,
                parts = Array.Empty<object>(),
                signals = Array.Empty<object>(),
            }
        );
        Assert.Equal(HttpStatusCode.OK, logged.StatusCode);
        Assert.Equal((1, 1), (await Exposure("front-split", "left"), await Exposure("crow", null)));

        // What is done for one of them alone counts for that one, though its companions serve the other.
        app.Time.Advance(TimeSpan.FromDays(2));
        var alone = Guid.NewGuid();
        await Make(alone, 45);
        app.Time.Advance(TimeSpan.FromMinutes(50));
        await coach.Post(
            $"/sessions/{alone}/log",
            new
            {
                id = Guid.NewGuid(),
                endedAt = (DateTimeOffset?)null,
                parts = Array.Empty<object>(),
                signals = Array.Empty<object>(),
            }
        );
        Assert.Equal((2, 1), (await Exposure("front-split", "left"), await Exposure("crow", null)));
    }

    [Theory]
    [InlineData("notOnLadder", "handstand")]
    [InlineData("namedTwice", "crow", "crow")]
    [InlineData("namedTwice", "front-split")]
    [InlineData("tooMany", "crow", "handstand", "deep-squat")]
    public async Task What_cannot_be_trained_beside_it_is_named(string code, params string[] beside)
    {
        var answer = await Make(Guid.NewGuid(), 60, beside);
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        var problem = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("errors")[0];
        Assert.Equal(code, problem.GetProperty("code").GetString());
        Assert.StartsWith("beside", problem.GetProperty("field").GetString());
    }

    [Fact]
    public async Task A_short_day_takes_one_and_says_from_when_it_takes_two()
    {
        var id = Guid.NewGuid();
        await Make(id, 30, "crow");
        var plan = (await coach.Get($"/sessions/{id}")).GetProperty("plan");
        var left = plan.GetProperty("notes").EnumerateArray().Single(n => n.GetProperty("code").GetString() == "skillLeftOut");
        Assert.Equal(("crow", 40), (left.GetProperty("skill").GetString(), left.GetProperty("number").GetInt32()));
    }
}
