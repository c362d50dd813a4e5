using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Core.Tests.Planning;

namespace Tensarch.Core.Tests.Sessions;

public class DayGateTests
{
    /// <summary>Pain unloads, weakness trains lighter: what is done instead depends on the check that failed, and on the ladder.</summary>
    [Theory]
    [InlineData("inversion-neck", "shoulderstand", "shoulders-tucked=1 hands-clasped=1 breaths=5 no-neck-pain=1", DayGateResult.Go, "")]
    [InlineData(
        "inversion-neck",
        "shoulderstand",
        "shoulders-tucked=1 hands-clasped=0 breaths=5 no-neck-pain=1",
        DayGateResult.NotToday,
        "legs-up-support"
    )]
    [InlineData(
        "inversion-neck",
        "shoulderstand",
        "shoulders-tucked=1 hands-clasped=1 breaths=4 no-neck-pain=1",
        DayGateResult.NotToday,
        "legs-up-support"
    )]
    [InlineData("inversion-neck", "shoulderstand", "", DayGateResult.NotToday, "legs-up-support")]
    [InlineData("handstand", "handstand", "wrist-pain=1 protractions=5", DayGateResult.Go, "")]
    [InlineData("handstand", "handstand", "wrist-pain=1 protractions=4", DayGateResult.NotToday, "protraction")]
    [InlineData("handstand", "handstand", "wrist-pain=2 protractions=9", DayGateResult.NotToday, "hollow")]
    [InlineData("handstand", "handstand", "wrist-pain=2 protractions=0", DayGateResult.NotToday, "hollow")]
    [InlineData("squat-knee", "deep-squat", "left-knee=1 right-knee=0", DayGateResult.NotToday, "knees-to-chest ankle-rocks")]
    [InlineData("squat-knee", "crow", "left-knee=0 right-knee=1", DayGateResult.NotToday, "hollow")]
    [InlineData("wrist-today", "crow", "wrist-pain=2", DayGateResult.NotToday, "forearm-plank forearm-side-plank")]
    [InlineData("wrist-today", "side-plank", "wrist-pain=5", DayGateResult.NotToday, "forearm-side-plank forearm-plank")]
    [InlineData("warm-enough", "front-split", "eight-minutes=1 feels-warm=1", DayGateResult.Go, "")]
    [InlineData("end-position", "front-split", "warm=1 breaths=3", DayGateResult.Go, "")]
    [InlineData("end-position", "front-split", "warm=1 breaths=2", DayGateResult.Easier, "split-support")]
    [InlineData("end-position", "middle-split", "warm=0 breaths=3", DayGateResult.NotToday, "straddle-support")]
    public void The_worst_check_decides_and_the_data_names_what_is_done_instead(
        string gate,
        string ladder,
        string answers,
        DayGateResult result,
        string instead
    )
    {
        var data = Shipped.Content.FindDayGate(gate)!;
        var verdict = DayGates.Judge(
            data,
            answers
                .Split(' ', StringSplitOptions.RemoveEmptyEntries)
                .Select(a => a.Split('='))
                .ToDictionary(a => a[0], a => int.Parse(a[1]))
        );
        var substitute =
            verdict.Failed.Count == 0 ? null : data.Instead(verdict.Failed[0], ladder, Needing(gate), DayBars.None(), Shipped.Content);
        Assert.Equal((result, instead), (verdict.Result, string.Join(" ", substitute?.Drills.Select(d => d.Drill) ?? [])));
    }

    [Theory]
    [InlineData("pigeon-twist", "figure-four")]
    [InlineData("lunge-foot-hold", "lunge-foot-hold")]
    [InlineData("pigeon-twist lunge-foot-hold", "figure-four lunge-foot-hold")]
    public void Where_drills_share_a_gate_each_that_needed_it_has_its_own_stand_in(string needing, string instead)
    {
        var gate = Shipped.Content.FindDayGate("warm-enough")!;
        var done = gate.Instead("feels-warm", "front-split", needing.Split(' ').ToHashSet(), DayBars.None(), Shipped.Content)!;
        Assert.Equal(instead, string.Join(" ", done.Drills.Select(d => d.Drill)));
    }

