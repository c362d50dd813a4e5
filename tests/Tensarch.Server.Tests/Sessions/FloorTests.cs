using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Sessions;
using Tensarch.Server.Skills;
using static Tensarch.Server.Tests.Sessions.FloorEntries;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>What the floor tells: each entry stored once, whole or not at all, and none that is refused blocks the others.</summary>
public sealed class FloorTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;
    private Guid session;

    public async ValueTask InitializeAsync()
    {
        // In the morning: no test runs past midnight.
        app.Time.SetUtcNow(new DateTimeOffset(Now.UtcDateTime.Date.AddDays(1), TimeSpan.Zero).AddHours(8));
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 3, 3);
        session = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromMinutes(30));
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private DateTimeOffset Now => app.Time.GetUtcNow();

    private object Entry(int seq, DateTimeOffset at, params object[] facts) => EntryOf(session, Guid.NewGuid(), seq, at, facts);

    private Task<JsonElement> Tell(params object[] entries) => Tell(Now, entries);

    private async Task<JsonElement> Tell(DateTimeOffset sentAt, params object[] entries)
    {
        var answer = await coach.Post("/facts", new { sentAt, entries });
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private Task<int> Sets() => app.Rows(db => db.Sets.IgnoreQueryFilters().CountAsync(s => s.SessionId == session));

    private static readonly (string, string?) Stored = ("stored", null);

    [Fact]
    public async Task A_retry_is_the_same_another_body_is_a_clash_and_none_blocks_the_others()
    {
        var (id, set) = (Guid.NewGuid(), Set(Now.AddMinutes(-20)));
        var first = EntryOf(session, id, 1, Now.AddMinutes(-20), set);
        Assert.Equal([Stored], Told(await Tell(first)));
        var answer = await Tell(
            first,
            EntryOf(session, id, 1, Now.AddMinutes(-19), set),
            Entry(2, Now.AddMinutes(-18), Set(Now.AddMinutes(-18), drill: "no-such-drill")),
            EntryOf(Guid.NewGuid(), Guid.NewGuid(), 3, Now.AddMinutes(-17)),
            Entry(4, Now.AddMinutes(-16), Set(Now.AddMinutes(-16)))
        );
        Assert.Equal([("same", null), ("clash", null), ("refused", "unknownDrill"), ("gone", null), Stored], Told(answer));
        Assert.Equal(2, await Sets());
        Assert.Equal(2, (await coach.Get($"/sessions/{session}/events")).GetArrayLength());
    }

    [Fact]
    public async Task An_entry_is_stored_whole_or_not_at_all()
    {
        var taken = Guid.NewGuid();
        await Tell(Entry(1, Now.AddMinutes(-20), Set(Now.AddMinutes(-20), id: taken)));
        var answer = await Tell(
            Entry(2, Now.AddMinutes(-15), Set(Now.AddMinutes(-15)), Set(Now.AddMinutes(-14), id: taken)),
            Entry(3, Now.AddMinutes(-12), Set(Now.AddMinutes(-12)))
        );
        Assert.Equal([("clash", null), Stored], Told(answer));
        Assert.Equal(2, await Sets());
        // The same id twice, in one entry or in two of one request.
        var twice = Guid.NewGuid();
        answer = await Tell(
            Entry(4, Now.AddMinutes(-9), Set(Now.AddMinutes(-9), id: twice), Set(Now.AddMinutes(-8), id: twice)),
            Entry(5, Now.AddMinutes(-7), Set(Now.AddMinutes(-7), id: twice)),
            Entry(6, Now.AddMinutes(-6), Set(Now.AddMinutes(-6), id: twice))
        );
        Assert.Equal([("refused", "sameIdTwice"), Stored, ("clash", null)], Told(answer));
        Assert.Equal(3, await Sets());
    }

    [Fact]
    public async Task What_is_confirmed_or_rated_is_a_set_of_that_session_told_before_or_with_it()
    {
        object Confirm(Guid of) =>
            new
            {
                id = Guid.NewGuid(),
                kind = "confirmed",
                at = Now,
                of,
                seconds = 9.0,
            };
        object Rate(Guid of) =>
            new
            {
                id = Guid.NewGuid(),
                kind = "quality",
                at = Now,
                of,
                quality = 4,
            };
        var (first, second, elsewhere) = (Guid.NewGuid(), Guid.NewGuid(), Guid.NewGuid());
        var other = await coach.Session(student);
        await Tell(EntryOf(other, Guid.NewGuid(), 1, Now, Set(Now, id: elsewhere)));
        var answer = await Tell(
            Entry(1, Now, Confirm(Guid.NewGuid())),
            Entry(2, Now, Rate(elsewhere)),
            Entry(3, Now, Set(Now, id: first), Rate(first)),
            Entry(4, Now, Set(Now, id: second)),
            Entry(5, Now, Confirm(second), Rate(first))
        );
        (string, string?) refused = ("refused", "noSuchFact");
        Assert.Equal([refused, refused, Stored, Stored, Stored], Told(answer));
        Assert.Equal([Stored], Told(await Tell(Entry(6, Now, Confirm(first)))));
        Assert.Equal(4, await app.Rows(db => db.Corrections.IgnoreQueryFilters().CountAsync(c => c.StudentId == student)));
    }

    [Theory]
    [InlineData("no JSON at all")]
    [InlineData("[1]")]
    [InlineData("{\"is\":3}")]
    [InlineData("{\"at\":3}")]
    [InlineData("{\"is\":\"passed\"")]
    public async Task What_was_said_can_be_read_by_another_device(string said)
    {
        var answer = await Tell(
            new
            {
                @event = new
                {
                    id = Guid.NewGuid(),
                    session,
                    seq = 1,
                    at = Now,
                    said,
                },
                facts = new[] { Set(Now) },
            },
            Entry(2, Now, Set(Now))
        );
        Assert.Equal([("refused", "notReadable"), Stored], Told(answer));
        Assert.Equal(1, (await coach.Get($"/sessions/{session}/events")).GetArrayLength());
    }

    [Fact]
    public async Task What_is_said_to_lie_ahead_or_long_ago_is_refused_after_the_clock_was_set_right()
    {
        Assert.Equal([("refused", "tooFarAhead")], Told(await Tell(Entry(1, Now, Set(Now.AddDays(300))))));
        Assert.Equal([("refused", "tooFarAhead")], Told(await Tell(Entry(2, Now.AddMinutes(11)))));
        Assert.Equal([("refused", "tooOld")], Told(await Tell(Entry(3, Now.AddDays(-31)))));
        Assert.Equal([Stored], Told(await Tell(Entry(4, Now.AddMinutes(9), Set(Now.AddMinutes(9))))));
        // A device whose clock is three days ahead says what time it has when it sends.
        var ahead = Now.AddDays(3);
        Assert.Equal([Stored], Told(await Tell(ahead, Entry(5, ahead.AddMinutes(-5), Set(ahead.AddMinutes(-5))))));
        var at = await app.Rows(db => db.Sets.IgnoreQueryFilters().Where(s => s.SessionId == session).Select(s => s.At).ToListAsync());
        Assert.All(at, moment => Assert.True(moment <= Now && moment > Now.AddMinutes(-6)));
    }

    [Fact]
    public async Task Under_a_bar_what_is_done_now_is_refused_what_is_told_late_is_marked_and_what_a_body_says_is_kept()
    {
        await coach.Post($"/students/{student}/answers", new { answers = new[] { new { question = "hip-replacement", yes = true } } });
        app.Time.Advance(TimeSpan.FromMinutes(30));
        var answer = await Tell(
            Entry(1, Now.AddMinutes(-2), Set(Now.AddMinutes(-2))),
            Entry(2, Now.AddMinutes(-20), Set(Now.AddMinutes(-20))),
            Entry(3, Now.AddMinutes(-1), Set(Now.AddMinutes(-1)), Signal(Now, "pinch", "hip-front")),
            Entry(4, Now.AddMinutes(-1), Set(Now.AddMinutes(-1), drill: "joint-circles", variant: "full"))
        );
        Assert.Equal([("refused", "offLimits"), Stored, Stored, Stored], Told(answer));
        Assert.Contains(answer.GetProperty("ended").GetProperty(session.ToString()).EnumerateArray(), l => l.GetString() == "hip-front");
        // Both rounds of the lunge loaded the body, and prove nothing.
        var done = (await coach.Get($"/sessions/{session}"))
            .GetProperty("done")
            .EnumerateArray()
            .Where(d => d.GetProperty("rounds").GetInt32() > 0)
            .ToList();
        Assert.Equal(2, done.Single(d => d.GetProperty("drill").GetString() == "low-lunge").GetProperty("underBar").GetInt32());
        Assert.Equal(0, done.Single(d => d.GetProperty("drill").GetString() == "joint-circles").GetProperty("underBar").GetInt32());
        var state = await State(student);
        var worked = Assert.Single(state.Sessions, t => t.Id == session).Worked;
        Assert.Equal([("joint-circles", false), ("low-lunge", true)], worked.Select(w => (w.Drill, w.UnderBar)).Order());
        Assert.DoesNotContain(state.Evidence.Sets, e => e.Drill == "low-lunge");
        Assert.Contains(state.Evidence.Sets, e => e.Drill == "joint-circles");
        // It stays so when the bar is lifted since.
        await coach.Post($"/students/{student}/answers", new { answers = new[] { new { question = "hip-replacement", yes = false } } });
        Assert.DoesNotContain((await State(student)).Evidence.Sets, e => e.Drill == "low-lunge");
    }

    private async Task<StudentState> State(Guid of)
    {
        await using var scope = app.Services.CreateAsyncScope();
        scope.ServiceProvider.GetRequiredService<StudioScope>().Enter(coach.StudioId, coach.UserId, "Europe/Oslo");
        return (await scope.ServiceProvider.GetRequiredService<Standings>().Of(of, default))!.State;
    }

    [Fact]
    public async Task Heavy_work_that_was_done_before_something_changed_and_told_after_it_loads_the_body()
    {
        var done = Now;
        app.Time.Advance(TimeSpan.FromHours(1));
        await coach.Post($"/students/{student}/changes", new { id = Guid.NewGuid(), note = "A cold since this evening." });
        app.Time.Advance(TimeSpan.FromHours(1));
        var answer = await Tell(
            Entry(1, done, Set(done, "split-support", "high-only", 90), Set(done, "split-support", "high-only", 90, side: "right"))
        );
        Assert.Equal([Stored], Told(answer));
        await coach.Answer(student);
        var state = await State(student);
        Assert.All(Assert.Single(state.Sessions).Worked, w => Assert.False(w.UnderBar));
        Assert.NotEmpty(Assert.Single(state.History.Days).Loads.Heavy);
        // The next day's session knows of it.
        app.Time.Advance(TimeSpan.FromDays(1));
        var next = await coach.Get($"/sessions/{await coach.Session(student)}");
        Assert.DoesNotContain(
            next.GetProperty("plan").GetProperty("drills").EnumerateArray(),
            d => d.GetProperty("drill").GetString() is "split-support" or "split-ramped"
        );
    }

    /// <summary>Where only light work is allowed, what the plan gives is light: it is no breach to do it.</summary>
    [Theory]
    [InlineData("hamstring")]
    [InlineData("very-mobile")]
    [InlineData("blood-pressure-heart")]
    public async Task All_that_a_plan_gives_under_a_caution_is_taken_while_it_is_done_and_proves(string yes)
    {
        var held = await coach.Student("Light", yes);
        await coach.Place(held, 3, 3);
        var planned = await coach.Session(held);
        app.Time.Advance(TimeSpan.FromMinutes(5));
        var pack = (await coach.Get($"/sessions/{planned}/pack")).GetProperty("pack");
        var rounds =
            from slot in pack.GetProperty("slots").EnumerateArray()
            let version = slot.GetProperty("versions")[0]
            from round in version.GetProperty("segments").EnumerateArray().Where(s => s.GetProperty("kind").GetString() == "work").Take(1)
            select Set(
                Now,
                version.GetProperty("drill").GetString()!,
                version.GetProperty("variant").GetString()!,
                round.GetProperty("seconds").GetInt32(),
                side: version.GetProperty("side").GetString()
            );
        var entries = rounds.Select((r, i) => EntryOf(planned, Guid.NewGuid(), i + 1, Now, r)).ToArray();
        Assert.InRange(entries.Length, 5, TellRequest.Most);
        var answer = await coach.Post("/facts", new { sentAt = Now, entries });
        Assert.All(Told(await answer.Content.ReadFromJsonAsync<JsonElement>()), t => Assert.Equal(("stored", null), t));
        Assert.All((await State(held)).Sessions.Single().Worked, w => Assert.False(w.UnderBar));
    }

    [Fact]
    public async Task One_request_tells_so_much_and_the_rest_in_the_next()
    {
        object[] Rounds(int entries, int facts) =>
            [
                .. Enumerable
                    .Range(1, entries)
                    .Select(i =>
                        EntryOf(
                            session,
                            Guid.NewGuid(),
                            i,
                            Now,
                            [.. Enumerable.Range(0, facts).Select(_ => Set(Now, "joint-circles", "full", 5, side: null))]
                        )
                    ),
            ];
        async Task<HttpResponseMessage> Send(object[] entries) => await coach.Post("/facts", new { sentAt = Now, entries });
        Assert.Equal(HttpStatusCode.UnprocessableEntity, (await Send(Rounds(TellRequest.Most + 1, 1))).StatusCode);
        Assert.Equal("tooMany", await (await Send(Rounds(21, 10))).Problem(HttpStatusCode.UnprocessableEntity, "entries"));
        Assert.Equal(0, await app.Rows(db => db.Sets.IgnoreQueryFilters().CountAsync(s => s.StudentId == student)));
        var before = app.Commands.Count;
        Assert.All(Told(await (await Send(Rounds(20, 10))).Content.ReadFromJsonAsync<JsonElement>()), t => Assert.Equal("stored", t.Is));
        var many = app.Commands.Count - before;
        Assert.Equal(200, await app.Rows(db => db.Sets.IgnoreQueryFilters().CountAsync(s => s.StudentId == student)));
        // A row each for what was said and done; beside them it costs no more than a single round does.
        before = app.Commands.Count;
        await Send([EntryOf(session, Guid.NewGuid(), 99, Now, Set(Now, "joint-circles", "full", 5, side: null))]);
        Assert.InRange(many - 220, 1, app.Commands.Count - before + 5);
    }

    [Fact]
    public async Task The_door_of_before_is_closed_and_takes_nothing()
    {
        var told = await coach.Post($"/sessions/{session}/facts", new { sentAt = Now, sets = Array.Empty<object>() });
        Assert.Equal("doorClosed", await told.Problem(HttpStatusCode.Gone));
        Assert.Empty((await State(student)).Sessions);
    }

    [Fact]
    public async Task A_clearance_lifts_nothing_that_was_heard_of_after_it()
    {
        var felt = Now;
        app.Time.Advance(TimeSpan.FromHours(2));
        var today = DateOnly.FromDateTime(Now.UtcDateTime);
        Task<HttpResponseMessage> Clear() =>
            coach.Post(
                $"/students/{student}/clearances",
                new
                {
                    id = Guid.NewGuid(),
                    role = "physiotherapist",
                    tags = new[] { "neck", "inverted" },
                    from = today,
                    until = today.AddDays(60),
                }
            );
        async Task<bool> Barred() =>
            (await coach.Get($"/students/{student}"))
                .GetProperty("bars")
                .GetProperty("tags")
                .EnumerateArray()
                .Any(t => t.GetProperty("tag").GetString() == "inverted" && t.GetProperty("level").GetString() == "offLimits");
        Assert.Equal(HttpStatusCode.Created, (await Clear()).StatusCode);
        app.Time.Advance(TimeSpan.FromHours(1));
        Assert.Equal([Stored], Told(await Tell(Entry(1, felt, Signal(felt, "fallWithHeadContact")))));
        Assert.True(await Barred());
        app.Time.Advance(TimeSpan.FromMinutes(1));
        Assert.Equal(HttpStatusCode.Created, (await Clear()).StatusCode);
        Assert.False(await Barred());
    }

    [Fact]
    public async Task What_was_done_before_a_body_spoke_was_not_done_under_the_bar_that_it_raised()
    {
        var answer = await Tell(
            Entry(1, Now.AddMinutes(-9), Set(Now.AddMinutes(-9))),
            Entry(2, Now.AddMinutes(-5), Signal(Now.AddMinutes(-5), "numbness", "hip-front")),
            Entry(3, Now.AddMinutes(-8), Set(Now.AddMinutes(-8))),
            Entry(4, Now.AddMinutes(-2), Set(Now.AddMinutes(-2)))
        );
        Assert.Equal([Stored, Stored, Stored, ("refused", "offLimits")], Told(answer));
    }

    [Fact]
    public async Task Running_out_of_time_is_practice_and_a_confirmed_round_is_proof()
    {
        async Task<string> Hold() => (await coach.Test(student, "left", "hold")).GetProperty("outcome").GetString()!;
        Guid[] rounds = [Guid.NewGuid(), Guid.NewGuid()];
        await Tell(
            Entry(1, Now.AddMinutes(-20), Set(Now.AddMinutes(-20), "split-support", "high-only", 40, confirmed: false, rounds[0])),
            Entry(2, Now.AddMinutes(-15), Set(Now.AddMinutes(-15), "split-support", "high-only", 40, confirmed: false, rounds[1]))
        );
        Assert.Equal("noData", await Hold());
        object Confirm(Guid of, double seconds) =>
            new
            {
                id = Guid.NewGuid(),
                kind = "confirmed",
                at = Now,
                of,
                seconds,
            };
        await Tell(Entry(3, Now, Confirm(rounds[0], 40)));
        Assert.Equal("borderline", await Hold());
        await Tell(Entry(4, Now, Confirm(rounds[1], 40)));
        Assert.Equal("met", await Hold());
        // A smaller number, said later, stands.
        app.Time.Advance(TimeSpan.FromSeconds(5));
        await Tell(Entry(5, Now, Confirm(rounds[1], 12)));
        Assert.Equal("borderline", await Hold());
    }

    [Fact]
    public async Task Pain_at_a_gate_is_a_fact_about_the_body_and_its_answers_are_kept()
    {
        var gate = new
        {
            id = Guid.NewGuid(),
            kind = "gate",
            at = Now,
            gate = "handstand",
            answers = new[] { new { check = "wrist-pain", answer = 6 } },
        };
        Assert.Equal([Stored], Told(await Tell(Entry(1, Now, gate, Signal(Now, "dullPain", "wrist", 6)))));
        Assert.Equal(1, await app.Rows(db => db.GateAnswers.IgnoreQueryFilters().CountAsync(g => g.SessionId == session)));
        Assert.Equal(
            6,
            await app.Rows(db => db.Signals.IgnoreQueryFilters().Where(s => s.SessionId == session).Select(s => s.Pain).SingleAsync())
        );
    }

    [Fact]
    public async Task What_a_second_device_says_that_had_not_heard_of_the_first_is_kept_and_counts_for_no_gate_until_a_coach_says_so()
    {
        var (mat, bench) = (Guid.NewGuid(), Guid.NewGuid());
        async Task<JsonElement> From(Guid device, params object[] entries)
        {
            var answer = await coach.Post(
                "/facts",
                new
                {
                    sentAt = Now,
                    device,
                    entries,
                }
            );
            return await answer.Content.ReadFromJsonAsync<JsonElement>();
        }
        object Hold(int minutesAgo, Guid? id = null) =>
            Set(Now.AddMinutes(-minutesAgo), "split-support", "high-only", 40, confirmed: true, id);
        async Task<string> Gate() => (await coach.Test(student, "left", "hold")).GetProperty("outcome").GetString()!;

        var first = await From(mat, Entry(1, Now.AddMinutes(-25)), Entry(2, Now.AddMinutes(-24), Hold(24)));
        Assert.Empty(first.GetProperty("doubled").EnumerateArray());
        // It goes on from what the first one told, and is no second run.
        Assert.Empty((await From(bench, Entry(3, Now.AddMinutes(-22)))).GetProperty("doubled").EnumerateArray());
        // The first one had not heard of that.
        var (set, confirmed) = (Guid.NewGuid(), Guid.NewGuid());
        var late = await From(
            mat,
            Entry(3, Now.AddMinutes(-20), Hold(20, set)),
            Entry(
                4,
                Now.AddMinutes(-19),
                new
                {
                    id = confirmed,
                    kind = "confirmed",
                    at = Now.AddMinutes(-19),
                    of = set,
                    seconds = 41,
                }
            )
        );
        Assert.Equal([Stored, Stored], Told(late));
        Assert.Equal(session, Assert.Single(late.GetProperty("doubled").EnumerateArray()).GetGuid());
        Assert.Equal("borderline", await Gate());
        Assert.Equal(1, (await coach.Get($"/sessions/{session}")).GetProperty("doubled").GetInt32());

        app.Time.Advance(TimeSpan.FromSeconds(1));
        await coach.Post(
            $"/students/{student}/corrections",
            new
            {
                id = Guid.NewGuid(),
                what = "set",
                of = set,
                reason = "Both were done, I was there.",
                instead = new { confirmed = true },
            }
        );
        Assert.Equal("met", await Gate());
        Assert.Equal(0, (await coach.Get($"/sessions/{session}")).GetProperty("doubled").GetInt32());
    }

    [Fact]
    public async Task Another_studio_is_told_that_the_session_is_not_there()
    {
        var stranger = await app.Studio();
        var answer = await stranger.Post("/facts", new { sentAt = Now, entries = new[] { Entry(1, Now, Set(Now)) } });
        Assert.Equal([("gone", null)], Told(await answer.Content.ReadFromJsonAsync<JsonElement>()));
        Assert.Equal(0, await Sets());
        var colleague = await app.Studio(Data.Role.Coach, coach.StudioId);
        var other = await colleague.Post(
            "/facts",
            new
            {
                sentAt = Now,
                author = coach.UserId,
                entries = new[] { Entry(1, Now, Set(Now)) },
            }
        );
        Assert.Equal("otherAuthor", await other.Problem(HttpStatusCode.Conflict));
        Assert.Equal(0, await Sets());
        var assistant = await app.Studio(Data.Role.Assistant, coach.StudioId);
        Assert.Equal(
            HttpStatusCode.Forbidden,
            (await assistant.Post("/facts", new { sentAt = Now, entries = Array.Empty<object>() })).StatusCode
        );
    }
}
