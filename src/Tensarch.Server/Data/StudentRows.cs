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

    public int SessionMinutes { get; set; }

    public DateOnly? GuardianConsentOn { get; set; }

    public DateTimeOffset CreatedAt { get; set; }

    public DateTimeOffset? ArchivedAt { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>One answer to one intake question; the newest counts.</summary>
public sealed class AnswerRow : IStudioRow
{
    public long Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public required string Question { get; set; }

    public bool Yes { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }
}

public sealed class ClearanceRow : IFact
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

public sealed class ReviewRow : IFact
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
