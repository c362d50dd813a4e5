using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests.Accounts;

public class AccountTests
{
    private static object Owner(string password = StudioApp.Password, string zone = "Europe/Oslo", string email = "o@studio.example") =>
        new
        {
            studioName = "Harbour Room",
            timeZone = zone,
            name = "Ines",
            email,
            password,
        };

    [Fact]
    public async Task The_first_person_in_owns_the_studio_and_nobody_after_them()
    {
        await using var app = new StudioApp();
        var http = app.CreateClient();
        Assert.True((await http.GetFromJsonAsync<JsonElement>("/api/v1/accounts/me")).GetProperty("needsOwner").GetBoolean());
        Assert.Equal(HttpStatusCode.NoContent, (await http.PostAsJsonAsync("/api/v1/accounts/owner", Owner())).StatusCode);
        var me = await http.GetFromJsonAsync<JsonElement>("/api/v1/accounts/me");
        Assert.Equal(
            ("owner", "Harbour Room"),
            (me.GetProperty("user").GetProperty("role").GetString(), me.GetProperty("studioName").GetString())
        );
        Assert.Equal(
            "ownerExists",
            await (await app.CreateClient().PostAsJsonAsync("/api/v1/accounts/owner", Owner())).Problem(HttpStatusCode.Conflict)
        );
    }

    [Fact]
    public async Task A_bad_owner_is_named_at_the_field_and_leaves_nothing_behind()
    {
        await using var app = new StudioApp();
        var http = app.CreateClient();
        Task<HttpResponseMessage> Try(object owner) => http.PostAsJsonAsync("/api/v1/accounts/owner", owner);
        Assert.Equal("passwordTooShort", await (await Try(Owner("short"))).Problem(HttpStatusCode.UnprocessableEntity, "password"));
        Assert.Equal(
            "unknownTimeZone",
            await (await Try(Owner(zone: "Moon/Base"))).Problem(HttpStatusCode.UnprocessableEntity, "timeZone")
        );
        Assert.Equal("noEmail", await (await Try(Owner(email: "nobody"))).Problem(HttpStatusCode.UnprocessableEntity, "email"));
        Assert.True((await http.GetFromJsonAsync<JsonElement>("/api/v1/accounts/me")).GetProperty("needsOwner").GetBoolean());
    }

    [Fact]
    public async Task Five_wrong_passwords_lock_the_account()
    {
        await using var app = new StudioApp();
        var coach = await app.Studio();
        for (var i = 0; i < 4; i++)
            Assert.Equal("wrongSignIn", await (await coach.SignIn("wrong-password")).Problem(HttpStatusCode.Unauthorized));
        Assert.Equal("lockedOut", await (await coach.SignIn("wrong-password")).Problem(HttpStatusCode.TooManyRequests));
        Assert.Equal("lockedOut", await (await coach.SignIn()).Problem(HttpStatusCode.TooManyRequests));
    }

    [Fact]
    public async Task Sign_ins_are_limited_by_the_minute()
    {
        await using var app = new StudioApp { SignInsPerMinute = 3 };
        var coach = await app.Studio();
        await coach.SignIn();
        await coach.SignIn();
        Assert.Equal("tooManyTries", await (await coach.SignIn()).Problem(HttpStatusCode.TooManyRequests));
    }

    [Fact]
    public async Task Only_the_owner_adds_people_and_they_come_into_the_same_studio()
    {
        await using var app = new StudioApp();
        var owner = await app.Studio();
        var coach = await app.Studio(Role.Coach, owner.StudioId);
        var someone = new
        {
            name = "Tova",
            email = "tova@studio.example",
            password = StudioApp.Password,
            role = "assistant",
        };
        Assert.Equal("readsOnly", await (await coach.Post("/accounts/members", someone)).Problem(HttpStatusCode.Forbidden));
        Assert.Equal(HttpStatusCode.Created, (await owner.Post("/accounts/members", someone)).StatusCode);
        Assert.Equal(
            "emailTaken",
            await (await owner.Post("/accounts/members", someone)).Problem(HttpStatusCode.UnprocessableEntity, "email")
        );
        Assert.Equal(3, (await coach.Get("/accounts/members")).GetArrayLength());
        Assert.Equal(1, (await (await app.Studio()).Get("/accounts/members")).GetArrayLength());
    }

    [Fact]
    public async Task Signing_out_ends_it()
    {
        await using var app = new StudioApp();
        var coach = await app.Studio();
        await coach.Post("/accounts/sign-out", new { });
        Assert.Equal("signedOut", await (await coach.Http.GetAsync("/api/v1/students")).Problem(HttpStatusCode.Unauthorized));
    }
}
