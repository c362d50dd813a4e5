namespace Tensarch.Core.Students;

/// <summary>What a body, or a fall, can say during a session or a reading.</summary>
public enum SignalKind
{
    DullPain,
    SharpPain,
    Numbness,
    HeadPressure,

    /// <summary>An uncontrolled fall, without head or neck contact.</summary>
    Fall,
    FallWithHeadContact,
    BreathHeld,
    OverCeiling,

    /// <summary>A pinch in a joint.</summary>
    Pinch,
    Pop,

    /// <summary>Sudden loss of strength.</summary>
    StrengthLost,

    /// <summary>Out by the way out, safely: a lesson and no fall.</summary>
    Bailed,

    /// <summary>A click or crack without pain: noted.</summary>
    Click,

    /// <summary>Chest tightness, breathlessness that does not settle, fainting.</summary>
    ChestTightness,

    /// <summary>Numbness around the saddle or in both legs, a change of the bladder.</summary>
    SaddleNumbness,
}

/// <summary>One logged signal.</summary>
/// <param name="Region">Where; none for what has no place (a fall, held breath).</param>
/// <param name="Side">The body side that hurts, where it has one.</param>
/// <param name="Pain">0 to 10, where it was said.</param>
/// <param name="Drill">The drill it came with, where it is known.</param>
public sealed record BodySignal(Guid Id, DateTimeOffset At, SignalKind Kind, LoadTag? Region, Side? Side, int? Pain, string? Drill = null)
{
    /// <summary>The part of the body that was pointed at; none where only the region is known.</summary>
    public string? Place { get; init; }

    /// <summary>When it was heard of, or last said otherwise: nothing that was recorded before that lifts what it bars.</summary>
    public DateTimeOffset RecordedAt { get; init; } = At;

    /// <summary>A pain event is pain above this, of 10; what is sharp, a pinch or a pop is one with or without a number.</summary>
    public const int PainEventAbove = 3;

    /// <summary>Pain of this and more, of 10, is met as sharp pain, whatever it was called.</summary>
    public const int SharpFrom = 6;

    /// <summary>As which signal it is met.</summary>
    public SignalKind MetAs => Kind == SignalKind.DullPain && Pain >= SharpFrom ? SignalKind.SharpPain : Kind;

    public bool IsPainEvent =>
        Region is { } region
        && region.IsRegion()
        && (Pain > PainEventAbove || Kind is SignalKind.SharpPain or SignalKind.Pinch or SignalKind.Pop or SignalKind.StrengthLost);
}
