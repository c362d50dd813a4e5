using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Tensarch.Server.Tests.Measuring;

/// <summary>What a reading is worth, as the server freezes it.</summary>
public sealed class NoiseTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
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

    private async Task<JsonElement> Newest(int index = 0) =>
        (await coach.Get($"/students/{student}/readings")).GetProperty("readings")[index];

    [Fact]
    public async Task The_coachs_own_repeats_are_blended_in_and_frozen()
    {
        var (first, now) = (Guid.NewGuid(), app.Time.GetUtcNow());
        await Take(StudioClient.Reading("knee-to-wall", "left", [9.8, 10.2, 10.3], first, takenAt: now.AddDays(-60)));
        Assert.Equal((0.5, 0), ((await Newest()).GetProperty("sem").GetDouble(), (await Newest()).GetProperty("semDof").GetInt32()));
        await Take(StudioClient.Reading("knee-to-wall", "right", [9.0, 9.4], takenAt: now.AddDays(-30)));
        var second = await Newest();
        Assert.Equal(2, second.GetProperty("semDof").GetInt32());
        Assert.Equal(Math.Sqrt((10 * 0.25 + 0.14) / 12), second.GetProperty("sem").GetDouble(), 9);
        await Take(StudioClient.Reading("knee-to-wall", "left", [10, 10, 10]));
        var old = await Newest(2);
        Assert.Equal(first, old.GetProperty("id").GetGuid());
        Assert.Equal((0.5, 0), (old.GetProperty("sem").GetDouble(), old.GetProperty("semDof").GetInt32()));
    }

    [Fact]
    public async Task Another_coachs_hand_and_another_instrument_are_another_noise()
    {
        await Take(StudioClient.Reading("passive-slr", "left", [80, 84, 88]));
        app.Time.Advance(TimeSpan.FromDays(1));
        var tamsin = await app.Studio(Data.Role.Coach, coach.StudioId);
        await tamsin.Post($"/students/{student}/readings", StudioClient.Reading("passive-slr", "right", [80, 81]));
        Assert.Equal(0, (await Newest()).GetProperty("semDof").GetInt32());
        var preview = JsonSerializer.SerializeToNode(StudioClient.Reading("passive-slr", "left", [82]), StudioApp.Json)!;
        preview["instrument"] = "inclinometer";
        var answer = await (await coach.Post($"/students/{student}/readings/preview", preview)).Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal(0, answer.GetProperty("semDof").GetInt32());
        preview["instrument"] = "goniometer";
        answer = await (await coach.Post($"/students/{student}/readings/preview", preview)).Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal(2, answer.GetProperty("semDof").GetInt32());
    }

    [Fact]
    public async Task An_unlikely_value_is_taken_after_a_yes()
    {
        await Take(StudioClient.Reading("passive-slr", "left", [80, 80, 80]));
        app.Time.Advance(TimeSpan.FromDays(7));
        var far = StudioClient.Reading("passive-slr", "left", [120, 120, 120]);
        Assert.Equal("unlikely", await (await Take(far)).Problem(HttpStatusCode.UnprocessableEntity, "trials"));
        var preview = await (await coach.Post($"/students/{student}/readings/preview", far)).Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal(80, preview.GetProperty("unlikely").GetProperty("median").GetDouble());
        var sure = StudioClient.Reading("passive-slr", "left", [120, 120, 120], confirmed: true);
        Assert.Equal(HttpStatusCode.Created, (await Take(sure)).StatusCode);
        Assert.True((await Newest()).GetProperty("confirmed").GetBoolean());
        Assert.Equal(HttpStatusCode.Created, (await Take(StudioClient.Reading("passive-slr", "right", [120]))).StatusCode);
    }

    [Fact]
    public async Task Cold_and_warm_never_meet()
    {
        await Take(StudioClient.Reading("passive-slr", "left", [80, 80, 80]));
        var cold = JsonSerializer.SerializeToNode(StudioClient.Reading("passive-slr", "left", [70, 70, 70]), StudioApp.Json)!;
        cold["warmth"] = "cold";
        var answer = await (await coach.Post($"/students/{student}/readings/preview", cold)).Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal(JsonValueKind.Null, answer.GetProperty("previous").ValueKind);
        cold["warmth"] = "neither";
        Assert.Equal("wrongType", await (await Take(cold)).Problem(HttpStatusCode.BadRequest, "warmth"));
    }

    [Fact]
    public async Task Block_stacks_are_converted_and_both_are_kept()
    {
        var stacks = JsonSerializer.SerializeToNode(StudioClient.Reading("front-split-gap", "left", []), StudioApp.Json)!;
        stacks["instrument"] = "blockStack";
        stacks["stacks"] = JsonSerializer.SerializeToNode(
            new[] { new[] { new { kind = "standard", face = "low" }, new { kind = "standard", face = "middle" } } }
        );
        Assert.Equal(HttpStatusCode.Created, (await Take(stacks)).StatusCode);
        var reading = await Newest();
        Assert.Equal(22.5, reading.GetProperty("value").GetDouble());
        Assert.Equal("middle", reading.GetProperty("stacks")[0][1].GetProperty("face").GetString());
        Assert.Equal(Math.Sqrt(0.25 + 1 + Math.Pow(3.75, 2) / 3), reading.GetProperty("standardError").GetDouble(), 9);
    }

    [Fact]
    public async Task The_two_readings_of_a_middle_split_are_cross_checked()
    {
        static object Middle(string measure, double value)
        {
            var json = JsonSerializer.SerializeToNode(StudioClient.Reading(measure, "left", [value, value, value]), StudioApp.Json)!;
            json["side"] = null;
            json["instrument"] = "tape";
            return json;
        }
        await Take(Middle("straddle-heel-distance", 160));
        var preview = await (
            await coach.Post($"/students/{student}/readings/preview", Middle("middle-split-gap", 47))
        ).Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal(47.7886, preview.GetProperty("straddle").GetProperty("expectedGapCm").GetDouble(), 4);
        Assert.False(preview.GetProperty("straddle").GetProperty("disagree").GetBoolean());
        preview = await (
            await coach.Post($"/students/{student}/readings/preview", Middle("middle-split-gap", 20))
        ).Content.ReadFromJsonAsync<JsonElement>();
        Assert.True(preview.GetProperty("straddle").GetProperty("disagree").GetBoolean());
    }

    [Fact]
    public async Task An_own_version_of_a_measure_changes_what_is_plausible_and_leaves_the_shipped_one()
    {
        object Own(int basedOn, double min, Guid? id = null) =>
            new
            {
                id = id ?? Guid.NewGuid(),
                basedOn,
                own = new
                {
                    min,
                    max = 130,
                    sem = 2.0,
                    protocol = new[] { "Our way." },
                },
            };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post("/measures/passive-slr/versions", Own(0, 40))).StatusCode);
        Assert.Equal(
            "outOfRange",
            await (await Take(StudioClient.Reading("passive-slr", "left", [30]))).Problem(HttpStatusCode.UnprocessableEntity)
        );
        await Take(StudioClient.Reading("passive-slr", "left", [80]));
        Assert.Equal((2.0, 1.0), ((await Newest()).GetProperty("sem").GetDouble(), (await Newest()).GetProperty("tau").GetDouble()));
        Assert.Equal(
            "changedMeanwhile",
            await (await coach.Post("/measures/passive-slr/versions", Own(0, 50))).Problem(HttpStatusCode.PreconditionFailed, "basedOn")
        );
        Assert.Equal(
            "minNotUnderMax",
            await (await coach.Post("/measures/passive-slr/versions", Own(1, 140))).Problem(HttpStatusCode.UnprocessableEntity, "max")
        );
        var stranger = await app.Studio();
        var theirs = (await stranger.Get("/measures/passive-slr")).GetProperty("version");
        Assert.Equal((0, 20), (theirs.GetProperty("version").GetInt32(), theirs.GetProperty("shipped").GetProperty("min").GetDouble()));
        await coach.Post(
            "/measures/passive-slr/versions",
            new
            {
                id = Guid.NewGuid(),
                basedOn = 1,
                own = (object?)null,
            }
        );
        Assert.Equal(HttpStatusCode.Created, (await Take(StudioClient.Reading("passive-slr", "right", [30]))).StatusCode);
    }

    [Fact]
    public async Task Blocks_of_the_house_are_changed_by_one_person_at_a_time()
    {
        object Kinds(int version, double low) =>
            new
            {
                version,
                kinds = new[]
                {
                    new
                    {
                        key = "standard",
                        name = "Cork",
                        lowCm = low,
                        middleCm = 12.0,
                        highCm = 22.0,
                    },
                },
            };
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.PutAsJsonAsync("/api/v1/blocks", Kinds(0, 8))).StatusCode);
        Assert.Equal(
            "changedMeanwhile",
            await (await coach.Http.PutAsJsonAsync("/api/v1/blocks", Kinds(0, 9))).Problem(HttpStatusCode.PreconditionFailed)
        );
        Assert.Equal(
            "facesNotAscending",
            await (await coach.Http.PutAsJsonAsync("/api/v1/blocks", Kinds(1, 13))).Problem(HttpStatusCode.UnprocessableEntity)
        );
        var height = await coach.Post("/compute/blocks", new { stack = new[] { new { kind = "standard", face = "low" } } });
        Assert.Equal(8, (await height.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("cm").GetDouble());
    }

    [Fact]
    public async Task A_series_says_its_points_its_last_change_and_the_gates_lines()
    {
        await coach.Place(student, 1, 1);
        await Take(StudioClient.Reading("passive-slr", "left", [70, 70, 70], takenAt: app.Time.GetUtcNow().AddDays(-7)));
        await Take(StudioClient.Reading("passive-slr", "left", [80, 80, 80]));
        await Take(StudioClient.Reading("passive-slr", "right", [75]));
        var list = (await coach.Get($"/students/{student}/series")).GetProperty("series");
        Assert.Equal((2, 10), (list[0].GetProperty("count").GetInt32(), list[0].GetProperty("change").GetDouble()));
        Assert.Equal(JsonValueKind.Null, list[1].GetProperty("change").ValueKind);
        var points = await coach.Get($"/students/{student}/series/passive-slr?warmth=warm");
        Assert.Equal(3, points.GetProperty("points").GetArrayLength());
        Assert.All(points.GetProperty("lines").EnumerateArray(), l => Assert.Equal(75, l.GetProperty("threshold").GetDouble()));
        Assert.Equal(0, (await coach.Get($"/students/{student}/series/passive-slr?warmth=cold")).GetProperty("points").GetArrayLength());
        var wrong = await coach.Http.GetAsync($"/api/v1/students/{student}/series/passive-slr?warmth=tepid");
        Assert.Equal("unknownWord", await wrong.Problem(HttpStatusCode.UnprocessableEntity, "warmth"));
    }

    [Fact]
    public async Task Readings_of_one_instant_are_neither_lost_nor_doubled_between_pages()
    {
        var at = app.Time.GetUtcNow();
        for (var i = 0; i < 60; i++)
            await Take(StudioClient.Reading("passive-slr", "left", [80 + i % 3], takenAt: at));
        foreach (var list in new[] { $"/students/{student}/readings", "/readings" })
        {
            var first = await coach.Get(list);
            var second = await coach.Get($"{list}?before={first.GetProperty("next").GetString()}");
            var ids = new[] { first, second }
                .SelectMany(p => p.GetProperty("readings").EnumerateArray())
                .Select(r => r.GetProperty("id").GetGuid());
            Assert.Equal(60, ids.Distinct().Count());
            Assert.Equal(10, second.GetProperty("readings").GetArrayLength());
        }
    }
}
