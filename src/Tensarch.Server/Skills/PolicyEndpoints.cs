using Microsoft.AspNetCore.Http.HttpResults;
using Tensarch.Core;
using Tensarch.Core.Skills;
using Tensarch.Server.Hosting;

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
    private const int MostStudents = 4000;

    public static void MapPolicy(this IEndpointRouteBuilder api) =>
        api.MapPost("/compute/policy", Run).WithTags("Ladders").WithMetadata(new ReadsOnly());

    private static Results<Ok<PolicyResponse>, ProblemHttpResult> Run(PolicyRequest request)
    {
        var problems = new List<Problem>();
        Between(request.Own.Z, 0, 4, "own.z");
        Between(request.Own.ConfirmingTests, 0, 4, "own.confirmingTests");
        Between(request.Own.ConfirmingHours, 0, 336, "own.confirmingHours");
        Between(request.Trial.TrialsPerTest, 1, 5, "trial.trialsPerTest");
        Between(request.Trial.TauOfSem, 0, 2, "trial.tauOfSem");
        Between(request.Trial.TestDays, 1, 10, "trial.testDays");
        Between(request.Trial.Students, 100, MostStudents, "trial.students");
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        return TypedResults.Ok(
            new PolicyResponse(
                PolicyBench.Run(GatePolicy.Naive, request.Trial),
                PolicyBench.Run(GatePolicy.Shipped, request.Trial),
                PolicyBench.Run(request.Own, request.Trial),
                request.Trial
            )
        );

        void Between(double value, double least, double most, string field)
        {
            if (!(value >= least && value <= most))
                problems.Add(Problem.Of("outOfRange", field, ("value", value), ("min", least), ("max", most)));
        }
    }
}
