using System.Text.Json;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Skills;

public static class SkillEndpoints
{
    /// <summary>The ladder that the roster and the readiness list show.</summary>
    public const string FrontSplit = "front-split";
    private const int PageSize = 40;

    public static void MapSkills(this IEndpointRouteBuilder api)
    {
        var skills = api.MapGroup("/students/{studentId}/skills").WithTags("Skills");
        skills.MapPost("/", Start);
        skills.MapGet("/{ladder}", Read);
        skills.MapGet("/{ladder}/placement", Placement);
        skills.MapGet("/{ladder}/decisions", Decisions);
        skills.MapPost("/{ladder}/decisions", Decide);
        skills.MapPost("/{ladder}/form-checks", TickForm);
        skills.MapPost("/{ladder}/bench-sets", AddBenchSet);
        api.MapGet("/readiness", Readiness).WithTags("Skills");
    }

    private static async Task<IResult> Start(Guid studentId, SkillStart request, SkillDesk desk, Standings standings, CancellationToken ct)
    {
        var standing = await standings.Of(studentId, request.Ladder, ct);
        var result = await desk.Start(standing!, request, ct);
        return result.IsOk
            ? Problems.Respond(result.Value, $"/api/v1/students/{studentId}/skills/{request.Ladder}", new { request.Id })
            : Problems.Unprocessable(result.Problems);
    }

    private static async Task<Results<Ok<SkillPage>, ProblemHttpResult>> Read(
        Guid studentId,
        string ladder,
        Standings standings,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        if (await standings.Of(studentId, ladder, ct) is not { Ladder: not null } standing)
            return Problems.Of(404, "notOnLadder");
        return TypedResults.Ok(Page(standing, catalogue));
    }

    private static SkillPage Page(Standing standing, CatalogueContent catalogue)
    {
        var (gate, stepBack, ladder) = (new Gate(catalogue), new StepBack(catalogue), standing.Ladder!);
        var verdicts = SideExtensions.Both.Select(s => standing.Judge(gate, s)).ToList();
        var (measure, asymmetry) = standing.Compare(catalogue);
        return new(
            ladder.Key,
            ladder.Version,
            standing.Skill!.Approach,
            standing.Student.SplitStandard,
            standing.Skill.StartedAt,
            Arch.Of(ladder, verdicts[0], verdicts[1]),
            [
                .. verdicts.Select(v => new SideGate(
                    v.Side,
                    v.Stage,
                    v.State,
                    v.Reason,
                    v.MetCount,
                    v.NearestMiss,
                    v.Next,
                    v.Tests,
                    stepBack.For(ladder, v.Side, v.Stage, standing.Evidence),
                    standing.Evidence.Decisions.LastOrDefault(d => d.Side == v.Side && d.ToStage == v.Stage && d.FromStage != v.Stage)?.At
                )),
            ],
            new(measure, asymmetry?.Change.Difference, asymmetry?.Change.Mdc95, asymmetry?.Weaker),
            [
                .. from stage in ladder.Stages
                from side in SideExtensions.Both
                select new StageTests(
                    stage.Number,
                    side,
                    [.. ladder.GateOf(stage.Number).Select(t => gate.JudgeTest(t, ladder, stage.Number, side, standing.Evidence))]
                ),
            ]
        );
    }

    private static async Task<Results<Ok<PlacementResponse>, ProblemHttpResult>> Placement(
        Guid studentId,
        string ladder,
        Standings standings,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        if (catalogue.NewestLadder(ladder) is not { } newest || await standings.Of(studentId, ladder, ct) is not { } standing)
            return Problems.NotFound();
        var gate = new Gate(catalogue);
        var placing = new Placing(gate);
        return TypedResults.Ok(
            new PlacementResponse([
                .. SideExtensions.Both.Select(side =>
                {
                    var stage = placing.Suggest(newest, side, standing.Evidence);
                    var tests = newest.GateOf(stage).Select(t => gate.JudgeTest(t, newest, stage, side, standing.Evidence));
                    return new PlacementSide(
                        side,
                        stage,
                        [.. tests.Where(t => t.Outcome != Outcome.Met && t.Test is not (ExposureCriterion or PainCriterion))]
                    );
                }),
            ])
        );
    }

