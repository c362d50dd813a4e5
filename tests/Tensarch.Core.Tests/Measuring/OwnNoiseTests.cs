using CsCheck;
using Tensarch.Core.Measuring;

namespace Tensarch.Core.Tests.Measuring;

public class OwnNoiseTests
{
    private static readonly DateTimeOffset Start = new(2026, 3, 2, 10, 0, 0, TimeSpan.Zero);

    private static Repeat Taken(double day, params double[] trials) => new("a", Start.AddDays(day), trials);

    [Fact]
    public void Without_repeats_the_catalogue_stands()
    {
        var noise = OwnNoise.Blend(1.0, 0.5, [Taken(0, 20), Taken(30, 21)]);
        Assert.Equal(new Noise(1.0, 0, 0.5, 0), noise);
    }

    [Fact]
    public void Pooled_within_reading_variance_is_blended_with_ten_prior_degrees_of_freedom()
    {
        // s² of 9.8, 10.2, 10.3 is 0.07 on 2 degrees of freedom, of 9.0, 9.4 it is 0.08 on 1: ν = 3, ν·s² = 0.22.
        var noise = OwnNoise.Blend(0.5, 0.25, [Taken(0, 9.8, 10.2, 10.3), Taken(30, 9.0, 9.4)]);
        Assert.Equal(3, noise.SemDof);
        Assert.Equal(Math.Sqrt((10 * 0.25 + 0.22) / 13), noise.Sem, 12);
    }

    [Fact]
    public void A_flattering_sitting_never_takes_the_error_below_six_tenths()
    {
        var same = Enumerable.Range(0, 100).Select(i => Taken(30 * i, 20, 20, 20)).ToList();
        Assert.Equal(0.6, OwnNoise.Blend(1.0, 0.5, same).Sem, 12);
    }

    [Fact]
    public void Day_to_day_noise_comes_from_pairs_one_to_seven_days_apart_only()
    {
        var sem = 1.0;
        var pair = OwnNoise.Blend(sem, 0.5, [Taken(0, 20), Taken(3, 24)]);
        Assert.Equal(1, pair.TauPairs);
        Assert.Equal(Math.Sqrt((10 * 0.25 + (16 - 2) / 2.0) / 11), pair.Tau, 12);
        Assert.Equal(0, OwnNoise.Blend(sem, 0.5, [Taken(0, 20), Taken(0.5, 24)]).TauPairs);
        Assert.Equal(1, OwnNoise.Blend(sem, 0.5, [Taken(0, 20), Taken(1, 24)]).TauPairs);
        Assert.Equal(1, OwnNoise.Blend(sem, 0.5, [Taken(0, 20), Taken(7, 24)]).TauPairs);
        Assert.Equal(0, OwnNoise.Blend(sem, 0.5, [Taken(0, 20), Taken(7.01, 24)]).TauPairs);
        Assert.Equal(0, OwnNoise.Blend(sem, 0.5, [Taken(0, 20), new("b", Start.AddDays(3), [24])]).TauPairs);
    }

    [Fact]
    public void One_more_reading_never_makes_the_error_jump() =>
        Gen.Select(Gen.Double[0.1, 3], Gen.Double[15, 25].Array[2, 5].Array[0, 30], Gen.Double[-1, 1].Array[2, 5])
            .Sample(
                (sem, before, errors) =>
                {
                    var old = before.Select((trials, i) => Taken(30 * i, trials)).ToList();
                    var mean = errors.Average();
                    var squares = errors.Sum(e => (e - mean) * (e - mean)) * sem * sem;
                    var (was, now) = (
                        OwnNoise.Blend(sem, 0, old),
                        OwnNoise.Blend(sem, 0, [.. old, Taken(9000, [.. errors.Select(e => 20 + e * sem)])])
                    );
                    // The variance moves by at most the new reading's share of all degrees of freedom.
                    var share = (errors.Length - 1.0) / (10 + now.SemDof);
                    var most = share * Math.Max(was.Sem * was.Sem, squares / (errors.Length - 1)) + 1e-9;
                    return Math.Abs(now.Sem * now.Sem - was.Sem * was.Sem) <= most;
                }
            );

    [Fact]
    public void The_order_in_which_repeats_arrive_changes_nothing() =>
        Gen.Double[15, 25]
            .Array[1, 4]
            .Array[1, 12]
            .Sample(all =>
            {
                var repeats = all.Select((trials, i) => Taken(3 * i, trials)).ToList();
                var (one, other) = (OwnNoise.Blend(1, 0.5, repeats), OwnNoise.Blend(1, 0.5, Enumerable.Reverse(repeats).ToList()));
                return one.SemDof == other.SemDof
                    && one.TauPairs == other.TauPairs
                    && Math.Abs(one.Sem - other.Sem) < 1e-9
                    && Math.Abs(one.Tau - other.Tau) < 1e-9;
            });

    [Fact]
    public void A_value_far_from_the_last_five_readings_is_unlikely()
    {
        var now = Start.AddDays(30);
        var earlier = new[] { 20.0, 21, 20, 19, 20, 60 }.Select((v, i) => (now.AddDays(-i - 1), new Estimate(v, 1))).ToList();
        var limit = 4 * 1.96 * Math.Sqrt(2);
        Assert.Null(Unlikely.Of(new(20 + limit - 0.01, 1), now, earlier));
        var unlikely = Unlikely.Of(new(20 + limit + 0.01, 1), now, earlier)!;
        Assert.Equal(20, unlikely.Median);
        Assert.Equal(limit, unlikely.Limit, 9);
        Assert.Null(Unlikely.Of(new(90, 1), now.AddDays(57), earlier));
        Assert.Null(Unlikely.Of(new(90, 1), now, []));
        Assert.Null(Unlikely.Of(new(90, 0), now, [(now.AddDays(-1), new(10, 0))]));
    }
}
