using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>Why stepping back is suggested at the present stage.</summary>
/// <param name="Code"><c>painEvents</c>, <c>rangeLost</c> or <c>longBreak</c>.</param>
/// <param name="Number">Pain events, lost amount in the measure's unit, or days away.</param>
public sealed record StepBackReason(string Code, double Number, string? Measure = null, LoadTag? Region = null, Side? Side = null);

/// <summary>Suggests a step back from the present stage: pain, lost range, or a long break.</summary>
public sealed class StepBack(CatalogueContent catalogue)
{
    public const int BreakDays = 28;

    /// <param name="side">None on a bilateral ladder.</param>
    public IReadOnlyList<StepBackReason> For(Ladder ladder, Side? side, int stage, Evidence evidence) =>
        stage <= 1
            ? []
            :
            [
                .. Pain(ladder, side, stage, evidence),
                .. LostRange(ladder, side, Math.Min(stage, ladder.Keystone), evidence),
                .. Break(side, stage, evidence),
            ];

    /// <summary>Two pain events in one region within 14 days, at the present stage.</summary>
    private static IEnumerable<StepBackReason> Pain(Ladder ladder, Side? side, int stage, Evidence evidence)
    {
        var since = evidence.EnteredAt(side, stage);
        return from signal in evidence.Signals
            where signal.IsPainEvent && signal.At >= since && ladder.Regions.Contains(signal.Region!.Value)
            where evidence.Now - signal.At <= TimeSpan.FromDays(ReviewBars.PainWindowDays)
            group signal by signal.Region!.Value into region
            where region.Count() >= 2
            select new StepBackReason("painEvents", region.Count(), Region: region.Key);
    }

    /// <summary>The entry gate's range is lost by more than MDC95 on the last two tests.</summary>
    private IEnumerable<StepBackReason> LostRange(Ladder ladder, Side? side, int stage, Evidence evidence)
    {
        foreach (var test in ladder.GateOf(stage - 1).OfType<RomCriterion>())
        foreach (var read in test.Limb.ReadFor(side))
        {
            var measure = catalogue.Measure(test.Measure);
            // Met by an adaptation, it was never had, and is not lost.
            if (test.Adaptation is { } adaptation && evidence.Forms.Any(f => f.Ticked.Contains(adaptation.Key)))
                continue;
            var tests = PooledTest.From(evidence.Of(measure, read, test.Warmth, test.Level));
            if (tests.Count < 2 || RangeTests.ThresholdOf(test, evidence.Body) is not { } threshold)
                continue;
            var rule = new RomTest(test.Comparison, threshold);
            // What no test before ever reached, under an override, cannot be lost.
            var before = tests.SkipLast(2).ToList();
            if (before.Count > 0 && before.All(t => rule.Margin(t.Estimate.Value) < -t.Estimate.StandardError))
                continue;
            var lost = tests.TakeLast(2).Select(t => (Short: -rule.Margin(t.Estimate.Value), t.Estimate.StandardError)).ToList();
            if (lost.All(t => t.Short > Mdc.Between(t.StandardError, t.StandardError)))
                yield return new("rangeLost", lost[^1].Short, measure.Key, Side: measure.PerSide ? read : null);
        }
    }

    /// <summary>More than 28 days away, and no decision into the stage since.</summary>
    private static IEnumerable<StepBackReason> Break(Side? side, int stage, Evidence evidence)
    {
        if (evidence.Sessions.Count == 0)
            yield break;
        var last = evidence.Sessions.MaxBy(s => s.At)!;
        var days = evidence.Today.DayNumber - last.Day.DayNumber;
        if (days > BreakDays && evidence.EnteredAt(side, stage) <= last.At)
            yield return new("longBreak", days);
    }
}
