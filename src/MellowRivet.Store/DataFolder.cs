using MellowRivet.Store.Files;

namespace MellowRivet.Store;

/// <summary>
/// Where a shop's data lives: the database, the photos, sounds, videos, engine logs and documents, the mail that would have gone out,
/// the shelf's files, the backups, passports on their way, and the keys.
/// </summary>
public sealed class DataFolder
{
    public DataFolder(string path)
    {
        Disk.MakeForOwnerAlone();
        Path = System.IO.Path.GetFullPath(path);
        foreach (var folder in new[] { Path, Photos, Sounds, Videos, Logs, Outbox, Shelf, Backups, Keys, Documents, Feed, Passports })
            Directory.CreateDirectory(folder);
    }

    public string Path { get; }
    public string Database => System.IO.Path.Combine(Path, "rivet.db");
    public string Photos => System.IO.Path.Combine(Path, "photos");
    public string Videos => System.IO.Path.Combine(Path, "videos");
    public string Sounds => System.IO.Path.Combine(Path, "sounds");
    public string Logs => System.IO.Path.Combine(Path, "logs");
    public string Outbox => System.IO.Path.Combine(Path, "outbox");
    public string Shelf => System.IO.Path.Combine(Path, "shelf");
    public string Backups => System.IO.Path.Combine(Path, "backups");
    public string Documents => System.IO.Path.Combine(Path, "documents");

    /// <summary>What the simulated bulletin service gives out: a JSON file a bulletin.</summary>
    public string Feed => System.IO.Path.Combine(Path, "bulletin-feed");

    /// <summary>An image of the database on its way to a second machine; there only while one follows.</summary>
    public string Following => System.IO.Path.Combine(Path, "following");
    public string Passports => System.IO.Path.Combine(Path, "passports");

    /// <summary>
    /// A file outside this folder that gets a line with the head of the chain at each signature; null where none is named. Whoever alters
    /// what lies in this folder alters it without that file.
    /// </summary>
    public string? HeadFile { get; init; }
    public string Keys => System.IO.Path.Combine(Path, "keys");

    /// <summary>
    /// How long a write waits for its turn, seconds. Turns are milliseconds: one that takes longer is a disk
    /// that hangs, or another program.
    /// </summary>
    public int LockSeconds { get; init; } = 10;

    public string ConnectionString => $"Data Source={Database};Foreign Keys=True;Default Timeout={LockSeconds}";
}
