using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using NodaTime;
using Tensarch.Core.Students;
using Duration = Ical.Net.DataTypes.Duration;

namespace Tensarch.Server.Calendar;

/// <summary>A session as a calendar has it.</summary>
/// <param name="Sequence">Counts up with every change.</param>
public sealed record CalendarSession(Guid Id, DateOnly Day, DayHalf? Half, int Seconds, int Sequence, string Title, string Text);

/// <summary>Writes sessions as iCalendar (RFC 5545), at wall-clock times of the studio's zone.</summary>
public static class CalendarWriter
{
    public static readonly TimeOnly UsualMorning = new(9, 0);
    public static readonly TimeOnly UsualAfternoon = new(17, 0);

    private const string Product = "-//Tensarch//Plans//EN";
    private const string ReadAgain = "PT1H";

    /// <summary>The zone's rules are written from then on: no session is older.</summary>
    private static readonly DateTime ZonesFrom = new(2026, 1, 1);

    /// <param name="timeZone">IANA name.</param>
    /// <param name="now">When the calendar is written: what RFC 5545 asks to stand with each event of a published one.</param>
    public static string Write(
        string name,
        IReadOnlyList<CalendarSession> sessions,
        string timeZone,
        TimeOnly morning,
        TimeOnly afternoon,
        DateTimeOffset now
    )
    {
        var calendar = new Ical.Net.Calendar { ProductId = Product, Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", name);
        calendar.AddProperty("NAME", name);
        calendar.AddProperty("X-WR-TIMEZONE", timeZone);
        calendar.AddProperty("REFRESH-INTERVAL;VALUE=DURATION", ReadAgain);
        if (DateTimeZoneProviders.Tzdb.GetZoneOrNull(timeZone) is { } zone)
            calendar.AddTimeZone(VTimeZone.FromDateTimeZone(zone.Id, ZonesFrom, false));
        foreach (var session in sessions)
            calendar.Events.Add(Event(session, timeZone, session.Half == DayHalf.Am ? morning : afternoon, now));
        return new CalendarSerializer().SerializeToString(calendar) ?? "";
    }

    private static CalendarEvent Event(CalendarSession session, string timeZone, TimeOnly start, DateTimeOffset now) =>
        new()
        {
            Uid = $"{session.Id:N}@tensarch",
            Sequence = session.Sequence,
            DtStamp = Utc(now),
            Start = new CalDateTime(session.Day.ToDateTime(start), timeZone),
            Duration = Duration.FromMinutes((session.Seconds + 59) / 60),
            Summary = session.Title,
            Description = session.Text,
            Status = EventStatus.Confirmed,
        };

    private static CalDateTime Utc(DateTimeOffset at) => new(at.UtcDateTime, "UTC");
}
