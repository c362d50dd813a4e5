using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Calendar;

/// <param name="StudentId">Whose; none for all students of the studio.</param>
/// <param name="Morning">When a morning's session is put into the calendar.</param>
public sealed record FeedRequest(Guid Id, Guid? StudentId, TimeOnly Morning, TimeOnly Afternoon);

public sealed record FeedTimes(TimeOnly Morning, TimeOnly Afternoon);

/// <param name="Path">To be read without signing in, by whoever has it.</param>
public sealed record FeedView(Guid Id, Guid? StudentId, string Path, TimeOnly Morning, TimeOnly Afternoon, DateTimeOffset At);

public static class CalendarEndpoints
{
    private const string Type = "text/calendar; charset=utf-8";

    public static void MapCalendar(this IEndpointRouteBuilder api)
    {
        var calendar = api.MapGroup("/calendar").WithTags("Calendar");
        calendar.MapGet("/", (CalendarDesk desk, CancellationToken ct) => Download(null, desk, ct)).Produces<string>(200, "text/calendar");
        calendar.MapGet("/feeds", Feeds);
        calendar.MapPost("/feeds", Open).Produces<FeedView>(201).Produces<FeedView>();
        calendar.MapPut("/feeds/{feedId}", Change);
        calendar.MapDelete("/feeds/{feedId}", Revoke);
        api.MapGet(
                "/students/{studentId}/calendar",
                (Guid studentId, CalendarDesk desk, CancellationToken ct) => Download(studentId, desk, ct)
            )
            .WithTags("Calendar")
            .Produces<string>(200, "text/calendar");
    }

    /// <summary>What a calendar program reads: it signs in by nothing but the link.</summary>
    public static void MapFeeds(this IEndpointRouteBuilder app) =>
        app.MapGet("/calendar/{token}.ics", Read).AllowAnonymous().ExcludeFromDescription();

    private static FeedView View(FeedRow row) =>
        new(row.Id, row.StudentId, $"/calendar/{row.Token}.ics", row.Morning, row.Afternoon, row.At);

    private static async Task<IResult> Download(Guid? student, CalendarDesk desk, CancellationToken ct) =>
        await desk.Of(student, CalendarWriter.UsualMorning, CalendarWriter.UsualAfternoon, ct) is { } text
            ? TypedResults.File(Encoding.UTF8.GetBytes(text), Type, "tensarch.ics")
            : Problems.NotFound();

    private static async Task<Ok<List<FeedView>>> Feeds(CalendarDesk desk, CancellationToken ct) =>
        TypedResults.Ok((await desk.Mine.AsNoTracking().ToListAsync(ct)).OrderBy(f => f.At).Select(View).ToList());

    private static async Task<IResult> Open(FeedRequest request, CalendarDesk desk, TensarchDb db, CancellationToken ct)
    {
        if (request.StudentId is { } student && !await db.Students.AnyAsync(s => s.Id == student, ct))
            return Problems.NotFound();
        var (row, appended) = await desk.Open(request, ct);
        return Problems.Respond(appended, $"/api/v1/calendar/feeds/{row.Id}", View(row));
    }

    private static async Task<Results<Ok<FeedView>, ProblemHttpResult>> Change(
        Guid feedId,
        FeedTimes times,
        CalendarDesk desk,
        CancellationToken ct
    ) => await desk.Change(feedId, times, ct) is { } row ? TypedResults.Ok(View(row)) : Problems.NotFound();

    private static async Task<Results<NoContent, ProblemHttpResult>> Revoke(Guid feedId, CalendarDesk desk, CancellationToken ct) =>
        await desk.Change(feedId, null, ct) is not null ? TypedResults.NoContent() : Problems.NotFound();

    private static async Task<IResult> Read(
        string token,
        TensarchDb db,
        StudioScope scope,
        IServiceProvider services,
        HttpContext http,
        CancellationToken ct
    )
    {
        var feed = await (
            from f in db.Feeds.IgnoreQueryFilters().AsNoTracking()
            join studio in db.Studios on f.StudioId equals studio.Id
            where f.Token == token && f.RevokedAt == null
            // A coach's own link ends with their work here, a student's with theirs.
            where
                f.StudentId != null
                    ? db.Students.IgnoreQueryFilters().Any(s => s.Id == f.StudentId && s.ArchivedAt == null)
                    : db.Users.IgnoreQueryFilters().Any(u => u.Id == f.By && u.LeftAt == null)
            select new { Feed = f, studio.TimeZone }
        ).SingleOrDefaultAsync(ct);
        if (feed is null)
            return Problems.NotFound();
        scope.Enter(feed.Feed.StudioId, feed.Feed.By, feed.TimeZone);
        var text = await services.GetRequiredService<CalendarDesk>().Of(feed.Feed.StudentId, feed.Feed.Morning, feed.Feed.Afternoon, ct);
        http.Response.Headers.CacheControl = "private, max-age=300";
        return text is null ? Problems.NotFound() : TypedResults.Text(text, Type);
    }
}
