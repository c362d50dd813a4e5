using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Tests.Skills;

public class RomTestTests
{
    private static readonly RomTest AtMost22 = new(Comparison.AtMost, 22, 21, 3);

    private static Reading Gap(double daysAgo, double tau, params double[] trials) =>
        Shipped.Read("front-split-gap", Side.Left, daysAgo, trials, sem: 1.0, tau: tau);

    [Fact]
    public void One_day_at_the_line_is_borderline()
    {
        var verdict = AtMost22.Judge([Gap(1, 0, 21.0, 21.6, 21.4)], Shipped.Now);
        Assert.Equal((Outcome.Borderline, "withinNoise"), (verdict.Outcome, verdict.Reason));
        Assert.Equal(21.333, verdict.Value!.Value, 3);
        Assert.Equal(0.577, verdict.StandardError!.Value, 3);
        Assert.Equal(0.667, verdict.Margin!.Value, 3);
        Assert.Equal(0.740, verdict.Noise!.Value, 3);
    }

    [Fact]
    public void A_second_day_at_the_line_confirms()
    {
        var verdict = AtMost22.Judge([Gap(3, 0, 21.0, 21.6, 21.4), Gap(1, 0, 21.4, 21.6, 21.5)], Shipped.Now);
        Assert.Equal((Outcome.Met, "confirmedPass"), (verdict.Outcome, verdict.Reason));
        Assert.Equal(2, verdict.Evidence.Count);
    }

    [Fact]
    public void With_day_to_day_noise_the_first_day_is_borderline_too()
    {
        var verdict = AtMost22.Judge([Gap(1, 0.5, 21.0, 21.6, 21.4)], Shipped.Now);
        Assert.Equal(0.764, verdict.StandardError!.Value, 3);
        Assert.Equal(0.979, verdict.Noise!.Value, 3);
        Assert.Equal(Outcome.Borderline, verdict.Outcome);
    }

    [Theory]
    [InlineData(39.99, Outcome.Borderline)]
    [InlineData(40, Outcome.Met)]
    public void A_confirming_day_is_at_least_forty_hours_older(double hours, Outcome outcome) =>
        Assert.Equal(outcome, AtMost22.Judge([Gap(1 + hours / 24, 0, 21.5, 21.5, 21.5), Gap(1, 0, 21.5, 21.5, 21.5)], Shipped.Now).Outcome);

    [Fact]
    public void A_failed_day_between_undoes_the_confirmation() =>
        Assert.Equal(
            Outcome.Borderline,
            AtMost22.Judge([Gap(5, 0, 21.5, 21.5, 21.5), Gap(3, 0, 22.2, 22.2, 22.2), Gap(1, 0, 21.5, 21.5, 21.5)], Shipped.Now).Outcome
        );

    [Fact]
    public void A_day_with_too_few_trials_confirms_nothing_and_passes_nothing()
    {
        Assert.Equal("tooFewTrials", AtMost22.Judge([Gap(1, 0, 10, 10)], Shipped.Now).Reason);
        Assert.Equal(Outcome.Borderline, AtMost22.Judge([Gap(4, 0, 21.5, 21.5), Gap(1, 0, 21.5, 21.5, 21.5)], Shipped.Now).Outcome);
    }

    [Theory]
    [InlineData(21, Outcome.Met)]
    [InlineData(21.01, Outcome.Stale)]
    public void A_reading_past_its_shelf_life_is_stale(double daysAgo, Outcome outcome) =>
        Assert.Equal(outcome, AtMost22.Judge([Gap(daysAgo, 0, 10, 10, 10)], Shipped.Now).Outcome);

    [Fact]
    public void Nothing_read_is_no_data_and_far_short_is_not_met()
    {
        Assert.Equal(Outcome.NoData, AtMost22.Judge([], Shipped.Now).Outcome);
        Assert.Equal(Outcome.NotMet, AtMost22.Judge([Gap(1, 0, 30, 30, 30)], Shipped.Now).Outcome);
    }

    [Fact]
    public void A_disqualified_reading_counts_for_nothing() =>
        Assert.Equal(Outcome.NoData, AtMost22.Judge([Gap(1, 0, 10, 10, 10) with { Disqualified = true }], Shipped.Now).Outcome);

    [Fact]
    public void At_least_mirrors_at_most()
    {
        var atLeast = new RomTest(Comparison.AtLeast, -22, 21, 3);
        foreach (var value in new[] { 20.0, 21.5, 22, 22.5, 24 })
            Assert.Equal(
                AtMost22.Judge([Gap(1, 0, value, value, value)], Shipped.Now).Outcome,
                atLeast.Judge([Gap(1, 0, -value, -value, -value)], Shipped.Now).Outcome
            );
    }

    [Fact]
    public void Exactly_on_the_clear_pass_bound_is_met()
    {
        var noise = GatePolicy.OneSided90 * 1.0 / Math.Sqrt(3);
        Assert.Equal("clearPass", AtMost22.Judge([Gap(1, 0, 22 - noise - 1e-9, 22 - noise - 1e-9, 22 - noise - 1e-9)], Shipped.Now).Reason);
        Assert.Equal(
            "withinNoise",
            AtMost22.Judge([Gap(1, 0, 22 - noise + 1e-9, 22 - noise + 1e-9, 22 - noise + 1e-9)], Shipped.Now).Reason
        );
    }
}
