using Tensarch.Core.Planning;

namespace Tensarch.Core.Students;

/// <summary>
/// The way back after a break: as many sessions as the break had weeks, at least two and at most eight. Source: planning rules, missed sessions.
/// </summary>
/// <param name="BreakDays">From the session before the break to the one after it, or to the day.</param>
/// <param name="Sessions">How many the way back takes.</param>
/// <param name="Done">How many of them are done.</param>
public sealed record WayBack(int BreakDays, int Sessions, int Done)
{
    public const int FewestSessions = 2;
    public const int MostSessions = 8;

    public Absence Absence => Absences.After(BreakDays);

    /// <summary>The share of the dose in the session that comes next: it grows from 70 % by equal steps, back to all of it when the way is gone.</summary>
    public double DoseShare => Absences.LighterShare + (1 - Absences.LighterShare) * Done / Sessions;

    /// <param name="days">Days on which a session was trained, in any order.</param>
    /// <returns>None when no break asks for one.</returns>
    public static WayBack? On(DateOnly day, IEnumerable<DateOnly> days)
    {
        var trained = days.Where(d => d <= day).Distinct().OrderDescending().ToList();
        return Ways(day, trained).OrderByDescending(w => w.Absence).ThenBy(w => w.DoseShare).FirstOrDefault();
    }

    private static IEnumerable<WayBack> Ways(DateOnly day, List<DateOnly> trained)
    {
        var next = day;
        foreach (var (done, last) in trained.Index())
        {
            var away = next.DayNumber - last.DayNumber;
            var sessions = Math.Clamp((away + 6) / 7, FewestSessions, MostSessions);
            if (Absences.After(away) >= Absence.Lighter && done < sessions)
                yield return new(away, sessions, done);
            next = last;
        }
    }
}
