using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Tensarch.Server.Tests.Students;

public sealed class IntakeTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;

    public async ValueTask InitializeAsync() => coach = await app.Studio();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<JsonElement> Page(Guid student) => await coach.Get($"/students/{student}");

    private async Task<string?> Level(Guid student, string tag) =>
        (await Page(student))
            .GetProperty("bars")
            .GetProperty("tags")
            .EnumerateArray()
            .Where(t => t.GetProperty("tag").GetString() == tag)
            .Select(t => t.GetProperty("level").GetString())
            .SingleOrDefault();

    private async Task<string?> Screen(Guid student) => (await Page(student)).GetProperty("screen").GetProperty("state").GetString();

    private Task<HttpResponseMessage> Clear(Guid student, Guid id, string tag, int days) =>
        coach.Post(
            $"/students/{student}/clearances",
            new
            {
                id,
                role = "physician",
                tags = new[] { tag },
                from = Day(0),
                until = Day(days),
            }
        );

    private string Day(int days) => DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime).AddDays(days).ToString("O");

    [Fact]
    public async Task While_the_coach_asks_the_core_says_what_the_answers_hold()
    {
        var answer = await coach.Post(
            "/compute/bars",
            new
            {
                yes = new[] { "neck", "very-mobile" },
                birthDate = (string?)null,
                guardianConsent = false,
                sensationCeiling = 7,
            }
        );
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var bars = await answer.Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal(
            [("neck", "offLimits"), ("passive-end-range", "lightOnly")],
            bars.GetProperty("tags").EnumerateArray().Select(t => (t.GetProperty("tag").GetString()!, t.GetProperty("level").GetString()!))
        );
        Assert.Equal(5, bars.GetProperty("sensationCeiling").GetInt32());
    }

    /// <summary>Nobody is asked for a score: what was told is counted, by age.</summary>
    [Theory]
    [InlineData("1990-05-06", 4, null)]
    [InlineData("1990-05-06", 5, "lightOnly")]
    [InlineData("1970-05-06", 4, "lightOnly")]
    public async Task Loose_joints_are_counted_from_what_was_told(string born, int told, string? level)
    {
        var id = Guid.NewGuid();
        await coach.Post(
            "/students",
            new
            {
                id,
                student = StudioClient.Body("Ada Quill", birthDate: born),
                consents = StudioClient.Consents,
            }
        );
        string[] signs = ["thumb-left", "thumb-right", "elbow-left", "palms", "knee-right"];
        var answers = StudioClient.Questions.Select(q => new
        {
            question = q.Key,
            yes = false,
            signs = q.Signs is null ? null : signs[..told].Append("no-such-sign"),
        });
        Assert.Equal(HttpStatusCode.NoContent, (await coach.Post($"/students/{id}/answers", new { answers })).StatusCode);
        Assert.Equal(level, await Level(id, "passive-end-range"));
        var said = (await Page(id))
            .GetProperty("answers")
            .EnumerateArray()
            .Single(a => a.GetProperty("question").GetString() == "very-mobile");
        Assert.Equal((level is not null, told), (said.GetProperty("yes").GetBoolean(), said.GetProperty("signs").GetArrayLength()));
        // Told otherwise, it is another answer.
        var fewer = new
        {
            answers = new[]
            {
                new
                {
                    question = "very-mobile",
                    yes = false,
                    signs = signs[..1],
                },
            },
        };
        Assert.Equal(HttpStatusCode.NoContent, (await coach.Post($"/students/{id}/answers", fewer)).StatusCode);
        Assert.Null(await Level(id, "passive-end-range"));
    }

    [Fact]
    public async Task Six_months_later_the_screen_is_due_and_the_same_answers_renew_it()
    {
        var student = await coach.Student();
        Assert.Equal("current", await Screen(student));
        app.Time.Advance(TimeSpan.FromDays(185));
        await coach.SignIn();
        Assert.Equal("due", await Screen(student));
        Assert.Equal("offLimits", await Level(student, "wrist"));
        await coach.Answer(student);
        Assert.Equal("current", await Screen(student));
        Assert.Null(await Level(student, "wrist"));
    }

    [Fact]
    public async Task Something_changed_holds_everything_until_the_whole_screen_is_gone_through()
    {
        var student = await coach.Student();
        var change = new { id = Guid.NewGuid(), note = "a fall from the bike" };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/changes", change)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await coach.Post($"/students/{student}/changes", change)).StatusCode);
        Assert.Equal("somethingChanged", await Screen(student));
        Assert.Equal("offLimits", await Level(student, "ankle"));
        app.Time.Advance(TimeSpan.FromMinutes(1));
        var one = new { answers = new[] { new { question = "ankle", yes = true } } };
        await coach.Post($"/students/{student}/answers", one);
        Assert.Equal("somethingChanged", await Screen(student));
        await coach.Answer(student, "ankle");
        Assert.Equal(("current", "lightOnly"), (await Screen(student), await Level(student, "ankle")));
        Assert.Equal(
            "required",
            await (await coach.Post($"/students/{student}/changes", new { id = Guid.NewGuid(), note = " " })).Problem(
                HttpStatusCode.UnprocessableEntity,
                "note"
            )
        );
    }

    [Fact]
    public async Task A_clearance_lifts_nothing_that_is_answered_after_it()
    {
        var student = await coach.Student("Late Answer", "neck");
        Assert.Equal(HttpStatusCode.Created, (await Clear(student, Guid.NewGuid(), "neck", 60)).StatusCode);
        Assert.Null(await Level(student, "neck"));
        app.Time.Advance(TimeSpan.FromHours(1));
        await coach.Answer(student, "neck", "osteoporosis");
        Assert.Equal("offLimits", await Level(student, "neck"));
        Assert.Equal(HttpStatusCode.Created, (await Clear(student, Guid.NewGuid(), "neck", 60)).StatusCode);
        Assert.Null(await Level(student, "neck"));
    }

    [Fact]
    public async Task A_withdrawn_clearance_brings_the_hold_back_and_the_chain_tells_why()
    {
        var student = await coach.Student("Mara Clear", "neck");
        var id = Guid.NewGuid();
        await Clear(student, id, "neck", 60);
        Assert.Null(await Level(student, "neck"));
        var lifted = (await Page(student)).GetProperty("bars").GetProperty("lifted")[0];
        Assert.Equal(("neck", Day(60)), (lifted.GetProperty("question").GetString(), lifted.GetProperty("clearedUntil").GetString()));

        var withdrawal = new { id = Guid.NewGuid(), reason = "the tingling is back" };
        var path = $"/students/{student}/clearances/{id}/withdrawal";
        app.Time.Advance(TimeSpan.FromDays(2));
        Assert.Equal(HttpStatusCode.Created, (await coach.Post(path, withdrawal)).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await coach.Post(path, withdrawal)).StatusCode);
        Assert.Equal("offLimits", await Level(student, "neck"));
        Assert.Equal(
            "reasonTooShort",
            await (await coach.Post(path, new { id = Guid.NewGuid(), reason = "so" })).Problem(HttpStatusCode.UnprocessableEntity, "reason")
        );
    }

    [Fact]
    public async Task Goals_equipment_days_and_consent_are_kept_and_every_change_tells_who()
    {
        var id = Guid.NewGuid();
        Dictionary<string, object?> body = JsonSerializer.Deserialize<Dictionary<string, object?>>(
            JsonSerializer.Serialize(StudioClient.Body("Nils Whole"))
        )!;
        body["goals"] = new[] { "handstand", "front-split" };
        body["equipment"] = new[] { "strap", "wall" };
        body["consentOn"] = Day(0);
        body["days"] = new object[]
        {
            new
            {
                weekday = "tuesday",
                date = (string?)null,
                minutes = 45,
                half = "am",
            },
        };
        Assert.Equal(HttpStatusCode.Created, (await coach.Post("/students", new { id, student = body })).StatusCode);
        var written = (await Page(id)).GetProperty("student").GetProperty("student");
        Assert.Equal(["handstand", "front-split"], written.GetProperty("goals").EnumerateArray().Select(g => g.GetString()));
        Assert.Equal("tuesday", written.GetProperty("days")[0].GetProperty("weekday").GetString());

        body["breathSeconds"] = 5.5;
        using var change = new HttpRequestMessage(HttpMethod.Put, $"/api/v1/students/{id}") { Content = JsonContent.Create(body) };
        change.Headers.Add("If-Match", "\"1\"");
        app.Time.Advance(TimeSpan.FromHours(1));
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.SendAsync(change)).StatusCode);
        await coach.Answer(id, "wrist");
        app.Time.Advance(TimeSpan.FromHours(1));
        await coach.Answer(id);
        var history = (await coach.Get($"/students/{id}/history")).EnumerateArray().ToList();
        Assert.All(history, l => Assert.Equal("Coach", l.GetProperty("by").GetString()));
        Assert.Contains(
            history,
            l =>
                l.GetProperty("field").GetString() == "breathSeconds"
                && l.GetProperty("before").GetString() == "4.5"
                && l.GetProperty("after").GetString() == "5.5"
        );
        Assert.Contains(
            history,
            l =>
                l.GetProperty("field").GetString() == "wrist"
                && l.GetProperty("before").GetString() == "yes"
                && l.GetProperty("after").GetString() == "no"
        );
        Assert.Equal(2, history.Count(l => l.GetProperty("kind").GetString() == "screened"));
    }

    [Theory]
    [InlineData("goals", """["levitation"]""", "unknownLadder", "goals")]
    [InlineData("equipment", """["trapeze"]""", "unknownItem", "equipment")]
    [InlineData("days", """[{"weekday":"monday","date":null,"minutes":5,"half":"am"}]""", "outOfRange", "days[0].minutes")]
    [InlineData("days", """[{"weekday":null,"date":null,"minutes":45,"half":"am"}]""", "weekdayOrDate", "days[0].weekday")]
    public async Task What_cannot_be_is_named_at_its_field(string key, string json, string code, string field)
    {
        var body = JsonSerializer.Deserialize<Dictionary<string, object?>>(JsonSerializer.Serialize(StudioClient.Body()))!;
        body[key] = JsonSerializer.Deserialize<JsonElement>(json);
        Assert.Equal(
            code,
            await (await coach.Post("/students", new { id = Guid.NewGuid(), student = body })).Problem(
                HttpStatusCode.UnprocessableEntity,
                field
            )
        );
    }

    [Fact]
    public async Task A_minor_trains_only_with_a_guardians_consent()
    {
        var id = Guid.NewGuid();
        await coach.Post(
            "/students",
            new
            {
                id,
                student = StudioClient.Body("Pim Young", birthDate: "2022-01-01"),
                consents = StudioClient.Consents,
            }
        );
        await coach.Answer(id);
        Assert.Equal("offLimits", await Level(id, "hamstring"));
        await coach.Consent(id, "guardian", true, "Mother");
        Assert.Null(await Level(id, "hamstring"));
        Assert.Equal(6, (await Page(id)).GetProperty("bars").GetProperty("sensationCeiling").GetInt32());
    }
}
