using MellowRivet.Store.Files;
using MellowRivet.Store.Proof;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Backups;

/// <summary>A shop that was restored.</summary>
/// <param name="Manifest">What the backup says of itself.</param>
/// <param name="Holds">What is there now.</param>
/// <param name="Found">What holding everything that was signed against what is there found.</param>
/// <param name="HasKey">The shop's key came along: it can sign.</param>
public sealed record Restored(BackupManifest Manifest, ShopHolds Holds, Verified Found, bool HasKey);

/// <summary>Makes a shop of a backup, in a folder where there is nothing.</summary>
public static class Restoring
{
    /// <summary>Restores a shop: every file is held against the backup's own word, the database is brought up to this release, and what was
    /// signed is verified.</summary>
    /// <param name="file">The backup.</param>
    /// <param name="folder">Where the shop goes: a folder that isn't there, or is empty.</param>
    /// <param name="clock">The time.</param>
    /// <param name="stop">Stops it; nothing of the shop is there then.</param>
    /// <exception cref="IOException">The folder is in use, or its disk has no room.</exception>
    /// <exception cref="InvalidDataException">The backup isn't whole, or is of a later release. Nothing is there then.</exception>
    public static async Task<Restored> RestoreAsync(string file, string folder, TimeProvider clock, CancellationToken stop)
    {
        folder = Path.TrimEndingDirectorySeparator(Path.GetFullPath(folder));
        if (File.Exists(folder) || (Directory.Exists(folder) && Directory.EnumerateFileSystemEntries(folder).Any()))
            throw new IOException($"{folder} is in use: a shop is restored where there is nothing. It stays as it is.");
        // Beside its place, on the same disk: it is there whole, or isn't.
        var half = $"{folder}.{Guid.NewGuid():N}.half";
        DataFolder data = new(half);
        try
        {
            using var zip = ShopBackup.Open(file);
            var manifest = await ShopBackup.EachAsync(zip, one => Place(data, one.Path), stop);
            await UpToDateAsync(data, clock, stop);
            var (holds, found, hasKey) = await LookAsync(data, clock, stop);
            LetGo(data);
            if (Directory.Exists(folder))
                Directory.Delete(folder);
            Directory.Move(half, folder);
            Disk.SyncFolder(Path.GetDirectoryName(folder)!);
            return new(manifest, holds, found, hasKey);
        }
        finally
        {
            LetGo(data);
            if (Directory.Exists(half))
                Directory.Delete(half, recursive: true);
        }
    }

    private static FileStream Place(DataFolder data, string path)
    {
        var place = Path.Combine(data.Path, path);
        Directory.CreateDirectory(Path.GetDirectoryName(place)!);
        return new(place, FileMode.CreateNew);
    }

    private static async Task UpToDateAsync(DataFolder data, TimeProvider clock, CancellationToken stop)
    {
        await using var db = RivetDb.Of(data);
        await db.IsWholeAsync(stop);
        if ((await db.Database.GetAppliedMigrationsAsync(stop)).Except(db.Database.GetMigrations()).Any()
            && !(await db.Database.GetPendingMigrationsAsync(stop)).Any())
            throw new InvalidDataException("The shop in it was last opened by a later release of this program: restore it with that one.");
        await ShopDatabase.BringUpToDateAsync(db, data, clock, stop);
    }

    private static async Task<(ShopHolds Holds, Verified Found, bool HasKey)> LookAsync(DataFolder data, TimeProvider clock,
        CancellationToken stop)
    {
        await using var db = RivetDb.Of(data);
        return (await db.HoldsAsync(stop), await ShopDatabase.VerifyAsync(db, data, stop), await db.HasKeyAsync(clock.GetUtcNow(), stop));
    }

    private static void LetGo(DataFolder data)
    {
        using var connection = new SqliteConnection(data.ConnectionString);
        SqliteConnection.ClearPool(connection);
    }
}
