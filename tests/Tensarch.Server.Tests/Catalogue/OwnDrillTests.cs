using System.Net;
using System.Net.Http.Headers;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Tests.Fuzz;

namespace Tensarch.Server.Tests.Catalogue;

/// <summary>A studio's own drills, and the clips that show them.</summary>
public sealed class OwnDrillTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;

    public async ValueTask InitializeAsync() => coach = await app.Studio();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static object Own(string name = "Split on two chairs", object[]? variants = null, object[]? loads = null) =>
        new
        {
            name,
            cues = new[] { "Grow tall" },
            checks = Array.Empty<string>(),
            stopSigns = Array.Empty<string>(),
            props = new[] { "chair" },
            variants = variants ?? [],
            loads = loads ?? [],
        };

    private Task<HttpResponseMessage> Write(
        object own,
        string? drill = null,
        int basedOn = 0,
        bool gone = false,
        string source = "split-support"
    ) =>
        coach.Post(
            "/drills",
            new
            {
                id = Guid.NewGuid(),
                drill,
                source,
                basedOn,
                own,
                gone,
            }
        );

    private static async Task<JsonElement> Page(StudioClient of, string key) =>
        (await of.Get("/drills")).EnumerateArray().FirstOrDefault(d => d.GetProperty("key").GetString() == key);

    private static async Task<(string Code, string Field)> Problem(HttpResponseMessage answer)
    {
        var problem = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("errors")[0];
        return (problem.GetProperty("code").GetString()!, problem.GetProperty("field").GetString()!);
    }

    [Fact]
    public async Task It_is_offered_put_into_a_session_run_and_counts_for_the_stage()
    {
        var key = await coach.OwnDrill(
            Own(
                variants:
                [
                    new
                    {
                        key = "padded-knee",
                        name = "On two mats",
                        dose = new { rounds = 1 },
                    },
                ]
            ),
            "low-lunge"
        );
        var student = await coach.Student();
        await coach.Place(student, 1, 1);
        var session = await coach.Session(student);
        var of = (await coach.Get($"/sessions/{session}")).GetProperty("version").GetString();
        object[] changes =
        [
            new
            {
                kind = "swap",
                id = "low-lunge",
                drill = key,
            },
        ];
        var view = await coach.Post($"/sessions/{session}/edits/try", new { of, changes });
        Assert.DoesNotContain(
            (await view.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("verdicts").EnumerateArray(),
            v => v.GetProperty("refused").GetBoolean()
        );
        await coach.Post(
            $"/sessions/{session}/edits",
            new
            {
                id = Guid.NewGuid(),
                of,
                changes,
            }
        );
        var pack = (await coach.Get($"/sessions/{session}/pack")).GetProperty("pack").GetRawText();
        Assert.Contains("Split on two chairs", pack);
        app.Time.Advance(TimeSpan.FromMinutes(60));
        var logged = await coach.Post(
            $"/sessions/{session}/log",
            new
            {
                id = Guid.NewGuid(),
                endedAt = (string?)null,
                parts = Array.Empty<object>(),
                signals = Array.Empty<object>(),
            }
        );
        Assert.Equal(HttpStatusCode.OK, logged.StatusCode);
        Assert.Equal(1, (await coach.Test(student, "left", "exposure")).GetProperty("count").GetInt32());

        // Taken out of the library it is not offered any more, and what was done stays readable.
        Assert.Equal(HttpStatusCode.Created, (await Write(Own(), key, 1, gone: true, source: "low-lunge")).StatusCode);
        Assert.Contains(key, (await coach.Get($"/sessions/{session}")).GetProperty("done").GetRawText());
        Assert.True((await Page(coach, key)).GetProperty("gone").GetBoolean());
    }

    [Fact]
    public async Task Another_studio_neither_sees_it_nor_its_clip()
    {
        var key = await coach.OwnDrill(Own());
        var clip = Guid.NewGuid();
        await coach.Http.PostAsync($"/api/v1/drills/{key}/clips?id={clip}&variant=high-only", new ByteArrayContent(Bodies.Webm()));
        var stranger = await app.Studio();
        Assert.Equal(JsonValueKind.Undefined, (await Page(stranger, key)).ValueKind);
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.Http.GetAsync($"/api/v1/drills/{key}/clips/{clip}")).StatusCode);
    }

    [Fact]
    public async Task What_it_loads_is_made_stricter_and_never_lighter()
    {
        var lighter = await Write(Own(loads: [new { tag = "hamstring", level = "light" }]));
        Assert.Equal(("loadBelow", "own.loads.Hamstring"), await Problem(lighter));
        var key = await coach.OwnDrill(Own(loads: [new { tag = "knee-twist", level = "light" }]));
        var loads = (await Page(coach, key)).GetProperty("variants")[0].GetProperty("loads").GetRawText();
        Assert.Contains("knee-twist", loads);
        Assert.Contains("hamstring", loads);
    }

    [Theory]
    [InlineData("seconds", 100, "doseOutOfRange")]
    [InlineData("rounds", 11, "doseOutOfRange")]
    public async Task A_dose_stays_within_the_safe_range(string field, int value, string code)
    {
        var dose = new Dictionary<string, int> { [field] = value };
        var answer = await Write(
            Own(
                variants:
                [
                    new
                    {
                        key = "high-only",
                        name = "Chairs",
                        dose,
                    },
                ]
            )
        );
        Assert.Equal((code, $"own.variants[0].dose.{field}"), await Problem(answer));
    }

    [Fact]
    public async Task Two_coaches_do_not_overwrite_each_other()
    {
        var key = await coach.OwnDrill(Own());
        Assert.Equal(HttpStatusCode.Created, (await Write(Own("Second"), key, 1)).StatusCode);
        Assert.Equal(HttpStatusCode.PreconditionFailed, (await Write(Own("Late"), key, 1)).StatusCode);
        Assert.Equal("Second", (await Page(coach, key)).GetProperty("name").GetString());
    }

    [Fact]
    public async Task A_clip_is_judged_by_its_content_and_played_in_ranges()
    {
        var key = await coach.OwnDrill(Own());
        Task<HttpResponseMessage> Send(Guid id, byte[] bytes, string variant = "high-only") =>
            coach.Http.PostAsync($"/api/v1/drills/{key}/clips?id={id}&variant={variant}", new ByteArrayContent(bytes));
        Assert.Equal(("notAClip", "clip"), await Problem(await Send(Guid.NewGuid(), [.. "<svg onload=alert(1)>"u8])));
        Assert.Equal(("unknownVariant", "variant"), await Problem(await Send(Guid.NewGuid(), Bodies.Webm(), "no-such")));
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await Send(id, Bodies.Webm())).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Send(id, Bodies.Webm())).StatusCode);
        using var ask = new HttpRequestMessage(HttpMethod.Get, $"/api/v1/drills/{key}/clips/{id}");
        ask.Headers.Range = new RangeHeaderValue(4, 7);
        var part = await coach.Http.SendAsync(ask);
        Assert.Equal((HttpStatusCode.PartialContent, "video/webm"), (part.StatusCode, part.Content.Headers.ContentType!.MediaType));
        Assert.Equal(Bodies.Webm()[4..8], await part.Content.ReadAsByteArrayAsync());
        Assert.Equal(1, (await Page(coach, key)).GetProperty("clips").GetArrayLength());
        await coach.Post($"/drills/{key}/clips/{id}/changes", new { gone = true });
        Assert.Equal(HttpStatusCode.NotFound, (await coach.Http.GetAsync($"/api/v1/drills/{key}/clips/{id}")).StatusCode);
        await coach.Post($"/drills/{key}/clips/{id}/changes", new { gone = false });
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.GetAsync($"/api/v1/drills/{key}/clips/{id}")).StatusCode);
        var picture = await Send(Guid.NewGuid(), Server.Demo.SamplePicture.Handstand(5, 5, 1).Draw());
        Assert.Equal("webp", (await picture.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("kind").GetString());
    }

    [Fact]
    public async Task A_row_that_cannot_be_read_spoils_no_page()
    {
        var key = await coach.OwnDrill(Own());
        await app.Rows(db =>
            db.OwnDrills.IgnoreQueryFilters().Where(d => d.DrillKey == key).ExecuteUpdateAsync(d => d.SetProperty(r => r.Json, "{}"))
        );
        await coach.OwnDrill(Own("Another"));
        Assert.Equal(JsonValueKind.Undefined, (await Page(coach, key)).ValueKind);
        Assert.NotEmpty((await coach.Get("/catalogue")).GetProperty("drills").EnumerateArray());
    }
}
