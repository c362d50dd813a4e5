using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Server.Data;
using Tensarch.Server.Planning;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>A student's plan as it stands: its newest version with the sessions that it is run in.</summary>
public sealed record StandingPlan(PlanRow Row, ProgrammeSketch Sketch, StoredPlan Plan, IReadOnlyDictionary<Guid, SessionRow> Sessions)
{
    public SessionRow? RowOf(StoredDay day) => day.Session is { } id ? Sessions.GetValueOrDefault(id) : null;

    public bool IsBegun(StoredDay day) => RowOf(day)?.StartedAt is not null;

    public bool IsOpen(StoredDay day) => RowOf(day) is { StartedAt: null, DeletedAt: null };
}

/// <summary>Plans the weeks of a student, keeps versions, and lays out the sessions of the newest one.</summary>
public sealed partial class ProgrammeDesk(
    TensarchDb db,
    CatalogueContent content,
    IWeekSolver solver,
    PlanDesk sessions,
    StudioClock clock,
    StudioScope scope
)
{
    /// <summary>So far ahead a student has looked at their plan.</summary>
    private const int SeenDays = 14;

    private readonly Planner planner = new(content, solver);
    private readonly PlanSessions laying = new(db, sessions, clock, scope);

    public async Task<StandingPlan?> Current(Guid student, CancellationToken ct) =>
        await Read(
            await db.Plans.AsNoTracking().Where(p => p.StudentId == student).OrderByDescending(p => p.Number).FirstOrDefaultAsync(ct),
            ct
        );

    /// <summary>None where what is kept cannot be read: it is planned anew.</summary>
    public async Task<StandingPlan?> Read(PlanRow? row, CancellationToken ct)
    {
        if (
            row is null
            || StoredJson.TryRead<ProgrammeSketch>(row.SketchJson) is not { Goals: not null, Days: not null } sketch
            || StoredJson.TryRead<StoredPlan>(row.DaysJson) is not { Days: not null } plan
        )
            return null;
        var ids = plan.Days.Select(d => d.Session).OfType<Guid>().ToList();
        var rows = await db
            .Sessions.AsNoTracking()
            .Where(s => s.StudentId == row.StudentId && ids.Contains(s.Id))
            .ToDictionaryAsync(s => s.Id, ct);
        return new(row, sketch, plan, rows);
    }

    /// <summary>The weeks from today on, planned under today's facts; nothing is kept.</summary>
    public Result<StoredPlan> Make(Standing standing, ProgrammeSketch sketch, StandingPlan? current, CancellationToken ct)
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
    public Result<Room> Room(Standing standing, ProgrammeSketch sketch, StandingPlan? current, CancellationToken ct)
    {
        var asked = Asked(standing, sketch, current);
        return asked.IsOk
            ? Worked<Room>(() => new RoomFinder(planner, content.Programme.PieceWeeks).Find(asked.Value, ct))
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
        var begun = days.Where(current.IsBegun).Select(d => (d.Day, d.Half)).ToHashSet();
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
                where day.Day >= since && current.IsOpen(day) && (day.Pinned || current.RowOf(day)!.PlanBefore is not null)
                let plan = sessions.Read(current.RowOf(day)!)
                where plan is not null && day.Ask is not null
                select new LockedDay(new(day.Day, day.Minutes, day.Half), plan, day.Ask!),
            ],
            Before = days.Where(d => d.Day >= since && d.Ask is not null).ToDictionary(d => (d.Day, d.Half), d => d.Ask!),
            Seen = days.Where(d => d.Day >= since && d.Day < since.AddDays(SeenDays) && d.Ask is not null)
                .ToDictionary(d => (d.Day, d.Half), d => d.Ask!),
        };
    }

    private static IReadOnlyList<string> TestedIn(StoredDay? day) => [.. day?.Ask?.Of(BlockAim.Test) ?? []];

    /// <summary>Plans, and keeps it as the newest version.</summary>
    /// <returns><c>changedMeanwhile</c> where another version stands than the coach saw.</returns>
    public async Task<Result<(PlanRow Row, Appended Appended)>> Keep(Standing standing, PlanProgramme request, CancellationToken ct)
    {
        var current = await Current(standing.Student.Id, ct);
        if (await Told(request.Id, request.BasedOn, request.Ended, new { standing.Student.Id, request }, current, ct) is { } told)
            return told;
        var made = Make(standing, request.Sketch, current, ct);
        return made.IsOk
            ? await Store(
                request.Id,
                new { standing.Student.Id, request },
                request.Sketch,
                made.Value,
                current is null ? "first" : "again",
                current,
                standing,
                ct
            )
            : made.Problems.ToList();
    }

    /// <summary>Plans, and keeps it where it is another plan than the one that stands.</summary>
    /// <returns>Sessions that are others than before.</returns>
    public async Task<Result<int>> KeepChanged(Standing standing, PlanProgramme request, CancellationToken ct)
    {
        var current = await Current(standing.Student.Id, ct);
        if (await db.Plans.AnyAsync(p => p.Id == request.Id, ct))
            return 1;
        var made = Make(standing, request.Sketch, current, ct);
        if (!made.IsOk)
            return made.Problems.ToList();
        // Of a plan that was ended nothing stands.
        var changed = current is { Row.EndedAt: null }
            ? PlanDiff.Of((current.Sketch, current.Plan), (request.Sketch, made.Value), clock.Today, new HashSet<DateOnly>(), false).Count
            : made.Value.Days.Count(d => d.Day >= clock.Today);
        if (changed > 0)
            await Store(request.Id, new { standing.Student.Id, request }, request.Sketch, made.Value, "roster", current, standing, ct);
        return changed;
    }

    /// <summary>What is still to be trained, as it is kept by now.</summary>
    private List<LockedDay> Open(StandingPlan current, IReadOnlyList<StoredDay> days, DateOnly since) =>
        [
            .. from day in days
            where day.Day >= since && day.Ask is not null && current.IsOpen(day)
            let kept = sessions.Read(current.RowOf(day)!) ?? day.Plan
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
        return asked.IsOk
            ? new Assembler(content).Again(sessions.Read(row) ?? planned, asked.Value.Facts(date, planned.Minutes), ask)
            : null;
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

    /// <summary>The answer to a request that came before, or that comes too late.</summary>
    private async Task<Result<(PlanRow Row, Appended Appended)>?> Told<T>(
        Guid id,
        int basedOn,
        bool ended,
        T body,
        StandingPlan? current,
        CancellationToken ct
    )
    {
        if (await db.Plans.AsNoTracking().SingleOrDefaultAsync(p => p.Id == id, ct) is { } stored)
            return (stored, stored.BodyHash == Facts.Hash(body) ? Appended.SameAgain : Appended.Clash);
        if (basedOn != (current?.Row.Number ?? 0) || ended != (current?.Row.EndedAt is not null))
            return Problem.Of("changedMeanwhile", "basedOn", ("newest", current?.Row.Number ?? 0));
        return null;
    }

    private async Task<Result<(PlanRow Row, Appended Appended)>> Store<T>(
        Guid id,
        T body,
        ProgrammeSketch sketch,
        StoredPlan plan,
        string why,
        StandingPlan? current,
        Standing standing,
        CancellationToken ct
    )
    {
        var laid = plan with { Days = [.. await laying.Lay(standing, plan, current, ct)] };
        var row = new PlanRow
        {
            Id = id,
            StudentId = standing.Student.Id,
            // One that cannot be read has its number all the same.
            Number = (await db.Plans.Where(p => p.StudentId == standing.Student.Id).MaxAsync(p => (int?)p.Number, ct) ?? 0) + 1,
            SketchJson = StoredJson.Write(sketch),
            DaysJson = StoredJson.Write(laid),
            Why = why,
            At = clock.Now,
            By = scope.UserId,
            BodyHash = Facts.Hash(body),
        };
        db.Plans.Add(row);
        return (row, await db.SaveFact(Appended.Stored, ct));
    }

    /// <summary>Nothing more of it is planned: what has not begun is thrown away.</summary>
    public async Task<bool> End(Guid student, CancellationToken ct)
    {
        if (await Current(student, ct) is not { } current)
            return false;
        var row = await db.Plans.SingleAsync(p => p.Id == current.Row.Id, ct);
        row.EndedAt ??= clock.Now;
        foreach (var session in (await laying.Open(current, ct)).Values)
            session.DeletedAt = clock.Now;
        await db.SaveChangesAsync(ct);
        return true;
    }
}
