using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Planning;
using Tensarch.Server.Skills;
using Tensarch.Server.Students;

namespace Tensarch.Server.Sessions;

public static class SessionEndpoints
{
    private const int PageSize = 30;
    private const int MostEvents = 5000;

    public static void MapSessions(this IEndpointRouteBuilder api)
    {
        var own = api.MapGroup("/students/{studentId}/sessions").WithTags("Planning");
        own.MapGet("/", List);
        own.MapPost("/", Plan).Produces<SessionLine>(201).Produces<SessionLine>();
        api.MapGet("/sessions/today", Today).WithTags("Sessions");
        var sessions = api.MapGroup("/sessions/{sessionId}").WithTags("Sessions");
        sessions.MapGet("/", Sheet);
        sessions.MapGet("/pack", Pack);
        sessions.MapPost("/facts", Log);
        sessions.MapGet("/events", Events);
        sessions.MapPost("/changes", Change);
        sessions.MapPost("/log", LogByHand);
        api.MapPost("/facts", Tell).WithTags("Sessions");
    }

    private static async Task<Ok<List<SessionLine>>> List(Guid studentId, TensarchDb db, CancellationToken ct) =>
        TypedResults.Ok(
            await db
                .Sessions.Where(s => s.StudentId == studentId && s.DeletedAt == null)
                .OrderByDescending(s => s.CreatedAt)
                .Take(PageSize)
                .Select(s => new SessionLine(s.Id, s.Skill, s.Date, s.TotalSeconds, s.StartedAt, s.EndedAt, s.Worked.Any()))
                .ToListAsync(ct)
        );

    /// <summary>What is to be run today, or is under way: a device keeps the packs of these.</summary>
    private static async Task<Ok<List<TodaySession>>> Today(TensarchDb db, StudioClock clock, CancellationToken ct) =>
        TypedResults.Ok(
            await (
                from session in db.Sessions
                where session.Date == clock.Today && session.EndedAt == null && session.DeletedAt == null
                join student in db.Students on session.StudentId equals student.Id
                where student.ArchivedAt == null
                orderby session.CreatedAt descending
                select new TodaySession(session.Id, student.Id, student.Name, session.Skill, session.StartedAt)
            )
                .Take(PageSize)
                .ToListAsync(ct)
        );

    private static async Task<IResult> Plan(Guid studentId, PlanRequest request, PlanDesk desk, Standings standings, CancellationToken ct)
    {
        var standing = (await standings.Of(studentId, ct))!;
        var planned = await desk.Plan(standing, request, ct);
        if (!planned.IsOk)
            return Problems.Unprocessable(planned.Problems);
        var row = planned.Value.Row;
        return Problems.Respond(planned.Value.Appended, $"/api/v1/sessions/{request.Id}", Line(row));
    }

    private static async Task<Results<Ok<SessionLine>, ProblemHttpResult>> Change(
        Guid sessionId,
        SessionChange change,
        SessionChanges changes,
        CancellationToken ct
    )
    {
        var made = await changes.Make(sessionId, change, ct);
        return made.IsOk ? TypedResults.Ok(Line(made.Value)) : Problems.Unprocessable(made.Problems);
    }

    /// <summary>A lesson that was held without the runner.</summary>
    private static async Task<Results<Ok<SessionLine>, ProblemHttpResult>> LogByHand(
        Guid sessionId,
        LogRequest request,
        LogDesk desk,
        CancellationToken ct
    )
    {
        var logged = await desk.Log(sessionId, request, ct);
        return logged.IsOk ? TypedResults.Ok(Line(logged.Value)) : Problems.Unprocessable(logged.Problems);
    }

    private static SessionLine Line(SessionRow row) =>
        new(row.Id, row.Skill, row.Date, row.TotalSeconds, row.StartedAt, row.EndedAt, row.Worked.Count > 0);

    private static async Task<Results<Ok<SessionSheet>, ProblemHttpResult>> Sheet(
        Guid sessionId,
        TensarchDb db,
        PlanDesk desk,
        Standings standings,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var row = await db.Sessions.AsNoTracking().SingleAsync(s => s.Id == sessionId, ct);
        var standing = (await standings.Of(row.StudentId, ct))!;
        if (desk.Read(row) is not { } plan)
            return Problems.Of(409, "planUnreadable");
        var ladder = await desk.LadderOf(plan, ct);
        var carried = row.EndedAt is null ? await Notes.CarriedOver(row.StudentId, db, ct) : null;
        return TypedResults.Ok(
            new SessionSheet(
                row.Id,
                row.Skill,
                row.StudentId,
                standing.Student.Name,
                row.TotalSeconds,
                row.StartedAt,
                row.EndedAt,
                plan,
                [
                    .. Timeline
                        .Of(plan, catalogue)
                        .Select(p => new SheetPart(
                            p.Id,
                            p.Planned.Drill,
                            p.PlannedSide.Side,
                            p.Seconds,
                            ladder?.Reads(p.Planned.Drill, p.PlannedSide.Variant, p.PlannedSide.Stage) == true
                                && p.Planned.Reason.Code != "dayGate"
                        )),
                ],
                row.StartedAt is null ? [] : await DoneLines.Of(row, plan, db, catalogue, ct),
                await db.Sets.CountAsync(
                    s =>
                        s.SessionId == sessionId
                        && s.Doubled
                        && !db.Corrections.Any(c =>
                            c.Of == s.Id && c.Reason != CorrectionRow.Confirmed && c.Reason != CorrectionRow.Quality
                        ),
                    ct
                ),
                row.DeletedAt is not null,
                row.EndedAt is null ? desk.NowBarred(plan, standing.Bars) : [],
                row.EndedAt is null ? desk.Outdated(row, plan, standing) : [],
                standing.Bars.SensationCeiling,
                carried is null ? null : new(carried.Id, carried.Text)
            )
        );
    }

