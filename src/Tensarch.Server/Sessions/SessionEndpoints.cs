using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Sessions;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Planning;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Sessions;

public static class SessionEndpoints
{
    private const int PageSize = 30;

    public static void MapSessions(this IEndpointRouteBuilder api)
    {
        var own = api.MapGroup("/students/{studentId}/sessions").WithTags("Planning");
        own.MapGet("/", List);
        own.MapPost("/", Plan).Produces<SessionLine>(201).Produces<SessionLine>();
        var sessions = api.MapGroup("/sessions/{sessionId}").WithTags("Sessions");
        sessions.MapGet("/", Sheet);
        sessions.MapGet("/pack", Pack);
        sessions.MapPost("/facts", Log);
    }

    private static async Task<Ok<List<SessionLine>>> List(Guid studentId, TensarchDb db, CancellationToken ct) =>
        TypedResults.Ok(
            await db
                .Sessions.Where(s => s.StudentId == studentId)
                .OrderByDescending(s => s.CreatedAt)
                .Take(PageSize)
                .Select(s => new SessionLine(s.Id, s.Skill, s.Date, s.TotalSeconds, s.StartedAt, s.EndedAt))
                .ToListAsync(ct)
        );

    private static async Task<IResult> Plan(Guid studentId, PlanRequest request, PlanDesk desk, Standings standings, CancellationToken ct)
    {
        var standing = (await standings.Of(studentId, ct))!;
        var planned = await desk.Plan(standing, request, ct);
        if (!planned.IsOk)
            return Problems.Unprocessable(planned.Problems);
        var row = planned.Value.Row;
        return Problems.Respond(
            planned.Value.Appended,
            $"/api/v1/sessions/{request.Id}",
            new SessionLine(row.Id, row.Skill, row.Date, row.TotalSeconds, row.StartedAt, row.EndedAt)
        );
    }

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
        var done = await db
            .Sets.Where(s => s.SessionId == sessionId)
            .OrderBy(s => s.At)
            .Select(s => new
            {
                s.Drill,
                s.Variant,
                s.Side,
                s.Seconds,
                s.CleanReps,
                s.Quality,
            })
            .ToListAsync(ct);
        return TypedResults.Ok(
            new SessionSheet(
                row.Id,
                row.StudentId,
                standing.Student.Name,
                row.TotalSeconds,
                row.StartedAt,
                row.EndedAt,
                plan,
                [.. Timeline.Of(plan, catalogue).Select(p => new SheetPart(p.Planned.Drill, p.PlannedSide.Side, p.Seconds))],
                [
                    .. done.GroupBy(s => new
                        {
                            s.Drill,
                            s.Variant,
                            s.Side,
                        })
                        .Select(g => new DoneSet(
                            g.Key.Drill,
                            g.Key.Variant,
                            g.Key.Side,
                            g.Count(),
                            g.Max(s => s.Seconds),
                            g.Max(s => s.CleanReps),
                            g.Max(s => s.Quality)
                        )),
                ],
                row.EndedAt is null ? desk.NowBarred(plan, standing.Bars) : [],
                standing.Bars.SensationCeiling
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
        var standing = (await standings.Of(row.StudentId, ct))!;
        if (desk.Read(row) is not { } plan)
            return Problems.Of(409, "planUnreadable");
        if (desk.NowBarred(plan, standing.Bars).Count > 0)
            return Problems.Of(409, "planBarred");
        return TypedResults.Ok(
            new PackResponse(
                row.Id,
                row.StudentId,
                standing.Student.Name,
                clock.Now + SessionPack.Life,
                SessionPack.Of(plan, standing.Bars, catalogue)
            )
        );
    }

    /// <summary>Logged facts are never refused for what became of the plan; a clash of ids is told, the rest is stored.</summary>
    private static async Task<Results<Ok<FactsResponse>, Conflict<FactsResponse>, ProblemHttpResult>> Log(
        Guid sessionId,
        FactsRequest request,
        TensarchDb db,
        SessionDesk desk,
        PlanDesk plans,
        Standings standings,
        CancellationToken ct
    )
    {
        var logged = await desk.Log(sessionId, request, ct);
        if (!logged.IsOk)
            return Problems.Unprocessable(logged.Problems);
        var row = await db.Sessions.AsNoTracking().SingleAsync(s => s.Id == sessionId, ct);
        var standing = (await standings.Of(row.StudentId, ct))!;
        var response = logged.Value with { NowBarred = plans.Read(row) is { } plan ? plans.NowBarred(plan, standing.Bars) : [] };
        return response.Clashes.Count > 0 ? TypedResults.Conflict(response) : TypedResults.Ok(response);
    }
}
