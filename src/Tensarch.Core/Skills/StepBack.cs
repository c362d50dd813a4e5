using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;

namespace Tensarch.Core.Skills;

/// <summary>Why stepping back is suggested at the present stage.</summary>
/// <param name="Code"><c>painEvents</c>, <c>rangeLost</c> or <c>longBreak</c>.</param>
/// <param name="Number">Pain events, lost amount in the measure's unit, or days away.</param>
public sealed record StepBackReason(string Code, double Number, string? Measure = null);

/// <summary>Suggests a step back: pain, lost range, or a long break.</summary>
public sealed class StepBack(CatalogueContent catalogue)
{
    public const int BreakDays = 28;

    public IReadOnlyList<StepBackReason> For(Ladder ladder, Side side, int stage, Evidence evidence) =>
        stage <= 1
            ? []
            : [.. Pain(ladder, evidence), .. LostRange(ladder, side, Math.Min(stage, ladder.Keystone), evidence), .. Break(evidence)];

    private static IEnumerable<StepBackReason> Pain(Ladder ladder, Evidence evidence)
    {
        var recent = evidence.Signals.Count(s =>
            s.IsPainEvent
            && ladder.Regions.Contains(s.Region!.Value)
            && evidence.Now - s.At <= TimeSpan.FromDays(ReviewHolds.PainWindowDays)
        );
        if (recent >= 2)
            yield return new("painEvents", recent);
    }

    /// <summary>The entry gate's range is lost by more than MDC95 on the last two tests.</summary>
    private IEnumerable<StepBackReason> LostRange(Ladder ladder, Side side, int stage, Evidence evidence)
    {
        foreach (var test in ladder.StageAt(stage - 1).Tests.OfType<RomCriterion>())
        {
            var measure = catalogue.Measure(test.Measure);
            var tests = PooledTest.From(evidence.Of(measure, measure.PerSide ? test.ReadOn(side) : null, test.Warmth));
            if (tests.Count < 2)
                continue;
            var rule = new RomTest(test.Comparison, test.Threshold);
            var lost = tests.TakeLast(2).Select(t => (Short: -rule.Margin(t.Estimate.Value), t.Estimate.StandardError)).ToList();
            if (lost.All(t => t.Short > Mdc.Between(t.StandardError, t.StandardError)))
                yield return new("rangeLost", lost[^1].Short, measure.Key);
        }
    }

    private static IEnumerable<StepBackReason> Break(Evidence evidence)
    {
        if (evidence.Sessions.Count == 0)
            yield break;
        var days = evidence.Today.DayNumber - evidence.Sessions.Max(s => s.Day).DayNumber;
        if (days > BreakDays)
            yield return new("longBreak", days);
    }
}
