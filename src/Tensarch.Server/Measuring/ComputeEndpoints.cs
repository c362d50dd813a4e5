using Microsoft.AspNetCore.Http.HttpResults;
using Tensarch.Core;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Measuring;

/// <summary>Stateless answers for a coach who is still typing.</summary>
public static class ComputeEndpoints
{
    public static void MapCompute(this IEndpointRouteBuilder api)
    {
        var compute = api.MapGroup("/compute").WithTags("Measuring").WithMetadata(new ReadsOnly());
        compute.MapPost("/split-angle", SplitAngleOf);
        compute.MapPost("/rom-test", JudgeRom);
    }

    private static Results<Ok<SplitAngleResponse>, ProblemHttpResult> SplitAngleOf(SplitAngleRequest request)
    {
        var angle = SplitAngle.FromGap(request.GapCm, request.FrontLegCm, request.BackLegCm);
        return angle.IsOk ? TypedResults.Ok(new SplitAngleResponse(angle.Value)) : Problems.Unprocessable(angle.Problems);
    }

    private static Results<Ok<RomTestResponse>, ProblemHttpResult> JudgeRom(RomTestRequest request, TimeProvider time)
    {
        var now = request.Now ?? time.GetUtcNow();
        var problems = Check(request, now);
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);

        var series = new Series("", null, Mode.Passive, null, Warmth.Warm, null);
        var readings = request.Readings.Select(r => new Reading(
            Guid.Empty,
            series,
            r.At,
            r.Trials,
            request.Sem,
            request.BetweenDays ?? 0,
            request.Resolution ?? 0,
            Guid.Empty
        ));
        var rule = new RomTest(request.Comparison, request.Threshold, request.ShelfDays ?? 21, request.MinTrials ?? 1);
        var v = rule.Judge(readings, now);
        return TypedResults.Ok(new RomTestResponse(v.Outcome, v.Value, v.StandardError, v.Margin, v.Noise, v.Reason));
    }

    private static List<Problem> Check(RomTestRequest request, DateTimeOffset now)
    {
        var problems = new List<Problem>();
        NotNegative(request.Sem, "sem", problems);
        NotNegative(request.BetweenDays ?? 0, "betweenDays", problems);
        NotNegative(request.Resolution ?? 0, "resolution", problems);
        if (!double.IsFinite(request.Threshold))
            problems.Add(Problem.Of("notANumber", "threshold"));
        if (request.ShelfDays is { } days && !(days > 0 && days <= 3650))
            problems.Add(Problem.Of("outOfRange", "shelfDays", ("value", days), ("min", 0), ("max", 3650)));
        if (request.MinTrials is < 1 or > TrialCheck.MostTrials)
            problems.Add(Problem.Of("outOfRange", "minTrials", ("min", 1), ("max", TrialCheck.MostTrials)));
        for (var i = 0; i < request.Readings.Count; i++)
        {
            var reading = request.Readings[i];
            if (reading?.Trials is null)
            {
                problems.Add(Problem.Of("trialsCount", $"readings[{i}].trials", ("count", 0), ("most", TrialCheck.MostTrials)));
                continue;
            }
            if (reading.At > now)
                problems.Add(Problem.Of("readingInFuture", $"readings[{i}].at"));
            problems.AddRange(
                TrialCheck
                    .Check(reading.Trials, double.MinValue, double.MaxValue)
                    .Select(p => p with { Field = $"readings[{i}].{p.Field}" })
            );
        }
        return problems;
    }

    private static void NotNegative(double value, string field, List<Problem> problems)
    {
        if (!(double.IsFinite(value) && value >= 0))
            problems.Add(Problem.Of("negative", field, ("value", value)));
    }
}
