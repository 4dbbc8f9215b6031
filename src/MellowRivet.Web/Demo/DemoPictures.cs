using MellowRivet.Web.Hosting;
using SkiaSharp;

namespace MellowRivet.Web.Demo;

/// <summary>Pictures for the demo, drawn here and plainly made up. The same subject and seed draw the same picture.</summary>
internal static class DemoPictures
{
    private const int Width = 1280, Height = 960;

    /// <param name="subject">What is in it.</param>
    /// <param name="seed">Which one of its kind.</param>
    /// <param name="scale">Its size, of 1280 × 960.</param>
    public static Stream Draw(Subject subject, int seed, double scale = RivetSettings.UsualPictureScale)
    {
        using var surface = SKSurface.Create(new SKImageInfo((int)(Width * scale), (int)(Height * scale)));
        var canvas = surface.Canvas;
        canvas.Scale((float)scale);
        var chance = new Random(seed * 31 + (int)subject);
        Ground(canvas, subject, chance);
        switch (subject)
        {
            case Subject.Skin: Skin(canvas, chance); break;
            case Subject.Tube: Tubes(canvas, chance, 3); break;
            case Subject.Hose: Hoses(canvas, chance); break;
            case Subject.Wire: Wires(canvas, chance); break;
            case Subject.Tyre: Tyre(canvas, chance); break;
            case Subject.Fitting: Fitting(canvas, chance); break;
            case Subject.Glass: Crazing(canvas, chance); break;
            case Subject.Page: Page(canvas, chance); return Encode(surface, canvas);
            case Subject.Around: Around(canvas, chance); return Encode(surface, canvas);
            default: Weave(canvas, chance); break;
        }
        Ring(canvas, chance);
        return Encode(surface, canvas);
    }

    /// <summary>
    /// A JPEG of 12 megapixels that weighs about as much as wanted: a drawing under grain, as a camera has it in the shade.
    /// </summary>
    public static byte[] Heavy(int bytes)
    {
        using var bitmap = new SKBitmap(4000, 3000);
        using (var canvas = new SKCanvas(bitmap))
        {
            using var picture = SKBitmap.Decode(Draw(Subject.Fitting, 9));
            canvas.DrawBitmap(picture, new SKRect(0, 0, 4000, 3000));
            using var grain = new SKPaint
                { Shader = SKShader.CreatePerlinNoiseTurbulence(0.35f, 0.35f, 2, 3), Color = SKColors.White.WithAlpha(60) };
            canvas.DrawPaint(grain);
        }
        for (var quality = 96; ; quality -= 4)
        {
            using var encoded = bitmap.Encode(SKEncodedImageFormat.Jpeg, quality);
            if (encoded.Size <= bytes || quality < 20)
                return encoded.ToArray();
        }
    }

    private static Stream Encode(SKSurface surface, SKCanvas canvas)
    {
        using var font = new SKFont(SKTypeface.Default, 26);
        using var ink = new SKPaint { Color = new SKColor(255, 255, 255, 170), IsAntialias = true };
        canvas.DrawText("drawn for the demo", 24, Height - 28, font, ink);
        using var image = surface.Snapshot();
        return image.Encode(SKEncodedImageFormat.Jpeg, 84).AsStream(streamDisposesData: true);
    }

    private static void Ground(SKCanvas canvas, Subject subject, Random chance)
    {
        var shade = (byte)(subject is Subject.Tyre or Subject.Hose ? 46 : 120 + chance.Next(50));
        using var paint = new SKPaint();
        paint.Shader = SKShader.CreateLinearGradient(new(0, 0), new(Width, Height),
            [new SKColor(shade, (byte)(shade + 6), shade),
                new SKColor((byte)(shade * 3 / 5), (byte)(shade * 3 / 5 + 4), (byte)(shade * 3 / 5 + 4))], SKShaderTileMode.Clamp);
        canvas.DrawPaint(paint);
    }

    private static void Skin(SKCanvas canvas, Random chance)
    {
        using var line = Stroke(new SKColor(60, 66, 62, 150), 4);
        using var rivet = Fill(new SKColor(205, 210, 200));
        using var shade = Fill(new SKColor(40, 46, 42, 90));
        for (var row = 0; row < 3; row++)
        {
            float y = 210 + row * 270 + chance.Next(30);
            canvas.DrawLine(0, y + 30, Width, y + 30, line);
            for (float x = 50; x < Width; x += 86)
            {
                canvas.DrawCircle(x + 3, y + 4, 15, shade);
                canvas.DrawCircle(x, y, 14, rivet);
            }
        }
        using var stain = Fill(new SKColor(70, 60, 40, 120));
        canvas.DrawOval(Width / 2f, Height / 2f, 150 + chance.Next(80), 60 + chance.Next(60), stain);
    }

