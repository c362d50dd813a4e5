using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;

namespace Tensarch.Server.Tests.Measuring;

public sealed class SittingTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Start(Guid id, string scope, string[]? measures = null, bool cold = false, Guid? of = null) =>
        coach.Post(
            $"/students/{of ?? student}/sittings",
            new
            {
                id,
                scope,
                measures = measures ?? [],
                cold,
            }
        );

    private static async Task<JsonElement> Json(HttpResponseMessage answer)
    {
        answer.EnsureSuccessStatusCode();
        return await answer.Content.ReadFromJsonAsync<JsonElement>();
    }

    private static List<string> Measures(JsonElement sitting) =>
        [.. sitting.GetProperty("items").EnumerateArray().Select(i => i.GetProperty("measure").GetString()!)];

    private static object Draft(Guid id, params double[] trials) =>
        new
        {
            id,
            instrument = "goniometer",
            trials,
            hits = Array.Empty<bool>(),
            stacks = Array.Empty<object>(),
            marks = Array.Empty<Guid>(),
            compensations = Array.Empty<string>(),
            quality = "",
            sensation = "",
            pain = "",
            note = "",
        };

    private Task<HttpResponseMessage> Keep(StudioClient who, Guid sitting, string slot, int version, object draft) =>
        who.Http.PutAsJsonAsync($"/api/v1/students/{student}/sittings/{sitting}/drafts/{slot}", new { version, draft }, StudioApp.Json);

    [Fact]
    public async Task What_the_next_gates_need_is_the_baseline_first_and_then_only_what_is_unmet()
    {
        Assert.Equal(6, Measures(await Json(await Start(Guid.NewGuid(), "needs"))).Count);
        await coach.Place(student, 1, 1);
        Assert.Equal(["passive-slr", "hip-extension"], Measures(await Json(await Start(Guid.NewGuid(), "needs"))));
        foreach (var side in new[] { "left", "right" })
            await coach.Post($"/students/{student}/readings", StudioClient.Reading("passive-slr", side, [90, 90, 90]));
        Assert.Equal(["hip-extension"], Measures(await Json(await Start(Guid.NewGuid(), "needs"))));
    }

    [Fact]
    public async Task A_cold_sitting_reads_the_range_cold_first_and_starts_once()
    {
        var id = Guid.NewGuid();
        var sitting = await Json(await Start(id, "single", ["passive-slr", "hollow-hold"], cold: true));
        var warmth = sitting.GetProperty("items").EnumerateArray().Select(i => i.GetProperty("warmth").GetString());
        Assert.Equal(["cold", "warm", "warm"], warmth);
        Assert.Equal(HttpStatusCode.OK, (await Start(id, "single", ["passive-slr", "hollow-hold"], cold: true)).StatusCode);
        Assert.Equal("idTaken", await (await Start(id, "single", ["passive-slr"])).Problem(HttpStatusCode.Conflict));
        Assert.Equal("unknownBattery", await (await Start(Guid.NewGuid(), "no-such")).Problem(HttpStatusCode.UnprocessableEntity, "scope"));
        Assert.Equal(
            "nothingToRead",
            await (await Start(Guid.NewGuid(), "single")).Problem(HttpStatusCode.UnprocessableEntity, "measures")
        );
    }

    [Fact]
    public async Task A_held_measure_is_never_offered_and_not_taken_now()
    {
        var held = await coach.Student("Otto Vane", "neck");
        var bench = await coach.Get($"/students/{held}/bench");
        var inversion = bench.GetProperty("batteries").EnumerateArray().Single(b => b.GetProperty("scope").GetString() == "inversion");
        Assert.DoesNotContain(
            inversion.GetProperty("items").EnumerateArray(),
            i => i.GetProperty("measure").GetString()!.StartsWith("neck")
        );
        Assert.Equal(2, inversion.GetProperty("leftOut").GetArrayLength());
        Assert.Equal(
            "offLimits",
            await (await Start(Guid.NewGuid(), "single", ["neck-flexion-gap"], of: held)).Problem(HttpStatusCode.UnprocessableEntity)
        );
        var now = new
        {
            id = Guid.NewGuid(),
            measure = "neck-flexion-gap",
            side = (string?)null,
            warmth = "warm",
            standard = (string?)null,
            instrument = "tape",
            trials = new[] { 2.0 },
            compensations = Array.Empty<string>(),
            quality = (int?)null,
            sensation = (int?)null,
            pain = (int?)null,
            note = (string?)null,
            takenAt = (string?)null,
        };
        Assert.Equal(
            "offLimits",
            await (await coach.Post($"/students/{held}/readings", now)).Problem(HttpStatusCode.UnprocessableEntity, "measure")
        );
        Assert.Equal(
            HttpStatusCode.Created,
            (await coach.Post($"/students/{student}/readings", now with { id = Guid.NewGuid() })).StatusCode
        );
    }

    [Fact]
    public async Task Before_the_intake_is_answered_nothing_is_read()
    {
        var id = Guid.NewGuid();
        await coach.Post("/students", new { id, student = StudioClient.Body("Una Frey") });
        var bench = await coach.Get($"/students/{id}/bench");
        Assert.False(bench.GetProperty("screened").GetBoolean());
        Assert.Equal(0, bench.GetProperty("needs").GetProperty("items").GetArrayLength());
        Assert.Equal("offLimits", await (await Start(Guid.NewGuid(), "needs", of: id)).Problem(HttpStatusCode.UnprocessableEntity));
    }

    [Fact]
    public async Task Another_device_goes_on_where_the_first_was_interrupted()
    {
        var (sitting, reading) = (Guid.NewGuid(), Guid.NewGuid());
        await Start(sitting, "single", ["passive-slr"]);
        const string slot = "passive-slr.left.none.warm";
        Assert.Equal(1, (await Json(await Keep(coach, sitting, slot, 0, Draft(reading, 80)))).GetProperty("version").GetInt32());
        Assert.Equal(2, (await Json(await Keep(coach, sitting, slot, 1, Draft(reading, 80, 81)))).GetProperty("version").GetInt32());
        Assert.Equal(2, (await Json(await Keep(coach, sitting, slot, 1, Draft(reading, 80, 81)))).GetProperty("version").GetInt32());

        var other = await app.Studio(Role.Coach, coach.StudioId);
        var open = (await other.Get($"/students/{student}/bench")).GetProperty("open")[0];
        Assert.Equal(
            (sitting, 0, 2),
            (open.GetProperty("id").GetGuid(), open.GetProperty("taken").GetInt32(), open.GetProperty("asked").GetInt32())
        );
        var left = (await other.Get($"/students/{student}/sittings/{sitting}")).GetProperty("items")[0].GetProperty("sides")[0];
        Assert.Equal(
            [80, 81],
            left.GetProperty("draft").GetProperty("draft").GetProperty("trials").EnumerateArray().Select(t => t.GetDouble())
        );
        Assert.Equal(
            "changedMeanwhile",
            await (await Keep(other, sitting, slot, 1, Draft(reading, 70))).Problem(HttpStatusCode.PreconditionFailed)
        );

        var body = StudioClient.Reading("passive-slr", "left", [80, 81, 82], reading);
        var json = JsonSerializer.SerializeToNode(body, StudioApp.Json)!;
        json["sittingId"] = sitting.ToString();
        Assert.Equal(HttpStatusCode.Created, (await other.Post($"/students/{student}/readings", json)).StatusCode);
        left = (await coach.Get($"/students/{student}/sittings/{sitting}")).GetProperty("items")[0].GetProperty("sides")[0];
        Assert.Equal(81, left.GetProperty("taken").GetProperty("value").GetDouble());
        await coach.Post($"/students/{student}/sittings/{sitting}/end", new { });
        Assert.Equal(0, (await coach.Get($"/students/{student}/bench")).GetProperty("open").GetArrayLength());
    }

    [Fact]
    public async Task A_voided_reading_is_taken_again_in_its_sitting_and_its_draft_is_gone()
    {
        var (sitting, reading) = (Guid.NewGuid(), Guid.NewGuid());
        await Start(sitting, "single", ["passive-slr"]);
        await Keep(coach, sitting, "passive-slr.left.none.warm", 0, Draft(reading, 80, 81, 82));
        async Task<HttpStatusCode> Take(Guid id)
        {
            var json = JsonSerializer.SerializeToNode(StudioClient.Reading("passive-slr", "left", [80, 81, 82], id), StudioApp.Json)!;
            json["sittingId"] = sitting.ToString();
            return (await coach.Post($"/students/{student}/readings", json)).StatusCode;
        }
        async Task<JsonElement> Left() =>
            (await coach.Get($"/students/{student}/sittings/{sitting}")).GetProperty("items")[0].GetProperty("sides")[0];

        Assert.Equal(HttpStatusCode.Created, await Take(reading));
        await coach.Post($"/students/{student}/readings/{reading}/void", new { reason = "wrong leg" });
        var left = await Left();
        Assert.Equal(JsonValueKind.Null, left.GetProperty("taken").ValueKind);
        Assert.Equal(JsonValueKind.Null, left.GetProperty("draft").ValueKind);
        Assert.Equal(
            HttpStatusCode.OK,
            (await Keep(coach, sitting, "passive-slr.left.none.warm", 0, Draft(Guid.NewGuid(), 84))).StatusCode
        );
        Assert.Equal(HttpStatusCode.Created, await Take(Guid.NewGuid()));
        Assert.NotEqual(JsonValueKind.Null, (await Left()).GetProperty("taken").ValueKind);
    }

    [Fact]
    public async Task What_was_barred_or_changed_meanwhile_is_said_and_the_sitting_can_be_ended()
    {
        var sitting = Guid.NewGuid();
        await Start(sitting, "single", ["neck-flexion-gap"]);
        await coach.Answer(student, "neck");
        await app.Rows(async db =>
        {
            var row = await db.Sittings.IgnoreQueryFilters().SingleAsync(s => s.Id == sitting);
            row.ItemsJson = row.ItemsJson.TrimEnd(']') + """,{"measure":"hollow-hold","level":"no-such","warmth":"warm","asks":2}]""";
            db.Entry(row).Property(r => r.ItemsJson).IsModified = true;
            return await db
                .Sittings.IgnoreQueryFilters()
                .Where(s => s.Id == sitting)
                .ExecuteUpdateAsync(set => set.SetProperty(s => s.ItemsJson, row.ItemsJson));
        });
        var view = await coach.Get($"/students/{student}/sittings/{sitting}");
        Assert.Equal(0, view.GetProperty("items").GetArrayLength());
        Assert.Equal("neck-flexion-gap", view.GetProperty("leftOut")[0].GetProperty("measure").GetString());
        Assert.Equal(["Hollow hold"], view.GetProperty("changed").EnumerateArray().Select(c => c.GetString()));
        Assert.Equal(1, (await coach.Get($"/students/{student}/bench")).GetProperty("open").GetArrayLength());
        Assert.Equal(HttpStatusCode.NoContent, (await coach.Post($"/students/{student}/sittings/{sitting}/end", new { })).StatusCode);
    }

    [Theory]
    [InlineData("crow")]
    [InlineData("side-plank")]
    [InlineData("handstand")]
    [InlineData("shoulderstand")]
    [InlineData("deep-squat")]
    [InlineData("front-split")]
    [InlineData("middle-split")]
    public async Task What_the_first_gate_of_every_skill_needs_is_read_once_each(string skill)
    {
        var sided = skill is "front-split" or "side-plank";
        await coach.Start(student, skill, sided ? [("left", 1), ("right", 1)] : [(null, 1)]);
        var needs = (await coach.Get($"/students/{student}/bench")).GetProperty("needs").GetProperty("items").EnumerateArray();
        Assert.Distinct(
            needs.Select(i =>
                (i.GetProperty("measure").GetString(), i.GetProperty("level").GetString(), i.GetProperty("warmth").GetString())
            )
        );
        Assert.Equal(HttpStatusCode.Created, (await Start(Guid.NewGuid(), "needs")).StatusCode);
    }

    [Fact]
    public async Task A_trial_far_from_the_others_and_pain_say_at_once_what_they_do()
    {
        async Task<JsonElement> Preview(double[] trials, int? pain = null)
        {
            var json = JsonSerializer.SerializeToNode(StudioClient.Reading("passive-slr", "left", trials), StudioApp.Json)!;
            json["pain"] = pain;
            return await Json(await coach.Post($"/students/{student}/readings/preview", json));
        }
        Assert.Equal(0, (await Preview([60, 88, 89])).GetProperty("odd").GetProperty("index").GetInt32());
        Assert.Equal(JsonValueKind.Null, (await Preview([87, 88, 89])).GetProperty("odd").ValueKind);
        var odd = StudioClient.Reading("passive-slr", "left", [60, 88, 89]);
        Assert.Equal(
            "oddTrial",
            await (await coach.Post($"/students/{student}/readings", odd)).Problem(HttpStatusCode.UnprocessableEntity, "trials")
        );
        Assert.Equal(
            HttpStatusCode.Created,
            (
                await coach.Post(
                    $"/students/{student}/readings",
                    StudioClient.Reading("passive-slr", "left", [60, 88, 89], confirmed: true)
                )
            ).StatusCode
        );
        var pooled = (await Preview([87, 88, 89])).GetProperty("pooled");
        Assert.Equal((2, 6), (pooled.GetProperty("readings").GetInt32(), pooled.GetProperty("trials").GetInt32()));
        Assert.Equal(JsonValueKind.Null, (await Preview([87, 88, 89])).GetProperty("pain").ValueKind);
        Assert.False((await Preview([87, 88, 89], 2)).GetProperty("pain").GetProperty("isEvent").GetBoolean());
        var felt = (await Preview([87, 88, 89], 7)).GetProperty("pain");
        Assert.True(felt.GetProperty("isEvent").GetBoolean());
    }

    [Fact]
    public async Task The_band_says_within_what_a_new_value_is_no_change()
    {
        await coach.Post($"/students/{student}/readings", StudioClient.Reading("front-split-gap", "left", [30, 30, 30]));
        app.Time.Advance(TimeSpan.FromDays(2));
        var id = Guid.NewGuid();
        var side = (await Json(await Start(id, "single", ["front-split-gap"]))).GetProperty("items")[0].GetProperty("sides")[0];
        var mdc = 1.96 * Math.Sqrt(2 * (0.25 + 1.0 / 3));
        Assert.Equal(30 - mdc, side.GetProperty("band").GetProperty("low").GetDouble(), 9);
        Assert.Equal(30 + mdc, side.GetProperty("band").GetProperty("high").GetDouble(), 9);
        Assert.Equal(1, side.GetProperty("recent").GetArrayLength());
    }

    [Fact]
    public async Task A_sitting_of_thirty_readings_costs_as_many_commands_as_one_of_two()
    {
        var (few, many) = (Guid.NewGuid(), Guid.NewGuid());
        await Start(few, "single", ["passive-slr"]);
        await Start(many, "splits");
        for (var i = 0; i < 30; i++)
        {
            app.Time.Advance(TimeSpan.FromDays(1));
            await coach.Post(
                $"/students/{student}/readings",
                StudioClient.Reading("passive-slr", i % 2 == 0 ? "left" : "right", [80, 81, 82], takenAt: app.Time.GetUtcNow())
            );
        }
        var before = app.Commands.Count;
        await coach.Get($"/students/{student}/sittings/{few}");
        var between = app.Commands.Count;
        await coach.Get($"/students/{student}/sittings/{many}");
        Assert.Equal(between - before, app.Commands.Count - between);
    }
}
