using System.Globalization;
using System.Text.Json;
using Tensarch.Server.Tests.Sessions;

namespace Tensarch.Server.Tests;

/// <summary>
/// A new coach's first hour with a new student of each skill, as the screens ask for it: from the intake to a decision. In the browser one skill
/// is walked (<c>first-hour.spec.ts</c>).
/// </summary>
public sealed class FirstHourTests(StudioApp app) : IClassFixture<StudioApp>
{
    private StudioClient coach = null!;
    private Guid student;
    private string Path => $"/students/{student}";

    [Theory]
    [InlineData("front-split")]
    [InlineData("middle-split")]
    [InlineData("deep-squat")]
    [InlineData("crow")]
    [InlineData("side-plank")]
    [InlineData("handstand")]
    [InlineData("shoulderstand")]
    public async Task From_the_intake_to_a_decision(string skill)
    {
        coach = await app.Studio();
        student = await Intake(skill);
        Assert.True(await ReadAll(await Sitting("needs")) > 0);
        await PlaceAsSuggested(skill);

        var first = await Run();
        var done = (await coach.Get($"/sessions/{first}")).GetProperty("done").EnumerateArray().ToList();
        Assert.Contains(done, d => d.GetProperty("skipped").GetBoolean());
        Assert.Contains(done, d => !d.GetProperty("skipped").GetBoolean());
        Assert.Contains(await Facts(), f => f.GetProperty("region").GetString() == "elbow" && f.GetProperty("pain").GetInt32() == 4);

        var second = await coach.Session(student, 30);
        Assert.Equal(
            "Breathe in first.",
            (await coach.Get($"/sessions/{second}")).GetProperty("carryOver").GetProperty("text").GetString()
        );
        await Good(
            "/sessions/" + second + "/log",
            new
            {
                id = Guid.NewGuid(),
                endedAt = (DateTimeOffset?)null,
                parts = Array.Empty<object>(),
                signals = Array.Empty<object>(),
            }
        );
        Assert.NotEqual(JsonValueKind.Null, (await coach.Get($"/sessions/{second}")).GetProperty("endedAt").ValueKind);

        await CorrectASet();
        await VoidAReading();
        await ReadWhatTheGateAsksNext(skill);
        await Stay(skill);
    }

    private async Task<JsonElement> Good(string path, object body)
    {
        var answer = await coach.Post(path, body);
        var text = await answer.Content.ReadAsStringAsync();
        Assert.True(answer.IsSuccessStatusCode, $"{path}: {text}");
        return text.Length == 0 ? default : JsonSerializer.Deserialize<JsonElement>(text);
    }

    private async Task<Guid> Intake(string goal)
    {
        var id = Guid.NewGuid();
        var body = JsonSerializer.SerializeToNode(StudioClient.Body($"New {goal}"), StudioApp.Json)!.AsObject();
        body["goals"] = new System.Text.Json.Nodes.JsonArray(goal);
        await Good(
            "/students",
            new
            {
                id,
                student = body,
                consents = StudioClient.Consents,
            }
        );
        await coach.Answer(id);
        return id;
    }

    private Task<JsonElement> Sitting(string scope, params string[] measures) =>
        Good(
            Path + "/sittings",
            new
            {
                id = Guid.NewGuid(),
                scope,
                measures,
                cold = false,
            }
        );

    /// <summary>Reads everything that a sitting asks for with values that anyone could have, and ends it; what needs a picture is left.</summary>
    private async Task<int> ReadAll(JsonElement sitting)
    {
        var id = sitting.GetProperty("id").GetGuid();
        var measures = (await coach.Get("/catalogue"))
            .GetProperty("measures")
            .EnumerateArray()
            .ToDictionary(m => m.GetProperty("key").GetString()!);
        var read = 0;
        foreach (var item in sitting.GetProperty("items").EnumerateArray().Select(i => i.TryGetProperty("item", out var inner) ? inner : i))
        {
            var measure = measures[item.GetProperty("measure").GetString()!];
            var instrument = measure
                .GetProperty("instruments")
                .EnumerateArray()
                .Select(i => i.GetString())
                .FirstOrDefault(i => i != "picture");
            if (instrument is null)
                continue;
            foreach (var side in measure.GetProperty("perSide").GetBoolean() ? new[] { "left", "right" } : new string?[] { null })
            {
                await Good(Path + "/readings", Reading(measure, item, side, instrument, id));
                read++;
            }
        }
        await Good(Path + $"/sittings/{id}/end", new { });
        return read;
    }

    private static object Reading(JsonElement measure, JsonElement item, string? side, string instrument, Guid sitting)
    {
        var kind = measure.GetProperty("kind").GetString();
        double Number(string name) => measure.GetProperty(name).GetDouble();
        var step = measure.GetProperty("step").ValueKind == JsonValueKind.Number ? Number("step") : Number("resolution");
        var usual = Math.Round((Number("min") + (Number("max") - Number("min")) * 0.4) / step) * step;
        var standards = measure.GetProperty("standards").EnumerateArray().Select(s => s.GetString()).ToList();
        return new
        {
            id = Guid.NewGuid(),
            measure = measure.GetProperty("key").GetString(),
            side,
            warmth = item.GetProperty("warmth").GetString(),
            standard = standards.Contains("square") ? "square" : null,
            instrument,
            trials = kind == "rate" ? [] : Enumerable.Repeat(usual, kind == "hold" ? 2 : 3),
            hits = kind == "rate" ? Enumerable.Repeat(true, 6) : null,
            successes = kind == "rate" ? 6 : (int?)null,
            attempts = kind == "rate" ? 6 : (int?)null,
            compensations = Array.Empty<string>(),
            quality = (int?)null,
            sensation = (int?)null,
            pain = (int?)null,
            note = (string?)null,
            takenAt = (DateTimeOffset?)null,
            level = item.TryGetProperty("level", out var level) ? level.GetString() : null,
            sittingId = sitting,
            confirmed = true,
        };
    }

