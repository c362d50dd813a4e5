using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;

namespace Tensarch.Server.Skills;

/// <summary>Writes down placings, decisions, form checks and tested holds. The demo's simulator goes through here as the screens do.</summary>
public sealed class SkillDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    public static readonly JsonSerializerOptions Json = CoreJson.Apply(new(JsonSerializerDefaults.Web));

    private readonly Gate gate = new(catalogue);

    public async Task<Result<Appended>> Start(Standing standing, SkillStart request, CancellationToken ct)
    {
        var problems = new List<Problem>();
        var ladder = catalogue.NewestLadder(request.Ladder);
        if (ladder is null)
            return Problem.Of("unknownLadder", "ladder");
        if (catalogue.FindApproach(request.Approach) is null)
            problems.Add(Problem.Of("unknownApproach", "approach"));
        foreach (var (stage, field) in new[] { (request.LeftStage, "leftStage"), (request.RightStage, "rightStage") })
            if (stage < 1 || stage > ladder.Stages.Count)
                problems.Add(Problem.Of("outOfRange", field, ("value", stage), ("min", 1), ("max", ladder.Stages.Count)));
        if (problems.Count > 0)
            return problems;
        if (standing.Skill is { } on)
            return on.Id == request.Id ? await Again(request, ct) : Problem.Of("alreadyOnLadder", "ladder");

        db.Skills.Add(
            new()
            {
                Id = request.Id,
                StudentId = standing.Student.Id,
                Ladder = ladder.Key,
                LadderVersion = ladder.Version,
                Approach = request.Approach,
                StartedAt = clock.Now,
            }
        );
        Place(Side.Left, request.LeftDecisionId, request.LeftStage);
        Place(Side.Right, request.RightDecisionId, request.RightStage);
        return await db.SaveFact(Appended.Stored, ct);

        void Place(Side side, Guid id, int stage)
        {
            var verdict = gate.Judge(ladder, side, stage, stage, standing.Evidence);
            db.Decisions.Add(Row(id, standing, ladder.Key, side, DecisionKind.Place, 0, stage, null, verdict, request));
        }
    }

    /// <summary>The same start again: the placing that it made carries the hash of its body.</summary>
    private async Task<Appended> Again(SkillStart request, CancellationToken ct)
    {
        var hash = Facts.Hash(request);
        return await db.Decisions.AnyAsync(d => d.Id == request.LeftDecisionId && d.BodyHash == hash, ct)
            ? Appended.SameAgain
            : Appended.Clash;
    }

    public async Task<Result<Appended>> Decide(Standing standing, DecisionRequest request, CancellationToken ct)
    {
        var verdict = standing.Judge(gate, request.Side);
        var body = new { standing.Student.Id, request };
        var row = Row(
            request.Id,
            standing,
            standing.Ladder!.Key,
            request.Side,
            request.Kind,
            verdict.Stage,
            verdict.Stage,
            request.Reason?.Trim(),
            verdict,
            body
        );
        var known = await db.Decisions.AddFact(row, body, ct);
        if (known != Appended.Stored)
            return known;
        db.Entry(row).State = EntityState.Detached;
        if (request.FromStage != verdict.Stage)
            return Problem.Of("stageMoved", "fromStage", ("stage", verdict.Stage));
        var decided = Decision.Take(request.Kind, verdict, request.Reason);
        if (!decided.IsOk)
            return decided.Problems.ToList();
        row.ToStage = decided.Value;
        db.Decisions.Add(row);
        return await db.SaveFact(Appended.Stored, ct);
    }

    public async Task<Result<Appended>> TickForm(Standing standing, FormCheckRequest request, CancellationToken ct)
    {
        var form =
            request.Stage >= 1 && request.Stage <= standing.Ladder!.Stages.Count
                ? standing.Ladder.StageAt(request.Stage).Tests.OfType<FormCriterion>().FirstOrDefault()
                : null;
        if (form is null)
            return Problem.Of("noFormHere", "stage");
        if (request.Ticked.Any(t => form.Items.All(i => i.Key != t)))
            return Problem.Of("unknownItem", "ticked");
        var row = new FormCheckRow
        {
            Id = request.Id,
            StudentId = standing.Student.Id,
            Ladder = standing.Ladder!.Key,
            Stage = request.Stage,
            Side = request.Side,
            Ticked = [.. request.Ticked],
            At = clock.Now,
            By = scope.UserId,
        };
        return await db.SaveFact(await db.FormChecks.AddFact(row, new { standing.Student.Id, request }, ct), ct);
    }

    public async Task<Result<Appended>> AddBenchSet(Guid studentId, BenchSetRequest request, CancellationToken ct)
    {
        var problems = new List<Problem>();
        var at = request.At ?? clock.Now;
        if (catalogue.FindDrill(request.Drill)?.Variants.Any(v => v.Key == request.Variant) != true)
            problems.Add(Problem.Of("unknownDrill", "drill"));
        if (request.Seconds is null && request.CleanReps is null)
            problems.Add(Problem.Of("required", "seconds"));
        if (request.Seconds is { } s && !(s >= 0 && s <= 600))
            problems.Add(Problem.Of("outOfRange", "seconds", ("value", s), ("min", 0), ("max", 600)));
        if (request.CleanReps is < 0 or > 200)
            problems.Add(Problem.Of("outOfRange", "cleanReps", ("min", 0), ("max", 200)));
        if (request.Quality is < 1 or > 5)
            problems.Add(Problem.Of("outOfRange", "quality", ("min", 1), ("max", 5)));
        if (at > clock.Now)
            problems.Add(Problem.Of("dateInFuture", "at"));
        if (problems.Count > 0)
            return problems;
        var row = new SetRow
        {
            Id = request.Id,
            StudentId = studentId,
            Drill = request.Drill,
            Variant = request.Variant,
            Side = request.Side,
            Seconds = request.Seconds,
            CleanReps = request.CleanReps,
            Quality = request.Quality,
            At = at,
            Day = clock.DayOf(at),
            By = scope.UserId,
        };
        return await db.SaveFact(await db.Sets.AddFact(row, new { studentId, request }, ct), ct);
    }

    private DecisionRow Row<TBody>(
        Guid id,
        Standing standing,
        string ladder,
        Side side,
        DecisionKind kind,
        int from,
        int to,
        string? reason,
        GateVerdict verdict,
        TBody body
    ) =>
        new()
        {
            Id = id,
            StudentId = standing.Student.Id,
            Ladder = ladder,
            Side = side,
            Kind = kind,
            FromStage = from,
            ToStage = to,
            Reason = string.IsNullOrEmpty(reason) ? null : reason,
            EvidenceJson = JsonSerializer.Serialize(
                new DecisionEvidence(verdict.State, standing.Student.SplitStandard, verdict.Tests),
                Json
            ),
            At = clock.Now,
            By = scope.UserId,
            BodyHash = Facts.Hash(body),
        };
}
