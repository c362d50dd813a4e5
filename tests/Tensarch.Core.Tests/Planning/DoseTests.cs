using CsCheck;
using Tensarch.Core.Planning;
using Tensarch.Core.Students;

namespace Tensarch.Core.Tests.Planning;

public class DoseTests
{
    private static readonly RampedDose Ramp = new(90, 12, 12, 60, 2, 20, 80, 4);

    [Fact]
    public void A_ramp_is_capped_at_the_students_top() =>
        Assert.Equal((20, 60), (Ramp.CappedAt(60).FromPercent, Ramp.CappedAt(60).ToPercent));

    [Theory]
    [InlineData(null, Absence.None)]
    [InlineData(3, Absence.None)]
    [InlineData(4, Absence.RepeatLastWeek)]
    [InlineData(10, Absence.RepeatLastWeek)]
    [InlineData(11, Absence.Lighter)]
    [InlineData(27, Absence.Lighter)]
    [InlineData(28, Absence.ReBaseline)]
    public void A_break_has_its_response(int? days, Absence absence) => Assert.Equal(absence, Absences.After(days));

    [Fact]
    public void A_lightened_dose_is_never_longer_and_never_nothing() =>
        Gen.Select(Gen.Int[1, 200], Gen.Double[0.05, 1])
            .Sample(
                (seconds, share) =>
                {
                    var light = (HoldDose)new HoldDose(seconds, null, 2, 30).Lightened(share);
                    return light.Seconds >= 1 && light.Seconds <= seconds && light.Rounds == 2;
                }
            );

    [Fact]
    public void A_ramp_over_sixty_percent_strains_the_breath_heavily()
    {
        var drill = Shipped.Content.Drill("split-ramped");
        LoadLevel Strain(int top) => drill.LoadsOf(drill.Variants[0], Ramp with { ToPercent = top })[LoadTag.BreathStrain];
        Assert.Equal((LoadLevel.Light, LoadLevel.Heavy), (Strain(60), Strain(61)));
    }

    [Theory]
    [InlineData(44, LoadLevel.Light)]
    [InlineData(45, LoadLevel.Heavy)]
    public void A_passive_hold_is_heavy_from_forty_five_seconds(int seconds, LoadLevel load)
    {
        var drill = Shipped.Content.Drill("pigeon");
        Assert.Equal(load, drill.LoadsOf(drill.Variants[0], new HoldDose(seconds, null, 1, 0))[LoadTag.PassiveEndRange]);
    }

    [Theory]
    [InlineData(5.6, LoadLevel.Light)]
    [InlineData(5.7, LoadLevel.Heavy)]
    public void A_breath_is_as_long_as_whoever_holds_it_breathes(double breath, LoadLevel load)
    {
        var drill = Shipped.Content.Drill("pigeon");
        Assert.Equal(load, drill.LoadsOf(drill.Variants[0], new HoldDose(null, 8, 1, 0), breath)[LoadTag.PassiveEndRange]);
    }

    [Fact]
    public void A_variant_may_override_the_load_of_its_drill()
    {
        var drill = Shipped.Content.Drill("wrist-series");
        Assert.Empty(drill.LoadsOf(drill.Variants[0], drill.Dose));
        Assert.Equal(LoadLevel.Light, drill.LoadsOf(drill.Variants[1], drill.Dose)[LoadTag.Wrist]);
    }

    [Theory]
    [InlineData("2008-03-03", 18)]
    [InlineData("2008-03-04", 17)]
    [InlineData("2004-02-29", 22)]
    public void Age_counts_whole_years(string born, int years) =>
        Assert.Equal(years, Age.Years(DateOnly.Parse(born, System.Globalization.CultureInfo.InvariantCulture), new DateOnly(2026, 3, 3)));
}
