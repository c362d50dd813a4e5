using System.ComponentModel.DataAnnotations;
using Microsoft.AspNetCore.Http.HttpResults;
using Tensarch.Core;
using Tensarch.Core.Planning;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Accounts;

/// <summary>The studio's own settings.</summary>
public static class StudioEndpoints
{
    public static void MapStudio(this IEndpointRouteBuilder api)
    {
        var studio = api.MapGroup("/studio").WithTags("Accounts");
        studio.MapGet("/", async (StudioDesk desk, CancellationToken ct) => TypedResults.Ok(View(await desk.Read(ct))));
        studio.MapPut("/", Change).RequireAuthorization(Writes.OwnerPolicy);
        studio.MapGet("/time-zone", InZone);
    }

    private static StudioView View(StudioRow row) =>
        new(row.Version, row.Name, row.TimeZone, StudioDesk.OpeningOf(row), StandIn.With(StudioDesk.StandInsOf(row)));

    private static async Task<Results<Ok<StudioView>, ProblemHttpResult>> Change(
        StudioRequest request,
        StudioDesk desk,
        CancellationToken ct
    )
    {
        var changed = await desk.Change(request, ct);
        return changed.IsOk ? TypedResults.Ok(View(changed.Value))
            : changed.Problems[0].Code == "changedMeanwhile" ? Problems.Of(412, "changedMeanwhile")
            : Problems.Unprocessable(changed.Problems);
    }

    /// <param name="zone">IANA name; the studio's own when none is given.</param>
    private static async Task<Results<Ok<TimeZoneChange>, ProblemHttpResult>> InZone(
        StudioDesk desk,
        CancellationToken ct,
        [StringLength(60)] string? zone = null
    ) =>
        TimeZoneInfo.TryFindSystemTimeZoneById(zone ?? (await desk.Read(ct)).TimeZone, out var found)
            ? TypedResults.Ok(await desk.Under(found, ct))
            : Problems.Unprocessable([Problem.Of("unknownTimeZone", "zone")]);
}
