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

    /// <returns>
    /// A plan that keeps every rule; <c>planInfeasible</c> with the week and the rules where what a coach pinned leaves none; or <c>planCheckFailed</c> with the
    /// rule that it breaks.
    /// </returns>
    public Result<ProgrammePlan> Plan(PlanFor made, CancellationToken ct = default)
    {
        var programme = made.Programme;
        var slots = programme
            .Slots.Where(s => s.Day >= made.From && s.Day <= programme.End)
            .OrderBy(s => s.Day)
            .ThenBy(s => s.Half)
            .GroupBy(s => PieceOf(programme.WeekOf(s.Day)))
            .ToDictionary(p => p.Key, p => p.ToList());
        var menu = new DayMenu(content, programme);
        var (days, pieces, shortWeeks) = (new List<PlanDay>(), new List<PieceReport>(), new List<ShortWeek>());
        for (var week = programme.WeekOf(made.From); week < programme.Weeks; week = (PieceOf(week) + 1) * rules.PieceWeeks)
        {
            var piece = new Piece(content, made, menu, week, days);
            var problem = piece.Problem(slots.GetValueOrDefault(PieceOf(week), []), ct);
            var (answer, planned) = Solve(piece, ref problem);
            if (answer is null)
                return Problem.Of("planInfeasible", "locks", ("week", week + 1)) with { Rules = solver.Conflict(problem, asked: false) };
            pieces.Add(new(week, piece.Weeks, answer.Cost, answer.Bound, answer.Gap));
            days.AddRange(Explained(made, planned, new(problem, answer, piece)));
            shortWeeks.AddRange(Explained(ShortWeeks(made, days, week, piece.Weeks), new(piece, problem, answer)));
        }
        var history = made.Facts(made.From, SessionBuilder.FewestMinutes).History;
        var broken = PlanChecker
            .Check(Planned(made, days), history, content, programme.Start)
            .ToLookup(v => v.Violation.Rule != 1 && IsPinned(v, made, days));
        if (broken[false].FirstOrDefault() is { } first)
            return Problem.Of("planCheckFailed", $"{first.Day:yyyy-MM-dd} {first.Violation.Code} {first.Violation.Drill}{first.Load}");
        var loads = Loads(programme, days.Where(d => d.Offer is not null).Select(d => (d.Slot.Day, d.Offer!.Plan)), history).ToList();
        return new ProgrammePlan(
            programme,
            [.. days.Select(d => Said(d, loads))],
            pieces,
            shortWeeks,
            loads,
            [.. broken[true].DistinctBy(v => (v.Day, v.Violation))],
            [.. Untested(made, menu, days)]
        );
    }

    /// <summary>Solved again, without it, where a choice is not for who its student will be by then.</summary>
    private (PieceAnswer? Answer, IReadOnlyList<PlanDay> Days) Solve(Piece piece, ref PieceProblem problem)
    {
        while (true)
        {
            if (Worthwhile.Solve(solver, problem) is not { } answer)
                return (null, []);
            var days = piece.Days(answer, out var wrong);
            if (wrong < 0)
                return (answer, days);
            problem = piece.Without(problem, wrong, answer.Chosen[wrong]);
        }
    }

    /// <summary>It is a rule of one day, and what is done on that day is what a coach pinned to it.</summary>
    private static bool IsPinned(DayViolation broken, PlanFor made, List<PlanDay> days) =>
        broken.Load is null && days.Any(d => d.Slot.Day == broken.Day && made.LockOf(d.Slot) is not null);

    /// <summary>What days that are there already break, as they stand; nothing is planned.</summary>
    /// <param name="days">From <see cref="PlanFor.From"/> on, in order of time.</param>
    public IReadOnlyList<DayViolation> Judge(PlanFor made, IReadOnlyList<LockedDay> days)
    {
        var read = new Assembler(content);
        var planned = days.Select(d => new PlanDay(
                d.Slot,
                made.Programme.WeekOf(d.Slot.Day),
                false,
                read.Read(d.Plan, made.Facts(d.Slot.Day, d.Plan.Minutes), d.Ask),
                d.Slot.Minutes - d.Plan.Minutes
            ))
            .ToList();
        return
        [
            .. PlanChecker
                .Check(Planned(made, planned), made.Facts(made.From, SessionBuilder.FewestMinutes).History, content, made.Programme.Start)
                .DistinctBy(v => (v.Day, v.Violation.Code, v.Violation.Drill, v.Load)),
        ];
    }

    private int PieceOf(int week) => week / rules.PieceWeeks;

    /// <summary>Each session for who its student will be; the checker puts the work of the days before into the history itself.</summary>
    private List<PlannedDay> Planned(PlanFor made, List<PlanDay> days)
    {
        var planned = new List<PlannedDay>();
        var before = new List<Ahead>();
        foreach (var day in days)
            if (day.Offer is { } offer)
            {
                planned.Add(new(offer.Plan, Outlook.On(made.Facts(day.Slot.Day, day.Slot.Minutes - day.TestMinutes), before, content)));
                before.Add(new(day.Slot.Day, [.. offer.Exposed], Planned: offer.Plan.Skills));
            }
        return planned;
    }

    /// <summary>Each session with why it is no more than it is, where that is not what the coach set or what the week is for.</summary>
    private static IEnumerable<PlanDay> Explained(PlanFor made, IReadOnlyList<PlanDay> planned, WhyNotMore why)
    {
        var slot = 0;
        foreach (var day in planned)
        {
            if (day.Offer is null)
            {
                yield return day;
                continue;
            }
            var set = day.BackOff || day.Slot.Light || day.Slot.Theme is not null || made.LockOf(day.Slot) is not null;
            yield return day with
            {
                WhyNotMore = set ? [] : [.. why.Of(slot)],
            };
            slot++;
        }
    }

    /// <summary>A goal's first short week says why; the others of the piece are mostly the same again.</summary>
    private IEnumerable<ShortWeek> Explained(IEnumerable<ShortWeek> weeks, SolvedPiece piece) =>
        weeks.GroupBy(w => w.Skill).SelectMany(g => g.Select((w, i) => i > 0 ? w : w with { Why = piece.WhyShort(w, solver) }));

    /// <summary>What a reason names of weeks is as the weeks came out in the end.</summary>
    private PlanDay Said(PlanDay day, List<WeekLoad> loads)
    {
        DayReason Now(DayReason reason)
        {
            var of = loads.Where(l => l.Key.Tag == reason.Tag && l.Key.Limb == reason.Limb).ToList();
            int? said = reason.Kind switch
            {
                DayReasonKind.WeekLoad => of.Find(l => l.Week == day.Week)?.Ceiling,
                DayReasonKind.LargestWeek => of.Where(l => PieceOf(l.Week) == PieceOf(day.Week)).Max(l => (int?)l.Load),
                _ => null,
            };
            return said is { } load ? reason with { Of = LoadCeiling.Shown(reason.Tag!.Value, load) } : reason;
        }
        return day with { WhyNotMore = [.. (day.WhyNotMore ?? []).Select(Now)] };
    }

    private IEnumerable<UntestedGoal> Untested(PlanFor made, DayMenu menu, List<PlanDay> days)
    {
        var programme = made.Programme;
        var who = made.Facts(made.From, SessionBuilder.FewestMinutes);
        foreach (var goal in programme.ByPriority.Where(g => menu.IsTested(who.On(g.Skill))))
        {
            var missed = days.GroupBy(d => d.Week)
                .Where(w => rules.Tests.In(w.Key) && !w.Any(d => d.Tested.Contains(goal.Skill)))
                .Where(w => !made.Done.Any(d => programme.WeekOf(d.Day) == w.Key && d.Tested.Contains(goal.Skill)))
                .ToList();
            if (missed.Count == 0)
                continue;
            var least = menu.LeastMinutesToTest(goal.Skill);
            var tooShort = missed.TrueForAll(w => w.All(d => d.Slot.Minutes < least));
            yield return new(goal.Skill, [.. missed.Select(w => w.Key)], tooShort ? least : null);
        }
    }

    private IEnumerable<ShortWeek> ShortWeeks(PlanFor made, IReadOnlyList<PlanDay> days, int first, int weeks)
    {
        var programme = made.Programme;
        var ceiling = new LoadCeiling(rules.Load, programme.Start);
        var who = made.Facts(made.From, SessionBuilder.FewestMinutes);
        for (var week = first; week < first + weeks; week++)
            foreach (var goal in programme.ByPriority)
            {
                var asked = rules.Exposures.Of(goal.Skill, who.On(goal.Skill).Approach.Key, ceiling.IsBackOff(week));
                var has =
                    made.Done.Count(d => programme.WeekOf(d.Day) == week && d.Skills.Contains(goal.Skill))
                    + days.Count(d => d.Week == week && d.Offer is { } offer && offer.Exposed.Contains(goal.Skill));
                if (has < asked)
                    yield return new(week, goal.Skill, asked, has);
            }
    }

    /// <summary>What the weeks load as they stand: done so far, and what is still to come.</summary>
    /// <param name="open">From <see cref="PlanFor.From"/> on.</param>
    public IReadOnlyList<WeekLoad> LoadsNow(PlanFor made, IReadOnlyList<LockedDay> open) =>
        [.. Loads(made.Programme, open.Select(d => (d.Slot.Day, d.Plan)), made.Facts(made.From, SessionBuilder.FewestMinutes).History)];

    private IEnumerable<WeekLoad> Loads(Programme programme, IEnumerable<(DateOnly Day, SessionPlan Plan)> planned, TrainingHistory history)
    {
        var ceiling = new LoadCeiling(rules.Load, programme.Start);
        var all = planned.Aggregate(history, (h, d) => h.With(d.Day, Work.Planned(d.Plan, content), content));
        foreach (var key in DayMenu.Keys)
            for (var week = 0; week < programme.Weeks; week++)
                if (all.Week(ceiling.StartOf(week))[key] is > 0 and var load)
                    yield return new(week, key, history.Week(ceiling.StartOf(week))[key], load, ceiling.Of(key, week, all));
    }
}
