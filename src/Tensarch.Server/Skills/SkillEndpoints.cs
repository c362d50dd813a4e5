using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Skills;

/// <summary>The skills of one student: placing, the page of a skill, decisions and what a coach sees at a gate.</summary>
public static class SkillEndpoints
{
    private const int DecisionsPage = 50;

    public static void MapSkills(this IEndpointRouteBuilder api)
    {
        var skills = api.MapGroup("/students/{studentId}/skills").WithTags("Skills");
        skills.MapPost("/", Start);
        skills.MapGet("/{skill}", Read);
        skills.MapGet("/{skill}/placement", Placement);
        skills.MapPost("/{skill}/decisions", Decide);
        skills.MapPost("/{skill}/move", Move);
        skills.MapPost("/{skill}/form-checks", TickForm);
        skills.MapPost("/{skill}/exit-checks", ShowExit);
        skills.MapPost("/{skill}/bench-sets", AddBenchSet);
        api.MapGet("/students/{studentId}/decisions", Decisions).WithTags("Skills");
        api.MapBoard();
        api.MapLadders();
        api.MapPolicy();
    }

    private static async Task<IResult> Start(Guid studentId, SkillStart request, SkillDesk desk, Standings standings, CancellationToken ct)
    {
        var standing = await standings.Of(studentId, ct);
        var result = await desk.Start(standing!, request, ct);
        return result.IsOk
            ? Problems.Respond(result.Value, $"/api/v1/students/{studentId}/skills/{request.Skill}", new { request.Id })
            : Problems.Unprocessable(result.Problems);
    }

    private static async Task<Results<Ok<SkillPage>, ProblemHttpResult>> Read(
        Guid studentId,
        string skill,
        Standings standings,
        CatalogueContent catalogue,
        TensarchDb db,
        CancellationToken ct
    )
    {
        if ((await standings.Of(studentId, ct))!.State.On(skill) is not { } on)
            return Problems.Of(404, "notOnLadder");
        var newest =
            catalogue.NewestLadder(on.Ladder.Key)?.Version
            ?? await db.OwnLadders.Where(l => l.LadderKey == on.Ladder.Key).MaxAsync(l => (int?)l.Version, ct)
            ?? on.Ladder.Version;
        return TypedResults.Ok(Page(on, newest, catalogue));
    }

    private static SkillPage Page(Course skill, int newest, CatalogueContent catalogue)
    {
        var (gate, stepBack, readiness, ladder) = (new Gate(catalogue), new StepBack(catalogue), new Readiness(catalogue), skill.Ladder);
        var verdicts = skill.Judge(gate);
        return new(
            skill.Skill,
            ladder,
            newest,
            skill.Enrolment.Approach,
            skill.Evidence.Standard,
            skill.Enrolment.StartedAt,
            Arch.Of(ladder, verdicts),
            [.. verdicts.Select(v => SideOf(v, skill, stepBack, readiness))],
            skill.Compare(catalogue),
            [
                .. from stage in ladder.Stages
                from side in ladder.Courses
                select new StageTests(stage.Number, side, gate.JudgeStage(ladder, stage.Number, side, skill.Evidence)),
            ]
        );
    }

    private static SideGate SideOf(GateVerdict verdict, Course skill, StepBack stepBack, Readiness readiness)
    {
        var plateau = readiness.PlateauOf(verdict, skill.Evidence);
        var entered = skill.Evidence.EnteredAt(verdict.Side, verdict.Stage);
        return new(
            verdict.Side,
            verdict.Stage,
            verdict.State,
            Readiness.GroupOf(verdict, plateau),
            verdict.Reason,
            verdict.MetCount,
            verdict.NearestMiss,
            verdict.Next,
            verdict.Tests,
            stepBack.For(skill.Ladder, verdict.Side, verdict.Stage, skill.Evidence),
            plateau,
            entered == DateTimeOffset.MinValue ? null : entered
        );
    }

    private static async Task<Results<Ok<PlacementResponse>, ProblemHttpResult>> Placement(
        Guid studentId,
        string skill,
        Standings standings,
        StudioLadders ladders,
        CatalogueContent catalogue,
        CancellationToken ct,
        string? ladderKey = null,
        int? version = null
    )
    {
        var ladder = ladderKey is null ? catalogue.NewestLadder(skill) : await ladders.Find(ladderKey, version ?? 1, ct);
        if (ladder is null || ladder.Skill != skill)
            return Problems.NotFound();
        var evidence = (await standings.Of(studentId, ct, ladder))!.State.For(ladder);
        var placing = new Placing(new Gate(catalogue));
        return TypedResults.Ok(new PlacementResponse(ladder, [.. ladder.Courses.Select(side => placing.Suggest(ladder, side, evidence))]));
    }

