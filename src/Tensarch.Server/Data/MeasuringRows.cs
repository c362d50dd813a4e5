using Tensarch.Core;
using Tensarch.Core.Measuring;

namespace Tensarch.Server.Data;

public sealed class ReadingRow : IFact, IJudged, ITold
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

    /// <summary>Raw values in order; empty for counts.</summary>
    public required List<double> Trials { get; set; }

    /// <summary>When each trial was taken, in UTC ticks, where the bench saw it; else empty.</summary>
    public List<long> TrialsAt { get; set; } = [];

    public int? Successes { get; set; }

    public int? Attempts { get; set; }

    /// <summary>Each attempt in order, 1 held and 0 not, where it is known.</summary>
    public string? Hits { get; set; }

    /// <summary>The block stacks that the trials were read as, as JSON.</summary>
    public string? StacksJson { get; set; }

    /// <summary>The placed landmarks that the trials were read from.</summary>
    public List<Guid> Marks { get; set; } = [];

    /// <summary>The sitting in which it was taken.</summary>
    public Guid? SittingId { get; set; }

    /// <summary>Taken although it was unlikely.</summary>
    public bool Confirmed { get; set; }

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

    /// <summary>On how many degrees of freedom of the taker's own repeats the SEM rests, and τ on how many pairs.</summary>
    public int SemDof { get; set; }

    public int TauPairs { get; set; }

    public double Value { get; set; }

    public double StandardError { get; set; }

    public DateTimeOffset TakenAt { get; set; }

    /// <inheritdoc />
    public DateTimeOffset RecordedAt { get; set; }

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

/// <summary>One sitting at the bench: what is to be read, in order. Its readings are facts of their own.</summary>
public sealed class SittingRow : IFact, IOfStudent
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    /// <summary>What it reads: <c>needs</c>, a battery's key, or <c>single</c>.</summary>
    public required string Scope { get; set; }

    /// <summary>The core's sitting items in their order, as JSON.</summary>
    public required string ItemsJson { get; set; }

    public DateTimeOffset StartedAt { get; set; }

    public Guid By { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>What has been captured for one side of one item and is not yet a reading: kept, so that another device can go on.</summary>
public sealed class DraftRow : IStudioRow
{
    public Guid SittingId { get; set; }

    /// <summary>Measure, side, level and warmth.</summary>
    public required string Slot { get; set; }

    public Guid StudioId { get; set; }

    public int Version { get; set; }

    public required string Json { get; set; }

    public DateTimeOffset At { get; set; }
}

/// <summary>A studio's own version of a measure. Appended; the newest counts.</summary>
public sealed class OwnMeasureRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public required string Measure { get; set; }

    /// <summary>Counts up from 1 for each measure.</summary>
    public int Version { get; set; }

    /// <summary>The core's own measure as JSON; none goes back to the shipped one.</summary>
    public string? Json { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>A side picture. The file lies beside the database, re-encoded and without metadata.</summary>
public sealed class PictureRow : IFact, IOfStudent
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    /// <summary>The measure, or the view, that it shows.</summary>
    public required string View { get; set; }

    public int Width { get; set; }

    public int Height { get; set; }

    public DateTimeOffset TakenAt { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>Landmarks placed on a picture.</summary>
public sealed class MarkRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public Guid PictureId { get; set; }

    /// <summary>The core's placement as JSON.</summary>
    public required string PlacementJson { get; set; }

    /// <summary>What it says, in degrees.</summary>
    public double Value { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}
