using System.Net;
using System.Text.Json;

namespace Tensarch.Server.Tests.Skills;

public sealed class DecisionTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.ReadAll(student);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    /// <summary>Two sessions without pain, so that only the stage's own tests are left.</summary>
    private async Task TrainTwice()
    {
        for (var i = 0; i < 2; i++)
        {
            var session = await coach.Session(student);
            app.Time.Advance(TimeSpan.FromHours(1));
            var now = app.Time.GetUtcNow();
            await coach.Log(session, now, [StudioClient.Set("low-lunge", "deep", "left", now.AddMinutes(-9))]);
            app.Time.Advance(TimeSpan.FromDays(2));
        }
    }

    private async Task<List<JsonElement>> Log() =>
        [.. (await coach.Get($"/students/{student}/decisions?skill=front-split")).GetProperty("decisions").EnumerateArray()];

    [Fact]
    public async Task The_suggested_stage_comes_from_the_readings()
    {
        var courses = (await coach.Get($"/students/{student}/skills/front-split/placement"))
            .GetProperty("courses")
            .EnumerateArray()
            .ToList();
        Assert.All(courses, c => Assert.Equal(3, c.GetProperty("suggested").GetInt32()));
        // The lower stages would still add sessions, and no start lies past the form that was not shown.
        var lowest = courses[0].GetProperty("stages")[0].GetProperty("adds").EnumerateArray();
        Assert.Equal(["exposure", "pain"], lowest.Select(t => t.GetProperty("test").GetProperty("kind").GetString()));
        Assert.All(courses, c => Assert.Equal(6, c.GetProperty("highest").GetInt32()));
    }

    [Fact]
    public async Task A_start_sent_twice_places_once_and_another_body_is_a_clash()
    {
        object Start(Guid left, int stage) =>
            new
            {
                id = Guid.Parse("00000000-0000-7000-8000-000000000001"),
                skill = "front-split",
                approach = "long-and-ramped",
                courses = new object[]
                {
                    new
                    {
                        decisionId = left,
                        side = "left",
                        stage,
                    },
                    new
                    {
                        decisionId = Guid.Parse("00000000-0000-7000-8000-000000000003"),
                        side = "right",
                        stage = 2,
                    },
                },
            };
        var id = Guid.NewGuid();
        Task<HttpResponseMessage> Send(object body) => coach.Post($"/students/{student}/skills", body);
        Assert.Equal(HttpStatusCode.Created, (await Send(Start(id, 2))).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Send(Start(id, 2))).StatusCode);
        Assert.Equal("idTaken", await (await Send(Start(id, 3))).Problem(HttpStatusCode.Conflict));
        Assert.Equal(2, (await Log()).Count);
        var other = await coach.Student();
        Assert.Equal(
            "outOfRange",
            await (await coach.Start(other, "front-split", ("left", 9), ("right", 1))).Problem(
                HttpStatusCode.UnprocessableEntity,
                "courses[0].stage"
            )
        );
        Assert.Equal(
            "startTooHigh",
            await (await coach.Start(other, "front-split", ("left", 7), ("right", 1))).Problem(
                HttpStatusCode.UnprocessableEntity,
                "courses[0].stage"
            )
        );
        Assert.Equal(
            "coursesDoNotFit",
            await (await coach.Start(other, "front-split", (null, 1))).Problem(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task An_open_gate_is_advanced_once_and_keeps_its_evidence()
    {
        await coach.Place(student, 2, 2);
        await TrainTwice();
        Assert.Equal("open", (await coach.Gate(student, "left")).GetProperty("state").GetString());
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await coach.Decide(student, "left", "advance", 2, id: id)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await coach.Decide(student, "left", "advance", 2, id: id)).StatusCode);
        Assert.Equal(
            "stageMoved",
            await (await coach.Decide(student, "left", "advance", 2)).Problem(HttpStatusCode.UnprocessableEntity, "fromStage")
        );
        Assert.Equal(3, (await coach.Gate(student, "left")).GetProperty("stage").GetInt32());

        var log = await Log();
        var advance = log.Single(d => d.GetProperty("kind").GetString() == "advance");
        Assert.Equal("Coach", advance.GetProperty("by").GetString());
        Assert.Equal("open", advance.GetProperty("evidence").GetProperty("state").GetString());
        Assert.Equal(112, advance.GetProperty("evidence").GetProperty("tests")[0].GetProperty("value").GetDouble());
        Assert.Equal(3, log.Count);
    }

    [Fact]
    public async Task The_leading_side_waits_for_the_other()
    {
        await coach.Place(student, 2, 3);
        var right = await coach.Gate(student, "right");
        Assert.Equal("waiting", right.GetProperty("state").GetString());
        Assert.Equal(6, right.GetProperty("tests").GetArrayLength());
        Assert.Equal(
            "waitsForOtherSide",
            await (await coach.Decide(student, "right", "advance", 3)).Problem(HttpStatusCode.UnprocessableEntity)
        );
    }

    [Fact]
    public async Task A_closed_gate_needs_an_override_with_a_reason()
    {
        await coach.Place(student, 3, 3);
        Assert.Equal("gateNotOpen", await (await coach.Decide(student, "left", "advance", 3)).Problem(HttpStatusCode.UnprocessableEntity));
        Assert.Equal(
            "reasonTooShort",
            await (await coach.Decide(student, "left", "override", 3, "too thin")).Problem(HttpStatusCode.UnprocessableEntity, "reason")
        );
        Assert.Equal(HttpStatusCode.Created, (await coach.Decide(student, "left", "override", 3, "She has held it for years.")).StatusCode);
        Assert.Equal(HttpStatusCode.Created, (await coach.Decide(student, "left", "stepBack", 4)).StatusCode);
        Assert.Equal(3, (await coach.Gate(student, "left")).GetProperty("stage").GetInt32());
    }

    [Fact]
    public async Task No_override_passes_a_hold()
    {
        await coach.Place(student, 3, 3);
        await coach.Answer(student, "hip-replacement");
        Assert.Equal("blocked", (await coach.Gate(student, "left")).GetProperty("state").GetString());
        Assert.Equal(
            "offLimits",
            await (await coach.Decide(student, "left", "override", 3, "I really want to, believe me.")).Problem(
                HttpStatusCode.UnprocessableEntity
            )
        );
        Assert.Equal(3, (await coach.Gate(student, "left")).GetProperty("stage").GetInt32());
    }

    [Fact]
    public async Task Holds_shown_on_the_bench_and_a_ticked_form_count()
    {
        await coach.Place(student, 3, 3);
        async Task Hold(double seconds) =>
            Assert.Equal(
                HttpStatusCode.Created,
                (
                    await coach.Post(
                        $"/students/{student}/skills/front-split/bench-sets",
                        new
                        {
                            id = Guid.NewGuid(),
                            drill = "split-support",
                            variant = "high-only",
                            side = "left",
                            seconds,
                            cleanReps = (int?)null,
                            quality = (int?)null,
                            at = (string?)null,
                        }
                    )
                ).StatusCode
            );
        await Hold(31);
        Assert.Equal("borderline", (await coach.Test(student, "left", "hold")).GetProperty("outcome").GetString());
        app.Time.Advance(TimeSpan.FromMinutes(2));
        await Hold(30);
        Assert.Equal("met", (await coach.Test(student, "left", "hold")).GetProperty("outcome").GetString());
        Assert.Equal("noData", (await coach.Test(student, "right", "hold")).GetProperty("outcome").GetString());

        var form = new
        {
            id = Guid.NewGuid(),
            stage = 6,
            side = "left",
            ticked = new[] { "kneecap-up", "no-such-item" },
        };
        Assert.Equal(
            "unknownItem",
            await (await coach.Post($"/students/{student}/skills/front-split/form-checks", form)).Problem(
                HttpStatusCode.UnprocessableEntity,
                "ticked"
            )
        );
    }

    [Fact]
    public async Task Changing_the_standard_starts_a_series_of_its_own()
    {
        await coach.Place(student, 3, 3);
        Assert.Equal("met", (await coach.Test(student, "left", "rom")).GetProperty("outcome").GetString());
        using var change = new HttpRequestMessage(HttpMethod.Put, $"/api/v1/students/{student}")
        {
            Content = new StringContent(
                System.Text.Json.JsonSerializer.Serialize(StudioClient.Body()).Replace("square", "open", StringComparison.Ordinal),
                null,
                "application/json"
            ),
        };
        change.Headers.Add("If-Match", "\"1\"");
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.SendAsync(change)).StatusCode);
        Assert.Equal("noData", (await coach.Test(student, "left", "rom")).GetProperty("outcome").GetString());
    }
}
