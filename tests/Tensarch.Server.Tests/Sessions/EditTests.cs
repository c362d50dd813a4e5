using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>A session under the coach's hand: tried, refused, kept, taken back, run.</summary>
public sealed class EditTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;
    private Guid session;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 1, 1);
        session = await coach.Session(student);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<string> Version() => (await coach.Get($"/sessions/{session}")).GetProperty("version").GetString()!;

    private static object Dose(string id, int seconds) =>
        new
        {
            kind = "dose",
            id,
            dose = new { seconds },
        };

    private static object Remove(string id) => new { kind = "remove", id };

    private async Task<JsonElement> Try(params object[] changes)
    {
        var answer = await coach.Post($"/sessions/{session}/edits/try", new { of = await Version(), changes });
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private async Task<HttpResponseMessage> Keep(params object[] changes) =>
        await coach.Post(
            $"/sessions/{session}/edits",
            new
            {
                id = Guid.NewGuid(),
                of = await Version(),
                changes,
            }
        );

    private static async Task<(string Code, string Field)> Problem(HttpResponseMessage answer)
    {
        var problem = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("errors")[0];
        return (problem.GetProperty("code").GetString()!, problem.GetProperty("field").GetString()!);
    }

    private async Task<List<string>> Drills() =>
        [
            .. (await coach.Get($"/sessions/{session}"))
                .GetProperty("plan")
                .GetProperty("drills")
                .EnumerateArray()
                .Select(d => d.GetProperty("drill").GetString()!),
        ];

    private static IEnumerable<(string Code, bool Refused)> Verdicts(JsonElement view) =>
        view.GetProperty("verdicts")
            .EnumerateArray()
            .Select(v => (v.GetProperty("code").GetString()!, v.GetProperty("refused").GetBoolean()));

    [Fact]
    public async Task A_bent_preference_is_said_kept_and_run()
    {
        var view = await Try(Remove("low-lunge"));
        Assert.Contains(("coreMissing", false), Verdicts(view));
        Assert.Contains("low-lunge", await Drills());
        Assert.Equal(HttpStatusCode.OK, (await Keep(Remove("low-lunge"))).StatusCode);
        Assert.DoesNotContain("low-lunge", await Drills());
        var plan = (await coach.Get($"/sessions/{session}")).GetProperty("plan");
        Assert.Contains("coreMissing", plan.GetProperty("bent").EnumerateArray().Select(b => b.GetString()));
        var pack = (await coach.Get($"/sessions/{session}/pack")).GetProperty("pack");
        Assert.DoesNotContain(
            pack.GetProperty("slots").EnumerateArray(),
            s => s.GetProperty("versions")[0].GetProperty("drill").GetString() == "low-lunge"
        );
    }

    [Fact]
    public async Task What_a_bar_forbids_is_refused_and_not_kept()
    {
        await coach.Answer(student, "hamstring");
        session = await coach.Session(student);
        object[] changes = [new { kind = "add", drill = "split-support" }];
        var options = await coach.Post($"/sessions/{session}/edits/options", new { of = await Version(), changes = Array.Empty<object>() });
        Assert.Equal(HttpStatusCode.OK, options.StatusCode);
        var refused = Verdicts(await Try(changes)).Where(v => v.Refused).Select(v => v.Code).ToList();
        Assert.Contains("lightOnlyHeavy", refused);
        var before = await Drills();
        Assert.Equal("editRefused", (await Problem(await Keep(changes))).Code);
        Assert.Equal(before, await Drills());
    }

    [Fact]
    public async Task What_is_kept_is_taken_back_and_changed_again()
    {
        var before = await Drills();
        await Keep(Remove("low-lunge"));
        var changed = await Drills();
        Task<HttpResponseMessage> Back() => coach.Post($"/sessions/{session}/changes", new { kind = "takeBack", date = (string?)null });
        Assert.Equal(HttpStatusCode.OK, (await Back()).StatusCode);
        Assert.Equal(before, await Drills());
        await Back();
        Assert.Equal(changed, await Drills());
    }

    [Fact]
    public async Task Two_coaches_do_not_overwrite_each_other()
    {
        var of = await Version();
        await Keep(Remove("low-lunge"));
        var late = await coach.Post(
            $"/sessions/{session}/edits",
            new
            {
                id = Guid.NewGuid(),
                of,
                changes = new[] { Remove("pyramid-fold") },
            }
        );
        Assert.Equal(HttpStatusCode.PreconditionFailed, late.StatusCode);
        var both = await late.Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal("changedMeanwhile", both.GetProperty("code").GetString());
        Assert.Equal(await Version(), $"{both.GetProperty("now").GetProperty("version").GetInt32()}");
        Assert.Contains("pyramid-fold", await Drills());
    }

    [Fact]
    public async Task Sent_twice_is_kept_once()
    {
        var body = new
        {
            id = Guid.NewGuid(),
            of = await Version(),
            changes = new[] { Remove("low-lunge") },
        };
        await coach.Post($"/sessions/{session}/edits", body);
        Assert.Equal(HttpStatusCode.OK, (await coach.Post($"/sessions/{session}/edits", body)).StatusCode);
    }

    [Fact]
    public async Task A_wrong_number_is_named_at_its_field_and_a_run_session_is_not_changed()
    {
        var answer = await coach.Post(
            $"/sessions/{session}/edits/try",
            new { of = await Version(), changes = new[] { Dose("lie-still", 601) } }
        );
        Assert.Equal(("doseOutOfRange", "changes[0].dose.seconds"), await Problem(answer));
        app.Time.Advance(TimeSpan.FromMinutes(10));
        await coach.Log(session, app.Time.GetUtcNow(), [StudioClient.Set("low-lunge", "padded-knee", "left", app.Time.GetUtcNow())]);
        Assert.Equal(("alreadyBegun", "id"), await Problem(await Keep(Remove("low-lunge"))));
    }

    [Fact]
    public async Task Shortened_by_hand_it_takes_no_longer_and_is_run()
    {
        var answer = await Keep(new { kind = "shorten", to = 20 });
        var line = await answer.Content.ReadFromJsonAsync<JsonElement>();
        Assert.InRange(line.GetProperty("totalSeconds").GetInt32(), 600, 1200);
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.GetAsync($"/api/v1/sessions/{session}/pack")).StatusCode);
    }

    [Fact]
    public async Task What_was_changed_by_hand_comes_along_to_a_day_that_allows_it_and_is_kept_where_one_does_not()
    {
        async Task Move(int days)
        {
            var day = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime).AddDays(days);
            var moved = await coach.Post($"/sessions/{session}/changes", new { kind = "move", date = day });
            Assert.Equal(HttpStatusCode.OK, moved.StatusCode);
            Assert.Equal(day.ToString("O"), (await coach.Get($"/sessions/{session}")).GetProperty("plan").GetProperty("date").GetString());
        }
        var made = await Drills();
        var gone = made.First(d => d == "low-lunge");
        await Keep(Remove(gone));
        var changed = await Drills();
        await Move(2);
        Assert.Equal(changed, await Drills());
        // Taken back on its new day, it is as it would be made for it.
        await coach.Post($"/sessions/{session}/changes", new { kind = "takeBack" });
        Assert.Contains(gone, await Drills());
        await coach.Post($"/sessions/{session}/changes", new { kind = "takeBack" });
        Assert.Equal(changed, await Drills());
        // A caution forbids what is in it: it is made anew, and what it was is not lost.
        await coach.Answer(student, "hip-replacement");
        await Move(3);
        Assert.NotEqual(changed, await Drills());
        await coach.Post($"/sessions/{session}/changes", new { kind = "takeBack" });
        Assert.Equal(changed, await Drills());
    }
}
