using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

/// <summary>What bars somebody newly.</summary>
public sealed class NewBars(TensarchDb db, Standings standings, StudioClock clock)
{
    private const int MostStudents = 24;

    /// <summary>
    /// What bars since a day, of those of whom something was said since, whose clearance lapsed or was withdrawn, or whose screen fell due;
    /// one for each reason.
    /// </summary>
    public async Task<IReadOnlyList<TodayBar>> Since(DateOnly day, CancellationToken ct)
    {
        var since = clock.At(day.ToDateTime(TimeOnly.MinValue));
        var (lapsed, today) = (day.AddDays(-1), clock.Today);
        // A month that is shorter moves the day by up to three.
        var (dueFrom, dueTo) = (
            day.AddMonths(-ScreenView.RescreenMonths).AddDays(-3),
            today.AddMonths(-ScreenView.RescreenMonths).AddDays(3)
        );
        var told = await db
            .Students.AsNoTracking()
            .Where(s => s.ArchivedAt == null)
            .Where(s =>
                db.Signals.Any(x => x.StudentId == s.Id && x.At >= since)
                || db.Answers.Any(x => x.StudentId == s.Id && x.At >= since && x.Yes)
                || db.Screenings.Any(x => x.StudentId == s.Id && (x.At >= since || x.On >= dueFrom && x.On <= dueTo))
                || db.Clearances.Any(x => x.StudentId == s.Id && x.Until >= lapsed && x.Until < today)
                || db.Withdrawals.Any(x => x.StudentId == s.Id && x.At >= since)
                || db.CheckIns.Any(x => x.StudentId == s.Id && x.At >= since)
                || db.Consents.Any(x => x.StudentId == s.Id && x.At >= since && !x.Given)
            )
            .OrderBy(s => s.Name)
            .Take(MostStudents)
            .ToListAsync(ct);
        if (told.Count == 0)
            return [];
        return
        [
            .. from standing in await standings.Of(told, ct)
            from same in standing
                .Bars.Reasons.Where(r => r.Standing && IsNew(r, standing.Screen, day, since))
                .OrderByDescending(r => r.Level)
                .GroupBy(r => (r.Code, r.Question, r.Signal, r.LapsedOn))
            select new TodayBar(standing.Student.Id, standing.Student.Name, [.. same.Select(r => r.Tag).Distinct()], same.First()),
        ];
    }

    private static bool IsNew(BarReason reason, ScreenView screen, DateOnly day, DateTimeOffset since) =>
        reason.Since >= since || reason.LapsedOn >= day || reason.Code == "screenDue" && screen.DueOn >= day;
}