    /// <summary>The page offers these and compares with nothing but these.</summary>
    [Fact]
    public void A_check_says_which_answers_can_be_given_and_which_of_them_are_good()
    {
        var checks = Shipped.Content.DayGates.SelectMany(g => g.Checks).ToList();
        Assert.NotEmpty(checks);
        Assert.All(checks, c => Assert.Equal(c.Offered().Where(c.Holds), c.Good()));
        Assert.All(checks, c => Assert.InRange(c.Good().Count, 1, c.Offered().Count - 1));
        DayGateCheck Of(int? atMost = null, int? atLeast = null, LoadTag? region = null) =>
            new("a", "Is it?", DayGateResult.Easier, atMost, atLeast, region);
        Assert.Equal([0, 1], Of().Offered());
        Assert.Equal([1], Of().Good());
        Assert.Equal([0, 1, 2, 3, 4], Of(atMost: 1).Offered());
        Assert.Equal([0, 1], Of(atMost: 1).Good());
        Assert.Equal([3, 4, 5, 6], Of(atLeast: 3).Good());
        Assert.Equal([0, 1, 2], Of(atMost: 2, region: LoadTag.Wrist).Good());
        // Pain is a fact about the body, whether it is good enough for the gate or not.
        Assert.Equal(Enumerable.Range(1, 10), Of(atMost: 2, region: LoadTag.Wrist).Felt());
        Assert.Equal(SignalKind.DullPain, Of(atMost: 2, region: LoadTag.Wrist).Signal);
        Assert.Empty(Of(atMost: 2).Felt());
        Assert.Null(Of(atMost: 2).Signal);
        Assert.Equal(11, Of(atMost: 2, region: LoadTag.Wrist).Offered().Count);
    }

    [Fact]
    public void A_demonstration_is_asked_for_before_the_first_time_alone()
    {
        Trainee who = Panel.Request(new("handstand", 5, "long-and-ramped", 60, "no cautions", "middle"));
        var plan = new SessionBuilder(Shipped.Content).Build(who).Value;
        PackGate? Asked(TrainingHistory history) =>
            new PackMaker(Shipped.Content).Make(plan, who with { History = history }).Value.Gates.SingleOrDefault(g => g.FirstTime);
        var done = Work.Planned(plan, Shipped.Content);
        var inverted = done.Where(w => Shipped.Content.Drill(w.Drill).Gates.Contains("demonstration")).ToList();
        var first = Asked(TrainingHistory.None)!;
        Assert.Equal(("demonstration", inverted.Count), (first.Gate, first.Needs.Count));
        // One of them is new still.
        var half = TrainingHistory.None.With(who.Date.AddDays(-9), [.. done.Where(w => w.Drill != inverted[0].Drill)], Shipped.Content);
        Assert.Equal(inverted.Count(w => w.Drill == inverted[0].Drill), Asked(half)!.Needs.Count);
        Assert.Null(Asked(TrainingHistory.None.With(who.Date.AddDays(-9), done, Shipped.Content)));
    }

    private static HashSet<string> Needing(string gate) =>
        [.. Shipped.Content.DrillList.Where(d => d.Gates.Contains(gate)).Select(d => d.Key)];

    [Fact]
    public void A_substitute_is_free_in_every_tag_of_its_own()
    {
        var keys = Shipped.Content.Questions.Select(q => q.Key).ToArray();
        var all = (
            from gate in Shipped.Content.DayGates
            from check in gate.Checks
            from ladder in Shipped.Content.Skills
            select (gate, check.Key, Ladder: ladder.Key)
        ).ToArray();
        Gen.Select(Gen.Shuffle(keys, 0, 4), Gen.OneOf(all))
            .Sample(
                (yes, asked) =>
                {
                    var bars = Shipped.Bars(yes);
                    return asked.gate.Instead(asked.Key, asked.Ladder, Needing(asked.gate.Key), bars, Shipped.Content) is not { } instead
                        || instead.Drills.All(at =>
                        {
                            var drill = Shipped.Content.Drill(at.Drill);
                            var variant = drill.VariantAt(at.Variant);
                            return drill
                                .LoadsOf(variant, drill.DoseOf(variant))
                                .All(l => l.Value == LoadLevel.None || bars[l.Key] == BarLevel.Free);
                        });
                },
                time: Budget.Seconds
            );
    }

    [Fact]
    public void A_neck_bar_leaves_the_wall_version_that_loads_nothing()
    {
        var gate = Shipped.Content.FindDayGate("inversion-neck")!;
        var instead = gate.Instead("no-neck-pain", "shoulderstand", Needing("inversion-neck"), Shipped.Bars("eyes"), Shipped.Content);
        Assert.Equal("legs-on-the-wall", instead?.Drills.Single().Variant);
    }
}