    /// <summary>Every decision about a student, newest first, with what the gates said on that day.</summary>
    private static async Task<Ok<DecisionsResponse>> Decisions(
        Guid studentId,
        TensarchDb db,
        CancellationToken ct,
        string? skill = null,
        string? before = null
    )
    {
        var query = db.Decisions.AsNoTracking().Where(d => d.StudentId == studentId && (skill == null || d.Skill == skill));
        if (Cursor.Parse(before) is { } last)
            query = query.Where(d => d.At < last.At || (d.At == last.At && d.Id < last.Id));
        var rows = await (
            from decision in query.OrderByDescending(d => d.At).ThenByDescending(d => d.Id).Take(DecisionsPage + 1)
            join user in db.Users on decision.By equals user.Id into who
            from user in who.DefaultIfEmpty()
            orderby decision.At descending, decision.Id descending
            select new { decision, DisplayName = user == null ? "" : user.DisplayName }
        ).ToListAsync(ct);
        return TypedResults.Ok(
            new DecisionsResponse(
                [
                    .. rows.Take(DecisionsPage)
                        .Select(r => new DecisionView(
                            r.decision.Id,
                            r.decision.Skill,
                            r.decision.Side,
                            r.decision.Kind,
                            r.decision.FromStage,
                            r.decision.ToStage,
                            r.decision.Reason,
                            r.decision.At,
                            r.DisplayName,
                            StoredJson.TryRead<DecisionEvidence>(r.decision.EvidenceJson)
                        )),
                ],
                rows.Count > DecisionsPage
                    ? new Cursor(rows[DecisionsPage - 1].decision.At, rows[DecisionsPage - 1].decision.Id).ToString()
                    : null
            )
        );
    }

    private static Task<IResult> Decide(
        Guid studentId,
        string skill,
        DecisionRequest request,
        SkillDesk desk,
        Standings standings,
        CancellationToken ct
    ) => OnLadder(studentId, skill, standings, (standing, on) => desk.Decide(standing, on, request, ct), request.Id, ct);

    private static Task<IResult> Move(
        Guid studentId,
        string skill,
        SkillMove request,
        SkillDesk desk,
        Standings standings,
        CancellationToken ct
    ) => OnLadder(studentId, skill, standings, (standing, on) => desk.Move(standing, on, request, ct), studentId, ct);

    private static Task<IResult> TickForm(
        Guid studentId,
        string skill,
        FormCheckRequest request,
        EvidenceDesk desk,
        Standings standings,
        CatalogueContent catalogue,
        CancellationToken ct
    ) => Seen(studentId, skill, standings, catalogue, (standing, ladder) => desk.TickForm(standing, ladder, request, ct), request.Id, ct);

    private static Task<IResult> ShowExit(
        Guid studentId,
        string skill,
        ExitCheckRequest request,
        EvidenceDesk desk,
        Standings standings,
        CatalogueContent catalogue,
        CancellationToken ct
    ) => Seen(studentId, skill, standings, catalogue, (standing, ladder) => desk.ShowExit(standing, ladder, request, ct), request.Id, ct);

    private static Task<IResult> AddBenchSet(
        Guid studentId,
        string skill,
        BenchSetRequest request,
        EvidenceDesk desk,
        Standings standings,
        CatalogueContent catalogue,
        CancellationToken ct
    ) => Seen(studentId, skill, standings, catalogue, (standing, _) => desk.AddBenchSet(standing, request, ct), request.Id, ct);

    /// <summary>What a coach sees is written down under the ladder that is followed; before a student is put on one, under the newest shipped.</summary>
    private static async Task<IResult> Seen(
        Guid studentId,
        string skill,
        Standings standings,
        CatalogueContent catalogue,
        Func<Standing, Ladder, Task<Result<Appended>>> append,
        Guid id,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        if ((standing.State.On(skill)?.Ladder ?? catalogue.NewestLadder(skill)) is not { } ladder)
            return Problems.Of(404, "notOnLadder");
        return Kept(studentId, skill, await append(standing, ladder), id);
    }

    private static async Task<IResult> OnLadder(
        Guid studentId,
        string skill,
        Standings standings,
        Func<Standing, Course, Task<Result<Appended>>> append,
        Guid id,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, ct))!;
        if (standing.State.On(skill) is not { } on)
            return Problems.Of(404, "notOnLadder");
        return Kept(studentId, skill, await append(standing, on), id);
    }

    private static IResult Kept(Guid studentId, string skill, Result<Appended> result, Guid id) =>
        result.IsOk
            ? Problems.Respond(result.Value, $"/api/v1/students/{studentId}/skills/{skill}", new { Id = id })
            : Problems.Unprocessable(result.Problems);
}

public sealed record DecisionsResponse(IReadOnlyList<DecisionView> Decisions, string? Next);
