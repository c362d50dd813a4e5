using Tensarch.Core.Programmes;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Programmes;

/// <summary>When a gate may open, and whether a target day can be met.</summary>
public class GateOutlookTests
{
    private static readonly DateOnly Today = DateOnly.FromDateTime(Shipped.Now.UtcDateTime);
    private static readonly GateOutlook Outlook = new(Shipped.Content, Today);

    /// <summary>On the first stage of a ladder on which every gate asks for the same.</summary>
    private static Course On(IReadOnlyList<ReadinessTest> tests, double[] gaps, double everyDays = 7, DayBars? bars = null)
    {
        var ladder = Shipped.FrontSplit with
        {
            Stages = [.. Shipped.FrontSplit.Stages.Select(s => s with { Tests = tests })],
            EveryGate = tests.Contains(Clear) ? [Clear] : [],
        };
        var readings = new[] { Side.Left, Side.Right }.SelectMany(side =>
            gaps.Select((g, i) => Shipped.Read("front-split-gap", side, (gaps.Length - 1 - i) * everyDays, [g, g, g]))
        );
        return new(new(Guid.NewGuid(), ladder, "long-and-ramped", Shipped.Now.AddDays(-60)), Shipped.Evidence([.. readings], bars: bars));
    }

    private static readonly ClearCriterion Clear = new();
    private static readonly RomCriterion Gap = new("front-split-gap", Comparison.AtMost, 20);

    private static ExpectedGate Expected(Course course, params int[] planned) => Outlook.Of(course, [.. planned.Select(Today.AddDays)])[0];

    [Fact]
    public void A_gap_that_closes_by_two_a_week_is_closed_by_four_about_two_weeks_from_now()
    {
        var gate = Expected(On([Gap], [32, 30, 28, 26, 24]));
        Assert.Equal(("expected", "front-split-gap"), (gate.Code, gate.Decides));
        Assert.InRange(gate.Earliest!.Value, Today.AddDays(8), Today.AddDays(14));
        Assert.True(gate.Latest >= Today.AddDays(14));
    }

    [Fact]
    public void A_slope_that_is_not_certain_gives_an_interval()
    {
        var gate = Expected(On([Gap], [32, 31, 27, 27, 24]));
        Assert.Equal("expected", gate.Code);
        Assert.True(gate.Earliest < gate.Latest);
    }

    [Fact]
    public void What_does_not_come_nearer_is_not_expected() => Assert.Equal("notAtThisSlope", Expected(On([Gap], [26, 28, 30, 32])).Code);

    [Fact]
    public void Two_tests_are_too_few_to_say() => Assert.Equal(("unknown", (DateOnly?)null), Said(On([Gap], [30, 28])));

    private static (string, DateOnly?) Said(Course course)
    {
        var gate = Expected(course);
        return (gate.Code, gate.Latest);
    }

    [Fact]
    public void Sessions_that_are_asked_for_are_counted_in_the_plan()
    {
        var course = On([new ExposureCriterion(3, 5)], []);
        Assert.Equal(("expected", Today.AddDays(9)), (Expected(course, 2, 4, 9).Code, Expected(course, 2, 4, 9).Earliest));
        // Three sessions in three days do not make the five days that are asked for.
        Assert.Equal(Today.AddDays(5), Expected(course, 0, 1, 2).Earliest);
        Assert.Equal("notEnoughPlanned", Expected(course, 2, 4).Code);
    }

    [Fact]
    public void The_test_that_takes_longest_decides()
    {
        var gate = Expected(On([Gap, new ExposureCriterion(1, 1)], [32, 30, 28, 26, 24]), 30);
        Assert.Equal((Today.AddDays(30), (string?)null), (gate.Earliest, gate.Decides));
    }

    [Fact]
    public void What_is_open_or_barred_says_so()
    {
        Assert.Equal("openNow", Expected(On([Gap], [15, 15, 15])).Code);
        Assert.Equal("blocked", Expected(On([Gap, Clear], [30], bars: Shipped.Barred([LoadTag.Hamstring]))).Code);
    }

    private static TargetVerdict Target(Course course, int target, params int[] tests) =>
        TargetOutlook.Of(course, Today.AddDays(target), Outlook.Of(course, []), [.. tests.Select(Today.AddDays)], 14, Today);

    [Fact]
    public void Each_gate_that_is_left_is_shown_on_a_test_day_of_its_own()
    {
        var course = On([Gap], [32, 30, 28, 26, 24]);
        var gates = course.Ladder.Stages.Count;
        // Two test days are planned, and after them one every two weeks.
        var last = 17 + 14 * (gates - 2);
        Assert.Equal(("tooManyGates", gates, Today.AddDays(last)), Parts(Target(course, last - 1, 3, 17)));
        Assert.Equal("possible", Target(course, last, 3, 17).Code);
    }

    private static (string, int, DateOnly?) Parts(TargetVerdict target) => (target.Code, target.Gates, target.Earliest);

    [Fact]
    public void A_target_is_not_met_by_a_gate_that_does_not_come_nearer_nor_by_one_that_is_barred()
    {
        Assert.Equal("notAtThisSlope", Target(On([Gap], [26, 28, 30, 32]), 300).Code);
        Assert.Equal("barred", Target(On([Gap, Clear], [30], bars: Shipped.Barred([LoadTag.Hamstring])), 300).Code);
    }
}
