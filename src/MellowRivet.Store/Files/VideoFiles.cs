using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Store.Files;

/// <summary>A video taken in, or why it wasn't.</summary>
public sealed record VideoTaken(Video? Video, Refusal? Refusal);

/// <summary>Short videos as files, each named by its SHA-256 and kept as the device recorded it: MP4 or WebM.</summary>
public sealed class VideoFiles(DataFolder data, TimeProvider clock)
{
    /// <summary>Largest file taken, in bytes.</summary>
    public const long MostBytes = 50 * 1024 * 1024;

    /// <summary>Takes in one video: its content says what it is and how long it runs, never its name.</summary>
    /// <exception cref="IOException">The disk is full or gone; nothing was kept.</exception>
    public async Task<VideoTaken> TakeInAsync(Stream content, string name, CancellationToken stop)
    {
        using var incoming = await IncomingFile.ReceiveAsync(content, data.Videos, MostBytes, stop);
        if (incoming.Bytes > MostBytes)
            return Refused(name, $"is larger than {MostBytes / 1024 / 1024} MB: record a shorter piece, or at a smaller size");
        if (incoming.Bytes == 0)
            return Refused(name, "is empty: record it again");
        if (TypeOf(incoming.Head(64)) is not { } type || Look(incoming.Path, type) is not { Pictures: true, Seconds: var seconds })
            return Refused(name, "is no video that every browser plays: MP4 or WebM");
        if (seconds <= 0)
            return Refused(name, "doesn’t say how long it runs: cut it once on the device that recorded it, and send that");
        if (seconds > Video.LongestSeconds)
            return Refused(name, $"runs {seconds:0} s, and {Video.LongestSeconds:0} s is the most: cut it to what it shows");
        incoming.MoveTo(PathOf(incoming.Sha256));
        return new(new(incoming.Sha256, type, Math.Max(0.1, Math.Round(seconds, 1)), clock.GetUtcNow()), null);
    }

    /// <summary>
    /// A kept video and its media type; null where there is none. The name is checked to be a SHA-256, so no other path can be reached.
    /// </summary>
    public (string Path, string Type)? Find(string sha256)
    {
        if (!PhotoFiles.IsSha256(sha256) || !File.Exists(PathOf(sha256)))
            return null;
        using var file = File.OpenRead(PathOf(sha256));
        var head = new byte[64];
        return TypeOf(head.AsSpan(0, file.ReadAtLeast(head, head.Length, throwOnEndOfStream: false))) is { } type
            ? (PathOf(sha256), type)
            : null;
    }

    // The other film format that begins with "ftyp" isn't played by every browser; nor is what is in the box of WebM without being it.
    private static string? TypeOf(ReadOnlySpan<byte> head) => head switch
    {
        [_, _, _, _, (byte)'f', (byte)'t', (byte)'y', (byte)'p', ..] when !head[8..].StartsWith("qt  "u8) => "video/mp4",
        [0x1A, 0x45, 0xDF, 0xA3, ..] when head.IndexOf("webm"u8) > 0 => "video/webm",
        _ => null,
    };

    private static (bool Pictures, double Seconds) Look(string path, string type)
    {
        using var file = File.OpenRead(path);
        return VideoContainer.Read(file, type);
    }

    private string PathOf(string sha256) => Path.Combine(data.Videos, sha256[..2], sha256);

    private static VideoTaken Refused(string name, string why) =>
        new(null, new("videos", $"{PhotoFiles.ShownName(name, "The video")} {why}. Your words are still here."));
}
