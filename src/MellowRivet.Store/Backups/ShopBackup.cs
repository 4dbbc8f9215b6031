using System.IO.Compression;
using MellowRivet.Core.Passports;
using MellowRivet.Store.Files;
using MellowRivet.Store.Passports;
using MellowRivet.Store.Proof;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Backups;

/// <summary>
/// Writes a shop into one file while people work in it: the database by SQLite's online backup, and every file beside it, which are on the
/// disk before the database speaks of them. What is written is read again before it has its name.
/// </summary>
public static class ShopBackup
{
    private const int MostTries = 5;

    /// <summary>Writes one.</summary>
    /// <param name="data">The shop's folder.</param>
    /// <param name="file">Where it goes: a file that isn't there, outside the shop's own folders.</param>
    /// <param name="clock">The time.</param>
    /// <param name="stop">Stops it; what was written is none.</param>
    /// <exception cref="IOException">There is such a file already, or no room on its disk.</exception>
    /// <exception cref="InvalidDataException">The database isn't whole, or what was written isn't what was meant.</exception>
    public static async Task<BackupManifest> WriteAsync(DataFolder data, string file, TimeProvider clock, CancellationToken stop)
    {
        file = Path.GetFullPath(file);
        if (Path.Exists(file))
            throw new IOException($"{file} is there already, and stays as it is: name another.");
        if (file.StartsWith(data.Path + Path.DirectorySeparatorChar, StringComparison.Ordinal)
            && !file.StartsWith(data.Backups + Path.DirectorySeparatorChar, StringComparison.Ordinal))
            throw new IOException($"{file} is in the shop's own folder: name one outside it, best on another disk.");
        var half = Directory.CreateDirectory($"{file}.{Guid.NewGuid():N}.half").FullName;
        try
        {
            var written = Path.Combine(half, "written");
            var manifest = await AtOneMomentAsync(data, new(Path.Combine(half, "rows")), written, clock, stop);
            await CheckAsync(written, stop);
            // Never over another's: the name may have been taken meanwhile.
            File.Move(written, file, overwrite: false);
            Disk.SyncFolder(Path.GetDirectoryName(file)!);
            return manifest;
        }
        finally
        {
            Directory.Delete(half, recursive: true);
        }
    }

    // The keys lie beside the database: where one took another's place meanwhile, the two are of different moments.
    private static async Task<BackupManifest> AtOneMomentAsync(DataFolder data, DataFolder rows, string written, TimeProvider clock,
        CancellationToken stop)
    {
        for (var tries = 1; ; tries++)
        {
            var before = KeysNow(data);
            var manifest = await WriteAsync(data, rows, written, clock.GetUtcNow(), stop);
            if (KeysNow(data) == before)
                return manifest;
            if (tries == MostTries)
                throw new IOException("The shop's keys change all the time: try again later.");
            File.Delete(written);
            File.Delete(rows.Database);
        }
    }

    private static string KeysNow(DataFolder data) => string.Join('\n', ShopFiles.Of(data)
        .Where(file => file.Path.StartsWith("keys/", StringComparison.Ordinal)).Select(file => $"{file.Path} {file.ChangedAt:O}"));

    private static async Task<BackupManifest> WriteAsync(DataFolder data, DataFolder rows, string written, DateTimeOffset now,
        CancellationToken stop)
    {
        ShopDatabase.Backup(data, rows.Database);
        var (shop, head, holds) = await LookAsync(rows, stop);
        List<BackupFile> files = [];
        await using var to = new FileStream(written, FileMode.CreateNew);
        using (var zip = new ZipArchive(to, ZipArchiveMode.Create, leaveOpen: true))
        {
            async Task AddAsync(string path, string from, CompressionLevel level)
            {
                await using var entry = await zip.CreateEntry(path, level).OpenAsync(stop);
                await using var hashing = new HashingStream(entry);
                await using var content = File.OpenRead(from);
                await content.CopyToAsync(hashing, stop);
                files.Add(new(path, hashing.Bytes, hashing.Sha256()));
            }
            await AddAsync(ShopFiles.Database, rows.Database, CompressionLevel.Fastest);
            foreach (var file in ShopFiles.Of(data))
                await AddAsync(file.Path, Path.Combine(data.Path, file.Path), CompressionLevel.NoCompression);
            var manifest = new BackupManifest(BackupManifest.FormatName, BackupManifest.CurrentVersion, now, shop, head, holds, files);
            await using (var entry = await zip.CreateEntry(BackupManifest.Name, CompressionLevel.Fastest).OpenAsync(stop))
                await entry.WriteAsync(manifest.ToJson(), stop);
            return manifest;
        }
    }

