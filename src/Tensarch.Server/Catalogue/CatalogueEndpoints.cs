using Microsoft.AspNetCore.Http.HttpResults;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Planning;
using Tensarch.Core.Sessions;
using Tensarch.Core.Skills;
using Tensarch.Core.Students;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Catalogue;

/// <summary>The words and numbers of the shipped content that the screens show.</summary>
public sealed record CatalogueResponse(
    IReadOnlyList<Measure> Measures,
    IReadOnlyList<BenchPosition> Positions,
    IReadOnlyList<Battery> Batteries,
    IReadOnlyList<PictureView> Views,
    IReadOnlyList<Ladder> Ladders,
    IReadOnlyList<DrillView> Drills,
    IReadOnlyList<IntakeQuestion> Questions,
    IReadOnlyList<Approach> Approaches,
    IReadOnlyList<DayGate> DayGates,
    IReadOnlyList<BodyPlace> Places
);

/// <param name="Felt">Where it should be felt, and what it is for.</param>
/// <param name="QuickMeasure">What is read of it by one's own hand at the last repetition.</param>
public sealed record DrillView(
    string Key,
    string Name,
    string Purpose,
    string Felt,
    DrillKind Kind,
    IReadOnlyList<string> Was,
    string? SideMeans,
    SessionPhase Phase,
    bool TestOnly,
    IReadOnlyList<string> Props,
    IReadOnlyList<string> Cues,
    IReadOnlyList<VariantView> Variants,
    string? QuickMeasure
);

public sealed record VariantView(string Key, string Name);

public static class CatalogueEndpoints
{
    public static void MapCatalogue(this IEndpointRouteBuilder api)
    {
        api.MapGet(
                "/catalogue",
                async Task<Ok<CatalogueResponse>> (CatalogueContent c, StudioMeasures measures, CancellationToken ct) =>
                    TypedResults.Ok(
                        new CatalogueResponse(
                            await measures.All(ct),
                            c.Positions,
                            c.Batteries,
                            c.Views,
                            c.Skills,
                            [
                                .. c.DrillList.Select(d => new DrillView(
                                    d.Key,
                                    d.Name,
                                    d.Purpose,
                                    d.Felt,
                                    d.Kind,
                                    d.Was ?? [],
                                    d.SideMeans,
                                    d.Phase,
                                    d.TestOnly,
                                    d.Props,
                                    [.. d.Cues.Select(c => c.Says)],
                                    [.. d.Variants.Select(v => new VariantView(v.Key, v.Name))],
                                    d.QuickMeasure
                                )),
                            ],
                            c.Questions,
                            c.Approaches,
                            c.DayGates,
                            BodyPlaces.All
                        )
                    )
            )
            .WithTags("Catalogue");
    }
}
