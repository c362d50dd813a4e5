using Tensarch.Core;
using Tensarch.Core.Skills;

namespace Tensarch.Server.Data;

/// <summary>A student on a ladder, at the version they follow.</summary>
public sealed class SkillRow : IStudioRow, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    /// <summary>The shipped skill; a student is on it once.</summary>
    public required string Skill { get; set; }

    /// <summary>The ladder that is followed: the shipped one, or a coach's copy of it.</summary>
    public required string LadderKey { get; set; }

    public int LadderVersion { get; set; }

    public required string Approach { get; set; }

    public DateTimeOffset StartedAt { get; set; }
}

/// <summary>A decision with the evidence it was taken on. Appended, never changed.</summary>
public sealed class DecisionRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Skill { get; set; }

    public Side? Side { get; set; }

    public DecisionKind Kind { get; set; }

    public int FromStage { get; set; }

    public int ToStage { get; set; }

    public string? Reason { get; set; }

    /// <summary>The verdict as it was on that day, as JSON.</summary>
    public required string EvidenceJson { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

public sealed class FormCheckRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Skill { get; set; }

    public int Stage { get; set; }

    public Side? Side { get; set; }

    public required List<string> Ticked { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>A way out that a coach watched: how many of how many times it was safe. Where it was watched is kept; what counts is which it was.</summary>
public sealed class ExitCheckRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Skill { get; set; }

    public int Stage { get; set; }

    public Side? Side { get; set; }

    public required string Drill { get; set; }

    public string? Variant { get; set; }

    public int Safe { get; set; }

    public int Of { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>One version of a coach's own ladder. Appended, never changed: whoever follows it keeps it.</summary>
public sealed class OwnLadderRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    /// <summary>The same for all versions.</summary>
    public required string LadderKey { get; set; }

    /// <summary>Counts up from 1.</summary>
    public int Version { get; set; }

    public required string Skill { get; set; }

    public required string Name { get; set; }

    /// <summary>The core's ladder as JSON.</summary>
    public required string Json { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>
/// Where one gate lies on the readiness board, kept so that a board of a thousand students is one query.
/// </summary>
public sealed class BoardRow : IKeptLine
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Skill { get; set; }

    public Side? Side { get; set; }

    public ReadinessGroup Group { get; set; }

    /// <summary>The order within a group, least first.</summary>
    public double Rank { get; set; }

    public required string LineJson { get; set; }

    public DateTimeOffset DueAt { get; set; }

    public int Stamp { get; set; }
}
