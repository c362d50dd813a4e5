using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;

namespace Tensarch.Core.Skills;

/// <summary>Where a gate lies on the readiness board.</summary>
public enum ReadinessGroup
{
    /// <summary>Every test is met: the coach decides.</summary>
    Ready,

    /// <summary>Only a repeat is missing, or one test alone.</summary>
    Nearly,

    /// <summary>Trained for, and not moving.</summary>
    Stalled,

    /// <summary>Held by a caution.</summary>
    Blocked,
    Training,

    /// <summary>One side waits for the other.</summary>
    Waiting,
    Owned,
}

/// <summary>A range that does not move: over so many days, by so much, which the noise explains.</summary>
public sealed record Plateau(string Measure, Side? Side, int Days, int Tests, double Change, double Mdc95);

/// <summary>Sorts gates for the board, and finds the plateau that stalls one.</summary>
public sealed class Readiness(CatalogueContent catalogue)
{
    public const int PlateauDays = 28;
    public const int PlateauTests = 3;
    public const int ExposuresAWeek = 2;

    /// <param name="plateau">What stalls it; see <see cref="PlateauOf"/>.</param>
    public static ReadinessGroup GroupOf(GateVerdict verdict, Plateau? plateau) =>
        verdict.State switch
        {
            GateState.Open => ReadinessGroup.Ready,
            GateState.Blocked => ReadinessGroup.Blocked,
            GateState.Owned => ReadinessGroup.Owned,
            GateState.Waiting => ReadinessGroup.Waiting,
            GateState.Retest => ReadinessGroup.Nearly,
            _ when plateau is not null => ReadinessGroup.Stalled,
            _ when verdict.MetCount == verdict.Tests.Count - 1 => ReadinessGroup.Nearly,
            _ => ReadinessGroup.Training,
        };

    /// <summary>
    /// The plateau of a range that the gate still asks for: at least 3 tests over at least 28 days, last less first within MDC95, the
    /// 80 % interval of the slope contains 0, and at least 2 sessions a week. None when there is none.
    /// </summary>
    public Plateau? PlateauOf(GateVerdict verdict, Evidence evidence) =>
        verdict
            .Tests.Where(t => t is { Outcome: Outcome.NotMet, Test: RomCriterion })
            .Select(t => Of((RomCriterion)t.Test, t.ReadOn, evidence))
            .OfType<Plateau>()
            .FirstOrDefault();

    private Plateau? Of(RomCriterion test, Side? side, Evidence evidence)
    {
        var tests = PooledTest.From(evidence.Of(catalogue.Measure(test.Measure), side, test.Warmth, test.Level));
        // The shortest stretch of the latest tests that is long enough: a plateau is what is flat now, whatever came before.
        for (var from = tests.Count - PlateauTests; from >= 0; from--)
        {
            var stretch = tests.Skip(from).ToList();
            var days = (stretch[^1].Last - stretch[0].Last).TotalDays;
            if (days < PlateauDays)
                continue;
            var change = Change.Between(stretch[0].Estimate, stretch[^1].Estimate, stretch[0].TakenBy == stretch[^1].TakenBy);
            var slope = TheilSen.Of([.. stretch.Select(t => ((t.Last - stretch[0].Last).TotalDays, t.Estimate.Value))]);
            var sessions = evidence.Sessions.Count(s => s.At >= stretch[0].First && s.At <= stretch[^1].Last);
            return !change.Detectable && slope is { MayBeFlat: true } && sessions >= ExposuresAWeek * days / 7
                ? new(test.Measure, side, (int)days, stretch.Count, change.Difference, change.Mdc95)
                : null;
        }
        return null;
    }
}
