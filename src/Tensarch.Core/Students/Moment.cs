namespace Tensarch.Core.Students;

/// <summary>An instant, and the zone in which the studio counts its days.</summary>
public sealed record Moment(DateTimeOffset At, TimeZoneInfo Zone)
{
    public DateOnly Day => DayOf(At);

    public DateOnly DayOf(DateTimeOffset instant) => DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(instant, Zone).DateTime);

    /// <summary>The first instant of a day.</summary>
    public DateTimeOffset StartOf(DateOnly day)
    {
        var midnight = day.ToDateTime(TimeOnly.MinValue);
        return new DateTimeOffset(midnight, Zone.GetUtcOffset(midnight)).ToUniversalTime();
    }
}
