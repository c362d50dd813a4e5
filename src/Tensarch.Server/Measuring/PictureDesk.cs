using System.Security.Cryptography;
using Microsoft.EntityFrameworkCore;
using Tensarch.Core;
using Tensarch.Core.Catalogue;
using Tensarch.Core.Measuring;
using Tensarch.Core.Students;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>Keeps side pictures and the landmarks placed on them. The demo goes through here as the screens do.</summary>
public sealed class PictureDesk(TensarchDb db, CatalogueContent catalogue, PictureFiles files, StudioClock clock, StudioScope scope)
{
    public async Task<Result<(PictureRow Row, Appended Appended)>> Keep(
        Guid studentId,
        Guid id,
        string view,
        DateTimeOffset? takenAt,
        byte[] upload,
        CancellationToken ct
    )
    {
        if (catalogue.FindPicture(view) is null)
            return Problem.Of("unknownView", "view");
        if (takenAt > clock.Now)
            return Problem.Of("dateInFuture", "takenAt");
        if (await Consented(studentId, ct) != true)
            return Problem.Of("noPictureConsent", "consent");
        var clean = PictureFiles.Clean(upload);
        if (!clean.IsOk)
            return clean.Problems.ToList();
        var row = new PictureRow
        {
            Id = id,
            StudentId = studentId,
            View = view,
            Width = clean.Value.Width,
            Height = clean.Value.Height,
            TakenAt = takenAt ?? clock.Now,
            At = clock.Now,
            By = scope.UserId,
        };
        var body = new
        {
            studentId,
            view,
            Upload = Convert.ToHexString(SHA256.HashData(upload)),
        };
        var appended = await db.Pictures.AddFact(row, body, ct);
        return (row, appended == Appended.Stored ? await Store(row, clean.Value.Bytes, ct) : appended);
    }

    /// <summary>What the student last said of being pictured; none while it was not asked.</summary>
    public async Task<bool?> Consented(Guid studentId, CancellationToken ct) =>
        await db
            .Consents.Where(c => c.StudentId == studentId && c.Kind == ConsentKind.Pictures)
            .OrderByDescending(c => c.At)
            .Select(c => (bool?)c.Given)
            .FirstOrDefaultAsync(ct);

    /// <summary>
    /// The file is written whole beside its place, the row is kept, and then the file takes its place: whoever comes second finds the id
    /// taken and never touches the first one's file.
    /// </summary>
    private async Task<Appended> Store(PictureRow row, byte[] bytes, CancellationToken ct)
    {
        using var draft = await files.Draft(scope.StudioId, row.Id, row.BodyHash, bytes, ct);
        var appended = await db.SaveFact(Appended.Stored, ct);
        if (appended == Appended.Stored)
            draft.Place();
        return appended;
    }

    /// <summary>Keeps placed landmarks with what the core reads from them.</summary>
    public async Task<Result<(MarkRow Row, Appended Appended)>> Mark(PictureRow picture, MarkRequest request, CancellationToken ct)
    {
        var placement = request.Placement;
        var angles = PictureReading.Of(catalogue.FindPicture(picture.View)!, placement);
        if (!angles.IsOk)
            return angles.Problems.ToList();
        if (placement.Points.Concat(placement.Horizon ?? []).Any(p => p.X < 0 || p.Y < 0 || p.X > picture.Width || p.Y > picture.Height))
            return Problem.Of("outsidePicture", "points");
        var row = new MarkRow
        {
            Id = request.Id,
            StudentId = picture.StudentId,
            PictureId = picture.Id,
            PlacementJson = StoredJson.Write(placement),
            Value = angles.Value.Value,
            At = clock.Now,
            By = scope.UserId,
        };
        var appended = await db.Marks.AddFact(row, new { picture.Id, request }, ct);
        return (row, await db.SaveFact(appended, ct));
    }
}
