using Tensarch.Core;
using Tensarch.Core.Measuring;

namespace Tensarch.Server.Data;

public sealed class ReadingRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Measure { get; set; }

    public Side? Side { get; set; }

    public Mode Mode { get; set; }

    public string? Level { get; set; }

    public Warmth Warmth { get; set; }

    public string? Standard { get; set; }

    public Instrument Instrument { get; set; }

    public required List<double> Trials { get; set; }

    public required List<string> Compensations { get; set; }

    public bool Disqualified { get; set; }

    public int? Quality { get; set; }

    public int? Sensation { get; set; }

    public int? Pain { get; set; }

    public string? Note { get; set; }

    /// <summary>Frozen when taken: SEM, τ and resolution of that day, and what follows from them.</summary>
    public double Sem { get; set; }

    public double Tau { get; set; }

    public double Resolution { get; set; }

    public double Value { get; set; }

    public double StandardError { get; set; }

    public DateTimeOffset TakenAt { get; set; }

    public Guid TakenBy { get; set; }

    public string BodyHash { get; set; } = "";

    public ReadingVoidRow? Void { get; set; }
}

/// <summary>A reading is never edited: it is voided, with a reason.</summary>
public sealed class ReadingVoidRow : IStudioRow
{
    /// <summary>The reading's own id: a reading is voided once.</summary>
    public Guid ReadingId { get; set; }

    public Guid StudioId { get; set; }

    public required string Reason { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }
}
