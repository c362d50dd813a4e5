using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Core.Programmes;
using Tensarch.Core.Sessions;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Planning;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>A rule of the week that a session would break.</summary>
internal sealed record WeekVerdict(string Code, string? Drill, LoadTag? Tag);

/// <summary>What the week that a session stands in says of it: the rules that no session keeps alone. Every way to a session passes here.</summary>
public sealed class WeekJudge(TensarchDb db, ProgrammeDesk programmes, PlanDesk plans, CatalogueContent content, StudioClock clock)
{
    /// <summary>Two weeks before a week decide what it may hold.</summary>
    private const int DaysAround = 21;

    internal async Task<IReadOnlyList<WeekVerdict>> Judge(Standing standing, SessionRow row, SessionPlan plan, CancellationToken ct)
    {
        var current = await programmes.Current(row.StudentId, ct);
        if (DayOf(row, current) is { } day)
        {
            var put = programmes.Put(standing, current!, day, plan, day.Half);
            return put.IsOk ? [.. put.Value.Broken.Select(b => new WeekVerdict(b.Code, b.Drill, b.Tag))] : [];
        }
        return
        [
            .. (await Around(standing, plan.Date, row.Id, current, ct))
                .Over(plan)
                .Select(o => new WeekVerdict("overWeeksLoad", null, o.Key.Tag))
                .Distinct(),
        ];
    }

    /// <summary>The day of the plan that stands, of one of its sessions.</summary>
    internal StoredDay? DayOf(SessionRow row, StandingPlan? current) =>
        row.DeletedAt is null && current?.StandsOn(clock.Today) == true ? current.Plan.Days.FirstOrDefault(d => d.Session == row.Id) : null;

    /// <param name="except">The session that it is asked for.</param>
    internal async Task<WeekAround> Around(Standing standing, DateOnly day, Guid except, StandingPlan? current, CancellationToken ct)
    {
        var (from, until) = (day.AddDays(-DaysAround), day.AddDays(DaysAround));
        var planned = await db
            .WholeSessions.AsNoTracking()
            .Where(s => s.StudentId == standing.Student.Id && s.Id != except && s.DeletedAt == null)
            .Where(s => s.Date >= clock.Today && s.Date >= from && s.Date <= until)
            .ToListAsync(ct);
        var around = planned
            .Where(s => !s.IsTrained)
            .Select(s => (s.Date, Plan: plans.Read(s)))
            .Where(s => s.Plan is not null)
            .Aggregate(standing.State.History, (done, next) => done.With(next.Date, Work.Planned(next.Plan!, content), content));
        var inWeeks = current?.StandsOn(clock.Today) == true && day >= current.Sketch.Start && day <= current.Sketch.End;
        return new(content, around, day, inWeeks ? current!.Sketch.Start : null);
    }
}
