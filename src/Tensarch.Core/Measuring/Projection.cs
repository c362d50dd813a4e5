namespace Tensarch.Core.Measuring;

/// <summary>Days from now between which a series is likely to be where it is wanted.</summary>
/// <param name="Earliest">None where it does not come there within a year.</param>
/// <param name="Latest">None where it may as well be later than a year, or never.</param>
public sealed record Projection(int? Earliest, int? Latest);

/// <summary>
/// When a series that was measured comes to a threshold: an 80 % interval of days. Every day is held against the readings: it is in the interval
/// where some course through the threshold on that day, a straight one or one that levels off, fits them hardly worse than the best of all
/// courses does (profile likelihood, one degree of freedom; Box and Cox 1964 for the interval). A straight line alone is too sure of itself where
/// what grows levels off, as all of it does.
/// </summary>
public static class Projections
{
    public const int FewestTests = 3;
    public const int MostDays = 365;

    /// <summary>80 % point of chi-square with one degree of freedom.</summary>
    private const double ChiSquare80 = 1.6423744151498;

    /// <summary>Of what is asked, where a reading's own error is not known.</summary>
    private const double LeastError = 0.05;

    /// <summary>How fast a course levels off, a day: not at all (a straight line), and half-lives from half a year to a week.</summary>
    private static readonly double[] Rates = [0, .. Enumerable.Range(0, 15).Select(i => 0.004 * Math.Pow(1.25, i))];

    /// <param name="points">Days from now (not after it), values and their standard errors; an error of 0 is not known, and is taken from the scatter.</param>
    /// <param name="threshold">Not reached yet.</param>
    /// <param name="rising">More is better.</param>
    /// <returns>None for fewer than three days.</returns>
    public static Projection? Of(IReadOnlyList<(double Day, double Value, double Error)> points, double threshold, bool rising)
    {
        if (points.Select(p => p.Day).Distinct().Count() < FewestTests)
            return null;
        var from = points.Min(p => p.Day);
        var seen = points.Select(p => (Day: p.Day - from, p.Value, Weight: Weight(p.Error))).ToList();
        var courses = Rates.Select(rate => new Course(rate, seen, rising)).ToList();
        var best = courses.Min(c => c.Misfit());
        // Where no error is known, the scatter about the best course says what it is.
        var scale = points.Any(p => p.Error > 0) ? 1 : Scatter(best, points.Count, threshold);
        var days = Enumerable
            .Range(0, MostDays + 1)
            .Where(day => (courses.Min(c => c.MisfitThrough(day - from, threshold)) - best) / scale <= ChiSquare80)
            .ToList();
        return days.Count == 0 ? new(null, null) : new(days[0], days[^1] == MostDays ? null : days[^1]);
    }

    private static double Weight(double error) => error > 0 ? 1 / (error * error) : 1;

    private static double Scatter(double misfit, int points, double threshold)
    {
        var least = Math.Max(LeastError * Math.Abs(threshold), 1e-6);
        return Math.Max(misfit / Math.Max(1, points - FewestTests), least * least);
    }

    /// <summary>All courses of one rate: a + b·t, or a + b·exp(−rate·t).</summary>
    private sealed class Course(double rate, List<(double Day, double Value, double Weight)> seen, bool rising)
    {
        private readonly List<(double At, double Value, double Weight)> points =
        [
            .. seen.Select(p => (At(p.Day, rate), p.Value, p.Weight)),
        ];

        private static double At(double day, double rate) => rate == 0 ? day : Math.Exp(-rate * day);

        /// <summary>Weighted squares of the course that fits best.</summary>
        public double Misfit()
        {
            var weight = points.Sum(p => p.Weight);
            var (x, y) = (points.Sum(p => p.Weight * p.At) / weight, points.Sum(p => p.Weight * p.Value) / weight);
            var spread = points.Sum(p => p.Weight * (p.At - x) * (p.At - x));
            var slope = points.Sum(p => p.Weight * (p.At - x) * (p.Value - y)) / spread;
            return points.Sum(p => p.Weight * Square(p.Value - y - slope * (p.At - x)));
        }

        /// <summary>The same of those that are at a value on a day, coming from its wrong side.</summary>
        public double MisfitThrough(double day, double value)
        {
            var at = At(day, rate);
            var spread = points.Sum(p => p.Weight * Square(p.At - at));
            var slope = points.Sum(p => p.Weight * (p.At - at) * (p.Value - value)) / spread;
            return slope > 0 == (rising == (rate == 0))
                ? points.Sum(p => p.Weight * Square(p.Value - value - slope * (p.At - at)))
                : double.PositiveInfinity;
        }

        private static double Square(double of) => of * of;
    }
}
