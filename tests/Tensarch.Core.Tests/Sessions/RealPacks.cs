using System.IO.Compression;
using System.Text.Json;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Sessions;

/// <summary>
/// The packs of every stage, for five bodies and two lengths, of each pair of skills, changed by a coach's hand, and with a studio's own drill in
/// them; made from facts as the server makes them and written as the server writes them: the runner's own test walks each of them.
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
        ("wrist hurts now", ["wrist-now"]),
    ];

    private sealed record Written(string Ladder, int Stage, string Body, int Minutes, IReadOnlyList<string> Barred, SessionPack Pack);

    /// <summary>Two months on the ladder, a way out shown at every gate that asks for one.</summary>
    private static StudentFacts Facts(Ladder ladder, int stage, string[] yes, string approach)
    {
        var start = Shipped.Now.AddDays(-60);
        return StudentFacts.Of(new(Today.AddYears(-30), false, 7, new(LeftLegCm: 86, RightLegCm: 86), "square", 4, [])) with
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

    private static Trainee Who(IReadOnlyList<Ladder> ladders, Ladder first, int stage, string[] yes, int minutes)
    {
        var facts = ladders
            .Select(l => Facts(l, l == first ? stage : 1 + (stage + 2) % l.Stages.Count, yes, ApproachOf(stage, minutes)))
            .ToList();
        var all = facts[0] with
        {
            Enrolments = [.. facts.SelectMany(f => f.Enrolments)],
            Decisions = [.. facts.SelectMany(f => f.Decisions)],
            Sessions = [.. facts.SelectMany(f => f.Sessions)],
            Exits = [.. facts.SelectMany(f => f.Exits)],
        };
        var state = StudentState.From(all, new(Shipped.Now, TimeZoneInfo.Utc), Shipped.Content);
        return Trainees.Of(state, state.Courses, Today, minutes, Shipped.Content);
    }

    private static Written Write(string kind, Trainee who, int stage, string body, SessionPlan plan, CatalogueContent? content = null)
    {
        var pack = new PackMaker(content ?? Shipped.Content).Make(plan, who);
        var name = $"{string.Join(" + ", who.Courses.Select(c => c.Skill))}{kind}";
        Assert.True(pack.IsOk, $"{name} {stage} {body} {who.Minutes}: {string.Join(", ", pack.Problems.Select(p => p.Field))}");
        return new(name, stage, body, plan.Minutes, PackLoads.Ended(who.Bars), pack.Value);
    }

    private static IEnumerable<Written> OfOneSkill() =>
        from ladder in Shipped.Content.Skills
        from stage in ladder.Stages
        from body in Bodies
        from minutes in new[] { 30, 60 }
        let who = Who([ladder], ladder, stage.Number, body.Yes, minutes)
        select Write("", who, stage.Number, body.Name, Builder.Build(who).Value);

    private static IEnumerable<Written> OfTwoSkills() =>
        from a in Shipped.Content.Skills.Index()
        from b in Shipped.Content.Skills.Index()
        where a.Index != b.Index
        let body = Bodies[(a.Index + b.Index) % Bodies.Length]
        let stage = 1 + (3 * a.Index + b.Index) % a.Item.Stages.Count
        let who = Who([a.Item, b.Item], a.Item, stage, body.Yes, 75)
        select Write("", who, stage, body.Name, Builder.Build(who).Value);

    /// <summary>What a coach does with a session, one thing after another; what the checker refuses is left out.</summary>
    private static IEnumerable<Written> Changed() =>
        from ladder in Shipped.Content.Skills
        from stage in ladder.Stages
        let body = Bodies[stage.Number % Bodies.Length]
        let who = Who([ladder], ladder, stage.Number, body.Yes, 60)
        let plan = Changed(Builder.Build(who).Value, who, new(Shipped.Content))
        where plan.Bent is not null
        select Write(", changed", who with { Minutes = plan.Minutes }, stage.Number, body.Name, plan);

    private static SessionPlan Changed(SessionPlan plan, Trainee who, PlanEditor editor)
    {
        PlannedDrill Main(int which)
        {
            var main = plan
                .Drills.Where(d => SessionOrder.IsMain(Shipped.Content.Drill(d.Drill).Phase) && d.Reason.Code != "dayGate")
                .ToList();
            return main[which % main.Count];
        }
        Func<PlanChange>[] hands =
        [
            () => new(PlanChangeKind.Shorten, To: 40),
            () => new(PlanChangeKind.Dose, Main(1).Id, Dose: new(Rounds: 2)),
            () => new(PlanChangeKind.Swap, Main(2).Id, editor.Options(plan, who, Main(2).Id).First(o => o.Why is null).Drill),
            () => new(PlanChangeKind.Variant, Main(0).Id, Variant: Shipped.Content.Drill(Main(0).Drill).Variants[0].Key),
            () => new(PlanChangeKind.Add, Drill: editor.Options(plan, who, null).First(o => o.Why is null).Drill),
            () => new(PlanChangeKind.Remove, Main(3).Id),
            () => new(PlanChangeKind.TurnSides, Main(0).Id),
        ];
        foreach (var hand in hands)
        {
            var changed = editor.Apply(plan, [hand()], who);
            if (changed.IsOk && editor.Judge(changed.Value, who with { Minutes = changed.Value.Minutes }).All(v => !v.Refused))
                (plan, who) = (changed.Value, who with { Minutes = changed.Value.Minutes });
        }
        return plan;
    }

    /// <summary>A studio's own copy of a drill in the place of the shipped one.</summary>
    private static IEnumerable<Written> WithOwn() =>
        from ladder in Shipped.Content.Skills
        from stage in ladder.Stages
        let body = Bodies[(stage.Number + 2) % Bodies.Length]
        let who = Who([ladder], ladder, stage.Number, body.Yes, 60)
        from written in WithOwn(who, stage.Number, body.Name)
        select written;

    private static IEnumerable<Written> WithOwn(Trainee who, int stage, string body)
    {
        var made = Builder.Build(who).Value;
        foreach (
            var planned in made.Drills.Where(d => SessionOrder.IsMain(Shipped.Content.Drill(d.Drill).Phase) && d.Reason.Code != "dayGate")
        )
        {
            var source = Shipped.Content.Drill(planned.Drill);
            var own = new OwnDrill("Ours", ["Say it our way"], [], [], [], [], source.Loads).Of(source, "own-copy", false);
            var content = Shipped.Content.With([own]);
            var editor = new PlanEditor(content);
            var put = editor.Apply(made, [new(PlanChangeKind.Swap, planned.Id, own.Key)], who);
            if (!put.IsOk || editor.Judge(put.Value, who).Any(v => v.Refused))
                continue;
            yield return Write(", own", who, stage, body, put.Value, content);
            yield break;
        }
    }

    /// <summary>Days as weeks are made of them: lightly, less, least, a part of it and as a test; of two skills with one of them light.</summary>
    private static IEnumerable<Written> Planned()
    {
        var assembler = new Assembler(Shipped.Content);
        return from a in Shipped.Content.Skills.Index()
            from body in Bodies.Index()
            let stage = 1 + (a.Index + body.Index) % a.Item.Stages.Count
            let b = Shipped.Content.Skills[(a.Index + 1 + body.Index) % Shipped.Content.Skills.Count]
            let who = Who(a.Item == b ? [a.Item] : [a.Item, b], a.Item, stage, body.Item.Yes, 75)
            let whole = assembler.Of(who, new([new(a.Item.Skill, BlockAim.Train)], DayOrder.Whole))
            from ask in (DayAsk[])
                [
                    new([new(a.Item.Skill, BlockAim.Light)], DayOrder.Least),
                    new([new(a.Item.Skill, BlockAim.Train)], DayOrder.Less),
                    new([new(a.Item.Skill, BlockAim.Train)], DayOrder.Least),
                    new([new(a.Item.Skill, BlockAim.Train)], DayOrder.Portion),
                    new([new(a.Item.Skill, BlockAim.Test)], DayOrder.Whole),
                    new([new(a.Item.Skill, BlockAim.Train), new(b.Skill, BlockAim.Light)], DayOrder.Whole),
                ]
            let most = whole?.Load is { } load && ask.Level < DayOrder.Whole
                ? DayMenu.AsMuchAs(load).ToDictionary(l => l.Key, l => l.Value * ask.Level / 100)
                : null
            let day = a.Item == b && ask.Blocks.Count > 1 ? null : assembler.Of(who, ask, most)
            where day is not null
            select Write($", planned {ask.Level}", who, stage, body.Item.Name, day.Plan);
    }

    /// <summary>Days of weeks whose student was barred from something since: made again of what was asked of them.</summary>
    private static IEnumerable<Written> MadeAgain()
    {
        var assembler = new Assembler(Shipped.Content);
        return from ladder in Shipped.Content.Skills
            from stage in ladder.Stages
            from body in Bodies.Skip(1)
            let before = Who([ladder], ladder, stage.Number, [], 60)
            let ask = new DayAsk(
                [new(ladder.Skill, stage.Number % 3 == 0 ? BlockAim.Test : BlockAim.Train)],
                stage.Number % 2 == 0 ? DayOrder.Whole : DayOrder.Least
            )
            let day = assembler.Of(before, ask)
            where day is not null
            let after = Who([ladder], ladder, stage.Number, body.Yes, 60)
            let again = assembler.Again(day.Plan, after, ask)
            where again is not null
            select Write(", made again", after, stage.Number, body.Name, again);
    }

    private static readonly SessionBuilder Builder = new(Shipped.Content);

    [Fact]
    public void Every_stage_gives_a_pack_that_loads_nothing_that_is_barred()
    {
        List<Written>[] families =
        [
            [.. OfOneSkill()],
            [.. OfTwoSkills()],
            [.. Changed()],
            [.. WithOwn()],
            [.. Planned()],
            [.. MadeAgain()],
        ];
        Assert.Equal((48 * 5 * 2, 7 * 6), (families[0].Count, families[1].Count));
        // Where a caution leaves one drill, a hand may have nothing to change.
        Assert.True(families[2].Count >= 45 && families[3].Count >= 45, $"{families[2].Count} changed, {families[3].Count} own");
        Assert.True(families[4].Count >= 120, $"{families[4].Count} planned");
        Assert.True(families[5].Count >= 120, $"{families[5].Count} made again");
        var all = families.SelectMany(f => f).ToList();
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
