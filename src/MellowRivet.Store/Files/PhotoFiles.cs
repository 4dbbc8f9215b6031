using System.Diagnostics.CodeAnalysis;
using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MetadataExtractor;
using MetadataExtractor.Formats.Exif;
using SkiaSharp;
using Directory = System.IO.Directory;

namespace MellowRivet.Store.Files;

/// <summary>How large a copy of a photo is wanted. Only copies are served: they carry no location and no other camera data.</summary>
public enum PhotoSize { Thumb = 1, Large }

/// <summary>A photo taken in, or why it wasn't.</summary>
public sealed record PhotoTaken(Photo? Photo, Refusal? Refusal);

/// <summary>
/// Photos as files, each named by its SHA-256. The original is kept untouched and synced to disk before anything
/// refers to it; sized copies are made once, upright, without the camera's data: the small one as it comes in, the large one
/// when somebody first looks.
/// </summary>
public sealed class PhotoFiles(DataFolder data, TimeProvider clock)
{
    /// <summary>Largest file taken, in bytes.</summary>
    public const long MostBytes = 25 * 1024 * 1024;

    /// <summary>Most pixels taken. A small file can claim many: the claim is checked before any pixel is decoded.</summary>
    public const long MostPixels = 60_000_000;

    private const int LargeSide = 2048, ThumbSide = 480;

    // Decoded and turned, each pixel stands in memory twice, by four bytes.
    private const long MostDecodedBytes = MostPixels * 4 * 2;

    // No more of them are decoded at once than there are processors, and than an eighth of the memory holds.
    private static readonly SemaphoreSlim Room = new((int)Math.Clamp(
        GC.GetGCMemoryInfo().TotalAvailableMemoryBytes / 8 / MostDecodedBytes, 1, Environment.ProcessorCount));

    /// <summary>Takes in one picture: real decoding decides what it is, never its name.</summary>
    /// <exception cref="IOException">The disk is full or gone; nothing was kept.</exception>
    public async Task<PhotoTaken> TakeInAsync(Stream content, string name, CancellationToken stop)
    {
        using var incoming = await IncomingFile.ReceiveAsync(content, data.Photos, MostBytes, stop);
        if (incoming.Bytes > MostBytes)
            return Refused(name, $"is larger than {MostBytes / 1024 / 1024} MB. Take it at a smaller size, or send a copy");
        if (incoming.Bytes == 0)
            return Refused(name, "is empty. Take it again");
        return IsHeic(incoming.Head(12))
            ? Refused(name, "is HEIC, which browsers can't show. Set the camera to “most compatible” (JPEG), or send a JPEG copy")
            : await InRoomAsync(() => Keep(incoming, name), stop);
    }

    private static async Task<PhotoTaken> InRoomAsync(Func<PhotoTaken> decode, CancellationToken stop)
    {
        await Room.WaitAsync(stop);
        try
        {
            return decode();
        }
        finally
        {
            Room.Release();
        }
    }

    /// <summary>A picture that was taken in before, as it would be taken in now; null where there is none.</summary>
    public Photo? Find(string? sha256)
    {
        if (sha256 is null || PathOf(sha256, PhotoSize.Thumb) is null)
            return null;
        using var codec = SKCodec.Create(OriginalPath(sha256));
        var (width, height) = UprightPicture.SizeOf(codec);
        return new(sha256, width, height, TakenAt(OriginalPath(sha256)), clock.GetUtcNow());
    }

    internal static bool IsSha256([NotNullWhen(true)] string? name) => name is { Length: 64 } && name.All(char.IsAsciiHexDigitLower);

    /// <summary>
    /// The path of a sized copy, or null where no such photo is kept. The name is checked to be a SHA-256, so no other path can be reached.
    /// </summary>
    public string? PathOf(string? sha256, PhotoSize size)
    {
        if (!IsSha256(sha256))
            return null;
        var path = CopyPath(sha256, size);
        try
        {
            if (size == PhotoSize.Large && !File.Exists(path) && File.Exists(OriginalPath(sha256)))
                MakeLarge(sha256);
        }
        catch (IOException full) when (Disk.IsFull(full))
        {
            // Whoever only looks needs no room: the small one is there.
            path = CopyPath(sha256, PhotoSize.Thumb);
        }
        return File.Exists(path) ? path : null;
    }

    /// <summary>The path of an untouched original.</summary>
    public string OriginalPath(string sha256) => Path.Combine(FolderOf(sha256), $"{sha256}.original");

