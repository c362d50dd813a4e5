using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;

namespace Tensarch.Server.Skills;

/// <summary>Writes down what a coach sees at a gate: form, a way out, tested holds and counts.</summary>
public sealed class EvidenceDesk(TensarchDb db, CatalogueContent catalogue, StudioClock clock, StudioScope scope)
{
    private static IEnumerable<FormItem> ItemsOf(ReadinessTest test) =>
        test switch
        {
            FormCriterion t => t.Items,
            RomCriterion { Adaptation: { } adaptation } => [adaptation],
            _ => [],
        };

    private bool MayBeTried(ReadinessTest test, Ladder ladder, int stage, Standing standing) =>
        new Gate(catalogue).MayBeTried(test, ladder, stage, standing.Bars, standing.State.Facts.Person.Body.BreathSeconds);

    private Problem Barred(object row)
    {
        db.Entry(row).State = EntityState.Detached;
        return Problem.Of("offLimits", "skill");
    }

    public async Task<Result<Appended>> TickForm(Standing standing, Ladder ladder, FormCheckRequest request, CancellationToken ct)
    {
        var studentId = standing.Student.Id;
        if (Seen(ladder, request.Stage, request.Side) is { } problem)
            return problem;
        var tests = ladder.GateOf(request.Stage);
        var form = tests.OfType<FormCriterion>().SelectMany(f => f.Items).ToList();
        var known = tests.SelectMany(ItemsOf).Select(i => i.Key).ToList();
        if (known.Count == 0)
            return Problem.Of("noFormHere", "stage");
        if (request.Ticked.Any(t => !known.Contains(t)) || form.Count == 0 && request.Ticked.Count == 0)
            return Problem.Of("unknownItem", "ticked");
        var row = new FormCheckRow
        {
            Id = request.Id,
            StudentId = studentId,
            Skill = ladder.Skill,
            Stage = request.Stage,
            Side = request.Side,
            Ticked = [.. request.Ticked],
            At = clock.Now,
            By = scope.UserId,
        };
        var shown = tests.Where(t => ItemsOf(t).Any(i => request.Ticked.Contains(i.Key)));
        var appended = await db.FormChecks.AddFact(row, new { studentId, request }, ct);
        return appended == Appended.Stored && shown.Any(t => !MayBeTried(t, ladder, request.Stage, standing))
            ? Barred(row)
            : await db.SaveFact(appended, ct);
    }

    public async Task<Result<Appended>> ShowExit(Standing standing, Ladder ladder, ExitCheckRequest request, CancellationToken ct)
    {
        var studentId = standing.Student.Id;
        var stage = request.Stage >= 1 && request.Stage <= ladder.Stages.Count ? ladder.StageAt(request.Stage) : null;
        if (stage is null || ExitOf(ladder.GateOf(stage.Number), request) is not var (exit, way))
            return Problem.Of("noExitHere", "stage");
        if (!exit.Limb.ReadFor(null).Contains(request.Side) && !(ladder.PerSide && request.Side is not null))
            return Problem.Of("coursesDoNotFit", "side");
        if (request.Safe > request.Of)
            return Problem.Of("successesOutOfRange", "safe", ("value", request.Safe), ("max", request.Of));
        var row = new ExitCheckRow
        {
            Id = request.Id,
            StudentId = studentId,
            Skill = ladder.Skill,
            Stage = request.Stage,
            Side = request.Side,
            Drill = way.Drill,
            Variant = way.Variant,
            Safe = request.Safe,
            Of = request.Of,
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.ExitChecks.AddFact(row, new { studentId, request }, ct);
        return
            appended == Appended.Stored
            && !MayBeTried(exit with { Drill = way.Drill, Variant = way.Variant, Or = null }, ladder, request.Stage, standing)
            ? Barred(row)
            : await db.SaveFact(appended, ct);
    }

    /// <summary>The way out that is named; the gate's first where none is.</summary>
    private static (ExitCriterion, ExitWay)? ExitOf(IEnumerable<ReadinessTest> gate, ExitCheckRequest request) =>
        (
            from exit in gate.OfType<ExitCriterion>()
            from way in exit.Ways
            where request.Drill is null || (way.Drill, way.Variant) == (request.Drill, request.Variant)
            select ((ExitCriterion, ExitWay)?)(exit, way)
        ).FirstOrDefault();

    public async Task<Result<Appended>> AddBenchSet(Standing standing, BenchSetRequest request, CancellationToken ct)
    {
        var studentId = standing.Student.Id;
        var problems = new List<Problem>();
        var at = request.At ?? clock.Now;
        if (catalogue.FindDrill(request.Drill)?.Variants.Any(v => v.Key == request.Variant) != true)
            problems.Add(Problem.Of("unknownDrill", "drill"));
        if (request.Seconds is null && request.CleanReps is null)
            problems.Add(Problem.Of("required", "seconds"));
        if (problems.Count > 0)
            return problems;
        var row = new SetRow
        {
            Id = request.Id,
            StudentId = studentId,
            Drill = catalogue.Drill(request.Drill).Key,
            Variant = request.Variant,
            Side = request.Side,
            Seconds = request.Seconds,
            CleanReps = request.CleanReps,
            Quality = request.Quality,
            At = at,
            Day = clock.DayOf(at),
            By = scope.UserId,
        };
        var appended = await db.Sets.AddFact(row, new { studentId, request }, ct);
        // What was done before is a fact; what is barred is not done now.
        return
            appended == Appended.Stored
            && clock.IsLive(request.At)
            && !catalogue.Drill(request.Drill).MayBeDone(request.Variant, standing.Bars, standing.State.Facts.Person.Body.BreathSeconds)
            ? Barred(row)
            : await db.SaveFact(appended, ct);
    }

    private static Problem? Seen(Ladder ladder, int stage, Side? side) =>
        stage < 1 || stage > ladder.Stages.Count ? Problem.Of("noFormHere", "stage")
        : ladder.Courses.Contains(side) ? null
        : Problem.Of("coursesDoNotFit", "side");
}