    private static void Tubes(SKCanvas canvas, Random chance, int count)
    {
        for (var tube = 0; tube < count; tube++)
        {
            var from = new SKPoint(-80, 120 + tube * 300 + chance.Next(60));
            var to = new SKPoint(Width + 80, chance.Next(Height));
            foreach (var (width, tone) in new[] { (110, 70), (80, 130), (30, 190) })
            {
                using var paint = Stroke(new SKColor((byte)tone, (byte)(tone + 5), (byte)(tone + 2)), width);
                canvas.DrawLine(from, to, paint);
            }
        }
        Crack(canvas, chance, new SKColor(20, 18, 18));
    }

    private static void Hoses(SKCanvas canvas, Random chance)
    {
        foreach (var offset in new[] { 0, 260 })
            foreach (var (width, tone) in new[] { (96, 18), (66, 50), (16, 96) })
            {
                using var paint = Stroke(new SKColor((byte)tone, (byte)tone, (byte)(tone + 4)), width);
                using var path = new SKPath();
                path.MoveTo(-40, 240 + offset);
                path.CubicTo(400, 80 + offset + chance.Next(30), 700, 700 + offset / 2f, Width + 40, 420 + offset);
                canvas.DrawPath(path, paint);
            }
        using var clamp = Stroke(new SKColor(190, 196, 200), 26);
        canvas.DrawLine(480, 200, 560, 420, clamp);
    }

    private static void Wires(SKCanvas canvas, Random chance)
    {
        SKColor[] colours = [new(200, 196, 180), new(90, 96, 110), new(150, 70, 60), new(70, 96, 76)];
        for (var wire = 0; wire < 9; wire++)
        {
            using var paint = Stroke(colours[wire % colours.Length], 20);
            using var path = new SKPath();
            path.MoveTo(-20, 180 + wire * 56);
            path.CubicTo(350, 300 + chance.Next(200), 800, 200 + wire * 60, Width + 20, 260 + chance.Next(420));
            canvas.DrawPath(path, paint);
        }
    }

    private static void Tyre(SKCanvas canvas, Random chance)
    {
        using var rubber = Fill(new SKColor(30, 31, 30));
        canvas.DrawCircle(Width / 2f, Height + 260, 980, rubber);
        using var groove = Stroke(new SKColor(12, 12, 12), 22);
        foreach (var radius in new[] { 780, 850, 920 })
            canvas.DrawCircle(Width / 2f, Height + 260, radius, groove);
        using var cord = Stroke(new SKColor(190, 180, 150), 5);
        for (var strand = 0; strand < 26; strand++)
            canvas.DrawLine(520 + strand * 10, 330 + chance.Next(14), 514 + strand * 10, 396 + chance.Next(20), cord);
    }

    private static void Fitting(SKCanvas canvas, Random chance)
    {
        using var plate = Fill(new SKColor(166, 170, 160));
        using var dark = Fill(new SKColor(52, 54, 52));
        using var bolt = Fill(new SKColor(212, 214, 206));
        canvas.DrawRoundRect(260, 200, 760, 540, 70, 70, plate);
        foreach (var (x, y) in new[] { (420, 350), (860, 350), (420, 600), (860, 600) })
        {
            canvas.DrawCircle(x + 5, y + 7, 74, dark);
            canvas.DrawCircle(x, y, 70, bolt);
            using var hexagon = Hexagon(x, y, 46);
            canvas.DrawPath(hexagon, dark);
        }
        Crack(canvas, chance, new SKColor(25, 20, 18));
    }

    private static void Crazing(SKCanvas canvas, Random chance)
    {
        using var tint = Fill(new SKColor(170, 200, 210, 110));
        canvas.DrawRect(0, 0, Width, Height, tint);
        using var fine = Stroke(new SKColor(235, 242, 245, 190), 2.5f);
        for (var star = 0; star < 60; star++)
        {
            var (x, y) = (300 + chance.Next(600), 220 + chance.Next(480));
            canvas.DrawLine(x, y, x + chance.Next(-70, 70), y + chance.Next(-50, 50), fine);
        }
    }

