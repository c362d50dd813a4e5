using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Demo;

namespace Tensarch.Server.Tests.Students;

/// <summary>What somebody said yes and no to, on every way to a session and to a picture.</summary>
public sealed class ConsentTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 3, 3);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private DateTimeOffset Now => app.Time.GetUtcNow();

    private async Task Say(string kind, bool given)
    {
        app.Time.Advance(TimeSpan.FromSeconds(1));
        await coach.Consent(student, kind, given);
    }

    private Task<HttpResponseMessage> Pack(Guid session) => coach.Http.GetAsync($"/api/v1/sessions/{session}/pack");

    private Task<HttpResponseMessage> Picture() =>
        coach.Http.PostAsync(
            $"/api/v1/students/{student}/pictures?id={Guid.NewGuid()}&view=handstand-line",
            new ByteArrayContent(SamplePicture.Handstand(24, 15, 6).Draw())
        );

    private async Task<JsonElement> Consents() => (await coach.Get($"/students/{student}")).GetProperty("consents");

    /// <summary>As a database of before has them.</summary>
    private async Task FromBefore() =>
        await app.Rows(async db =>
        {
            await db.Consents.IgnoreQueryFilters().Where(c => c.StudentId == student).ExecuteDeleteAsync();
            return await db
                .Students.IgnoreQueryFilters()
                .Where(s => s.Id == student)
                .ExecuteUpdateAsync(s => s.SetProperty(x => x.ConsentNeeded, false));
        });

    [Fact]
    public async Task A_consent_to_train_that_is_withdrawn_closes_every_way_to_a_session_at_once()
    {
        var session = await coach.Session(student);
        Assert.Equal(HttpStatusCode.OK, (await Pack(session)).StatusCode);
        await Say("training", false);
        Assert.Equal("planBarred", await (await Pack(session)).Problem(HttpStatusCode.Conflict));
        Assert.Equal(
            "everythingOffLimits",
            await (
                await coach.Post(
                    $"/students/{student}/sessions",
                    new
                    {
                        id = Guid.NewGuid(),
                        date = (string?)null,
                        minutes = 45,
                        second = true,
                    }
                )
            ).Problem(HttpStatusCode.UnprocessableEntity)
        );
        var sketch = StudioClient.Sketch(DateOnly.FromDateTime(Now.UtcDateTime), 45, 4, (1, "pm"), (3, "pm"));
        var weeks = await (await coach.Plan(student, sketch)).Content.ReadFromJsonAsync<JsonElement>();
        Assert.All(
            weeks.GetProperty("weeks").EnumerateArray().SelectMany(w => w.GetProperty("days").EnumerateArray()),
            d => Assert.Equal(JsonValueKind.Null, d.GetProperty("session").ValueKind)
        );
        // By hand, as done just now.
        var told = await coach.Log(session, Now, [StudioClient.Set("low-lunge", "padded-knee", "left", Now)]);
        Assert.Contains("\"offLimits\"", await told.Content.ReadAsStringAsync(), StringComparison.Ordinal);
        var reason = (await coach.Get($"/students/{student}")).GetProperty("bars").GetProperty("tags")[0].GetProperty("reasons")[0];
        Assert.Equal(
            ("trainingConsent", "trainingConsent"),
            (reason.GetProperty("code").GetString(), reason.GetProperty("liftedBy").GetString())
        );
        await Say("training", true);
        Assert.Equal(HttpStatusCode.OK, (await Pack(session)).StatusCode);
    }

    [Fact]
    public async Task Who_trained_before_it_was_asked_trains_on_until_they_are_asked_and_it_is_said()
    {
        await FromBefore();
        var session = await coach.Session(student);
        Assert.Equal(HttpStatusCode.OK, (await Pack(session)).StatusCode);
        Assert.True(Line(await coach.Get("/today")).GetProperty("consentOpen").GetBoolean());
        Assert.Equal(
            ["training", "pictures", "touch", "records"],
            (await Consents()).GetProperty("unasked").EnumerateArray().Select(k => k.GetString()!)
        );
        await Say("training", false);
        Assert.False(Line(await coach.Get("/today")).GetProperty("consentOpen").GetBoolean());
        Assert.Equal("planBarred", await (await Pack(session)).Problem(HttpStatusCode.Conflict));

        JsonElement Line(JsonElement today) =>
            today.GetProperty("sessions").EnumerateArray().Single(s => s.GetProperty("studentId").GetGuid() == student);
    }

    [Fact]
    public async Task Without_a_consent_to_pictures_none_is_taken_and_once_withdrawn_none_is_shown()
    {
        Assert.Equal(HttpStatusCode.Created, (await Picture()).StatusCode);
        var kept = (await coach.Get($"/students/{student}/pictures")).GetProperty("pictures")[0].GetProperty("id").GetGuid();
        var image = $"/api/v1/students/{student}/pictures/{kept}/image";
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.GetAsync(image)).StatusCode);
        await FromBefore();
        Assert.Equal("noPictureConsent", await (await Picture()).Problem(HttpStatusCode.UnprocessableEntity));
        // Not asked is not withdrawn.
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.GetAsync(image)).StatusCode);
        await Say("pictures", false);
        Assert.Equal("noPictureConsent", await (await Picture()).Problem(HttpStatusCode.UnprocessableEntity));
        Assert.Equal("noPictureConsent", await (await coach.Http.GetAsync(image)).Problem(HttpStatusCode.Conflict));
        await Say("pictures", true);
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.GetAsync(image)).StatusCode);
    }

    [Fact]
    public async Task Each_is_a_fact_with_its_day_and_its_author()
    {
        await Say("touch", false);
        var touch = (await Consents()).GetProperty("said").EnumerateArray().Single(c => c.GetProperty("kind").GetString() == "touch");
        Assert.False(touch.GetProperty("given").GetBoolean());
        Assert.False(string.IsNullOrEmpty(touch.GetProperty("by").GetString()));
        var lines = (await coach.Get($"/students/{student}/history"))
            .EnumerateArray()
            .Where(l => l.GetProperty("kind").GetString() == "consent" && l.GetProperty("field").GetString() == "touch")
            .Select(l => l.GetProperty("after").GetString());
        Assert.Equal(["no", "yes"], lines);
    }
}
