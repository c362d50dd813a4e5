using CsCheck;
using Tensarch.Core.Planning;

namespace Tensarch.Core.Tests.Planning;

public class PropAdviceTests
{
    [Theory]
    [InlineData(2, 4, 0, "floor")]
    [InlineData(10, 4, 7.5, "blocks")]
    [InlineData(12, 4, 15, "blocks")]
    [InlineData(25, 4, 22.5, "blocks")]
    [InlineData(41, 4, 38, "blocks")]
    [InlineData(41.1, 4, 45, "chairs")]
    [InlineData(30, 2, 45, "nearestAbove")]
    [InlineData(12, 0, 45, "nearestAbove")]
    public void The_lowest_combination_that_fits_the_gap(double gap, int blocks, double height, string code)
    {
        var advice = PropAdvice.ForFrontSplit(gap, blocks);
        Assert.Equal((height, code), (advice.HeightCm, advice.Code));
    }

    [Fact]
    public void Wide_faces_come_before_tall_ones_of_the_same_height() =>
        Assert.Equal([Face.Low, Face.Low], PropAdvice.ForFrontSplit(15, 4).Faces);

    [Fact]
    public void Two_tall_faces_are_never_stacked_and_what_fits_lies_within_the_bounds() =>
        Gen.Select(Gen.Double[0, 60], Gen.Int[0, 8])
            .Sample(
                (gap, blocks) =>
                {
                    var advice = PropAdvice.ForFrontSplit(gap, blocks);
                    return advice.Faces.Count(f => f == Face.High) < 2
                        && advice.Faces.Count * 2 <= blocks
                        && advice.HeightCm >= gap - 3 - (gap > 41 ? 60 : 0)
                        && (advice.Code is not ("blocks" or "floor") || advice.HeightCm <= gap + 6);
                }
            );

    [Theory]
    [InlineData(35, 4, "Blocks at 38 cm, Blocks at 30.5 cm, Blocks at 23 cm")]
    [InlineData(20, 2, "Blocks at 23 cm, Blocks at 15 cm, Blocks at 7.5 cm")]
    [InlineData(12, 2, "Blocks at 15 cm, Blocks at 7.5 cm, Floor")]
    [InlineData(2, 4, "Blocks at 15 cm, Blocks at 7.5 cm, Floor")]
    [InlineData(50, 4, "Chairs at 45 cm, Blocks at 38 cm, Blocks at 30.5 cm")]
    [InlineData(30, 0, "Chairs at 45 cm")]
    public void A_ladder_of_supports_is_named_by_the_advice(double gap, int blocks, string rungs) =>
        Assert.Equal(rungs, string.Join(", ", Advised("to-low", gap, blocks).Rungs.Select(r => r.Name)));

    [Fact]
    public void The_advised_height_is_always_among_the_supports_and_they_only_fall() =>
        Gen.Select(
                Gen.Double[0, 60],
                Gen.Int[0, 8],
                Gen.OneOf(Gen.Const("high-only"), Gen.Const("to-middle"), Gen.Const("to-low"), Gen.Const("floor"))
            )
            .Sample(
                (gap, blocks, variant) =>
                {
                    var advice = PropAdvice.ForFrontSplit(gap, blocks);
                    var down = advice.Down(4, blocks);
                    var dose = Advised(variant, gap, blocks);
                    return down.Contains(advice)
                        && down.Zip(down.Skip(1)).All(d => d.First.HeightCm >= d.Second.HeightCm + 5)
                        && dose.Rungs.Any(r => r.Name == Rung.At(advice, 1).Name)
                        && dose.Rungs.Sum(r => r.Seconds) == Support(variant).Rungs.Sum(r => r.Seconds);
                }
            );

    private static SupportLadderDose Advised(string variant, double gap, int blocks) =>
        Support(variant).Owned(blocks).Advised(PropAdvice.ForFrontSplit(gap, blocks), blocks);

    private static SupportLadderDose Support(string variant)
    {
        var drill = Shipped.Content.Drill("split-support");
        return (SupportLadderDose)drill.DoseOf(drill.VariantAt(variant));
    }
}
