using SkiaSharp;
using Tensarch.Core.Measuring;

namespace Tensarch.Server.Demo;

/// <summary>
/// A drawn side picture of the demo, with landmarks whose true place is known: a figure in plain clothes with a sticker on each
/// landmark, in a room with a skirting board as its horizon.
/// </summary>
/// <param name="Truth">The landmarks in the view's order, in pixels, y down.</param>
public sealed record SamplePicture(string View, int Width, int Height, IReadOnlyList<PicturePoint> Truth)
{
    private static readonly SKColor Wall = new(0xE9, 0xE4, 0xD6);
    private static readonly SKColor Floor = new(0xC9, 0xBC, 0xA2);
    private static readonly SKColor Skirting = new(0xB3, 0xA6, 0x8C);
    private static readonly SKColor Skin = new(0xB9, 0x86, 0x66);
    private static readonly SKColor Clothes = new(0x3F, 0x56, 0x66);
    private static readonly SKColor Pad = new(0x8A, 0x9A, 0x8E);
    private const float FloorShare = 0.9f;

    /// <summary>A handstand, the belly to the left.</summary>
    /// <param name="shoulderDeg">Positive closed.</param>
    /// <param name="hipDeg">Positive arch.</param>
    /// <param name="leanDeg">Positive towards the back, which is to the right.</param>
    public static SamplePicture Handstand(double shoulderDeg, double hipDeg, double leanDeg)
    {
        var chain = Chain([(290, 0), (270, shoulderDeg), (420, -hipDeg)], leanDeg);
        return new("handstand-line", 900, 1200, [.. chain.Select(p => new PicturePoint(450 + p.X, 1072 - p.Y))]);
    }

    /// <summary>A shoulderstand on a folded blanket, the belly to the left.</summary>
    public static SamplePicture Shoulderstand(double hipDeg, double leanDeg)
    {
        var chain = Chain([(300, 0), (430, -hipDeg)], leanDeg);
        return new("shoulderstand-line", 900, 1000, [.. chain.Select(p => new PicturePoint(500 + p.X, 850 - p.Y))]);
    }

    /// <summary>A front split with so much under the pelvis, in pixels.</summary>
    public static SamplePicture FrontSplit(double gap)
    {
        const double leg = 440;
        var reach = Math.Sqrt(leg * leg - gap * gap);
        return new("front-split-angle", 1200, 800, [new(600 - reach, 712), new(600, 712 - gap), new(600 + reach, 712)]);
    }

    /// <summary>Joints one after another, each turned from the one before (counter-clockwise positive), the whole turned to a lean.</summary>
    private static List<PlanePoint> Chain(IReadOnlyList<(double Length, double Turn)> parts, double leanDeg)
    {
        List<PlanePoint> points = [new(0, 0)];
        var direction = 90.0;
        foreach (var (length, turn) in parts)
        {
            direction += turn;
            var angle = direction * Math.PI / 180;
            points.Add(new(points[^1].X + length * Math.Cos(angle), points[^1].Y + length * Math.Sin(angle)));
        }
        var by = (90 - leanDeg) * Math.PI / 180 - Math.Atan2(points[^1].Y, points[^1].X);
        return [.. points.Select(p => new PlanePoint(p.X * Math.Cos(by) - p.Y * Math.Sin(by), p.X * Math.Sin(by) + p.Y * Math.Cos(by)))];
    }

    /// <returns>The picture as PNG.</returns>
    public byte[] Draw()
    {
        using var surface = SKSurface.Create(new SKImageInfo(Width, Height));
        var canvas = surface.Canvas;
        Room(canvas);
        switch (View)
        {
            case "handstand-line":
                Upside(canvas, Truth[0], Truth[1], Truth[2], Truth[3]);
                break;
            case "shoulderstand-line":
                OnShoulders(canvas, Truth[0], Truth[1], Truth[2]);
                break;
            default:
                Split(canvas, Truth[0], Truth[1], Truth[2]);
                break;
        }
        foreach (var point in Truth)
            Sticker(canvas, point);
        using var image = surface.Snapshot();
        using var png = image.Encode(SKEncodedImageFormat.Png, 100);
        return png.ToArray();
    }

