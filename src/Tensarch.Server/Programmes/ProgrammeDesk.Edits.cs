using Tensarch.Core;
using Tensarch.Core.Programmes;
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

    public async Task<Result<(PlanRow Row, Appended Appended)>> Keep(Standing standing, KeepPlanEdit request, CancellationToken ct)
    {
        if (await Current(standing.Student.Id, ct) is not { } current)
            return Problem.Of("noPlan", "edit");
        if (await Told(request.Id, request.BasedOn, false, new { standing.Student.Id, request }, current, ct) is { } told)
            return told;
        var changed = Edited(standing, current, request.Edit);
        if (!changed.IsOk)
            return changed.Problems.ToList();
        return changed.Value.Broken.Count > 0
            ? Problem.Of("editRefused", "edit")
            : await Store(
                request.Id,
                new { standing.Student.Id, request },
                changed.Value.Sketch,
                changed.Value.Plan,
                "byHand",
                current,
                standing,
                ct
            );
    }

    private sealed record Changed(ProgrammeSketch Sketch, StoredPlan Plan, IReadOnlyList<BrokenRule> Broken);

    private Result<Changed> Edited(Standing standing, StandingPlan current, PlanEdit edit)
    {
        var days = current.Plan.Days.ToList();
        var at = days.FindIndex(d => d.Day == edit.Day && d.Half == edit.Half);
        if (at < 0 || days[at].Plan is null || !current.IsOpen(days[at]))
            return Problem.Of("nothingThere", "edit.day");
        if (edit.Kind != PlanEditKind.Move)
        {
            days[at] = days[at] with { Pinned = edit.Kind == PlanEditKind.Pin };
            return new Changed(current.Sketch, current.Plan with { Days = days }, []);
        }
        if (edit.To is not { } to)
            return Problem.Of("required", "edit.to");
        if (to < clock.Today)
            return Problem.Of("dateInPast", "edit.to");
        if (to < current.Sketch.Start || to > current.Sketch.End)
            return Problem.Of("targetOutside", "edit.to");
        var half = edit.ToHalf ?? edit.Half;
        if (days.Any(d => d.Day == to && d.Half == half && d.Plan is not null))
            return Problem.Of("dayTaken", "edit.to");
        var moved = days[at];
        var plan = sessions.Read(current.RowOf(moved)!) ?? moved.Plan!;
        days[at] = moved with
        {
            Day = to,
            Half = half,
            Week = (to.DayNumber - current.Sketch.Start.DayNumber) / 7,
            Pinned = true,
            Plan = plan with { Date = to },
            WhyNotMore = null,
        };
        days = [.. days.OrderBy(d => d.Day).ThenBy(d => d.Half)];
        var sketch = current.Sketch with
        {
            // The time moves with the session, so that the next plan leaves both days as they are.
            Days = [.. current.Sketch.Days, new(null, to, moved.Minutes, half)],
            Off = days.Any(d => d.Day == edit.Day) ? current.Sketch.Off : [.. current.Sketch.Off ?? [], edit.Day],
        };
        var asked = Asked(standing, current.Sketch, current);
        if (!asked.IsOk)
            return asked.Problems.ToList();
        var stood = Open(current, current.Plan.Days, asked.Value.From);
        var before = planner.Judge(asked.Value, stood).Select(v => (v.Violation.Code, v.Violation.Drill, v.Load)).ToHashSet();
        var broken = planner
            .Judge(asked.Value, Open(current, days, asked.Value.From))
            .Where(v => !before.Contains((v.Violation.Code, v.Violation.Drill, v.Load)));
        return new Changed(sketch, current.Plan with { Days = days }, [.. broken.Select(Said)]);
    }

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
