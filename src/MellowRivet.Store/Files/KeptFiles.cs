using System.Security.Cryptography;

namespace MellowRivet.Store.Files;

/// <summary>The files a shop keeps by their SHA-256, whatever they are.</summary>
public static class KeptFiles
{
    /// <summary>What is wrong with a picture, sound or video; null where it is there and whole.</summary>
    public static string? Fault(DataFolder data, string sha256)
    {
        if (Of(data, sha256).Select(file => file.File).FirstOrDefault() is not { } there)
            return $"a picture, sound or video that it rests on is gone ({sha256[..16]})";
        using var file = there.OpenRead();
        return Convert.ToHexStringLower(SHA256.HashData(file)) == sha256
            ? null
            : $"a picture, sound or video that it rests on was changed ({sha256[..16]})";
    }

    /// <summary>
    /// A file as it is named outside the shop, the untouched one first; a picture with the sized copies there are. None where it is gone.
    /// </summary>
    public static IEnumerable<(string Path, FileInfo File)> Of(DataFolder data, string sha256)
    {
        var photo = new FileInfo(Path.Combine(data.Photos, sha256[..2], $"{sha256}.original"));
        if (photo.Exists)
        {
            yield return ($"photos/{sha256}{EndingOf(photo)}", photo);
            foreach (var size in new[] { "large", "thumb" })
                if (new FileInfo(Path.Combine(data.Photos, sha256[..2], $"{sha256}.{size}.jpg")) is { Exists: true } copy)
                    yield return ($"photos/{sha256}.{size}.jpg", copy);
        }
        foreach (var (folder, place) in new[]
            { ("sounds", data.Sounds), ("videos", data.Videos), ("logs", data.Logs), ("documents", data.Documents) })
            if (new FileInfo(Path.Combine(place, sha256[..2], sha256)) is { Exists: true } file)
                yield return ($"{folder}/{sha256}{EndingOf(file)}", file);
    }

    // So that what lies in the archive opens with whatever a machine opens such a thing with.
    private static string EndingOf(FileInfo file)
    {
        using var content = file.OpenRead();
        var head = new byte[16];
        var read = content.ReadAtLeast(head, head.Length, throwOnEndOfStream: false);
        return head.AsSpan(0, read) switch
        {
            [0xFF, 0xD8, ..] => ".jpg",
            [0x89, (byte)'P', (byte)'N', (byte)'G', ..] => ".png",
            [(byte)'R', (byte)'I', (byte)'F', (byte)'F', _, _, _, _, (byte)'W', (byte)'E', ..] => ".webp",
            [(byte)'R', (byte)'I', (byte)'F', (byte)'F', _, _, _, _, (byte)'W', (byte)'A', ..] => ".wav",
            [0x1A, 0x45, 0xDF, 0xA3, ..] => ".webm",
            [(byte)'O', (byte)'g', (byte)'g', (byte)'S', ..] => ".ogg",
            [_, _, _, _, (byte)'f', (byte)'t', (byte)'y', (byte)'p', ..] => ".mp4",
            [(byte)'%', (byte)'P', (byte)'D', (byte)'F', ..] => ".pdf",
            _ => file.Directory?.Parent?.Name == "logs" ? ".csv" : "",
        };
    }
}
