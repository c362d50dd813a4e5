namespace Tensarch.Server.Data;

/// <summary>A version of a studio's own drill: a copy of a shipped one in the coach's words.</summary>
public sealed class OwnDrillRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    /// <summary>The same for all versions.</summary>
    public required string DrillKey { get; set; }

    /// <summary>Counts up from 1.</summary>
    public int Version { get; set; }

    /// <summary>The shipped drill.</summary>
    public required string Source { get; set; }

    /// <summary>The core's own drill as JSON.</summary>
    public required string Json { get; set; }

    /// <summary>Taken out of the library.</summary>
    public bool Gone { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>A picture or a clip that shows a version of an own drill. The file lies beside the database.</summary>
public sealed class ClipRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public required string DrillKey { get; set; }

    public required string Variant { get; set; }

    /// <summary>By its content: mp4, webm or webp.</summary>
    public required string Kind { get; set; }

    public long Bytes { get; set; }

    public bool Gone { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}
