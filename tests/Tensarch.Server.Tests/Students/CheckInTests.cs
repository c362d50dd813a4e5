using System.Globalization;
using System.Net;
using System.Text.Json;

namespace Tensarch.Server.Tests.Students;

/// <summary>What is said before a session reaches the session.</summary>
public sealed class CheckInTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 3, 3);
        // Not a first week, of which less is left to take.
        app.Time.Advance(TimeSpan.FromDays(10));
        await coach.SignIn();
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<Guid> Say(bool sleptBadly = false, bool ill = false, bool trainedHard = false, params object[] felt)
    {
        var id = Guid.NewGuid();
        var answer = await coach.Post(
            $"/students/{student}/check-ins",
            new
            {
                id,
                sleptBadly,
                ill,
                trainedHard,
                felt,
            }
        );
        Assert.True(answer.StatusCode == HttpStatusCode.Created, await answer.Content.ReadAsStringAsync());
        app.Time.Advance(TimeSpan.FromMinutes(1));
        return id;
    }

    private static object Felt(string kind, string place, string? side, int level) =>
        new
        {
            kind,
            place,
            side,
            level,
        };

    private async Task<JsonElement> Sheet(Guid session) => await coach.Get($"/sessions/{session}");

    private async Task<List<string>> Outdated(Guid session) =>
        [.. (await Sheet(session)).GetProperty("outdated").EnumerateArray().Select(c => c.GetString()!)];

    private async Task<HttpResponseMessage> Again(Guid session) =>
        await coach.Post(
            $"/sessions/{session}/changes",
            new
            {
                id = Guid.NewGuid(),
                kind = "again",
                date = (string?)null,
                seen = long.Parse((await Sheet(session)).GetProperty("version").GetString()!, CultureInfo.InvariantCulture),
                second = false,
            }
        );

    private async Task<string?> Level(string tag) =>
        (await coach.Get($"/students/{student}"))
            .GetProperty("bars")
            .GetProperty("tags")
            .EnumerateArray()
            .Where(t => t.GetProperty("tag").GetString() == tag)
            .Select(t => t.GetProperty("level").GetString())
            .SingleOrDefault();

    private static Dictionary<string, int> Rounds(JsonElement sheet) =>
        sheet
            .GetProperty("plan")
            .GetProperty("drills")
            .EnumerateArray()
            .ToDictionary(
                d => d.GetProperty("id").GetString()!,
                d =>
                    d.GetProperty("sides")
                        .EnumerateArray()
                        .Sum(s =>
                            new[] { "rounds", "attempts", "sets" }
                                .Select(n => s.GetProperty("dose").TryGetProperty(n, out var v) ? v.GetInt32() : 0)
                                .Max()
                        )
            );

    [Fact]
    public async Task After_a_bad_night_the_session_that_waits_is_made_again_with_a_round_less()
    {
        var session = await coach.Session(student);
        var before = Rounds(await Sheet(session));
        await Say(sleptBadly: true);
        Assert.Contains("notRested", await Outdated(session));
        Assert.Equal(
            "planOutdated",
            await (await coach.Http.GetAsync($"/api/v1/sessions/{session}/pack")).Problem(HttpStatusCode.Conflict)
        );
        Assert.Equal(HttpStatusCode.OK, (await Again(session)).StatusCode);
        Assert.Empty(await Outdated(session));
        var sheet = await Sheet(session);
        Assert.Contains(
            sheet.GetProperty("plan").GetProperty("notes").EnumerateArray(),
            n => n.GetProperty("code").GetString() == "oneRoundFewer"
        );
        Assert.True(Rounds(sheet).Values.Sum() < before.Values.Sum());
    }

    [Fact]
    public async Task Who_is_ill_rests_today_and_trains_tomorrow()
    {
        var session = await coach.Session(student);
        await Say(ill: true);
        Assert.Equal("planBarred", await (await coach.Http.GetAsync($"/api/v1/sessions/{session}/pack")).Problem(HttpStatusCode.Conflict));
        Assert.Equal("everythingOffLimits", await (await Again(session)).Problem(HttpStatusCode.UnprocessableEntity));
        // Said by mistake: what is said last stands.
        await Say();
        Assert.Null(await Level("wrist"));
        await Say(ill: true);
        app.Time.Advance(TimeSpan.FromDays(1));
        Assert.Null(await Level("wrist"));
    }

    [Fact]
    public async Task What_is_sore_painful_or_injured_is_spared_today()
    {
        await Say(
            felt:
            [
                Felt("sore", "back-of-thigh", "left", 6),
                Felt("pain", "wrist", "right", 4),
                Felt("injury", "ankle", "left", 0),
                Felt("sore", "inner-thigh", "left", 5),
            ]
        );
        Assert.Equal(
            ("lightOnly", "offLimits", "offLimits", null),
            (await Level("hamstring"), await Level("wrist"), await Level("ankle"), await Level("adductor"))
        );
        app.Time.Advance(TimeSpan.FromDays(1));
        // Of the day alone; an injury waits for a look.
        Assert.Equal((null, null, "offLimits"), (await Level("hamstring"), await Level("wrist"), await Level("ankle")));
        var review = new
        {
            id = Guid.NewGuid(),
            tag = "ankle",
            note = "Rolled a week ago, full weight and no swelling.",
        };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/reviews", review)).StatusCode);
        Assert.Null(await Level("ankle"));
    }

    [Fact]
    public async Task The_day_after_is_asked_once_and_what_was_too_much_takes_no_step()
    {
        var session = await coach.Session(student);
        await coach.Log(session, app.Time.GetUtcNow(), [StudioClient.Set("low-lunge", "padded-knee", "left", app.Time.GetUtcNow())]);
        var trained = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime);
        Assert.Equal(JsonValueKind.Null, (await Asked()).ValueKind);
        app.Time.Advance(TimeSpan.FromDays(2));
        Assert.Equal(trained.ToString("O"), (await Asked()).GetString());
        await Say(felt: Felt("soreAfter", "front-of-hip", "left", 7));
        var next = await Sheet(await coach.Session(student));
        Assert.Contains(
            next.GetProperty("plan").GetProperty("notes").EnumerateArray(),
            n => n.GetProperty("code").GetString() == "noStep" && n.GetProperty("tag").GetString() == "hip-front"
        );
        app.Time.Advance(TimeSpan.FromDays(1));
        Assert.Equal(JsonValueKind.Null, (await Asked()).ValueKind);

        async Task<JsonElement> Asked() => (await coach.Get($"/students/{student}")).GetProperty("checkIn").GetProperty("afterSessionOn");
    }

    [Theory]
    [InlineData("nose", "left", 5, "felt[0].place")]
    [InlineData("wrist", null, 5, "felt[0].side")]
    [InlineData("wrist", "left", 11, "felt[0].level")]
    public async Task What_cannot_be_is_named_at_its_field(string place, string? side, int level, string field)
    {
        var answer = await coach.Post(
            $"/students/{student}/check-ins",
            new
            {
                id = Guid.NewGuid(),
                sleptBadly = false,
                ill = false,
                trainedHard = false,
                felt = new[] { Felt("sore", place, side, level) },
            }
        );
        await answer.Problem(HttpStatusCode.UnprocessableEntity, field);
    }
}
