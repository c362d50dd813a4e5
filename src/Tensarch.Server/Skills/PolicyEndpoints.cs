using Microsoft.AspNetCore.Http.HttpResults;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Programmes;

namespace Tensarch.Server.Skills;

/// <summary>What to try a gate policy on.</summary>
/// <param name="Own">The coach's variant.</param>
public sealed record PolicyRequest(GatePolicy Own, PolicyTrial Trial);

/// <summary>Two curves for each policy: how often the unready pass, and how long the ready wait.</summary>
public sealed record PolicyResponse(
    IReadOnlyList<PolicyPoint> Naive,
    IReadOnlyList<PolicyPoint> Shipped,
    IReadOnlyList<PolicyPoint> Own,
    PolicyTrial Trial
);

public static class PolicyEndpoints
{
    public static void MapPolicy(this IEndpointRouteBuilder api) =>
        api.MapPost("/compute/policy", Run).WithTags("Ladders").WithMetadata(new ReadsOnly());

    private static async Task<Ok<PolicyResponse>> Run(
        PolicyRequest request,
        PlanningTurns turns,
        StudioScope scope,
        CancellationToken ct
    ) =>
        TypedResults.Ok(
            await turns.Run(
                scope.UserId,
                _ => new PolicyResponse(
                    PolicyBench.Run(GatePolicy.Naive, request.Trial),
                    PolicyBench.Run(GatePolicy.Shipped, request.Trial),
                    PolicyBench.Run(request.Own, request.Trial),
                    request.Trial
                ),
                ct
            )
        );
}
