namespace Tensarch.Core.Measuring;

/// <summary>The difference between two estimates and whether it is more than noise.</summary>
/// <param name="Difference">Later minus earlier, or right minus left, in the measure's unit.</param>
/// <param name="Mdc95">The least difference that can be told from noise, same unit.</param>
public readonly record struct Change(double Difference, double Mdc95)
{
    public bool Detectable => Math.Abs(Difference) > Mdc95;

    public static Change Between(Estimate from, Estimate to, bool samePerson = true) =>
        new(to.Value - from.Value, Mdc.Between(from.StandardError, to.StandardError, samePerson));
}
