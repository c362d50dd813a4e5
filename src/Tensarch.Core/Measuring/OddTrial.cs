namespace Tensarch.Core.Measuring;

/// <summary>A trial far from the others of its reading: a slip of the tool or of the finger more often than the body. Taken after a "yes, really".</summary>
/// <param name="Index">Which trial, from 0.</param>
/// <param name="Middle">The median of the others, in the measure's unit.</param>
/// <param name="Limit">How far from it a trial may be, in the measure's unit.</param>
public sealed record OddTrial(int Index, double Value, double Middle, double Limit)
{
    /// <summary>Fewer say nothing about which one is odd.</summary>
    public const int FewestTrials = 3;

    /// <summary>Two trials of one sitting differ by less than MDC₉₅ = 1.96·√2·SEM nineteen times of twenty (Weir 2005); twice that is asked about.</summary>
    private const double TimesMdc = 2;

    /// <param name="sem">Of one trial, in the measure's unit.</param>
    /// <param name="resolution">The step in which it is read: the limit is never less than four of them.</param>
    /// <returns>The farthest such trial; none when the trials agree.</returns>
    public static OddTrial? Of(IReadOnlyList<double> trials, double sem, double resolution)
    {
        if (trials.Count < FewestTrials)
            return null;
        var limit = Math.Max(TimesMdc * Mdc.Between(sem, sem), 4 * resolution);
        return trials
            .Select((value, i) => new OddTrial(i, value, MiddleOf(trials.Where((_, j) => j != i)), limit))
            .Where(t => Math.Abs(t.Value - t.Middle) > limit)
            .MaxBy(t => Math.Abs(t.Value - t.Middle));
    }

    private static double MiddleOf(IEnumerable<double> values)
    {
        var sorted = values.Order().ToList();
        var half = sorted.Count / 2;
        return sorted.Count % 2 == 1 ? sorted[half] : (sorted[half - 1] + sorted[half]) / 2;
    }
}
