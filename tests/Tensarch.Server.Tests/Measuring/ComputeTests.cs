using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Tensarch.Server.Tests.Measuring;

public sealed class ComputeTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;

    public async ValueTask InitializeAsync() => coach = await app.Studio();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Send(string path, string json) =>
        coach.Http.PostAsync("/api/v1/compute/" + path, new StringContent(json, null, "application/json"));

    private async Task<JsonElement> Rom(string more, string readings) =>
        await (await Send("rom-test", $$"""{"comparison":"atMost","threshold":22,"sem":1.0,{{more}}"readings":[{{readings}}]}"""))
            .EnsureSuccessStatusCode()
            .Content.ReadFromJsonAsync<JsonElement>();

    private const string FirstDay = """{"at":"2026-03-02T10:00:00Z","trials":[21.0,21.6,21.4]}""";
    private const string SecondDay = """{"at":"2026-03-04T10:00:00Z","trials":[21.4,21.6,21.5]}""";
    private const string On3 = "\"now\":\"2026-03-03T10:00:00Z\",";
    private const string On5 = "\"now\":\"2026-03-05T10:00:00Z\",";

    [Fact]
    public async Task The_split_angle_of_twelve_centimetres()
    {
        var answer = await (
            await Send("split-angle", """{"gapCm":12,"frontLegCm":86,"backLegCm":86}""")
        ).Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal(163.958, answer.GetProperty("angleDeg").GetDouble(), 3);
    }

    [Theory]
    [InlineData("""{"gapCm":-3,"frontLegCm":86,"backLegCm":86}""", 422, "gapNegative", "gapCm")]
    [InlineData("""{"gapCm":12,"frontLegCm":0,"backLegCm":86}""", 422, "legNotPositive", "frontLegCm")]
    [InlineData("""{"gapCm":90,"frontLegCm":86,"backLegCm":86}""", 422, "gapBeyondLeg", "gapCm")]
    [InlineData("""{"gapCm":"abc","frontLegCm":86,"backLegCm":86}""", 400, "wrongType", "gapCm")]
    [InlineData("""{"gapCm":"12","frontLegCm":86,"backLegCm":86}""", 400, "wrongType", "gapCm")]
    [InlineData("""{"frontLegCm":86,"backLegCm":86}""", 400, "required", "gapCm")]
    [InlineData("""{"gapCm":null,"frontLegCm":86,"backLegCm":86}""", 400, "wrongType", "gapCm")]
    [InlineData("""{"gapCm":""", 400, null, null)]
    public async Task A_bad_split_is_a_problem_at_its_field(string json, int status, string? code, string? field)
    {
        var found = await (await Send("split-angle", json)).Problem((HttpStatusCode)status, field);
        Assert.True(code is null || code == found, found);
    }

    [Fact]
    public async Task One_day_at_the_line_is_borderline_and_a_second_confirms()
    {
        var one = await Rom(On3, FirstDay);
        Assert.Equal(("borderline", "withinNoise"), (one.GetProperty("outcome").GetString(), one.GetProperty("reason").GetString()));
        Assert.Equal(21.333, one.GetProperty("value").GetDouble(), 3);
        Assert.Equal(0.577, one.GetProperty("standardError").GetDouble(), 3);
        Assert.Equal(0.667, one.GetProperty("margin").GetDouble(), 3);
        var two = await Rom(On5, $"{SecondDay},{FirstDay}");
        Assert.Equal(("met", "confirmedPass"), (two.GetProperty("outcome").GetString(), two.GetProperty("reason").GetString()));
    }

    [Theory]
    [InlineData(On3, "", "noData")]
    [InlineData("\"now\":\"2026-04-03T10:00:00Z\",", FirstDay, "stale")]
    [InlineData("\"now\":\"2026-04-03T10:00:00Z\",\"shelfDays\":60,", FirstDay, "borderline")]
    [InlineData("\"now\":\"2026-03-03T10:00:00Z\",\"betweenDays\":0.5,", FirstDay, "borderline")]
    [InlineData("\"now\":\"2026-03-03T10:00:00Z\",\"minTrials\":4,", """{"at":"2026-03-02T10:00:00Z","trials":[10,10,10]}""", "borderline")]
    [InlineData(On3, """{"at":"2026-03-02T10:00:00Z","trials":[10,10,10]}""", "met")]
    [InlineData("", """{"at":"2035-03-02T10:00:00Z","trials":[30]}""", "notMet")]
    public async Task Every_outcome_has_its_name(string more, string readings, string outcome) =>
        Assert.Equal(outcome, (await Rom(more, readings)).GetProperty("outcome").GetString());

    [Fact]
    public async Task No_data_has_no_numbers()
    {
        var answer = await Rom(On3, "");
        Assert.All(
            new[] { "value", "standardError", "margin" },
            name => Assert.Equal(JsonValueKind.Null, answer.GetProperty(name).ValueKind)
        );
    }

    [Fact]
    public async Task Readings_within_twelve_hours_are_one_test()
    {
        var pooled = await Rom(On3, """{"at":"2026-03-02T18:00:00Z","trials":[22]},{"at":"2026-03-02T08:00:00Z","trials":[20]}""");
        Assert.Equal(21, pooled.GetProperty("value").GetDouble(), 9);
        Assert.Equal(Math.Sqrt(0.5), pooled.GetProperty("standardError").GetDouble(), 9);
        var apart = await Rom(On3, """{"at":"2026-03-02T21:00:00Z","trials":[22]},{"at":"2026-03-02T08:00:00Z","trials":[20]}""");
        Assert.Equal(22, apart.GetProperty("value").GetDouble(), 9);
    }

    [Theory]
    [InlineData("""{"at":"2026-03-03T10:00:01Z","trials":[21]}""", "readingInFuture", "readings[0].at")]
    [InlineData("""{"at":"2026-03-02T10:00:00Z","trials":[]}""", "trialsCount", "readings[0].trials")]
    [InlineData("""{"at":"2026-03-02T10:00:00Z","trials":[1,2,3,4,5,6]}""", "trialsCount", "readings[0].trials")]
    public async Task A_bad_reading_is_named_by_its_place(string reading, string code, string field) =>
        Assert.Equal(
            code,
            await (await Send("rom-test", $$"""{"comparison":"atMost","threshold":22,"sem":1,{{On3}}"readings":[{{reading}}]}""")).Problem(
                HttpStatusCode.UnprocessableEntity,
                field
            )
        );

    [Theory]
    [InlineData("""{"comparison":"atMost","threshold":22,"sem":-1,"readings":[]}""", 422, "sem")]
    [InlineData("""{"comparison":"around","threshold":22,"sem":1,"readings":[]}""", 400, "comparison")]
    [InlineData("""{"comparison":"atMost","threshold":22,"sem":1}""", 400, "readings")]
    [InlineData(
        """{"comparison":"atMost","threshold":22,"sem":1,"readings":[{"at":"2026-03-02T10:00:00Z","trials":["abc"]}]}""",
        400,
        "readings[0].trials[0]"
    )]
    [InlineData("""{"comparison":"atMost","threshold":22,"sem":1,"minTrials":0,"readings":[]}""", 422, "minTrials")]
    [InlineData("""{"comparison":"atMost","threshold":22,"sem":1,"readings":[null]}""", 422, "readings[0].trials")]
    public async Task Bad_input_is_refused_with_its_field(string json, int status, string field) =>
        Assert.NotEmpty(await (await Send("rom-test", json)).Problem((HttpStatusCode)status, field));
}