    private static async Task<Results<Ok<PackResponse>, ProblemHttpResult>> Pack(
        Guid sessionId,
        TensarchDb db,
        PlanDesk desk,
        Standings standings,
        CatalogueContent catalogue,
        StudioClock clock,
        CancellationToken ct
    )
    {
        var row = await db.Sessions.AsNoTracking().SingleAsync(s => s.Id == sessionId, ct);
        if (row.EndedAt is not null)
            return Problems.Of(409, "sessionOver");
        if (row.DeletedAt is not null)
            return Problems.Of(409, "sessionDeleted");
        var standing = (await standings.Of(row.StudentId, ct))!;
        if (desk.Read(row) is not { } plan)
            return Problems.Of(409, "planUnreadable");
        if (desk.RequestToday(row, plan, standing) is not { } today)
            return Problems.Of(409, "planOutdated", Problem.Of("planOutdated", "otherLadder"));
        var maker = new PackMaker(catalogue);
        // One that is under way goes on where it stood: what happened since is what has ended.
        var made = row.StartedOn == clock.Today ? maker.Pack(plan, today) : maker.Make(plan, today);
        if (!made.IsOk)
            return Problems.Of(409, desk.NowBarred(plan, standing.Bars).Count > 0 ? "planBarred" : "planOutdated", [.. made.Problems]);
        var carried = await Notes.CarriedOver(row.StudentId, db, ct);
        var latest = clock.Now + SessionPack.Life;
        return TypedResults.Ok(
            new PackResponse(
                row.Id,
                row.StudentId,
                standing.Student.Name,
                clock.Now,
                standing.State.Until < latest ? standing.State.Until : latest,
                made.Value,
                PackLoads.Ended(standing.Bars),
                carried is null ? null : new(carried.Id, carried.Text),
                StoredJson.TryRead<List<BodyWord>>(standing.Student.BodyWordsJson) ?? []
            )
        );
    }

    /// <summary>What the floor tells of any session: one answer to each entry, and none blocks the others.</summary>
    private static async Task<Results<Ok<TellResponse>, ProblemHttpResult>> Tell(
        TellRequest request,
        FloorDesk desk,
        StudioScope scope,
        CancellationToken ct
    ) =>
        request.Author is { } author && author != scope.UserId
            ? Problems.Of(409, "otherAuthor")
            : TypedResults.Ok(await desk.Tell(request, ct));

    /// <summary>
    /// What was said in a session, in the order in which it was: another device goes on from there. What was said without having heard the rest is
    /// no part of it.
    /// </summary>
    private static async Task<Ok<List<FloorEvent>>> Events(Guid sessionId, TensarchDb db, CancellationToken ct) =>
        TypedResults.Ok(
            await db
                .Events.Where(e => e.SessionId == sessionId && !e.Doubled)
                .OrderBy(e => e.Seq)
                .ThenBy(e => e.At)
                .Take(MostEvents)
                .Select(e => new FloorEvent(e.Id, e.SessionId, e.Seq, e.At, e.SaidJson))
                .ToListAsync(ct)
        );

    /// <summary>Logged facts are never refused for what became of the plan; a clash of ids is told, the rest is stored.</summary>
    private static async Task<Results<Ok<FactsResponse>, ProblemHttpResult>> Log(
        Guid sessionId,
        FactsRequest request,
        TensarchDb db,
        SessionDesk desk,
        Standings standings,
        CancellationToken ct
    )
    {
        var logged = await desk.Log(sessionId, request, ct);
        if (!logged.IsOk)
            return Problems.Unprocessable(logged.Problems);
        var row = await db.Sessions.AsNoTracking().SingleAsync(s => s.Id == sessionId, ct);
        var standing = (await standings.Of(row.StudentId, ct))!;
        var response = logged.Value with { Ended = PackLoads.Ended(standing.Bars) };
        if (response.Clashes.Count == 0)
            return TypedResults.Ok(response);
        var clash = Problems.IdTaken();
        clash.ProblemDetails.Extensions["stored"] = response.Stored;
        clash.ProblemDetails.Extensions["sameAgain"] = response.SameAgain;
        clash.ProblemDetails.Extensions["clashes"] = response.Clashes;
        return clash;
    }
}
