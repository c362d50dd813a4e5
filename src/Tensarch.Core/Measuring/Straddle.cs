namespace Tensarch.Core.Measuring;

/// <summary>The two readings of a middle split held against each other.</summary>
/// <param name="ExpectedGapCm">From the heel distance.</param>
/// <param name="ToleranceCm">How far they may disagree; none where no check is possible.</param>
public sealed record StraddleCheck(double ExpectedGapCm, double DifferenceCm, double? ToleranceCm)
{
    /// <summary>One of the two was mis-measured.</summary>
    public bool Disagree => ToleranceCm is { } tolerance && Math.Abs(DifferenceCm) > tolerance;
}

/// <summary>
/// The middle split from the heel distance. The legs start at two hip joints some way apart; L̄ is the mean leg (greater trochanter
/// to heel). All lengths in cm.
/// </summary>
public static class Straddle
{
    public const double DefaultHipWidthCm = 17;

    /// <summary>Below this expected gap the cosine is too flat for a check.</summary>
    private const double LeastExpectedCm = 10;
    private const double AlwaysAllowedCm = 8;

    /// <returns>
    /// θ = 2·asin((d − w) / 2L̄) in degrees, 0 to 180; or <c>legNotPositive</c>, <c>hipWidthNegative</c>, <c>heelsInsideHips</c>,
    /// <c>heelsBeyondLegs</c>, <c>notANumber</c>.
    /// </returns>
    public static Result<double> Angle(double leftLegCm, double rightLegCm, double heelDistanceCm, double hipWidthCm = DefaultHipWidthCm)
    {
        var problems = Check(leftLegCm, rightLegCm, heelDistanceCm, hipWidthCm);
        return problems.Count > 0 ? problems : 2 * Math.Asin(Sine(leftLegCm, rightLegCm, heelDistanceCm, hipWidthCm)) * 180 / Math.PI;
    }

    /// <summary>The height of the pelvis that this heel distance implies: L̄·cos(θ/2), in cm.</summary>
    public static Result<double> ExpectedGap(
        double leftLegCm,
        double rightLegCm,
        double heelDistanceCm,
        double hipWidthCm = DefaultHipWidthCm
    )
    {
        var problems = Check(leftLegCm, rightLegCm, heelDistanceCm, hipWidthCm);
        if (problems.Count > 0)
            return problems;
        var sine = Sine(leftLegCm, rightLegCm, heelDistanceCm, hipWidthCm);
        return Mean(leftLegCm, rightLegCm) * Math.Sqrt(1 - sine * sine);
    }

    /// <summary>The heel distance at which a gate on the angle is judged: w + 2·L̄·sin(T / 2), in cm.</summary>
    public static Result<double> HeelDistance(double leftLegCm, double rightLegCm, double angleDeg, double hipWidthCm = DefaultHipWidthCm)
    {
        var problems = Lengths(leftLegCm, rightLegCm, hipWidthCm);
        if (!(angleDeg is >= 0 and <= 180))
            problems.Add(Problem.Of("outOfRange", "angleDeg", ("value", angleDeg), ("min", 0), ("max", 180)));
        return problems.Count > 0 ? problems : hipWidthCm + 2 * Mean(leftLegCm, rightLegCm) * Math.Sin(angleDeg * Math.PI / 360);
    }

    /// <summary>
    /// Flags a mis-measure when |expected − read| exceeds 8 cm + 1.96·√(SE_gap² + ((d − w) / (4·expected)·SE_d)²); no check where less
    /// than 10 cm are expected.
    /// </summary>
    public static Result<StraddleCheck> CrossCheck(
        double leftLegCm,
        double rightLegCm,
        Estimate heelDistance,
        Estimate gap,
        double hipWidthCm = DefaultHipWidthCm
    )
    {
        var expected = ExpectedGap(leftLegCm, rightLegCm, heelDistance.Value, hipWidthCm);
        if (!expected.IsOk)
            return expected.Problems.ToList();
        var slope = (heelDistance.Value - hipWidthCm) / (4 * expected.Value);
        double? tolerance =
            expected.Value < LeastExpectedCm
                ? null
                : AlwaysAllowedCm + 1.96 * Math.Sqrt(Math.Pow(gap.StandardError, 2) + Math.Pow(slope * heelDistance.StandardError, 2));
        return new StraddleCheck(expected.Value, gap.Value - expected.Value, tolerance);
    }

    private static List<Problem> Check(double leftLegCm, double rightLegCm, double heelDistanceCm, double hipWidthCm)
    {
        var problems = Lengths(leftLegCm, rightLegCm, hipWidthCm);
        if (!double.IsFinite(heelDistanceCm))
            problems.Add(Problem.Of("notANumber", "heelDistanceCm"));
        if (problems.Count > 0)
            return problems;
        if (heelDistanceCm < hipWidthCm)
            problems.Add(Problem.Of("heelsInsideHips", "heelDistanceCm", ("value", heelDistanceCm), ("min", hipWidthCm)));
        else if (heelDistanceCm - hipWidthCm > 2 * Mean(leftLegCm, rightLegCm))
            problems.Add(
                Problem.Of(
                    "heelsBeyondLegs",
                    "heelDistanceCm",
                    ("value", heelDistanceCm),
                    ("max", hipWidthCm + 2 * Mean(leftLegCm, rightLegCm))
                )
            );
        return problems;
    }

    private static List<Problem> Lengths(double leftLegCm, double rightLegCm, double hipWidthCm)
    {
        var problems = new List<Problem>();
        foreach (var (leg, field) in new[] { (leftLegCm, "leftLegCm"), (rightLegCm, "rightLegCm") })
            if (!double.IsFinite(leg))
                problems.Add(Problem.Of("notANumber", field));
            else if (leg <= 0)
                problems.Add(Problem.Of("legNotPositive", field, ("value", leg)));
        if (!double.IsFinite(hipWidthCm))
            problems.Add(Problem.Of("notANumber", "hipWidthCm"));
        else if (hipWidthCm < 0)
            problems.Add(Problem.Of("hipWidthNegative", "hipWidthCm", ("value", hipWidthCm)));
        return problems;
    }

    private static double Sine(double leftLegCm, double rightLegCm, double heelDistanceCm, double hipWidthCm) =>
        Math.Min(1, (heelDistanceCm - hipWidthCm) / (2 * Mean(leftLegCm, rightLegCm)));

    private static double Mean(double leftLegCm, double rightLegCm) => leftLegCm / 2 + rightLegCm / 2;
}
