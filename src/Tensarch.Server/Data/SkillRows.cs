using Tensarch.Core;
using Tensarch.Core.Skills;

namespace Tensarch.Server.Data;

/// <summary>A student on a ladder, at the version they follow.</summary>
public sealed class SkillRow : IStudioRow
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Ladder { get; set; }

    public int LadderVersion { get; set; }

    public required string Approach { get; set; }

    public DateTimeOffset StartedAt { get; set; }
}

/// <summary>A decision with the evidence it was taken on. Appended, never changed.</summary>
public sealed class DecisionRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Ladder { get; set; }

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

public sealed class FormCheckRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Ladder { get; set; }

    public int Stage { get; set; }

    public Side? Side { get; set; }

    public required List<string> Ticked { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}
