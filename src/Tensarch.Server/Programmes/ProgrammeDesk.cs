using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Programmes;
using Tensarch.Server.Data;
using Tensarch.Server.Planning;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>Plans the weeks of a student, keeps versions, and lays out the sessions of the newest one.</summary>
public sealed partial class ProgrammeDesk(
    TensarchDb db,
    CatalogueContent content,
    IWeekSolver solver,
    PlanDesk sessions,
    Standings standings,
    PlanningTurns turns,
    StudioClock clock,
    StudioScope scope
)
{
    /// <summary>So far ahead a student has looked at their plan.</summary>
    private const int SeenDays = 14;

    private readonly Planner planner = new(content, solver);
    private readonly PlanSessions laying = new(db, sessions, clock, scope);

    /// <summary>The weeks from today on, planned under today's facts; nothing is kept.</summary>
    public Task<Result<StoredPlan>> Make(Standing standing, ProgrammeSketch sketch, StandingPlan? current, CancellationToken ct) =>
        turns.Run(scope.UserId, ended => MakeNow(standing, sketch, current, ended), ct);

    private Result<StoredPlan> MakeNow(Standing standing, ProgrammeSketch sketch, StandingPlan? current, CancellationToken ct)
    {
        var asked = Asked(standing, sketch, current);
        if (!asked.IsOk)
            return asked.Problems.ToList();
        var made = Worked(() => planner.Plan(asked.Value, ct));
        return made.IsOk
            ? StoredPlan.Of(made.Value, asked.Value, current)
            : made.Problems.Select(p => p with { Rules = p.Rules?.Select(r => r.ToShown()).ToList() }).ToList();
    }

    /// <summary>How many minutes or days more would fit what does not.</summary>
    public async Task<Result<Room>> Room(Standing standing, ProgrammeSketch sketch, StandingPlan? current, CancellationToken ct)
    {
        var asked = Asked(standing, sketch, current);
        return asked.IsOk
            ? await turns.Run(
                scope.UserId,
                ended => Worked<Room>(() => new RoomFinder(planner, content.Programme.PieceWeeks).Find(asked.Value, ended)),
                ct
            )
            : asked.Problems.ToList();
    }

    private static Result<T> Worked<T>(Func<Result<T>> work)
    {
        try
        {
            return work();
        }
        catch (SolverEndedException)
        {
            return Problem.Of("plannerEnded", "");
        }
    }

    private Result<PlanFor> Asked(Standing standing, ProgrammeSketch sketch, StandingPlan? current)
    {
        var since = clock.Today > sketch.Start ? clock.Today : sketch.Start;
        var facts = ProgrammeFacts.Of(standing, sketch, since, content);
        if (!facts.IsOk || current is null)
            return facts;
        var days = current.Plan.Days;
        var begun = days.Where(d => current.IsBegun(d) || current.IsDropped(d))
            .Select(d => (d.Day, d.Half))
            .Union(current.Taken)
            .ToHashSet();
        var programme = facts.Value.Programme;
        return facts.Value with
        {
            Programme = programme with { Slots = [.. programme.Slots.Where(s => !begun.Contains((s.Day, s.Half)))] },
            Done =
            [
                .. standing
                    .State.Sessions.Where(s => s.Day >= sketch.Start)
                    .Select(s => new DoneDay(s.Day, s.Skills, TestedIn(days.FirstOrDefault(d => d.Session == s.Id)))),
            ],
            Locked =
            [
                .. from day in days
                where day.Day >= since && current.IsOpen(day) && (day.Pinned || current.RowOf(day)!.Before is not null)
                let plan = day.Plan
                where plan is not null && day.Ask is not null
                select new LockedDay(new(day.Day, day.Minutes, day.Half), plan, day.Ask!),
            ],
            Before = days.Where(d => d.Day >= since && d.Ask is not null && !current.IsDropped(d))
                .ToDictionary(d => (d.Day, d.Half), d => d.Ask!),
            Seen = days.Where(d => d.Day >= since && d.Day < since.AddDays(SeenDays) && d.Ask is not null && !current.IsDropped(d))
                .ToDictionary(d => (d.Day, d.Half), d => d.Ask!),
        };
    }

    private static IReadOnlyList<string> TestedIn(StoredDay? day) => [.. day?.Ask?.Of(BlockAim.Test) ?? []];

    /// <summary>Plans, and keeps it as the newest version.</summary>
    /// <returns><c>changedMeanwhile</c> where another version stands than the coach saw, or where the student's facts change faster than they are planned.</returns>
    public Task<Result<(PlanRow Row, Appended Appended)>> Keep(Standing standing, PlanProgramme request, CancellationToken ct)
    {
        var hash = Facts.Hash(new { standing.Student.Id, request });
        return Keep(
            standing,
            (now, current, ended) =>
            {
                var made = MakeNow(now, request.Sketch, current, ended);
                return made.IsOk
                    ? new Draft(request.Id, hash, request.Sketch, made.Value, current is null ? "first" : "again")
                    : made.Problems.ToList();
            },
            current => Told(request.Id, request.BasedOn, request.Ended, hash, current, ct),
            ct
        );
    }

    /// <summary>Plans, and keeps it where it is another plan than the one that stands.</summary>
    /// <returns>Sessions that are others than before.</returns>
    public async Task<Result<int>> KeepChanged(Standing standing, PlanProgramme request, CancellationToken ct)
    {
        if (await db.Plans.AnyAsync(p => p.Id == request.Id, ct))
            return 1;
        // Of the same facts, on the same day, the same comes out: looking for something better moves days that somebody has seen.
        if (
            await Current(standing.Student.Id, ct) is { Row.EndedAt: null } stands
            && stands.Row.Facts == standing.Facts
            && clock.DayOf(stands.Row.At) == clock.Today
            && Facts.Hash(stands.Sketch) == Facts.Hash(request.Sketch)
        )
            return 0;
        var (changed, hash) = (0, Facts.Hash(new { standing.Student.Id, request }));
        var kept = await Keep(
            standing,
            (now, current, ended) =>
            {
                var made = MakeNow(now, request.Sketch, current, ended);
                if (!made.IsOk)
                    return made.Problems.ToList();
                // Of a plan that was ended nothing stands.
                changed = current is { Row.EndedAt: null }
                    ? PlanDiff
                        .Of((current.Sketch, current.Plan), (request.Sketch, made.Value), clock.Today, new HashSet<DateOnly>(), false)
                        .Count
                    : made.Value.Days.Count(d => d.Day >= clock.Today);
                return changed > 0 ? new Draft(request.Id, hash, request.Sketch, made.Value, "roster") : Problem.Of(Same, "");
            },
            _ => Task.FromResult<Result<(PlanRow, Appended)>?>(null),
            ct
        );
        return kept.IsOk || kept.Problems[0].Code == Same ? changed : kept.Problems.ToList();
    }

    /// <summary>No problem: there is nothing to keep.</summary>
    private const string Same = "same";

    /// <summary>A version that was worked out, and not kept yet.</summary>
    internal sealed record Draft(Guid Id, string Hash, ProgrammeSketch Sketch, StoredPlan Plan, string Why);

    /// <summary>
    /// Works a version out, and keeps it if nothing was written of the student meanwhile: not a fact, not a session that began, moved or went, and no other
    /// version. Else it is worked out once more under what stands by then.
    /// </summary>
    private async Task<Result<(PlanRow Row, Appended Appended)>> Keep(
        Standing standing,
        Func<Standing, StandingPlan?, CancellationToken, Result<Draft>> work,
        Func<StandingPlan?, Task<Result<(PlanRow, Appended)>?>> told,
        CancellationToken ct
    )
    {
        for (var again = false; ; again = true)
        {
            var current = await Current(standing.Student.Id, ct);
            if (await told(current) is { } known)
                return known;
            var (asked, stands) = (standing, current);
            var draft = await turns.Run(scope.UserId, ended => work(asked, stands, ended), ct);
            if (!draft.IsOk)
                return draft.Problems.ToList();
            await using var transaction = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(ct) : null;
            if (!await IsMoved(standing, current, ct))
            {
                var row = await Write(draft.Value, current, standing, ct);
                var saved = await db.SaveFact(Appended.Stored, ct);
                // What it laid out counts as written too: it is worked out of what stands with it.
                var facts = await db.FactsVersion(standing.Student.Id, ct);
                await db.Plans.Where(p => p.Id == row.Id).ExecuteUpdateAsync(p => p.SetProperty(x => x.Facts, facts), ct);
                if (transaction is not null)
                    await transaction.CommitAsync(ct);
                return (row, saved);
            }
            if (again)
                return Problem.Of("changedMeanwhile", "basedOn", ("newest", current?.Row.Number ?? 0));
            if (transaction is not null)
                await transaction.RollbackAsync(ct);
            db.ChangeTracker.Clear();
            standing = (await standings.Of(standing.Student.Id, ct))!;
        }
    }

    /// <summary>Something that it was worked out of is otherwise by now.</summary>
    internal async Task<bool> IsMoved(Standing standing, StandingPlan? current, CancellationToken ct)
    {
        var id = standing.Student.Id;
        if (await db.FactsVersion(id, ct) != standing.Facts)
            return true;
        var newest = await db
            .Plans.Where(p => p.StudentId == id)
            .OrderByDescending(p => p.Number)
            .Select(p => new { p.Id, p.EndedAt })
            .FirstOrDefaultAsync(ct);
        return current is not null && (newest?.Id != current.Row.Id || newest.EndedAt != current.Row.EndedAt);
    }

    /// <summary>The answer to a request that came before, or that comes too late.</summary>
    private async Task<Result<(PlanRow Row, Appended Appended)>?> Told(
        Guid id,
        int basedOn,
        bool ended,
        string hash,
        StandingPlan? current,
        CancellationToken ct
    )
    {
        if (await db.Plans.AsNoTracking().SingleOrDefaultAsync(p => p.Id == id, ct) is { } stored)
            return (stored, stored.BodyHash == hash ? Appended.SameAgain : Appended.Clash);
        if (basedOn != (current?.Row.Number ?? 0) || ended != (current?.Row.EndedAt is not null))
            return Problem.Of("changedMeanwhile", "basedOn", ("newest", current?.Row.Number ?? 0));
        return null;
    }

    /// <summary>Within the transaction that has looked at what it rests on: lays the sessions out, and adds the version, not yet saved.</summary>
    internal async Task<PlanRow> Write(Draft draft, StandingPlan? current, Standing standing, CancellationToken ct)
    {
        var laid = draft.Plan with { Days = [.. await laying.Lay(standing, draft.Plan, current, ct)] };
        var row = new PlanRow
        {
            Id = draft.Id,
            StudentId = standing.Student.Id,
            // One that cannot be read has its number all the same.
            Number = (await db.Plans.Where(p => p.StudentId == standing.Student.Id).MaxAsync(p => (int?)p.Number, ct) ?? 0) + 1,
            SketchJson = StoredJson.Write(draft.Sketch),
            DaysJson = StoredJson.Write(laid),
            Why = draft.Why,
            At = clock.Now,
            By = scope.UserId,
            BodyHash = draft.Hash,
        };
        db.Plans.Add(row);
        return row;
    }

    /// <summary>Nothing more of it is planned: what has not begun is thrown away.</summary>
    public async Task<bool> End(Guid student, CancellationToken ct)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(ct);
        if (await Current(student, ct) is not { } current)
            return false;
        var row = await db.Plans.SingleAsync(p => p.Id == current.Row.Id, ct);
        row.EndedAt ??= clock.Now;
        foreach (var session in (await laying.Open(student, ct)).Values)
            laying.Drop(session);
        await db.SaveChangesAsync(ct);
        await transaction.CommitAsync(ct);
        return true;
    }
}
