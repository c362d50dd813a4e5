using Tensarch.Core.Students;

namespace Tensarch.Server.Data;

/// <summary>Whose rows this request sees: set once, from the signed-in coach. Without one, no studio's.</summary>
public sealed class StudioScope
{
    public Guid StudioId { get; private set; }

    public Guid UserId { get; private set; }

    public TimeZoneInfo TimeZone { get; private set; } = TimeZoneInfo.Utc;

    /// <summary>By student, how often this request has saved something: a page tells its own saves from those of others.</summary>
    public Dictionary<Guid, int> Beats { get; } = [];

    public bool IsSet => StudioId != Guid.Empty;

    public void Enter(Guid studioId, Guid userId, string timeZone)
    {
        (StudioId, UserId) = (studioId, userId);
        TimeZone = TimeZoneInfo.FindSystemTimeZoneById(timeZone);
    }
}

/// <summary>Instants are UTC; training days are counted in the studio's time zone.</summary>
public sealed class StudioClock(TimeProvider time, StudioScope scope)
{
    public DateTimeOffset Now => time.GetUtcNow();

    public DateOnly Today => DayOf(Now);

    public Moment Moment => new(Now, scope.TimeZone);

    /// <summary>What was done no longer ago than this is done now: a bar keeps it from being done, whatever time it names.</summary>
    private static readonly TimeSpan Live = TimeSpan.FromMinutes(10);

    /// <summary>Whether something of this instant is done now, and not written down of an earlier time.</summary>
    public bool IsLive(DateTimeOffset? at) => at is not { } then || Now - then <= Live;

    /// <summary>The instant of a local time in the studio's time zone.</summary>
    public DateTimeOffset At(DateTime local) => new DateTimeOffset(local, scope.TimeZone.GetUtcOffset(local)).ToUniversalTime();

    /// <summary>The instant of a local time that somebody typed: of an hour that comes twice, the earlier; none where the clock skips it.</summary>
    public DateTimeOffset? AtTyped(DateTime local)
    {
        var zone = scope.TimeZone;
        return zone.IsInvalidTime(local) ? null
            : zone.IsAmbiguousTime(local) ? new DateTimeOffset(local, zone.GetAmbiguousTimeOffsets(local).Max()).ToUniversalTime()
            : At(local);
    }

    public DateOnly DayOf(DateTimeOffset instant) => Moment.DayOf(instant);
}
