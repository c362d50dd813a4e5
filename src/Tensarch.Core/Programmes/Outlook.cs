using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>A planned session before the day that is looked at.</summary>
/// <param name="Skills">That it is an exposure of.</param>
/// <param name="Worked">None while it is not known yet what it will be.</param>
/// <param name="Planned">As what; none while it is not known yet.</param>
internal sealed record Ahead(
    DateOnly Day,
    IReadOnlyCollection<string> Skills,
    IReadOnlyList<Work>? Worked = null,
    IReadOnlyList<PlannedSkill>? Planned = null
)
{
    /// <summary>The side that goes first in it, where it trains this.</summary>
    public Side? FirstSideOf(CourseState course) =>
        Planned is null
            ? (Skills.Contains(course.Skill) ? course.FirstSide : null)
            : Planned.FirstOrDefault(s => s.Skill == course.Skill)?.FirstSide;
}

/// <summary>Who a student will be on a day of a plan: as the facts have them, with the sessions before it done as they are planned.</summary>
internal static class Outlook
{
    /// <summary>What pain or a back-off eased stays so for as many sessions of a plan.</summary>
    private const int EasedSessions = 3;

    private const int SessionsAWeek = 2;

    /// <param name="facts">On the day, with nothing of the plan.</param>
    /// <param name="before">In order of time.</param>
    public static Trainee On(Trainee facts, IReadOnlyList<Ahead> before, CatalogueContent content)
    {
        if (before.Count == 0)
            return facts;
        var history = before.Aggregate(facts.History, (all, d) => all.With(d.Day, d.Worked ?? [], content));
        return facts with
        {
            Courses = [.. facts.Courses.Select(c => Of(c, facts.Date, before))],
            History = history,
            WayBack = WayBack.On(facts.Date, history.Days.Select(d => d.Day)),
            Eased = before.Count < EasedSessions ? facts.Eased : [.. facts.Eased.Where(e => e is { EasierBy: 0, SettleShare: 1 })],
        };
    }

    private static CourseState Of(CourseState course, DateOnly date, IReadOnlyList<Ahead> before)
    {
        var began = date.AddDays(-course.DaysSinceStart);
        var trained = before.Where(d => d.Skills.Contains(course.Skill)).ToList();
        var weeks = trained
            .GroupBy(d => (d.Day.DayNumber - began.DayNumber) / 7)
            .Count(week => week.Key < course.DaysSinceStart / 7 && week.Count() >= SessionsAWeek);
        return course with
        {
            SessionsSinceStart = course.SessionsSinceStart + trained.Count,
            WeeksTrained = course.WeeksTrained + weeks,
            LastFirstSide = before
                .Aggregate(course, (c, d) => d.FirstSideOf(c) is { } first ? c with { LastFirstSide = first } : c)
                .LastFirstSide,
        };
    }
}
