using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
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

    /// <summary>Made anew under today's facts, for its own day, or for today where that is over.</summary>
    Again,
}

/// <summary>A command on a session.</summary>
/// <param name="Date">Where it moves to.</param>
/// <param name="Id">Made by the client: sent again, it answers the same. None from a page of before.</param>
/// <param name="Second">The coach knows that the day it comes to has another session.</param>
/// <param name="Seen">The version of the session that the coach saw. Another stands by now: 412, with both.</param>
public sealed record SessionChange(
    SessionChangeKind Kind,
    DateOnly? Date = null,
    Guid? Id = null,
    [System.ComponentModel.DataAnnotations.Range(1, int.MaxValue)] int? Seen = null,
    bool Second = false
);

/// <summary>
/// The one door to a session: each command is worked out on a version, and done in one transaction that looks whether that still stands. What is trained no
/// command changes.
/// </summary>
public sealed partial class SessionChanges(
    TensarchDb db,
    CatalogueContent catalogue,
    PlanDesk plans,
    EditDesk edits,
    ProgrammeDesk programmes,
    WeekJudge weeks,
    Standings standings,
    StudioClock clock,
    StudioScope scope
)
{
    /// <summary>What a command comes to, worked out and not done yet.</summary>
    /// <param name="Do">Within the transaction; nothing is saved by it.</param>
    /// <param name="Day">Where it comes to, if nothing else may stand there.</param>
    /// <param name="On">What of the student it rests on; none where it rests on the session alone.</param>
    private sealed record Work(Func<Task> Do, Standing? On = null, StandingPlan? Weeks = null, DateOnly? Day = null);

    public Task<Result<SessionLine>> Make(Guid id, SessionChange change, CancellationToken ct) =>
        Command(change.Id, new { id, change }, id, row => WorkOut(row, change, ct), ct);

    /// <summary>Keeps a session as it was changed by hand; what the checker refuses is not kept.</summary>
    /// <returns>The session; or what <see cref="EditDesk.Try"/> says, or <c>editRefused</c> with the rules that it breaks.</returns>
    public Task<Result<SessionLine>> Keep(Guid id, EditKeep request, CancellationToken ct) =>
        Command(request.Id, new { id, request }, id, row => WorkOut(row, request, ct), ct);

    /// <summary>As it stands.</summary>
    public async Task<SessionLine> Now(Guid id, CancellationToken ct) =>
        SessionLine.Of(await db.WholeSessions.AsNoTracking().SingleAsync(s => s.Id == id, ct));

    private async Task<Result<SessionLine>> Command<TBody>(
        Guid? command,
        TBody body,
        Guid id,
        Func<SessionRow, Task<Result<Work>>> workOut,
        CancellationToken ct
    )
    {
        var hash = Facts.Hash(body);
        for (var again = false; ; again = true)
        {
            if (command is { } asked && await db.Commands.AsNoTracking().SingleOrDefaultAsync(c => c.Id == asked, ct) is { } answered)
                return answered.BodyHash == hash
                    ? StoredJson.TryRead<SessionLine>(answered.AnswerJson) ?? await Now(id, ct)
                    : Problem.Of("clash", "id");
            db.ChangeTracker.Clear();
            var row = await db.WholeSessions.SingleAsync(s => s.Id == id, ct);
            var work = await workOut(row);
            if (!work.IsOk)
                return work.Problems.ToList();
            if (await Done(row, work.Value, command, hash, ct) is { } line)
                return line;
            if (again)
                return Problem.Of("changedMeanwhile", "seen", ("newest", (await Now(id, ct)).Version));
        }
    }

    /// <returns>None where it was worked out of what stands no more.</returns>
    private async Task<SessionLine?> Done(SessionRow row, Work work, Guid? command, string hash, CancellationToken ct)
    {
        var version = row.Version;
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        if (
            await db.Sessions.Where(s => s.Id == row.Id).Select(s => s.Version).SingleAsync(ct) != version
            || work.On is { } standing && await programmes.IsMoved(standing, work.Weeks, ct)
            || work.Day is { } day && await plans.Stands(row.StudentId, day, row.Id, ct) is not null
        )
            return null;
        try
        {
            await work.Do();
            await db.SaveChangesAsync(ct);
            var line = SessionLine.Of(row);
            if (command is { } id)
            {
                db.Commands.Add(
                    new()
                    {
                        Id = id,
                        SessionId = row.Id,
                        AnswerJson = StoredJson.Write(line),
                        At = clock.Now,
                        By = scope.UserId,
                        BodyHash = hash,
                    }
                );
                await db.SaveChangesAsync(ct);
            }
            await transaction.CommitAsync(ct);
            return line;
        }
        catch (DbUpdateException e) when (e is DbUpdateConcurrencyException || Facts.IsTaken(e))
        {
            return null;
        }
    }

    private async Task<Result<Work>> WorkOut(SessionRow row, SessionChange change, CancellationToken ct)
    {
        if (change.Seen is { } seen && seen != row.Version)
            return Problem.Of("changedMeanwhile", "seen", ("newest", row.Version));
        switch (change.Kind)
        {
            case SessionChangeKind.End when row.Training?.StartedAt is null:
                return Problem.Of("notBegun", "kind");
            case SessionChangeKind.End:
                return Simply(row, () => row.Training.EndedAt ??= clock.Now);
            case SessionChangeKind.Reopen when row.Training?.StartedOn != clock.Today:
                return Problem.Of("sessionOver", "kind");
            case SessionChangeKind.Reopen:
                return Simply(row, () => row.Training.EndedAt = null);
            case SessionChangeKind.Restore when row.DeletedAt is null:
                return Simply(row, () => { });
            case SessionChangeKind.Restore:
                return await Alone(row, row.Date, change, () => Restore(row, ct), ct);
            case var _ when row.IsTrained:
                return Problem.Of("alreadyBegun", "kind");
            case SessionChangeKind.Delete:
                return Simply(
                    row,
                    () =>
                    {
                        row.DeletedAt ??= clock.Now;
                        Untouch(row);
                    }
                );
            case var _ when row.DeletedAt is not null:
                return Problem.Of("sessionDeleted", "kind");
            case SessionChangeKind.TakeBack:
                return await TakeBack(row, ct);
            case SessionChangeKind.Move when change.Date is null:
                return Problem.Of("required", "date");
            case SessionChangeKind.Move:
                return await Alone(row, change.Date.Value, change, () => Move(row, change.Date.Value, "moved", ct), ct);
            default:
                var day = row.Date < clock.Today ? clock.Today : row.Date;
                return await Alone(row, day, change, () => Move(row, day, "again", ct), ct);
        }
    }

    /// <summary>A command that brings a session to a day: one more than the day has, if the coach says so.</summary>
    private async Task<Result<Work>> Alone(
        SessionRow row,
        DateOnly day,
        SessionChange change,
        Func<Task<Result<Work>>> workOut,
        CancellationToken ct
    )
    {
        if (change.Second || day == row.Date && row.DeletedAt is null)
            return await workOut();
        if (await plans.Stands(row.StudentId, day, row.Id, ct) is { } stands)
            return stands;
        var work = await workOut();
        return work.IsOk ? work.Value with { Day = day } : work;
    }

    private static Result<Work> Simply(SessionRow row, Action change) =>
        new Work(() =>
        {
            row.Version++;
            change();
            return Task.CompletedTask;
        });

    /// <summary>It was begun, and nothing was done in it: that is no training of what it becomes.</summary>
    private void Untouch(SessionRow row)
    {
        if (row.Training is { } touched)
            db.Trainings.Remove(touched);
    }

    private Task<bool> IsTaken(SessionRow row, CancellationToken ct) =>
        db.Sessions.AnyAsync(
            s =>
                s.StudentId == row.StudentId
                && s.Date == row.Date
                && s.Half == row.Half
                && row.Half != null
                && s.Id != row.Id
                && s.DeletedAt == null,
            ct
        );
}
