using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;

namespace Tensarch.Core.Programmes;

/// <summary>
/// Plans a programme, a few weeks at a time: what each session may be, which of that it is, and then each session for itself, with other drills
/// than the one before where there is a choice.
/// </summary>
public sealed class Planner(CatalogueContent content, IWeekSolver solver)
{
    private readonly ProgrammeRules rules = content.Programme;

    /// <param name="facts">The student on a day, with so many minutes, and with nothing of the plan.</param>
    /// <returns>A plan that keeps every rule; or <c>planInfeasible</c>, or <c>planCheckFailed</c> with the rule that it breaks.</returns>
    public Result<ProgrammePlan> Plan(Programme programme, Func<DateOnly, int, Trainee> facts)
    {
        var slots = programme.Slots.OrderBy(s => s.Day).ThenBy(s => s.Half).ToList();
        var menu = new DayMenu(content, programme);
        var (days, pieces) = (new List<PlanDay>(), new List<PieceReport>());
        for (var week = 0; week < programme.Weeks; week += rules.PieceWeeks)
        {
            var piece = new Piece(content, programme, menu, facts, week, days);
            var answer = solver.Solve(
                piece.Problem([.. slots.Where(s => programme.WeekOf(s.Day) / rules.PieceWeeks == week / rules.PieceWeeks)])
            );
            if (answer is null)
                return Problem.Of("planInfeasible", "days", ("week", week + 1));
            pieces.Add(new(week, Math.Min(rules.PieceWeeks, programme.Weeks - week), answer.Cost, answer.Bound, answer.Gap));
            days.AddRange(piece.Days(answer));
        }
        var before = days.Aggregate(new List<Ahead>(), (all, d) => [.. all, AheadOf(d)]);
        var planned = days.Select(
                (d, i) => (Day: d, Who: Outlook.On(facts(d.Slot.Day, d.Slot.Minutes - d.TestMinutes), Unworked(before, i), content))
            )
            .Where(d => d.Day.Offer is not null)
            .Select(d => new PlannedDay(d.Day.Offer!.Plan, d.Who))
            .ToList();
        var history = facts(programme.Start, SessionBuilder.FewestMinutes).History;
        if (PlanChecker.Check(planned, history, content, programme.Start) is [var broken, ..])
            return Problem.Of("planCheckFailed", $"{broken.Day:yyyy-MM-dd} {broken.Violation.Code} {broken.Violation.Drill}{broken.Load}");
        return new ProgrammePlan(programme, days, pieces, [.. ShortWeeks(programme, days, facts)], [.. Loads(programme, days, history)]);
    }

    internal Ahead AheadOf(PlanDay day) =>
        new(day.Slot.Day, [.. day.Offer?.Exposed ?? []], day.Offer is { } offer ? Work.Planned(offer.Plan, content) : null);

    /// <summary>The checker puts the work of the days before into the history itself.</summary>
    private static List<Ahead> Unworked(IReadOnlyList<Ahead> all, int count) => [.. all.Take(count).Select(a => a with { Worked = null })];

    private IEnumerable<ShortWeek> ShortWeeks(Programme programme, IReadOnlyList<PlanDay> days, Func<DateOnly, int, Trainee> facts)
    {
        var ceiling = new LoadCeiling(rules.Load, programme.Start);
        var courses = facts(programme.Start, SessionBuilder.FewestMinutes).Courses;
        for (var week = 0; week < programme.Weeks; week++)
            foreach (var goal in programme.ByPriority)
            {
                var asked = rules.Exposures.Of(goal.Skill, courses.First(c => c.Skill == goal.Skill).Approach.Key, ceiling.IsBackOff(week));
                var has = days.Count(d => d.Week == week && d.Offer is { } offer && offer.Exposed.Contains(goal.Skill));
                if (has < asked)
                    yield return new(week, goal.Skill, asked, has);
            }
    }

    private IEnumerable<WeekLoad> Loads(Programme programme, IReadOnlyList<PlanDay> days, TrainingHistory history)
    {
        var ceiling = new LoadCeiling(rules.Load, programme.Start);
        var all = days.Aggregate(
            history,
            (h, d) => d.Offer is { } offer ? h.With(d.Slot.Day, Work.Planned(offer.Plan, content), content) : h
        );
        foreach (var key in DayMenu.Keys)
            for (var week = 0; week < programme.Weeks; week++)
                if (all.Week(ceiling.StartOf(week))[key] is > 0 and var planned)
                    yield return new(week, key, planned, ceiling.Of(key, week, all));
    }
}
