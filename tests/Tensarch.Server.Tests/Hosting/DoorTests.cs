using System.Net;
using System.Text;
using Tensarch.Core;
using Tensarch.Core.Catalogue;

namespace Tensarch.Server.Tests.Hosting;

/// <summary>What was once let in and brought a page down, each as it was sent.</summary>
public sealed class DoorTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student("Ada Quill", "hamstring");
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Send(string path, string json, HttpMethod? method = null) =>
        coach.Http.SendAsync(
            new(method ?? HttpMethod.Post, "/api/v1" + path.Replace("{student}", student.ToString(), StringComparison.Ordinal))
            {
                Content = new StringContent(
                    json.Replace("{id}", Guid.NewGuid().ToString(), StringComparison.Ordinal),
                    Encoding.UTF8,
                    "application/json"
                ),
            }
        );

    private const string Reading = """
        {"id":"{id}","measure":"passive-slr","side":"left","warmth":"warm","standard":null,"instrument":"goniometer","trials":[80],
        "compensations":[],"quality":null,"sensation":null,"pain":null,"note":null,"takenAt":null}
        """;

    [Theory]
    [InlineData("9999-12-31", "dateTooLate", "until")]
    [InlineData("2040-03-04", "dateTooLate", "until")]
    public async Task A_clearance_ends_within_five_years_and_nobodys_page_falls(string until, string code, string field)
    {
        var body = $$"""{"id":"{id}","role":"physiotherapist","tags":["hamstring"],"from":"2035-03-01","until":"{{until}}"}""";
        var answer = await Send("/students/{student}/clearances", body);
        Assert.Equal(code, await answer.Problem(HttpStatusCode.UnprocessableEntity, field));
        var last = body.Replace(until, "2040-03-03", StringComparison.Ordinal);
        Assert.Equal(HttpStatusCode.Created, (await Send("/students/{student}/clearances", last)).StatusCode);
        foreach (var page in new[] { "/students", "/readiness?group=blocked", "/readiness/counts", $"/students/{student}" })
            await coach.Get(page);
    }

    [Theory]
    [InlineData("\"takenAt\":null", "\"takenAt\":null,\"successes\":0,\"attempts\":1", "noCounts", "attempts")]
    [InlineData("\"takenAt\":null", "\"takenAt\":null,\"successes\":0,\"attempts\":0", "outOfRange", "attempts")]
    [InlineData("\"takenAt\":null", "\"takenAt\":null,\"successes\":-5,\"attempts\":-7", "outOfRange", "successes")]
    [InlineData("\"takenAt\":null", "\"takenAt\":\"0001-01-01T00:00:00Z\"", "dateTooEarly", "takenAt")]
    [InlineData("\"takenAt\":null", "\"takenAt\":\"9999-12-31T00:00:00Z\"", "dateInFuture", "takenAt")]
    [InlineData("\"takenAt\":null", "\"takenAt\":\"2035-03-03T10:00:01Z\"", "dateInFuture", "takenAt")]
    [InlineData("[80]", "[1e400]", "notANumber", "trials[0]")]
    [InlineData("[80]", "[-1e400]", "notANumber", "trials[0]")]
    [InlineData("[80]", "[1e308,1e308,1e308,1e308,1e308]", "outOfRange", "trials[4]")]
    [InlineData("\"compensations\":[]", "\"compensations\":[null]", "required", "compensations[0]")]
    [InlineData("\"compensations\":[]", "\"compensations\":[\"größe\"]", "badKey", "compensations[0]")]
    [InlineData("\"note\":null", "\"note\":\"a\\u0000b\"", "badText", "note")]
    [InlineData("\"id\":\"{id}\"", "\"id\":\"00000000-0000-0000-0000-000000000000\"", "notAnId", "id")]
    [InlineData("\"takenAt\":null", "\"takenAt\":null,\"stacks\":[[null]]", "required", "stacks[0][0]")]
    public async Task A_reading_is_checked_field_by_field(string sound, string sent, string code, string field)
    {
        Assert.Equal(HttpStatusCode.Created, (await Send("/students/{student}/readings", Reading)).StatusCode);
        var body = Reading.Replace(sound, sent, StringComparison.Ordinal);
        foreach (var path in new[] { "/students/{student}/readings", "/students/{student}/readings/preview" })
            Assert.Equal(code, await (await Send(path, body)).Problem(HttpStatusCode.UnprocessableEntity, field));
    }

    [Theory]
    [InlineData("[80]", "[null]", "wrongType")]
    [InlineData("\"note\":null", "\"note\":\"\\ud800\"", "wrongType")]
    [InlineData("\"side\":\"left\"", "\"side\":7", "wrongType")]
    [InlineData("\"takenAt\":null}", "\"takenAt\":null", "invalidJson")]
    public async Task What_is_no_json_of_this_shape_is_refused(string sound, string sent, string code) =>
        Assert.Equal(
            code,
            await (await Send("/students/{student}/readings", Reading.Replace(sound, sent, StringComparison.Ordinal))).Problem(
                HttpStatusCode.BadRequest
            )
        );

    [Fact]
    public async Task Seventy_levels_deep_is_refused()
    {
        var deep = Reading.Replace("\"note\":null", $"\"note\":{new string('[', 70)}{new string(']', 70)}", StringComparison.Ordinal);
        await (await Send("/students/{student}/readings", deep)).Problem(HttpStatusCode.BadRequest);
    }

    [Theory]
    [InlineData("1e200", "outOfRange")]
    [InlineData("1e400", "notANumber")]
    [InlineData("100.1", "outOfRange")]
    public async Task An_own_measure_with_an_absurd_error_is_refused(string sem, string code)
    {
        var body = """{"id":"{id}","basedOn":0,"own":{"min":-10,"max":30,"sem":SEM,"protocol":["Heel down."]}}""".Replace(
            "SEM",
            sem,
            StringComparison.Ordinal
        );
        var answer = await Send("/measures/knee-to-wall/versions", body);
        Assert.Equal(code, await answer.Problem(HttpStatusCode.UnprocessableEntity, "own.sem"));
        await coach.Get("/measures/knee-to-wall");
    }

    [Theory]
    [InlineData("")]
    [InlineData("..")]
    [InlineData("größe")]
    [InlineData("Own-Ladder")]
    [InlineData("own\n")]
    [InlineData("a/b")]
    [InlineData("own-ladder-own-ladder-own-ladder-own-ladder-own-ladder-own-ladder")]
    public async Task A_ladder_whose_key_no_path_can_name_is_refused(string key)
    {
        var ladder = await coach.Ladder("front-split");
        ladder["key"] = key;
        var answer = await coach.Post("/ladders", new { id = Guid.NewGuid(), ladder });
        Assert.Equal("badKey", await answer.Problem(HttpStatusCode.UnprocessableEntity, "ladder.key"));
    }

    [Theory]
    [InlineData("/readiness?after=NaN_00000000-0000-0000-0000-000000000001")]
    [InlineData("/readiness?after=Infinity_00000000-0000-0000-0000-000000000001")]
    [InlineData("/readings?before=NaN_00000000-0000-0000-0000-000000000001")]
    [InlineData("/readings?before=9999999999999999999_00000000-0000-0000-0000-000000000001")]
    [InlineData("/students?after=%00%7Cx")]
    [InlineData("/students?find=%25%27%22")]
    public async Task A_cursor_that_is_none_begins_at_the_start(string path)
    {
        var answer = await coach.Http.GetAsync("/api/v1" + path);
        Assert.True(answer.StatusCode is HttpStatusCode.OK or HttpStatusCode.UnprocessableEntity, $"{answer.StatusCode}");
    }

    [Fact]
    public async Task What_a_runner_says_ahead_of_its_own_clock_happened_when_it_was_sent()
    {
        await coach.Place(student, 1, 1);
        var session = await coach.Session(student);
        var now = app.Time.GetUtcNow();
        var logged = await coach.Log(session, now, signals: [StudioClient.Signal("bailed", now.AddMinutes(9))]);
        Assert.Equal(HttpStatusCode.OK, logged.StatusCode);
        var sheet = await coach.Get($"/sessions/{session}");
        Assert.Equal(now, sheet.GetProperty("startedAt").GetDateTimeOffset());
    }

    [Fact]
    public void Every_key_of_the_content_is_a_key()
    {
        var content = ContentLoader.Load();
        var keys = content
            .Measures.SelectMany(m =>
                (string[])[m.Key, .. m.Levels.Select(l => l.Key), .. m.Compensations.Select(c => c.Key), .. m.Standards]
            )
            .Concat(content.DrillList.SelectMany(d => (string[])[d.Key, .. d.Variants.Select(v => v.Key)]))
            .Concat(content.Questions.Select(q => q.Key))
            .Concat(content.Ladders.Select(l => l.Key))
            .Concat(content.Batteries.Select(b => b.Key))
            .Concat(content.Views.Select(v => v.Key))
            .Concat(content.Approaches.Select(a => a.Key));
        Assert.All(keys, k => Assert.Matches(Key.Pattern, k));
    }
}
