using System.Buffers.Text;
using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Server.Data;

namespace Tensarch.Server.Calendar;

/// <summary>Reads what is planned into calendars, and keeps the links under which they are subscribed to.</summary>
public sealed class CalendarDesk(TensarchDb db, CatalogueContent content, StudioClock clock, StudioScope scope)
{
    private const int DaysBack = 30;
    private const int DaysAhead = 130;
    private const int MostSessions = 5000;
    private const int TokenBytes = 32;

    public IQueryable<FeedRow> Mine => db.Feeds.Where(f => f.RevokedAt == null && (f.StudentId != null || f.By == scope.UserId));

    /// <returns>None for a student of whom there is nothing.</returns>
    public async Task<string?> Of(Guid? student, TimeOnly morning, TimeOnly afternoon, CancellationToken ct)
    {
        var studio = await db.Studios.AsNoTracking().SingleAsync(s => s.Id == scope.StudioId, ct);
        var (from, until) = (clock.Today.AddDays(-DaysBack), clock.Today.AddDays(DaysAhead));
        var rows = await (
            from session in db.Sessions.AsNoTracking()
            join of in db.Students on session.StudentId equals of.Id
            where session.DeletedAt == null && session.Date >= @from && session.Date <= until && of.ArchivedAt == null
            where student == null || session.StudentId == student
            orderby session.Date, session.Half, of.Name
            select new { Session = session, of.Name }
        )
            .Take(MostSessions)
            .ToListAsync(ct);
        var name = student is { } id ? await db.Students.Where(s => s.Id == id).Select(s => s.Name).FirstOrDefaultAsync(ct) : studio.Name;
        return name is null
            ? null
            : CalendarWriter.Write(
                student is null ? name : $"{studio.Name}: {name}",
                [.. rows.Select(r => Session(r.Session, student is null ? r.Name : null))],
                studio.TimeZone,
                morning,
                afternoon,
                clock.Now
            );
    }

    /// <summary>What is trained, and for how long; nothing of anybody's health.</summary>
    private CalendarSession Session(SessionRow row, string? name)
    {
        var plan = StoredJson.TryRead<SessionPlan>(row.PlanJson);
        var skills = string.Join(" and ", new[] { row.Skill }.Concat(row.Beside).Select(s => content.NewestLadder(s)?.Name ?? s));
        var tests = plan?.Drills?.Any(d => d.Reason.Code is "gateAsksHold" or "gateAsksReps") == true ? ", test day" : "";
        var drills = plan?.Drills?.Select(d => content.FindDrill(d.Drill)?.Name).OfType<string>().Distinct() ?? [];
        return new(
            row.Id,
            row.Date,
            row.Half,
            row.TotalSeconds,
            row.Sequence,
            name is null ? $"{skills}{tests}" : $"{name}: {skills}{tests}",
            string.Join('\n', drills)
        );
    }

    public async Task<(FeedRow Row, Appended Appended)> Open(FeedRequest request, CancellationToken ct)
    {
        var body = new
        {
            request.StudentId,
            request.Morning,
            request.Afternoon,
        };
        if (await db.Feeds.AsNoTracking().SingleOrDefaultAsync(f => f.Id == request.Id, ct) is { } stored)
            return (stored, stored.BodyHash == Facts.Hash(body) ? Appended.SameAgain : Appended.Clash);
        var row = new FeedRow
        {
            Id = request.Id,
            StudentId = request.StudentId,
            By = scope.UserId,
            Token = Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(TokenBytes)),
            Morning = request.Morning,
            Afternoon = request.Afternoon,
            At = clock.Now,
            BodyHash = Facts.Hash(body),
        };
        db.Feeds.Add(row);
        return (row, await db.SaveFact(Appended.Stored, ct));
    }

    /// <returns>None where it is not theirs to change.</returns>
    public async Task<FeedRow?> Change(Guid feed, FeedTimes? times, CancellationToken ct)
    {
        if (await Mine.SingleOrDefaultAsync(f => f.Id == feed, ct) is not { } row)
            return null;
        if (times is null)
            row.RevokedAt = clock.Now;
        else
        {
            (row.Morning, row.Afternoon) = (times.Morning, times.Afternoon);
            // A calendar takes a change of an event over only where its number is higher.
            await db
                .Sessions.Where(s => s.Date >= clock.Today && (row.StudentId == null || s.StudentId == row.StudentId))
                .ExecuteUpdateAsync(s => s.SetProperty(x => x.Sequence, x => x.Sequence + 1), ct);
        }
        await db.SaveChangesAsync(ct);
        return row;
    }
}
