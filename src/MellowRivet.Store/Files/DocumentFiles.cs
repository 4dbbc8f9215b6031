using MellowRivet.Core;
using MellowRivet.Core.Bulletins;

namespace MellowRivet.Store.Files;

/// <summary>Documents that go with bulletins, each named by its SHA-256 and kept as it came: PDF, JPEG or PNG.</summary>
public sealed class DocumentFiles(DataFolder data)
{
    /// <summary>Largest file taken in, in bytes.</summary>
    public const int MostBytes = 25 * 1024 * 1024;

    /// <summary>Takes in a file. What it is its own first bytes say, not its name.</summary>
    /// <exception cref="IOException">The disk is full or gone; nothing was kept.</exception>
    public async Task<(Attachment? Attachment, Refusal? Refusal)> TakeInAsync(Stream content, string title, CancellationToken stop)
    {
        using var incoming = await IncomingFile.ReceiveAsync(content, data.Documents, MostBytes, stop);
        if (incoming.Bytes > MostBytes)
            return (null, new("file", $"The file is larger than {MostBytes / 1024 / 1024} MB."));
        if (TypeOf(incoming.Path) is not { } type)
            return (null, new("file", "A PDF, JPEG or PNG is wanted; this file begins like none of them."));
        incoming.MoveTo(PathOf(incoming.Sha256));
        return (new(incoming.Sha256, title, type), null);
    }

    /// <summary>
    /// A kept file and its media type; null where there is none. The name is checked to be a SHA-256, so no other path can be reached.
    /// </summary>
    public (string Path, string Type)? Find(string sha256) =>
        PhotoFiles.IsSha256(sha256) && File.Exists(PathOf(sha256)) && TypeOf(PathOf(sha256)) is { } type ? (PathOf(sha256), type) : null;

    private static string? TypeOf(string path)
    {
        using var file = File.OpenRead(path);
        Span<byte> head = stackalloc byte[8];
        file.ReadAtLeast(head, head.Length, throwOnEndOfStream: false);
        return head switch
        {
            [0x25, 0x50, 0x44, 0x46, 0x2D, ..] => "application/pdf",
            [0xFF, 0xD8, 0xFF, ..] => "image/jpeg",
            [0x89, 0x50, 0x4E, 0x47, 0x0D, 0x0A, 0x1A, 0x0A] => "image/png",
            _ => null,
        };
    }

    private string PathOf(string sha256) => Path.Combine(data.Documents, sha256[..2], sha256);
}
