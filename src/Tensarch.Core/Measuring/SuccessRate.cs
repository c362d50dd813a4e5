namespace Tensarch.Core.Measuring;

/// <summary>A share of successes with its 95 % interval (Wilson 1927).</summary>
/// <param name="Share">Successes of attempts, 0 to 1.</param>
public sealed record SuccessRate(double Share, double Lower95, double Upper95)
{
    /// <summary>Two-sided 95 % point of the normal distribution.</summary>
    private const double Z = 1.959963984540054;

    /// <returns>The share with its interval, or <c>attemptsNotPositive</c>, <c>successesOutOfRange</c>.</returns>
    public static Result<SuccessRate> Of(int successes, int attempts)
    {
        if (attempts < 1)
            return Problem.Of("attemptsNotPositive", "attempts", ("value", attempts));
        if (successes < 0 || successes > attempts)
            return Problem.Of("successesOutOfRange", "successes", ("value", successes), ("max", attempts));
        double n = attempts;
        var share = successes / n;
        var scale = 1 + Z * Z / n;
        var centre = (share + Z * Z / (2 * n)) / scale;
        var half = Z * Math.Sqrt(share * (1 - share) / n + Z * Z / (4 * n * n)) / scale;
        return new SuccessRate(share, successes == 0 ? 0 : centre - half, successes == attempts ? 1 : centre + half);
    }
}
