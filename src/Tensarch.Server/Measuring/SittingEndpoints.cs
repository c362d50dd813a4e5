using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Measuring;

public static class SittingEndpoints
{
    public static void MapSittings(this IEndpointRouteBuilder api)
    {
        api.MapGet("/students/{studentId}/bench", Bench).WithTags("Measuring");
        var sittings = api.MapGroup("/students/{studentId}/sittings").WithTags("Measuring");
        sittings.MapPost("/", Start).Produces<SittingView>(201).Produces<SittingView>();
        sittings.MapGet("/{sittingId}", Read);
        sittings.MapPut("/{sittingId}/drafts/{slot}", Keep);
        sittings.MapPost("/{sittingId}/end", End);
    }

    private static async Task<Ok<BenchResponse>> Bench(
        Guid studentId,
        Standings standings,
        SittingDesk desk,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        return TypedResults.Ok(
            new BenchResponse(
                studentId,
                standing.Screened,
                standing.State.Courses.Count > 0,
                desk.Offer(standing, "needs", null, desk.Needs(standing)),
                [.. catalogue.Batteries.Select(b => desk.Offer(standing, b.Key, b.Name, desk.ItemsOf(b.Measures)))],
                desk.Barred(catalogue.Measures.Select(m => m.Key), standing.Bars),
                await desk.Open(studentId, ct)
            )
        );
    }

    private static async Task<IResult> Start(
        Guid studentId,
        SittingRequest request,
        SittingDesk desk,
        SittingViews views,
        Standings standings,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        var started = await desk.Start(standing, request, ct);
        if (!started.IsOk)
            return Problems.Unprocessable(started.Problems);
        var (row, appended) = started.Value;
        return appended == Appended.Clash
            ? Problems.IdTaken()
            : Problems.Respond(appended, $"/api/v1/students/{studentId}/sittings/{row.Id}", await views.View(row, standing, ct));
    }

    private static async Task<Ok<SittingView>> Read(
        Guid studentId,
        Guid sittingId,
        TensarchDb db,
        SittingViews views,
        Standings standings,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        var row = await db.Sittings.AsNoTracking().SingleAsync(s => s.Id == sittingId, ct);
        return TypedResults.Ok(await views.View(row, standing, ct));
    }

    private static async Task<Results<Ok<DraftStored>, ProblemHttpResult>> Keep(
        Guid studentId,
        Guid sittingId,
        string slot,
        DraftRequest request,
        SittingDesk desk,
        CancellationToken ct
    )
    {
        var kept = await desk.Keep(sittingId, slot, request, ct);
        if (kept.IsOk)
            return TypedResults.Ok(new DraftStored(kept.Value));
        return kept.Problems[0].Code == "changedMeanwhile"
            ? Problems.Of(412, "changedMeanwhile", [.. kept.Problems])
            : Problems.Unprocessable(kept.Problems);
    }

    private static async Task<NoContent> End(Guid studentId, Guid sittingId, SittingDesk desk, CancellationToken ct)
    {
        await desk.End(sittingId, ct);
        return TypedResults.NoContent();
    }
}
