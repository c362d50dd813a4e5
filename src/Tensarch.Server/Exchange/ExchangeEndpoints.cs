using System.Text;
using CsvHelper;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Exchange;

public static class ExchangeEndpoints
{
    private static readonly UTF8Encoding Utf8 = new(encoderShouldEmitUTF8Identifier: false, throwOnInvalidBytes: true);

    public static void MapExchange(this IEndpointRouteBuilder api)
    {
        var size = new RequestSizeLimitAttribute(ReadingImport.MostBytes);
        api.MapGet("/exchange/readings", (TensarchDb db, StudioClock clock) => Export(null, db, clock)).WithTags("Exchange");
        api.MapPost("/exchange/readings", ImportStudio).WithMetadata(size).WithTags("Exchange");
        api.MapGet(
                "/students/{studentId}/exchange/readings",
                (Guid studentId, TensarchDb db, StudioClock clock) => Export(studentId, db, clock)
            )
            .WithTags("Exchange");
        api.MapPost("/students/{studentId}/exchange/readings", ImportStudent).WithMetadata(size).WithTags("Exchange");
    }

    /// <summary>All readings, void ones too, oldest first, written as they are read from the database.</summary>
    private static PushStreamHttpResult Export(Guid? studentId, TensarchDb db, StudioClock clock) =>
        TypedResults.Stream(
            async stream =>
            {
                var users = await db.Users.AsNoTracking().ToDictionaryAsync(u => u.Id, u => u.Email ?? "");
                var rows = db
                    .Readings.AsNoTracking()
                    .Include(r => r.Void)
                    .Where(r => studentId == null || r.StudentId == studentId)
                    .OrderBy(r => r.TakenAt)
                    .ThenBy(r => r.Id)
                    .Join(db.Students, r => r.StudentId, s => s.Id, (r, s) => new { Reading = r, s.Name });
                await using var writer = new StreamWriter(stream, Utf8, leaveOpen: true);
                await using var csv = new CsvWriter(writer, ReadingCsv.Configuration);
                await Line(csv, ReadingCsv.Columns);
                await foreach (var row in rows.AsAsyncEnumerable())
                    await Line(csv, ReadingCsv.Cells(row.Reading, row.Name, users.GetValueOrDefault(row.Reading.TakenBy, "")));
            },
            ReadingCsv.ContentType,
            $"readings-{clock.Today:yyyy-MM-dd}.csv"
        );

    private static async Task Line(CsvWriter csv, IReadOnlyList<string> cells)
    {
        foreach (var cell in cells)
            csv.WriteField(cell);
        await csv.NextRecordAsync();
    }

    private static Task<Results<Ok<ImportReport>, ProblemHttpResult>> ImportStudio(
        Stream file,
        ReadingImport import,
        CancellationToken ct,
        [FromQuery] bool apply = false,
        [FromQuery] bool acceptUnlikely = false
    ) => Import(null, file, import, apply, acceptUnlikely, ct);

    private static Task<Results<Ok<ImportReport>, ProblemHttpResult>> ImportStudent(
        Guid studentId,
        Stream file,
        ReadingImport import,
        CancellationToken ct,
        [FromQuery] bool apply = false,
        [FromQuery] bool acceptUnlikely = false
    ) => Import(studentId, file, import, apply, acceptUnlikely, ct);

    private static async Task<Results<Ok<ImportReport>, ProblemHttpResult>> Import(
        Guid? studentId,
        Stream file,
        ReadingImport import,
        bool apply,
        bool acceptUnlikely,
        CancellationToken ct
    )
    {
        string text;
        try
        {
            using var reader = new StreamReader(file, Utf8);
            text = await reader.ReadToEndAsync(ct);
        }
        catch (DecoderFallbackException)
        {
            return Problems.Of(422, "notUtf8", new Core.Problem("notUtf8", "file"));
        }
        var report = await import.Run(studentId, text, apply, acceptUnlikely, ct);
        return report.IsOk ? TypedResults.Ok(report.Value) : Problems.Unprocessable(report.Problems);
    }
}
