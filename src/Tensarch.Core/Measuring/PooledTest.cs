namespace Tensarch.Core.Measuring;

/// <summary>Readings of one series within 12 hours, pooled: the unit a gate counts.</summary>
/// <param name="First">When its first reading was taken.</param>
/// <param name="Last">When its last reading was taken.</param>
public sealed record PooledTest(
    DateTimeOffset First,
    DateTimeOffset Last,
    Estimate Estimate,
    int Trials,
    IReadOnlyList<Guid> Readings,
    Guid TakenBy
)
{
    public static readonly TimeSpan Window = TimeSpan.FromHours(12);

    /// <summary>Pools readings of one series, in any order, into tests, oldest first. A test spans at most 12 hours from its first reading.</summary>
    public static IReadOnlyList<PooledTest> From(IEnumerable<Reading> readings)
    {
        var tests = new List<PooledTest>();
        var open = new List<Reading>();
        foreach (var reading in readings.Where(r => !r.Disqualified).OrderBy(r => r.At).ThenBy(r => r.Id))
        {
            if (open.Count > 0 && reading.At - open[0].At > Window)
            {
                tests.Add(Pool(open));
                open.Clear();
            }
            open.Add(reading);
        }
        if (open.Count > 0)
            tests.Add(Pool(open));
        return tests;
    }

    /// <summary>The mean of all trials; each reading's SEM weighs by its trials, the widest τ and resolution stand for all.</summary>
    private static PooledTest Pool(List<Reading> readings)
    {
        var trials = readings.Sum(r => r.Trials.Count);
        var sem = Math.Sqrt(readings.Sum(r => r.Trials.Count * r.Sem * r.Sem) / trials);
        var estimate = new Estimate(
            readings.Sum(r => r.Trials.Sum()) / trials,
            ReadingError.StandardError(sem, readings.Max(r => r.Tau), trials, readings.Max(r => r.Resolution))
        );
        return new(readings[0].At, readings[^1].At, estimate, trials, [.. readings.Select(r => r.Id)], readings[^1].TakenBy);
    }
}
