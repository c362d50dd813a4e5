namespace Tensarch.Server.Data;

/// <summary>A link under which a calendar may be read without signing in: a coach's, or a student's.</summary>
public sealed class FeedRow : IFact
{
    public Guid Id { get; set; }

    public Guid StudioId { get; set; }

    /// <summary>Whose it is; none for the coach who made it, with all students.</summary>
    public Guid? StudentId { get; set; }

    public Guid By { get; set; }

    /// <summary>256 random bits: whoever knows it may read.</summary>
    public required string Token { get; set; }

    /// <summary>When a morning's session is put into the calendar: plans say the half of the day only.</summary>
    public TimeOnly Morning { get; set; }

    public TimeOnly Afternoon { get; set; }

    public DateTimeOffset At { get; set; }

    /// <summary>From then on nothing is read under it.</summary>
    public DateTimeOffset? RevokedAt { get; set; }

    public string BodyHash { get; set; } = "";
}
