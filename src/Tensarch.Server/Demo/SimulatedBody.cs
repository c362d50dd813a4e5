using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Demo;

/// <summary>How far a body really goes, and what a reading of it says: the truth with the catalogue's noise.</summary>
internal sealed class SimulatedBody(DemoCase who, CatalogueContent catalogue, DateOnly today, int seed)
{
    private const int RangeTrials = 3;
    private readonly Dictionary<TrueRange, double> now = who.Truth.ToDictionary(t => t, t => t.Start);

    public IEnumerable<string> Measures => who.Truth.Select(t => t.Measure).Distinct();

    public IEnumerable<TrueRange> Of(string measure) => who.Truth.Where(t => t.Measure == measure);

    /// <returns>The true value; none where this body has none.</returns>
    public double? True(string measure, Side? side) =>
        who.Truth.FirstOrDefault(t => t.Measure == measure && t.Side == side) is { } range ? now[range] : null;

    /// <summary>One session's gain: a share of what is left.</summary>
    public void Train()
    {
        foreach (var range in who.Truth)
            now[range] += who.Rate * (range.Limit - now[range]);
    }

    /// <summary>Three trials of a range; one attempt of a hold; a step as it is.</summary>
    public List<double> Trials(TrueRange range, DateOnly day, int attempt)
    {
        var measure = catalogue.Measure(range.Measure);
        if (measure.Step is { } step)
            return [.. Enumerable.Repeat(Math.Round(now[range] / step) * step, RangeTrials)];
        var noise = NoiseOf(range, day, attempt);
        var truth = now[range] + Normal.Next(noise) * (measure.Kind == MeasureKind.Range ? measure.Tau : 0);
        var trials = measure.Kind == MeasureKind.Hold ? 1 : RangeTrials;
        return [.. Enumerable.Range(0, trials).Select(_ => Rounded(truth + Normal.Next(noise) * measure.Sem, measure))];
    }

    /// <summary>How many of so many attempts succeed.</summary>
    public int Successes(TrueRange range, DateOnly day, int attempts)
    {
        var noise = NoiseOf(range, day, 0);
        return Enumerable.Range(0, attempts).Count(_ => noise.NextDouble() < now[range]);
    }

    private static double Rounded(double value, Measure measure) =>
        Math.Round(Math.Clamp(Math.Round(value / measure.Resolution) * measure.Resolution, measure.Min, measure.Max), 2);

    /// <summary>A stream of its own for each reading, so that a longer session does not move the next reading.</summary>
    private Random NoiseOf(TrueRange range, DateOnly day, int attempt)
    {
        var place = catalogue.Measures.Index().First(m => m.Item.Key == range.Measure).Index;
        var level = catalogue.Measure(range.Measure).Levels.Index().FirstOrDefault(l => l.Item.Key == range.Level).Index;
        var side = range.Side is { } s ? (int)s : 2;
        return new(
            unchecked(
                seed + 7919 * (today.DayNumber - day.DayNumber) + 104729 * place + 1299709 * side + 15485863 * level + 179424673 * attempt
            )
        );
    }
}
