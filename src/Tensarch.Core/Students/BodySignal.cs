namespace Tensarch.Core.Students;

/// <summary>What a body, or a fall, can say during a session or a reading.</summary>
public enum SignalKind
{
    DullPain,
    SharpPain,
    Numbness,
    HeadPressure,
    Fall,
    FallWithHeadContact,
    BreathHeld,
    OverCeiling,
}

/// <summary>One logged signal.</summary>
/// <param name="Region">Where; none for what has no place (a fall, held breath).</param>
/// <param name="Side">The body side that hurts, where it has one.</param>
/// <param name="Pain">0 to 10, where it was said.</param>
public sealed record BodySignal(Guid Id, DateTimeOffset At, SignalKind Kind, LoadTag? Region, Side? Side, int? Pain)
{
    /// <summary>A pain event is pain above this, of 10; what is sharp, a pinch or a pop is one with or without a number.</summary>
    public const int PainEventAbove = 3;

    public bool IsPainEvent => Region is { } region && region.IsRegion() && (Pain > PainEventAbove || Kind == SignalKind.SharpPain);
}
