using SkiaSharp;

namespace MellowRivet.Store.Files;

/// <summary>A decoded picture turned the way the camera was held.</summary>
internal sealed class UprightPicture : IDisposable
{
    private UprightPicture(SKBitmap picture, int width, int height) => (Picture, Width, Height) = (picture, width, height);

    public SKBitmap Picture { get; }

    /// <summary>Width of the original in pixels, upright.</summary>
    public int Width { get; }

    /// <summary>Height of the original in pixels, upright.</summary>
    public int Height { get; }

    /// <summary>
    /// Decodes no larger than needed (a JPEG decodes straight to an eighth, quarter or half), then turns it;
    /// null where the data ends early.
    /// </summary>
    public static UprightPicture? Decode(SKCodec codec, int longestSide)
    {
        var info = codec.Info;
        var wanted = Math.Min(1f, (float)longestSide / Math.Max(info.Width, info.Height));
        var scaled = codec.GetScaledDimensions(wanted);
        var decoded = new SKBitmap(new SKImageInfo(scaled.Width, scaled.Height, SKColorType.Rgba8888, SKAlphaType.Premul));
        if (codec.GetPixels(decoded.Info, decoded.GetPixels()) != SKCodecResult.Success)
        {
            decoded.Dispose();
            return null;
        }
        var (width, height) = SizeOf(codec);
        return new(Turn(decoded, codec.EncodedOrigin, IsSideways(codec)), width, height);
    }

    /// <summary>Width and height in pixels, upright.</summary>
    public static (int Width, int Height) SizeOf(SKCodec codec) =>
        IsSideways(codec) ? (codec.Info.Height, codec.Info.Width) : (codec.Info.Width, codec.Info.Height);

    public void Dispose() => Picture.Dispose();

    private static bool IsSideways(SKCodec codec) =>
        codec.EncodedOrigin is SKEncodedOrigin.LeftTop or SKEncodedOrigin.RightTop or SKEncodedOrigin.RightBottom
            or SKEncodedOrigin.LeftBottom;

    // The eight EXIF orientations: a mirror where the origin says so, and a turn.
    private static SKBitmap Turn(SKBitmap source, SKEncodedOrigin origin, bool sideways)
    {
        if (origin is SKEncodedOrigin.TopLeft or SKEncodedOrigin.Default)
            return source;
        var turned = sideways ? new SKBitmap(source.Height, source.Width) : new SKBitmap(source.Width, source.Height);
        using var canvas = new SKCanvas(turned);
        var (w, h) = ((float)turned.Width, (float)turned.Height);
        canvas.SetMatrix(origin switch
        {
            SKEncodedOrigin.TopRight => new SKMatrix(-1, 0, w, 0, 1, 0, 0, 0, 1),
            SKEncodedOrigin.BottomRight => new SKMatrix(-1, 0, w, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.BottomLeft => new SKMatrix(1, 0, 0, 0, -1, h, 0, 0, 1),
            SKEncodedOrigin.LeftTop => new SKMatrix(0, 1, 0, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightTop => new SKMatrix(0, -1, w, 1, 0, 0, 0, 0, 1),
            SKEncodedOrigin.RightBottom => new SKMatrix(0, -1, w, -1, 0, h, 0, 0, 1),
            _ => new SKMatrix(0, 1, 0, -1, 0, h, 0, 0, 1),
        });
        canvas.DrawBitmap(source, 0, 0);
        canvas.Flush();
        source.Dispose();
        return turned;
    }
}
