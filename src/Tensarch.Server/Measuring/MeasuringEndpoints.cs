using System.Linq.Expressions;
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
    private const int PointsPage = 200;

    public static void MapMeasuring(this IEndpointRouteBuilder api)
    {
        api.MapSittings();
        api.MapOwnMeasures();
        api.MapPictures();
        api.MapInstruments();
        api.MapGet("/readings", Studio).WithTags("Measuring");
        var readings = api.MapGroup("/students/{studentId}/readings").WithTags("Measuring");
        readings.MapGet("/", List);
        readings.MapPost("/", Take).Produces<ReadingView>(201).Produces<ReadingView>();
        readings.MapPost("/preview", Preview).WithMetadata(new ReadsOnly());
        readings.MapPost("/{readingId}/void", Void);
        var series = api.MapGroup("/students/{studentId}/series").WithTags("Measuring");
        series.MapGet("/", Series);
        series.MapGet("/{measure}", Points);
    }

    /// <summary>Newest first, of the whole studio.</summary>
    private static async Task<Ok<ReadingPage>> Studio(
        TensarchDb db,
        CancellationToken ct,
        string? measure = null,
        Guid? takenBy = null,
        string? before = null
    )
    {
        var query = db.Readings.AsNoTracking();
        if (takenBy is { } coach)
            query = query.Where(r => r.TakenBy == coach);
        var rows = await Newest(query, measure, before)
            .Join(db.Students, r => r.StudentId, s => s.Id, (r, s) => new { Reading = r, s.Name })
            .OrderByDescending(r => r.Reading.TakenAt)
            .ThenByDescending(r => r.Reading.Id)
            .ToListAsync(ct);
        return TypedResults.Ok(
            PageOf(
                rows.Select(r => r.Reading),
                rows.Select(r => ReadingViews.ToView(r.Reading) with { Student = new(r.Reading.StudentId, r.Name) })
            )
        );
    }

    /// <summary>Newest first, of one student.</summary>
    private static async Task<Ok<ReadingPage>> List(
        Guid studentId,
        TensarchDb db,
        CancellationToken ct,
        string? measure = null,
        string? before = null
    )
    {
        var rows = await Newest(db.Readings.AsNoTracking().Where(r => r.StudentId == studentId), measure, before).ToListAsync(ct);
        return TypedResults.Ok(PageOf(rows, rows.Select(ReadingViews.ToView)));
    }

    /// <summary>One row more than a page, newest first; the instant and the id together are the key of the page.</summary>
    private static IQueryable<ReadingRow> Newest(IQueryable<ReadingRow> query, string? measure, string? before)
    {
        if (measure is not null)
            query = query.Where(r => r.Measure == measure);
        if (Cursor.Parse(before) is { } last)
            query = query.Where(Before(last));
        return query.Include(r => r.Void).OrderByDescending(r => r.TakenAt).ThenByDescending(r => r.Id).Take(PageSize + 1);
    }

    private static Expression<Func<ReadingRow, bool>> Before(Cursor last) =>
        r => r.TakenAt <= last.At && (r.TakenAt < last.At || r.Id.CompareTo(last.Id) < 0);

    private static ReadingPage PageOf(IEnumerable<ReadingRow> rows, IEnumerable<ReadingView> views)
    {
        var all = rows.ToList();
        return new(
            [.. views.Take(PageSize)],
            all.Count > PageSize ? new Cursor(all[PageSize - 1].TakenAt, all[PageSize - 1].Id).ToString() : null
        );
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
        ReadingRequest request,
        ReadingPreviews previews,
        CancellationToken ct
    )
    {
        var preview = await previews.Preview(studentId, request, ct);
        return preview.IsOk ? TypedResults.Ok(preview.Value) : Problems.Unprocessable(preview.Problems);
    }

    private static async Task<IResult> Void(Guid studentId, Guid readingId, VoidRequest request, ReadingDesk desk, CancellationToken ct)
    {
        var result = await desk.Void(readingId, request, ct);
        return result.IsOk
            ? Problems.Respond(result.Value, $"/api/v1/students/{studentId}/readings", new { Id = readingId })
            : Problems.Unprocessable(result.Problems);
    }

    /// <summary>A student's series of the last 400 days, each with its last value and the change before it.</summary>
    private static async Task<Ok<SeriesList>> Series(
        Guid studentId,
        TensarchDb db,
        CatalogueContent catalogue,
        StudioClock clock,
        CancellationToken ct
    )
    {
        var since = clock.Now.AddDays(-400);
        var rows = await db
            .Readings.AsNoTracking()
            .Where(r => r.StudentId == studentId && r.TakenAt >= since && r.Void == null && !r.Disqualified)
            .Sound()
            .OrderByDescending(r => r.TakenAt)
            .ThenByDescending(r => r.Id)
            .Select(r => new
            {
                Series = new
                {
                    r.Measure,
                    r.Side,
                    r.Level,
                    r.Warmth,
                    r.Standard,
                },
                Estimate = new Estimate(r.Value, r.StandardError),
                r.TakenAt,
                r.TakenBy,
            })
            .ToListAsync(ct);
        var order = catalogue.Measures.Index().ToDictionary(m => m.Item.Key, m => m.Index);
        var lines =
            from same in rows.GroupBy(r => r.Series)
            let last = same.First()
            let before = same.Skip(1).FirstOrDefault()
            let change = before is null ? (Change?)null : Change.Between(before.Estimate, last.Estimate, before.TakenBy == last.TakenBy)
            orderby order.GetValueOrDefault(same.Key.Measure, int.MaxValue), same.Key.Warmth, same.Key.Level, same.Key.Side
            select new SeriesLine(
                same.Key.Measure,
                same.Key.Side,
                same.Key.Level,
                same.Key.Warmth,
                same.Key.Standard,
                same.Count(),
                last.Estimate.Value,
                last.Estimate.StandardError,
                last.TakenAt,
                change?.Difference,
                change?.Mdc95,
                change?.Detectable
            );
        return TypedResults.Ok(new SeriesList([.. lines]));
    }

    /// <summary>Both sides of one measure at one level, warmth and standard, newest first.</summary>
    private static async Task<Results<Ok<SeriesPoints>, ProblemHttpResult>> Points(
        Guid studentId,
        string measure,
        TensarchDb db,
        Standings standings,
        CatalogueContent catalogue,
        CancellationToken ct,
        string warmth = "warm",
        string? level = null,
        string? standard = null,
        string? before = null
    )
    {
        if (catalogue.FindMeasure(measure) is null)
            return Problems.NotFound();
        if (!Enum.TryParse<Warmth>(warmth, ignoreCase: true, out var read))
            return Problems.Unprocessable([Problem.Of("unknownWord", "warmth")]);
        var query = db
            .Readings.AsNoTracking()
            .Where(r => r.StudentId == studentId && r.Measure == measure && r.Warmth == read)
            .Where(r => r.Level == level && r.Standard == standard && r.Void == null && !r.Disqualified)
            .Sound();
        if (Cursor.Parse(before) is { } last)
            query = query.Where(Before(last));
        var rows = await query.OrderByDescending(r => r.TakenAt).ThenByDescending(r => r.Id).Take(PointsPage + 1).ToListAsync(ct);
        var standing = (await standings.Of(studentId, ct))!;
        var gate = new Gate(catalogue);
        var lines =
            from followed in standing.State.Courses
            from verdict in followed.Judge(gate)
            from test in verdict.Tests
            let rom = test.Test as RomCriterion
            where rom is not null && rom.Measure == measure && rom.Warmth == read && rom.Level == level && test.Threshold is not null
            select new BenchNeed(
                followed.Skill,
                test.ReadOn ?? verdict.Side,
                verdict.Stage,
                rom.Comparison,
                test.Threshold!.Value,
                rom.MinTrials,
                test.Outcome
            );
        return TypedResults.Ok(
            new SeriesPoints(
                [
                    .. rows.Take(PointsPage)
                        .Select(r =>
                        {
                            var rate = r is { Successes: { } k, Attempts: { } n } ? SuccessRate.Of(k, n).Value : null;
                            return new SeriesPoint(r.Id, r.Side, r.TakenAt, r.Value, r.StandardError, rate?.Lower95, rate?.Upper95);
                        }),
                ],
                [.. lines.Distinct()],
                rows.Count > PointsPage ? new Cursor(rows[PointsPage - 1].TakenAt, rows[PointsPage - 1].Id).ToString() : null
            )
        );
    }
}
