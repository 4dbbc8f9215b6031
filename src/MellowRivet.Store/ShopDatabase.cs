using MellowRivet.Core.Records;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What is done with a shop's database as a whole: bring it up to date, back it up, verify its signed records.</summary>
public static class ShopDatabase
{
    private const int BackupsKept = 10;

    /// <summary>Applies what migrations are pending, after a backup of what is there.</summary>
    public static async Task BringUpToDateAsync(RivetDb db, DataFolder data, TimeProvider clock, CancellationToken stop)
    {
        var isNew = !File.Exists(data.Database);
        if ((await db.Database.GetPendingMigrationsAsync(stop)).Any())
        {
            if (!isNew)
                Backup(data, Path.Combine(data.Backups, $"before-migration-{clock.GetUtcNow():yyyyMMdd-HHmmss}.db"));
            await db.Database.MigrateAsync(stop);
            await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;", stop);
        }
        foreach (var old in Directory.EnumerateFiles(data.Backups, "before-migration-*.db").OrderDescending(StringComparer.Ordinal).Skip(BackupsKept))
            File.Delete(old);
    }

    /// <summary>Copies the database while it is in use, through SQLite's online backup.</summary>
    /// <exception cref="SqliteException">It can't be read or written.</exception>
    public static void Backup(DataFolder data, string file)
    {
        using var source = new SqliteConnection(data.ConnectionString);
        using var target = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = file, Pooling = false }.ToString());
        source.Open();
        target.Open();
        source.BackupDatabase(target);
    }

    /// <summary>Walks the chain of signed records: the first fault in words, or null; and how many records there are.</summary>
    public static async Task<(string? Fault, int Records)> VerifyAsync(RivetDb db, CancellationToken stop)
    {
        var records = await db.SignedRecords.AsNoTracking().OrderBy(record => record.Number).ToListAsync(stop);
        var everWritten = await db.Database.SqlQuery<long>($"SELECT COALESCE(MAX(seq), 0) AS Value FROM sqlite_sequence WHERE name = 'SignedRecords'").SingleAsync(stop);
        return (RecordChain.FirstFault(records, everWritten), records.Count);
    }
}
