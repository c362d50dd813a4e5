namespace Tensarch.Core.Measuring;

/// <summary>How far a reading can be trusted. All numbers in the measure's unit.</summary>
public static class ReadingError
{
    /// <summary>
    /// Standard error of a reading: √(τ² + SEM²/n + r²). Only the trial-to-trial part shrinks with more trials;
    /// day to day (τ) and the instrument's resolution (r) stay. Source: classical test theory, after Weir (2005).
    /// </summary>
    /// <exception cref="ArgumentOutOfRangeException">No trials, or a negative or undefined source of error.</exception>
    public static double StandardError(double sem, double tau, int trials, double resolution = 0)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(trials, 1);
        NotNegative(sem, nameof(sem));
        NotNegative(tau, nameof(tau));
        NotNegative(resolution, nameof(resolution));
        return Math.Sqrt(tau * tau + sem * sem / trials + resolution * resolution);
    }

    private static void NotNegative(double value, string name)
    {
        if (!(value >= 0))
            throw new ArgumentOutOfRangeException(name, value, "An error is zero or more.");
    }
}
