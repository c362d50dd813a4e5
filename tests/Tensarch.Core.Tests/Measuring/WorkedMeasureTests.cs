using Tensarch.Core.Measuring;

namespace Tensarch.Core.Tests.Measuring;

public class WorkedMeasureTests
{
    [Fact]
    public void Knee_to_wall_three_trials_against_a_single_trial_baseline_is_no_detectable_change()
    {
        var now = new Estimate(new[] { 9.8, 10.2, 10.3 }.Average(), ReadingError.StandardError(0.5, 0, 3));
        var baseline = new Estimate(9.0, ReadingError.StandardError(0.5, 0, 1));
        var change = Change.Between(baseline, now);

        Assert.Equal(10.1, now.Value, 3);
        Assert.Equal(0.289, now.StandardError, 3);
        Assert.Equal(1.1, change.Difference, 3);
        Assert.Equal(1.132, change.Mdc95, 3);
        Assert.False(change.Detectable);
    }

    [Fact]
    public void Knee_to_wall_with_day_to_day_noise()
    {
        var now = ReadingError.StandardError(0.5, 0.25, 3);
        var baseline = ReadingError.StandardError(0.5, 0.25, 1);

        Assert.Equal(0.382, now, 3);
        Assert.Equal(0.559, baseline, 3);
        Assert.Equal(1.327, Mdc.Between(now, baseline), 3);
    }

    [Fact]
    public void Two_different_people_widen_the_detectable_change_by_1_4() =>
        Assert.Equal(1.4 * Mdc.Between(0.5, 0.4), Mdc.Between(0.5, 0.4, samePerson: false), 12);

    [Theory]
    [InlineData(12, 86, 86, 163.96)]
    [InlineData(20, 86, 85, 152.94)]
    [InlineData(0, 86, 85, 180)]
    public void Front_split_angle_from_the_gap(double gap, double front, double back, double angle) =>
        Assert.Equal(angle, SplitAngle.FromGap(gap, front, back).Value, 2);

    [Theory]
    [InlineData(-3, 86, 86, "gapNegative", "gapCm")]
    [InlineData(12, 0, 86, "legNotPositive", "frontLegCm")]
    [InlineData(12, 86, -1, "legNotPositive", "backLegCm")]
    [InlineData(90, 86, 95, "gapBeyondLeg", "gapCm")]
    [InlineData(double.NaN, 86, 86, "notANumber", "gapCm")]
    [InlineData(12, double.PositiveInfinity, 86, "notANumber", "frontLegCm")]
    public void A_split_outside_the_domain_is_a_coded_problem(double gap, double front, double back, string code, string field)
    {
        var result = SplitAngle.FromGap(gap, front, back);
        Assert.Contains(result.Problems, p => p.Code == code && p.Field == field);
        Assert.DoesNotContain(result.Problems, p => p.Code == "notANumber" && code != "notANumber");
    }

    [Fact]
    public void A_gap_of_a_whole_leg_is_a_closed_right_angle_sum() => Assert.Equal(0, SplitAngle.FromGap(86, 86, 86).Value, 9);

    [Fact]
    public void The_weaker_side_is_undefined_within_the_detectable_change()
    {
        var left = new Estimate(20, 0.5);
        Assert.Null(Asymmetry.Between(left, new(21.3, 0.5), Better.Down).Weaker);
        Assert.Equal(Side.Right, Asymmetry.Between(left, new(21.4, 0.5), Better.Down).Weaker);
        Assert.Equal(Side.Left, Asymmetry.Between(left, new(21.4, 0.5), Better.Up).Weaker);
    }

    [Fact]
    public void Trials_are_one_to_five_finite_and_plausible()
    {
        Assert.Equal("trialsCount", TrialCheck.Check([], 0, 80).Single().Code);
        Assert.Equal("trialsCount", TrialCheck.Check([1, 2, 3, 4, 5, 6], 0, 80).Single().Code);
        Assert.Equal("trials[1]", TrialCheck.Check([1, -3], 0, 80).Single().Field);
        Assert.Equal("notANumber", TrialCheck.Check([double.NaN], 0, 80).Single().Code);
        Assert.Empty(TrialCheck.Check([0, 80], 0, 80));
    }

    [Fact]
    public void Turning_out_the_hips_disqualifies_under_the_square_standard_only()
    {
        var gap = Shipped.Content.Measure("front-split-gap");
        Assert.True(gap.IsDisqualified(["hips-turned-out"], "square"));
        Assert.False(gap.IsDisqualified(["hips-turned-out"], "open"));
        Assert.True(gap.IsDisqualified(["front-knee-bent"], "open"));
        Assert.False(gap.IsDisqualified(["leaning-on-the-back-hip"], "square"));
    }
}
