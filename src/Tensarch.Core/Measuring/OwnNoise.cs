namespace Tensarch.Core.Measuring;

/// <summary>A reading as far as it tells of its taker's noise.</summary>
/// <param name="Series">Student and series; only readings of one series are paired.</param>
public sealed record Repeat(string Series, DateTimeOffset At, IReadOnlyList<double> Trials, double Resolution = 0);

/// <summary>SEM and τ of one coach with one measure and instrument, and on how much they rest.</summary>
/// <param name="Sem">Trial to trial, in the measure's unit.</param>
/// <param name="SemDof">ν: degrees of freedom of the coach's own repeats; 0 when the catalogue stands alone.</param>
/// <param name="Tau">Day to day, in the measure's unit.</param>
/// <param name="TauPairs">Pairs of readings 1 to 7 days apart.</param>
public sealed record Noise(double Sem, int SemDof, double Tau, int TauPairs);

/// <summary>
/// Blends a coach's own repeats into the catalogue's noise, so that it never jumps. Pooled within-reading variance
/// s² = Σ(nᵢ − 1)sᵢ² / ν with ν = Σ(nᵢ − 1); SEM² = (ν₀·SEM₀² + ν·s²) / (ν₀ + ν), ν₀ = 10, never below 0.6·SEM₀, because repeats of one
/// sitting flatter. τ² is blended alike from pairs of one series 1 to 7 days apart: of (m₂ − m₁)² what trials and resolution do not
/// explain, halved. Source: pooled variance and prior weight as in classical reliability theory (Weir 2005).
/// </summary>
public static class OwnNoise
{
    public const int PriorDof = 10;
    public const double LeastShare = 0.6;
    public static readonly TimeSpan PairLeast = TimeSpan.FromDays(1);
    public static readonly TimeSpan PairMost = TimeSpan.FromDays(7);

    /// <param name="repeats">The coach's readings with the measure and the instrument, in any order; block stacks left out.</param>
    /// <param name="sem">SEM₀, in the measure's unit.</param>
    /// <param name="tau">τ₀, in the measure's unit.</param>
    public static Noise Blend(double sem, double tau, IReadOnlyCollection<Repeat> repeats)
    {
        var (squares, dof) = Within(repeats);
        var blended = Blend(sem * sem, PriorDof, squares, dof);
        var ownSem = Math.Max(LeastShare * sem, Math.Sqrt(blended));
        var (between, pairs) = Between(repeats, ownSem);
        return new(ownSem, dof, Math.Sqrt(Blend(tau * tau, PriorDof, between, pairs)), pairs);
    }

    private static double Blend(double prior, int priorWeight, double sum, int weight) =>
        (priorWeight * prior + sum) / (priorWeight + weight);

    private static (double Squares, int Dof) Within(IEnumerable<Repeat> repeats)
    {
        var (squares, dof) = (0.0, 0);
        foreach (var trials in repeats.Select(r => r.Trials).Where(t => t.Count >= 2))
        {
            var mean = trials.Average();
            squares += trials.Sum(t => (t - mean) * (t - mean));
            dof += trials.Count - 1;
        }
        return (squares, dof);
    }

    /// <summary>The sum of the pairs' τ² estimates; negative ones count, so that the sum stays unbiased, but not the sum itself.</summary>
    private static (double Sum, int Pairs) Between(IEnumerable<Repeat> repeats, double sem)
    {
        var (sum, pairs) = (0.0, 0);
        foreach (var series in repeats.GroupBy(r => r.Series))
        {
            Repeat? before = null;
            foreach (var repeat in series.OrderBy(r => r.At))
            {
                if (before is not null && repeat.At - before.At >= PairLeast && repeat.At - before.At <= PairMost)
                {
                    var change = repeat.Trials.Average() - before.Trials.Average();
                    var explained =
                        sem * sem * (1.0 / repeat.Trials.Count + 1.0 / before.Trials.Count)
                        + repeat.Resolution * repeat.Resolution
                        + before.Resolution * before.Resolution;
                    sum += (change * change - explained) / 2;
                    pairs++;
                }
                before = repeat;
            }
        }
        return (Math.Max(0, sum), pairs);
    }
}