    private static void Weave(SKCanvas canvas, Random chance)
    {
        using var thread = Stroke(new SKColor(210, 204, 186, 80), 3);
        for (var x = 0; x < Width; x += 14)
            canvas.DrawLine(x, 0, x + chance.Next(-3, 3), Height, thread);
        for (var y = 0; y < Height; y += 14)
            canvas.DrawLine(0, y, Width, y + chance.Next(-3, 3), thread);
        using var tear = Fill(new SKColor(40, 36, 30));
        canvas.DrawOval(Width / 2f, Height / 2f, 190, 26 + chance.Next(20), tear);
    }

    private static void Crack(SKCanvas canvas, Random chance, SKColor colour)
    {
        using var paint = Stroke(colour, 5);
        var at = new SKPoint(500, 420);
        for (var step = 0; step < 9; step++)
        {
            var to = new SKPoint(at.X + 24 + chance.Next(16), at.Y + chance.Next(-22, 26));
            canvas.DrawLine(at, to, paint);
            at = to;
        }
    }

    // A grease-pencil ring around what is meant.
    private static void Ring(SKCanvas canvas, Random chance)
    {
        using var pencil = Stroke(new SKColor(245, 245, 235, 220), 9);
        canvas.DrawOval(Width / 2f + chance.Next(-30, 30), Height / 2f + chance.Next(-30, 30), 300, 210, pencil);
    }

    private static SKPath Hexagon(float x, float y, float radius)
    {
        var path = new SKPath();
        for (var corner = 0; corner < 6; corner++)
        {
            var (cx, cy) = (x + radius * MathF.Cos(corner * MathF.PI / 3), y + radius * MathF.Sin(corner * MathF.PI / 3));
            if (corner == 0)
                path.MoveTo(cx, cy);
            else
                path.LineTo(cx, cy);
        }
        path.Close();
        return path;
    }

    private static SKPaint Fill(SKColor colour) => new() { Color = colour, IsAntialias = true };

    private static SKPaint Stroke(SKColor colour, float width) =>
        new() { Color = colour, IsAntialias = true, IsStroke = true, StrokeWidth = width, StrokeCap = SKStrokeCap.Round,
            StrokeJoin = SKStrokeJoin.Round };

    // A page of a logbook, ruled, with lines of something like handwriting.
    private static void Page(SKCanvas canvas, Random chance)
    {
        using var paper = Fill(new SKColor(226, 220, 200));
        using var rule = Stroke(new SKColor(120, 140, 160, 160), 2);
        using var pen = Stroke(new SKColor(40, 48, 90), 4);
        canvas.DrawRect(110, 60, Width - 220, Height - 130, paper);
        for (var line = 0; line < 12; line++)
        {
            float y = 130 + line * 62;
            canvas.DrawLine(130, y, Width - 130, y, rule);
            if (line is 0 or > 8)
                continue;
            for (float x = 150; x < Width - 220 - chance.Next(300); x += 18 + chance.Next(16))
                canvas.DrawLine(x, y - 8 - chance.Next(6), x + 6 + chance.Next(8), y - 12 - chance.Next(22), pen);
        }
    }

    // An aircraft standing on grass, roughly, seen from somewhere around it.
    private static void Around(SKCanvas canvas, Random chance)
    {
        using var grass = Fill(new SKColor(96, 112, 74));
        using var skin = Fill(new SKColor(214, 214, 204));
        using var dark = Fill(new SKColor(52, 58, 56));
        canvas.DrawRect(0, Height * 0.62f, Width, Height, grass);
        var turn = chance.Next(-160, 160);
        canvas.DrawOval(Width / 2f + turn, Height * 0.55f, 190, 90, skin);
        canvas.DrawOval(Width / 2f, Height * 0.6f, 520, 26, skin);
        canvas.DrawRect(Width / 2f - turn - 20, Height * 0.34f, 40, 150, skin);
        canvas.DrawOval(Width / 2f + turn, Height * 0.48f, 90, 40, dark);
        canvas.DrawCircle(Width / 2f - 200, Height * 0.72f, 34, dark);
        canvas.DrawCircle(Width / 2f + 200, Height * 0.72f, 34, dark);
    }
}
