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

    /// <summary>No drill is only there to be read about: each is in some session of somebody.</summary>
    [Fact]
    public void Every_drill_is_in_some_session()
    {
        var builder = new SessionBuilder(Shipped.Content);
        var missing = Shipped.Content.DrillList.Select(d => d.Key).ToHashSet();
        // What is done instead, when a test of the day says so.
        missing.ExceptWith(Shipped.Content.DayGates.SelectMany(g => g.Substitutes).SelectMany(s => s.Drills).Select(d => d.Drill));
        var cases = Panel
            .All.Where(c => c is { Minutes: 45 or 75, History: "middle", Body: "no cautions" or "neck off limits", Approach: "rhythmic" })
            .ToList();
        var wrists = Panel.All.Where(c =>
            c is { Minutes: 60, History: "at the gate", Body: "wrist light only", Approach: "long-and-ramped" }
        );
        cases.AddRange(wrists);
        for (var sessions = 12; sessions < 24 && missing.Count > 0; sessions++)
            foreach (var at in cases.Where(c => missing.Any(m => Serves(m, c))))
                if (builder.Build(Panel.Request(at) with { SessionsSinceStart = sessions }) is { IsOk: true } built)
                    missing.ExceptWith(built.Value.Drills.Select(d => d.Drill));
        Assert.True(missing.Count == 0, string.Join(" ", missing));
    }

    private static bool Serves(string drill, PanelCase at) => Shipped.Content.Drill(drill).Serves.Any(s => s.Stage(at.Ladder, at.Stage));
}
