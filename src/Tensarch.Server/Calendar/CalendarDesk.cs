using System.Buffers.Text;
using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Students;
using Tensarch.Server.Data;
using Tensarch.Server.Sessions;

namespace Tensarch.Server.Calendar;

/// <summary>Reads what is planned into calendars, and keeps the links under which they are subscribed to.</summary>
public sealed class CalendarDesk(TensarchDb db, CatalogueContent content, StudioClock clock, StudioScope scope)
{
    private const int DaysBack = 30;
    private const int DaysAhead = 130;
    public const int MostSessions = 5000;
    private const int TokenBytes = 32;

    public IQueryable<FeedRow> Mine => db.Feeds.Where(f => f.RevokedAt == null && (f.StudentId != null || f.By == scope.UserId));

    /// <returns>None for a student of whom there is nothing.</returns>
    public async Task<string?> Of(Guid? student, TimeOnly morning, TimeOnly afternoon, CancellationToken ct)
    {
        var studio = await db.Studios.AsNoTracking().SingleAsync(s => s.Id == scope.StudioId, ct);
        var names = await db
            .Students.Where(s => s.ArchivedAt == null && (student == null || s.Id == student))
            .ToDictionaryAsync(s => s.Id, s => s.Name, ct);
        var name = student is null
            ? studio.Name
            : await db.Students.Where(s => s.Id == student).Select(s => s.Name).FirstOrDefaultAsync(ct);
        if (name is null)
            return null;
        var lines = await Lines(student, ct);
        return CalendarWriter.Write(
            student is null ? name : $"{studio.Name}: {name}",
            [
                .. from line in lines
                where names.ContainsKey(line.StudentId)
                orderby line.Date, line.Half, names[line.StudentId]
                let planned = PlanGist.Of(line.PlanJson)
                let title = Title(line.Skill, line.Beside, planned)
                select new CalendarSession(
                    line.Id,
                    line.Date,
                    line.Half,
                    line.TotalSeconds,
                    line.Sequence,
                    student is null ? $"{names[line.StudentId]}: {title}" : title,
                    Text(planned)
                ),
            ],
            studio.TimeZone,
            morning,
            afternoon,
            clock.Now
        );
    }

    private sealed record Line(
        Guid Id,
        Guid StudentId,
        DateOnly Date,
        DayHalf? Half,
        int TotalSeconds,
        int Sequence,
        string Skill,
        IReadOnlyList<string> Beside,
        string PlanJson
    );

    /// <summary>Where a studio has more than a calendar holds, what is to come goes before what was.</summary>
    private async Task<IReadOnlyList<Line>> Lines(Guid? student, CancellationToken ct)
    {
        var today = clock.Today;
        var (from, until) = (today.AddDays(-DaysBack), today.AddDays(DaysAhead));
        var sessions = db.Sessions.AsNoTracking().Where(s => s.DeletedAt == null && s.Date >= from && s.Date <= until);
        if (student is { } one)
            return await Read(sessions.Where(s => s.StudentId == one));
        var ahead = await Read(sessions.Where(s => s.Date >= today).OrderBy(s => s.Date).Take(MostSessions));
        var back = await Read(sessions.Where(s => s.Date < today).OrderByDescending(s => s.Date).Take(MostSessions - ahead.Count));
        return [.. back, .. ahead];

        async Task<IReadOnlyList<Line>> Read(IQueryable<SessionRow> rows) =>
            await rows.Select(s => new Line(
                    s.Id,
                    s.StudentId,
                    s.Date,
                    s.Half,
                    s.Planned.TotalSeconds,
                    s.Sequence,
                    s.Planned.Skill,
                    s.Planned.Beside,
                    s.Planned.PlanJson
                ))
                .ToListAsync(ct);
    }

    /// <summary>What is trained; nothing of anybody's health.</summary>
    private string Title(string skill, IEnumerable<string> beside, PlanGist? planned)
    {
        var skills = string.Join(" and ", beside.Prepend(skill).Select(s => content.NewestLadder(s)?.Name ?? s));
        return planned?.Tests == true ? $"{skills}, test day" : skills;
    }

    private string Text(PlanGist? planned) =>
        string.Join('\n', planned?.Keys.Select(key => content.FindDrill(key)?.Name).OfType<string>().Distinct() ?? []);

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
