namespace Tensarch.Core.Measuring;

/// <summary>Breaths and seconds, by the student's own breath length.</summary>
public static class Breaths
{
    public const double DefaultSeconds = 4.5;
    public const double LeastSeconds = 2;
    public const double MostSeconds = 20;

    /// <returns>Seconds of so many breaths; <c>outOfRange</c> for a breath length outside 2 to 20 s, <c>negative</c> for a count.</returns>
    public static Result<double> ToSeconds(double breaths, double breathSeconds) =>
        Convert(breaths, breathSeconds, breaths * breathSeconds);

    /// <returns>Breaths in so many seconds; problems as above.</returns>
    public static Result<double> FromSeconds(double seconds, double breathSeconds) =>
        Convert(seconds, breathSeconds, seconds / breathSeconds);

    /// <summary>Seconds per breath from a count over some time.</summary>
    public static Result<double> Length(int breaths, double overSeconds)
    {
        if (breaths < 1)
            return Problem.Of("outOfRange", "breaths", ("value", breaths), ("min", 1), ("max", 60));
        var length = overSeconds / breaths;
        return length is >= LeastSeconds and <= MostSeconds ? length : OutOfRange(length);
    }

    private static Result<double> Convert(double amount, double breathSeconds, double converted)
    {
        if (!(breathSeconds is >= LeastSeconds and <= MostSeconds))
            return OutOfRange(breathSeconds);
        return amount >= 0 && double.IsFinite(amount) ? converted : Problem.Of("negative", "amount", ("value", amount));
    }

    private static Problem OutOfRange(double length) =>
        Problem.Of("outOfRange", "breathSeconds", ("value", length), ("min", LeastSeconds), ("max", MostSeconds));
}
