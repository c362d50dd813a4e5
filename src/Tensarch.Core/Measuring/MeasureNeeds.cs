using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;

namespace Tensarch.Core.Measuring;

/// <summary>What a gate still asks of the bench.</summary>
public static class MeasureNeeds
{
    /// <summary>The readings that the present gates count and do not call met, with as many trials as they ask for.</summary>
    public static IReadOnlyList<SittingItem> Of(IEnumerable<GateVerdict> verdicts, CatalogueContent catalogue) =>
        Items(verdicts.SelectMany(v => v.Tests).Where(t => t.Outcome != Outcome.Met).Select(t => t.Test), catalogue);

    /// <summary>A baseline: everything that any stage of a ladder reads.</summary>
    public static IReadOnlyList<SittingItem> Baseline(Ladder ladder, CatalogueContent catalogue) =>
        Items(ladder.Stages.SelectMany(s => ladder.GateOf(s.Number)), catalogue);

    private static List<SittingItem> Items(IEnumerable<ReadinessTest> tests, CatalogueContent catalogue) =>
        [
            .. SittingItem.Once(
                tests
                    .Select(t =>
                        t switch
                        {
                            RomCriterion r => new SittingItem(r.Measure, r.Level, r.Warmth, r.MinTrials),
                            SymmetryCriterion { Measure: { } measure } s => new SittingItem(measure, s.Level, s.Warmth, s.MinTrials),
                            HoldCriterion { Measure: { } measure } h => new SittingItem(measure, h.Level, Warmth.Warm, HoldAttempts),
                            RateCriterion r => new SittingItem(r.Measure, r.Level, Warmth.Warm, 1),
                            _ => null,
                        }
                    )
                    .OfType<SittingItem>()
                    .Where(i => catalogue.FindMeasure(i.Measure) is not null)
            ),
        ];

    private const int HoldAttempts = 2;
}
