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
    public async Task A_handstand_line_from_four_landmarks()
    {
        var line = await Answer("line", """{"wrist":[0,0],"shoulder":[2,55],"hip":[-1,105],"ankle":[3,190]}""");
        Assert.Equal(5.516, line.GetProperty("shoulderDeg").GetDouble(), 3);
        Assert.Equal(6.1279, line.GetProperty("hipDeg").GetDouble(), 4);
        Assert.Equal(0.9046, line.GetProperty("leanDeg").GetDouble(), 4);
        Assert.Equal(6.1279, line.GetProperty("lineDeg").GetDouble(), 4);
    }

    [Theory]
    [InlineData(95, "left", true)]
    [InlineData(90, null, false)]
    public async Task Two_sides_on_the_screen_are_compared_with_their_noise(double right, string? weaker, bool detectable)
    {
        var answer = await Answer(
            "asymmetry",
            $$"""{"left":{"value":88,"standardError":1.5},"right":{"value":{{right}},"standardError":1.5},"better":"up"}"""
        );
        Assert.Equal(1.96 * Math.Sqrt(4.5), answer.GetProperty("mdc95").GetDouble(), 9);
        Assert.Equal(
            (right - 88, detectable, weaker),
            (
                answer.GetProperty("difference").GetDouble(),
                answer.GetProperty("detectable").GetBoolean(),
                answer.GetProperty("weaker").GetString()
            )
        );
    }

    [Fact]
    public async Task A_straddle_with_its_default_hip_width()
    {
        var straddle = await Answer("straddle", """{"leftLegCm":86,"rightLegCm":86,"heelDistanceCm":160}""");
        Assert.Equal(112.48468, straddle.GetProperty("angleDeg").GetDouble(), 5);
        Assert.Equal(47.7886, straddle.GetProperty("expectedGapCm").GetDouble(), 4);
        Assert.Equal(
            straddle.GetProperty("angleDeg").GetDouble(),
            (await Answer("straddle", """{"leftLegCm":86,"rightLegCm":86,"hipWidthCm":17,"heelDistanceCm":160}"""))
                .GetProperty("angleDeg")
                .GetDouble()
        );
    }

    [Fact]
    public async Task A_success_rate_with_its_Wilson_interval()
    {
        var rate = await Answer("success-rate", """{"successes":7,"attempts":10}""");
        Assert.Equal(0.7, rate.GetProperty("share").GetDouble());
        Assert.Equal(0.39678, rate.GetProperty("lower95").GetDouble(), 5);
        Assert.Equal(0.89221, rate.GetProperty("upper95").GetDouble(), 5);
    }

    [Fact]
    public async Task Breaths_blocks_and_landmarks_are_converted_by_the_core()
    {
        Assert.Equal(27, (await Answer("breaths", """{"breathSeconds":4.5,"breaths":6}""")).GetProperty("seconds").GetDouble());
        Assert.Equal(6, (await Answer("breaths", """{"breathSeconds":4.5,"seconds":27}""")).GetProperty("breaths").GetDouble());
        var blocks = await Answer("blocks", """{"stack":[{"kind":"standard","face":"low"},{"kind":"standard","face":"middle"}]}""");
        Assert.Equal(22.5, blocks.GetProperty("cm").GetDouble());
        var split = await Answer(
            "landmarks",
            """{"view":"front-split-angle","placement":{"points":[{"x":0,"y":100},{"x":100,"y":0},{"x":200,"y":100}]}}"""
        );
        Assert.Equal(90, split.GetProperty("value").GetDouble(), 9);
    }

    [Theory]
    [InlineData("line", """{"wrist":[0,0],"shoulder":[0,0],"hip":[-1,105],"ankle":[3,190]}""", 422, "landmarksCoincide", "shoulder")]
    [InlineData("line", """{"wrist":[0],"shoulder":[2,55],"hip":[-1,105],"ankle":[3,190]}""", 422, "pointNeedsTwo", "wrist")]
    [InlineData("line", """{"wrist":[0,"x"],"shoulder":[2,55],"hip":[-1,105],"ankle":[3,190]}""", 400, "wrongType", "wrist[1]")]
    [InlineData("line", """{"wrist":[0,0],"shoulder":[2,55],"hip":[-1,105]}""", 400, "required", "ankle")]
    [InlineData("straddle", """{"leftLegCm":86,"rightLegCm":86,"heelDistanceCm":10}""", 422, "heelsInsideHips", "heelDistanceCm")]
    [InlineData("straddle", """{"leftLegCm":86,"rightLegCm":86,"heelDistanceCm":200}""", 422, "heelsBeyondLegs", "heelDistanceCm")]
    [InlineData("straddle", """{"leftLegCm":0,"rightLegCm":86,"heelDistanceCm":160}""", 422, "legNotPositive", "leftLegCm")]
    [InlineData("success-rate", """{"successes":11,"attempts":10}""", 422, "successesOutOfRange", "successes")]
    [InlineData("success-rate", """{"successes":0,"attempts":0}""", 422, "attemptsNotPositive", "attempts")]
    [InlineData("success-rate", """{"successes":0.5,"attempts":2}""", 400, "wrongType", "successes")]
    [InlineData("breaths", """{"breathSeconds":0,"breaths":6}""", 422, "outOfRange", "breathSeconds")]
    [InlineData("breaths", """{"breathSeconds":4}""", 422, "oneOfTwo", "breaths")]
    [InlineData("blocks", """{"stack":[{"kind":"soap","face":"low"}]}""", 422, "unknownBlock", "faces")]
    [InlineData("landmarks", """{"view":"nothing","placement":{"points":[]}}""", 422, "unknownView", "view")]
    [InlineData("landmarks", """{"view":"handstand-line","placement":{"points":[]}}""", 422, "landmarksCount", "points")]
    public async Task What_has_no_answer_is_a_problem_at_its_field(string path, string json, int status, string code, string field) =>
        Assert.Equal(code, await (await Send(path, json)).Problem((HttpStatusCode)status, field));

    private async Task<JsonElement> Answer(string path, string json) =>
        await (await Send(path, json)).EnsureSuccessStatusCode().Content.ReadFromJsonAsync<JsonElement>();

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
    [InlineData("""{"at":"2026-03-02T10:00:00Z","trials":[1,2,3,4,5,6]}""", "tooMany", "readings[0].trials")]
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
    [InlineData("""{"comparison":"atMost","threshold":22,"sem":1,"readings":[null]}""", 422, "readings[0]")]
    public async Task Bad_input_is_refused_with_its_field(string json, int status, string field) =>
        Assert.NotEmpty(await (await Send("rom-test", json)).Problem((HttpStatusCode)status, field));
}
