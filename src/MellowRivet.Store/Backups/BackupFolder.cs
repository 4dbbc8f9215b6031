using System.Globalization;
using System.Text.Json;
using MellowRivet.Store.Files;
using MellowRivet.Store.Proof;

namespace MellowRivet.Store.Backups;

/// <summary>A backup that succeeded: it was written, and read again.</summary>
/// <param name="At">The moment that it holds.</param>
/// <param name="File">Where it lies, or lay.</param>
/// <param name="Bytes">How large it is.</param>
/// <param name="Files">How many files are in it.</param>
/// <param name="Lost">What the shop's own disk had lost by then; null where an earlier release made it.</param>
public sealed record LastBackup(DateTimeOffset At, string File, long Bytes, int Files, IReadOnlyList<LostFile>? Lost = null)
{
    /// <summary>Keeps it as the shop's last one, with what the shop's own disk lost.</summary>
    /// <param name="data">The shop's folder.</param>
    /// <param name="db">The shop.</param>
    /// <param name="manifest">What the backup says of itself.</param>
    /// <param name="file">Where it lies.</param>
    /// <param name="others">Backups before it that are known of, the latest first.</param>
    /// <param name="stop">Stops it.</param>
    public static async Task<LastBackup> KeepAsync(DataFolder data, RivetDb db, BackupManifest manifest, string file,
        IEnumerable<string> others, CancellationToken stop)
    {
        file = Path.GetFullPath(file);
        var before = Of(data);
        var lost = await LostFiles.FindAsync(manifest, before?.Lost ?? [],
            others.Concat(before is null ? [] : [before.File]).Where(other => other != file), db, stop);
        var last = new LastBackup(manifest.MadeAt, file, new FileInfo(file).Length, manifest.Files.Count, lost);
        try
        {
            Disk.Keep(PathIn(data), JsonSerializer.Serialize(last));
        }
        catch (IOException full) when (Disk.IsFull(full))
        {
            // The backup is there, on another disk than the one that is full.
        }
        return last;
    }

    /// <summary>The shop's last one; null where none succeeded yet.</summary>
    public static LastBackup? Of(DataFolder data)
    {
        try
        {
            var file = PathIn(data);
            return System.IO.File.Exists(file) ? JsonSerializer.Deserialize<LastBackup>(System.IO.File.ReadAllText(file)) : null;
        }
        catch (JsonException)
        {
            return null;
        }
    }

    private static string PathIn(DataFolder data) => Path.Combine(data.Backups, "last-backup.json");
}

/// <summary>
/// The folder that a shop's daily backups go to. Each has the shop in its name: another shop's beside them, or anything else, is nobody's
/// to take away.
/// </summary>
public sealed class BackupFolder
{
    private const string Stamp = "yyyyMMdd-HHmmss";

    private readonly string path, start;

    private BackupFolder(string path, string shop) => (this.path, start) = (path, $"rivet-{shop}-");

    /// <summary>The folder, for one shop: known by the first key it ever had.</summary>
    public static async Task<BackupFolder> OfAsync(string path, RivetDb db, CancellationToken stop) =>
        new(Path.GetFullPath(path), (await db.OwnAsync(stop)) is [var first, ..] ? first.Fingerprint[..8] : "unsigned");

    /// <summary>Its backups, the latest first, each with the day it is named after.</summary>
    public IReadOnlyList<(string File, DateTime At)> All() => !Directory.Exists(path) ? [] :
    [
        .. from file in Directory.EnumerateFiles(path, $"{start}*.zip")
           let name = Path.GetFileNameWithoutExtension(file)[start.Length..]
           where DateTime.TryParseExact(name, Stamp, CultureInfo.InvariantCulture, DateTimeStyles.None, out _)
           orderby name descending
           select (file, DateTime.ParseExact(name, Stamp, CultureInfo.InvariantCulture)),
    ];

    /// <summary>Where the next one goes.</summary>
    /// <param name="here">The time here.</param>
    public string Next(DateTime here) => Path.Combine(path, $"{start}{here.ToString(Stamp, CultureInfo.InvariantCulture)}.zip");

    /// <summary>Takes away what is more than is kept, the oldest first; and what a backup that was cut short left.</summary>
    /// <param name="most">How many are kept.</param>
    /// <param name="lost">What the shop's disk lost: the backup that has it stays however old it is.</param>
    public void KeepOnly(int most, IReadOnlyList<LostFile> lost)
    {
        foreach (var (file, _) in All().Skip(most).Where(one => lost.All(needed => needed.In != one.File)))
            File.Delete(file);
        foreach (var half in Directory.EnumerateDirectories(path, $"{start}*.half"))
            Directory.Delete(half, recursive: true);
    }
}
