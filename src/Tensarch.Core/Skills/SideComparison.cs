using Tensarch.Core.Measuring;

namespace Tensarch.Core.Skills;

/// <summary>Left against right in one measure.</summary>
/// <param name="Difference">Right minus left, in the measure's unit; none before both were read.</param>
/// <param name="Mdc95">None for holds, which have no standard error.</param>
/// <param name="Weaker">None while the difference is within noise, or the two sides were read too long apart.</param>
public sealed record SideComparison(string Measure, double? Difference, double? Mdc95, Side? Weaker)
{
    /// <summary>Sides read farther apart than this are not put side by side.</summary>
    public const int MostDaysApart = 28;

    public static SideComparison Of(Measure measure, string? level, Evidence evidence) =>
        measure.Kind == MeasureKind.Hold ? Holds(measure, level, evidence) : Ranges(measure, level, evidence);

    private static SideComparison Ranges(Measure measure, string? level, Evidence evidence)
    {
        var left = PooledTest.From(evidence.Of(measure, Side.Left, Warmth.Warm, level)).LastOrDefault();
        var right = PooledTest.From(evidence.Of(measure, Side.Right, Warmth.Warm, level)).LastOrDefault();
        if (left is null || right is null || (left.Last - right.Last).Duration() > TimeSpan.FromDays(MostDaysApart))
            return new(measure.Key, null, null, null);
        var asymmetry = Asymmetry.Between(left.Estimate, right.Estimate, measure.Better, left.TakenBy == right.TakenBy);
        return new(measure.Key, asymmetry.Change.Difference, asymmetry.Change.Mdc95, asymmetry.Weaker);
    }

    /// <summary>Holds have no standard error: the best are put side by side, and no side is called weaker.</summary>
    private static SideComparison Holds(Measure measure, string? level, Evidence evidence)
    {
        double? Best(Side side) =>
            evidence.Of(measure, side, Warmth.Warm, level).Where(r => !r.Disqualified).Select(r => (double?)r.Trials.Max()).Max();
        return new(measure.Key, Best(Side.Right) - Best(Side.Left), null, null);
    }
}
