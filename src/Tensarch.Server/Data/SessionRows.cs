using Tensarch.Core;
using Tensarch.Core.Students;

namespace Tensarch.Server.Data;

/// <summary>A planned session: a day, and the number of the plan that it is run by. Every change of it counts its version up.</summary>
public sealed class SessionRow : IStudioRow, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public DateOnly Date { get; set; }

    /// <summary>Of the day, where it is one of the weeks; none of those that were planned for themselves.</summary>
    public DayHalf? Half { get; set; }

    /// <summary>Counts up with every command on it, from 1.</summary>
    public int Version { get; set; } = 1;

    /// <summary>The number of its plan as it stands; of one that is trained, of the plan that it is trained by.</summary>
    public int Plan { get; set; } = 1;

    /// <summary>The number of the plan before a coach changed it by hand: what is kept can be taken back.</summary>
    public int? Before { get; set; }

    /// <summary>Counts up with every change that a calendar shows.</summary>
    public int Sequence { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";

    /// <summary>It was planned and thrown away before it began; what is told of it all the same brings it back.</summary>
    public DateTimeOffset? DeletedAt { get; set; }

    /// <summary>The plan as it stands.</summary>
    public PlanVersionRow Planned { get; set; } = null!;

    /// <summary>None while nobody has begun it.</summary>
    public TrainingRow? Training { get; set; }

    /// <summary>Something was done in it, or it was ended: what it is trained by stays.</summary>
    public bool IsTrained => Training is { StartedAt: not null } or { EndedAt: not null };

    /// <summary>As it would be if it had not been thrown away.</summary>
    public SessionRow Restored()
    {
        var row = (SessionRow)MemberwiseClone();
        row.DeletedAt = null;
        return row;
    }

    /// <summary>A plan of weeks may still give it another plan or day.</summary>
    public bool IsOpen => Training is null && DeletedAt is null;
}

/// <summary>One numbered plan of a session: appended, never written over. Its number is the version of the session that it came with; what is older than the first is below 1.</summary>
public sealed class PlanVersionRow : IStudioRow
{
    public Guid SessionId { get; set; }

    public int Number { get; set; }

    public Guid StudioId { get; set; }

    /// <summary>The core's session plan, as JSON.</summary>
    public required string PlanJson { get; set; }

    /// <summary>What it is for first.</summary>
    public required string Skill { get; set; }

    /// <summary>The other skills that it is for.</summary>
    public List<string> Beside { get; set; } = [];

    public int TotalSeconds { get; set; }

    public Side FirstSide { get; set; }

    /// <summary>What made it: <c>made</c>, <c>again</c>, <c>moved</c>, <c>edited</c>, <c>takenBack</c>, <c>weeks</c>, or <c>before</c> of what was there before plans were numbered.</summary>
    public required string Why { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }
}

/// <summary>One session that was begun, under one of its plans. What it points at no command changes.</summary>
public sealed class TrainingRow : IStudioRow, IJudged
{
    public Guid SessionId { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    /// <summary>The number of the plan that it is trained by.</summary>
    public int Plan { get; set; }

    /// <summary>When its first set was done, or something was said of the body; none while nothing was.</summary>
    public DateTimeOffset? StartedAt { get; set; }

    public DateOnly? StartedOn { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    /// <summary>What was worked, each drill, variant and side once, as the core writes it: drawn from the sets, so that a season is judged without reading every round of it.</summary>
    public List<string> Worked { get; set; } = [];

    public PlanVersionRow Planned { get; set; } = null!;
}

/// <summary>What a coach asked of a session, with the answer: asked again under the same id, it answers the same and does nothing.</summary>
public sealed class CommandRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid SessionId { get; set; }

    /// <summary>As JSON.</summary>
    public required string AnswerJson { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>One round that was done, in a session or on the bench.</summary>
public sealed class SetRow : IFact, IJudged, ITold
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

    /// <summary>Of what a gate reads: a hand said that it was done. Running out of time is practice, not proof.</summary>
    public bool Confirmed { get; set; } = true;

    /// <summary>Told by a device that had not heard what another one said of the same session: it counts for no gate until a coach confirms it.</summary>
    public bool Doubled { get; set; }

    public DateTimeOffset At { get; set; }

    /// <inheritdoc />
    public DateTimeOffset RecordedAt { get; set; }

    public DateOnly Day { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>What a body said, and where.</summary>
public sealed class SignalRow : IFact, IJudged, ITold
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public Guid? SessionId { get; set; }

    public string? Drill { get; set; }

    public SignalKind Kind { get; set; }

    public LoadTag? Region { get; set; }

    /// <summary>The part of the body that was pointed at, a key; none where only the region was said.</summary>
    public string? Place { get; set; }

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
