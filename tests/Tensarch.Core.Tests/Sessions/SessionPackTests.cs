using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Core.Tests.Planning;

namespace Tensarch.Core.Tests.Sessions;

public class SessionPackTests
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);
    private static readonly PackMaker Maker = new(Shipped.Content);

    private static OneSkill Request(string ladder = "front-split", int stage = 6) =>
        new OneSkill(
            Shipped.Ladder(ladder),
            Shipped.Content.Approaches[0],
            "square",
            new DateOnly(2026, 3, 3),
            75,
            Shipped.At(Side.Left, stage, 8),
            Shipped.At(Side.Right, stage, 8),
            null,
            Side.Right,
            60,
            20,
            2,
            new Dictionary<LoadTag, int>(),
            null,
            [],
            0,
            0,
            true,
            DayBars.None(),
            4.5,
            4
        )
        {
            Full = [("split-support", "high-only"), ("split-attempt", "hands-on-low-faces"), ("lunge-foot-hold", "hold")],
        };

    private static SessionPack Pack(string ladder = "front-split", int stage = 6) => Made(Request(ladder, stage));

    private static SessionPack Made(OneSkill request) => Maker.Make(Builder.Build(request).Value, request).Value;

    private static PackStop Stop(SessionPack pack, SignalKind signal) => pack.Stops.Single(s => s.Signal == signal);

    private static PackVersion Planned(SessionPack pack, string slot) => pack.Slots.Single(s => s.Id == slot).Versions[0];

    [Fact]
    public void Backing_off_leads_one_level_easier_until_the_easiest()
    {
        var versions = Pack(stage: 4).Slots.First(p => p.Versions[0].Drill == "lunge-foot-hold").Versions;
        Assert.Equal(["pull", "hold", "reach"], versions.Take(3).Select(v => v.Variant));
        Assert.Equal([versions[1].Id, versions[2].Id, null], versions.Take(3).Select(v => v.Easier));
        Assert.Equal([versions[2].Id, versions[2].Id, null], versions.Take(3).Select(v => v.Offer));
    }

    [Fact]
    public void Over_the_ceiling_half_the_settling_comes_before_an_easier_position()
    {
        var pack = Pack(stage: 4);
        Assert.Equal([SignalKind.OverCeiling], pack.Stops.Where(s => s.ShorterFirst).Select(s => s.Signal));
        var versions = pack.Slots.First(s => s.Versions[0].Drill == "split-ramped").Versions;
        var planned = versions[0];
        var less = versions.Single(v => v.Id == planned.Shorter);
        int Settling(PackVersion v) => v.Segments.Where(s => s.Phase is Phase.Settle or Phase.Resettle).Sum(s => s.Seconds);
        int Rest(PackVersion v) => v.Seconds - Settling(v);
        Assert.Equal((Settling(planned) / 2, Rest(planned), planned.Variant), (Settling(less), Rest(less), less.Variant));
        Assert.Equal((planned.Easier, (string?)null), (less.Easier, less.Shorter));
        Assert.Null(pack.Slots.First(s => s.Versions[0].Drill == "pulse-raiser").Versions[0].Shorter);
    }

    [Fact]
    public void Loads_stand_on_every_version_as_the_content_has_them()
    {
        var pack = Pack();
        var all = pack.Slots.Concat(pack.Gates.SelectMany(g => g.Instead).SelectMany(i => i.Slots)).SelectMany(s => s.Versions).ToList();
        Assert.Equal(all.Count, all.Select(v => v.Id).Distinct().Count());
        foreach (var version in all)
        {
            var drill = Shipped.Content.Drill(version.Drill);
            // A tag, the tag where it is heavy, and passive end range in what loads a region.
            var loads = version.Loads.Where(l => !l.EndsWith(":heavy", StringComparison.Ordinal) && !l.Contains('+')).ToHashSet();
            var variant = drill.VariantAt(version.Variant);
            Assert.Equal(
                (variant.Loads ?? drill.Loads).Where(l => l.Value != LoadLevel.None).Select(l => PackLoads.Name(l.Key)).ToHashSet(),
                loads
            );
        }
    }

    [Fact]
    public void The_stop_rules_say_what_ends()
    {
        var pack = Pack();
        Assert.Equal((Ends.Region, 0), (Stop(pack, SignalKind.SharpPain).Ends, Stop(pack, SignalKind.SharpPain).Loads.Count));
        Assert.Equal(["inverted", "head-down"], Stop(pack, SignalKind.HeadPressure).Loads);
        Assert.Equal(["fall-risk"], Stop(pack, SignalKind.Fall).Loads);
        Assert.Equal(Ends.Session, Stop(pack, SignalKind.FallWithHeadContact).Ends);
        Assert.Equal((6, SignalKind.SharpPain), (Stop(pack, SignalKind.DullPain).WorseFrom, Stop(pack, SignalKind.DullPain).Worse));
        Assert.Equal(Ends.Nothing, Stop(pack, SignalKind.Bailed).Ends);
        foreach (var signal in new[] { SignalKind.Pinch, SignalKind.Pop, SignalKind.StrengthLost, SignalKind.Numbness })
            Assert.Equal((Ends.Region, true), (Stop(pack, signal).Ends, Stop(pack, signal).AsksRegion));
    }

    [Fact]
    public void A_gate_has_its_own_checks_its_tests_before_what_needs_it_and_one_substitute_for_each_check()
    {
        var pack = Pack("handstand", 6);
        var gate = Assert.Single(pack.Gates, g => !g.FirstTime);
        Assert.Equal(["wrist-pain", "protractions"], gate.Checks.Select(c => c.Key));
        Assert.Equal(LoadTag.Wrist, gate.Checks[0].Region);
        Assert.Equal(["loaded-wrist-rock", "protraction"], gate.Tests.Select(t => Planned(pack, t).Drill));
        Assert.Equal("plank", Planned(pack, gate.Tests[1]).Variant);
        Assert.True(gate.Needs.Count > 3);
        Assert.Equal(
            "hollow",
            gate.Instead[0].More is { } more ? Planned(pack, more).Drill : gate.Instead[0].Slots.Single().Versions[0].Drill
        );
        Assert.Equal(
            ("protraction", "all-fours"),
            (gate.Instead[1].Slots.Single().Versions[0].Drill, gate.Instead[1].Slots.Single().Versions[0].Variant)
        );
    }

    [Fact]
    public void Pain_in_a_wrist_told_at_intake_puts_the_wrist_test_before_all_main_work_on_the_hands()
    {
        foreach (var (skill, stage) in new[] { ("handstand", 1), ("side-plank", 1), ("crow", 1), ("front-split", 3) })
        {
            var pack = Made(Request(skill, stage) with { Bars = Shipped.Bars("wrist-now") });
            var asked = pack.Gates.Where(g => g.Gate == "wrist-today").SelectMany(g => g.Needs).Select(n => n.Slot).ToHashSet();
            var onHands = pack
                .Slots.Where(s =>
                    s.Versions[0].Loads.Contains("wrist") && SessionOrder.IsMain(Shipped.Content.Drill(s.Versions[0].Drill).Phase)
                )
                .Select(s => s.Id)
                .ToList();
            Assert.All(onHands, id => Assert.Contains(id, asked));
            Assert.True(skill == "front-split" || onHands.Count > 0, skill);
        }
    }

    [Fact]
    public void A_gate_of_a_split_is_asked_on_each_side()
    {
        var gates = Pack().Gates.Where(g => g.Gate == "end-position").ToList();
        Assert.Equal([Side.Left, Side.Right], gates.Select(g => g.Side!.Value).Order());
        var left = gates.Single(g => g.Side == Side.Left);
        var need = Assert.Single(left.Needs);
        Assert.Equal(("split-attempt", Side.Left), (Planned(Pack(), need.Slot).Drill, Planned(Pack(), need.Slot).Side));
        Assert.NotNull(need.Easier);
    }

    [Fact]
    public void A_round_says_what_it_counts_for_and_whether_a_gate_reads_it()
    {
        var pack = Pack();
        var support = Pack(stage: 4).Slots.First(p => p.Versions[0].Drill == "split-support").Versions[0];
        Assert.Equal(new PackRound(1, 30, null), support.Rounds[0]);
        Assert.Contains(pack.Slots, s => s.Versions[0].Rounds[0] is { HoldSeconds: null, Reps: > 0 });
        Assert.Contains(pack.Slots.First(p => p.Versions[0].Drill == "split-attempt").Versions, v => v.Evidence);
        Assert.False(pack.Slots.First(p => p.Versions[0].Drill == "pulse-raiser").Versions[0].Evidence);
    }

    [Fact]
    public void What_the_facts_of_today_no_longer_allow_is_refused_with_its_reasons()
    {
        var planned = Request(stage: 4);
        var plan = Builder.Build(planned).Value;
        string[] Refused(OneSkill now) => [.. Maker.Make(plan, now).Problems.Select(p => p.Field!)];
        Assert.True(Maker.Make(plan, planned).IsOk);
        Assert.Contains("otherDay", Refused(planned with { Date = planned.Date.AddDays(1) }));
        Assert.Contains("stageChanged", Refused(planned with { Left = planned.Left with { Stage = 3 } }));
        Assert.Contains("otherLadder", Refused(planned with { Ladder = planned.Ladder with { Version = 9 } }));
        Assert.Contains("offLimitsPlanned", Refused(planned with { Bars = Shipped.Barred([LoadTag.Hamstring]) }));
        Assert.Contains("lightOnlyHeavy", Refused(planned with { Bars = Shipped.Barred([LoadTag.Hamstring], BarLevel.LightOnly) }));
        Assert.Contains(
            "tooSoonForRegion",
            Refused(planned with { DaysSinceHeavy = new Dictionary<LoadTag, int> { [LoadTag.Hamstring] = 0 } })
        );
        Assert.Contains("overFirstWeekDose", Refused(planned with { WayBack = new(40, 6, 0) }));
    }
}
