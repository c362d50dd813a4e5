using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Programmes;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Programmes;

public static class ProgrammeEndpoints
{
    private const int MostVersions = 50;

    public static void MapProgrammes(this IEndpointRouteBuilder api)
    {
        var programme = api.MapGroup("/students/{studentId}/programme").WithTags("Programmes");
        programme.MapGet("/", Page);
        programme.MapPost("/", Plan).Produces<PlanView>(201).Produces<PlanView>();
        programme.MapPost("/try", Try);
        programme.MapPost("/room", MoreRoom);
        programme.MapPost("/edits", Edit).Produces<PlanView>(201).Produces<PlanView>();
        programme.MapPost("/edits/try", TryEdit).WithMetadata(new ReadsOnly());
        programme.MapPost("/end", End);
        programme.MapGet("/versions", Versions);
        programme.MapGet("/versions/{number:int}", Version);
    }

    private static async Task<Ok<ProgrammePage>> Page(
        Guid studentId,
        ProgrammeDesk desk,
        PlanViewer viewer,
        Standings standings,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        var current = await desk.Current(studentId, ct);
        var today = viewer.Today;
        return TypedResults.Ok(
            new ProgrammePage(
                ProgrammeSuggestion.Of(standing, today),
                [.. standing.State.Courses.Select(c => c.Skill)],
                current is null ? null : await viewer.Standing(desk.WithLoadsNow(standing, current), standing, ct),
                current is null ? [] : [.. ProgrammeViews.News(standing, current, desk.Judge(standing, current), today)]
            )
        );
    }

    private static async Task<Results<Ok<PlanView>, ProblemHttpResult>> Try(
        Guid studentId,
        ProgrammeSketch sketch,
        ProgrammeDesk desk,
        PlanViewer viewer,
        Standings standings,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        var current = await desk.Current(studentId, ct);
        var made = await desk.Make(standing, sketch, current, ct);
        return made.IsOk
            ? TypedResults.Ok(viewer.Tried(standing, sketch, made.Value, current, current is null ? [] : desk.Judge(standing, current)))
            : Problems.Unprocessable(made.Problems);
    }

    /// <summary>How many minutes or days more would fit what does not.</summary>
    private static async Task<Results<Ok<Room>, ProblemHttpResult>> MoreRoom(
        Guid studentId,
        ProgrammeSketch sketch,
        ProgrammeDesk desk,
        Standings standings,
        CancellationToken ct
    )
    {
        var found = await desk.Room((await standings.Of(studentId, ct))!, sketch, await desk.Current(studentId, ct), ct);
        return found.IsOk ? TypedResults.Ok(found.Value) : Problems.Unprocessable(found.Problems);
    }

    private static async Task<IResult> Plan(
        Guid studentId,
        PlanProgramme request,
        ProgrammeDesk desk,
        PlanViewer viewer,
        Standings standings,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        return await Answer(await desk.Keep(standing, request, ct), standing, desk, viewer, ct);
    }

    private static async Task<IResult> Edit(
        Guid studentId,
        KeepPlanEdit request,
        ProgrammeDesk desk,
        PlanViewer viewer,
        Standings standings,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        return await Answer(await desk.Keep(standing, request, ct), standing, desk, viewer, ct);
    }

    private static async Task<IResult> Answer(
        Result<(PlanRow Row, Appended Appended)> kept,
        Standing standing,
        ProgrammeDesk desk,
        PlanViewer viewer,
        CancellationToken ct
    )
    {
        if (!kept.IsOk)
            return kept.Problems[0].Code == "changedMeanwhile"
                ? Problems.Of(412, "changedMeanwhile", [.. kept.Problems])
                : Problems.Unprocessable(kept.Problems);
        if (kept.Value.Appended == Appended.Clash || await desk.Read(kept.Value.Row, ct) is not { } current)
            return Problems.IdTaken();
        return Problems.Respond(
            kept.Value.Appended,
            $"/api/v1/students/{current.Row.StudentId}/programme/versions/{current.Row.Number}",
            await viewer.Standing(desk.WithLoadsNow(standing, current), standing, ct)
        );
    }

    private static async Task<Results<Ok<PlanEditVerdict>, ProblemHttpResult>> TryEdit(
        Guid studentId,
        TryPlanEdit request,
        ProgrammeDesk desk,
        Standings standings,
        CancellationToken ct
    )
    {
        var tried = await desk.Try((await standings.Of(studentId, ct))!, request.Edit, ct);
        return tried.IsOk ? TypedResults.Ok(new PlanEditVerdict(tried.Value)) : Problems.Unprocessable(tried.Problems);
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> End(Guid studentId, ProgrammeDesk desk, CancellationToken ct) =>
        await desk.End(studentId, ct) ? TypedResults.NoContent() : Problems.NotFound();

    private static async Task<Ok<List<PlanVersionLine>>> Versions(Guid studentId, TensarchDb db, CancellationToken ct) =>
        TypedResults.Ok(
            await (
                from plan in db.Plans
                where plan.StudentId == studentId
                orderby plan.Number descending
                select new PlanVersionLine(
                    plan.Number,
                    plan.At,
                    db.Users.Where(u => u.Id == plan.By).Select(u => u.DisplayName).FirstOrDefault() ?? "",
                    plan.Why
                )
            )
                .Take(MostVersions)
                .ToListAsync(ct)
        );

    /// <summary>A version that was, as it was; what changed is told against the one before it.</summary>
    private static async Task<Results<Ok<PlanView>, ProblemHttpResult>> Version(
        Guid studentId,
        int number,
        ProgrammeDesk desk,
        PlanViewer viewer,
        TensarchDb db,
        CancellationToken ct
    )
    {
        var rows = await db
            .Plans.AsNoTracking()
            .Where(p => p.StudentId == studentId && (p.Number == number || p.Number == number - 1))
            .ToListAsync(ct);
        if (rows.FirstOrDefault(p => p.Number == number) is not { } row)
            return Problems.NotFound();
        return await desk.ReadThen(row, ct) is { } asked
            ? TypedResults.Ok(await viewer.Version(asked, await desk.ReadThen(rows.FirstOrDefault(p => p.Number == number - 1), ct), ct))
            : Problems.Of(409, "planUnreadable");
    }
}
