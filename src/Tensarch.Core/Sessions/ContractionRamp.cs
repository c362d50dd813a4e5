namespace Tensarch.Core.Sessions;

/// <summary>A contraction that rises from p₀ to p₁ percent effort in r seconds, the last m of them at p₁ (0 ≤ m &lt; r).</summary>
public readonly record struct ContractionRamp(int Seconds, int FromPercent, int ToPercent, int PlateauSeconds)
{
    /// <summary>Effort at t seconds: linear from p₀ at 0 to p₁ at r − m, then p₁.</summary>
    /// <exception cref="ArgumentOutOfRangeException">t lies outside the ramp, or the plateau is not shorter than it.</exception>
    public double PercentAt(double t)
    {
        if (PlateauSeconds < 0 || PlateauSeconds >= Seconds)
            throw new ArgumentOutOfRangeException(nameof(t), PlateauSeconds, "The plateau is shorter than the ramp.");
        if (!(t >= 0 && t <= Seconds))
            throw new ArgumentOutOfRangeException(nameof(t), t, "The time lies within the ramp.");
        var rise = Seconds - PlateauSeconds;
        return t >= rise ? ToPercent : FromPercent + (ToPercent - FromPercent) * t / rise;
    }

    /// <summary>Effort × time over the whole ramp, in percent-seconds: the area under <see cref="PercentAt"/>.</summary>
    public double Impulse => (FromPercent + ToPercent) / 2.0 * (Seconds - PlateauSeconds) + ToPercent * PlateauSeconds;

    /// <summary>The effort to show in each whole second: at its middle, so that the seconds add up to the impulse of the ramp.</summary>
    public IReadOnlyList<int> BySecond()
    {
        var ramp = this;
        return [.. Enumerable.Range(0, Seconds).Select(s => (int)Math.Round(ramp.PercentAt(s + 0.5), MidpointRounding.AwayFromZero))];
    }
}