    /// <summary>What a copy of a shop's database holds, once SQLite says that it is whole.</summary>
    /// <exception cref="InvalidDataException">It isn't.</exception>
    private static async Task<(string Shop, string? Head, ShopHolds? Holds)> LookAsync(DataFolder rows, CancellationToken stop)
    {
        try
        {
            await using var db = RivetDb.Of(rows);
            await db.IsWholeAsync(stop);
            // One that this release hasn't brought up to date yet is copied all the same, and says less of itself.
            if (!await db.IsMigratedAsync(stop))
                return ("", null, null);
            var head = await db.HeadAsync(stop);
            return ((await db.HouseRulesAsync(stop)).Name, head.Number == 0 ? null : $"{head}", await db.HoldsAsync(stop));
        }
        finally
        {
            using var connection = new SqliteConnection(rows.ConnectionString);
            SqliteConnection.ClearPool(connection);
        }
    }

    /// <summary>Asks SQLite whether the whole file is as it should be.</summary>
    /// <exception cref="InvalidDataException">It isn't.</exception>
    internal static async Task IsWholeAsync(this RivetDb db, CancellationToken stop)
    {
        if (await db.Database.SqlQuery<string>($"PRAGMA integrity_check").ToListAsync(stop) is not ["ok"] and var faults)
            throw new InvalidDataException($"The database isn't whole: {string.Join("; ", faults.Take(3))}.");
    }

    /// <summary>What a shop holds.</summary>
    internal static async Task<ShopHolds> HoldsAsync(this RivetDb db, CancellationToken stop) => new(
        await db.Aircraft.CountAsync(stop), await db.Inspections.CountAsync(stop), await db.Discrepancies.CountAsync(stop),
        await db.Readings.CountAsync(stop), await db.SignedRecords.CountAsync(stop), await db.People.CountAsync(stop));

    /// <summary>Reads a backup to its end: every file that it names is there as it says, and no other.</summary>
    /// <exception cref="InvalidDataException">It isn't whole; the message names what is wrong.</exception>
    public static async Task<BackupManifest> CheckAsync(string file, CancellationToken stop)
    {
        using var zip = Open(file);
        return await EachAsync(zip, _ => Stream.Null, stop);
    }

    internal static ZipArchive Open(string file)
    {
        try
        {
            return ZipFile.OpenRead(file);
        }
        catch (InvalidDataException)
        {
            throw new InvalidDataException($"{Path.GetFileName(file)} is no backup, or was cut short: its end is missing.");
        }
    }

    /// <summary>What a backup says of itself.</summary>
    /// <exception cref="InvalidDataException">It isn't one.</exception>
    internal static async Task<BackupManifest> ManifestAsync(string file, CancellationToken stop)
    {
        using var zip = Open(file);
        return await ManifestAsync(zip, stop);
    }

    private static async Task<BackupManifest> ManifestAsync(ZipArchive zip, CancellationToken stop)
    {
        if (zip.GetEntry(BackupManifest.Name) is not { Length: < BackupManifest.MostBytes } last)
            throw new InvalidDataException("It is no backup of a shop.");
        using var text = new MemoryStream();
        await using (var content = await last.OpenAsync(stop))
            await content.CopyToAsync(text, stop);
        return BackupManifest.Read(text.ToArray());
    }

    /// <summary>Copies each file of a backup to where it goes, and holds it against what the backup says of it.</summary>
    internal static async Task<BackupManifest> EachAsync(ZipArchive zip, Func<BackupFile, Stream> open, CancellationToken stop)
    {
        var manifest = await ManifestAsync(zip, stop);
        if (zip.Entries.Count != manifest.Files.Count + 1
            || manifest.Files.Select(one => one.Path).Distinct(StringComparer.OrdinalIgnoreCase).Count() != manifest.Files.Count
            || !manifest.Files.Any(one => one.Path == ShopFiles.Database))
            throw new InvalidDataException("The backup doesn't hold what it says.");
        foreach (var one in manifest.Files)
        {
            if (!ShopFiles.IsPath(one.Path))
                throw new InvalidDataException($"“{PassportManifest.Shown(one.Path)}” is no path that a shop has.");
            if (zip.GetEntry(one.Path) is not { } entry || entry.Length != one.Bytes)
                throw new InvalidDataException($"{one.Path} of the backup is gone, or of another length.");
            if (await CopyAsync(entry, open(one), stop) != (one.Bytes, one.Sha256))
                throw new InvalidDataException($"{one.Path} of the backup is damaged: it isn't what was copied.");
        }
        return manifest;
    }

    private static async Task<(long Bytes, string Sha256)> CopyAsync(ZipArchiveEntry entry, Stream to, CancellationToken stop)
    {
        await using (to)
        {
            await using var hashing = new HashingStream(to);
            await using var content = await entry.OpenAsync(stop);
            try
            {
                await content.CopyToAsync(hashing, stop);
            }
            catch (InvalidDataException problem)
            {
                throw new InvalidDataException($"{entry.FullName} of the backup is damaged.", problem);
            }
            if (to is FileStream file)
                file.Flush(flushToDisk: true);
            return (hashing.Bytes, hashing.Sha256());
        }
    }
}
