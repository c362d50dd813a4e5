using System.Net;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Server.Data;
using Tensarch.Server.Demo;

namespace Tensarch.Server.Tests.OldData;

/// <summary>Databases that earlier programs wrote, opened with this one: see <c>tests/fixtures</c>.</summary>
public class OldDataTests
{
    private static readonly FrozenStudio Old = new("2026-11-25", new(2026, 11, 25, 21, 45, 0, TimeSpan.Zero));

    private static Task<StudioClient> SignIn(StudioApp app) => FrozenStudio.SignIn(app, DemoStudio.Accounts[0]);

    [Fact]
    public async Task A_studio_of_before_is_copied_and_migrated_and_every_page_answers()
    {
        await using var app = Old.Open();
        var coach = await SignIn(app);
        Assert.Single(Directory.GetFiles(app.DataFolder, "tensarch.before-*.db"));
        Assert.Equal(
            (11, 418, 16636, 691, 34, 1),
            await app.Rows(async db =>
                (
                    await db.Students.IgnoreQueryFilters().CountAsync(),
                    await db.Sessions.IgnoreQueryFilters().CountAsync(),
                    await db.Sets.IgnoreQueryFilters().CountAsync(),
                    await db.Readings.IgnoreQueryFilters().CountAsync(),
                    await db.Decisions.IgnoreQueryFilters().CountAsync(),
                    await db.OwnLadders.IgnoreQueryFilters().CountAsync()
                )
            )
        );
        foreach (var page in await Pages.Of(app, coach))
            Assert.True((await coach.Http.GetAsync("/api/v1" + page)).StatusCode == HttpStatusCode.OK, page);
    }

    [Fact]
    public async Task What_was_held_is_held_no_less()
    {
        await using var app = Old.Open();
        var coach = await SignIn(app);
        var before = JsonDocument.Parse(await File.ReadAllTextAsync(Old.File("bars.json"))).RootElement.GetProperty("bars");
        var ids = (await coach.Get("/students"))
            .GetProperty("students")
            .EnumerateArray()
            .ToDictionary(s => s.GetProperty("name").GetString()!, s => s.GetProperty("id").GetString());
        foreach (var student in before.EnumerateObject())
        {
            var now = (await coach.Get($"/students/{ids[student.Name]}"))
                .GetProperty("bars")
                .GetProperty("tags")
                .EnumerateArray()
                .ToDictionary(t => t.GetProperty("tag").GetString()!, t => t.GetProperty("level").GetString());
            foreach (var tag in student.Value.EnumerateObject())
                Assert.True(
                    now.GetValueOrDefault(tag.Name) is "offLimits"
                        || now.GetValueOrDefault(tag.Name) == (tag.Value.GetString() == "held" ? "offLimits" : "lightOnly"),
                    $"{student.Name}: {tag.Name} was {tag.Value}"
                );
        }
    }

    [Fact]
    public async Task Pain_that_lay_in_a_reading_that_was_voided_holds_again()
    {
        await using var app = Old.Open();
        var coach = await SignIn(app);
        var kofi = (await coach.Get("/students?find=Kofi")).GetProperty("students")[0].GetProperty("id").GetString();
        var page = await coach.Get($"/students/{kofi}");
        var tags = page.GetProperty("bars").GetProperty("tags").EnumerateArray();
        Assert.Contains(tags, t => (t.GetProperty("tag").GetString(), t.GetProperty("level").GetString()) == ("ankle", "offLimits"));
        // It is listed until a coach has looked at it; that it stands is enough.
        var pains = page.GetProperty("voidedPains").EnumerateArray().ToList();
        Assert.Contains(pains, p => p.GetProperty("region").GetString() == "ankle");
        foreach (var pain in pains)
            await coach.Post(
                $"/students/{kofi}/corrections",
                new
                {
                    id = Guid.NewGuid(),
                    what = "signal",
                    of = pain.GetProperty("signal").GetGuid(),
                    reason = "It did hurt; the number was wrong.",
                    instead = new { },
                }
            );
        page = await coach.Get($"/students/{kofi}");
        Assert.Equal(0, page.GetProperty("voidedPains").GetArrayLength());
        Assert.Contains(page.GetProperty("bars").GetProperty("tags").EnumerateArray(), t => t.GetProperty("tag").GetString() == "ankle");
    }

