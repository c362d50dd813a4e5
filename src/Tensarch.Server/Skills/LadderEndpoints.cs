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

    private static async Task<Ok<List<LadderFollower>>> Followers(string ladder, TensarchDb db, CancellationToken ct) =>
        TypedResults.Ok(
            await (
                from skill in db.Skills
                where skill.LadderKey == ladder
                join student in db.Students on skill.StudentId equals student.Id
                where student.ArchivedAt == null
                orderby student.Name
                select new LadderFollower(student.Id, student.Name, skill.LadderVersion)
            ).ToListAsync(ct)
        );

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
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var problems = LadderCheck.Check(ladder, catalogue);
        if (problems.Count > 0)
            return TypedResults.Ok(new LadderTrial(problems, 0, []));
        var (gate, tried, changes) = (new Gate(catalogue), 0, new List<VerdictChange>());
        var students = await db
            .Students.AsNoTracking()
            .Where(s => s.ArchivedAt == null && db.Skills.Any(k => k.StudentId == s.Id && k.Skill == ladder.Skill))
            .OrderBy(s => s.Name)
            .ToListAsync(ct);
        foreach (var batch in students.Chunk(BoardDesk.Batch))
        foreach (var standing in await standings.Of(batch, ct, ladder))
        {
            var on = standing.On(ladder.Skill)!;
            var under = standing.For(ladder);
            foreach (var side in ladder.Courses)
            {
                tried++;
                var now = gate.Judge(on.Ladder, side, on.Evidence);
                var stage = Math.Min(now.Stage, Decision.HighestAfterMove(on.Ladder, now.Stage, ladder));
                var other = side is { } s
                    ? Math.Min(on.StageOf(s.Other()), Decision.HighestAfterMove(on.Ladder, on.StageOf(s.Other()), ladder))
                    : stage;
                var then = gate.Judge(ladder, side, stage, other, under);
                if (now.State != then.State || now.MetCount != then.MetCount || now.Tests.Count != then.Tests.Count)
                    changes.Add(
                        new(
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
                        )
                    );
            }
        }
        return TypedResults.Ok(new LadderTrial([], tried, changes));
    }
}

/// <param name="Version">The version that they follow.</param>
public sealed record LadderFollower(Guid StudentId, string Name, int Version);
