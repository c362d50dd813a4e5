namespace Tensarch.Core.Measuring;

/// <summary>A robust slope with its interval, in the measure's unit per day.</summary>
public sealed record Slope(double PerDay, double Lower, double Upper)
{
    public bool MayBeFlat => Lower <= 0 && Upper >= 0;
}

/// <summary>The median of the slopes between all pairs of points (Theil 1950), with the interval of Sen (1968).</summary>
public static class TheilSen
{
    /// <summary>Two-sided 80 % point of the normal distribution.</summary>
    private const double Z80 = 1.2815515655446004;

    /// <param name="points">Days and values; at least two different days.</param>
    /// <returns>The slope with its 80 % interval; none for fewer than two different days.</returns>
    public static Slope? Of(IReadOnlyList<(double Day, double Value)> points)
    {
        var slopes = (
            from i in Enumerable.Range(0, points.Count)
            from j in Enumerable.Range(i + 1, points.Count - i - 1)
            where points[j].Day != points[i].Day
            select (points[j].Value - points[i].Value) / (points[j].Day - points[i].Day)
        )
            .Order()
            .ToList();
        if (slopes.Count == 0)
            return null;
        double n = points.Count;
        var reach = Z80 * Math.Sqrt(n * (n - 1) * (2 * n + 5) / 18);
        var lower = (int)Math.Floor((slopes.Count - reach) / 2) - 1;
        var upper = (int)Math.Ceiling((slopes.Count + reach) / 2);
        return new(Median(slopes), slopes[Math.Max(0, lower)], slopes[Math.Min(slopes.Count - 1, upper)]);
    }

    private static double Median(List<double> sorted) =>
        sorted.Count % 2 == 1 ? sorted[sorted.Count / 2] : (sorted[sorted.Count / 2 - 1] + sorted[sorted.Count / 2]) / 2;
}
