using System.Net;
using System.Text.Json;

namespace Tensarch.Server.Tests.Skills;

/// <summary>A ladder without sides, from a way out that is shown to the gate that it opens.</summary>
public sealed class BilateralTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Exit(int safe, int of, string? side = null, int stage = 3, string skill = "crow") =>
        coach.Post(
            $"/students/{student}/skills/{skill}/exit-checks",
            new
            {
                id = Guid.NewGuid(),
                stage,
                side,
                safe,
                of,
            }
        );

    private async Task<JsonElement> Test(string skill, string kind) =>
        (await coach.Gate(student, null, skill))
            .GetProperty("tests")
            .EnumerateArray()
            .First(t => t.GetProperty("test").GetProperty("kind").GetString() == kind);

    [Fact]
    public async Task A_way_out_is_written_down_and_counts()
    {
        await coach.Place(student, "crow", 3);
        Assert.Equal("exitNotShown", (await Test("crow", "exit")).GetProperty("reason").GetString());
        Assert.Equal(HttpStatusCode.Created, (await Exit(4, 5)).StatusCode);
        Assert.Equal("exitIncomplete", (await Test("crow", "exit")).GetProperty("reason").GetString());
        app.Time.Advance(TimeSpan.FromMinutes(5));
        await Exit(5, 5);
        Assert.Equal("met", (await Test("crow", "exit")).GetProperty("outcome").GetString());
        Assert.Equal("successesOutOfRange", await (await Exit(6, 5)).Problem(HttpStatusCode.UnprocessableEntity, "safe"));
        Assert.Equal("coursesDoNotFit", await (await Exit(5, 5, "left")).Problem(HttpStatusCode.UnprocessableEntity, "side"));
        Assert.Equal("noExitHere", await (await Exit(5, 5, stage: 1)).Problem(HttpStatusCode.UnprocessableEntity, "stage"));
    }

    [Fact]
    public async Task What_is_held_is_not_shown_not_held_and_not_ticked_now()
    {
        await coach.Place(student, "crow", 3);
        await coach.Place(student, "shoulderstand", 1);
        Task<HttpResponseMessage> Set(DateTimeOffset? at) =>
            coach.Post(
                $"/students/{student}/skills/crow/bench-sets",
                new
                {
                    id = Guid.NewGuid(),
                    drill = "crow",
                    variant = "cushion-in-front",
                    side = (string?)null,
                    seconds = 5,
                    cleanReps = (int?)null,
                    quality = (int?)null,
                    at,
                }
            );
        Task<HttpResponseMessage> Form() =>
            coach.Post(
                $"/students/{student}/skills/shoulderstand/form-checks",
                new
                {
                    id = Guid.NewGuid(),
                    stage = 2,
                    side = (string?)null,
                    ticked = new[] { "rolls" },
                }
            );
        Assert.Equal(HttpStatusCode.Created, (await Form()).StatusCode);
        var shown = new
        {
            id = Guid.NewGuid(),
            stage = 3,
            side = (string?)null,
            safe = 5,
            of = 5,
        };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/skills/crow/exit-checks", shown)).StatusCode);
        await coach.Answer(student, "blood-thinners", "neck");
        Assert.Equal("offLimits", await (await Exit(5, 5)).Problem(HttpStatusCode.UnprocessableEntity));
        Assert.Equal("offLimits", await (await Set(null)).Problem(HttpStatusCode.UnprocessableEntity));
        Assert.Equal("offLimits", await (await Form()).Problem(HttpStatusCode.UnprocessableEntity));
        // What was written down before is a fact, and a retry of it is no new one.
        Assert.Equal(HttpStatusCode.OK, (await coach.Post($"/students/{student}/skills/crow/exit-checks", shown)).StatusCode);
        Assert.Equal(HttpStatusCode.Created, (await Set(app.Time.GetUtcNow().AddDays(-1))).StatusCode);
        Assert.Equal("liftBar", (await coach.Gate(student, null, "crow")).GetProperty("next").GetProperty("code").GetString());
    }

    [Fact]
    public async Task Nobody_starts_past_a_way_out_that_was_not_shown_and_the_shoulderstand_starts_at_one()
    {
        Assert.Equal(
            "startTooHigh",
            await (await coach.Start(student, "handstand", (null, 4))).Problem(HttpStatusCode.UnprocessableEntity, "courses[0].stage")
        );
        Assert.Equal(
            "startTooHigh",
            await (await coach.Start(student, "shoulderstand", (null, 2))).Problem(HttpStatusCode.UnprocessableEntity, "courses[0].stage")
        );
        await coach.Answer(student, "vertigo-head");
        Assert.Equal(
            "startTooHigh",
            await (await coach.Start(student, "handstand", (null, 2))).Problem(HttpStatusCode.UnprocessableEntity, "courses[0].stage")
        );
        Assert.Equal(HttpStatusCode.Created, (await coach.Start(student, "handstand", (null, 1))).StatusCode);
        Assert.Equal("blocked", (await coach.Gate(student, null, "handstand")).GetProperty("state").GetString());
        Assert.Equal(
            "offLimits",
            await (await coach.Decide(student, null, "override", 1, "I have seen her do it.", skill: "handstand")).Problem(
                HttpStatusCode.UnprocessableEntity
            )
        );
    }

    [Fact]
    public async Task A_session_is_made_for_the_skill_that_is_named()
    {
        await coach.Place(student, "deep-squat", 2);
        await coach.Place(student, "handstand", 2);
        var id = Guid.NewGuid();
        var made = await coach.Post(
            $"/students/{student}/sessions",
            new
            {
                id,
                date = (string?)null,
                minutes = 45,
                skill = "handstand",
            }
        );
        Assert.Equal(HttpStatusCode.Created, made.StatusCode);
        var sheet = await coach.Get($"/sessions/{id}");
        Assert.Equal("handstand", sheet.GetProperty("plan").GetProperty("ladder").GetString());
        var drills = sheet
            .GetProperty("plan")
            .GetProperty("drills")
            .EnumerateArray()
            .Select(d => d.GetProperty("drill").GetString())
            .ToList();
        Assert.Contains("hollow", drills);
        Assert.Equal("wrist-series", drills.First(d => d is "wrist-series" or "plank" or "protraction" or "forward-lean"));
        Assert.Equal("handstand", (await coach.Get($"/students/{student}")).GetProperty("nextSession").GetProperty("skill").GetString());
    }

    [Fact]
    public async Task Holds_of_a_reading_count_apart_when_the_bench_saw_the_minute()
    {
        await coach.Place(student, "deep-squat", 4);
        var now = app.Time.GetUtcNow();
        object Hold(double[] trials, DateTimeOffset[]? at) =>
            new
            {
                id = Guid.NewGuid(),
                measure = "squat-hold",
                level = "hands",
                side = (string?)null,
                warmth = "warm",
                standard = (string?)null,
                instrument = "stopwatch",
                trials,
                compensations = Array.Empty<string>(),
                quality = 4,
                sensation = (int?)null,
                pain = (int?)null,
                note = (string?)null,
                takenAt = (string?)null,
                trialsAt = at,
            };
        await coach.Post($"/students/{student}/readings", Hold([50, 50], null));
        Assert.Equal("heldOnce", (await Test("deep-squat", "hold")).GetProperty("reason").GetString());
        var seen = await coach.Post($"/students/{student}/readings", Hold([50, 50], [now.AddMinutes(-5), now.AddMinutes(-3)]));
        Assert.Equal(HttpStatusCode.Created, seen.StatusCode);
        Assert.Equal("heldTwice", (await Test("deep-squat", "hold")).GetProperty("reason").GetString());
        Assert.Equal(
            "trialTimesDoNotFit",
            await (await coach.Post($"/students/{student}/readings", Hold([50, 50], [now]))).Problem(
                HttpStatusCode.UnprocessableEntity,
                "trialsAt"
            )
        );
    }
}
