using System.Net;
using System.Text.Json;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests.Accounts;

/// <summary>What lies on devices: sealed under its author's own key, and counted for the owner.</summary>
public class UnsentTests
{
    private static async Task<string> Key(StudioClient coach) =>
        (await coach.Get("/accounts/me/device-key")).GetProperty("key").GetString()!;

    private static object Report(Guid device, Guid author, int waiting, int dropped) =>
        new
        {
            device,
            of = new[]
            {
                new
                {
                    author,
                    waiting,
                    oldest = DateTimeOffset.UtcNow.AddDays(-3),
                    dropped,
                },
            },
        };

    private static async Task<(int Waiting, int Dropped)?> Seen(StudioClient by, Guid member)
    {
        var line = (await by.Get("/accounts/members")).EnumerateArray().Single(m => m.GetProperty("id").GetGuid() == member);
        return line.GetProperty("unsent") is { ValueKind: JsonValueKind.Object } unsent
            ? (unsent.GetProperty("waiting").GetInt32(), unsent.GetProperty("dropped").GetInt32())
            : null;
    }

    [Fact]
    public async Task A_key_is_its_person_s_alone_and_always_the_same()
    {
        await using var app = new StudioApp();
        var owner = await app.Studio();
        var coach = await app.Studio(Role.Coach, owner.StudioId);
        var assistant = await app.Studio(Role.Assistant, owner.StudioId);
        var keys = await Task.WhenAll(Enumerable.Range(0, 4).Select(_ => Key(coach)));
        var key = Assert.Single(keys.Distinct());
        Assert.Equal(32, Convert.FromBase64String(key).Length);
        Assert.Equal(3, new[] { key, await Key(owner), await Key(assistant) }.Distinct().Count());
        using var stranger = app.CreateClient();
        Assert.Equal(HttpStatusCode.Unauthorized, (await stranger.GetAsync("/api/v1/accounts/me/device-key")).StatusCode);
    }

    [Fact]
    public async Task The_owner_alone_sees_what_waits_and_what_was_dropped_until_it_is_noted()
    {
        await using var app = new StudioApp();
        var owner = await app.Studio();
        var coach = await app.Studio(Role.Coach, owner.StudioId);
        var assistant = await app.Studio(Role.Assistant, owner.StudioId);
        var (one, other) = (Guid.NewGuid(), Guid.NewGuid());
        // Whoever is signed in there says it, and says it again when the answer was lost.
        foreach (var _ in Enumerable.Range(0, 2))
            Assert.Equal(HttpStatusCode.NoContent, (await assistant.Post("/accounts/unsent", Report(one, coach.UserId, 3, 2))).StatusCode);
        await owner.Post("/accounts/unsent", Report(other, coach.UserId, 4, 0));
        Assert.Equal((7, 2), await Seen(owner, coach.UserId));
        Assert.Null(await Seen(coach, coach.UserId));
        Assert.Null(await Seen(owner, owner.UserId));

        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await coach.Http.DeleteAsync($"/api/v1/accounts/members/{coach.UserId}/unsent")).StatusCode
        );
        await owner.Http.DeleteAsync($"/api/v1/accounts/members/{coach.UserId}/unsent");
        Assert.Equal((7, 0), await Seen(owner, coach.UserId));
        // They came and sent it; later more was dropped.
        await coach.Post("/accounts/unsent", Report(one, coach.UserId, 0, 2));
        await coach.Post("/accounts/unsent", Report(other, coach.UserId, 0, 1));
        Assert.Equal((0, 1), await Seen(owner, coach.UserId));
    }

    [Fact]
    public async Task Two_tabs_of_a_device_that_begin_at_once_say_it_once()
    {
        await using var app = new StudioApp();
        var owner = await app.Studio();
        var coach = await app.Studio(Role.Coach, owner.StudioId);
        var device = Guid.NewGuid();
        var answers = await Task.WhenAll(
            Enumerable.Range(0, 6).Select(_ => owner.Post("/accounts/unsent", Report(device, coach.UserId, 3, 2)))
        );
        Assert.All(answers, a => Assert.Equal(HttpStatusCode.NoContent, a.StatusCode));
        Assert.Equal((3, 2), await Seen(owner, coach.UserId));
    }

    [Fact]
    public async Task Nothing_is_kept_of_who_does_not_work_here()
    {
        await using var app = new StudioApp();
        var (owner, stranger) = (await app.Studio(), await app.Studio());
        await owner.Post("/accounts/unsent", Report(Guid.NewGuid(), stranger.UserId, 3, 2));
        await owner.Post("/accounts/unsent", Report(Guid.NewGuid(), Guid.NewGuid(), 3, 2));
        Assert.Null(await Seen(stranger, stranger.UserId));
        Assert.Equal(
            HttpStatusCode.UnprocessableEntity,
            (await owner.Post("/accounts/unsent", Report(Guid.NewGuid(), owner.UserId, -1, 0))).StatusCode
        );
    }
}