    [Fact]
    public async Task Ten_stored_plans_are_read_as_they_were_written()
    {
        await using var app = Old.Open();
        var coach = await SignIn(app);
        var plans = Directory.GetFiles(Old.File("plans"));
        Assert.Equal(10, plans.Length);
        // Drills have been renamed since: they are shown as they are called now.
        var content = ContentLoader.Load();
        foreach (var path in plans)
        {
            var stored = JsonDocument.Parse(await File.ReadAllTextAsync(path)).RootElement;
            var sheet = await coach.Get($"/sessions/{stored.GetProperty("id").GetString()}");
            Assert.Equal(stored.GetProperty("totalSeconds").GetInt32(), sheet.GetProperty("totalSeconds").GetInt32());
            Assert.Equal(stored.GetProperty("run").GetBoolean(), sheet.GetProperty("endedAt").ValueKind != JsonValueKind.Null);
            var drills = stored.GetProperty("plan").GetProperty("drills").EnumerateArray().Select(d => d.GetProperty("drill").GetString()!);
            Assert.Equal(
                drills.Select(d => content.Drill(d).Key),
                sheet.GetProperty("plan").GetProperty("drills").EnumerateArray().Select(d => d.GetProperty("drill").GetString())
            );
            Assert.NotNull(StoredJson.TryRead<SessionPlan>(stored.GetProperty("plan").GetRawText()));
        }
    }

    [Fact]
    public async Task A_poisoned_studio_answers_everywhere_and_says_what_it_leaves_out()
    {
        await using var app = Old.Open("poisoned");
        var coach = await FrozenStudio.SignIn(app, new("Ines", Role.Owner, "ines@harbour.example", "a-long-password"));
        foreach (var page in await Pages.Of(app, coach))
            Assert.True((await coach.Http.GetAsync("/api/v1" + page)).StatusCode == HttpStatusCode.OK, page);

        var ids = (await coach.Get("/students"))
            .GetProperty("students")
            .EnumerateArray()
            .ToDictionary(s => s.GetProperty("name").GetString()!, s => s);
        Assert.Equal(["Ada Quill", "Bo Tarn", "Cleo Marsh", "Dag Holm"], ids.Keys.Order());
        Assert.All(ids.Values, s => Assert.Equal(1, s.GetProperty("skills").GetArrayLength()));
        Assert.Equal(1, ids["Cleo Marsh"].GetProperty("leftOut").GetInt32());

        // The absurd error: that one line says so, and it can be voided.
        var cleo = ids["Cleo Marsh"].GetProperty("id").GetString();
        var unreadable = (await coach.Get($"/students/{cleo}/readings"))
            .GetProperty("readings")
            .EnumerateArray()
            .Single(r => r.GetProperty("unreadable").GetBoolean());
        Assert.Equal("knee-to-wall", unreadable.GetProperty("measure").GetString());
        var voided = await coach.Post(
            $"/students/{cleo}/readings/{unreadable.GetProperty("id").GetString()}/void",
            new { reason = "nonsense" }
        );
        Assert.Equal(HttpStatusCode.Created, voided.StatusCode);
        Assert.Equal(0, (await coach.Get($"/students/{cleo}")).GetProperty("leftOut").GetInt32());
        var measure = (await coach.Get("/measures/knee-to-wall")).GetProperty("version");
        Assert.True(measure.GetProperty("unreadable").GetBoolean());
        Assert.Equal(JsonValueKind.Null, measure.GetProperty("own").ValueKind);

        // Counts beside trials are gone; the trials count.
        var bo = (await coach.Get($"/students/{ids["Bo Tarn"].GetProperty("id").GetString()}/readings")).GetProperty("readings");
        Assert.All(bo.EnumerateArray(), r => Assert.Equal(JsonValueKind.Null, r.GetProperty("attempts").ValueKind));
        Assert.Contains(bo.EnumerateArray(), r => r.GetProperty("measure").GetString() == "hip-extension");

        // Ladders that no path could name have keys by now, and whoever follows one still does.
        var own = (await coach.Get("/ladders")).EnumerateArray().Where(l => !l.GetProperty("shipped").GetBoolean()).ToList();
        Assert.Equal(3, own.Count);
        foreach (var ladder in own)
            await coach.Get($"/ladders/{ladder.GetProperty("key").GetString()}/versions/1");
        Assert.Equal(1, own.Sum(l => l.GetProperty("following").GetInt32()));
    }
}
