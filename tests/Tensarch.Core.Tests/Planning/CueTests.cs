using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Tests.Planning;

public class CueTests
{
    private static List<Segment> Work(string drill, string? variant = null)
    {
        var of = Shipped.Content.Drill(drill);
        var at = variant is null ? of.Variants[0] : of.VariantAt(variant);
        return [.. Timeline.Segments("", of, new(null, 1, at.Key, of.DoseOf(at), null), false, 4.5).Where(s => s.Kind == SegmentKind.Work)];
    }

    [Fact]
    public void Each_phase_of_a_ramp_has_its_own_words_with_its_breath()
    {
        var said = Work("low-lunge").Take(4).ToDictionary(s => s.Phase, s => s.Cue);
        Assert.Equal("Press the rear knee down and drag it forward, breathing out", said[Phase.Press]);
        Assert.Equal("Squeeze the rear glute, hips forward, breathing out", said[Phase.Lift]);
        Assert.NotEqual(said[Phase.Settle], said[Phase.Resettle]);
        foreach (var drill in Shipped.Content.DrillList.Where(d => d.Dose is RampedDose))
        foreach (var phase in new[] { Phase.Settle, Phase.Press, Phase.Lift, Phase.Resettle })
            Assert.Contains(drill.Cues, c => c.At == phase);
    }

    [Fact]
    public void A_repetition_says_both_ways_with_their_breath_and_a_flow_says_each_position()
    {
        Assert.Equal("Fold from the hip, back long, breathing out; Rise, breathing in", Work("hinge-repeats")[0].Cue);
        Assert.Equal(
            ["Long back, breathing in", "Fold, shoulders away from the ears, breathing out"],
            Work("pyramid-fold").Take(2).Select(s => s.Cue!)
        );
        Assert.Equal(
            "Knees down, step back one by one, breathing in",
            Work("salutation-flow").Single(s => s is { Label: "Step back", Round: 1 }).Cue
        );
        Assert.Equal(
            "Step one foot back, then the other, breathing in",
            Work("salutation-flow", "stepped").Single(s => s is { Label: "Step back", Round: 1 }).Cue
        );
    }

    [Fact]
    public void Every_stretch_of_work_has_something_to_say()
    {
        foreach (var drill in Shipped.Content.DrillList)
        foreach (var variant in drill.Variants)
            Assert.All(
                Work(drill.Key, variant.Key),
                s => Assert.False(string.IsNullOrWhiteSpace(s.Cue), $"{drill.Key}/{variant.Key} {s.Phase}")
            );
    }

    /// <summary>
    /// No drill is only there to be read about: each is in some session of somebody. And no cue: each is said in some session, or in the easier
    /// version that one of its drills comes down to.
    /// </summary>
    [Fact]
    public void Every_drill_is_in_some_session_and_every_cue_is_said_in_one()
    {
        var builder = new SessionBuilder(Shipped.Content);
        // What is done instead, when a test of the day says so.
        var instead = Shipped.Content.DayGates.SelectMany(g => g.Substitutes).SelectMany(s => s.Drills).Select(d => d.Drill).ToHashSet();
        var missing = Shipped.Content.DrillList.Select(d => d.Key).Except(instead).ToHashSet();
        var unsaid = Shipped
            .Content.DrillList.Where(d => !instead.Contains(d.Key))
            .SelectMany(d => d.Cues.Select(c => (Drill: d.Key, c.Says)))
            .ToHashSet();
        var cases = Panel
            .All.Where(c => c is { Minutes: 45 or 75, History: "middle", Body: "no cautions" or "neck off limits", Approach: "rhythmic" })
            .ToList();
        var wrists = Panel.All.Where(c =>
            c is { Minutes: 60, History: "at the gate", Body: "wrist light only", Approach: "long-and-ramped" }
        );
        cases.AddRange(wrists);
        cases.AddRange(Panel.All.Where(c => c is { Minutes: 75, History: "middle", Body: "no cautions", Approach: "long-and-ramped" }));
        bool Wanted(string drill, PanelCase at) => (missing.Contains(drill) || unsaid.Any(u => u.Drill == drill)) && Serves(drill, at);
        for (var sessions = 12; sessions < 24 && missing.Count + unsaid.Count > 0; sessions++)
            foreach (var at in cases.Where(c => Shipped.Content.DrillList.Any(d => Wanted(d.Key, c))))
                if (builder.Build(Panel.Request(at) with { SessionsSinceStart = sessions }) is { IsOk: true } built)
                    foreach (var planned in built.Value.Drills)
                    {
                        missing.Remove(planned.Drill);
                        unsaid.ExceptWith([.. unsaid.Where(u => u.Drill == planned.Drill && IsSaid(planned, at, u.Says))]);
                    }
        Assert.True(missing.Count == 0, string.Join(" ", missing));
        Assert.True(unsaid.Count == 0, string.Join('\n', unsaid));
    }

