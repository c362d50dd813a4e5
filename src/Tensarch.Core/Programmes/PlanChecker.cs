using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;

namespace Tensarch.Core.Programmes;

/// <summary>
/// Verifies the days of a plan against every rule that must hold: each as a session of its own, with the days before it done as they are planned,
/// and the weeks' loads. One session is the case of one day without weeks. Shares no code with what makes plans.
/// </summary>
public static class PlanChecker
{
    /// <param name="days">In any order; of one day, the morning first.</param>
    /// <param name="history">What was done.</param>
    /// <param name="weeksFrom">The first day of the plan's first week; none for sessions that belong to no weeks: their load has no ceiling.</param>
    public static IReadOnlyList<DayViolation> Check(
        IReadOnlyList<PlannedDay> days,
        TrainingHistory history,
        CatalogueContent content,
        DateOnly? weeksFrom = null
    )
    {
        var found = new List<DayViolation>();
        var done = history;
        foreach (var day in days.OrderBy(d => d.Day))
        {
            found.AddRange(
                SessionChecker.Check(day.Plan, day.Who with { History = done }, content).Select(v => new DayViolation(day.Day, v))
            );
            done = done.With(day.Day, Work.Planned(day.Plan, content), content);
        }
        if (weeksFrom is { } start)
            found.AddRange(Loads(days, done, start, content));
        return found;
    }

    /// <summary>Rule 6, counted anew: by tag and side, each week against the two before it.</summary>
    private static IEnumerable<DayViolation> Loads(
        IReadOnlyList<PlannedDay> days,
        TrainingHistory all,
        DateOnly start,
        CatalogueContent content
    )
    {
        var rules = content.Programme.Load;
        foreach (var week in days.Select(d => (d.Day.DayNumber - start.DayNumber) / 7).Distinct().Order())
        {
            var from = start.AddDays(7 * week);
            var trained = all.Days.Where(d => d.Day < from).Select(d => d.Day).ToList();
            var off = trained.Count == 0 ? 0 : from.DayNumber - trained.Max().DayNumber;
            foreach (var tag in LoadTags.All.Where(t => t.IsRegion()))
            foreach (var side in new[] { Side.Left, Side.Right })
            {
                int Sum(DateOnly first) =>
                    all.Days.Where(d => d.Day >= first && d.Day < first.AddDays(7)).Sum(d => d.Loads[new LoadKey(tag, side)]);
                var (one, two) = (Sum(from.AddDays(-7)), Sum(from.AddDays(-14)));
                double based =
                    off >= 28 ? 0
                    : off >= 11
                        ? rules.AfterBreakShare * Sum(start.AddDays(7 * (int)Math.Floor((trained.Max().DayNumber - start.DayNumber) / 7.0)))
                    : Math.Max(one, two);
                var (step, entry) =
                    tag == LoadTag.Wrist ? (100 * rules.WristStep, 100 * rules.WristEntry) : (rules.StepSeconds, rules.EntrySeconds);
                var most = new[] { rules.Growth * based, based + step, entry }.Max();
                var backOff = (week + 1) % rules.BackOffEvery == 0 && one > 0;
                if (backOff)
                    most = Math.Min(most, Math.Max(rules.BackOffShare * one, step));
                if (Sum(from) > most)
                    yield return new(from, new(6, backOff ? "overBackOff" : "overWeeksLoad"), new(tag, side), Sum(from), (int)most);
            }
        }
    }
}
