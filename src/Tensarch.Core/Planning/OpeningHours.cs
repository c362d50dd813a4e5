namespace Tensarch.Core.Planning;

/// <summary>The studio is open on this weekday, from one time to another of the same day.</summary>
public sealed record OpenTime(DayOfWeek Weekday, TimeOnly From, TimeOnly Until);

/// <summary>When the studio is open. None given: it has not said, and no day counts as closed.</summary>
public static class OpeningHours
{
    public const int MostTimes = 21;

    /// <returns><c>opensTooLate</c> where a time ends before it begins, <c>timesOverlap</c> where two of one weekday do.</returns>
    public static List<Problem> Check(IReadOnlyList<OpenTime> times)
    {
        var problems = new List<Problem>();
        for (var i = 0; i < times.Count; i++)
        {
            if (times[i].From >= times[i].Until)
                problems.Add(Problem.Of("opensTooLate", $"opening[{i}].until"));
            else if (times.Take(i).Any(t => t.Weekday == times[i].Weekday && t.From < times[i].Until && times[i].From < t.Until))
                problems.Add(Problem.Of("timesOverlap", $"opening[{i}].from"));
        }
        return problems;
    }

    /// <summary>Whether the studio has said when it is open, and this is not a day of it.</summary>
    public static bool IsClosed(IReadOnlyList<OpenTime> times, DateOnly day) =>
        times.Count > 0 && times.All(t => t.Weekday != day.DayOfWeek);
}