    private static async Task<Ok<List<DecisionView>>> Decisions(Guid studentId, string ladder, TensarchDb db, CancellationToken ct)
    {
        var rows = await (
            from decision in db.Decisions.AsNoTracking()
            where decision.StudentId == studentId && decision.Ladder == ladder
            join user in db.Users on decision.By equals user.Id
            orderby decision.At descending
            select new { decision, user.DisplayName }
        ).ToListAsync(ct);
        return TypedResults.Ok(
            rows.Select(r => new DecisionView(
                    r.decision.Id,
                    r.decision.Side,
                    r.decision.Kind,
                    r.decision.FromStage,
                    r.decision.ToStage,
                    r.decision.Reason,
                    r.decision.At,
                    r.DisplayName,
                    JsonSerializer.Deserialize<DecisionEvidence>(r.decision.EvidenceJson, SkillDesk.Json)
                ))
                .ToList()
        );
    }

    private static Task<IResult> Decide(
        Guid studentId,
        string ladder,
        DecisionRequest request,
        SkillDesk desk,
        Standings standings,
        CancellationToken ct
    ) => OnLadder(studentId, ladder, standings, standing => desk.Decide(standing, request, ct), request.Id, ct);

    private static Task<IResult> TickForm(
        Guid studentId,
        string ladder,
        FormCheckRequest request,
        SkillDesk desk,
        Standings standings,
        CancellationToken ct
    ) => OnLadder(studentId, ladder, standings, standing => desk.TickForm(standing, request, ct), request.Id, ct);

    private static Task<IResult> AddBenchSet(
        Guid studentId,
        string ladder,
        BenchSetRequest request,
        SkillDesk desk,
        Standings standings,
        CancellationToken ct
    ) => OnLadder(studentId, ladder, standings, standing => desk.AddBenchSet(standing.Student.Id, request, ct), request.Id, ct);

    private static async Task<IResult> OnLadder(
        Guid studentId,
        string ladder,
        Standings standings,
        Func<Standing, Task<Result<Appended>>> append,
        Guid id,
        CancellationToken ct
    )
    {
        if (await standings.Of(studentId, ladder, ct) is not { Ladder: not null } standing)
            return Problems.Of(404, "notOnLadder");
        var result = await append(standing);
        return result.IsOk
            ? Problems.Respond(result.Value, $"/api/v1/students/{studentId}/skills/{ladder}", new { Id = id })
            : Problems.Unprocessable(result.Problems);
    }

    /// <summary>Every gate of the studio, a page of students at a time.</summary>
    private static async Task<Ok<ReadinessResponse>> Readiness(
        TensarchDb db,
        Standings standings,
        CatalogueContent catalogue,
        CancellationToken ct,
        Guid? after = null
    )
    {
        var rows = await db
            .Students.AsNoTracking()
            .Where(s => s.ArchivedAt == null && (after == null || s.Id > after))
            .Where(s => db.Skills.Any(k => k.StudentId == s.Id && k.Ladder == FrontSplit))
            .OrderBy(s => s.Id)
            .Take(PageSize + 1)
            .ToListAsync(ct);
        var page = rows.Take(PageSize).ToList();
        var gate = new Gate(catalogue);
        var lines =
            from standing in await standings.Of(page, FrontSplit, ct)
            from side in SideExtensions.Both
            let verdict = standing.Judge(gate, side)
            orderby verdict.State, standing.Student.Name
            select new ReadinessLine(standing.Student.Id, standing.Student.Name, SideSummary.Of(standing.Ladder!, verdict));
        return TypedResults.Ok(new ReadinessResponse([.. lines], rows.Count > PageSize ? page[^1].Id.ToString() : null));
    }
}
