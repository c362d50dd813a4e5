using Tensarch.Core;
using Tensarch.Core.Students;

namespace Tensarch.Server.Data;

public sealed class SessionRow : IStudioRow, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    /// <summary>What it is for first.</summary>
    public required string Skill { get; set; }

    /// <summary>The other skills that it is for.</summary>
    public List<string> Beside { get; set; } = [];

    public DateOnly Date { get; set; }

    /// <summary>The core's session plan, as JSON.</summary>
    public required string PlanJson { get; set; }

    /// <summary>The plan before a coach changed it by hand: what is kept can be taken back.</summary>
    public string? PlanBefore { get; set; }

    /// <summary>The request that changed it last.</summary>
    public Guid? EditId { get; set; }

    public int TotalSeconds { get; set; }

    /// <summary>Of the day; none where nobody said.</summary>
    public DayHalf? Half { get; set; }

    /// <summary>Counts up with every change of its day or its plan.</summary>
    public int Sequence { get; set; }

    public Side FirstSide { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";

    /// <summary>When its first set was done; none while it has not been trained.</summary>
    public DateTimeOffset? StartedAt { get; set; }

    public DateOnly? StartedOn { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    /// <summary>It was planned and thrown away before it began; what is told of it all the same brings it back.</summary>
    public DateTimeOffset? DeletedAt { get; set; }

    /// <summary>What was worked, each drill, variant and side once, as the core writes it: drawn from the sets, so that a season is judged without reading every round of it.</summary>
    public List<string> Worked { get; set; } = [];
}

/// <summary>One round that was done, in a session or on the bench.</summary>
public sealed class SetRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public Guid? SessionId { get; set; }

    public required string Drill { get; set; }

    public required string Variant { get; set; }

    public Side? Side { get; set; }

    public int Round { get; set; }

    public double? Seconds { get; set; }

    public int? CleanReps { get; set; }

    public int? Quality { get; set; }

    public int? Sensation { get; set; }

    /// <summary>Of what a gate reads: a hand said that it was done. Running out of time is practice, not proof.</summary>
    public bool Confirmed { get; set; } = true;

    /// <summary>Told by a device that had not heard what another one said of the same session: it counts for no gate until a coach confirms it.</summary>
    public bool Doubled { get; set; }

    public DateTimeOffset At { get; set; }

    public DateOnly Day { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>What a body said, and where.</summary>
public sealed class SignalRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public Guid? SessionId { get; set; }

    public string? Drill { get; set; }

    public SignalKind Kind { get; set; }

    public LoadTag? Region { get; set; }

    public Side? Side { get; set; }

    public int? Pain { get; set; }

    public string? Note { get; set; }

    public DateTimeOffset At { get; set; }

    /// <summary>When this server heard of it: what was recorded before that lifts nothing that it bars.</summary>
    public DateTimeOffset RecordedAt { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>A practice of the plain timer that the studio has named.</summary>
public sealed class PresetRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public required string Name { get; set; }

    /// <summary>The core's practice, as JSON.</summary>
    public required string PracticeJson { get; set; }

    public bool Gone { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}
