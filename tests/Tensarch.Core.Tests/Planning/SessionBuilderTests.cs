using Tensarch.Core.Planning;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

public class SessionBuilderTests
{
    private static readonly SessionBuilder Builder = new(Shipped.Content);

    private static readonly OneSkill Stage4 = new(
        Shipped.FrontSplit,
        Shipped.Content.Approaches[0],
        "square",
        new DateOnly(2026, 3, 3),
        60,
        Shipped.At(Side.Left, 4, 25),
        Shipped.At(Side.Right, 4, 20),
        null,
        Side.Left,
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
    );

    private static SessionPlan Plan(OneSkill request)
    {
        var plan = Builder.Build(request).Value;
        Assert.Empty(SessionChecker.Check(plan, request, Shipped.Content));
        return plan;
    }

    private static PlannedDrill? Find(SessionPlan plan, string drill) => plan.Drills.FirstOrDefault(d => d.Drill == drill);

    [Fact]
    public void The_weaker_side_goes_first_and_gets_one_more_round()
    {
        var plan = Plan(Stage4 with { Weaker = Side.Right });
        var ramped = Find(plan, "split-ramped")!;
        Assert.Equal([Side.Right, Side.Left], ramped.Sides.Select(s => s.Side!.Value));
        Assert.Equal([4, 3], ramped.Sides.Select(s => s.Dose.Repeats));
    }

    [Fact]
    public void Without_a_weaker_side_the_sides_alternate_by_session() =>
        Assert.Equal((Side.Right, Side.Left), (Plan(Stage4).FirstSide, Plan(Stage4 with { LastFirstSide = Side.Right }).FirstSide));

    [Fact]
    public void The_first_week_uses_its_own_dose_and_makes_no_attempt()
    {
        var plan = Plan(Stage4 with { DaysSinceStart = 2, Left = Shipped.At(Side.Left, 5, 8), Right = Shipped.At(Side.Right, 5, 8) });
        var ramp = Assert.IsType<RampedDose>(Find(plan, "split-ramped")!.Sides[0].Dose);
        Assert.Equal((60, 1, 60), (ramp.SettleSeconds, ramp.Rounds, ramp.ToPercent));
        Assert.Null(Find(plan, "split-attempt"));
        Assert.Contains(plan.Notes, n => n.Code == "attemptDelay" && n.Date == new DateOnly(2026, 3, 8));
    }

    [Fact]
    public void An_attempt_comes_with_its_day_gate_before_it_on_both_sides()
    {
        var plan = Plan(Stage4 with { Left = Shipped.At(Side.Left, 5, 8), Right = Shipped.At(Side.Right, 6, 5) });
        var order = plan.Drills.Select(d => d.Drill).ToList();
        Assert.True(order.IndexOf("split-depth-check") is var check and >= 0 && check < order.IndexOf("split-attempt"));
    }

    [Fact]
    public void A_side_below_the_stage_that_a_drill_serves_is_left_out_of_it()
    {
        var plan = Plan(Stage4 with { Left = Shipped.At(Side.Left, 3, 36) });
        Assert.Equal([Side.Right], Find(plan, "split-ramped")!.Sides.Select(s => s.Side!.Value));
    }

    [Fact]
    public void What_the_gate_holds_is_planned_when_it_is_due_as_two_holds_a_minute_apart()
    {
        var wanted = Shipped.FrontSplit.StageAt(4).Tests.OfType<HoldCriterion>().ToList();
        var left = Shipped.At(Side.Left, 4, 25, wanted);
        var plan = Plan(
            Stage4 with
            {
                Left = left with { Wanted = [.. left.Wanted.Select(w => w with { Due = true })] },
                Full = [("split-support", "high-only")],
            }
        );
        var support = Find(plan, "split-support")!;
        Assert.Equal(("gateAsksHold", 30), (support.Reason.Code, support.Reason.Number));
        var hold = Assert.IsType<HoldDose>(support.Sides.Single(s => s.Side == Side.Left).Dose);
        Assert.Equal((30, 2, 60), (hold.Seconds, hold.Rounds, hold.RestSeconds));
        Assert.IsType<SupportLadderDose>(support.Sides.Single(s => s.Side == Side.Right).Dose);
    }

    [Fact]
    public void Heavy_work_the_day_after_is_left_out_and_says_until_when()
    {
        var plan = Plan(Stage4 with { DaysSinceHeavy = new Dictionary<LoadTag, int> { [LoadTag.Hamstring] = 1 } });
        Assert.Null(Find(plan, "split-ramped"));
        Assert.Contains(plan.Notes, n => n.Code == "spacing" && n.Tag == LoadTag.Hamstring && n.Date == new DateOnly(2026, 3, 4));
    }

    [Fact]
    public void Props_follow_the_gap_of_each_side()
    {
        var sides = Find(Plan(Stage4 with { Right = Shipped.At(Side.Right, 4, 9) }), "split-ramped")!.Sides;
        Assert.Equal(22.5, sides.Single(s => s.Side == Side.Left).Props!.HeightCm);
        Assert.Equal(7.5, sides.Single(s => s.Side == Side.Right).Props!.HeightCm);
    }

