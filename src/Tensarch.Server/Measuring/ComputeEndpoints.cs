using Microsoft.AspNetCore.Http.HttpResults;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
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
        compute.MapPost("/line", LineOf);
        compute.MapPost("/straddle", StraddleOf);
        compute.MapPost("/success-rate", SuccessRateOf);
        compute.MapPost("/landmarks", LandmarksOf);
        compute.MapPost("/breaths", BreathsOf);
        compute.MapPost("/blocks", BlocksOf);
        compute.MapPost("/asymmetry", AsymmetryOf);
    }

    /// <summary>Two sides that one coach reads in one sitting.</summary>
    private static Ok<AsymmetryResponse> AsymmetryOf(AsymmetryRequest request)
    {
        static Estimate Of(EstimateRequest side) => new(side.Value, side.StandardError);
        var (change, weaker) = Asymmetry.Between(Of(request.Left), Of(request.Right), request.Better);
        return TypedResults.Ok(new AsymmetryResponse(change.Difference, change.Mdc95, change.Detectable, weaker));
    }

    private static Results<Ok<SplitAngleResponse>, ProblemHttpResult> SplitAngleOf(SplitAngleRequest request)
    {
        var angle = SplitAngle.FromGap(request.GapCm, request.FrontLegCm, request.BackLegCm);
        return angle.IsOk ? TypedResults.Ok(new SplitAngleResponse(angle.Value)) : Problems.Unprocessable(angle.Problems);
    }

    private static Results<Ok<LineResponse>, ProblemHttpResult> LineOf(LineRequest request)
    {
        var named = new[] { (request.Wrist, "wrist"), (request.Shoulder, "shoulder"), (request.Hip, "hip"), (request.Ankle, "ankle") };
        var problems = named.Where(p => p.Item1.Count != 2).Select(p => Problem.Of("pointNeedsTwo", p.Item2)).ToList();
        if (request.Horizon is { } h && (h.Count != 2 || h.Any(p => p.Count != 2)))
            problems.Add(Problem.Of("pointNeedsTwo", "horizon"));
        if (problems.Count > 0)
            return Problems.Unprocessable(problems);
        var tilt = request.Horizon is { } horizon ? LineDeviation.Tilt(Point(horizon[0]), Point(horizon[1])) : 0.0;
        if (!tilt.IsOk)
            return Problems.Unprocessable(tilt.Problems);
        var line = LineDeviation.Handstand(
            Point(request.Wrist),
            Point(request.Shoulder),
            Point(request.Hip),
            Point(request.Ankle),
            tilt.Value,
            request.Facing ?? Facing.Left
        );
        return line.IsOk
            ? TypedResults.Ok(new LineResponse(line.Value.ShoulderDeg!.Value, line.Value.HipDeg, line.Value.LeanDeg, line.Value.LineDeg))
            : Problems.Unprocessable(line.Problems);
    }

    private static PlanePoint Point(IReadOnlyList<double> point) => new(point[0], point[1]);

    private static Results<Ok<StraddleResponse>, ProblemHttpResult> StraddleOf(StraddleRequest request)
    {
        var width = request.HipWidthCm ?? Straddle.DefaultHipWidthCm;
        var angle = Straddle.Angle(request.LeftLegCm, request.RightLegCm, request.HeelDistanceCm, width);
        if (!angle.IsOk)
            return Problems.Unprocessable(angle.Problems);
        var gap = Straddle.ExpectedGap(request.LeftLegCm, request.RightLegCm, request.HeelDistanceCm, width);
        return TypedResults.Ok(new StraddleResponse(angle.Value, gap.Value));
    }

    private static Results<Ok<SuccessRateResponse>, ProblemHttpResult> SuccessRateOf(SuccessRateRequest request)
    {
        var rate = SuccessRate.Of(request.Successes, request.Attempts);
        return rate.IsOk
            ? TypedResults.Ok(new SuccessRateResponse(rate.Value.Share, rate.Value.Lower95, rate.Value.Upper95))
            : Problems.Unprocessable(rate.Problems);
    }

    private static Results<Ok<PlacementAngles>, ProblemHttpResult> LandmarksOf(LandmarksRequest request, CatalogueContent catalogue)
    {
        if (catalogue.FindPicture(request.View) is not { } protocol)
            return Problems.Unprocessable([Problem.Of("unknownView", "view")]);
        var angles = PictureReading.Of(protocol, request.Placement);
        return angles.IsOk ? TypedResults.Ok(angles.Value) : Problems.Unprocessable(angles.Problems);
    }

    /// <summary>Breaths to seconds, or seconds to breaths: exactly one of the two is given.</summary>
    private static Results<Ok<BreathsResponse>, ProblemHttpResult> BreathsOf(BreathsRequest request)
    {
        if (request.Breaths is null == request.Seconds is null)
            return Problems.Unprocessable([Problem.Of("oneOfTwo", "breaths")]);
        var converted = request.Breaths is { } breaths
            ? Breaths.ToSeconds(breaths, request.BreathSeconds)
            : Breaths.FromSeconds(request.Seconds!.Value, request.BreathSeconds);
        return converted.IsOk
            ? TypedResults.Ok(new BreathsResponse(request.Breaths ?? converted.Value, request.Seconds ?? converted.Value))
            : Problems.Unprocessable(converted.Problems);
    }

    private static async Task<Results<Ok<BlocksResponse>, ProblemHttpResult>> BlocksOf(
        BlocksRequest request,
        StudioMeasures measures,
        CancellationToken ct
    )
    {
        var height = BlockFaces.ToCm(request.Stack, await measures.Blocks(ct));
        return height.IsOk
            ? TypedResults.Ok(new BlocksResponse(height.Value.Cm, height.Value.ResolutionCm))
            : Problems.Unprocessable(height.Problems);
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

    private static List<Problem> Check(RomTestRequest request, DateTimeOffset now) =>
        [
            .. request.Readings.Index().Where(r => r.Item.At > now).Select(r => Problem.Of("readingInFuture", $"readings[{r.Index}].at")),
            .. request
                .Readings.Index()
                .Where(r => r.Item.Trials.Count == 0)
                .Select(r => Problem.Of("trialsCount", $"readings[{r.Index}].trials", ("count", 0), ("most", TrialCheck.MostTrials))),
        ];
}
