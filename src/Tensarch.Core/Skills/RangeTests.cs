using Tensarch.Core.Measuring;

namespace Tensarch.Core.Skills;

/// <summary>Judges the tests on a range of motion or a line.</summary>
internal static class RangeTests
{
    /// <summary>A re-test that a borderline gate asks for comes at least so many days after the last.</summary>
    private const int RetestAfterDays = 2;

    public static TestVerdict Rom(RomCriterion test, Measure measure, Side? side, Evidence evidence)
    {
        Side? readOn = measure.PerSide ? side : null;
        if (ThresholdOf(test, evidence.Body) is not { } threshold)
            return new(test, Outcome.NoData, "legsNotMeasured", new("measureLegs"));
        if (test.Adaptation is { } adaptation && Recorded(adaptation, measure.ShelfDays, evidence) is { } recorded)
            return new(
                test,
                Outcome.Met,
                "adaptationRecorded",
                NextStep.Nothing,
                readOn,
                Threshold: threshold,
                At: recorded.At,
                Evidence: [recorded.Id],
                CountsUntil: recorded.At.AddDays(measure.ShelfDays)
            );
        var steps = measure.Kind == MeasureKind.Step;
        var rule = new RomTest(test.Comparison, threshold, measure.ShelfDays, steps ? 1 : test.MinTrials, Exact: steps);
        var verdict = rule.Judge(evidence.Of(measure, readOn, test.Warmth, test.Level), evidence.Now);
        return new(
            test,
            verdict.Outcome,
            verdict.Reason,
            Next(verdict, readOn, evidence),
            readOn,
            verdict.Value,
            threshold,
            verdict.StandardError,
            verdict.Margin,
            verdict.Noise,
            verdict.At,
            Evidence: verdict.Evidence,
            CountsUntil: verdict.CountsUntil
        );
    }

    /// <summary>
    /// The threshold in the measure's unit: for a straddle angle T the heel distance w + 2·L̄·sin(T / 2). None while the legs were not measured.
    /// </summary>
    public static double? ThresholdOf(RomCriterion test, BodyData body) =>
        !test.StraddleAngle ? test.Threshold
        : body is { LeftLegCm: { } left, RightLegCm: { } right }
        && Straddle.HeelDistance(left, right, test.Threshold, body.HipWidthCm) is { IsOk: true } distance
            ? distance.Value
        : null;

    private static FormCheck? Recorded(FormItem adaptation, int shelfDays, Evidence evidence) =>
        evidence.Forms.Where(f => f.Ticked.Contains(adaptation.Key) && evidence.OnShelf(f.At, shelfDays)).MaxBy(f => f.At);

    private static NextStep Next(RomVerdict verdict, Side? readOn, Evidence evidence) =>
        verdict.Outcome switch
        {
            Outcome.Met => NextStep.Nothing,
            Outcome.NoData => new("takeReading", readOn, evidence.Today),
            Outcome.Stale => new("retest", readOn, evidence.Today),
            Outcome.Borderline when verdict.Reason == "tooFewTrials" => new("moreTrials", readOn, evidence.Today),
            Outcome.Borderline => new("retest", readOn, RetestDay(verdict, evidence)),
            _ => new("keepTraining", readOn),
        };

    /// <summary>Two calendar days after the last test, counted in the studio's days, and never before today.</summary>
    private static DateOnly RetestDay(RomVerdict verdict, Evidence evidence)
    {
        var last = evidence.Readings.Where(r => verdict.Evidence.Contains(r.Id)).Max(r => r.Day);
        var earliest = last.AddDays(RetestAfterDays);
        return earliest < evidence.Today ? evidence.Today : earliest;
    }
}
