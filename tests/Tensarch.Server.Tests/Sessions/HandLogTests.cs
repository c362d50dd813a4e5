using System.Globalization;
using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>A lesson without the runner is logged as planned, except for what is said; through the same door as the floor.</summary>
public sealed class HandLogTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;
    private Guid session;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
        await coach.Place(student, 3, 3);
        session = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromHours(2));
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Log(
        Guid id,
        object[]? parts = null,
        object[]? signals = null,
        object? endedAt = null,
        string? note = null
    ) =>
        coach.Post(
            $"/sessions/{session}/log",
            new
            {
                id,
                endedAt,
                parts = parts ?? [],
                signals = signals ?? [],
                carryOver = note,
            }
        );

    private async Task<JsonElement[]> Done() => [.. (await coach.Get($"/sessions/{session}")).GetProperty("done").EnumerateArray()];

    private async Task<JsonElement[]> Parts() => [.. (await coach.Get($"/sessions/{session}")).GetProperty("parts").EnumerateArray()];

    private Task<int> Sets() => app.Rows(db => db.Sets.IgnoreQueryFilters().CountAsync(s => s.SessionId == session));

    [Fact]
    public async Task As_planned_logs_every_part_once_however_often_it_is_sent()
    {
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.OK, (await Log(id)).StatusCode);
        var sets = await Sets();
        Assert.True(sets > 10);
        Assert.Equal(HttpStatusCode.OK, (await Log(id)).StatusCode);
        Assert.Equal(sets, await Sets());
        var done = await Done();
        Assert.Equal((await Parts()).Length, done.Length);
        Assert.All(done, d => Assert.False(d.GetProperty("skipped").GetBoolean()));
        Assert.True((await coach.Get($"/students/{student}/sessions"))[0].GetProperty("logged").GetBoolean());
        Assert.Equal("sessionOver", await (await Log(Guid.NewGuid())).Problem(HttpStatusCode.UnprocessableEntity));
    }

    [Fact]
    public async Task A_typed_time_is_the_studios_whatever_the_device_says()
    {
        // Oslo is an hour ahead of Greenwich in winter.
        var at = app.Time.GetUtcNow().AddMinutes(-30);
        var local = at.UtcDateTime.AddHours(1).ToString("yyyy-MM-ddTHH:mm", CultureInfo.InvariantCulture);
        async Task<HttpResponseMessage> Typed(string endedLocal) =>
            await coach.Post(
                $"/sessions/{session}/log",
                new
                {
                    id = Guid.NewGuid(),
                    endedAt = (string?)null,
                    parts = Array.Empty<object>(),
                    signals = Array.Empty<object>(),
                    endedLocal,
                }
            );
        Assert.Equal("notADate", await (await Typed("2035-02-30T10:00")).Problem(HttpStatusCode.UnprocessableEntity, "endedAt"));
        Assert.Equal("dateInFuture", await (await Typed("2036-01-01T10:00")).Problem(HttpStatusCode.UnprocessableEntity, "endedAt"));
        Assert.Equal(HttpStatusCode.OK, (await Typed(local)).StatusCode);
        var ended = (await coach.Get($"/sessions/{session}")).GetProperty("endedAt").GetDateTimeOffset();
        Assert.Equal(at.AddTicks(-(at.Ticks % TimeSpan.TicksPerMinute)), ended);
    }

    [Theory]
    [InlineData("2035-03-25 02:30", null)]
    [InlineData("2035-03-25 03:30", "2035-03-25 01:30")]
    [InlineData("2035-10-28 02:30", "2035-10-28 00:30")]
    [InlineData("2035-10-28 03:30", "2035-10-28 02:30")]
    public void An_hour_that_the_clock_skips_is_no_time_and_of_one_that_comes_twice_it_is_the_earlier(string typed, string? utc)
    {
        var scope = new StudioScope();
        scope.Enter(Guid.NewGuid(), Guid.NewGuid(), "Europe/Oslo");
        var at = new StudioClock(app.Time, scope).AtTyped(DateTime.Parse(typed, CultureInfo.InvariantCulture));
        Assert.Equal(utc, at?.ToString("yyyy-MM-dd HH:mm", CultureInfo.InvariantCulture));
    }

    [Fact]
    public async Task What_is_planned_for_a_later_day_is_moved_before_it_is_logged()
    {
        var today = DateOnly.FromDateTime(app.Time.GetUtcNow().UtcDateTime);
        var moved = await coach.Post($"/sessions/{session}/changes", new { kind = "move", date = today.AddDays(3) });
        Assert.Equal(HttpStatusCode.OK, moved.StatusCode);
        Assert.Equal("forLater", await (await Log(Guid.NewGuid())).Problem(HttpStatusCode.UnprocessableEntity, "id"));
        await coach.Post($"/sessions/{session}/changes", new { kind = "move", date = today });
        Assert.Equal(HttpStatusCode.OK, (await Log(Guid.NewGuid())).StatusCode);
    }

    [Fact]
    public async Task Except_what_was_not_done_and_a_hold_counts_for_the_gate_with_the_number_that_was_seen()
    {
        async Task<string> Hold(string side) => (await coach.Test(student, side, "hold")).GetProperty("outcome").GetString()!;
        var parts = await Parts();
        var proof = parts.Where(p => p.GetProperty("proves").GetBoolean()).ToList();
        Assert.Equal(2, proof.Count);
        string IdOf(JsonElement part) => part.GetProperty("id").GetString()!;
        var left = proof.Single(p => p.GetProperty("side").GetString() == "left");
        var skipped = parts[3];
        await Log(
            Guid.NewGuid(),
            [
                new
                {
                    part = IdOf(left),
                    done = true,
                    rounds = 2,
                    seen = new[] { new { round = 2, number = 42 } },
                },
                new { part = IdOf(skipped), done = false },
            ]
        );
        // On a day of practice the rounds are half a minute apart: they are one proof of the two that are asked.
        Assert.Equal(("borderline", "noData"), (await Hold("left"), await Hold("right")));
        var done = await Done();
        var gone = done.Single(d => d.GetProperty("skipped").GetBoolean());
        Assert.Equal(skipped.GetProperty("drill").GetString(), gone.GetProperty("drill").GetString());
        Assert.Equal(skipped.GetProperty("drill").GetString(), done[3].GetProperty("drill").GetString());
        // What was only planned is practice, and says so.
        var right = done.Single(d =>
            d.GetProperty("drill").GetString() == left.GetProperty("drill").GetString() && d.GetProperty("side").GetString() == "right"
        );
        Assert.True(right.GetProperty("practice").GetInt32() > 0);
    }

    [Fact]
    public async Task A_lesson_of_yesterday_a_pain_and_a_note_are_written_down_with_it()
    {
        app.Time.Advance(TimeSpan.FromDays(1));
        var ended = app.Time.GetUtcNow().AddDays(-1).AddHours(-1);
        var answer = await Log(
            Guid.NewGuid(),
            signals:
            [
                new
                {
                    signal = "sharpPain",
                    region = "hamstring",
                    pain = 7,
                },
            ],
            endedAt: ended,
            note: "Shorter next time."
        );
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        var sheet = await coach.Get($"/sessions/{session}");
        Assert.Equal(ended, sheet.GetProperty("endedAt").GetDateTimeOffset());
        var page = await coach.Get($"/students/{student}");
        Assert.Contains(page.GetProperty("notes").EnumerateArray(), n => n.GetProperty("text").GetString() == "Shorter next time.");
        Assert.Equal(DateOnly.FromDateTime(ended.UtcDateTime).ToString("O"), page.GetProperty("lastSessionOn").GetString());
        var facts = (await coach.Get($"/students/{student}/facts")).GetProperty("facts").EnumerateArray();
        Assert.Contains(facts, f => f.GetProperty("signal").GetString() == "sharpPain");
    }

    [Fact]
    public async Task What_is_off_limits_by_now_is_not_taken_from_a_hand_and_nothing_of_it_is_kept()
    {
        Assert.Equal(
            "required",
            await (
                await Log(
                    Guid.NewGuid(),
                    [],
                    [
                        new
                        {
                            signal = "sharpPain",
                            region = (string?)null,
                            pain = (int?)null,
                        },
                    ]
                )
            ).Problem(HttpStatusCode.UnprocessableEntity, "signals.0")
        );
        await coach.Answer(student, "hip-replacement");
        // What ended before it was answered was not done under it; what goes on now is.
        app.Time.Advance(TimeSpan.FromHours(2));
        Assert.StartsWith("parts.", await Field(await Log(Guid.NewGuid())));
        Assert.Equal(0, await Sets());
        Assert.Equal(JsonValueKind.Null, (await coach.Get($"/sessions/{session}")).GetProperty("endedAt").ValueKind);
        Assert.Equal(
            "unknownPart",
            await (await Log(Guid.NewGuid(), [new { part = "no-such", done = false }])).Problem(
                HttpStatusCode.UnprocessableEntity,
                "parts[0].part"
            )
        );
    }

    private static async Task<string> Field(HttpResponseMessage answer)
    {
        Assert.Equal(HttpStatusCode.UnprocessableEntity, answer.StatusCode);
        var problem = JsonDocument.Parse(await answer.Content.ReadAsStringAsync()).RootElement.GetProperty("errors")[0];
        Assert.Equal("offLimits", problem.GetProperty("code").GetString());
        return problem.GetProperty("field").GetString()!;
    }
}
