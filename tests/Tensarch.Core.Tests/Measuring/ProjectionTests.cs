using Tensarch.Core.Measuring;

namespace Tensarch.Core.Tests.Measuring;

public class ProjectionTests
{
    private static List<(double, double, double)> Every(int days, double error, params double[] values) =>
        [.. values.Select((v, i) => ((double)(days * (i + 1 - values.Length)), v, error))];

    [Fact]
    public void A_course_that_is_straight_and_hardly_errs_comes_there_when_it_does()
    {
        // Two a week, four to go: in two weeks, and a little more where it levels off.
        var ahead = Projections.Of(Every(7, 0.05, 32, 30, 28, 26, 24), 20, rising: false)!;
        Assert.InRange(ahead.Earliest!.Value, 13, 14);
        Assert.InRange(ahead.Latest!.Value, 14, 16);
    }

    [Fact]
    public void A_course_that_levels_off_before_it_does_not_come_there()
    {
        var ahead = Projections.Of(Every(14, 0.3, 40, 32, 28, 26, 25, 24.5), 20, rising: false)!;
        Assert.Equal(new(null, null), ahead);
        // A straight line through the last of them would be there in a few weeks.
    }

    [Fact]
    public void What_errs_much_is_not_known_well()
    {
        var ahead = Projections.Of(Every(14, 2, 30, 29, 27, 27), 20, rising: false)!;
        Assert.InRange(ahead.Earliest!.Value, 14, 40);
        Assert.Null(ahead.Latest);
    }

    [Fact]
    public void Two_days_are_too_few() => Assert.Null(Projections.Of([(-7, 10, 1), (-7, 11, 1), (0, 12, 1)], 20, rising: true));

    [Fact]
    public void What_goes_the_wrong_way_never_comes_there() =>
        Assert.Equal(new(null, null), Projections.Of(Every(14, 0.5, 20, 22, 24, 26), 10, rising: false));

    [Fact]
    public void Holds_whose_error_is_not_known_are_taken_by_their_scatter()
    {
        var even = Projections.Of(Every(7, 0, 10, 14, 18, 22, 26), 30, rising: true)!;
        var uneven = Projections.Of(Every(7, 0, 10, 17, 15, 24, 24), 30, rising: true)!;
        Assert.InRange(even.Earliest!.Value, 4, 7);
        Assert.True(uneven.Latest is null || uneven.Latest - uneven.Earliest > even.Latest - even.Earliest);
    }

    /// <summary>
    /// A thousand made-up students who gain as the demo's do: each exposure 6 % of what is left to a limit somewhat beyond what is asked, two to five
    /// exposures a week; read every two weeks, three to seven times, with the catalogue's noise. Seed 20261127.
    /// </summary>
    [Fact]
    public void Four_of_five_intervals_hold_the_day_that_is_true()
    {
        var random = new Random(20261127);
        double Noise() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        var measures = new[] { "front-split-gap", "passive-slr", "active-slr", "hip-extension" }.Select(Shipped.Content.Measure).ToList();
        var (held, all) = (0, 0);
        while (all < (Budget.IsLong ? 1000 : 400))
        {
            var measure = measures[random.Next(measures.Count)];
            var rising = !measure.Key.EndsWith("-gap", StringComparison.Ordinal);
            var wayToGo = (measure.Max - measure.Min) * (0.1 + 0.2 * random.NextDouble());
            var limit = wayToGo * (1.05 + 0.3 * random.NextDouble());
            var rate = 0.06 * random.Next(2, 6) / 7;
            var tests = random.Next(3, 8);
            var today = 14 * (tests - 1);
            var reached = -Math.Log(1 - wayToGo / limit) / rate - today;
            if (reached <= 0)
                continue;
            var error = ReadingError.StandardError(measure.Sem, measure.Tau, 3, measure.Resolution);
            var points = Enumerable
                .Range(0, tests)
                .Select(i => (Day: 14.0 * i - today, Way: limit * (1 - Math.Exp(-rate * 14 * i)) + error * Noise()))
                .Select(p => (p.Day, rising ? p.Way : -p.Way, error))
                .ToList();
            var ahead = Projections.Of(points, rising ? wayToGo : -wayToGo, rising)!;
            all++;
            if (ahead.Earliest is { } earliest ? earliest <= reached && !(ahead.Latest < reached) : reached > Projections.MostDays)
                held++;
        }
        Assert.InRange(held / (double)all, 0.75, 0.85);
    }
}
