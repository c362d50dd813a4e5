using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>A plan that stands under what has become known since.</summary>
public sealed partial class ProgrammeDesk
{
    /// <summary>What is still to be trained, as it is kept by now.</summary>
    private static List<LockedDay> Open(StandingPlan current, IReadOnlyList<StoredDay> days, DateOnly since) =>
        [
            .. from day in days
            where day.Day >= since && day.Ask is not null && current.IsOpen(day)
            let kept = day.Plan
            where kept is not null
            select new LockedDay(new(day.Day, kept.Minutes + day.TestMinutes, day.Half), kept with { Date = day.Day }, day.Ask!),
        ];

    /// <summary>What the student's facts have made of the plan since.</summary>
    public IReadOnlyList<DayViolation> Judge(Standing standing, StandingPlan current)
    {
        var asked = Asked(standing, current.Sketch, current);
        return asked.IsOk ? planner.Judge(asked.Value, Open(current, current.Plan.Days, asked.Value.From)) : [];
    }

    /// <summary>A session of the plan as it is on a day under today's facts: what the plan asks of it, and no more load.</summary>
    /// <returns>None where it is of no plan, or cannot be that any more.</returns>
    public async Task<SessionPlan?> Again(Standing standing, SessionRow row, DateOnly date, CancellationToken ct)
    {
        if (
            row.Half is null
            || await Current(row.StudentId, ct) is not { } current
            || current.Plan.Days.FirstOrDefault(d => d.Session == row.Id) is not { Ask: { } ask, Plan: { } planned }
        )
            return null;
        var asked = ProgrammeFacts.Of(standing, current.Sketch, date < current.Sketch.End ? date : current.Sketch.End, content);
        return asked.IsOk ? new Assembler(content).Again(planned, asked.Value.Facts(date, planned.Minutes), ask) : null;
    }

    /// <summary>A plan with what its weeks have loaded by now.</summary>
    public StandingPlan WithLoadsNow(Standing standing, StandingPlan current)
    {
        var asked = Asked(standing, current.Sketch, current);
        if (!asked.IsOk)
            return current;
        var loads = planner.LoadsNow(asked.Value, Open(current, current.Plan.Days, asked.Value.From));
        return current with { Plan = current.Plan with { Loads = [.. loads.Select(StoredLoad.Of)] } };
    }
}
