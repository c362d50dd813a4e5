using Tensarch.Core;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>Changes of a plan by hand: a session is pinned, set free, or put on another day.</summary>
public sealed partial class ProgrammeDesk
{
    /// <summary>What a change by hand would break.</summary>
    public async Task<Result<IReadOnlyList<BrokenRule>>> Try(Standing standing, PlanEdit edit, CancellationToken ct)
    {
        if (await Current(standing.Student.Id, ct) is not { } current)
            return Problem.Of("noPlan", "edit");
        var changed = Edited(standing, current, edit);
        return changed.IsOk ? Result.Of(changed.Value.Broken) : changed.Problems.ToList();
    }

    public Task<Result<(PlanRow Row, Appended Appended)>> Keep(Standing standing, KeepPlanEdit request, CancellationToken ct)
    {
        var hash = Facts.Hash(new { standing.Student.Id, request });
        return Keep(
            standing,
            (now, current, _) =>
            {
                if (current is null)
                    return Problem.Of("noPlan", "edit");
                var changed = Edited(now, current, request.Edit);
                return !changed.IsOk ? changed.Problems.ToList()
                    : changed.Value.Broken.Count > 0 ? Problem.Of("editRefused", "edit")
                    : changed.Value.As(request.Id, hash);
            },
            current =>
                current is null
                    ? Task.FromResult<Result<(PlanRow, Appended)>?>(null)
                    : Told(request.Id, request.BasedOn, false, hash, current, ct),
            ct
        );
    }

    /// <summary>A plan that a coach's hand has changed.</summary>
    /// <param name="Broken">Rules that it breaks and that were kept before.</param>
    /// <param name="After">The plan that stood, with what was thrown away and comes back.</param>
    internal sealed record Changed(ProgrammeSketch Sketch, StoredPlan Plan, IReadOnlyList<BrokenRule> Broken, StandingPlan After)
    {
        public Draft As(Guid id, string hash) => new(id, hash, Sketch, Plan, "byHand");
    }

    private Result<Changed> Edited(Standing standing, StandingPlan current, PlanEdit edit)
    {
        var days = current.Plan.Days.ToList();
        var at = days.FindIndex(d => d.Day == edit.Day && d.Half == edit.Half);
        if (at < 0 || days[at].Plan is not { } plan || !current.IsOpen(days[at]))
            return Problem.Of("nothingThere", "edit.day");
        if (edit.Kind != PlanEditKind.Move)
        {
            days[at] = days[at] with { Pinned = edit.Kind == PlanEditKind.Pin };
            return new Changed(current.Sketch, current.Plan with { Days = days }, [], current);
        }
        if (edit.To is not { } to)
            return Problem.Of("required", "edit.to");
        if (to != edit.Day && current.Loose.Contains(to))
            return Problem.Of("dayHasSession", "edit.to");
        var put = Put(standing, current, days[at], plan with { Date = to }, edit.ToHalf ?? edit.Half);
        return put.IsOk ? put : put.Problems.Select(p => p with { Field = "edit.to" }).ToList();
    }

    /// <summary>
    /// One session of the weeks with another plan, which may be for another day: it is pinned there. The one way in which a hand changes a session of the
    /// weeks, from the wall and from its own page.
    /// </summary>
    /// <returns>The plan; or <c>dateInPast</c>, <c>targetOutside</c> or <c>dayTaken</c>.</returns>
    internal Result<Changed> Put(
        Standing standing,
        StandingPlan current,
        StoredDay day,
        SessionPlan plan,
        DayHalf half,
        SessionRow? restored = null
    )
    {
        var (days, to) = (current.Plan.Days.ToList(), plan.Date);
        var moves = to != day.Day || half != day.Half;
        // What a coach brings back has its time again, and stays.
        var after = restored is null ? current : current with { Sessions = With(current.Sessions, restored) };
        var known = days.FindIndex(d => d.Session == day.Session);
        if (to < clock.Today)
            return Problem.Of("dateInPast", "date");
        if (to < current.Sketch.Start || to > current.Sketch.End)
            return Problem.Of("targetOutside", "date");
        if (
            (moves || restored is not null)
            && days.Any(d => d.Session != day.Session && d.Day == to && d.Half == half && d.Plan is not null && !current.IsDropped(d))
        )
            return Problem.Of("dayTaken", "date");
        if (known < 0)
            days.Add(day);
        days[known < 0 ? ^1 : known] = day with
        {
            Day = to,
            Half = half,
            Week = (to.DayNumber - current.Sketch.Start.DayNumber) / 7,
            Pinned = moves || restored is not null || day.Pinned,
            Plan = plan,
            WhyNotMore = null,
        };
        days = [.. days.OrderBy(d => d.Day).ThenBy(d => d.Half)];
        // The time moves with the session, so that the next plan leaves both days as they are.
        var sketch =
            moves || restored is not null ? current.Sketch.WithMoved(new(day.Day, day.Half), new(to, half), day.Minutes) : current.Sketch;
        var asked = Asked(standing, current.Sketch, current);
        if (!asked.IsOk)
            return asked.Problems.ToList();
        var before = planner
            .Judge(asked.Value, Open(current, current.Plan.Days, asked.Value.From))
            .ToLookup(v => (v.Violation.Code, v.Violation.Drill, v.Load), v => v.Has ?? 0);
        var broken = planner
            .Judge(asked.Value, Open(after, days, asked.Value.From))
            // What a hand may bend in its own session is no matter of the weeks.
            .Where(v => !(v.Day == to && plan.Bent is not null && Preferences.Bends(v.Violation.Code)))
            // A day that is trained otherwise in its place changes what comes after it: that is planned again, and is no reason to keep this one.
            .Where(v => moves || restored is not null || v.Day == to || v.Load is not null || v.Violation.IsSpacing)
            // What was broken before is not refused for it, but for being broken further.
            .Where(v => !before[(v.Violation.Code, v.Violation.Drill, v.Load)].Any(had => had >= (v.Has ?? 0)));
        return new Changed(sketch, current.Plan with { Days = days }, [.. broken.Select(Said)], after);
    }

    private static Dictionary<Guid, SessionRow> With(IReadOnlyDictionary<Guid, SessionRow> rows, SessionRow one) =>
        new(rows) { [one.Id] = one };

    private static BrokenRule Said(DayViolation broken) =>
        new(
            broken.Day,
            broken.Violation.Code,
            broken.Violation.Drill,
            broken.Load?.Tag,
            broken.Load?.Limb,
            broken.Load is { } load ? LoadCeiling.Shown(load.Tag, broken.Has ?? 0) : null,
            broken.Load is { } most ? LoadCeiling.Shown(most.Tag, broken.Most ?? 0) : null
        );
}
