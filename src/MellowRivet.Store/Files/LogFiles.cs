using MellowRivet.Core;
using MellowRivet.Core.EngineLogs;

namespace MellowRivet.Store.Files;

/// <summary>Engine-monitor logs as files, each named by its SHA-256 and kept as it came.</summary>
public sealed class LogFiles(DataFolder data)
{
    /// <summary>The logs that ship with the product, to try it on.</summary>
    public static IReadOnlyList<string> Samples { get; } = ["engine-log-four.csv", "engine-log-six.csv"];

    /// <summary>One of them.</summary>
    public static Stream OpenSample(string name) =>
        File.OpenRead(Path.Combine(AppContext.BaseDirectory, "shelf", "logs", Samples.Single(sample => sample == name)));

    /// <summary>Takes in a file; whether it can be read is seen afterwards.</summary>
    /// <exception cref="IOException">The disk is full or gone; nothing was kept.</exception>
    public async Task<(string? Sha256, Refusal? Refusal)> TakeInAsync(Stream content, CancellationToken stop)
    {
        using var incoming = await IncomingFile.ReceiveAsync(content, data.Logs, LogFile.MostBytes, stop);
        if (incoming.Bytes > LogFile.MostBytes)
            return (null, new("file", $"The file is larger than {LogFile.MostBytes / 1024 / 1024} MB."));
        incoming.MoveTo(PathOf(incoming.Sha256));
        return (incoming.Sha256, null);
    }

    /// <summary>
    /// A kept file's bytes; null where there is none. The name is checked to be a SHA-256, so no other path can be reached.
    /// </summary>
    public byte[]? Read(string? sha256) =>
        sha256 is not null && PhotoFiles.IsSha256(sha256) && File.Exists(PathOf(sha256)) ? File.ReadAllBytes(PathOf(sha256)) : null;

    private string PathOf(string sha256) => Path.Combine(data.Logs, sha256[..2], sha256);
}
