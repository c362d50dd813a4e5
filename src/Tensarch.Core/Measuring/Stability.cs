namespace Tensarch.Core.Measuring;

/// <summary>Watches a stream of angles and says when it stands still: standard deviation under 0.5° for one second.</summary>
public sealed class Stability
{
    public static readonly TimeSpan Window = TimeSpan.FromSeconds(1);
    public const double LargestDeviation = 0.5;

    /// <summary>Before the next automatic capture the angle has to leave the captured one by this much.</summary>
    public const double ReleaseDeg = 4;

    /// <summary>Fewer samples in a second are a broken stream, not a still one.</summary>
    private const int FewestSamples = 10;

    private readonly Queue<(TimeSpan At, double Angle)> window = new();
    private double? captured;

    /// <summary>The mean of the last second once it stands still; none while it moves.</summary>
    public double? StableDeg { get; private set; }

    /// <summary>Takes the next sample.</summary>
    /// <returns>The stable angle the first time the stream stands still at a new place; otherwise none.</returns>
    public double? Add(TimeSpan at, double angleDeg)
    {
        window.Enqueue((at, angleDeg));
        while (at - window.Peek().At > Window)
            window.Dequeue();
        if (captured is { } held && Math.Abs(angleDeg - held) > ReleaseDeg)
            captured = null;

        var full = at - window.Peek().At >= Window * 0.9 && window.Count >= FewestSamples;
        var mean = window.Average(s => s.Angle);
        var deviation = Math.Sqrt(window.Sum(s => (s.Angle - mean) * (s.Angle - mean)) / Math.Max(1, window.Count - 1));
        StableDeg = full && deviation < LargestDeviation ? mean : null;
        if (StableDeg is null || captured is not null)
            return null;
        captured = StableDeg;
        return StableDeg;
    }

    /// <summary>The device was lost: what comes next starts anew.</summary>
    public void Reset()
    {
        window.Clear();
        StableDeg = null;
    }
}