    private void Room(SKCanvas canvas)
    {
        canvas.Clear(Wall);
        using var floor = Fill(Floor);
        canvas.DrawRect(0, Height * FloorShare, Width, Height * (1 - FloorShare), floor);
        using var skirting = Fill(Skirting);
        canvas.DrawRect(0, Height * FloorShare - 26, Width, 26, skirting);
        using var line = Stroke(new SKColor(0xD8, 0xD0, 0xBD), 3);
        for (var x = Width / 6f; x < Width; x += Width / 3f)
            canvas.DrawLine(x, 0, x, Height * FloorShare - 26, line);
    }

    private static void Upside(SKCanvas canvas, PicturePoint wrist, PicturePoint shoulder, PicturePoint hip, PicturePoint ankle)
    {
        Limb(canvas, Skin, 40, wrist, shoulder);
        Limb(canvas, Skin, 26, new(wrist.X - 42, wrist.Y + 12), new(wrist.X + 4, wrist.Y + 8));
        Limb(canvas, Clothes, 74, shoulder, hip);
        Limb(canvas, Clothes, 56, hip, ankle);
        Limb(canvas, Skin, 28, ankle, new(ankle.X - 30, ankle.Y - 62));
        Head(canvas, shoulder.X - 34, shoulder.Y + 74);
    }

    private static void OnShoulders(SKCanvas canvas, PicturePoint shoulder, PicturePoint hip, PicturePoint ankle)
    {
        using var pad = Fill(Pad);
        canvas.DrawRoundRect((float)shoulder.X - 60, (float)shoulder.Y + 26, 260, 30, 8, 8, pad);
        Limb(canvas, Skin, 34, shoulder, new(shoulder.X + 150, shoulder.Y + 8));
        Limb(canvas, Skin, 30, new(shoulder.X + 150, shoulder.Y + 8), new((shoulder.X + hip.X) / 2 + 34, (shoulder.Y + hip.Y) / 2));
        Limb(canvas, Clothes, 76, shoulder, hip);
        Limb(canvas, Clothes, 56, hip, ankle);
        Limb(canvas, Skin, 28, ankle, new(ankle.X - 36, ankle.Y - 58));
        Head(canvas, shoulder.X - 84, shoulder.Y + 8);
    }

    private static void Split(SKCanvas canvas, PicturePoint front, PicturePoint hip, PicturePoint back)
    {
        using var block = Fill(Pad);
        canvas.DrawRoundRect((float)hip.X - 150, 652, 84, 68, 6, 6, block);
        canvas.DrawRoundRect((float)hip.X + 66, 652, 84, 68, 6, 6, block);
        Limb(canvas, Clothes, 54, hip, front);
        Limb(canvas, Clothes, 54, hip, back);
        Limb(canvas, Skin, 26, front, new(front.X - 14, front.Y - 62));
        Limb(canvas, Skin, 24, back, new(back.X + 52, back.Y + 2));
        var neck = new PicturePoint(hip.X, hip.Y - 280);
        Limb(canvas, Clothes, 78, hip, neck);
        Limb(canvas, Skin, 30, neck, new(hip.X - 108, 640));
        Limb(canvas, Skin, 30, neck, new(hip.X + 108, 640));
        Head(canvas, neck.X, neck.Y - 92);
    }

    private static void Limb(SKCanvas canvas, SKColor color, float width, PicturePoint from, PicturePoint to)
    {
        using var paint = Stroke(color, width);
        canvas.DrawLine((float)from.X, (float)from.Y, (float)to.X, (float)to.Y, paint);
    }

    private static void Head(SKCanvas canvas, double x, double y)
    {
        using var paint = Fill(Skin);
        canvas.DrawOval((float)x, (float)y, 46, 54, paint);
    }

    private static void Sticker(SKCanvas canvas, PicturePoint at)
    {
        using var white = Fill(SKColors.White);
        canvas.DrawCircle((float)at.X, (float)at.Y, 11, white);
        using var ring = Stroke(new SKColor(0x22, 0x30, 0x3A), 3);
        canvas.DrawCircle((float)at.X, (float)at.Y, 11, ring);
        canvas.DrawLine((float)at.X - 5, (float)at.Y, (float)at.X + 5, (float)at.Y, ring);
        canvas.DrawLine((float)at.X, (float)at.Y - 5, (float)at.X, (float)at.Y + 5, ring);
    }

    private static SKPaint Fill(SKColor color) => new() { Color = color, IsAntialias = true };

    private static SKPaint Stroke(SKColor color, float width) =>
        new()
        {
            Color = color,
            IsAntialias = true,
            IsStroke = true,
            StrokeWidth = width,
            StrokeCap = SKStrokeCap.Round,
        };
}
