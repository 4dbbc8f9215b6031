using MellowRivet.Store.Files;

namespace MellowRivet.Store.Backups;

/// <summary>A file of the shop beside its database.</summary>
/// <param name="Path">Its path in the shop's folder, with slashes.</param>
/// <param name="Bytes">How large it is.</param>
/// <param name="ChangedAt">When it was last written.</param>
/// <param name="ByHash">It is named by what is in it, and never changes; another may be replaced or go.</param>
public sealed record ShopFile(string Path, long Bytes, DateTime ChangedAt, bool ByHash);

/// <summary>What a shop is made of beside its database: whatever is copied, restored or followed is what stands here.</summary>
public static class ShopFiles
{
    /// <summary>The database's name.</summary>
    public const string Database = "rivet.db";

    /// <summary>Says in a demo's folder that it is one: a shop that was invented stays one wherever it is copied.</summary>
    public const string DemoLabel = "this-is-the-demo";

    private static readonly string[] ByHash = ["photos", "sounds", "videos", "logs", "documents"];
    private static readonly string[] Others = ["shelf", "outbox", "bulletin-feed", "keys"];

    // On its way in: none yet.
    private static readonly string[] OnTheWay = [".incoming", ".half", ".next"];

    /// <summary>All of them, in the order of their paths.</summary>
    public static IEnumerable<ShopFile> Of(DataFolder data)
    {
        foreach (var folder in ByHash.Concat(Others))
        {
            var place = new DirectoryInfo(Path.Combine(data.Path, folder));
            if (!place.Exists)
                continue;
            foreach (var file in place.EnumerateFiles("*", SearchOption.AllDirectories)
                .Where(file => file.LinkTarget is null && !OnTheWay.Contains(file.Extension))
                .OrderBy(file => file.FullName, StringComparer.Ordinal))
                yield return new(Path.GetRelativePath(data.Path, file.FullName), file.Length, file.LastWriteTimeUtc,
                    ByHash.Contains(folder));
        }
        if (new FileInfo(Path.Combine(data.Path, DemoLabel)) is { Exists: true } label)
            yield return new(DemoLabel, label.Length, label.LastWriteTimeUtc, false);
    }

    /// <summary>The SHA-256 that a path names, where the file is called by what is in it; null for another, as a picture's sized
    /// copy.</summary>
    public static string? HashOf(string path) => path.Split('/') is [var folder, _, { Length: >= HashLength } name]
        && ByHash.Contains(folder) && !name.EndsWith(".jpg", StringComparison.Ordinal) && PhotoFiles.IsSha256(name[..HashLength])
        ? name[..HashLength]
        : null;

    private const int HashLength = 64;

    /// <summary>Whether a path can be one of a shop's: no other is written, wherever it came from.</summary>
    public static bool IsPath(string path) => path is Database or DemoLabel
        || (path.Split('/') is [var folder, _, ..] parts && (ByHash.Contains(folder) || Others.Contains(folder)) && path.Length < 200
            && parts.All(part => part.Length > 0 && part.Trim('.').Length > 0 && part.All(letter =>
                char.IsAsciiLetterOrDigit(letter) || letter is '-' or '_' or '.' or ' ')));

    /// <summary>Whether a folder has files of a shop's, though no database: half of one.</summary>
    public static bool HasAny(string folder) => ByHash.Append("outbox").Append("documents").Select(name => Path.Combine(folder, name))
        .Any(place => Directory.Exists(place) && Directory.EnumerateFiles(place, "*", SearchOption.AllDirectories).Any())
        || File.Exists(Path.Combine(folder, "keys", "shop-key.pem"));
}
