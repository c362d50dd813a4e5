namespace Tensarch.Core.Skills;

/// <summary>Whether whoever met one test has met another: the same kind, of the same thing, on the same side, and no laxer.</summary>
public static class EqualTests
{
    /// <param name="had">What was met.</param>
    /// <param name="asked">What is asked for. Exposure, pain and bars are asked anew at every gate, and never stand in the way.</param>
    public static bool Covers(ReadinessTest had, ReadinessTest asked) =>
        (had, asked) switch
        {
            (RomCriterion h, RomCriterion a) => (h.Measure, h.Comparison, h.Limb, h.Warmth, h.Level, h.StraddleAngle)
                == (a.Measure, a.Comparison, a.Limb, a.Warmth, a.Level, a.StraddleAngle)
                && (a.Comparison == Comparison.AtLeast ? h.Threshold >= a.Threshold : h.Threshold <= a.Threshold)
                && h.MinTrials >= a.MinTrials,
            (HoldCriterion h, HoldCriterion a) => (h.Drill, h.Variant, h.Measure, h.Level, h.Limb)
                == (a.Drill, a.Variant, a.Measure, a.Level, a.Limb)
                && (h.OrDrill is null || h.OrDrill == a.OrDrill)
                && (h.Seconds ?? 0) >= (a.Seconds ?? 0)
                && (h.Breaths ?? 0) >= (a.Breaths ?? 0)
                && (h.Quality ?? 0) >= (a.Quality ?? 0)
                && (h.TwoDays || !a.TwoDays)
                && (h.BreathFree || !a.BreathFree),
            (RepsCriterion h, RepsCriterion a) => h with { Reps = a.Reps } == a && h.Reps >= a.Reps,
            (RateCriterion h, RateCriterion a) => h with { Successes = a.Successes, Of = a.Of } == a && h.Of >= a.Of && h.Share >= a.Share,
            (SymmetryCriterion h, SymmetryCriterion a) => h with { AtMost = a.AtMost, MinTrials = a.MinTrials } == a
                && h.AtMost <= a.AtMost
                && h.MinTrials >= a.MinTrials,
            (FormCriterion h, FormCriterion a) => a.Items.All(i => h.Items.Any(x => x.Key == i.Key)),
            (ExitCriterion h, ExitCriterion a) => h.Limb == a.Limb && h.Times >= a.Times && h.Ways.All(w => a.Ways.Any(x => Same(w, x))),
            _ => false,
        };

    private static bool Same(ExitWay a, ExitWay b) => (a.Drill, a.Variant) == (b.Drill, b.Variant);

    public static bool IsAskedAnew(ReadinessTest test) => test is ExposureCriterion or PainCriterion or ClearCriterion;

    /// <summary>Whether the gates of a ladder below a stage ask for nothing that those of another, below a stage of its own, did not.</summary>
    public static bool Passed(Ladder from, int stage, Ladder to, int toStage)
    {
        var had = Enumerable.Range(1, Math.Min(stage, from.Keystone) - 1).SelectMany(from.GateOf).ToList();
        return Enumerable
            .Range(1, Math.Min(toStage, to.Keystone) - 1)
            .SelectMany(to.GateOf)
            .Where(t => !IsAskedAnew(t))
            .All(asked => had.Any(h => Covers(h, asked)));
    }
}
