using System.ComponentModel.DataAnnotations;

namespace Tensarch.Core.Skills;

/// <summary>How strict a range-of-motion test is with noise.</summary>
/// <param name="Z">A single test passes when its value less z standard errors passes; 0 takes the value as it is.</param>
/// <param name="ConfirmingTests">So many tests in a row that reach the threshold pass together; fewer than 2 allows no such pass.</param>
/// <param name="ConfirmingHours">How far apart two of them are at least.</param>
public sealed record GatePolicy([Range(0, 4)] double Z, [Range(0, 4)] int ConfirmingTests, [Range(0, 336)] double ConfirmingHours)
{
    /// <summary>One-sided 90 % point of the normal distribution.</summary>
    public const double OneSided90 = 1.2815515655446004;

    /// <summary>The policy of every gate.</summary>
    public static readonly GatePolicy Shipped = new(OneSided90, 2, 40);

    /// <summary>Believe the reading: for comparison on the policy bench.</summary>
    public static readonly GatePolicy Naive = new(0, 0, 0);
}
