namespace Tensarch.Core.Measuring;

/// <summary>Left against right in one measure.</summary>
/// <param name="Change">Right minus left with its MDC95.</param>
/// <param name="Weaker">The side that is behind; none while the difference is within MDC95.</param>
public sealed record Asymmetry(Change Change, Side? Weaker)
{
    public static Asymmetry Between(Estimate left, Estimate right, Better better, bool samePerson = true)
    {
        var change = Measuring.Change.Between(left, right, samePerson);
        if (!change.Detectable || better == Better.None)
            return new(change, null);
        var rightIsGreater = change.Difference > 0;
        return new(change, rightIsGreater == (better == Better.Up) ? Side.Left : Side.Right);
    }
}
