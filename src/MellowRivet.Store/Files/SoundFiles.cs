using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Store.Files;

/// <summary>A sound taken in, or why it wasn't.</summary>
public sealed record SoundTaken(Sound? Sound, Refusal? Refusal);

/// <summary>Sounds as files, each named by its SHA-256 and kept as the device recorded it.</summary>
public sealed class SoundFiles(DataFolder data, TimeProvider clock)
{
    /// <summary>Largest file taken, in bytes.</summary>
    public const long MostBytes = 10 * 1024 * 1024;

    /// <summary>Takes in one sound: its first bytes decide what it is, never its name.</summary>
    /// <exception cref="IOException">The disk is full or gone; nothing was kept.</exception>
    public async Task<SoundTaken> TakeInAsync(Stream content, string name, CancellationToken stop)
    {
        using var incoming = await IncomingFile.ReceiveAsync(content, data.Sounds, MostBytes, stop);
        if (incoming.Bytes > MostBytes)
            return Refused(name, $"is larger than {MostBytes / 1024 / 1024} MB: record a shorter piece");
        if (incoming.Bytes == 0)
            return Refused(name, "is empty: record it again");
        if (TypeOf(incoming.Head(12)) is not { } type)
            return Refused(name, "is no sound that browsers play (WAV, Ogg, WebM, MP4, MP3)");
        incoming.MoveTo(PathOf(incoming.Sha256));
        return new(new(incoming.Sha256, type, clock.GetUtcNow()), null);
    }

    /// <summary>
    /// The path of a kept sound, or null where there is none. The name is checked to be a SHA-256, so no other path can be reached.
    /// </summary>
    public string? Find(string sha256) => PhotoFiles.IsSha256(sha256) && File.Exists(PathOf(sha256)) ? PathOf(sha256) : null;

    /// <summary>The media type that a sound's first bytes speak of; null where they speak of none.</summary>
    public static string? TypeOf(ReadOnlySpan<byte> head) => head switch
    {
        [(byte)'R', (byte)'I', (byte)'F', (byte)'F', _, _, _, _, (byte)'W', (byte)'A', (byte)'V', (byte)'E', ..] => "audio/wav",
        [(byte)'O', (byte)'g', (byte)'g', (byte)'S', ..] => "audio/ogg",
        [0x1A, 0x45, 0xDF, 0xA3, ..] => "audio/webm",
        [_, _, _, _, (byte)'f', (byte)'t', (byte)'y', (byte)'p', ..] => "audio/mp4",
        [(byte)'I', (byte)'D', (byte)'3', ..] => "audio/mpeg",
        [0xFF, 0xF1 or 0xF9, ..] => "audio/aac",
        [0xFF, 0xFB or 0xF3 or 0xF2, ..] => "audio/mpeg",
        _ => null,
    };

    private string PathOf(string sha256) => Path.Combine(data.Sounds, sha256[..2], sha256);

    private static SoundTaken Refused(string name, string why) =>
        new(null, new("sounds", $"{PhotoFiles.ShownName(name, "The sound")} {why}. Your words are still here."));
}
