using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Skills;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;
using Tensarch.Server.Skills;

namespace Tensarch.Server.Measuring;

public static class MeasuringEndpoints
{
    private const int PageSize = 50;

    public static void MapMeasuring(this IEndpointRouteBuilder api)
    {
        api.MapGet("/students/{studentId}/bench", Bench).WithTags("Measuring");
        var readings = api.MapGroup("/students/{studentId}/readings").WithTags("Measuring");
        readings.MapGet("/", List);
        readings.MapPost("/", Take).Produces<ReadingView>(201).Produces<ReadingView>();
        readings.MapPost("/preview", Preview).WithMetadata(new ReadsOnly());
        readings.MapPost("/{readingId}/void", Void);
    }

    private static async Task<Ok<BenchResponse>> Bench(
        Guid studentId,
        TensarchDb db,
        Standings standings,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var standing = (await standings.Of(studentId, SkillEndpoints.FrontSplit, ct))!;
        var ladder = standing.Ladder ?? catalogue.NewestLadder(SkillEndpoints.FrontSplit)!;
        var measures = catalogue.MeasuresOf(ladder);
        var keys = measures.Select(m => m.Key).ToList();
        var lastIds = db
            .Readings.Where(r => r.StudentId == studentId && keys.Contains(r.Measure) && r.Void == null)
            .GroupBy(r => new
            {
                r.Measure,
                r.Side,
                r.Warmth,
                r.Standard,
            })
            .Select(g => g.OrderByDescending(r => r.TakenAt).Select(r => r.Id).First());
        var last = await db.Readings.AsNoTracking().Where(r => lastIds.Contains(r.Id)).ToListAsync(ct);
        var gate = new Gate(catalogue);
        var verdicts = standing.Ladder is null ? [] : SideExtensions.Both.Select(s => standing.Judge(gate, s)).ToList();

        return TypedResults.Ok(
            new BenchResponse(
                studentId,
                standing.Student.Name,
                standing.Student.SplitStandard,
                standing.Student.LeftLegCm,
                standing.Student.RightLegCm,
                standing.Ladder is not null,
                [.. measures.Select(m => new BenchMeasure(m.Key, [.. SideExtensions.Both.Select(s => SideOf(m, s))]))]
            )
        );

        BenchSide SideOf(Measure measure, Side side)
        {
            var standard = measure.Standards.Count > 0 ? standing.Student.SplitStandard : null;
            ReadingView? Last(Warmth warmth) =>
                last.FirstOrDefault(r => r.Measure == measure.Key && r.Side == side && r.Warmth == warmth && r.Standard == standard)
                    is { } row
                    ? ReadingViews.ToView(row)
                    : null;
            var recent = standing
                .Evidence.Of(measure, side, Warmth.Warm)
                .Where(r => !r.Disqualified && standing.Evidence.Now - r.At <= TimeSpan.FromDays(measure.ShelfDays))
                .OrderByDescending(r => r.At)
                .Select(r => new RecentReading(r.At, r.Trials));
            var needs =
                from verdict in verdicts
                from test in verdict.Tests
                let rom = test.Test as RomCriterion
                where rom is not null && rom.Measure == measure.Key && test.ReadOn == side
                select new BenchNeed(verdict.Side, verdict.Stage, rom.Comparison, rom.Threshold, rom.MinTrials, test.Outcome);
            return new(side, Last(Warmth.Warm), Last(Warmth.Cold), [.. recent], [.. needs]);
        }
    }

    /// <summary>Newest first; pages by the instant of the last one shown.</summary>
    private static async Task<Ok<ReadingPage>> List(
        Guid studentId,
        TensarchDb db,
        CancellationToken ct,
        string? measure = null,
        long? before = null
    )
    {
        var query = db.Readings.AsNoTracking().Include(r => r.Void).Where(r => r.StudentId == studentId);
        if (measure is not null)
            query = query.Where(r => r.Measure == measure);
        if (before is { } ticks)
        {
            var instant = new DateTimeOffset(Math.Clamp(ticks, 0, DateTime.MaxValue.Ticks), TimeSpan.Zero);
            query = query.Where(r => r.TakenAt < instant);
        }
        var rows = await query.OrderByDescending(r => r.TakenAt).Take(PageSize + 1).ToListAsync(ct);
        var page = rows.Take(PageSize).Select(ReadingViews.ToView).ToList();
        return TypedResults.Ok(new ReadingPage(page, rows.Count > PageSize ? page[^1].TakenAt.UtcTicks : null));
    }

    private static async Task<IResult> Take(Guid studentId, ReadingRequest request, ReadingDesk desk, CancellationToken ct)
    {
        var taken = await desk.Take(studentId, request, ct);
        return taken.IsOk
            ? Problems.Respond(taken.Value.Appended, $"/api/v1/students/{studentId}/readings", ReadingViews.ToView(taken.Value.Row))
            : Problems.Unprocessable(taken.Problems);
    }

    private static async Task<Results<Ok<PreviewResponse>, ProblemHttpResult>> Preview(
        Guid studentId,
        PreviewRequest request,
        ReadingDesk desk,
        CancellationToken ct
    )
    {
        var preview = await desk.Preview(studentId, request, ct);
        return preview.IsOk ? TypedResults.Ok(preview.Value) : Problems.Unprocessable(preview.Problems);
    }

    private static async Task<IResult> Void(Guid studentId, Guid readingId, VoidRequest request, ReadingDesk desk, CancellationToken ct)
    {
        var result = await desk.Void(readingId, request, ct);
        return result.IsOk
            ? Problems.Respond(result.Value, $"/api/v1/students/{studentId}/readings", new { Id = readingId })
            : Problems.Unprocessable(result.Problems);
    }
}
