using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Measuring;

/// <param name="Version">The studio's own version; 0 for the shipped one alone.</param>
/// <param name="Own">None while the shipped one is read.</param>
/// <param name="Unreadable">The studio's own version cannot stand: the shipped one is read until there is a newer one.</param>
public sealed record MeasureVersion(
    string Measure,
    int Version,
    OwnMeasure? Own,
    OwnMeasure Shipped,
    DateTimeOffset? At,
    string? By,
    bool Unreadable = false
);

/// <summary>How one coach reads a measure with one instrument, by their own repeats.</summary>
public sealed record CoachNoise(string Coach, Instrument Instrument, Noise Noise);

public sealed record MeasurePage(MeasureVersion Version, IReadOnlyList<CoachNoise> Noises);

/// <param name="BasedOn">The version that was seen.</param>
/// <param name="Own">None goes back to the shipped measure.</param>
public sealed record OwnMeasureRequest(Guid Id, [Range(0, 100_000)] int BasedOn, OwnMeasure? Own);

public sealed record BlockKinds([Range(0, 100_000)] int Version, [MaxLength(BlockKinds.MostKinds)] IReadOnlyList<BlockKind> Kinds)
{
    public const int MostKinds = 2;
}

/// <summary>A studio's own versions of measures, and its blocks.</summary>
public static class OwnMeasureEndpoints
{
    public static void MapOwnMeasures(this IEndpointRouteBuilder api)
    {
        var measures = api.MapGroup("/measures").WithTags("Measuring");
        measures.MapGet("/{measure}", Read);
        measures.MapPost("/{measure}/versions", Write).Produces<MeasureVersion>(201).Produces<MeasureVersion>();
        api.MapGet("/blocks", Blocks).WithTags("Measuring");
        api.MapPut("/blocks", ChangeBlocks).WithTags("Measuring");
    }

    private static async Task<Results<Ok<MeasurePage>, ProblemHttpResult>> Read(
        string measure,
        TensarchDb db,
        CatalogueContent catalogue,
        StudioMeasures measures,
        OwnNoises noises,
        StudioClock clock,
        CancellationToken ct
    )
    {
        if (catalogue.FindMeasure(measure) is not { } shipped)
            return Problems.NotFound();
        var mine = (await measures.Find(measure, ct))!;
        var coaches = await db.Users.AsNoTracking().OrderBy(u => u.DisplayName).Select(u => new { u.Id, u.DisplayName }).ToListAsync(ct);
        var found = new List<CoachNoise>();
        if (shipped.Kind == MeasureKind.Range)
            foreach (var coach in coaches)
            foreach (var instrument in shipped.Instruments.Where(i => i != Instrument.BlockStack))
            {
                var noise = await noises.Of(mine, instrument, coach.Id, clock.Now, ct);
                if (noise.SemDof > 0 || noise.TauPairs > 0)
                    found.Add(new(coach.DisplayName, instrument, noise));
            }
        return TypedResults.Ok(new MeasurePage(await Version(shipped, db, measures, ct), found));
    }

    private static async Task<MeasureVersion> Version(Measure shipped, TensarchDb db, StudioMeasures measures, CancellationToken ct)
    {
        var row = (await measures.Newest(ct)).GetValueOrDefault(shipped.Key);
        var by = row is null ? null : await db.Users.Where(u => u.Id == row.By).Select(u => u.DisplayName).FirstOrDefaultAsync(ct);
        return new(
            shipped.Key,
            row?.Version ?? 0,
            StudioMeasures.Usable(shipped, row),
            new(shipped.Min, shipped.Max, shipped.Sem, shipped.Protocol),
            row?.At,
            by,
            row?.Json is not null && StudioMeasures.Usable(shipped, row) is null
        );
    }

    private static async Task<IResult> Write(
        string measure,
        OwnMeasureRequest request,
        TensarchDb db,
        CatalogueContent catalogue,
        StudioMeasures measures,
        StudioClock clock,
        StudioScope scope,
        CancellationToken ct
    )
    {
        if (catalogue.FindMeasure(measure) is not { } shipped)
            return Problems.NotFound();
        var own = request.Own is { } o ? o with { Protocol = [.. o.Protocol.Select(s => s?.Trim() ?? "")] } : null;
        var problems = own?.Check(shipped) ?? [];
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        var row = new OwnMeasureRow
        {
            Id = request.Id,
            Measure = measure,
            Version = request.BasedOn + 1,
            Json = own is null ? null : StoredJson.Write(own),
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.OwnMeasures.AddFact(row, new { measure, request }, ct);
        if (appended == Appended.Stored)
        {
            var standing = await db.OwnMeasures.Where(v => v.Measure == measure && v.Id != row.Id).MaxAsync(v => (int?)v.Version, ct) ?? 0;
            if (standing != request.BasedOn)
                return Problems.Of(412, "changedMeanwhile", Problem.Of("changedMeanwhile", "basedOn", ("version", standing)));
        }
        appended = await db.SaveFact(appended, ct);
        return Problems.Respond(appended, $"/api/v1/measures/{measure}", await Version(shipped, db, measures, ct));
    }

    private static async Task<Ok<BlockKinds>> Blocks(TensarchDb db, StudioScope scope, CancellationToken ct)
    {
        var studio = await db.Studios.AsNoTracking().SingleAsync(s => s.Id == scope.StudioId, ct);
        return TypedResults.Ok(new BlockKinds(studio.BlocksVersion, StudioMeasures.BlocksOf(studio.BlocksJson)));
    }

    private static async Task<Results<Ok<BlockKinds>, ProblemHttpResult>> ChangeBlocks(
        BlockKinds request,
        TensarchDb db,
        StudioScope scope,
        CancellationToken ct
    )
    {
        var problems = request.Kinds.SelectMany((k, i) => k.Check().Select(p => p with { Field = $"kinds[{i}].{p.Field}" })).ToList();
        if (request.Kinds.Count is < 1 or > BlockKinds.MostKinds || request.Kinds.DistinctBy(k => k.Key).Count() != request.Kinds.Count)
            problems.Add(Problem.Of("kindsCount", "kinds", ("most", BlockKinds.MostKinds)));
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        var studio = await db.Studios.SingleAsync(s => s.Id == scope.StudioId, ct);
        if (studio.BlocksVersion != request.Version)
            return Problems.Of(412, "changedMeanwhile");
        (studio.BlocksJson, studio.BlocksVersion) = (StoredJson.Write(request.Kinds), request.Version + 1);
        try
        {
            await db.SaveChangesAsync(ct);
        }
        catch (DbUpdateConcurrencyException)
        {
            return Problems.Of(412, "changedMeanwhile");
        }
        return TypedResults.Ok(new BlockKinds(studio.BlocksVersion, request.Kinds));
    }
}
