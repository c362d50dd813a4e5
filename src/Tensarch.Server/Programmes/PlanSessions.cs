using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;
using Tensarch.Server.Planning;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>The sessions in which a plan is run.</summary>
internal sealed class PlanSessions(TensarchDb db, PlanDesk sessions, StudioClock clock, StudioScope scope)
{
    /// <summary>Those from today on that have not begun, to be changed.</summary>
    public async Task<Dictionary<Guid, SessionRow>> Open(StandingPlan current, CancellationToken ct)
    {
        var ids = current.Plan.Days.Where(d => d.Day >= clock.Today && current.IsOpen(d)).Select(d => d.Session!.Value).ToList();
        return await db.Sessions.Where(s => ids.Contains(s.Id)).ToDictionaryAsync(s => s.Id, ct);
    }

    /// <summary>Those that a plan left behind which cannot be read any more.</summary>
    private Task<Dictionary<Guid, SessionRow>> OfNoPlan(Guid student, CancellationToken ct) =>
        db
            .Sessions.Where(s =>
                s.StudentId == student && s.Half != null && s.Date >= clock.Today && s.StartedAt == null && s.DeletedAt == null
            )
            .ToDictionaryAsync(s => s.Id, ct);

    /// <summary>Gives each open day its session: the one that it had, changed where the plan is another, or a new one. What is planned no more is thrown away.</summary>
    public async Task<List<StoredDay>> Lay(Standing standing, StoredPlan plan, StandingPlan? current, CancellationToken ct)
    {
        var rows = current is null ? await OfNoPlan(standing.Student.Id, ct) : await Open(current, ct);
        var open = current?.Plan.Days.Where(d => d.Session is { } id && rows.ContainsKey(id)).ToList() ?? [];
        var kept = new HashSet<Guid>();
        var laid = new List<StoredDay>();
        foreach (var day in plan.Days)
        {
            if (day.Plan is null || day.Day < clock.Today || current is not null && current.IsBegun(day))
            {
                laid.Add(day);
                continue;
            }
            var id = day.Session ?? open.FirstOrDefault(d => d.Day == day.Day && d.Half == day.Half)?.Session;
            if (id is { } known && rows.TryGetValue(known, out var row))
                Change(row, day);
            else
                db.Sessions.Add(row = New(standing, day));
            kept.Add(row.Id);
            laid.Add(day with { Session = row.Id });
        }
        foreach (var gone in rows.Values.Where(r => !kept.Contains(r.Id)))
            gone.DeletedAt = clock.Now;
        return laid;
    }

    private void Change(SessionRow row, StoredDay day)
    {
        var plan = StoredJson.Write(day.Plan);
        if (row.PlanJson == plan && row.Half == day.Half)
            return;
        if (!day.Pinned)
            row.PlanBefore = null;
        if (row.PlanJson == plan)
            row.Sequence++;
        row.Half = day.Half;
        sessions.Lay(row, day.Plan!);
    }

    private SessionRow New(Standing standing, StoredDay day)
    {
        var row = new SessionRow
        {
            Id = Guid.NewGuid(),
            StudentId = standing.Student.Id,
            Skill = day.Plan!.Skills[0].Skill,
            PlanJson = "",
            CreatedAt = clock.Now,
            By = scope.UserId,
            Half = day.Half,
        };
        sessions.Lay(row, day.Plan);
        return row;
    }
}
