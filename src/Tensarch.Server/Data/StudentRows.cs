using Tensarch.Core.Students;

namespace Tensarch.Server.Data;

public sealed class StudentRow : IStudioRow
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    /// <summary>Counts up with every change; the client sends back the one it saw.</summary>
    public int Version { get; set; }

    public required string Name { get; set; }

    public string? About { get; set; }

    public DateOnly? BirthDate { get; set; }

    public double? LeftLegCm { get; set; }

    public double? RightLegCm { get; set; }

    /// <summary>Between the two hip joints.</summary>
    public double HipWidthCm { get; set; } = 17;

    public double? BodyweightKg { get; set; }

    public double BreathSeconds { get; set; }

    public int SensationCeiling { get; set; }

    /// <summary>The standard of the front split: square or open.</summary>
    public required string SplitStandard { get; set; }

    public int BlocksOwned { get; set; }

    /// <summary>Keys of the props they have at home.</summary>
    public List<string> Equipment { get; set; } = [];

    /// <summary>What the student calls parts of their body, by load tag, as JSON.</summary>
    public string? BodyWordsJson { get; set; }

    public int SessionMinutes { get; set; }

    /// <summary>The days on which they can train, as JSON.</summary>
    public string? DaysJson { get; set; }

    /// <summary>The skills they want, the most wanted first, as JSON.</summary>
    public string? GoalsJson { get; set; }

    /// <summary>They began when everybody was asked for a consent to train: without one nothing is.</summary>
    public bool ConsentNeeded { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public DateTimeOffset? ArchivedAt { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>One answer to one intake question; the newest counts.</summary>
public sealed class AnswerRow : IStudioRow, IJudged
{
    public long Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Question { get; set; }

    public bool Yes { get; set; }

    /// <summary>Of a question that is counted: what was told; none where it was answered as a whole.</summary>
    public List<string>? Signs { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }
}

public sealed class ClearanceRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Role { get; set; }

    public required List<LoadTag> Tags { get; set; }

    public DateOnly From { get; set; }

    public DateOnly Until { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

public sealed class ReviewRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public LoadTag Tag { get; set; }

    public required string Note { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

public sealed class ScreeningRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public ScreeningKind Kind { get; set; }

    /// <summary>What changed, in the student's words.</summary>
    public string? Note { get; set; }

    /// <summary>The day in the studio's time zone.</summary>
    public DateOnly On { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>A clearance that no longer stands, before its last day.</summary>
public sealed class WithdrawalRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public Guid ClearanceId { get; set; }

    public required string Reason { get; set; }

    /// <summary>The first day on which it does not stand.</summary>
    public DateOnly On { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>The body data as they were written down once: every change is a new row with who and when.</summary>
public sealed class BodyRow : IStudioRow, IJudged
{
    public long Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public int Version { get; set; }

    public required string BodyJson { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }
}

/// <summary>A student's line in the roster.</summary>
public sealed class RosterRow : IKeptLine
{
    public Guid StudentId { get; set; }

    public Guid StudioId { get; set; }

    public required string LineJson { get; set; }

    public DateTimeOffset DueAt { get; set; }

    public int Stamp { get; set; }
}

/// <summary>A coach's own words about a student.</summary>
public sealed class NoteRow : IFact, IOfStudent
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    /// <summary>As it stands; what was said first is in the corrections' way: see <see cref="Said"/>.</summary>
    public required string Text { get; set; }

    /// <summary>As it was written down.</summary>
    public required string Said { get; set; }

    /// <summary>It stands at the top, and on the student's page.</summary>
    public bool Pinned { get; set; }

    /// <summary>It is shown at the start of the next session, until it is ticked off.</summary>
    public bool CarryOver { get; set; }

    public DateTimeOffset? DoneAt { get; set; }

    public bool Gone { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>Counts what is saved about a student, with who saved last.</summary>
public sealed class PulseRow : IStudioRow
{
    public Guid StudentId { get; set; }

    public Guid StudioId { get; set; }

    public long Beat { get; set; }

    /// <summary>Counts the writes on which verdicts rest: what was worked out of fewer is not kept.</summary>
    public long Facts { get; set; }

    public Guid By { get; set; }

    public DateTimeOffset At { get; set; }
}
