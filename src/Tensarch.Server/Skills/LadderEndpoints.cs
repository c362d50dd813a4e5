using System.Text;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Skills;

/// <summary>A ladder in a list.</summary>
/// <param name="Version">The newest.</param>
/// <param name="Shipped">With the product; else the coach's own.</param>
/// <param name="Following">Students on any version of it.</param>
/// <param name="Behind">Of those, on an older version.</param>
public sealed record LadderLine(
    string Key,
    int Version,
    string Name,
    string Skill,
    bool Shipped,
    int Stages,
    int Following,
    int Behind,
    DateTimeOffset? ChangedAt
);

/// <summary>Keeps a new version of an own ladder: version 1 makes it.</summary>
public sealed record LadderVersion(Guid Id, Ladder Ladder);

/// <summary>A ladder as text, such as a file that was exported before.</summary>
public sealed record LadderText(string Text);

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

/// <summary>The ladders of the studio: shipped ones, own copies, versions, and the way in and out as JSON.</summary>
public static class LadderEndpoints
{
    public static void MapLadders(this IEndpointRouteBuilder api)
    {
        var ladders = api.MapGroup("/ladders").WithTags("Ladders");
        ladders.MapGet("/", List);
        ladders.MapPost("/", Keep).Produces<LadderLine>(201).Produces<LadderLine>();
        ladders.MapGet("/{ladder}/versions/{version:int}", Read);
        ladders.MapGet("/{ladder}/versions/{version:int}/file", File);
        ladders.MapGet("/schema", () => TypedResults.Text(ContentLoader.LadderSchema(), "application/schema+json"));
        ladders.MapGet("/{ladder}/followers", Followers);
        ladders.MapPost("/read", ReadText).WithMetadata(new ReadsOnly());
        ladders.MapPost("/try", Try).WithMetadata(new ReadsOnly());
    }

    private static async Task<Ok<List<LadderLine>>> List(TensarchDb db, CatalogueContent catalogue, CancellationToken ct)
    {
        var following = await db
            .Skills.Join(db.Students.Where(s => s.ArchivedAt == null), k => k.StudentId, s => s.Id, (k, _) => k)
            .GroupBy(k => new { k.LadderKey, k.LadderVersion })
            .Select(g => new
            {
                g.Key.LadderKey,
                g.Key.LadderVersion,
                Count = g.Count(),
            })
            .ToListAsync(ct);
        var own = await db
            .OwnLadders.AsNoTracking()
            .Where(l => !db.OwnLadders.Any(o => o.LadderKey == l.LadderKey && o.Version > l.Version))
            .OrderBy(l => l.Name)
            .ToListAsync(ct);
        return TypedResults.Ok(
            catalogue.Skills.Select(l => Line(l, null)).Concat(own.Select(row => Line(StudioLadders.Read(row), row.At))).ToList()
        );

        LadderLine Line(Ladder ladder, DateTimeOffset? changed)
        {
            var on = following.Where(f => f.LadderKey == ladder.Key).ToList();
            return new(
                ladder.Key,
                ladder.Version,
                ladder.Name,
                ladder.Skill,
                changed is null,
                ladder.Stages.Count,
                on.Sum(f => f.Count),
                on.Where(f => f.LadderVersion < ladder.Version).Sum(f => f.Count),
                changed
            );
        }
    }

    private static async Task<Results<Ok<Ladder>, ProblemHttpResult>> Read(
        string ladder,
        int version,
        StudioLadders ladders,
        CancellationToken ct
    ) => await ladders.Find(ladder, version, ct) is { } found ? TypedResults.Ok(found) : Problems.NotFound();

    /// <summary>One ladder as a file, under the schema that is published in docs/formats.</summary>
    private static async Task<Results<FileContentHttpResult, ProblemHttpResult>> File(
        string ladder,
        int version,
        StudioLadders ladders,
        CancellationToken ct
    ) =>
        await ladders.Find(ladder, version, ct) is { } found
            ? TypedResults.File(
                Encoding.UTF8.GetBytes(StoredJson.WriteIndented(found)),
                "application/json",
                $"{found.Key}.v{found.Version}.json"
            )
            : Problems.NotFound();

