using System.ComponentModel.DataAnnotations;
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
/// <param name="Unreadable">What is stored is no ladder.</param>
public sealed record LadderLine(
    string Key,
    int Version,
    string Name,
    string Skill,
    bool Shipped,
    int Stages,
    int Following,
    int Behind,
    DateTimeOffset? ChangedAt,
    bool Unreadable = false
);

/// <summary>Keeps a new version of an own ladder: version 1 makes it.</summary>
public sealed record LadderVersion(Guid Id, Ladder Ladder);

/// <summary>A ladder as text, such as a file that was exported before.</summary>
public sealed record LadderText([StringLength(LadderText.Longest)] string Text)
{
    public const int Longest = 500_000;
}

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
        ladders.MapPost("/try", LadderTrials.Try).WithMetadata(new ReadsOnly());
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
            catalogue
                .Skills.Select(l => Line(l, null))
                .Concat(own.Select(row => StudioLadders.Read(row) is { } ladder ? Line(ladder, row.At) : Unreadable(row)))
                .ToList()
        );

        LadderLine Unreadable(OwnLadderRow row) =>
            new(row.LadderKey, row.Version, row.Name, row.Skill, false, 0, 0, 0, row.At, Unreadable: true);

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
        var stages = await ladders.StagesOn(newest.Skill, ct);
        return TypedResults.Ok(
            rows.Select(r => new LadderFollower(r.Skill.StudentId, r.Name, r.Skill.LadderVersion, Moves(r.Skill))).ToList()
        );

        IReadOnlyList<FollowerMove> Moves(SkillRow row)
        {
            if (ladders.Known(row.LadderKey, row.LadderVersion) is not { } from)
                return [];
            return
            [
                .. stages
                    .GetValueOrDefault(row.StudentId, [])
                    .Select(c => new FollowerMove(c.Side, c.Stage, Math.Min(c.Stage, Decision.HighestAfterMove(from, c.Stage, newest)))),
            ];
        }
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
}

/// <param name="Version">The version that they follow.</param>
/// <param name="Courses">Where a move to the newest version would put each course; no move goes up.</param>
public sealed record LadderFollower(Guid StudentId, string Name, int Version, IReadOnlyList<FollowerMove> Courses);

public sealed record FollowerMove(Side? Side, int Stage, int NewStage);
