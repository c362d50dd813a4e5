using CsCheck;
using Tensarch.Core.Measuring;

namespace Tensarch.Core.Tests.Measuring;

public class MeasuringProperties
{
    private static readonly Gen<double> Error = Gen.Double[0, 5];

    [Fact]
    public void More_trials_never_widen_the_error() =>
        Gen.Select(Error, Error, Gen.Int[1, 4], Error)
            .Sample((sem, tau, n, r) => ReadingError.StandardError(sem, tau, n + 1, r) <= ReadingError.StandardError(sem, tau, n, r));

    [Fact]
    public void Swapping_the_sides_swaps_the_weaker_one_and_the_sign() =>
        Gen.Select(Gen.Double[0, 80], Gen.Double[0, 80], Error, Error, Gen.Bool)
            .Sample(
                (left, right, seL, seR, up) =>
                {
                    var better = up ? Better.Up : Better.Down;
                    var one = Asymmetry.Between(new(left, seL), new(right, seR), better);
                    var other = Asymmetry.Between(new(right, seR), new(left, seL), better);
                    return one.Weaker?.Other() == other.Weaker && one.Change.Difference == -other.Change.Difference;
                }
            );

    [Fact]
    public void Readings_in_any_order_pool_into_the_same_tests_none_wider_than_twelve_hours() =>
        Gen.Double[0, 20]
            .Array[1, 8]
            .Sample(days =>
            {
                var readings = days.Select(d => Shipped.Read("front-split-gap", Side.Left, d, [20 + d])).ToList();
                var pooled = PooledTest.From(readings);
                var reversed = PooledTest.From(Enumerable.Reverse(readings));
                return pooled.Select(t => t.Estimate).SequenceEqual(reversed.Select(t => t.Estimate))
                    && pooled.Sum(t => t.Readings.Count) == readings.Count
                    && pooled.All(t => t.Last - t.First <= PooledTest.Window);
            });

    [Fact]
    public void A_deeper_split_is_a_wider_angle() =>
        Gen.Select(Gen.Double[0, 60], Gen.Double[0.1, 20], Gen.Double[80, 110], Gen.Double[80, 110])
            .Sample(
                (gap, more, front, back) => SplitAngle.FromGap(gap, front, back).Value > SplitAngle.FromGap(gap + more, front, back).Value
            );
}
