using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Planning;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Planning;

namespace Tensarch.Server.Catalogue;

/// <inheritdoc cref="OwnDrill"/>
public sealed record OwnDrillBody(
    [Required, StringLength(80)] string Name,
    [MaxLength(8), StringLength(120)] IReadOnlyList<string> Cues,
    [MaxLength(8), StringLength(160)] IReadOnlyList<string> Checks,
    [MaxLength(8), StringLength(160)] IReadOnlyList<string> StopSigns,
    [MaxLength(6), RegularExpression(Key.Pattern)] IReadOnlyList<string> Props,
    [MaxLength(12)] IReadOnlyList<OwnVariantBody> Variants,
    [MaxLength(20)] IReadOnlyList<LoadLine> Loads
)
{
    internal OwnDrill Drill =>
        new(
            Name.Trim(),
            Said(Cues),
            Said(Checks),
            Said(StopSigns),
            [.. Props.Distinct()],
            [.. Variants.Select(v => new OwnVariant(v.Key, v.Name, v.Dose?.Numbers))],
            Loads.GroupBy(l => l.Tag).ToDictionary(l => l.Key, l => l.Max(x => x.Level))
        );

    private static List<string> Said(IReadOnlyList<string> lines) => [.. lines.Select(l => l.Trim()).Where(l => l.Length > 0)];
}

public sealed record OwnVariantBody(
    [RegularExpression(Key.Pattern)] string Key,
    [Required, StringLength(80)] string Name,
    DoseChange? Dose = null
);

/// <param name="Drill">The own drill that gets a new version; none for a new one.</param>
/// <param name="Source">The shipped drill that it is a copy of.</param>
/// <param name="BasedOn">The version that was seen; 0 for a new one.</param>
/// <param name="Gone">Taken out of the library.</param>
public sealed record OwnDrillRequest(
    Guid Id,
    [RegularExpression(Key.Pattern)] string? Drill,
    [RegularExpression(Key.Pattern)] string Source,
    [Range(0, 100_000)] int BasedOn,
    OwnDrillBody Own,
    bool Gone = false
);

/// <param name="Kind">mp4, webm or webp.</param>
public sealed record ClipView(Guid Id, string Variant, string Kind);

public sealed record ClipChange(bool Gone);

/// <summary>A studio's own drills, and what shows them.</summary>
public static class OwnDrillEndpoints
{
    public static void MapDrills(this IEndpointRouteBuilder api)
    {
        var drills = api.MapGroup("/drills").WithTags("Catalogue");
        drills.MapGet("/", List);
        drills.MapPost("/", Write).Produces<DrillPage>(201).Produces<DrillPage>();
        drills
            .MapPost("/{drill}/clips", Keep)
            .WithMetadata(new RequestSizeLimitAttribute(ClipFiles.MostBytes + 1024))
            .Produces<ClipView>(201)
            .Produces<ClipView>();
        drills.MapGet("/{drill}/clips/{clipId}", Watch);
        drills.MapPost("/{drill}/clips/{clipId}/changes", Change);
    }

    private static async Task<Ok<List<DrillPage>>> List(CatalogueContent content, TensarchDb db, CancellationToken ct)
    {
        var versions = await db
            .OwnDrills.GroupBy(d => d.DrillKey)
            .Select(g => new { g.Key, Version = g.Max(d => d.Version) })
            .ToDictionaryAsync(d => d.Key, d => d.Version, ct);
        var clips = (await db.Clips.AsNoTracking().Where(c => !c.Gone).OrderBy(c => c.At).ToListAsync(ct)).ToLookup(c => c.DrillKey);
        return TypedResults.Ok(
            content
                .DrillList.Select(d =>
                    DrillPage.Of(
                        d,
                        content,
                        versions.GetValueOrDefault(d.Key),
                        [.. clips[d.Key].Select(c => new ClipView(c.Id, c.Variant, c.Kind))]
                    )
                )
                .ToList()
        );
    }

