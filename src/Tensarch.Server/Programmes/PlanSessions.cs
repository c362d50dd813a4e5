using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;
using Tensarch.Server.Planning;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>The sessions in which a plan is run.</summary>
internal sealed class PlanSessions(TensarchDb db, PlanDesk sessions, StudioClock clock, StudioScope scope)
{
    /// <summary>All of the student's weeks, from today on, that nobody has begun, to be changed: those of a plan that cannot be read any more among them.</summary>
    /// <param name="also">Of days that are over, those that move to one that is not.</param>
    public Task<Dictionary<Guid, SessionRow>> Open(Guid student, CancellationToken ct, IReadOnlyCollection<Guid>? also = null)
    {
        var named = also ?? [];
        return db
            .WholeSessions.Where(s => s.StudentId == student && s.Half != null && s.Training == null && s.DeletedAt == null)
            .Where(s => s.Date >= clock.Today || named.Contains(s.Id))
            .ToDictionaryAsync(s => s.Id, ct);
    }

    public void Drop(SessionRow session)
    {
        session.Version++;
        session.DeletedAt = clock.Now;
    }

    /// <summary>
    /// Gives each open day its session: the one that it had, with another plan where that is another, or a new one. What is planned no more is thrown away
    /// first, so that its part of the day is free.
    /// </summary>
    public async Task<List<StoredDay>> Lay(Standing standing, StoredPlan plan, StandingPlan? current, CancellationToken ct)
    {
        var rows = await Open(
            standing.Student.Id,
            ct,
            [.. plan.Days.Where(d => d.Day >= clock.Today).Select(d => d.Session).OfType<Guid>()]
        );
        var days = plan.Days.Select(day => (Day: day, Row: OpenOf(day, rows, current))).ToList();
        var kept = days.Select(d => d.Row?.Id).OfType<Guid>().ToHashSet();
        foreach (var gone in rows.Values.Where(r => !kept.Contains(r.Id)))
            Drop(gone);
        await db.SaveChangesAsync(ct);
        return [.. days.Select(d => IsLaid(d.Day, current) ? Laid(standing, d.Day, d.Row) : d.Day)];
    }

    /// <summary>What is over, begun or thrown away stays as it is.</summary>
    private bool IsLaid(StoredDay day, StandingPlan? current) =>
        day.Plan is not null && day.Day >= clock.Today && (current is null || !current.IsBegun(day) && !current.IsDropped(day));

    private SessionRow? OpenOf(StoredDay day, Dictionary<Guid, SessionRow> rows, StandingPlan? current) =>
        !IsLaid(day, current) ? null
        : day.Session is { } own ? rows.GetValueOrDefault(own)
        : rows.Values.FirstOrDefault(r => r.Date == day.Day && r.Half == day.Half);

    private StoredDay Laid(Standing standing, StoredDay day, SessionRow? row)
    {
        if (row is null)
            db.Sessions.Add(row = New(standing, day));
        else
            Change(row, day);
        return day with { Session = row.Id, Number = row.Plan };
    }

    private void Change(SessionRow row, StoredDay day)
    {
        if (row.Half != day.Half)
        {
            row.Version++;
            row.Sequence++;
            row.Half = day.Half;
        }
        if (row.Planned.PlanJson == StoredJson.Write(day.Plan))
            return;
        if (!day.Pinned)
            row.Before = null;
        sessions.Lay(row, day.Plan!, "weeks");
    }

    private SessionRow New(Standing standing, StoredDay day)
    {
        var row = new SessionRow
        {
            Id = Guid.NewGuid(),
            StudentId = standing.Student.Id,
            CreatedAt = clock.Now,
            By = scope.UserId,
            Half = day.Half,
        };
        sessions.Lay(row, day.Plan!, "weeks");
        return row;
    }
}