    private async Task PlaceAsSuggested(string skill)
    {
        var suggested = await coach.Get(Path + $"/skills/{skill}/placement");
        await Good(
            Path + "/skills",
            new
            {
                id = Guid.NewGuid(),
                skill,
                approach = "long-and-ramped",
                courses = suggested
                    .GetProperty("courses")
                    .EnumerateArray()
                    .Select(c => new
                    {
                        decisionId = Guid.NewGuid(),
                        side = c.GetProperty("side").GetString(),
                        stage = c.GetProperty("suggested").GetInt32(),
                    }),
            }
        );
    }

    /// <summary>The session of today from its pack: two parts are done, something hurts, the rest is skipped; and a note for the next one.</summary>
    private async Task<Guid> Run()
    {
        var session = await coach.Session(student, 30);
        var pack = (await coach.Get($"/sessions/{session}/pack")).GetProperty("pack");
        app.Time.Advance(TimeSpan.FromMinutes(20));
        var now = app.Time.GetUtcNow();
        var sets = pack.GetProperty("slots")
            .EnumerateArray()
            .Select(s => s.GetProperty("versions")[0])
            .Take(2)
            .Select(v =>
                FloorEntries.Set(
                    now,
                    v.GetProperty("drill").GetString()!,
                    v.GetProperty("variant").GetString()!,
                    side: v.GetProperty("side").GetString()
                )
            );
        var told = await Good(
            "/facts",
            new
            {
                sentAt = now,
                entries = new[]
                {
                    FloorEntries.EntryOf(session, Guid.NewGuid(), 1, now, [.. sets]),
                    FloorEntries.EntryOf(session, Guid.NewGuid(), 2, now, FloorEntries.Signal(now, "dullPain", "elbow", 4)),
                    FloorEntries.EntryOf(
                        session,
                        Guid.NewGuid(),
                        3,
                        now,
                        new
                        {
                            id = Guid.NewGuid(),
                            kind = "finished",
                            at = now,
                        }
                    ),
                },
            }
        );
        Assert.All(FloorEntries.Told(told), t => Assert.Equal("stored", t.Is));
        await Good(
            Path + "/notes",
            new
            {
                id = Guid.NewGuid(),
                text = "Breathe in first.",
                carryOver = true,
            }
        );
        return session;
    }

    private async Task<List<JsonElement>> Facts() => [.. (await coach.Get(Path + "/facts")).GetProperty("facts").EnumerateArray()];

    private async Task CorrectASet()
    {
        var set = (await Facts()).First(f => f.GetProperty("what").GetString() == "set").GetProperty("id").GetGuid();
        await Good(
            Path + "/corrections",
            new
            {
                id = Guid.NewGuid(),
                what = "set",
                of = set,
                reason = "The watch ran on by mistake.",
                instead = new { seconds = 7 },
            }
        );
        var line = (await Facts()).Single(f => f.GetProperty("id").GetGuid() == set);
        Assert.Equal("The watch ran on by mistake.", line.GetProperty("corrections")[0].GetProperty("reason").GetString());
    }

    /// <summary>Struck out, taken back, and struck out for good.</summary>
    private async Task VoidAReading()
    {
        async Task<JsonElement> Newest() => (await coach.Get(Path + "/readings")).GetProperty("readings")[0];
        var reading = (await Newest()).GetProperty("id").GetGuid();
        for (var round = 0; round < 2; round++)
        {
            await Good(Path + $"/readings/{reading}/void", new { reason = "The leg was held by mistake." });
            Assert.Equal("The leg was held by mistake.", (await Newest()).GetProperty("voidReason").GetString());
            if (round == 1)
                return;
            await Good(
                Path + "/corrections",
                new
                {
                    id = Guid.NewGuid(),
                    what = "reading",
                    of = reading,
                    reason = "Undone at once.",
                    instead = new { },
                }
            );
            Assert.Null((await Newest()).GetProperty("voidReason").GetString());
        }
    }

    private async Task<List<JsonElement>> Gates(string skill) =>
        [.. (await coach.Get(Path + $"/skills/{skill}")).GetProperty("sides").EnumerateArray()];

    private async Task ReadWhatTheGateAsksNext(string skill)
    {
        var gate = (await Gates(skill))[0];
        Assert.NotEmpty(gate.GetProperty("tests").EnumerateArray());
        Assert.NotEmpty(gate.GetProperty("next").GetProperty("code").GetString()!);
        foreach (var test in gate.GetProperty("tests").EnumerateArray().Select(t => t.GetProperty("test")))
            if (test.TryGetProperty("measure", out var measure) && measure.ValueKind == JsonValueKind.String)
            {
                await ReadAll(await Sitting("single", measure.GetString()!));
                return;
            }
    }

    private async Task Stay(string skill)
    {
        var gate = (await Gates(skill))[0];
        var side = gate.GetProperty("side").GetString();
        var stage = gate.GetProperty("stage").GetInt32();
        var decided = await coach.Decide(student, side, "stay", stage, skill: skill);
        Assert.True(decided.IsSuccessStatusCode, await decided.Content.ReadAsStringAsync());
        var line = (await coach.Get(Path + "/decisions")).GetProperty("decisions")[0];
        Assert.Equal(
            ("stay", stage.ToString(CultureInfo.InvariantCulture)),
            (line.GetProperty("kind").GetString(), line.GetProperty("toStage").ToString())
        );
    }
}
