using MellowRivet.Store.Files;

namespace MellowRivet.Store.Backups;

/// <summary>A kept file that a row names, and that the shop's own disk has no more, or as something else.</summary>
/// <param name="Path">Its path in the shop's folder.</param>
/// <param name="In">The latest backup that has it as it was; null where none does that is known of.</param>
public sealed record LostFile(string Path, string? In);

/// <summary>
/// Finds what the shop's disk lost while somebody still has it: a picture that a disk spoilt is spoilt in every backup from then on, and
/// the last good one would be taken away for its age.
/// </summary>
public static class LostFiles
{
    /// <summary>What is lost, as of a backup that was just made.</summary>
    /// <param name="made">The backup.</param>
    /// <param name="known">What was lost when the one before was made.</param>
    /// <param name="backups">The ones before, the latest first; one that isn't there any more is passed over.</param>
    /// <param name="db">The shop.</param>
    /// <param name="stop">Stops it.</param>
    public static async Task<IReadOnlyList<LostFile>> FindAsync(BackupManifest made, IReadOnlyList<LostFile> known,
        IEnumerable<string> backups, RivetDb db, CancellationToken stop)
    {
        Dictionary<string, HashSet<string>> whole = [];
        async Task<HashSet<string>> InAsync(string backup) =>
            whole.TryGetValue(backup, out var there) ? there : whole[backup] = await WholeAsync(backup, stop);
        var before = backups.Where(File.Exists).ToList();
        var missing = known.Select(lost => lost.Path).Concat(before.Count > 0 ? await InAsync(before[0]) : []).Concat(made.Damaged())
            .Except(Whole(made)).ToList();
        if (missing.Count == 0)
            return [];
        var named = await Sweeping.NamedAsync(db, stop);
        List<LostFile> lost = [];
        foreach (var path in missing.Where(path => named.Contains(ShopFiles.HashOf(path)!)))
        {
            var has = known.FirstOrDefault(one => one.Path == path)?.In is { } there && File.Exists(there) ? there : null;
            foreach (var backup in has is null ? before : [])
                if ((await InAsync(backup)).Contains(path))
                {
                    has = backup;
                    break;
                }
            lost.Add(new(path, has));
        }
        return lost;
    }

    // The files that a backup has as they were; none of one that can't be read.
    private static async Task<HashSet<string>> WholeAsync(string backup, CancellationToken stop)
    {
        try
        {
            return Whole(await ShopBackup.ManifestAsync(backup, stop));
        }
        catch (Exception spoilt) when (spoilt is InvalidDataException or IOException or UnauthorizedAccessException)
        {
            return [];
        }
    }

    private static HashSet<string> Whole(BackupManifest backup) =>
        [.. backup.Files.Where(file => ShopFiles.HashOf(file.Path) == file.Sha256).Select(file => file.Path)];
}
