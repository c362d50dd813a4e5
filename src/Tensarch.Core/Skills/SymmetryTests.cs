using Tensarch.Core.Measuring;

namespace Tensarch.Core.Skills;

/// <summary>Judges the left–right difference of a measure or of a drill's best holds.</summary>
internal static class SymmetryTests
{
    public static TestVerdict Symmetry(SymmetryCriterion test, Measure? measure, Evidence evidence)
    {
        if (SideOf(test, measure, Side.Left, evidence) is not { } left || SideOf(test, measure, Side.Right, evidence) is not { } right)
            return new(
                test,
                Outcome.NoData,
                "noReadings",
                new(measure is { Kind: not MeasureKind.Hold } ? "takeReading" : "recordHold"),
                Threshold: test.AtMost
            );

        var difference = Math.Abs(right.Value - left.Value);
        var oldest = left.At < right.At ? left.At : right.At;
        var (outcome, reason, next) =
            !evidence.OnShelf(oldest, measure?.ShelfDays ?? test.ShelfDays) ? (Outcome.Stale, "olderThanShelfLife", new NextStep("retest"))
            : difference > test.AtMost ? (Outcome.NotMet, "sidesDiffer", new NextStep("keepTraining"))
            : left.Trials < test.MinTrials || right.Trials < test.MinTrials
                ? (Outcome.Borderline, "tooFewTrials", new NextStep("moreTrials"))
            : (Outcome.Met, "sidesMatch", NextStep.Nothing);
        return new(
            test,
            outcome,
            reason,
            next,
            Value: difference,
            Threshold: test.AtMost,
            Margin: test.AtMost - difference,
            At: oldest,
            Evidence: [.. left.Evidence, .. right.Evidence],
            CountsUntil: outcome == Outcome.Stale ? null : oldest.AddDays(measure?.ShelfDays ?? test.ShelfDays)
        );
    }

    private sealed record SideValue(double Value, int Trials, DateTimeOffset At, IReadOnlyList<Guid> Evidence);

    /// <summary>The latest test of a range; the best of the fresh attempts of a hold.</summary>
    private static SideValue? SideOf(SymmetryCriterion test, Measure? measure, Side side, Evidence evidence)
    {
        if (measure is { Kind: not MeasureKind.Hold })
            return PooledTest.From(evidence.Of(measure, side, test.Warmth, test.Level)).LastOrDefault() is { } latest
                ? new(latest.Estimate.Value, latest.Trials, latest.Last, latest.Readings)
                : null;

        var all = HoldTests.Of(test.Drill, test.Variant, measure, test.Level, side, evidence).ToList();
        var fresh = all.Where(a => evidence.OnShelf(a.At, measure?.ShelfDays ?? test.ShelfDays)).ToList();
        var counted = fresh.Count > 0 ? fresh : all;
        return counted.Count == 0
            ? null
            : new(counted.Max(a => a.Seconds), counted.Count, counted[^1].At, [.. counted.Select(a => a.Id).Distinct()]);
    }
}
