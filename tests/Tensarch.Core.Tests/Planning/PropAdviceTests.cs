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
}