    // It was decoded to its end when it came in.
    private void MakeLarge(string sha256)
    {
        Room.Wait();
        try
        {
            // Whoever came first made it.
            if (!File.Exists(CopyPath(sha256, PhotoSize.Large)))
                DecodeLarge(sha256);
        }
        finally
        {
            Room.Release();
        }
    }

    private void DecodeLarge(string sha256)
    {
        using var codec = SKCodec.Create(OriginalPath(sha256));
        using var upright = UprightPicture.Decode(codec, LargeSide);
        if (upright is not null)
            WriteCopy(upright.Picture, CopyPath(sha256, PhotoSize.Large), LargeSide, 82);
    }

    // Returns only when the picture and its small copy are on the disk.
    private PhotoTaken Keep(IncomingFile incoming, string name)
    {
        using var codec = SKCodec.Create(incoming.Path);
        if (codec is null || codec.EncodedFormat is not (SKEncodedImageFormat.Jpeg or SKEncodedImageFormat.Png
            or SKEncodedImageFormat.Webp))
            return Refused(name, "is not a JPEG, PNG or WebP picture");
        if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
            return Refused(name, $"is {codec.Info.Width} × {codec.Info.Height} pixels; {MostPixels / 1_000_000} megapixels is the most");

        if (codec.FrameCount > 1)
            return Refused(name, $"moves: it has {codec.FrameCount} pictures in it. Send a still one");

        var sha = incoming.Sha256;
        Directory.CreateDirectory(FolderOf(sha));
        using var upright = UprightPicture.Decode(codec, 2 * ThumbSide);
        if (upright is null)
            return Refused(name, "is damaged: it ends before the picture does. Take it again");
        WriteCopy(upright.Picture, CopyPath(sha, PhotoSize.Thumb), ThumbSide, 78);
        incoming.MoveTo(OriginalPath(sha));
        return new(new Photo(sha, upright.Width, upright.Height, TakenAt(OriginalPath(sha)), clock.GetUtcNow()), null);
    }

    private static void WriteCopy(SKBitmap picture, string path, int longestSide, int quality)
    {
        var scale = Math.Min(1.0, (double)longestSide / Math.Max(picture.Width, picture.Height));
        var size = new SKImageInfo(Math.Max(1, (int)(picture.Width * scale)), Math.Max(1, (int)(picture.Height * scale)));
        // Down to a half, four neighbours are all there is; below, the steps between are needed, and cost most of the time.
        using var sized = scale < 1
            ? picture.Resize(size, new SKSamplingOptions(SKFilterMode.Linear, scale < 0.5 ? SKMipmapMode.Linear : SKMipmapMode.None))
            : null;
        using var encoded = (sized ?? picture).Encode(SKEncodedImageFormat.Jpeg, quality);
        // Two may look first at once: each writes its own, and either is the whole picture.
        var half = $"{path}.{Guid.NewGuid():N}.half";
        try
        {
            using (var file = File.Create(half))
            {
                encoded.SaveTo(file);
                file.Flush(flushToDisk: true);
            }
            File.Move(half, path, overwrite: true);
        }
        finally
        {
            File.Delete(half);
        }
    }

    private static DateTime? TakenAt(string path)
    {
        try
        {
            return ImageMetadataReader.ReadMetadata(path).OfType<ExifSubIfdDirectory>().FirstOrDefault() is { } exif
                && exif.TryGetDateTime(ExifDirectoryBase.TagDateTimeOriginal, out var taken) ? taken : null;
        }
        catch (ImageProcessingException)
        {
            return null; // The picture decodes; its camera data doesn't, and is not needed.
        }
    }

    // ISO base media files say their brand at byte 8, after "ftyp".
    private static bool IsHeic(ReadOnlySpan<byte> head) => head.Length == 12 && head[4..8].SequenceEqual("ftyp"u8)
        && (head[8..].SequenceEqual("heic"u8) || head[8..].SequenceEqual("heix"u8) || head[8..].SequenceEqual("hevc"u8)
            || head[8..].SequenceEqual("mif1"u8) || head[8..].SequenceEqual("msf1"u8));

    private static PhotoTaken Refused(string name, string why) =>
        new(null, new("photos", $"{ShownName(name)} {why}. Your words are still here."));

    internal static string ShownName(string name, string nameless = "The picture") =>
        string.IsNullOrWhiteSpace(name) ? nameless : $"“{(name.Length > 60 ? name[..60] + "…" : name)}”";

    private string FolderOf(string sha) => Path.Combine(data.Photos, sha[..2]);

    private string CopyPath(string sha, PhotoSize size) =>
        Path.Combine(FolderOf(sha), $"{sha}.{(size == PhotoSize.Thumb ? "thumb" : "large")}.jpg");
}
