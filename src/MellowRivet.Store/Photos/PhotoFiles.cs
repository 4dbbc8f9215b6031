using System.Security.Cryptography;
using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MetadataExtractor;
using MetadataExtractor.Formats.Exif;
using SkiaSharp;
using Directory = System.IO.Directory;

namespace MellowRivet.Store.Photos;

/// <summary>How large a copy of a photo is wanted. Only copies are served: they carry no location and no other camera data.</summary>
public enum PhotoSize { Thumb, Large }

/// <summary>A photo taken in, or why it wasn't.</summary>
public sealed record PhotoTaken(Photo? Photo, Refusal? Refusal);

/// <summary>
/// Photos as files, each named by its SHA-256. The original is kept untouched and synced to disk before anything
/// refers to it; sized copies are made once, upright, without the camera's data.
/// </summary>
public sealed class PhotoFiles(DataFolder data, TimeProvider clock)
{
    /// <summary>Largest file taken, in bytes.</summary>
    public const long MostBytes = 25 * 1024 * 1024;

    /// <summary>Most pixels taken. A small file can claim many: the claim is checked before any pixel is decoded.</summary>
    public const long MostPixels = 60_000_000;

    /// <summary>Takes in one picture: real decoding decides what it is, never its name.</summary>
    /// <exception cref="IOException">The disk is full or gone; nothing was kept.</exception>
    public async Task<PhotoTaken> TakeInAsync(Stream content, string name, CancellationToken stop)
    {
        var incoming = Path.Combine(data.Photos, $"{Guid.NewGuid():N}.incoming");
        try
        {
            var (bytes, sha) = await ReceiveAsync(content, incoming, stop);
            if (bytes > MostBytes)
                return Refused(name, $"is larger than {MostBytes / 1024 / 1024} MB. Take it at a smaller size, or send a copy");
            if (bytes == 0)
                return Refused(name, "is empty. Take it again");
            if (IsHeic(incoming))
                return Refused(name, "is HEIC, which browsers can't show. Set the camera to “most compatible” (JPEG), or send a JPEG copy");
            return Keep(incoming, sha, name);
        }
        finally
        {
            File.Delete(incoming);
        }
    }

    /// <summary>The path of a sized copy, or null where no such photo is kept. The name is checked to be a SHA-256, so no other path can be reached.</summary>
    public string? PathOf(string sha256, PhotoSize size)
    {
        if (sha256.Length != 64 || !sha256.All(char.IsAsciiHexDigitLower))
            return null;
        var path = CopyPath(sha256, size);
        return File.Exists(path) ? path : null;
    }

    /// <summary>The path of an untouched original.</summary>
    public string OriginalPath(string sha256) => Path.Combine(FolderOf(sha256), $"{sha256}.original");

    private static async Task<(long Bytes, string Sha256)> ReceiveAsync(Stream content, string path, CancellationToken stop)
    {
        await using var file = new FileStream(path, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1 << 16, useAsync: true);
        using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        var buffer = new byte[1 << 16];
        long bytes = 0;
        int read;
        while (bytes <= MostBytes && (read = await content.ReadAsync(buffer, stop)) > 0)
        {
            bytes += read;
            hash.AppendData(buffer, 0, read);
            await file.WriteAsync(buffer.AsMemory(0, read), stop);
        }
        file.Flush(flushToDisk: true);
        return (bytes, Convert.ToHexStringLower(hash.GetHashAndReset()));
    }

    private PhotoTaken Keep(string incoming, string sha, string name)
    {
        using var codec = SKCodec.Create(incoming);
        if (codec is null || codec.EncodedFormat is not (SKEncodedImageFormat.Jpeg or SKEncodedImageFormat.Png or SKEncodedImageFormat.Webp))
            return Refused(name, "is not a JPEG, PNG or WebP picture");
        if ((long)codec.Info.Width * codec.Info.Height > MostPixels)
            return Refused(name, $"is {codec.Info.Width} × {codec.Info.Height} pixels; {MostPixels / 1_000_000} megapixels is the most");

        Directory.CreateDirectory(FolderOf(sha));
        using var upright = UprightPicture.Decode(codec, longestSide: 2048);
        if (upright is null)
            return Refused(name, "is damaged: it ends before the picture does. Take it again");
        WriteCopy(upright.Picture, CopyPath(sha, PhotoSize.Large), 2048, 82);
        WriteCopy(upright.Picture, CopyPath(sha, PhotoSize.Thumb), 480, 78);
        File.Move(incoming, OriginalPath(sha), overwrite: true);
        Disk.SyncFolder(FolderOf(sha));
        return new(new Photo(sha, upright.Width, upright.Height, TakenAt(OriginalPath(sha)), clock.GetUtcNow()), null);
    }

    private static void WriteCopy(SKBitmap picture, string path, int longestSide, int quality)
    {
        var scale = Math.Min(1.0, (double)longestSide / Math.Max(picture.Width, picture.Height));
        var size = new SKImageInfo(Math.Max(1, (int)(picture.Width * scale)), Math.Max(1, (int)(picture.Height * scale)));
        using var sized = scale < 1 ? picture.Resize(size, new SKSamplingOptions(SKFilterMode.Linear, SKMipmapMode.Linear)) : null;
        using var encoded = (sized ?? picture).Encode(SKEncodedImageFormat.Jpeg, quality);
        var half = path + ".half";
        using (var file = File.Create(half))
        {
            encoded.SaveTo(file);
            file.Flush(flushToDisk: true);
        }
        File.Move(half, path, overwrite: true);
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
    private static bool IsHeic(string path)
    {
        using var file = File.OpenRead(path);
        Span<byte> head = stackalloc byte[12];
        if (file.ReadAtLeast(head, 12, throwOnEndOfStream: false) < 12 || !head[4..8].SequenceEqual("ftyp"u8))
            return false;
        var brand = head[8..12];
        return brand.SequenceEqual("heic"u8) || brand.SequenceEqual("heix"u8) || brand.SequenceEqual("hevc"u8)
            || brand.SequenceEqual("mif1"u8) || brand.SequenceEqual("msf1"u8);
    }

    private static PhotoTaken Refused(string name, string why) => new(null, new("photos", $"{ShownName(name)} {why}. Your words are still here."));

    private static string ShownName(string name) => string.IsNullOrWhiteSpace(name) ? "The picture" : $"“{(name.Length > 60 ? name[..60] + "…" : name)}”";

    private string FolderOf(string sha) => Path.Combine(data.Photos, sha[..2]);

    private string CopyPath(string sha, PhotoSize size) => Path.Combine(FolderOf(sha), $"{sha}.{(size == PhotoSize.Thumb ? "thumb" : "large")}.jpg");
}