    /// <summary>In the planned version, in one that two full sessions lead to in the same stage, or in one that it is eased to.</summary>
    private static bool IsSaid(PlannedDrill planned, PanelCase at, string says)
    {
        var drill = Shipped.Content.Drill(planned.Drill);
        return planned.Sides.Any(side =>
            drill
                .Variants.Where(v => v.FromStageIn(at.Ladder) <= at.Stage)
                .Select(v => side with { Variant = v.Key, Dose = v.Dose ?? side.Dose })
                .Append(side)
                .SelectMany(s => Timeline.Segments("", drill, s, false, 4.5))
                .Any(s => Spoken(s).Contains(says, StringComparison.Ordinal))
        );
    }

    private static string Spoken(Segment segment) => string.Join(". ", [segment.Cue ?? "", .. segment.Later?.Select(l => l.Says) ?? []]);

    /// <summary>What must be said is said in every round, before anything else; the others each once a drill, where there is time.</summary>
    [Fact]
    public void What_must_be_said_comes_first_in_every_round()
    {
        var musts =
            from drill in Shipped.Content.DrillList
            from cue in drill.Cues.Where(c => c.Must)
            from variant in drill.Variants.Where(v => cue.IsOf(v.Key))
            select (drill, cue, variant);
        Assert.NotEmpty(musts);
        foreach (var (drill, cue, variant) in musts)
        foreach (var rounds in new[] { 1, 3 })
        {
            var side = new PlannedSide(null, 1, variant.Key, drill.DoseOf(variant).WithRepeats(rounds), null);
            foreach (
                var round in Timeline.Segments("", drill, side, false, 4.5).Where(s => s.Kind == SegmentKind.Work).GroupBy(s => s.Round)
            )
                Assert.StartsWith(cue.Says, round.First().Cue, StringComparison.Ordinal);
        }
        var own = Timeline.Said(
            Shipped.Content.Drill("shoulderstand"),
            new("a", "shoulderstand", new("core"), [], Cue: "Think of a candle")
        );
        Assert.Equal(["Never turn the head", "Think of a candle"], own.Cues.Take(2).Select(c => c.Says));
    }

    [Fact]
    public void Cues_take_turns_and_share_a_round_where_there_are_more_of_them()
    {
        Assert.Equal(
            "Nothing in the knee: if it is felt there, come out. Front foot flexed and ahead of the other hip",
            Work("pigeon")[0].Cue
        );
        Assert.Equal(
            [
                new LaterCue(15, "Three spine waves, then settle, breathing out"),
                new LaterCue(30, "Tuck the rear toes, walk that knee back"),
                new LaterCue(45, "Between the legs, not on the front hip"),
            ],
            Work("pigeon")[0].Later
        );
        var plank = Shipped.Content.Drill("plank");
        var said = Timeline
            .Segments("", plank, new(null, 1, "knees", new HoldDose(20, null, 2, 30), null), false, 4.5)
            .Where(s => s.Kind == SegmentKind.Work)
            .Select(s => s.Cue);
        Assert.Equal(["Push the floor away, ribs in, breathing out", "Count aloud: the breath stays free"], said);
        // Too short for a second thing, it says one.
        var brief = Timeline.Segments("", plank, new(null, 1, "knees", new HoldDose(5, null, 1, 0), null), false, 4.5);
        Assert.Equal("Push the floor away, ribs in, breathing out", brief[^1].Cue);
    }

    /// <summary>A position is left in a stretch of its own: after each round where there is a rest, once where a ramp stays in it.</summary>
    [Fact]
    public void Positions_are_left_by_their_own_words()
    {
        var frog = Timeline.Segments(
            "",
            Shipped.Content.Drill("frog"),
            new(null, 1, "narrow", Shipped.Content.Drill("frog").Dose, null),
            false,
            4.5
        );
        Assert.Single(frog, s => s.Kind == SegmentKind.Out);
        Assert.Equal("Hands down, push the floor, knees in one after the other", frog[^1].Cue);
        var wall = Timeline
            .Segments(
                "",
                Shipped.Content.Drill("wall-handstand"),
                new(null, 4, "chest-to-wall", new HoldDose(25, null, 3, 30), null),
                false,
                4.5
            )
            .Skip(1)
            .Select(s => s.Kind);
        Assert.Equal(
            Enumerable.Repeat(new[] { SegmentKind.Work, SegmentKind.Out, SegmentKind.Rest }, 3).SelectMany(k => k).SkipLast(1),
            wall
        );
        foreach (var drill in Shipped.Content.DrillList.Where(d => d.Phase == SessionPhase.Neck && !d.IsWayOut))
            Assert.NotNull(drill.Out);
    }

    private static bool Serves(string drill, PanelCase at) => Shipped.Content.Drill(drill).Serves.Any(s => s.Stage(at.Ladder, at.Stage));
}