    /// <summary>Everyone who follows a version of it, and where the newest one would put each course.</summary>
    private static async Task<Results<Ok<List<LadderFollower>>, ProblemHttpResult>> Followers(
        string ladder,
        TensarchDb db,
        StudioLadders ladders,
        CancellationToken ct
    )
    {
        if (await ladders.Newest(ladder, ct) is not { } newest)
            return Problems.NotFound();
        var rows = await (
            from skill in db.Skills.AsNoTracking()
            where skill.LadderKey == ladder
            join student in db.Students on skill.StudentId equals student.Id
            where student.ArchivedAt == null
            orderby student.Name
            select new { Skill = skill, student.Name }
        ).ToListAsync(ct);
        await ladders.Know(rows.Select(r => r.Skill), ct);
        var stages = await StagesOn(newest.Skill, db, ct);
        return TypedResults.Ok(
            rows.Select(r => new LadderFollower(r.Skill.StudentId, r.Name, r.Skill.LadderVersion, Moves(r.Skill))).ToList()
        );

        IReadOnlyList<FollowerMove> Moves(SkillRow row)
        {
            var from = ladders.Known(row.LadderKey, row.LadderVersion);
            return
            [
                .. stages
                    .GetValueOrDefault(row.StudentId, [])
                    .Select(c => new FollowerMove(c.Side, c.Stage, Math.Min(c.Stage, Decision.HighestAfterMove(from, c.Stage, newest)))),
            ];
        }
    }

    /// <summary>The stage of every course of everyone on a skill: where the newest decision put it.</summary>
    private static async Task<Dictionary<Guid, List<(Side? Side, int Stage)>>> StagesOn(string skill, TensarchDb db, CancellationToken ct)
    {
        var decisions = await db
            .Decisions.Where(d => d.Skill == skill)
            .OrderBy(d => d.At)
            .Select(d => new
            {
                d.StudentId,
                d.Side,
                d.ToStage,
            })
            .ToListAsync(ct);
        return decisions
            .GroupBy(d => d.StudentId)
            .ToDictionary(g => g.Key, g => g.GroupBy(d => d.Side).OrderBy(c => c.Key).Select(c => (c.Key, c.Last().ToStage)).ToList());
    }

    /// <summary>Appends a version. Two coaches who both made the next one: the second is told.</summary>
    private static async Task<IResult> Keep(
        LadderVersion request,
        TensarchDb db,
        CatalogueContent catalogue,
        StudioClock clock,
        StudioScope scope,
        CancellationToken ct
    )
    {
        var ladder = request.Ladder;
        if (catalogue.NewestLadder(ladder.Key) is not null || ladder.Skill == ladder.Key)
            return Problems.Unprocessable([Problem.Of("keyIsShipped", "key")]);
        var problems = LadderCheck.Check(ladder, catalogue);
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        var row = new OwnLadderRow
        {
            Id = request.Id,
            LadderKey = ladder.Key,
            Version = ladder.Version,
            Skill = ladder.Skill,
            Name = ladder.Name.Trim(),
            Json = StoredJson.Write(ladder with { Name = ladder.Name.Trim() }),
            At = clock.Now,
            By = scope.UserId,
        };
        var newest = await db
            .OwnLadders.Where(l => l.LadderKey == ladder.Key)
            .OrderByDescending(l => l.Version)
            .Select(l => new
            {
                l.Version,
                l.Skill,
                l.Id,
            })
            .FirstOrDefaultAsync(ct);
        var appended = await db.OwnLadders.AddFact(row, request, ct);
        if (appended == Appended.Stored && newest is not null && newest.Skill != ladder.Skill)
            return Problems.Unprocessable([Problem.Of("skillChanged", "skill")]);
        if (appended == Appended.Stored && ladder.Version != (newest?.Version ?? 0) + 1)
            return Problems.Of(412, "changedMeanwhile", Problem.Of("changedMeanwhile", "version", ("newest", newest?.Version ?? 0)));
        return Problems.Respond(
            await db.SaveFact(appended, ct),
            $"/api/v1/ladders/{ladder.Key}/versions/{ladder.Version}",
            new LadderLine(ladder.Key, ladder.Version, row.Name, ladder.Skill, false, ladder.Stages.Count, 0, 0, row.At)
        );
    }

    /// <summary>Reads a file into a ladder, or says what is wrong with it and where.</summary>
    private static Results<Ok<Ladder>, ProblemHttpResult> ReadText(LadderText request, CatalogueContent catalogue)
    {
        var read = ContentLoader.ReadLadder(request.Text, catalogue);
        return read.IsOk ? TypedResults.Ok(read.Value) : Problems.Unprocessable(read.Problems);
    }

    /// <summary>Judges everyone on the skill under the ladder they follow and under this one.</summary>
    private static async Task<Ok<LadderTrial>> Try(
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
        var stages = await StagesOn(draft.Skill, db, ct);
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
                alike[key] = same = JudgeAlike(ladders.Known(row.LadderKey, row.LadderVersion), draft, stage);
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
        var on = standing.On(ladder.Skill)!;
        var under = standing.For(ladder);
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

/// <param name="Version">The version that they follow.</param>
/// <param name="Courses">Where a move to the newest version would put each course; no move goes up.</param>
public sealed record LadderFollower(Guid StudentId, string Name, int Version, IReadOnlyList<FollowerMove> Courses);

public sealed record FollowerMove(Side? Side, int Stage, int NewStage);