    [Fact]
    public void After_four_weeks_away_it_starts_like_a_first_week()
    {
        var plan = Plan(Stage4 with { DaysSinceLast = 31, WayBack = new(31, 5, 0) });
        Assert.Contains(plan.Notes, n => n.Code == "reBaseline" && n.Number == 31);
        Assert.Equal(60, Assert.IsType<RampedDose>(Find(plan, "split-ramped")!.Sides[0].Dose).SettleSeconds);
    }

    [Fact]
    public void After_two_weeks_away_the_dose_is_thirty_percent_less() =>
        Assert.Equal(
            63,
            Assert
                .IsType<RampedDose>(Find(Plan(Stage4 with { DaysSinceLast = 14, WayBack = new(14, 2, 0) }), "split-ramped")!.Sides[0].Dose)
                .SettleSeconds
        );

    [Fact]
    public void A_limited_hamstring_gets_no_heavy_split_work()
    {
        var limited = Shipped.Bars("hamstring");
        var plan = Plan(Stage4 with { Bars = limited });
        Assert.Null(Find(plan, "split-support"));
        Assert.NotNull(Find(plan, "low-lunge"));
        Assert.Single(plan.Notes, n => n.Code == "lightOnly" && n.Drill == "split-support" && n.Side is null);
    }

    [Fact]
    public void To_whom_short_passive_holds_are_left_active_work_comes_first()
    {
        var mobile = Stage4 with { Minutes = 20, Bars = Shipped.Bars("very-mobile") };
        DrillKind KindOf(PlannedDrill d) => Shipped.Content.Drill(d.Drill).Kind;
        bool Main(PlannedDrill d) => KindOf(d) is DrillKind.Strength or DrillKind.EndRange;
        var main = Plan(mobile).Drills.Where(Main).Select(KindOf).ToList();
        Assert.Equal(DrillKind.Strength, main[0]);
        Assert.All(
            Plan(mobile).Drills.SelectMany(d => d.Sides.Select(s => (Drill: Shipped.Content.Drill(d.Drill), Side: s))),
            l =>
                Assert.NotEqual(
                    LoadLevel.Heavy,
                    l.Drill.LoadsOf(l.Drill.VariantAt(l.Side.Variant), l.Side.Dose, 4.5).GetValueOrDefault(LoadTag.PassiveEndRange)
                )
        );
    }

    [Fact]
    public void Who_has_no_block_for_each_hand_is_given_chairs()
    {
        List<string> Faces(int owned) =>
            [
                .. Plan(Stage4 with { BlocksOwned = owned, Full = [("split-support", "high-only")] })
                    .Drills.SelectMany(d => d.Sides)
                    .Select(s => s.Dose)
                    .OfType<SupportLadderDose>()
                    .SelectMany(d => d.Rungs)
                    .Select(r => r.Face)
                    .Where(f => f != "none")
                    .Distinct(),
            ];
        Assert.Equal(["high", "middle"], Faces(2));
        Assert.Equal(["chair"], Faces(1));
    }

    [Theory]
    [InlineData(14)]
    [InlineData(121)]
    public void Minutes_out_of_range_are_a_coded_problem(int minutes) =>
        Assert.Equal("minutesOutOfRange", Builder.Build(Stage4 with { Minutes = minutes }).Problems[0].Code);

    [Fact]
    public void The_checker_finds_what_is_broken_by_hand()
    {
        var plan = Plan(Stage4);
        IEnumerable<string> Codes(SessionPlan broken) => SessionChecker.Check(broken, Stage4, Shipped.Content).Select(v => v.Code);

        Assert.Contains("outOfOrder", Codes(plan with { Drills = [.. plan.Drills.Reverse()] }));
        Assert.Contains("warmUpTooShort", Codes(plan with { Drills = [.. plan.Drills.Skip(6)] }));
        Assert.Contains(
            "noCalmAtEnd",
            Codes(plan with { Drills = [.. plan.Drills.Where(d => Shipped.Content.Drill(d.Drill).Kind != DrillKind.Calm)] })
        );
        Assert.Contains("wristsNotPrepared", Codes(plan with { Drills = [.. plan.Drills.Where(d => d.Drill != "wrist-series")] }));
        Assert.Contains("overMinutes", Codes(plan with { Minutes = 30 }));
        Assert.Contains(
            "offLimitsPlanned",
            SessionChecker.Check(plan, Stage4 with { Bars = Held(LoadTag.HipFront) }, Shipped.Content).Select(v => v.Code)
        );
        Assert.Contains(
            "weakerNotFirst",
            SessionChecker.Check(plan, Stage4 with { Weaker = plan.FirstSide.Other() }, Shipped.Content).Select(v => v.Code)
        );
        Assert.Contains(
            "tooSoonForRegion",
            SessionChecker
                .Check(plan, Stage4 with { DaysSinceHeavy = new Dictionary<LoadTag, int> { [LoadTag.HipFront] = 1 } }, Shipped.Content)
                .Select(v => v.Code)
        );
        Assert.Contains(
            "stageNotServed",
            SessionChecker.Check(plan, Stage4 with { Left = Shipped.At(Side.Left, 1, null, []) }, Shipped.Content).Select(v => v.Code)
        );
        Assert.Contains(
            "overFirstWeekDose",
            SessionChecker.Check(plan, Stage4 with { DaysSinceStart = 1 }, Shipped.Content).Select(v => v.Code)
        );
    }

    private static DayBars Held(LoadTag tag) => Shipped.Barred([tag]);
}
