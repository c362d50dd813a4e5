using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Programmes;

/// <summary>Plans everybody at once, in the background.</summary>
public static class RosterEndpoints
{
    public static void MapRosterRuns(this IEndpointRouteBuilder api)
    {
        var runs = api.MapGroup("/roster-runs").WithTags("Programmes");
        runs.MapGet("/newest", Newest);
        runs.MapPost("/", Begin).Produces<RosterRunView>(201).Produces<RosterRunView>();
        runs.MapPost("/{runId}/cancel", Cancel);
    }

    private static async Task<RosterRunView> View(RosterRunRow row, TensarchDb db, CancellationToken ct)
    {
        var lines = StoredJson.TryRead<List<RosterRunLine>>(row.LinesJson) ?? [];
        return new(
            row.Id,
            row.At,
            await db.Users.Where(u => u.Id == row.By).Select(u => u.DisplayName).FirstOrDefaultAsync(ct) ?? "",
            lines.Count(l => l.Outcome != RosterOutcome.Waiting),
            lines,
            row.CancelledAt,
            row.EndedAt
        );
    }

    private static async Task<Ok<RosterPage>> Newest(TensarchDb db, CancellationToken ct) =>
        TypedResults.Ok(
            new RosterPage(
                await db.RosterRuns.AsNoTracking().OrderByDescending(r => r.At).FirstOrDefaultAsync(ct) is { } row
                    ? await View(row, db, ct)
                    : null
            )
        );

    private static async Task<IResult> Begin(
        RosterRunRequest request,
        RosterRuns runs,
        TensarchDb db,
        StudioClock clock,
        StudioScope scope,
        CancellationToken ct
    )
    {
        var hash = Facts.Hash(new { request.AlsoNew });
        if (await db.RosterRuns.AsNoTracking().SingleOrDefaultAsync(r => r.Id == request.Id, ct) is { } stored)
            return stored.BodyHash == hash ? TypedResults.Ok(await View(stored, db, ct)) : Problems.IdTaken();
        // There is one at a time: whoever asks for another is shown the one that runs.
        if (await db.RosterRuns.AsNoTracking().FirstOrDefaultAsync(r => r.EndedAt == null, ct) is { } running)
            return TypedResults.Ok(await View(running, db, ct));
        var students = await db
            .Students.AsNoTracking()
            .Where(s => s.ArchivedAt == null)
            .OrderBy(s => s.Name)
            .Select(s => new { s.Id, s.Name })
            .ToListAsync(ct);
        var row = new RosterRunRow
        {
            Id = request.Id,
            At = clock.Now,
            By = scope.UserId,
            AlsoNew = request.AlsoNew,
            LinesJson = StoredJson.Write(students.Select(s => new RosterRunLine(s.Id, s.Name, RosterOutcome.Waiting)).ToList()),
            BodyHash = hash,
        };
        db.RosterRuns.Add(row);
        var appended = await db.SaveFact(Appended.Stored, ct);
        runs.Begin(scope.StudioId, row.Id);
        return Problems.Respond(appended, "/api/v1/roster-runs/newest", await View(row, db, ct));
    }

    /// <summary>What is planned already stays; the rest is left as it is.</summary>
    private static async Task<Ok<RosterRunView>> Cancel(Guid runId, TensarchDb db, StudioClock clock, CancellationToken ct)
    {
        var row = await db.RosterRuns.SingleAsync(r => r.Id == runId, ct);
        if (row.EndedAt is null)
            row.CancelledAt ??= clock.Now;
        await db.SaveChangesAsync(ct);
        return TypedResults.Ok(await View(row, db, ct));
    }
}
