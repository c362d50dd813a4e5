using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Configuration;
using Tensarch.Server.Accounts;
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
            setupCode = StudioApp.SetupCode,
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
    public async Task Of_eight_who_come_at_once_one_owns_the_studio()
    {
        await using var app = new StudioApp();
        var tries = Enumerable
            .Range(0, 8)
            .Select(i => app.CreateClient().PostAsJsonAsync("/api/v1/accounts/owner", Owner(email: $"o{i}@studio.example")));
        var answers = await Task.WhenAll(tries);
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.NoContent);
        foreach (var late in answers.Where(a => a.StatusCode != HttpStatusCode.NoContent))
            Assert.Equal("ownerExists", await late.Problem(HttpStatusCode.Conflict));
        Assert.Equal(1, await app.Rows(db => db.Users.IgnoreQueryFilters().CountAsync()));
        Assert.Equal(1, await app.Rows(db => db.Studios.IgnoreQueryFilters().CountAsync()));
    }

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("WRNG-CODE")]
    public async Task Without_the_code_from_the_servers_log_nobody_becomes_the_owner(string? setupCode)
    {
        await using var app = new StudioApp();
        var http = app.CreateClient();
        Assert.True((await http.GetFromJsonAsync<JsonElement>("/api/v1/accounts/me")).GetProperty("asksSetupCode").GetBoolean());
        var body = JsonSerializer.SerializeToNode(Owner())!;
        body["setupCode"] = setupCode;
        var answer = await http.PostAsJsonAsync("/api/v1/accounts/owner", body);
        Assert.Equal("wrongSetupCode", await answer.Problem(HttpStatusCode.UnprocessableEntity, "setupCode"));
        body["setupCode"] = " test code ";
        Assert.Equal(HttpStatusCode.NoContent, (await http.PostAsJsonAsync("/api/v1/accounts/owner", body)).StatusCode);
    }

    [Fact]
    public void A_code_that_nobody_set_is_another_one_at_each_start()
    {
        SetupCode Made() => new(new ConfigurationBuilder().Build());
        var (one, other) = (Made(), Made());
        Assert.NotEqual(one.Value, other.Value);
        Assert.True(one.Fits(one.Value.ToLowerInvariant()));
        Assert.False(one.Fits(other.Value));
        Assert.Matches("^[A-Z2-9]{4}-[A-Z2-9]{4}$", one.Value);
    }

    [Fact]
    public async Task A_sign_out_ends_that_sign_in_at_once_and_no_other()
    {
        await using var app = new StudioApp();
        var coach = await app.Studio();
        var elsewhere = new StudioClient(app.CreateClient(), coach.StudioId, coach.UserId, coach.Email);
        Assert.Equal(HttpStatusCode.NoContent, (await elsewhere.SignIn()).StatusCode);
        // A copy of the cookie, as another program on the same machine would have it.
        var signedIn = await coach.SignIn();
        var cookie = signedIn.Headers.GetValues("Set-Cookie").Single().Split(';')[0];
        var copy = app.CreateClient(new() { HandleCookies = false });
        copy.DefaultRequestHeaders.Add("Cookie", cookie);
        Assert.Equal(HttpStatusCode.OK, (await copy.GetAsync("/api/v1/students")).StatusCode);
        using var stream = await copy.GetAsync("/api/v1/instruments/inclinometer/stream", HttpCompletionOption.ResponseHeadersRead);
        var frames = await stream.Content.ReadAsStreamAsync();
        Assert.True(await frames.ReadAsync(new byte[1]) > 0);

        Assert.Equal(HttpStatusCode.NoContent, (await coach.Post("/accounts/sign-out", new { })).StatusCode);

        Assert.Equal("signedOut", await (await copy.GetAsync("/api/v1/students")).Problem(HttpStatusCode.Unauthorized));
        await ReadToEnd(frames).WaitAsync(TimeSpan.FromSeconds(30));
        Assert.Equal(HttpStatusCode.OK, (await elsewhere.Http.GetAsync("/api/v1/students")).StatusCode);
    }

    /// <summary>Ends when the server ends the stream, by itself or by breaking it off.</summary>
    private static async Task ReadToEnd(Stream frames)
    {
        try
        {
            await frames.CopyToAsync(Stream.Null);
        }
        catch (Exception e) when (e is IOException or OperationCanceledException) { }
    }

    [Fact]
    public async Task A_vanished_account_is_signed_out_and_what_it_wrote_is_still_shown()
    {
        await using var app = new StudioApp();
        var owner = await app.Studio();
        var coach = await app.Studio(Role.Coach, owner.StudioId);
        var student = await coach.Student();
        await coach.Place(student, 1, 1);
        await app.Rows(db => db.Users.IgnoreQueryFilters().Where(u => u.Id == coach.UserId).ExecuteDeleteAsync());

        var me = await coach.Get("/accounts/me");
        Assert.Equal(JsonValueKind.Null, me.GetProperty("user").ValueKind);
        Assert.False(me.GetProperty("needsOwner").GetBoolean());
        Assert.Equal("signedOut", await (await coach.Http.GetAsync("/api/v1/students")).Problem(HttpStatusCode.Unauthorized));
        Assert.Equal("signedOut", await (await coach.Post("/students", new { })).Problem(HttpStatusCode.Unauthorized));
        Assert.Equal(2, (await owner.Get($"/students/{student}/decisions")).GetProperty("decisions").GetArrayLength());
        await owner.Get($"/students/{student}/history");
    }

    [Fact]
    public async Task Two_who_add_the_same_member_at_once_make_one()
    {
        await using var app = new StudioApp();
        var owner = await app.Studio();
        object Member() =>
            new
            {
                name = "Tam",
                email = "tam@studio.example",
                password = StudioApp.Password,
                role = "coach",
            };
        var answers = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => owner.Post("/accounts/members", Member())));
        Assert.Single(answers, a => a.StatusCode == HttpStatusCode.Created);
        Assert.All(answers, a => Assert.True((int)a.StatusCode < 500));
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
