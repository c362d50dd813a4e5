using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;

namespace Tensarch.Server.Skills;

/// <summary>What a ladder in the making would do.</summary>
/// <param name="Problems">What stands in its way; a problem's field is the path of the thing that is wrong.</param>
/// <param name="Tried">How many gates of students on the skill were judged under both.</param>
/// <param name="Changes">Those whose verdict would change.</param>
public sealed record LadderTrial(IReadOnlyList<Problem> Problems, int Tried, IReadOnlyList<VerdictChange> Changes);

/// <summary>One gate that would say something else.</summary>
public sealed record VerdictChange(
    Guid StudentId,
    string Name,
    Side? Side,
    int Stage,
    int NewStage,
    GateState State,
    GateState NewState,
    int Met,
    int Tests,
    int NewMet,
    int NewTests
);

/// <summary>Tries a ladder in the making on those who would be judged by it.</summary>
internal static class LadderTrials
{
    /// <summary>Judges everyone on the skill under the ladder they follow and under this one.</summary>
    internal static async Task<Ok<LadderTrial>> Try(
        Ladder ladder,
        TensarchDb db,
        Standings standings,
        StudioLadders ladders,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var problems = LadderCheck.Check(ladder, catalogue);
        if (problems.Count > 0)
            return TypedResults.Ok(new LadderTrial(problems, 0, []));
        var students = await db
            .Students.AsNoTracking()
            .Where(s => s.ArchivedAt == null && db.Skills.Any(k => k.StudentId == s.Id && k.Skill == ladder.Skill))
            .OrderBy(s => s.Name)
            .ToListAsync(ct);
        var touched = await Touched(ladder, db, ladders, ct);
        var (gate, changes) = (new Gate(catalogue), new List<VerdictChange>());
        foreach (var batch in students.Where(s => touched.Contains(s.Id)).Chunk(BoardDesk.Batch))
        foreach (var standing in await standings.Of(batch, ct, ladder))
            changes.AddRange(Changes(standing, ladder, gate));
        return TypedResults.Ok(new LadderTrial([], students.Count * ladder.Courses.Count, changes));
    }

    /// <summary>Students of this skill whose verdict might change: nothing is read of those who stand where the draft is as their own ladder.</summary>
    private static async Task<HashSet<Guid>> Touched(Ladder draft, TensarchDb db, StudioLadders ladders, CancellationToken ct)
    {
        var followed = await db.Skills.AsNoTracking().Where(k => k.Skill == draft.Skill).ToListAsync(ct);
        await ladders.Know(followed, ct);
        var stages = await ladders.StagesOn(draft.Skill, ct);
        var alike = new Dictionary<(string, int, int), bool>();
        return
        [
            .. followed
                .Where(row => !stages.GetValueOrDefault(row.StudentId, []).All(c => Alike(row, c.Stage)))
                .Select(row => row.StudentId),
        ];

        bool Alike(SkillRow row, int stage)
        {
            var key = (row.LadderKey, row.LadderVersion, stage);
            if (!alike.TryGetValue(key, out var same))
                alike[key] = same = ladders.Known(row.LadderKey, row.LadderVersion) is { } followed && JudgeAlike(followed, draft, stage);
            return same;
        }
    }

    /// <summary>Whether nothing on which a verdict at this stage rests differs between two ladders.</summary>
    private static bool JudgeAlike(Ladder one, Ladder other, int stage)
    {
        return stage < Math.Min(one.Keystone, other.Keystone)
            && Decision.HighestAfterMove(one, stage, other) >= stage
            && StoredJson.Write(Frame(one)) == StoredJson.Write(Frame(other))
            && StoredJson.Write(one.StageAt(stage)) == StoredJson.Write(other.StageAt(stage));

        static Ladder Frame(Ladder ladder) => ladder with { Key = "", Version = 0, Name = "", Stages = [] };
    }

    private static IEnumerable<VerdictChange> Changes(Standing standing, Ladder ladder, Gate gate)
    {
        if (standing.State.On(ladder.Skill) is not { } on)
            yield break;
        var under = standing.State.For(ladder);
        foreach (var side in ladder.Courses)
        {
            var now = gate.Judge(on.Ladder, side, on.Evidence);
            var stage = Moved(now.Stage);
            var then = gate.Judge(ladder, side, stage, side is { } s ? Moved(on.StageOf(s.Other())) : stage, under);
            if (now.State != then.State || now.MetCount != then.MetCount || now.Tests.Count != then.Tests.Count)
                yield return new(
                    standing.Student.Id,
                    standing.Student.Name,
                    side,
                    now.Stage,
                    stage,
                    now.State,
                    then.State,
                    now.MetCount,
                    now.Tests.Count,
                    then.MetCount,
                    then.Tests.Count
                );
        }

        int Moved(int stage) => Math.Min(stage, Decision.HighestAfterMove(on.Ladder, stage, ladder));
    }
}