    private static async Task<IResult> Write(
        OwnDrillRequest request,
        TensarchDb db,
        StudioContent studios,
        StudioClock clock,
        StudioScope scope,
        CancellationToken ct
    )
    {
        if (studios.Shipped.FindDrill(request.Source) is not { TestOnly: false } source)
            return Problems.Unprocessable([Problem.Of("unknownDrill", "source")]);
        if (request.Drill is { } named && !await db.OwnDrills.AnyAsync(d => d.DrillKey == named && d.Source == source.Key, ct))
            return Problems.Unprocessable([Problem.Of("unknownDrill", "drill")]);
        var own = request.Own.Drill;
        var problems = own.Check(source).Select(p => p with { Field = $"own.{p.Field}" }).ToList();
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        var key = request.Drill ?? $"own-{request.Id:N}"[..16];
        var row = new OwnDrillRow
        {
            Id = request.Id,
            DrillKey = key,
            Version = request.BasedOn + 1,
            Source = source.Key,
            Json = StoredJson.Write(own),
            Gone = request.Gone,
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.OwnDrills.AddFact(row, request, ct);
        if (appended == Appended.Stored)
        {
            var standing = await db.OwnDrills.Where(d => d.DrillKey == key && d.Id != row.Id).MaxAsync(d => (int?)d.Version, ct) ?? 0;
            if (standing != request.BasedOn)
                return Problems.Of(412, "changedMeanwhile", Problem.Of("changedMeanwhile", "basedOn", ("version", standing)));
        }
        appended = await db.SaveFact(appended, ct);
        studios.Forget(scope.StudioId);
        var content = studios.Of(scope, db);
        return Problems.Respond(appended, "/api/v1/drills", DrillPage.Of(content.Drill(key), content, row.Version, []));
    }

    /// <summary>The body is the clip itself: mp4 or webm up to 50 MiB, or a picture up to 10 MiB, judged by its content.</summary>
    private static async Task<IResult> Keep(
        string drill,
        [FromQuery] Guid id,
        [FromQuery] string variant,
        Stream clip,
        TensarchDb db,
        CatalogueContent content,
        ClipFiles files,
        StudioClock clock,
        StudioScope scope,
        CancellationToken ct
    )
    {
        if (content.FindDrill(drill) is not { CopyOf: not null } own)
            return Problems.NotFound();
        if (own.Variants.All(v => v.Key != variant))
            return Problems.Unprocessable([Problem.Of("unknownVariant", "variant")]);
        if (await db.Clips.AsNoTracking().SingleOrDefaultAsync(c => c.Id == id, ct) is { } there)
            return there.DrillKey == drill && there.Variant == variant
                ? TypedResults.Ok(new ClipView(there.Id, there.Variant, there.Kind))
                : Problems.IdTaken();
        var kept = await files.Keep(scope.StudioId, id, clip, ct);
        if (!kept.IsOk)
            return Problems.Unprocessable(kept.Problems);
        var row = new ClipRow
        {
            Id = id,
            DrillKey = drill,
            Variant = variant,
            Kind = kept.Value.Kind,
            Bytes = kept.Value.Bytes,
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.SaveFact(
            await db.Clips.AddFact(
                row,
                new
                {
                    drill,
                    variant,
                    kept.Value.Bytes,
                },
                ct
            ),
            ct
        );
        return Problems.Respond(appended, $"/api/v1/drills/{drill}/clips/{id}", new ClipView(row.Id, row.Variant, row.Kind));
    }

    /// <summary>Only to the studio whose it is; in ranges, so that a phone can play it from anywhere in it.</summary>
    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Watch(
        string drill,
        Guid clipId,
        TensarchDb db,
        ClipFiles files,
        StudioScope scope,
        CancellationToken ct
    )
    {
        var row = await db.Clips.AsNoTracking().SingleAsync(c => c.Id == clipId, ct);
        var path = files.PathOf(scope.StudioId, clipId, row.Kind);
        return row.DrillKey == drill && !row.Gone && File.Exists(path)
            ? TypedResults.PhysicalFile(path, ClipFiles.TypeOf(row.Kind), enableRangeProcessing: true)
            : Problems.NotFound();
    }

    private static async Task<Results<Ok<ClipView>, ProblemHttpResult>> Change(
        string drill,
        Guid clipId,
        ClipChange change,
        TensarchDb db,
        CancellationToken ct
    )
    {
        var row = await db.Clips.SingleAsync(c => c.Id == clipId, ct);
        if (row.DrillKey != drill)
            return Problems.NotFound();
        row.Gone = change.Gone;
        await db.SaveChangesAsync(ct);
        return TypedResults.Ok(new ClipView(row.Id, row.Variant, row.Kind));
    }
}
