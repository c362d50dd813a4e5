namespace Tensarch.Core.Measuring;

/// <summary>A value far from what the series has shown: taken after a "yes, really".</summary>
/// <param name="Median">Of the last readings, in the measure's unit.</param>
/// <param name="Limit">How far from it a value may be, in the measure's unit.</param>
public sealed record Unlikely(double Median, double Limit)
{
    public const int LastReadings = 5;
    public const int WithinDays = 56;
    private const double TimesMdc = 4;

    /// <summary>More than 4 MDC from the median of the series' last five readings within 56 days.</summary>
    /// <param name="earlier">Readings of the series before this one, in any order, disqualified and void ones left out.</param>
    /// <returns>None when the value is likely, or when there is nothing to compare it with.</returns>
    public static Unlikely? Of(Estimate reading, DateTimeOffset at, IEnumerable<(DateTimeOffset At, Estimate Estimate)> earlier)
    {
        var last = earlier
            .Where(r => r.At < at && at - r.At <= TimeSpan.FromDays(WithinDays))
            .OrderByDescending(r => r.At)
            .Take(LastReadings)
            .Select(r => r.Estimate)
            .ToList();
        if (last.Count == 0)
            return null;
        var median = Middle([.. last.Select(e => e.Value)]);
        var limit = TimesMdc * Mdc.Between(reading.StandardError, Middle([.. last.Select(e => e.StandardError)]));
        return limit > 0 && Math.Abs(reading.Value - median) > limit ? new(median, limit) : null;
    }

    private static double Middle(List<double> values)
    {
        values.Sort();
        var half = values.Count / 2;
        return values.Count % 2 == 1 ? values[half] : (values[half - 1] + values[half]) / 2;
    }
}
