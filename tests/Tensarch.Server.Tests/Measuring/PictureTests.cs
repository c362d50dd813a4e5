using System.Net;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using SkiaSharp;
using Tensarch.Server.Demo;
using Tensarch.Server.Measuring;

namespace Tensarch.Server.Tests.Measuring;

public sealed class PictureTests(StudioApp app) : IClassFixture<StudioApp>, IAsyncLifetime
{
    private StudioClient coach = null!;
    private Guid student;

    public async ValueTask InitializeAsync()
    {
        coach = await app.Studio();
        student = await coach.Student();
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private Task<HttpResponseMessage> Send(byte[] picture, Guid? id = null, string view = "handstand-line") =>
        coach.Http.PostAsync($"/api/v1/students/{student}/pictures?id={id ?? Guid.NewGuid()}&view={view}", new ByteArrayContent(picture));

    private static object Placement(IEnumerable<(double X, double Y)> points) =>
        new { points = points.Select(p => new { x = p.X, y = p.Y }) };

    [Fact]
    public async Task Landmarks_at_the_drawn_truth_say_the_drawn_angles()
    {
        var sample = SamplePicture.Handstand(24, 15, 6);
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await Send(sample.Draw(), id)).StatusCode);
        var mark = new { id = Guid.NewGuid(), placement = Placement(sample.Truth.Select(p => (p.X, p.Y))) };
        var answer = await coach.Post($"/students/{student}/pictures/{id}/marks", mark);
        Assert.Equal(HttpStatusCode.Created, answer.StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await coach.Post($"/students/{student}/pictures/{id}/marks", mark)).StatusCode);
        var angles = (await answer.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("angles");
        Assert.Equal(24, angles.GetProperty("shoulderDeg").GetDouble(), 6);
        Assert.Equal(15, angles.GetProperty("hipDeg").GetDouble(), 6);
        Assert.Equal(6, angles.GetProperty("leanDeg").GetDouble(), 6);

        var reading = new
        {
            id = Guid.NewGuid(),
            measure = "handstand-line",
            side = (string?)null,
            warmth = "warm",
            standard = (string?)null,
            level = "wall",
            instrument = "picture",
            trials = Array.Empty<double>(),
            marks = new[] { mark.id },
            compensations = Array.Empty<string>(),
            quality = (int?)null,
            sensation = (int?)null,
            pain = (int?)null,
            note = (string?)null,
            takenAt = (string?)null,
        };
        var taken = await coach.Post($"/students/{student}/readings", reading);
        Assert.Equal(HttpStatusCode.Created, taken.StatusCode);
        Assert.Equal(24, (await taken.Content.ReadFromJsonAsync<JsonElement>()).GetProperty("value").GetDouble(), 6);
        Assert.Equal(
            "unknownMarks",
            await (
                await coach.Post($"/students/{student}/readings", reading with { id = Guid.NewGuid(), marks = [Guid.NewGuid()] })
            ).Problem(HttpStatusCode.UnprocessableEntity, "marks")
        );
    }

    [Fact]
    public async Task A_picture_is_judged_by_its_content_and_kept_once()
    {
        var id = Guid.NewGuid();
        var picture = SamplePicture.FrontSplit(120).Draw();
        Assert.Equal(HttpStatusCode.Created, (await Send(picture, id, "front-split-angle")).StatusCode);
        Assert.Equal(HttpStatusCode.OK, (await Send(picture, id, "front-split-angle")).StatusCode);
        Assert.Equal(
            "idTaken",
            await (await Send(SamplePicture.FrontSplit(90).Draw(), id, "front-split-angle")).Problem(HttpStatusCode.Conflict)
        );
        Assert.Equal(
            "notAPicture",
            await (await Send(Encoding.UTF8.GetBytes("<svg onload='x'/>"))).Problem(HttpStatusCode.UnprocessableEntity, "picture")
        );
        Assert.Equal("notAPicture", await (await Send(picture[..2000])).Problem(HttpStatusCode.UnprocessableEntity, "picture"));
        Assert.Equal("notAPicture", await (await Send([])).Problem(HttpStatusCode.UnprocessableEntity, "picture"));
        Assert.Equal(
            "pictureTooLarge",
            await (await Send(new byte[PictureFiles.MostBytes + 1])).Problem(HttpStatusCode.UnprocessableEntity, "picture")
        );
        Assert.Equal("unknownView", await (await Send(picture, view: "plank-hold")).Problem(HttpStatusCode.UnprocessableEntity, "view"));

        var image = await coach.Http.GetAsync($"/api/v1/students/{student}/pictures/{id}/image");
        Assert.Equal("image/webp", image.Content.Headers.ContentType?.MediaType);
        var stranger = await app.Studio();
        Assert.Equal(HttpStatusCode.NotFound, (await stranger.Http.GetAsync($"/api/v1/students/{student}/pictures/{id}/image")).StatusCode);
    }

    /// <summary>A JPEG with a place in its metadata: the place is gone, and the camera's turn is undone.</summary>
    [Fact]
    public void Metadata_is_left_behind_and_the_cameras_turn_is_undone()
    {
        using var bitmap = new SKBitmap(40, 20);
        bitmap.Erase(SKColors.White);
        for (var x = 0; x < 20; x++)
        for (var y = 0; y < 20; y++)
            bitmap.SetPixel(x, y, SKColors.Red);
        using var image = SKImage.FromBitmap(bitmap);
        using var encoded = image.Encode(SKEncodedImageFormat.Jpeg, 95);
        var clean = PictureFiles.Clean(WithExif(encoded.ToArray(), orientation: 6)).Value;
        Assert.Equal((20, 40), (clean.Width, clean.Height));
        Assert.DoesNotContain("Exif", Encoding.Latin1.GetString(clean.Bytes), StringComparison.Ordinal);
        Assert.DoesNotContain("SECRETPLACE", Encoding.Latin1.GetString(clean.Bytes), StringComparison.Ordinal);
        using var turned = SKBitmap.Decode(clean.Bytes);
        Assert.True(turned.GetPixel(10, 5).Green < 80, "Turned by a quarter, the left half is on top.");
        Assert.True(turned.GetPixel(10, 35).Green > 200);
    }

    [Fact]
    public async Task Landmarks_outside_the_picture_are_refused()
    {
        var id = Guid.NewGuid();
        await Send(SamplePicture.Handstand(5, 5, 1).Draw(), id);
        var mark = new { id = Guid.NewGuid(), placement = Placement([(10, 10), (20, 20), (30, 40), (5000, 40)]) };
        Assert.Equal(
            "outsidePicture",
            await (await coach.Post($"/students/{student}/pictures/{id}/marks", mark)).Problem(HttpStatusCode.UnprocessableEntity, "points")
        );
    }

    private static byte[] WithExif(byte[] jpeg, byte orientation)
    {
        byte[] text = Encoding.ASCII.GetBytes("SECRETPLACE\0");
        byte[] tiff =
        [
            .. "MM"u8,
            0,
            42,
            0,
            0,
            0,
            8,
            0,
            2,
            .. (byte[])[0x01, 0x0E, 0, 2, 0, 0, 0, (byte)text.Length, 0, 0, 0, 38],
            .. (byte[])[0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0],
            0,
            0,
            0,
            0,
            .. text,
        ];
        byte[] body = [.. "Exif\0\0"u8, .. tiff];
        var length = body.Length + 2;
        return [.. jpeg[..2], 0xFF, 0xE1, (byte)(length >> 8), (byte)length, .. body, .. jpeg[2..]];
    }

    [Fact]
    public async Task Of_two_pictures_under_one_id_the_refused_one_touches_nothing()
    {
        var folder = Path.Combine(app.DataFolder, "pictures", coach.StudioId.ToString("N"));
        var pictures = new[] { SamplePicture.Handstand(24, 15, 6).Draw(), SamplePicture.Handstand(2, 3, 1).Draw() };
        var kept = new List<(Guid Id, byte[] Image)>();
        for (var race = 0; race < 12; race++)
        {
            var id = Guid.NewGuid();
            var answers = await Task.WhenAll(pictures.Select(p => Send(p, id)).Concat(pictures.Reverse().Select(p => Send(p, id))));
            var first = Array.FindIndex(answers, a => a.StatusCode == HttpStatusCode.Created);
            Assert.All(answers, a => Assert.True(a.StatusCode is HttpStatusCode.Created or HttpStatusCode.OK or HttpStatusCode.Conflict));
            Assert.Single(answers, a => a.StatusCode == HttpStatusCode.Created);
            var picture = first is 0 or 3 ? pictures[0] : pictures[1];
            var image = await coach.Http.GetByteArrayAsync($"/api/v1/students/{student}/pictures/{id}/image");
            Assert.Equal(PictureFiles.Clean(picture).Value.Bytes, image);
        }
        Assert.Empty(Directory.GetFiles(folder, "*.part"));
    }

    [Fact]
    public async Task After_a_crash_a_kept_pictures_file_takes_its_place_and_no_draft_stays()
    {
        var id = Guid.NewGuid();
        Assert.Equal(HttpStatusCode.Created, (await Send(SamplePicture.Handstand(24, 15, 6).Draw(), id)).StatusCode);
        var hash = await app.Rows(db => db.Pictures.IgnoreQueryFilters().Where(p => p.Id == id).Select(p => p.BodyHash).SingleAsync());
        var files = app.Services.GetRequiredService<PictureFiles>();
        var place = files.PathOf(coach.StudioId, id);
        // As the machine stops between the row and the file: and a draft whose row was never kept.
        File.Move(place, $"{place}.{hash}.{Guid.NewGuid():N}.part");
        File.WriteAllText($"{files.PathOf(coach.StudioId, Guid.NewGuid())}.{hash}.{Guid.NewGuid():N}.part", "half");
        await files.Recover(app.Services);
        Assert.True(File.Exists(place));
        Assert.Empty(Directory.GetFiles(Path.GetDirectoryName(place)!, "*.part"));
        Assert.Equal(HttpStatusCode.OK, (await coach.Http.GetAsync($"/api/v1/students/{student}/pictures/{id}/image")).StatusCode);
    }
}
