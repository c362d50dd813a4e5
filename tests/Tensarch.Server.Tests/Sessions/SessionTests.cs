using System.Net;
using System.Net.Http.Json;
using System.Text.Json;

namespace Tensarch.Server.Tests.Sessions;

public sealed class SessionTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 1, 1);
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private DateTimeOffset Now => app.Time.GetUtcNow();

    private async Task<int> Exposure() => (await coach.Test(student, "left", "exposure")).GetProperty("count").GetInt32();

    private static async Task<JsonElement> Logged(HttpResponseMessage answer) => await answer.Content.ReadFromJsonAsync<JsonElement>();

    [Theory]
    [InlineData(29)]
    [InlineData(125)]
    [InlineData(400)]
    public async Task A_break_is_as_long_as_it_is(int days)
    {
        var session = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromMinutes(10));
        await coach.Log(session, Now, [StudioClient.Set("low-lunge", "padded-knee", "left", Now.AddMinutes(-5))]);
        app.Time.Advance(TimeSpan.FromDays(days));
        await coach.SignIn();
        await coach.Answer(student);

        var page = await coach.Get($"/students/{student}");
        Assert.Equal((days, "reBaseline"), (page.GetProperty("daysSinceLast").GetInt32(), page.GetProperty("absence").GetString()));
        var plan = (await coach.Get($"/sessions/{await coach.Session(student)}")).GetProperty("plan");
        Assert.Contains(plan.GetProperty("notes").EnumerateArray(), n => n.GetProperty("code").GetString() == "reBaseline");
    }

    [Fact]
    public async Task Two_pinches_without_a_number_hold_the_region()
    {
        for (var i = 0; i < 2; i++)
        {
            var session = await coach.Session(student);
            app.Time.Advance(TimeSpan.FromMinutes(10));
            await coach.Log(session, Now, [], [StudioClient.Signal("sharpPain", Now.AddMinutes(-3), "hamstring")]);
            app.Time.Advance(TimeSpan.FromDays(1));
        }
        var tags = (await coach.Get($"/students/{student}")).GetProperty("bars").GetProperty("tags").EnumerateArray();
        Assert.Contains(tags, t => (t.GetProperty("tag").GetString(), t.GetProperty("level").GetString()) == ("hamstring", "offLimits"));
    }

    [Fact]
    public async Task Pain_said_with_readings_holds_on_when_they_are_voided_and_after_a_year()
    {
        async Task<string?> Hamstring() =>
            (await coach.Get($"/students/{student}"))
                .GetProperty("bars")
                .GetProperty("tags")
                .EnumerateArray()
                .FirstOrDefault(t => t.GetProperty("tag").GetString() == "hamstring")
                is { ValueKind: JsonValueKind.Object } tag
                ? tag.GetProperty("level").GetString()
                : "free";
        var readings = new[] { Guid.NewGuid(), Guid.NewGuid() };
        foreach (var id in readings)
        {
            var reading = StudioClient.Reading("passive-slr", "left", [80, 80, 80], id, pain: 5);
            Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/readings", reading)).StatusCode);
            Assert.Equal(HttpStatusCode.OK, (await coach.Post($"/students/{student}/readings", reading)).StatusCode);
            app.Time.Advance(TimeSpan.FromHours(1));
        }
        Assert.Equal("offLimits", await Hamstring());
        foreach (var id in readings)
            await coach.Post($"/students/{student}/readings/{id}/void", new { reason = "wrong side" });
        Assert.Equal("offLimits", await Hamstring());
        app.Time.Advance(TimeSpan.FromDays(370));
        await coach.SignIn();
        await coach.Answer(student);
        Assert.Equal("offLimits", await Hamstring());
    }

    [Theory]
    [InlineData(0)]
    [InlineData(2)]
    [InlineData(9 * 60)]
    public async Task A_bar_is_not_passed_by_naming_a_time(int secondsAgo)
    {
        var held = await coach.Student("Kept", "hip-replacement");
        await coach.Place(held, 1, 1);
        DateTimeOffset? at = secondsAgo == 0 ? null : Now.AddSeconds(-secondsAgo);
        var read = await coach.Post($"/students/{held}/readings", StudioClient.Reading("hip-extension", "left", [15, 15, 15], takenAt: at));
        Assert.Equal("offLimits", await read.Problem(HttpStatusCode.UnprocessableEntity, "measure"));
        var set = new
        {
            id = Guid.NewGuid(),
            drill = "low-lunge",
            variant = "padded-knee",
            side = "left",
            seconds = 30,
            cleanReps = (int?)null,
            quality = (int?)null,
            at,
        };
        var done = await coach.Post($"/students/{held}/skills/front-split/bench-sets", set);
        Assert.Equal("offLimits", await done.Problem(HttpStatusCode.UnprocessableEntity, "skill"));
    }

    [Fact]
    public async Task The_pack_carries_the_whole_plan_to_the_second()
    {
        var session = await coach.Session(student);
        var sheet = await coach.Get($"/sessions/{session}");
        var pack = (await coach.Get($"/sessions/{session}/pack")).GetProperty("pack");
        var seconds = pack.GetProperty("slots")
            .EnumerateArray()
            .Sum(p => p.GetProperty("versions")[0].GetProperty("segments").EnumerateArray().Sum(s => s.GetProperty("seconds").GetInt32()));
        Assert.Equal(sheet.GetProperty("totalSeconds").GetInt32(), seconds);
        Assert.Equal(seconds, sheet.GetProperty("parts").EnumerateArray().Sum(p => p.GetProperty("seconds").GetInt32()));
        Assert.True(seconds <= 45 * 60);
    }

    [Fact]
    public async Task A_plan_for_another_day_or_from_before_a_step_is_not_run_and_says_why()
    {
        async Task<string[]> Reasons(Guid id)
        {
            var answer = await coach.Http.GetAsync($"/api/v1/sessions/{id}/pack");
            Assert.Equal("planOutdated", await answer.Problem(HttpStatusCode.Conflict));
            var sheet = await coach.Get($"/sessions/{id}");
            return [.. sheet.GetProperty("outdated").EnumerateArray().Select(c => c.GetString()!)];
        }
        var old = await coach.Session(student);
        Assert.Empty((await coach.Get($"/sessions/{old}")).GetProperty("outdated").EnumerateArray());
        await coach.Decide(student, "left", "override", 1, "Seen in class, far beyond this stage.");
        Assert.Contains("stageChanged", await Reasons(old));
        var today = await coach.Session(student);
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.GetAsync($"/api/v1/sessions/{today}/pack")).StatusCode);
        app.Time.Advance(TimeSpan.FromDays(1));
        Assert.Equal(["otherDay"], await Reasons(today));
    }

    [Fact]
    public async Task Sessions_with_the_stages_work_count_as_exposure_calm_alone_does_not()
    {
        Assert.Equal(0, await Exposure());
        var calm = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromMinutes(5));
        await coach.Log(calm, Now, [StudioClient.Set("pigeon", "cushion-under-the-hip", "right", Now.AddMinutes(-1))]);
        Assert.Equal(0, await Exposure());
        for (var i = 0; i < 4; i++)
        {
            app.Time.Advance(TimeSpan.FromDays(2));
            var session = await coach.Session(student);
            app.Time.Advance(TimeSpan.FromMinutes(30));
            await coach.Log(session, Now, [StudioClient.Set("low-lunge", "padded-knee", "left", Now.AddMinutes(-10))]);
        }
        var exposure = await coach.Test(student, "left", "exposure");
        Assert.Equal(
            ("met", 4, 7),
            (exposure.GetProperty("outcome").GetString(), exposure.GetProperty("count").GetInt32(), exposure.GetProperty("days").GetInt32())
        );
    }

    [Fact]
    public async Task A_runner_whose_clock_is_wrong_is_set_right()
    {
        var session = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromMinutes(10));
        var wrong = Now.AddHours(7);
        await coach.Log(session, wrong, [StudioClient.Set("low-lunge", "padded-knee", "left", wrong.AddMinutes(-4))]);
        var started = (await coach.Get($"/sessions/{session}")).GetProperty("startedAt").GetDateTimeOffset();
        Assert.Equal(Now.AddMinutes(-4), started);
    }

    [Fact]
    public async Task Pain_in_the_last_sessions_closes_the_gate_and_twice_holds_the_region()
    {
        var session = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromMinutes(10));
        object[] sets = [StudioClient.Set("low-lunge", "padded-knee", "left", Now.AddMinutes(-8))];
        await coach.Log(session, Now, sets, [StudioClient.Signal("dullPain", Now.AddMinutes(-1), "hamstring", 5)]);
        var second = await coach.Session(student);
        var waiting = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromMinutes(10));
        var answer = await coach.Log(
            second,
            Now,
            [StudioClient.Set("low-lunge", "padded-knee", "left", Now.AddMinutes(-8))],
            [StudioClient.Signal("sharpPain", Now.AddMinutes(-1), "hamstring", 7)]
        );
        Assert.Contains(
            (await Logged(answer)).GetProperty("ended").GetProperty(second.ToString()).EnumerateArray(),
            d => d.GetString() == "hamstring"
        );
        var pain = await coach.Test(student, "left", "pain");
        Assert.Equal(("notMet", 7), (pain.GetProperty("outcome").GetString(), pain.GetProperty("value").GetInt32()));
        Assert.Equal("blocked", (await coach.Gate(student, "left")).GetProperty("state").GetString());
        Assert.Equal("planBarred", await (await coach.Http.GetAsync($"/api/v1/sessions/{waiting}/pack")).Problem(HttpStatusCode.Conflict));
        Assert.Contains(
            (await coach.Get($"/sessions/{waiting}")).GetProperty("outdated").EnumerateArray(),
            c => c.GetString() == "offLimitsPlanned"
        );
        // One that is under way goes on, without what has ended.
        var ended = (await coach.Get($"/sessions/{second}/pack")).GetProperty("ended");
        Assert.Contains(ended.EnumerateArray(), l => l.GetString() == "hamstring");

        var third = await coach.Session(student);
        var plan = (await coach.Get($"/sessions/{third}")).GetProperty("plan").GetProperty("drills");
        Assert.DoesNotContain(
            plan.EnumerateArray(),
            d => d.GetProperty("drill").GetString() is "pyramid-fold" or "leg-swings" or "hinge-repeats"
        );

        var review = new
        {
            id = Guid.NewGuid(),
            tag = "hamstring",
            note = "Walks and folds without it.",
        };
        Assert.Equal(
            "reviewTooEarly",
            await (await coach.Post($"/students/{student}/reviews", review)).Problem(HttpStatusCode.UnprocessableEntity, "tag")
        );
        for (var i = 0; i < 2; i++)
        {
            app.Time.Advance(TimeSpan.FromDays(2));
            var free = await coach.Session(student);
            app.Time.Advance(TimeSpan.FromMinutes(10));
            await coach.Log(free, Now, [StudioClient.Set("low-lunge", "padded-knee", "left", Now.AddMinutes(-5))]);
        }
        Assert.Equal(HttpStatusCode.Created, (await coach.Post($"/students/{student}/reviews", review)).StatusCode);
        Assert.NotEqual("blocked", (await coach.Gate(student, "left")).GetProperty("state").GetString());
        var eased = await coach.Session(student);
        Assert.Contains(
            (await coach.Get($"/sessions/{eased}")).GetProperty("plan").GetProperty("notes").EnumerateArray(),
            n => n.GetProperty("code").GetString() == "lighterAfterPain"
        );
    }

    [Fact]
    public async Task A_signal_without_its_region_and_an_unknown_drill_are_refused()
    {
        var session = await coach.Session(student);
        var felt = await Logged(await coach.Log(session, Now, signals: [StudioClient.Signal("sharpPain", Now)]));
        Assert.Equal(("refused", "required"), Assert.Single(FloorEntries.Told(felt)));
        var done = await Logged(await coach.Log(session, Now, [StudioClient.Set("no-drill", "x", "left", Now)]));
        Assert.Equal(("refused", "unknownDrill"), Assert.Single(FloorEntries.Told(done)));
    }

    [Fact]
    public async Task A_past_day_and_impossible_minutes_are_refused()
    {
        Task<HttpResponseMessage> Plan(string? date, int minutes) =>
            coach.Post(
                $"/students/{student}/sessions",
                new
                {
                    id = Guid.NewGuid(),
                    date,
                    minutes,
                }
            );
        Assert.Equal("dateInPast", await (await Plan("2035-03-02", 45)).Problem(HttpStatusCode.UnprocessableEntity, "date"));
        Assert.Equal("minutesOutOfRange", await (await Plan(null, 5)).Problem(HttpStatusCode.UnprocessableEntity, "minutes"));
    }

    [Fact]
    public async Task Hard_work_on_a_region_waits_two_days()
    {
        var other = await coach.Student("Stage four");
        await coach.Place(other, 4, 4);
        app.Time.Advance(TimeSpan.FromDays(10));
        var session = await coach.Session(other, 75);
        app.Time.Advance(TimeSpan.FromMinutes(30));
        await coach.Log(session, Now, [StudioClient.Set("split-ramped", "rear-knee-padded", "left", Now.AddMinutes(-5))]);
        app.Time.Advance(TimeSpan.FromDays(1));
        var next = await coach.Get($"/sessions/{await coach.Session(other, 75)}");
        Assert.DoesNotContain(
            next.GetProperty("plan").GetProperty("drills").EnumerateArray(),
            d => d.GetProperty("drill").GetString() == "split-ramped"
        );
        Assert.Contains(
            next.GetProperty("plan").GetProperty("notes").EnumerateArray(),
            n => n.GetProperty("code").GetString() == "spacing"
        );
    }
}
