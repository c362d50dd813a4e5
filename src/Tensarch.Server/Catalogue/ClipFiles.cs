using Tensarch.Core;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Catalogue;

/// <summary>Clips and pictures of own drills as files beside the database, one folder a studio, out of the web root.</summary>
public sealed class ClipFiles(string folder)
{
    public const int MostBytes = 50 * 1024 * 1024;

    private static readonly Dictionary<string, string> Types = new()
    {
        ["mp4"] = "video/mp4",
        ["webm"] = "video/webm",
        ["webp"] = PictureFiles.ContentType,
    };

    public static string TypeOf(string kind) => Types[kind];

    public string PathOf(Guid studio, Guid clip, string kind) => Path.Combine(folder, studio.ToString("N"), $"{clip:N}.{kind}");

    /// <summary>What a file is by its first bytes, whatever its name says: mp4 has its type box there, webm its document type.</summary>
    public static string? KindOf(ReadOnlySpan<byte> start)
    {
        if (start.Length >= 12 && start[4..8].SequenceEqual("ftyp"u8))
            return "mp4";
        if (
            start.Length >= 4
            && start[..4].SequenceEqual<byte>([0x1A, 0x45, 0xDF, 0xA3])
            && start[..Math.Min(64, start.Length)].IndexOf("webm"u8) > 0
        )
            return "webm";
        return null;
    }

    /// <summary>Writes what comes whole beside its place, on the disk, and then moves it there.</summary>
    /// <returns>Its kind and size; or <c>clipTooLarge</c>, <c>notAClip</c> at <c>clip</c>.</returns>
    public async Task<Result<(string Kind, long Bytes)>> Keep(Guid studio, Guid clip, Stream upload, CancellationToken ct)
    {
        Directory.CreateDirectory(Path.Combine(folder, studio.ToString("N")));
        var written = Path.Combine(folder, studio.ToString("N"), $"{clip:N}.{Guid.NewGuid():N}.part");
        try
        {
            var start = new byte[64];
            int read;
            long bytes = 0;
            await using (var file = new FileStream(written, FileMode.CreateNew, FileAccess.Write))
            {
                var buffer = new byte[128 * 1024];
                while ((read = await upload.ReadAsync(buffer, ct)) > 0)
                {
                    if (bytes < start.Length)
                        buffer.AsSpan(0, (int)Math.Min(read, start.Length - bytes)).CopyTo(start.AsSpan((int)bytes));
                    bytes += read;
                    if (bytes > MostBytes)
                        return Problem.Of("clipTooLarge", "clip", ("mostMiB", MostBytes / 1024 / 1024));
                    await file.WriteAsync(buffer.AsMemory(0, read), ct);
                }
                file.Flush(flushToDisk: true);
            }
            if (KindOf(start.AsSpan(0, (int)Math.Min(bytes, start.Length))) is { } kind)
            {
                File.Move(written, PathOf(studio, clip, kind), overwrite: true);
                return (kind, bytes);
            }
            // No clip: a picture, which is written anew without anything but its pixels.
            if (
                bytes > PictureFiles.MostBytes
                || PictureFiles.Clean(await File.ReadAllBytesAsync(written, ct)) is not { IsOk: true } picture
            )
                return Problem.Of("notAClip", "clip");
            await File.WriteAllBytesAsync(written, picture.Value.Bytes, ct);
            File.Move(written, PathOf(studio, clip, "webp"), overwrite: true);
            return ("webp", picture.Value.Bytes.Length);
        }
        finally
        {
            File.Delete(written);
        }
    }
}
