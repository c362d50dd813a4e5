using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Server.Data;
using Tensarch.Server.Hosting;

namespace Tensarch.Server.Measuring;

/// <param name="View">The measure, or the view, that it shows.</param>
/// <param name="Marks">Newest first.</param>
public sealed record PictureItem(
    Guid Id,
    string View,
    int Width,
    int Height,
    DateTimeOffset TakenAt,
    string By,
    IReadOnlyList<MarkView> Marks
);

public sealed record MarkView(Guid Id, Placement Placement, PlacementAngles Angles, DateTimeOffset At);

public sealed record MarkRequest(Guid Id, Placement Placement);

public sealed record PicturePage(IReadOnlyList<PictureItem> Pictures, string? Next);

public static class PictureEndpoints
{
    private const int PageSize = 24;
    private const int MostMarks = 5;

    public static void MapPictures(this IEndpointRouteBuilder api)
    {
        var pictures = api.MapGroup("/students/{studentId}/pictures").WithTags("Measuring");
        pictures.MapGet("/", List);
        pictures
            .MapPost("/", Keep)
            .WithMetadata(new RequestSizeLimitAttribute(PictureFiles.MostBytes + 1024))
            .Produces<PictureItem>(201)
            .Produces<PictureItem>();
        pictures.MapGet("/{pictureId}", Read);
        pictures.MapGet("/{pictureId}/image", Image);
        pictures.MapPost("/{pictureId}/marks", Mark).Produces<MarkView>(201).Produces<MarkView>();
    }

    private static async Task<Ok<PicturePage>> List(
        Guid studentId,
        TensarchDb db,
        CatalogueContent catalogue,
        CancellationToken ct,
        string? view = null,
        string? before = null
    )
    {
        var query = db.Pictures.AsNoTracking().Where(p => p.StudentId == studentId && (view == null || p.View == view));
        if (Cursor.Parse(before) is { } last)
            query = query.Where(p => p.TakenAt <= last.At && (p.TakenAt < last.At || p.Id.CompareTo(last.Id) < 0));
        var rows = await query.OrderByDescending(p => p.TakenAt).ThenByDescending(p => p.Id).Take(PageSize + 1).ToListAsync(ct);
        var page = rows.Take(PageSize).ToList();
        return TypedResults.Ok(
            new PicturePage(
                await Views(page, db, catalogue, ct),
                rows.Count > PageSize ? new Cursor(page[^1].TakenAt, page[^1].Id).ToString() : null
            )
        );
    }

    private static async Task<List<PictureItem>> Views(
        IReadOnlyList<PictureRow> rows,
        TensarchDb db,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var ids = rows.Select(r => r.Id).ToList();
        var marks = await db.Marks.AsNoTracking().Where(m => ids.Contains(m.PictureId)).OrderByDescending(m => m.At).ToListAsync(ct);
        var names = await db.Users.AsNoTracking().ToDictionaryAsync(u => u.Id, u => u.DisplayName, ct);
        return
        [
            .. rows.Select(r => new PictureItem(
                r.Id,
                r.View,
                r.Width,
                r.Height,
                r.TakenAt,
                names.GetValueOrDefault(r.By, ""),
                [
                    .. marks
                        .Where(m => m.PictureId == r.Id)
                        .Take(MostMarks)
                        .Select(m => View(m, catalogue.FindPicture(r.View)))
                        .OfType<MarkView>(),
                ]
            )),
        ];
    }

    /// <summary>None where what is stored cannot be read off this picture any more.</summary>
    private static MarkView? View(MarkRow mark, PictureProtocol? protocol) =>
        protocol is not null
        && StoredJson.TryRead<Placement>(mark.PlacementJson) is { } placement
        && PictureReading.Of(protocol, placement) is { IsOk: true } angles
            ? new(mark.Id, placement, angles.Value, mark.At)
            : null;

    private static async Task<Results<Ok<PictureItem>, ProblemHttpResult>> Read(
        Guid studentId,
        Guid pictureId,
        TensarchDb db,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var row = await db.Pictures.AsNoTracking().SingleAsync(p => p.Id == pictureId, ct);
        return TypedResults.Ok((await Views([row], db, catalogue, ct))[0]);
    }

    /// <summary>Not shown once the consent to it was withdrawn.</summary>
    private static async Task<Results<PhysicalFileHttpResult, ProblemHttpResult>> Image(
        Guid studentId,
        Guid pictureId,
        PictureFiles files,
        PictureDesk desk,
        StudioScope scope,
        CancellationToken ct
    )
    {
        if (await desk.Consented(studentId, ct) == false)
            return Problems.Of(409, "noPictureConsent");
        var path = files.PathOf(scope.StudioId, pictureId);
        return File.Exists(path) ? TypedResults.PhysicalFile(path, PictureFiles.ContentType) : Problems.NotFound();
    }

    /// <summary>The body is the picture itself: PNG, JPEG or WebP, at most 10 MiB, judged by its content.</summary>
    private static async Task<IResult> Keep(
        Guid studentId,
        [FromQuery] Guid id,
        [FromQuery] string view,
        Stream picture,
        PictureDesk desk,
        TensarchDb db,
        CatalogueContent catalogue,
        CancellationToken ct,
        [FromQuery] DateTimeOffset? takenAt = null
    )
    {
        using var upload = new MemoryStream();
        var buffer = new byte[64 * 1024];
        for (int read; upload.Length <= PictureFiles.MostBytes && (read = await picture.ReadAsync(buffer, ct)) > 0; )
            upload.Write(buffer, 0, read);
        var kept = await desk.Keep(studentId, id, view, takenAt, upload.ToArray(), ct);
        if (!kept.IsOk)
            return Problems.Unprocessable(kept.Problems);
        var (row, appended) = kept.Value;
        return appended == Appended.Clash
            ? Problems.IdTaken()
            : Problems.Respond(appended, $"/api/v1/students/{studentId}/pictures/{id}", (await Views([row], db, catalogue, ct))[0]);
    }

    private static async Task<IResult> Mark(
        Guid studentId,
        Guid pictureId,
        MarkRequest request,
        PictureDesk desk,
        TensarchDb db,
        CatalogueContent catalogue,
        CancellationToken ct
    )
    {
        var picture = await db.Pictures.AsNoTracking().SingleAsync(p => p.Id == pictureId, ct);
        var marked = await desk.Mark(picture, request, ct);
        if (!marked.IsOk)
            return Problems.Unprocessable(marked.Problems);
        var (row, appended) = marked.Value;
        return Problems.Respond(
            appended,
            $"/api/v1/students/{studentId}/pictures/{pictureId}",
            View(row, catalogue.FindPicture(picture.View))
        );
    }
}
