using System.IO.Compression;
using System.Text.Json;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Sessions;

/// <summary>
/// The packs of every stage, for four bodies and two lengths, made from facts as the server makes them and written as the server writes them: the
/// runner's own test walks each of them.
/// </summary>
public class RealPacks
{
    private static readonly JsonSerializerOptions Json = CoreJson.Apply(new(JsonSerializerDefaults.Web));
    private static readonly DateOnly Today = DateOnly.FromDateTime(Shipped.Now.UtcDateTime);

    /// <summary>Who trains, by what they answered with yes.</summary>
    private static readonly (string Name, string[] Yes)[] Bodies =
    [
        ("none", []),
        ("wrist light only", ["wrist"]),
        ("neck off limits", ["neck"]),
        ("very mobile", ["very-mobile"]),
    ];

    private sealed record Written(string Ladder, int Stage, string Body, int Minutes, IReadOnlyList<string> Barred, SessionPack Pack);

    /// <summary>Two months on the ladder, a way out shown at every gate that asks for one.</summary>
    private static StudentFacts Facts(Ladder ladder, int stage, string[] yes, string approach)
    {
        var start = Shipped.Now.AddDays(-60);
        return StudentFacts.Of(new(Today.AddYears(-30), null, 7, new(LeftLegCm: 86, RightLegCm: 86), "square", 4, [])) with
        {
            Answers = [.. Shipped.Content.Questions.Select((q, i) => new IntakeAnswer(q.Key, yes.Contains(q.Key), start, i))],
            Screenings = [new(ScreeningKind.Whole, Today.AddDays(-60), start, null)],
            Enrolments = [new(Guid.NewGuid(), ladder, approach, start)],
            Decisions = [.. ladder.Courses.Select(side => new SkillDecision(ladder.Skill, new(side, 0, stage, start)))],
            Readings =
            [
                Shipped.Read("front-split-gap", Side.Left, 5, [18, 18.5, 18]),
                Shipped.Read("front-split-gap", Side.Right, 5, [9, 9.5, 9]),
            ],
            Sessions =
            [
                .. Enumerable
                    .Range(0, 12)
                    .Select(i => new TrainedSession(
                        Guid.NewGuid(),
                        [ladder.Skill],
                        Shipped.Now.AddDays(-3 - 4 * i),
                        Today.AddDays(-3 - 4 * i),
                        i % 2 == 0 ? Side.Left : Side.Right,
                        []
                    )),
            ],
            Exits =
            [
                .. from s in ladder.Stages
                from exit in s.Tests.OfType<ExitCriterion>()
                from side in exit.Limb.ReadFor(null)
                select new ExitCheck(Guid.NewGuid(), start, exit.Drill, exit.Variant, side, exit.Times, exit.Times),
            ],
        };
    }

    /// <summary>The approaches take turns over stages and lengths: each of them is walked on every ladder.</summary>
    private static string ApproachOf(int stage, int minutes) =>
        Shipped.Content.Approaches[(stage + minutes / 30) % Shipped.Content.Approaches.Count].Key;

    private static IEnumerable<Written> All()
    {
        var builder = new SessionBuilder(Shipped.Content);
        var maker = new PackMaker(Shipped.Content);
        foreach (var ladder in Shipped.Content.Skills)
        foreach (var stage in ladder.Stages)
        foreach (var (body, yes) in Bodies)
        foreach (var minutes in new[] { 30, 60 })
        {
            var state = StudentState.From(
                Facts(ladder, stage.Number, yes, ApproachOf(stage.Number, minutes)),
                new(Shipped.Now, TimeZoneInfo.Utc),
                Shipped.Content
            );
            var request = Trainees.Of(state, [state.Courses[0]], Today, minutes, Shipped.Content);
            var pack = maker.Make(builder.Build(request).Value, request);
            Assert.True(
                pack.IsOk,
                $"{ladder.Key} {stage.Number} {body} {minutes}: {string.Join(", ", pack.Problems.Select(p => p.Field))}"
            );
            yield return new(ladder.Key, stage.Number, body, minutes, PackLoads.Ended(state.Today), pack.Value);
        }
    }

    [Fact]
    public void Every_stage_gives_a_pack_that_loads_nothing_that_is_barred()
    {
        var all = All().ToList();
        Assert.Equal(48 * 4 * 2, all.Count);
        foreach (var written in all)
        {
            var instead = written.Pack.Gates.SelectMany(g => g.Instead).SelectMany(i => i.Slots);
            foreach (var version in written.Pack.Slots.Concat(instead).SelectMany(s => s.Versions))
                Assert.Empty(version.Loads.Intersect(written.Barred));
            var order = written.Pack.Slots.Select(s => s.Id).ToList();
            foreach (var gate in written.Pack.Gates)
            {
                Assert.NotEmpty(gate.Needs);
                foreach (var need in gate.Needs)
                foreach (var test in gate.Tests)
                    Assert.True(
                        order.IndexOf(test) < order.IndexOf(need.Slot),
                        $"{written.Ladder} {written.Stage}: {gate.Gate} is asked too late"
                    );
                // Whatever fails, something is named to do instead, or a caution leaves nothing free.
                if (written.Barred.Count == 0)
                    Assert.All(
                        gate.Checks.Where(c => c.Otherwise == DayGateResult.NotToday),
                        c => Assert.Contains(gate.Instead, i => i.Failed == c.Key)
                    );
            }
        }
        var folder = Path.Combine(Root(), "artifacts", "packs");
        Directory.CreateDirectory(folder);
        using var file = File.Create(Path.Combine(folder, "real-packs.json.gz"));
        using var zipped = new GZipStream(file, CompressionLevel.Fastest);
        JsonSerializer.Serialize(zipped, all, Json);
    }

    /// <summary>The folder of the repository: where the front end's tests look.</summary>
    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder.FullName, "Tensarch.slnx")))
            folder = folder.Parent ?? throw new DirectoryNotFoundException("The repository's root.");
        return folder.FullName;
    }
}
