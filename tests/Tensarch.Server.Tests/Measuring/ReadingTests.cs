using System.Net;

namespace Tensarch.Server.Tests.Measuring;

public sealed class ReadingTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Take(object reading) => coach.Post($"/students/{student}/readings", reading);

    [Fact]
    public async Task A_retry_cannot_double_a_reading()
    {
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await Take(StudioClient.Reading("passive-slr", "left", [80, 81], id))).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Take(StudioClient.Reading("passive-slr", "left", [80, 81], id))).StatusCode);
        Assert.Equal(
            "idTaken",
            await (await Take(StudioClient.Reading("passive-slr", "left", [80, 82], id))).Problem(HttpStatusCode.Conflict)
        );
        Assert.Equal(1, (await coach.Get($"/students/{student}/readings")).GetProperty("readings").GetArrayLength());
    }

    [Fact]
    public async Task A_breath_that_was_read_is_the_students_breath_from_now_on()
    {
        Assert.Equal(HttpStatusCode.Created, (await Take(StudioClient.Reading("breath-length", null, [5.1, 5.4, 5.3]))).StatusCode);
        var page = await coach.Get($"/students/{student}");
        Assert.Equal(5.3, page.GetProperty("student").GetProperty("student").GetProperty("breathSeconds").GetDouble());
        Assert.Equal(2, page.GetProperty("student").GetProperty("version").GetInt32());
        var history = await coach.Get($"/students/{student}/history");
        Assert.Contains("breathSeconds", history.GetRawText(), StringComparison.Ordinal);
        await Take(StudioClient.Reading("breath-length", null, [9], takenAt: app.Time.GetUtcNow().AddDays(-30)));
        Assert.Equal(2, (await coach.Get($"/students/{student}")).GetProperty("student").GetProperty("version").GetInt32());
    }

    [Theory]
    [InlineData("front-split-gap", new[] { -3.0 }, "outOfRange", "trials[0]")]
    [InlineData("front-split-gap", new[] { 1.0, 2, 3, 4, 5, 6 }, "tooMany", "trials")]
    [InlineData("front-split-gap", new double[0], "trialsCount", "trials")]
    [InlineData("no-such-measure", new[] { 1.0 }, "unknownMeasure", "measure")]
    public async Task Impossible_trials_are_refused_at_their_place(string measure, double[] trials, string code, string field) =>
        Assert.Equal(
            code,
            await (await Take(StudioClient.Reading(measure, "left", trials))).Problem(HttpStatusCode.UnprocessableEntity, field)
        );

    [Fact]
    public async Task A_date_in_the_future_is_refused() =>
        Assert.Equal(
            "dateInFuture",
            await (await Take(StudioClient.Reading("passive-slr", "left", [80], takenAt: app.Time.GetUtcNow().AddDays(1)))).Problem(
                HttpStatusCode.UnprocessableEntity,
                "takenAt"
            )
        );

    [Fact]
    public async Task The_preview_says_value_error_and_change_against_before_and_the_other_side()
    {
        await Take(StudioClient.Reading("front-split-gap", "left", [30, 30, 30]));
        await Take(StudioClient.Reading("front-split-gap", "right", [25, 25, 25]));
        var answer = await coach.Post(
            $"/students/{student}/readings/preview",
            StudioClient.Reading("front-split-gap", "left", [27.0, 27, 27], compensations: ["hips-turned-out"])
        );
        var json = System.Text.Json.JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement;
        Assert.Equal(27, json.GetProperty("value").GetDouble());
        Assert.Equal(Math.Sqrt(0.25 + 1.0 / 3), json.GetProperty("standardError").GetDouble(), 9);
        Assert.True(json.GetProperty("disqualified").GetBoolean());
        Assert.Equal(-3, json.GetProperty("previous").GetProperty("difference").GetDouble());
        Assert.True(json.GetProperty("previous").GetProperty("detectable").GetBoolean());
        Assert.Equal(-2, json.GetProperty("otherSide").GetProperty("difference").GetDouble());
        Assert.Equal(System.Text.Json.JsonValueKind.Null, json.GetProperty("weaker").ValueKind);
    }

    [Fact]
    public async Task A_voided_reading_stays_and_counts_no_more()
    {
        var id = Guid.NewGuid();
        await coach.Place(student, 1, 1);
        await Take(StudioClient.Reading("passive-slr", "left", [90, 90, 90], id));
        Assert.Equal("met", (await coach.Test(student, "left", "rom")).GetProperty("outcome").GetString());
        Assert.Equal(
            "required",
            await (await coach.Post($"/students/{student}/readings/{id}/void", new { reason = " " })).Problem(
                HttpStatusCode.UnprocessableEntity,
                "reason"
            )
        );
        Assert.Equal(
            HttpStatusCode.Created,
            (await coach.Post($"/students/{student}/readings/{id}/void", new { reason = "wrong leg" })).StatusCode
        );
        Assert.Equal("noData", (await coach.Test(student, "left", "rom")).GetProperty("outcome").GetString());
        Assert.Equal(
            "wrong leg",
            (await coach.Get($"/students/{student}/readings")).GetProperty("readings")[0].GetProperty("voidReason").GetString()
        );
    }

    [Fact]
    public async Task A_disqualified_reading_is_kept_and_counts_for_no_gate()
    {
        await coach.Place(student, 1, 1);
        await Take(StudioClient.Reading("passive-slr", "left", [90, 90, 90], compensations: ["knee-bent"]));
        Assert.Equal("noData", (await coach.Test(student, "left", "rom")).GetProperty("outcome").GetString());
        Assert.True((await coach.Get($"/students/{student}/readings")).GetProperty("readings")[0].GetProperty("disqualified").GetBoolean());
    }

    [Fact]
    public async Task Pain_at_the_end_point_twice_in_two_weeks_holds_the_region()
    {
        await coach.Place(student, 1, 1);
        await Take(StudioClient.Reading("passive-slr", "left", [90], pain: 4));
        Assert.NotEqual("blocked", (await coach.Gate(student, "left")).GetProperty("state").GetString());
        app.Time.Advance(TimeSpan.FromDays(3));
        await Take(StudioClient.Reading("passive-slr", "left", [90], pain: 5));
        Assert.Equal("blocked", (await coach.Gate(student, "left")).GetProperty("state").GetString());
    }
}
