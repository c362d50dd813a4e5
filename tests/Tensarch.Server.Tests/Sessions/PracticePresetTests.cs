using System.Net;
using System.Net.Http.Json;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>The plain timer: worked out by the core, and named by the studio.</summary>
public sealed class PracticePresetTests(StudioApp app) : IClassFixture<StudioApp>
{
    private static object Named(Guid id, string name, object? practice = null) =>
        new
        {
            id,
            name,
            practice = practice ?? new { seconds = 20 },
        };

    private static async Task<List<string>> Names(StudioClient who) =>
        [.. (await who.Get("/practice-presets")).EnumerateArray().Select(p => p.GetProperty("name").GetString()!)];

    [Fact]
    public async Task A_practice_is_worked_out_for_everyone_and_what_cannot_be_is_named_at_its_field()
    {
        var owner = await app.Studio();
        var assistant = await app.Studio(Server.Data.Role.Assistant, owner.StudioId);
        var answer = await assistant.Post(
            "/compute/practice",
            new
            {
                breaths = 3,
                breathSeconds = 4,
                sides = "leftFirst",
                rounds = 2,
                restSeconds = 20,
            }
        );
        var practice = await answer.Content.ReadFromJsonAsync<JsonElement>();
        Assert.Equal(5 + 12 + 5 + 12 + 20 + 12 + 5 + 12, practice.GetProperty("seconds").GetInt32());
        Assert.Equal(9, practice.GetProperty("segments").GetArrayLength());
        Assert.Equal(
            "plateauTooLong",
            await (
                await owner.Post(
                    "/compute/practice",
                    new
                    {
                        seconds = 10,
                        ramp = new
                        {
                            fromPercent = 0,
                            toPercent = 50,
                            plateauSeconds = 10,
                        },
                    }
                )
            ).Problem(HttpStatusCode.UnprocessableEntity, "ramp.plateauSeconds")
        );
        Assert.Equal(
            "outOfRange",
            await (await owner.Post("/compute/practice", new { seconds = 0 })).Problem(HttpStatusCode.UnprocessableEntity, "seconds")
        );
    }

    [Fact]
    public async Task A_preset_is_named_once_renamed_changed_taken_away_and_brought_back()
    {
        var coach = await app.Studio();
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await coach.Post("/practice-presets", Named(id, "Wall"))).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await coach.Post("/practice-presets", Named(id, "Wall"))).StatusCode);
        Assert.Equal("idTaken", await (await coach.Post("/practice-presets", Named(id, "Hang"))).Problem(HttpStatusCode.Conflict));
        Assert.Equal(
            "nameTaken",
            await (await coach.Post("/practice-presets", Named(Guid.NewGuid(), " wall "))).Problem(
                HttpStatusCode.UnprocessableEntity,
                "name"
            )
        );
        Assert.Empty(await Names(await app.Studio()));

        Task<HttpResponseMessage> Change(object change) => coach.Post($"/practice-presets/{id}/changes", change);
        Assert.Equal(HttpStatusCode.OK, (await Change(new { name = "Long wall", practice = new { seconds = 90 } })).StatusCode);
        var line = (await coach.Get("/practice-presets"))[0];
        Assert.Equal(("Long wall", 95), (line.GetProperty("name").GetString(), line.GetProperty("seconds").GetInt32()));
        await Change(new { gone = true });
        Assert.Empty(await Names(coach));
        // Another one has taken the name meanwhile: brought back only under a new one.
        await coach.Post("/practice-presets", Named(Guid.NewGuid(), "Long wall"));
        Assert.Equal("nameTaken", await (await Change(new { gone = false })).Problem(HttpStatusCode.UnprocessableEntity, "name"));
        await Change(new { gone = false, name = "Wall again" });
        Assert.Equal(["Long wall", "Wall again"], await Names(coach));
    }

    [Fact]
    public async Task A_row_that_cannot_be_read_spoils_its_own_line_alone()
    {
        var coach = await app.Studio();
        await coach.Post("/practice-presets", Named(Guid.NewGuid(), "Sound"));
        var broken = Guid.NewGuid();
        await coach.Post("/practice-presets", Named(broken, "Broken"));
        await app.Rows(db =>
            db.Presets.IgnoreQueryFilters()
                .Where(p => p.Id == broken)
                .ExecuteUpdateAsync(set => set.SetProperty(p => p.PracticeJson, """{"rounds":"many"}"""))
        );
        Assert.Equal(["Sound"], await Names(coach));
    }
}
