namespace Tensarch.Server.Data;

/// <summary>One version of a student's plan; the newest counts, and the ones before stay readable.</summary>
public sealed class PlanRow : IFact, IOfStudent
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    /// <summary>Counted from 1.</summary>
    public int Number { get; set; }

    /// <summary>What the coach set, as JSON.</summary>
    public required string SketchJson { get; set; }

    /// <summary>The days, as JSON.</summary>
    public required string DaysJson { get; set; }

    /// <summary>Why there is this version: <c>first</c>, <c>again</c>, <c>byHand</c> or <c>roster</c>.</summary>
    public required string Why { get; set; }

    public DateTimeOffset At { get; set; }

    /// <summary>The version of the student's facts that it was worked out of; below nothing where that was not kept.</summary>
    public long Facts { get; set; } = -1;

    public Guid By { get; set; }

    /// <summary>It is over: nothing more of it is planned.</summary>
    public DateTimeOffset? EndedAt { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>A whole roster that is planned, or was: what came of each student so far. One that did not end goes on when the server starts again.</summary>
public sealed class RosterRunRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    /// <summary>Those who have no plan are planned as well.</summary>
    public bool AlsoNew { get; set; }

    /// <summary>Who is planned, with what came of it, as JSON.</summary>
    public required string LinesJson { get; set; }

    public DateTimeOffset? CancelledAt { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    public string BodyHash { get; set; } = "";
}
