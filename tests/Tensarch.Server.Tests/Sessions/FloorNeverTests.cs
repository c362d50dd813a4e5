using System.Net.Http.Json;
using System.Text.Json;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;
using static Tensarch.Server.Tests.Sessions.FloorEntries;

namespace Tensarch.Server.Tests.Sessions;

/// <summary>
/// Generated histories of a body that speaks, is cautioned, cleared and corrected, told through the last endpoint of the chain: nothing that is
/// barred is taken as done now, and nothing that was done under a bar counts.
/// </summary>
public sealed class FloorNeverTests(StudioApp app) : IClassFixture<StudioApp>
{
    private static readonly string[] Regions = ["hamstring", "hip-front", "wrist", "neck", "low-back", "adductor"];
    private static readonly string[] Signals = ["sharpPain", "pinch", "dullPain", "numbness", "headPressure", "pop"];

    private static CatalogueContent Content => ContentLoader.Load();

    private DateTimeOffset Now => app.Time.GetUtcNow();

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    [InlineData(5)]
    [InlineData(6)]
    public async Task Nothing_barred_is_taken_as_done_now_in_any_history(int seed)
    {
        var random = new Random(seed);
        var coach = await app.Studio();
        var student = await coach.Student();
        await coach.Place(student, 3, 3);
        var session = await coach.Session(student);
        app.Time.Advance(TimeSpan.FromMinutes(30));
        var drills = Content.DrillList.SelectMany(d => d.Variants.Select(v => (Drill: d, Variant: v))).ToList();
        var (seq, refused, under) = (0, 0, new HashSet<Guid>());
        for (var step = 0; step < 50; step++)
        {
            app.Time.Advance(TimeSpan.FromMinutes(random.Next(1, 30)));
            switch (random.Next(8))
            {
                case 0:
                    await Tell(Signal(Now, Pick(Signals), Pick(Regions), random.Next(1, 9)));
                    break;
                case 1:
                    await coach.Answer(student, Pick(["hip-replacement", "eyes", "very-mobile", "wrist"]));
                    break;
                case 2:
                    await coach.Post(
                        $"/students/{student}/clearances",
                        new
                        {
                            id = Guid.NewGuid(),
                            role = "physiotherapist",
                            tags = new[] { Pick(Regions) },
                            from = Today(),
                            until = Today().AddDays(random.Next(1, 40)),
                        }
                    );
                    break;
                case 3:
                    app.Time.Advance(TimeSpan.FromDays(random.Next(1, 12)));
                    break;
                default:
                    await Train();
                    break;
            }
        }
        Assert.True(refused + under.Count > 0, "No history of this seed met a bar.");
        // What was done under a bar is marked, whatever was said afterwards.
        var marked = new List<Guid>();
        for (string? before = null; ; )
        {
            var page = await coach.Get($"/students/{student}/facts{(before is null ? "" : $"?before={Uri.EscapeDataString(before)}")}");
            marked.AddRange(
                page.GetProperty("facts")
                    .EnumerateArray()
                    .Where(f => f.GetProperty("underBar").GetBoolean())
                    .Select(f => f.GetProperty("id").GetGuid())
            );
            if ((before = page.GetProperty("before").GetString()) is null)
                break;
        }
        Assert.Equal(under.Order(), marked.Order());

        // A ramp is as hard as the plan has it; of one that is not planned, as hard as it usually is.
        async Task<int> RampOf(Drill drill, Variant variant)
        {
            var planned =
                from d in (await coach.Get($"/sessions/{session}")).GetProperty("plan").GetProperty("drills").EnumerateArray()
                where d.GetProperty("drill").GetString() == drill.Key
                from side in d.GetProperty("sides").EnumerateArray()
                where side.GetProperty("variant").GetString() == variant.Key && side.GetProperty("side").GetString() is null or "left"
                select side.GetProperty("dose").TryGetProperty("toPercent", out var percent) ? percent.GetInt32() : 0;
            return planned.Append(drill.DoseOf(variant) is RampedDose usual ? usual.ToPercent : 0).First();
        }

        T Pick<T>(IReadOnlyList<T> all) => all[random.Next(all.Count)];
        DateOnly Today() => DateOnly.FromDateTime(Now.UtcDateTime);

        async Task<(string Is, string? Code)> Tell(params object[] facts)
        {
            var entry = EntryOf(session, Guid.NewGuid(), ++seq, Now, facts);
            var answer = await coach.Post("/facts", new { sentAt = Now, entries = new[] { entry } });
            return Assert.Single(Told(await answer.Content.ReadFromJsonAsync<JsonElement>()));
        }

        async Task Train()
        {
            var (drill, variant) = Pick(drills);
            var late = random.Next(3) == 0;
            // Nothing was said between the doing and the telling.
            app.Time.Advance(TimeSpan.FromMinutes(13));
            var at = late ? Now.AddMinutes(-12) : Now;
            var allowed = Allowed(await coach.Get($"/students/{student}"), drill, variant, await RampOf(drill, variant));
            var id = Guid.NewGuid();
            var (is_, code) = await Tell(Set(at, drill.Key, variant.Key, Seconds, true, id));
            if (allowed)
                Assert.Equal(("stored", null), (is_, code));
            else if (!late)
            {
                Assert.Equal(("refused", "offLimits"), (is_, code));
                refused++;
            }
            else
            {
                Assert.Equal(("stored", null), (is_, code));
                under.Add(id);
            }
        }
    }

    /// <summary>So long is what is held: no hold of it is heavy for its length.</summary>
    private const int Seconds = 30;

    /// <summary>By what the student's page says to the coach.</summary>
    private static bool Allowed(JsonElement page, Drill drill, Variant variant, int ramp)
    {
        var levels = page.GetProperty("bars")
            .GetProperty("tags")
            .EnumerateArray()
            .ToDictionary(t => t.GetProperty("tag").GetString()!, t => t.GetProperty("level").GetString());
        return drill
            .LoadsOf(variant, Seconds, ramp)
            .All(load =>
                levels.GetValueOrDefault(JsonNamingPolicy.KebabCaseLower.ConvertName(load.Key.ToString())) switch
                {
                    "offLimits" => load.Value == LoadLevel.None,
                    "lightOnly" => load.Value != LoadLevel.Heavy,
                    _ => true,
                }
            );
    }
}
