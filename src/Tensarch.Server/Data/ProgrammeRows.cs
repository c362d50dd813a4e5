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

    /// <summary>Why there is this version: <c>first</c>, <c>again</c> or <c>byHand</c>.</summary>
    public required string Why { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    /// <summary>It is over: nothing more of it is planned.</summary>
    public DateTimeOffset? EndedAt { get; set; }

    public string BodyHash { get; set; } = "";
}
