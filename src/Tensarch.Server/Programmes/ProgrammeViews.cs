using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>A plan as a screen shows it.</summary>
internal static class ProgrammeViews
{
    /// <param name="rows">The sessions of the plan; of one that is not kept, those of the version before.</param>
    /// <param name="ahead">What the gates say of it; of a version that was, nothing.</param>
    /// <param name="changes">Against the version that it is compared with.</param>
    public static PlanView Of(
        PlanRow? row,
        string by,
        ProgrammeSketch sketch,
        StoredPlan plan,
        IReadOnlyDictionary<Guid, SessionRow> rows,
        StoredPlan? before,
        Ahead ahead,
        IReadOnlyList<DayDifference> changes,
        DateOnly today,
        CatalogueContent content
    )
    {
        var backOff = new LoadCeiling(content.Programme.Load, sketch.Start);
        var why = new PlanReasons(sketch, plan, rows);
        var days = plan
            .Days.Select(d => (Day: d, View: Of(d, rows, before, today, content) with { Why = why.Of(d, backOff.IsBackOff(d.Week)) }))
            .ToList();
        var weeks = Enumerable
            .Range(0, sketch.Weeks)
            .Select(week =>
            {
                var inIt = days.Where(d => d.Day.Week == week).Select(d => d.View).ToList();
                return new PlanWeek(
                    week + 1,
                    sketch.Start.AddDays(7 * week),
                    backOff.IsBackOff(week),
                    [.. inIt.SelectMany(d => d.Tested).Distinct()],
                    inIt
                );
            })
            .ToList();
        return new(
            row?.Number ?? 0,
            row?.At ?? default,
            by,
            row?.Why ?? "try",
            row?.EndedAt,
            sketch,
            weeks,
            [.. Strips(plan, sketch.Weeks)],
            [
                .. plan
                    .ShortWeeks.GroupBy(s => s.Skill)
                    .Select(g => new ShortGoal(
                        g.Key,
                        g.Sum(s => s.Asked - s.Has),
                        [.. g.Select(s => s.Week + 1)],
                        !plan.Days.Any(d => d.Blocks.Any(b => b.Skill == g.Key && b.Exposes)),
                        [.. (g.Select(s => s.Why).FirstOrDefault(w => w is { Count: > 0 }) ?? []).Select(r => r.ToShown())]
                    )),
            ],
            [.. (plan.Untested ?? []).Select(u => u with { Weeks = [.. u.Weeks.Select(w => w + 1)] })],
            plan.Pieces.Select(p => p.Gap).DefaultIfEmpty(0).Max(),
            days.Count(d => d.View.Change != PlanDayChange.Same),
            ahead.Gates,
            ahead.Targets,
            changes
        );
    }

    /// <summary>The gates and target days of a plan.</summary>
    public sealed record Ahead(IReadOnlyList<ExpectedGate> Gates, IReadOnlyList<TargetVerdict> Targets)
    {
        public static readonly Ahead Nothing = new([], []);

        public static Ahead Of(Standing standing, ProgrammeSketch sketch, StoredPlan plan, DateOnly today, CatalogueContent content)
        {
            var outlook = new GateOutlook(content, today);
            var (gates, targets) = (new List<ExpectedGate>(), new List<TargetVerdict>());
            foreach (var goal in sketch.Goals.OrderBy(g => g.Priority))
            {
                if (standing.State.On(goal.Skill) is not { } course)
                    continue;
                var planned = plan
                    .Days.Where(d => d.Day >= today && d.Blocks.Any(b => b.Skill == goal.Skill && b.Exposes))
                    .Select(d => d.Day)
                    .Distinct()
                    .Order()
                    .ToList();
                var expected = outlook.Of(course, planned);
                gates.AddRange(expected);
                var tests = plan
                    .Days.Where(d => d.Day >= today && d.Ask?.Of(BlockAim.Test).Contains(goal.Skill) == true)
                    .Select(d => d.Day)
                    .Order()
                    .ToList();
                if (goal.Target is { } target)
                    targets.Add(TargetOutlook.Of(course, target, expected, tests, 7 * content.Programme.Tests.EveryWeeks, today));
            }
            return new(gates, targets);
        }
    }

    private static PlanDayView Of(
        StoredDay day,
        IReadOnlyDictionary<Guid, SessionRow> rows,
        StoredPlan? before,
        DateOnly today,
        CatalogueContent content
    )
    {
        var row = day.Session is { } id ? rows.GetValueOrDefault(id) : null;
        return new(
            day.Day,
            day.Half,
            day.Minutes,
            StateOf(day, row, today),
            day.Blocks,
            day.FrameSeconds,
            day.TestMinutes,
            [.. day.Ask?.Of(BlockAim.Test) ?? []],
            row is { DeletedAt: null } ? row.Id : null,
            day.Pinned,
            row?.Before is not null,
            day.Broken ?? [],
            ChangeOf(day, before),
            day.Plan?.Drills.Any(d => d.Sides.Count > 1) == true ? day.Plan.FirstSide : null,
            [
                // What leads in is no work of the day for itself.
                .. day.Plan?.Drills.Where(d =>
                        !d.Reason.LeadsIn && content.FindDrill(d.Drill) is { } drill && SessionOrder.IsMain(d, drill)
                    )
                    .Select(d => d.Drill)
                    ?? [],
            ],
            []
        );
    }

