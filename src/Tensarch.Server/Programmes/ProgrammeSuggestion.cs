using Tensarch.Core.Programmes;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>What suggests itself for a student who has no programme.</summary>
internal static class ProgrammeSuggestion
{
    private const int UsualWeeks = 8;

    /// <summary>From the student's goals and days; three afternoons where nobody wrote any down.</summary>
    /// <returns>None where they are on no skill yet.</returns>
    public static ProgrammeSketch? Of(Standing standing, DateOnly today)
    {
        var on = standing.State.Courses.Select(c => c.Skill).ToList();
        if (on.Count == 0)
            return null;
        var wanted = (StoredJson.TryRead<List<string>>(standing.Student.GoalsJson) ?? []).Where(on.Contains);
        var goals = wanted.Concat(on).Distinct().Take(Programme.MostGoals).Select((s, i) => new GoalSketch(s, i + 1));
        var days = StoredJson.TryRead<List<AvailableDay>>(standing.Student.DaysJson) ?? [];
        AvailableDay Usual(DayOfWeek day) => new(day, null, standing.Student.SessionMinutes, DayHalf.Pm);
        return new(
            today.AddDays((8 - (int)today.DayOfWeek) % 7),
            UsualWeeks,
            [.. goals],
            days.Count > 0 ? days : [Usual(DayOfWeek.Monday), Usual(DayOfWeek.Wednesday), Usual(DayOfWeek.Saturday)]
        );
    }
}
