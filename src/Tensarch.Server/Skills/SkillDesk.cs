using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;

namespace Tensarch.Server.Skills;

/// <summary>Writes down placings, moves and decisions. The demo's simulator goes through here as the screens do.</summary>
public sealed class SkillDesk(TensarchDb db, CatalogueContent catalogue, StudioLadders ladders, StudioClock clock, StudioScope scope)
{
    private readonly Gate gate = new(catalogue);

    public async Task<Result<Appended>> Start(Standing standing, SkillStart request, CancellationToken ct)
    {
        if (catalogue.NewestLadder(request.Skill) is not { } shipped)
            return Problem.Of("unknownLadder", "skill");
        var ladder = request.LadderKey is { } key ? await ladders.Find(key, request.LadderVersion ?? 1, ct) : shipped;
        if (ladder is null || ladder.Skill != shipped.Key)
            return Problem.Of("unknownLadder", "ladderKey");
        if (standing.State.On(shipped.Key) is { } on)
            return on.Enrolment.Id == request.Id ? await Again(request, ct) : Problem.Of("alreadyOnLadder", "skill");

        var evidence = standing.State.For(ladder);
        var problems = CheckStart(request, ladder, evidence);
        if (problems.Count > 0)
            return problems;
        db.Skills.Add(
            new()
            {
                Id = request.Id,
                StudentId = standing.Student.Id,
                Skill = shipped.Key,
                LadderKey = ladder.Key,
                LadderVersion = ladder.Version,
                Approach = request.Approach,
                StartedAt = clock.Now,
            }
        );
        foreach (var course in request.Courses)
        {
            var verdict = gate.Judge(ladder, course.Side, course.Stage, course.Stage, evidence);
            var row = Row(course.DecisionId, standing, ladder, evidence, DecisionKind.Place, verdict, null, request);
            (row.FromStage, row.ToStage) = (0, course.Stage);
            db.Decisions.Add(row);
            db.Board.Add(BoardDesk.Place(standing.Student.Id, ladder, course.Side));
        }
        return await db.SaveFact(Appended.Stored, ct);
    }

    private List<Problem> CheckStart(SkillStart request, Ladder ladder, Evidence evidence)
    {
        var problems = new List<Problem>();
        if (catalogue.FindApproach(request.Approach) is null)
            problems.Add(Problem.Of("unknownApproach", "approach"));
        if (!SameCourses(ladder, request.Courses))
            problems.Add(Problem.Of("coursesDoNotFit", "courses"));
        foreach (var (index, course) in request.Courses.Index())
        {
            var highest = new Placing(gate).Highest(ladder, course.Side, evidence);
            if (course.Stage < 1 || course.Stage > ladder.Stages.Count)
                problems.Add(
                    Problem.Of("outOfRange", $"courses[{index}].stage", ("value", course.Stage), ("min", 1), ("max", ladder.Stages.Count))
                );
            else if (course.Stage > highest)
                problems.Add(Problem.Of("startTooHigh", $"courses[{index}].stage", ("highest", highest)));
        }
        return problems;
    }

    private static bool SameCourses(Ladder ladder, IReadOnlyList<CourseStart> courses) =>
        courses.Select(c => c.Side).Order().SequenceEqual(ladder.Courses.Order())
        && courses.DistinctBy(c => c.DecisionId).Count() == courses.Count;

    /// <summary>The same start again: the placing that it made carries the hash of its body.</summary>
    private async Task<Appended> Again(SkillStart request, CancellationToken ct)
    {
        var (hash, first) = (Facts.Hash(request), request.Courses.Select(c => c.DecisionId).FirstOrDefault());
        return await db.Decisions.AnyAsync(d => d.Id == first && d.BodyHash == hash, ct) ? Appended.SameAgain : Appended.Clash;
    }

    public async Task<Result<Appended>> Decide(Standing standing, Course skill, DecisionRequest request, CancellationToken ct)
    {
        if (!skill.Ladder.Courses.Contains(request.Side))
            return Problem.Of("coursesDoNotFit", "side");
        var verdict = gate.Judge(skill.Ladder, request.Side, skill.Evidence);
        var body = new { standing.Student.Id, request };
        var row = Row(request.Id, standing, skill.Ladder, skill.Evidence, request.Kind, verdict, request.Reason, body);
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

    /// <summary>Moves a student to another version, or to another ladder, of the skill: a decision for each course, and no way up.</summary>
    public async Task<Result<Appended>> Move(Standing standing, Course skill, SkillMove request, CancellationToken ct)
    {
        if (await ladders.Find(request.LadderKey, request.LadderVersion, ct) is not { } to || to.Skill != skill.Ladder.Skill)
            return Problem.Of("unknownLadder", "ladderKey");
        if (!SameCourses(to, request.Courses))
            return Problem.Of("coursesDoNotFit", "courses");
        if (skill.Ladder.Key == to.Key && skill.Ladder.Version == to.Version)
            return await AlreadyMoved(standing, request, ct);
        var problems = new List<Problem>();
        foreach (var (index, course) in request.Courses.Index())
        {
            var verdict = gate.Judge(skill.Ladder, course.Side, skill.Evidence);
            var moved = Decision.Move(skill.Ladder, verdict.Stage, to, course.Stage);
            problems.AddRange(moved.Problems.Select(p => p with { Field = $"courses[{index}].stage" }));
            var row = Row(
                course.DecisionId,
                standing,
                skill.Ladder,
                skill.Evidence,
                DecisionKind.Move,
                verdict,
                request.Reason,
                Body(standing, request)
            );
            row.ToStage = course.Stage;
            db.Decisions.Add(row);
        }
        if (problems.Count > 0)
        {
            db.ChangeTracker.Clear();
            return problems;
        }
        var follows = await db.Skills.SingleAsync(s => s.Id == skill.Enrolment.Id, ct);
        (follows.LadderKey, follows.LadderVersion) = (to.Key, to.Version);
        return await db.SaveFact(Appended.Stored, ct);
    }

    private async Task<Result<Appended>> AlreadyMoved(Standing standing, SkillMove request, CancellationToken ct)
    {
        var hash = Facts.Hash(Body(standing, request));
        return await db.Decisions.AnyAsync(d => d.StudentId == standing.Student.Id && d.BodyHash == hash, ct)
            ? Appended.SameAgain
            : Problem.Of("alreadyOnLadder", "ladderKey");
    }

    private static object Body(Standing standing, SkillMove request) => new { standing.Student.Id, request };

    private DecisionRow Row<TBody>(
        Guid id,
        Standing standing,
        Ladder ladder,
        Evidence evidence,
        DecisionKind kind,
        GateVerdict verdict,
        string? reason,
        TBody body
    ) =>
        new()
        {
            Id = id,
            StudentId = standing.Student.Id,
            Skill = ladder.Skill,
            Side = verdict.Side,
            Kind = kind,
            FromStage = verdict.Stage,
            ToStage = verdict.Stage,
            Reason = string.IsNullOrWhiteSpace(reason) ? null : reason.Trim(),
            EvidenceJson = StoredJson.Write(
                new DecisionEvidence(verdict.State, evidence.Standard, verdict.Tests, ladder.Name, ladder.Version)
            ),
            At = After(evidence.Decisions),
            By = scope.UserId,
            BodyHash = Facts.Hash(body),
        };

    /// <summary>Now, yet never at or before an earlier decision, whatever the clock was set to: the newest one says where a student stands.</summary>
    private DateTimeOffset After(IReadOnlyList<StageDecision> earlier) => earlier.Select(d => d.At.AddTicks(1)).Append(clock.Now).Max();
}
