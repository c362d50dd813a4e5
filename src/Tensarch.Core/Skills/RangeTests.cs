using Tensarch.Core.Measuring;

namespace Tensarch.Core.Skills;

/// <summary>Judges the tests that read a measure: range of motion and symmetry.</summary>
internal static class RangeTests
{
    /// <summary>A re-test that a borderline gate asks for comes at least so many days after the last.</summary>
    private const int RetestAfterDays = 2;

    public static TestVerdict Rom(RomCriterion test, Measure measure, Side side, Evidence evidence)
    {
        Side? readOn = measure.PerSide ? test.ReadOn(side) : null;
        var rule = new RomTest(test.Comparison, test.Threshold, measure.ShelfDays, test.MinTrials);
        var verdict = rule.Judge(evidence.Of(measure, readOn, test.Warmth), evidence.Now);
        return new(
            test,
            verdict.Outcome,
            verdict.Reason,
            Next(verdict, readOn, evidence),
            readOn,
            verdict.Value,
            test.Threshold,
            verdict.StandardError,
            verdict.Margin,
            verdict.Noise,
            verdict.At,
            Evidence: verdict.Evidence
        );
    }

    public static TestVerdict Symmetry(SymmetryCriterion test, Measure measure, Evidence evidence)
    {
        var left = PooledTest.From(evidence.Of(measure, Side.Left, test.Warmth));
        var right = PooledTest.From(evidence.Of(measure, Side.Right, test.Warmth));
        if (left.Count == 0 || right.Count == 0)
            return new(test, Outcome.NoData, "noReadings", new("takeReading"), Threshold: test.AtMost);

        var (l, r) = (left[^1], right[^1]);
        var difference = Math.Abs(r.Estimate.Value - l.Estimate.Value);
        var oldest = l.Last < r.Last ? l.Last : r.Last;
        var (outcome, reason, next) =
            evidence.Now - oldest > TimeSpan.FromDays(measure.ShelfDays) ? (Outcome.Stale, "olderThanShelfLife", new NextStep("retest"))
            : difference > test.AtMost ? (Outcome.NotMet, "sidesDiffer", new NextStep("keepTraining"))
            : l.Trials < test.MinTrials || r.Trials < test.MinTrials ? (Outcome.Borderline, "tooFewTrials", new NextStep("moreTrials"))
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
            Evidence: [.. l.Readings, .. r.Readings]
        );
    }

    private static NextStep Next(RomVerdict verdict, Side? readOn, Evidence evidence) =>
        verdict.Outcome switch
        {
            Outcome.Met => NextStep.Nothing,
            Outcome.NoData => new("takeReading", readOn, evidence.Today),
            Outcome.Stale => new("retest", readOn, evidence.Today),
            Outcome.Borderline when verdict.Reason == "tooFewTrials" => new("moreTrials", readOn, evidence.Today),
            Outcome.Borderline => new("retest", readOn, RetestDay(verdict.At!.Value, evidence)),
            _ => new("keepTraining", readOn),
        };

    /// <summary>Two calendar days after the last test, counted in the studio's days, and never before today.</summary>
    private static DateOnly RetestDay(DateTimeOffset at, Evidence evidence)
    {
        var daysAgo = (int)Math.Floor((evidence.Now - at).TotalDays);
        var earliest = evidence.Today.AddDays(RetestAfterDays - daysAgo);
        return earliest < evidence.Today ? evidence.Today : earliest;
    }
}
