using Tensarch.Core.Students;

namespace Tensarch.Server.Data;

/// <summary>A yes or a no; the newest of a kind counts.</summary>
public sealed class ConsentRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    public ConsentKind Kind { get; set; }

    public bool Given { get; set; }

    /// <summary>Who said it, where it was not the student.</summary>
    public string? SaidBy { get; set; }

    /// <summary>The day in the studio's time zone.</summary>
    public DateOnly On { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}

/// <summary>What was said before a session; the newest of a day counts.</summary>
public sealed class CheckInRow : IFact, IJudged
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    public Guid StudentId { get; set; }

    /// <summary>The day in the studio's time zone.</summary>
    public DateOnly Day { get; set; }

    public bool SleptBadly { get; set; }

    public bool Ill { get; set; }

    public bool TrainedHard { get; set; }

    /// <summary>Places of the body with what is felt there, as JSON.</summary>
    public string? FeltJson { get; set; }

    public DateTimeOffset At { get; set; }

    public Guid By { get; set; }

    public string BodyHash { get; set; } = "";
}
