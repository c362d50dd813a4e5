using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Tests.Skills;

public class ReadinessTests
{
    private static readonly Readiness Readiness = new(Shipped.Content);
    private static readonly Gate Gate = new(Shipped.Content);

    private static GateVerdict Verdict(GateState state, params Outcome[] outcomes) =>
        new(Side.Left, 3, state, "", [.. outcomes.Select(o => new TestVerdict(new ClearCriterion(), o, "", NextStep.Nothing))], null);

    private static readonly Plateau Flat = new("front-split-gap", Side.Left, 30, 3, 0.1, 2);

    [Theory]
    [InlineData(GateState.Open, ReadinessGroup.Ready)]
    [InlineData(GateState.Retest, ReadinessGroup.Nearly)]
    [InlineData(GateState.Blocked, ReadinessGroup.Blocked)]
    [InlineData(GateState.Waiting, ReadinessGroup.Waiting)]
    [InlineData(GateState.Owned, ReadinessGroup.Owned)]
    public void The_state_decides_before_a_plateau_does(GateState state, ReadinessGroup group) =>
        Assert.Equal(group, Readiness.GroupOf(Verdict(state, Outcome.Met), Flat));

    [Fact]
    public void A_closed_gate_is_stalled_nearly_there_or_in_training()
    {
        Assert.Equal(ReadinessGroup.Stalled, Readiness.GroupOf(Verdict(GateState.Closed, Outcome.Met, Outcome.NotMet), Flat));
        Assert.Equal(ReadinessGroup.Nearly, Readiness.GroupOf(Verdict(GateState.Closed, Outcome.Met, Outcome.NotMet), null));
        Assert.Equal(ReadinessGroup.Training, Readiness.GroupOf(Verdict(GateState.Closed, Outcome.NoData, Outcome.NotMet), null));
    }

    private static Plateau? PlateauOf(double[] gaps, double everyDays, int sessionsAWeek)
    {
        var readings = gaps.Select((g, i) => Shipped.Read("front-split-gap", Side.Left, (gaps.Length - 1 - i) * everyDays + 1, [g, g, g]))
            .ToList();
        var days = (int)((gaps.Length - 1) * everyDays);
        var sessions = Enumerable.Range(0, days * sessionsAWeek / 7 + 1).Select(i => Shipped.Session(1 + i * 7.0 / sessionsAWeek));
        var evidence = Shipped.Evidence(readings, sessions: [.. sessions]);
        return Readiness.PlateauOf(Gate.Judge(Shipped.FrontSplit, Side.Left, 4, 4, evidence), evidence);
    }

    [Fact]
    public void Three_flat_tests_over_four_weeks_of_training_are_a_plateau()
    {
        var plateau = PlateauOf([27, 26.6, 26.8], 14, 3)!;
        Assert.Equal(("front-split-gap", Side.Left, 28, 3), (plateau.Measure, plateau.Side, plateau.Days, plateau.Tests));
        Assert.Null(PlateauOf([27, 26.6, 26.8], 13, 3));
        Assert.Null(PlateauOf([27, 26.8], 30, 3));
        Assert.Null(PlateauOf([27, 26.6, 26.8], 14, 1));
        Assert.Null(PlateauOf([33, 30, 27], 14, 3));
    }

    [Fact]
    public void What_was_gained_before_does_not_hide_a_plateau() => Assert.NotNull(PlateauOf([45, 38, 31, 27, 26.9, 27.1], 14, 3));

    [Fact]
    public void A_gate_that_is_met_has_no_plateau() => Assert.Null(PlateauOf([15, 15.1, 15], 14, 3));

    [Fact]
    public void The_median_of_the_slopes_is_not_moved_by_one_wild_point()
    {
        var slope = TheilSen.Of([(0, 10), (7, 9), (14, 8), (21, 30), (28, 6)])!;
        Assert.Equal(-1 / 7.0, slope.PerDay, 9);
        Assert.True(slope.Lower <= slope.PerDay && slope.PerDay <= slope.Upper);
        Assert.Null(TheilSen.Of([(3, 1), (3, 2)]));
    }
}
