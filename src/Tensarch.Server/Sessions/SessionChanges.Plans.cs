using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Planning;
using Tensarch.Server.Data;
using Tensarch.Server.Planning;
using Tensarch.Server.Programmes;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Sessions;

/// <summary>Commands that give a session another plan or day: each is judged by its own rules and by the week that it stands in.</summary>
public sealed partial class SessionChanges
{
    /// <summary>Of the weeks that stand it has its part of the day again, and stays there.</summary>
    private async Task<Result<Work>> Restore(SessionRow row, CancellationToken ct)
    {
        if (await IsTaken(row, ct))
            return Problem.Of("dayTaken", "kind");
        var current = await programmes.Current(row.StudentId, ct);
        if (
            row.Half is not { } half
            || row.Date < clock.Today
            || current?.StandsOn(row.Date) != true
            || row.Date < current.Sketch.Start
            || plans.Read(row) is not { } plan
        )
            return Simply(row, () => row.DeletedAt = null);
        var standing = (await standings.Of(row.StudentId, ct))!;
        var day = current.Plan.Days.FirstOrDefault(d => d.Session == row.Id) ?? programmes.Besides(row, current.Sketch);
        var put = programmes.Put(standing, current, day, plan, half, row.Restored());
        if (!put.IsOk)
            return put.Problems.ToList();
        if (Refused(put.Value.Broken.Select(b => b.Code)) is { } broken)
            return broken;
        return new Work(
            async () =>
            {
                row.Version++;
                row.DeletedAt = null;
                await db.SaveChangesAsync(ct);
                await programmes.Write(put.Value.As(Guid.NewGuid(), ""), put.Value.After, standing, ct);
            },
            standing,
            current
        );
    }

    private static List<Problem>? Refused(IEnumerable<string> codes) =>
        codes.Distinct().Select(code => Problem.Of("editRefused", code)).ToList() is { Count: > 0 } refused ? refused : null;

    private async Task<Result<Work>> WorkOut(SessionRow row, EditKeep request, CancellationToken ct)
    {
        var made = await edits.Make(row, request.Of, request.Changes, ct);
        if (!made.IsOk)
            return made.Problems.ToList();
        var (plan, standing, verdicts) = made.Value;
        var refused = verdicts.Where(v => v.Refused).ToList();
        if (refused.Count > 0)
            return refused.Select(v => v.Code).Distinct().Select(code => Problem.Of("editRefused", code)).ToList();
        return await Put(row, [plan], row.Plan, "edited", standing, ct);
    }

    private async Task<Result<Work>> TakeBack(SessionRow row, CancellationToken ct)
    {
        var before = await db.PlanVersions.AsNoTracking().SingleOrDefaultAsync(p => p.SessionId == row.Id && p.Number == row.Before, ct);
        return before is null || plans.Read(before) is not { } plan
            ? Problem.Of("nothingChanged", "kind")
            : await Put(row, [plan], row.Plan, "takenBack", (await standings.Of(row.StudentId, ct))!, ct);
    }

    /// <summary>
    /// As it is planned on the new day, in the place of what it was; with what was changed by hand where nothing refuses that there. Either can be
    /// taken back: the changes, or the move that lost them.
    /// </summary>
    private async Task<Result<Work>> Move(SessionRow row, DateOnly date, string why, CancellationToken ct)
    {
        var standing = (await standings.Of(row.StudentId, ct))!;
        var before = plans.Read(row);
        // A session of the weeks stays what the plan asks of it; what cannot be that any more is made as any other.
        var planned = await programmes.Again(standing, row, date, ct) is { } again
            ? Result.Of(again)
            : plans.Make(
                standing,
                new(row.Id, date, before?.Minutes, row.Planned.Skill, row.Planned.Beside),
                await weeks.Around(standing, date, row.Id, await programmes.Current(row.StudentId, ct), ct)
            );
        if (!planned.IsOk)
            return planned.Problems.ToList();
        var kept =
            before is { Bent: not null } && plans.On(date, row, before, standing.State).Who is { } who
                ? new PlanEditor(catalogue).MovedTo(before, who)
                : null;
        return kept is not null
            ? await Put(row, [planned.Value, kept], null, why, standing, ct)
            : await Put(row, [planned.Value], before is { Bent: not null } ? row.Plan : null, why, standing, ct);
    }

    /// <summary>Another plan in its place; of the weeks, through the one door of the weeks, which refuses what they do not allow.</summary>
    /// <param name="laid">One after the other; of two, the first is what the second can be taken back to.</param>
    /// <param name="before">The number of the plan that it can be taken back to, of one.</param>
    private async Task<Result<Work>> Put(
        SessionRow row,
        IReadOnlyList<SessionPlan> laid,
        int? before,
        string why,
        Standing standing,
        CancellationToken ct
    )
    {
        var (current, plan) = (await programmes.Current(row.StudentId, ct), laid[^1]);
        var day = weeks.DayOf(row, current);
        if (day is not null)
        {
            var put = programmes.Put(standing, current!, day, plan, day.Half);
            if (!put.IsOk)
                return put.Problems.ToList();
            if (Refused(put.Value.Broken.Select(b => b.Code)) is { } broken)
                return broken;
            return new Work(() => Lay(plan.Date != row.Date ? put.Value.As(Guid.NewGuid(), "") : null), standing, current);
        }
        if (Refused((await weeks.Judge(standing, row, plan, ct)).Select(v => v.Code)) is { } over)
            return over;
        return new Work(() => Lay(null), standing, current);

        async Task Lay(ProgrammeDesk.Draft? draft)
        {
            Untouch(row);
            // Of weeks that are over: on another day it is a session of its own.
            if (draft is null && plan.Date != row.Date)
                row.Half = null;
            foreach (var (i, one) in laid.Index())
            {
                if (i > 0)
                    before = row.Plan;
                plans.Lay(row, one, why);
            }
            row.Before = before;
            if (draft is not null)
                await programmes.Write(draft, current, standing, ct);
        }
    }
}
