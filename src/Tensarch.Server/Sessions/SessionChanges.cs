using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Server.Data;
using Tensarch.Server.Planning;
using Tensarch.Server.Programmes;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Sessions;

public enum SessionChangeKind
{
    /// <summary>It is over, though nobody ran it to its end.</summary>
    End,

    /// <summary>It was ended too soon.</summary>
    Reopen,

    /// <summary>It will not be done: thrown away before it began.</summary>
    Delete,
    Restore,

    /// <summary>To another day: what was changed by hand comes along where that day's rules allow it, else it is made anew.</summary>
    Move,

    /// <summary>What was changed by hand last is as it was before; once more, and it is changed again.</summary>
    TakeBack,
}

/// <param name="Date">Where it moves to.</param>
public sealed record SessionChange(SessionChangeKind Kind, DateOnly? Date = null);

/// <summary>What is done with a session beside running it. Each may be sent twice and does the same.</summary>
public sealed class SessionChanges(
    TensarchDb db,
    CatalogueContent catalogue,
    PlanDesk plans,
    ProgrammeDesk programmes,
    Standings standings,
    StudioClock clock
)
{
    public async Task<Result<SessionRow>> Make(Guid id, SessionChange change, CancellationToken ct)
    {
        var row = await db.Sessions.SingleAsync(s => s.Id == id, ct);
        if (await Refuse(row, change, ct) is { Count: > 0 } problems)
            return problems;
        await db.SaveChangesAsync(ct);
        return row;
    }

    private async Task<List<Problem>> Refuse(SessionRow row, SessionChange change, CancellationToken ct)
    {
        switch (change.Kind)
        {
            case SessionChangeKind.End when row.StartedAt is null:
                return [Problem.Of("notBegun", "kind")];
            case SessionChangeKind.End:
                row.EndedAt ??= clock.Now;
                break;
            case SessionChangeKind.Reopen when row.StartedOn != clock.Today:
                return [Problem.Of("sessionOver", "kind")];
            case SessionChangeKind.Reopen:
                row.EndedAt = null;
                break;
            case SessionChangeKind.Delete or SessionChangeKind.Move when row.StartedAt is not null:
                return [Problem.Of("alreadyBegun", "kind")];
            case SessionChangeKind.Delete:
                row.DeletedAt ??= clock.Now;
                break;
            case SessionChangeKind.Restore:
                row.DeletedAt = null;
                break;
            case SessionChangeKind.TakeBack when row.StartedAt is not null:
                return [Problem.Of("alreadyBegun", "kind")];
            case SessionChangeKind.TakeBack when StoredJson.TryRead<SessionPlan>(row.PlanBefore ?? "") is not { Drills: not null }:
                return [Problem.Of("nothingChanged", "kind")];
            case SessionChangeKind.TakeBack:
                var now = row.PlanJson;
                plans.Lay(row, StoredJson.TryRead<SessionPlan>(row.PlanBefore!)!);
                row.PlanBefore = now;
                row.EditId = null;
                break;
            case SessionChangeKind.Move when change.Date is not { } date:
                return [Problem.Of("required", "date")];
            case SessionChangeKind.Move:
                return await Move(row, change.Date!.Value, ct);
        }
        return [];
    }

    /// <summary>
    /// As it is planned on the new day, in the place of what it was; with what was changed by hand where nothing refuses that there. Either can be
    /// taken back: the changes, or the move that lost them.
    /// </summary>
    private async Task<List<Problem>> Move(SessionRow row, DateOnly date, CancellationToken ct)
    {
        var standing = (await standings.Of(row.StudentId, ct))!;
        var before = plans.Read(row);
        // A session of the weeks stays what the plan asks of it; what cannot be that any more is made as any other.
        var planned = await programmes.Again(standing, row, date, ct) is { } again
            ? Result.Of(again)
            : plans.Make(standing, new(row.Id, date, before?.Minutes, row.Skill, row.Beside));
        if (!planned.IsOk)
            return [.. planned.Problems];
        var kept =
            before is { Bent: not null } && plans.TraineeOn(row, before, date, standing) is { } who
                ? new PlanEditor(catalogue).MovedTo(before, who)
                : null;
        row.PlanBefore =
            kept is not null ? StoredJson.Write(planned.Value)
            : before is { Bent: not null } ? row.PlanJson
            : null;
        row.EditId = null;
        plans.Lay(row, kept ?? planned.Value);
        return [];
    }
}
