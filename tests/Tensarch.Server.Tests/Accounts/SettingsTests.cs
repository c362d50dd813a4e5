using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests.Accounts;

/// <summary>One's own name and password, the studio's settings, and its team.</summary>
public sealed class SettingsTests : IAsyncLifetime
{
    private readonly StudioApp app = new();
    private StudioClient owner = null!;

    public async ValueTask InitializeAsync() => owner = await app.Studio();

    public ValueTask DisposeAsync() => app.DisposeAsync();

    private async Task<HttpResponseMessage> Save(
        object? opening = null,
        object? standIns = null,
        string zone = "Europe/Oslo",
        int? version = null
    )
    {
        var studio = await owner.Get("/studio");
        return await owner.Put(
            "/studio",
            new
            {
                version = version ?? studio.GetProperty("version").GetInt32(),
                name = "Quay Loft",
                timeZone = zone,
                opening = opening ?? Array.Empty<object>(),
                standIns = standIns ?? Array.Empty<object>(),
            }
        );
    }

    [Fact]
    public async Task Everyone_may_change_their_own_name_and_it_is_theirs_on_earlier_facts_too()
    {
        var coach = await app.Studio(Role.Coach, owner.StudioId);
        var assistant = await app.Studio(Role.Assistant, owner.StudioId);
        var student = await coach.Student();
        await coach.Post($"/students/{student}/notes", new { id = Guid.NewGuid(), text = "Works nights." });
        Assert.Equal(HttpStatusCode.OK, (await coach.Put("/accounts/me", new { name = " Tova Lind " })).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await assistant.Put("/accounts/me", new { name = "Bo" })).StatusCode);
        Assert.Equal("Tova Lind", (await owner.Get($"/students/{student}/notes")).GetProperty("notes")[0].GetProperty("by").GetString());
        Assert.Equal(
            "required",
            await (await coach.Put("/accounts/me", new { name = "  " })).Problem(HttpStatusCode.UnprocessableEntity, "name")
        );
    }

    [Fact]
    public async Task A_new_password_ends_every_other_sign_in_and_leaves_this_one()
    {
        var elsewhere = owner with { Http = app.CreateClient() };
        await elsewhere.SignIn();
        Assert.Equal(
            "wrongPassword",
            await (await owner.Post("/accounts/me/password", new { current = "not-this-one", password = "another-long-one" })).Problem(
                HttpStatusCode.UnprocessableEntity,
                "current"
            )
        );
        Assert.Equal(
            "passwordTooShort",
            await (await owner.Post("/accounts/me/password", new { current = StudioApp.Password, password = "short" })).Problem(
                HttpStatusCode.UnprocessableEntity,
                "password"
            )
        );
        await elsewhere.Get("/students");
        var changed = await owner.Post("/accounts/me/password", new { current = StudioApp.Password, password = "another-long-one" });
        Assert.Equal(HttpStatusCode.NoContent, changed.StatusCode);
        await owner.Get("/students");
        Assert.Equal("signedOut", await (await elsewhere.Http.GetAsync("/api/v1/students")).Problem(HttpStatusCode.Unauthorized));
        Assert.Equal("wrongSignIn", await (await owner.SignIn()).Problem(HttpStatusCode.Unauthorized));
    }

    [Fact]
    public async Task Whoever_holds_an_owners_sign_in_does_not_get_the_account_without_the_password()
    {
        Task<HttpResponseMessage> Change(object change) => owner.Post($"/accounts/members/{owner.UserId}/changes", change);
        var taken = "thief@studio.example";
        foreach (
            var (change, field) in new (object, string)[]
            {
                (new { email = taken }, "email"),
                (new { password = "of-the-thief-1" }, "password"),
                (
                    new
                    {
                        name = "Una",
                        email = taken,
                        password = "of-the-thief-1",
                    },
                    "email"
                ),
            }
        )
            Assert.Equal("askedInSettings", await (await Change(change)).Problem(HttpStatusCode.UnprocessableEntity, field));
        foreach (
            var (own, code) in new (object, string)[]
            {
                (new { email = taken }, "required"),
                (new { email = taken, current = "" }, "required"),
                (new { email = taken, current = "not-this-one" }, "wrongPassword"),
            }
        )
            Assert.Equal(code, await (await owner.Put("/accounts/me", own)).Problem(HttpStatusCode.UnprocessableEntity, "current"));
        Assert.Equal(HttpStatusCode.NoContent, (await owner.SignIn()).StatusCode);
        // The form of the team page sends what did not change too.
        Assert.Equal(HttpStatusCode.OK, (await Change(new { name = "Una", email = owner.Email })).StatusCode);

        var elsewhere = owner with { Http = app.CreateClient() };
        await elsewhere.SignIn();
        var mine = await owner.Put("/accounts/me", new { email = " una@studio.example ", current = StudioApp.Password });
        Assert.Equal(HttpStatusCode.OK, mine.StatusCode);
        Assert.Equal("Una", (await mine.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("name").GetString());
        await owner.Get("/students");
        Assert.Equal("signedOut", await (await elsewhere.Http.GetAsync("/api/v1/students")).Problem(HttpStatusCode.Unauthorized));
        Assert.Equal(HttpStatusCode.NoContent, (await (elsewhere with { Email = "una@studio.example" }).SignIn()).StatusCode);
    }

    [Fact]
    public async Task What_the_owner_changes_of_a_member_holds_at_once_and_can_be_taken_back()
    {
        var coach = await app.Studio(Role.Coach, owner.StudioId);
        Task<HttpResponseMessage> Change(object change) => owner.Post($"/accounts/members/{coach.UserId}/changes", change);
        var student = await coach.Student();

        await Change(new { role = "assistant" });
        Assert.Equal(
            "readsOnly",
            await (await coach.Post($"/students/{student}/notes", new { id = Guid.NewGuid(), text = "No." })).Problem(
                HttpStatusCode.Forbidden
            )
        );
        await Change(
            new
            {
                role = "coach",
                name = "Tova Lind",
                email = "lind@studio.example",
            }
        );
        Assert.Equal(
            HttpStatusCode.Created,
            (await coach.Post($"/students/{student}/notes", new { id = Guid.NewGuid(), text = "Yes." })).StatusCode
        );

        Assert.NotEqual(
            JsonValueKind.Null,
            (await (await Change(new { left = true })).Content.ReadFromJsonAsync<JsonElement>()).GetProperty("leftAt").ValueKind
        );
        Assert.Equal("signedOut", await (await coach.Http.GetAsync("/api/v1/students")).Problem(HttpStatusCode.Unauthorized));
        var again = new { email = "lind@studio.example", password = StudioApp.Password };
        Assert.Equal("wrongSignIn", await (await coach.Post("/accounts/sign-in", again)).Problem(HttpStatusCode.Unauthorized));
        Assert.Equal("Tova Lind", (await owner.Get($"/students/{student}/notes")).GetProperty("notes")[0].GetProperty("by").GetString());
        await Change(new { left = false });
        Assert.Equal(HttpStatusCode.NoContent, (await coach.Post("/accounts/sign-in", again)).StatusCode);

        await Change(new { password = "a-third-password" });
        Assert.Equal("signedOut", await (await coach.Http.GetAsync("/api/v1/students")).Problem(HttpStatusCode.Unauthorized));
    }

    [Fact]
    public async Task The_owner_stays_and_stays_the_only_one()
    {
        var coach = await app.Studio(Role.Coach, owner.StudioId);
        async Task<string> Refused(Guid who, object change, string field) =>
            await (await owner.Post($"/accounts/members/{who}/changes", change)).Problem(HttpStatusCode.UnprocessableEntity, field);
        Assert.Equal("oneOwner", await Refused(coach.UserId, new { role = "owner" }, "role"));
        Assert.Equal("oneOwner", await Refused(owner.UserId, new { role = "coach" }, "role"));
        Assert.Equal("oneOwner", await Refused(owner.UserId, new { left = true }, "left"));
        Assert.Equal("passwordTooShort", await Refused(coach.UserId, new { password = "short" }, "password"));
        Assert.Equal("emailTaken", await Refused(coach.UserId, new { email = owner.Email }, "email"));
        Assert.Equal(
            "readsOnly",
            await (await coach.Post($"/accounts/members/{coach.UserId}/changes", new { name = "Me" })).Problem(HttpStatusCode.Forbidden)
        );
    }

    [Fact]
    public async Task The_studio_is_changed_by_its_owner_and_an_older_version_is_refused()
    {
        var open = new
        {
            weekday = "monday",
            from = "08:00:00",
            until = "20:00:00",
        };
        Assert.Equal(HttpStatusCode.OK, (await Save(new[] { open }, new[] { new { prop = "strap", what = "a scarf" } })).StatusCode);
        var studio = await owner.Get("/studio");
        Assert.Equal("Quay Loft", studio.GetProperty("name").GetString());
        Assert.Equal("08:00:00", studio.GetProperty("opening")[0].GetProperty("from").GetString());
        Assert.Contains(studio.GetProperty("standIns").EnumerateArray(), s => s.GetProperty("what").GetString() == "a scarf");
        Assert.Equal("changedMeanwhile", await (await Save(version: 0)).Problem(HttpStatusCode.PreconditionFailed));
        Assert.Equal("unknownTimeZone", await (await Save(zone: "Mars/Base")).Problem(HttpStatusCode.UnprocessableEntity, "timeZone"));
        Assert.Equal(
            "timesOverlap",
            await (await Save(new[] { open, open })).Problem(HttpStatusCode.UnprocessableEntity, "opening[1].from")
        );
        var coach = await app.Studio(Role.Coach, owner.StudioId);
        Assert.Equal("readsOnly", await (await coach.Put("/studio", new { })).Problem(HttpStatusCode.Forbidden));
    }

    /// <summary>A session at half past eleven in the evening counts for the next day further east: said before, and true afterwards.</summary>
    [Fact]
    public async Task Another_time_zone_says_what_it_changes_and_then_does()
    {
        await Save(zone: "Europe/Oslo");
        var student = await owner.Student();
        await owner.Place(student, 1, 1);
        var session = await owner.Session(student);
        var evening = app.Time.GetUtcNow().Date.AddHours(22).AddMinutes(30);
        app.Time.SetUtcNow(new DateTimeOffset(evening, TimeSpan.Zero));
        var at = app.Time.GetUtcNow();
        await owner.Log(session, at, [StudioClient.Set("low-lunge", "deep", "left", at.AddMinutes(-1))]);
        var day = await app.Rows(db => db.Sets.IgnoreQueryFilters().Where(s => s.StudentId == student).Select(s => s.Day).SingleAsync());

        var change = await owner.Get("/studio/time-zone?zone=Asia/Tokyo");
        Assert.Equal((1, 1), (change.GetProperty("sets").GetInt32(), change.GetProperty("students").GetInt32()));
        Assert.Equal(1, change.GetProperty("sessions").GetInt32());
        Assert.Equal(0, (await owner.Get("/studio/time-zone?zone=Europe/Berlin")).GetProperty("sets").GetInt32());
        Assert.Equal(
            "unknownTimeZone",
            await (await owner.Http.GetAsync("/api/v1/studio/time-zone?zone=Mars")).Problem(HttpStatusCode.UnprocessableEntity, "zone")
        );

        Assert.Equal(HttpStatusCode.OK, (await Save(zone: "Asia/Tokyo")).StatusCode);
        var moved = await app.Rows(db => db.Sets.IgnoreQueryFilters().Where(s => s.StudentId == student).Select(s => s.Day).SingleAsync());
        Assert.Equal(day.AddDays(1), moved);
        Assert.Equal(
            moved,
            await app.Rows(db =>
                db.Trainings.IgnoreQueryFilters().Where(s => s.SessionId == session).Select(s => s.StartedOn!.Value).SingleAsync()
            )
        );
        // The sign-in that stands counts its days there at once.
        Assert.Equal(0, (await owner.Get("/studio/time-zone?zone=Asia/Tokyo")).GetProperty("sets").GetInt32());
    }

    [Fact]
    public async Task A_session_on_a_closed_day_says_so_and_names_what_it_needs()
    {
        var student = await owner.Student();
        await owner.Place(student, 3, 3);
        var session = await owner.Session(student);
        var sheet = await owner.Get($"/sessions/{session}");
        Assert.False(sheet.GetProperty("closed").GetBoolean());
        Assert.Contains(
            sheet.GetProperty("packing").EnumerateArray(),
            l => !l.GetProperty("atHome").GetBoolean() && l.GetProperty("instead").ValueKind == JsonValueKind.String
        );
        var other = DateOnly.Parse(sheet.GetProperty("plan").GetProperty("date").GetString()!, null).AddDays(1).DayOfWeek;
        await Save(
            new[]
            {
                new
                {
                    weekday = other.ToString().ToLowerInvariant(),
                    from = "08:00:00",
                    until = "20:00:00",
                },
            }
        );
        Assert.True((await owner.Get($"/sessions/{session}")).GetProperty("closed").GetBoolean());
    }
}
