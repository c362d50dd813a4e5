using Tensarch.Core.Measuring;

namespace Tensarch.Core.Skills;

/// <summary>What a range-of-motion test says, with its numbers in the measure's unit.</summary>
/// <param name="Margin">How far past the threshold; negative when short of it.</param>
/// <param name="Noise">z·SE: what the margin must reach for a pass on one test.</param>
/// <param name="Evidence">The readings it rests on.</param>
/// <param name="CountsUntil">When the oldest test that it rests on leaves its shelf life.</param>
public sealed record RomVerdict(
    Outcome Outcome,
    string Reason,
    double? Value,
    double? StandardError,
    double? Margin,
    double? Noise,
    DateTimeOffset? At,
    int Trials,
    IReadOnlyList<Guid> Evidence,
    DateTimeOffset? CountsUntil = null
);

/// <summary>Has a series passed a threshold, and not by luck or by measurement noise?</summary>
/// <param name="Threshold">In the measure's unit.</param>
/// <param name="ShelfDays">A test older than this is stale.</param>
/// <param name="MinTrials">A test with fewer trials is borderline at best and confirms nothing.</param>
/// <param name="Policy">How strict it is with noise; the shipped policy when none is given.</param>
/// <param name="Exact">What is read in steps has no noise.</param>
public sealed record RomTest(
    Comparison Comparison,
    double Threshold,
    double ShelfDays = 21,
    int MinTrials = 1,
    GatePolicy? Policy = null,
    bool Exact = false
)
{
    private GatePolicy Strictness => Policy ?? GatePolicy.Shipped;

    /// <summary>
    /// Judges readings of one series, in any order, none later than <paramref name="now"/>.
    /// Clear pass: the threshold lies outside the one-sided 90 % bound of the latest test. Confirmed pass: the latest
    /// test and the latest one at least 40 hours older both reach it, and every test between them (the shipped policy asks for
    /// two such tests). Between the bounds: borderline.
    /// </summary>
    public RomVerdict Judge(IEnumerable<Reading> readings, DateTimeOffset now)
    {
        var tests = PooledTest.From(readings);
        if (tests.Count == 0)
            return new(Outcome.NoData, "noReadings", null, null, null, null, null, 0, []);

        var latest = tests[^1];
        if (!OnShelf(latest, now))
            return Say(Outcome.Stale, "olderThanShelfLife", latest);

        var noise = Noise(latest);
        if (Margin(latest) + noise < 0)
            return Say(Outcome.NotMet, "shortOfThreshold", latest);
        if (latest.Trials < MinTrials)
            return Say(Outcome.Borderline, "tooFewTrials", latest);
        if (Margin(latest) >= noise)
            return Say(Outcome.Met, "clearPass", latest);
        return Confirmation(tests, now) is { Count: > 0 } earlier
            ? Say(Outcome.Met, "confirmedPass", latest, [.. earlier.SelectMany(t => t.Readings)], earlier[^1].Last)
            : Say(Outcome.Borderline, "withinNoise", latest);
    }

    /// <summary>How far a value is past the threshold; negative when short of it.</summary>
    public double Margin(double value) => Comparison == Comparison.AtLeast ? value - Threshold : Threshold - value;

    private double Margin(PooledTest test) => Margin(test.Estimate.Value);

    private double Noise(PooledTest test) => Exact ? 0 : Strictness.Z * test.Estimate.StandardError;

    private bool OnShelf(PooledTest test, DateTimeOffset now) => now - test.Last <= TimeSpan.FromDays(ShelfDays);

    /// <summary>The earlier tests that confirm the latest one, newest first; none when it is not confirmed.</summary>
    private List<PooledTest> Confirmation(IReadOnlyList<PooledTest> tests, DateTimeOffset now)
    {
        var confirming = new List<PooledTest>();
        var later = tests[^1];
        for (var i = tests.Count - 2; i >= 0 && Margin(later) >= 0 && confirming.Count < Strictness.ConfirmingTests - 1; i--)
        {
            var earlier = tests[i];
            if (Margin(earlier) < 0 || !OnShelf(earlier, now))
                break;
            if (earlier.Trials >= MinTrials && later.First - earlier.Last >= TimeSpan.FromHours(Strictness.ConfirmingHours))
                confirming.Add(later = earlier);
        }
        return Strictness.ConfirmingTests >= 2 && confirming.Count == Strictness.ConfirmingTests - 1 ? confirming : [];
    }

    private RomVerdict Say(
        Outcome outcome,
        string reason,
        PooledTest latest,
        IReadOnlyList<Guid>? confirming = null,
        DateTimeOffset? oldest = null
    ) =>
        new(
            outcome,
            reason,
            latest.Estimate.Value,
            latest.Estimate.StandardError,
            Margin(latest),
            Noise(latest),
            latest.Last,
            latest.Trials,
            [.. latest.Readings, .. confirming ?? []],
            (oldest ?? latest.Last) + TimeSpan.FromDays(ShelfDays)
        );
}
