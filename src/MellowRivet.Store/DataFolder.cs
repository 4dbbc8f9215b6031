namespace MellowRivet.Store;

/// <summary>Where a shop's data lives: the database, the photos, the shelf's files, the backups and the sign-in keys.</summary>
public sealed class DataFolder
{
    public DataFolder(string path)
    {
        Path = System.IO.Path.GetFullPath(path);
        foreach (var folder in new[] { Path, Photos, Shelf, Backups, Keys })
            Directory.CreateDirectory(folder);
    }

    public string Path { get; }
    public string Database => System.IO.Path.Combine(Path, "rivet.db");
    public string Photos => System.IO.Path.Combine(Path, "photos");
    public string Shelf => System.IO.Path.Combine(Path, "shelf");
    public string Backups => System.IO.Path.Combine(Path, "backups");
    public string Keys => System.IO.Path.Combine(Path, "keys");

    public string ConnectionString => $"Data Source={Database};Foreign Keys=True;Default Timeout=10";
}
