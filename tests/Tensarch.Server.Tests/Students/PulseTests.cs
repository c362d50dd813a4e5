using System.Net;
using System.Net.Http.Json;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests.Students;

/// <summary>Two coaches on one student: what one saves, the other's screen hears of.</summary>
public sealed class PulseTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient una = null!;
    private StudioClient tova = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        una = await app.Studio();
        tova = await app.Studio(Role.Coach, una.StudioId);
        await tova.Put("/accounts/me", new { name = "Tova Lind" });
        student = await una.Student();
        await una.Place(student, 3, 3);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<(HttpStatusCode Status, string Tag)> Ask(string? known = null)
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, $"/api/v1/students/{student}/pulse");
        if (known is not null)
            request.Headers.IfNoneMatch.ParseAdd(known);
        var answer = await una.Http.SendAsync(request);
        return (answer.StatusCode, answer.Headers.ETag!.Tag);
    }

    [Fact]
    public async Task Nothing_new_is_a_304_and_what_another_coach_saved_is_told_with_who()
    {
        var (_, tag) = await Ask();
        Assert.Equal((HttpStatusCode.NotModified, tag), await Ask(tag));
        await tova.Post($"/students/{student}/readings", StudioClient.Reading("passive-slr", "left", [80, 81, 82]));
        Assert.Equal(HttpStatusCode.OK, (await Ask(tag)).Status);
        var pulse = await una.Get($"/students/{student}/pulse");
        Assert.Equal(("Tova Lind", false), (pulse.GetProperty("by").GetString(), pulse.GetProperty("mine").GetBoolean()));
        Assert.True((await tova.Get($"/students/{student}/pulse")).GetProperty("mine").GetBoolean());
    }

    /// <summary>A page takes its own saves from the beats that it hears of: what is left is somebody else's, or another device's.</summary>
    [Fact]
    public async Task A_save_says_how_often_it_beat_and_for_whom()
    {
        var before = (await una.Get($"/students/{student}/pulse")).GetProperty("beat").GetInt64();
        using var answer = await una.Http.PostAsJsonAsync(
            $"/api/v1/students/{student}/readings",
            StudioClient.Reading("passive-slr", "left", [80, 81, 82])
        );
        var said = Assert.Single(answer.Headers.GetValues("Beats")).Split('=');
        var after = (await una.Get($"/students/{student}/pulse")).GetProperty("beat").GetInt64();
        Assert.Equal((student, after - before), (Guid.Parse(said[0]), long.Parse(said[1])));
        using var read = await una.Http.GetAsync($"/api/v1/students/{student}");
        Assert.False(read.Headers.Contains("Beats"));
    }

    /// <summary>Whatever can be saved about a student is heard; what is saved about another one is not.</summary>
    [Fact]
    public async Task Everything_that_is_saved_is_heard_and_nothing_else()
    {
        var session = await una.Session(student);
        var other = await una.Student("Other");
        var now = app.Time.GetUtcNow();
        var saves = new Dictionary<string, Func<Task>>
        {
            ["note"] = () => tova.Post($"/students/{student}/notes", new { id = Guid.NewGuid(), text = "Works nights." }),
            ["decision"] = () => tova.Decide(student, "left", "stay", 3),
            ["answers"] = () => tova.Answer(student, "hamstring"),
            ["session"] = () => tova.Session(student),
            ["signal"] = () => tova.Log(session, now, signals: [StudioClient.Signal("bailed", now)]),
            ["sitting"] = () =>
                tova.Post(
                    $"/students/{student}/sittings",
                    new
                    {
                        id = Guid.NewGuid(),
                        scope = "needs",
                        measures = Array.Empty<string>(),
                        cold = false,
                    }
                ),
            ["body"] = async () =>
            {
                using var change = new HttpRequestMessage(HttpMethod.Put, $"/api/v1/students/{student}");
                change.Content = JsonContent.Create(StudioClient.Body("Ada Quill", 90));
                change.Headers.Add("If-Match", "\"1\"");
                Assert.Equal(HttpStatusCode.OK, (await tova.Http.SendAsync(change)).StatusCode);
            },
        };
        foreach (var (name, save) in saves)
        {
            var (_, tag) = await Ask();
            await save();
            Assert.True((await Ask(tag)).Status == HttpStatusCode.OK, name);
        }
        var (_, before) = await Ask();
        await tova.Post($"/students/{other}/notes", new { id = Guid.NewGuid(), text = "Left." });
        await una.Get($"/students/{student}");
        await una.Get("/readiness?group=training");
        Assert.Equal(HttpStatusCode.NotModified, (await Ask(before)).Status);
    }
}
