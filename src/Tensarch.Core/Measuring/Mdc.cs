namespace Tensarch.Core.Measuring;

/// <summary>Minimal detectable change at 95 % confidence between two readings (Weir 2005).</summary>
public static class Mdc
{
    /// <summary>Two different people reading the same thing agree less well: both standard errors are widened.</summary>
    public const double DifferentPeopleFactor = 1.4;

    /// <returns>1.96·√(SE₁² + SE₂²), in the measure's unit; both SE × 1.4 when different people took them.</returns>
    public static double Between(double firstStandardError, double secondStandardError, bool samePerson = true)
    {
        var factor = samePerson ? 1 : DifferentPeopleFactor;
        return 1.96 * factor * Math.Sqrt(firstStandardError * firstStandardError + secondStandardError * secondStandardError);
    }
}
