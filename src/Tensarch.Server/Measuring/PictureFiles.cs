using Microsoft.EntityFrameworkCore;
using SkiaSharp;
using Tensarch.Core;
using Tensarch.Server.Data;

namespace Tensarch.Server.Measuring;

/// <summary>A picture after it was read, turned upright, and written anew without anything but its pixels.</summary>
public sealed record CleanPicture(byte[] Bytes, int Width, int Height);

/// <summary>Side pictures as files beside the database, one folder a studio, out of the web root.</summary>
public sealed class PictureFiles(string folder)
{
    public const int MostBytes = 10 * 1024 * 1024;
    public const string ContentType = "image/webp";
    private const long MostPixels = 50_000_000;
    private const int LongestSide = 2400;
    private const int Quality = 88;

    /// <summary>Checks a picture by its content, not its name, and re-encodes it, which leaves every metadata behind.</summary>
    /// <returns>Or <c>pictureTooLarge</c>, <c>notAPicture</c> at <c>picture</c>.</returns>
    public static Result<CleanPicture> Clean(byte[] upload)
    {
        if (upload.Length > MostBytes)
            return Problem.Of("pictureTooLarge", "picture", ("mostMiB", MostBytes / 1024 / 1024));
        using var data = SKData.CreateCopy(upload);
        using var codec = SKCodec.Create(data);
        if (codec?.EncodedFormat is not (SKEncodedImageFormat.Png or SKEncodedImageFormat.Jpeg or SKEncodedImageFormat.Webp))
            return Problem.Of("notAPicture", "picture");
        if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
            return Problem.Of("pictureTooLarge", "picture", ("mostMegapixels", MostPixels / 1_000_000));
        using var bitmap = new SKBitmap(new SKImageInfo(codec.Info.Width, codec.Info.Height, SKColorType.Rgba8888, SKAlphaType.Premul));
        // A file that breaks off in its middle is refused rather than half kept.
        if (codec.GetPixels(bitmap.Info, bitmap.GetPixels()) != SKCodecResult.Success)
            return Problem.Of("notAPicture", "picture");
        using var upright = Upright(bitmap, codec.EncodedOrigin);
        using var image = SKImage.FromBitmap(upright);
        using var encoded = image.Encode(SKEncodedImageFormat.Webp, Quality);
        return new CleanPicture(encoded.ToArray(), upright.Width, upright.Height);
    }

    /// <summary>Turned as the camera was held, and no larger than is useful for placing landmarks.</summary>
    private static SKBitmap Upright(SKBitmap source, SKEncodedOrigin origin)
    {
        var sideways =
            origin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom or SKEncodedOrigin.LeftBottom;
        var (width, height) = sideways ? (source.Height, source.Width) : (source.Width, source.Height);
        var scale = Math.Min(1f, (float)LongestSide / Math.Max(width, height));
        var target = new SKBitmap(
            new SKImageInfo(
                Math.Max(1, (int)Math.Round(width * scale)),
                Math.Max(1, (int)Math.Round(height * scale)),
                SKColorType.Rgba8888,
                SKAlphaType.Premul
            )
        );
        using var canvas = new SKCanvas(target);
        canvas.Clear(SKColors.White);
        canvas.Scale((float)target.Width / width, (float)target.Height / height);
        var (turned, mirrored) = origin switch
        {
            SKEncodedOrigin.TopRight => (0, true),
            SKEncodedOrigin.BottomRight => (180, false),
            SKEncodedOrigin.BottomLeft => (180, true),
            SKEncodedOrigin.LeftTop => (90, true),
            SKEncodedOrigin.RightTop => (90, false),
            SKEncodedOrigin.RightBottom => (270, true),
            SKEncodedOrigin.LeftBottom => (270, false),
            _ => (0, false),
        };
        canvas.Translate(width / 2f, height / 2f);
        canvas.RotateDegrees(turned);
        if (mirrored)
            canvas.Scale(-1, 1);
        canvas.Translate(-source.Width / 2f, -source.Height / 2f);
        using var image = SKImage.FromBitmap(source);
        canvas.DrawImage(image, 0, 0, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear));
        return target;
    }

    public string PathOf(Guid studioId, Guid pictureId) => Path.Combine(folder, studioId.ToString("N"), $"{pictureId:N}.webp");

    /// <summary>Writes a picture whole beside its place, where nobody finds it yet.</summary>
    /// <param name="hash">Of its row: after a crash it tells whose the draft was.</param>
    public async Task<PictureDraft> Draft(Guid studioId, Guid pictureId, string hash, byte[] bytes, CancellationToken ct)
    {
        var path = PathOf(studioId, pictureId);
        Directory.CreateDirectory(Path.GetDirectoryName(path)!);
        var draft = new PictureDraft($"{path}.{hash}.{Guid.NewGuid():N}{PictureDraft.Extension}", path);
        try
        {
            await using var file = new FileStream(draft.Written, FileMode.CreateNew, FileAccess.Write);
            await file.WriteAsync(bytes, ct);
            file.Flush(flushToDisk: true);
            return draft;
        }
        catch
        {
            draft.Dispose();
            throw;
        }
    }

    /// <summary>After a crash: a draft whose row was kept takes its place, every other one is taken away. No picture is ever deleted.</summary>
    public async Task Recover(IServiceProvider services)
    {
        if (!Directory.Exists(folder))
            return;
        var drafts = Directory.EnumerateFiles(folder, "*" + PictureDraft.Extension, SearchOption.AllDirectories).ToList();
        if (drafts.Count == 0)
            return;
        await using var scope = services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<TensarchDb>();
        foreach (var written in drafts)
        {
            var parts = Path.GetFileName(written).Split('.');
            var hash = parts.ElementAtOrDefault(2) ?? "";
            var place = Path.Combine(Path.GetDirectoryName(written)!, $"{parts[0]}.webp");
            var kept =
                Guid.TryParse(parts[0], out var id)
                && await db.Pictures.IgnoreQueryFilters().AnyAsync(p => p.Id == id && p.BodyHash == hash);
            if (kept && !File.Exists(place))
                File.Move(written, place);
            else
                File.Delete(written);
        }
    }
}

/// <summary>A picture on its way to its place: gone when it is given up before it got there.</summary>
public sealed class PictureDraft(string written, string place) : IDisposable
{
    public const string Extension = ".part";

    public string Written => written;

    public void Place() => File.Move(written, place, overwrite: true);

    public void Dispose() => File.Delete(written);
}