    private static PlanDayState StateOf(StoredDay day, SessionRow? row, DateOnly today) =>
        row is { IsTrained: true }
            ? row.Training!.EndedAt is null && row.Training.StartedOn == today
                ? PlanDayState.Running
                : PlanDayState.Done
            : row is { DeletedAt: not null }
                ? PlanDayState.Dropped
                : day.Plan is null
                    ? PlanDayState.Barred
                    : day.Day < today
                        ? PlanDayState.Missed
                        : PlanDayState.Planned;

    private static PlanDayChange ChangeOf(StoredDay day, StoredPlan? before) =>
        before is null ? PlanDayChange.Same
        : before.Days.FirstOrDefault(d => d.Day == day.Day && d.Half == day.Half) is not { } was ? PlanDayChange.New
        : PlanDiff.Same(was, day) ? PlanDayChange.Same
        : PlanDayChange.Changed;

    /// <summary>A line for each load that the plan has, the nearest to its ceiling first; one for both sides where they are the same.</summary>
    private static IEnumerable<LoadStrip> Strips(StoredPlan plan, int weeks)
    {
        foreach (var tag in plan.Loads.GroupBy(l => l.Tag).OrderByDescending(t => t.Max(l => l.Load / Math.Max(1, l.Ceiling))))
        {
            List<LoadOfWeek> Of(Side? side) =>
                [
                    .. Enumerable
                        .Range(0, weeks)
                        .Select(week =>
                            tag.FirstOrDefault(l => l.Week == week && (side is null || l.Side == side)) is { } load
                                ? new LoadOfWeek(week + 1, load.Done, load.Load, load.Ceiling)
                                : new LoadOfWeek(week + 1, 0, 0, 0)
                        ),
                ];
            var (left, right) = (Of(Side.Left), Of(Side.Right));
            var same = left.SequenceEqual(right);
            foreach (var (side, line) in same ? [((Side?)null, left)] : new[] { ((Side?)Side.Left, left), (Side.Right, right) })
                if (line.Any(w => w.Load > 0))
                    yield return new(tag.Key, side, tag.Key == LoadTag.Wrist, line.Max(w => Math.Max(w.Load, w.Ceiling)), line);
        }
    }

    /// <summary>Why a plan should be made again.</summary>
    public static IEnumerable<PlanNews> News(Standing standing, StandingPlan current, IReadOnlyList<DayViolation> broken, DateOnly today)
    {
        if (current.Row.EndedAt is not null)
            yield break;
        if (today > current.Sketch.End)
        {
            yield return new("over");
            yield break;
        }
        if (current.Plan.Days.FirstOrDefault(d => current.IsOpen(d) && current.Loose.Contains(d.Day)) is { } twice)
            yield return new("twice", Day: twice.Day);
        foreach (var goal in current.Sketch.Goals)
            if (standing.State.On(goal.Skill) is { } course && StageIn(current, goal.Skill, course) is { } planned)
                yield return new("stageChanged", goal.Skill, planned);
        // What was missed before the plan was made is in it already.
        var made = standing.State.Now.DayOf(current.Row.At);
        var missed = current.Plan.Days.Count(d =>
            d.Day < today && d.Day >= made && current.IsMissed(d) && d.Day > (standing.State.LastSessionOn ?? DateOnly.MinValue)
        );
        if (missed > 0)
            yield return new(
                "missed",
                Number: missed,
                Days: standing.State.DaysSinceLast,
                Band: Absences.After(standing.State.DaysSinceLast) switch
                {
                    Absence.None => "shift",
                    Absence.RepeatLastWeek => "repeat",
                    Absence.Lighter => "lighter",
                    _ => "reBaseline",
                }
            );
        if (broken.FirstOrDefault(v => v.Violation.Rule == 1) is { } barred)
            yield return new("barred", Day: barred.Day);
        else if (missed == 0 && broken.FirstOrDefault() is { } outdated)
            yield return new("outdated", Day: outdated.Day);
    }

    /// <summary>The stage that the plan's next session of a skill trains on a side that stands elsewhere by now.</summary>
    private static int? StageIn(StandingPlan current, string skill, Core.Skills.Course course)
    {
        var next = current.Plan.Days.FirstOrDefault(d => current.IsOpen(d) && d.Plan?.Drills.Any(x => x.Skill == skill) == true)?.Plan;
        if (next is null)
            return null;
        int Now(Side? side) => Math.Min(course.Ladder.Stages.Count, course.StageOf(course.Ladder.PerSide ? side : null));
        return next
            .Drills.Where(d => d.Skill == skill)
            .SelectMany(d => d.Sides)
            .Where(s => s.Side is not null || !course.Ladder.PerSide)
            .Where(s => next.LowerStage(skill, s.Side ?? Side.Left) is null && s.Stage != Now(s.Side))
            .Select(s => (int?)s.Stage)
            .FirstOrDefault();
    }
}
