using MellowRivet.Core;
using MellowRivet.Store.Proof;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What is done with a shop's database as a whole: bring it up to date, back it up, verify its signed records.</summary>
public static class ShopDatabase
{
    private const int BackupsKept = 10;

    /// <summary>The migration that the ones before it were drawn together into, and the last of those.</summary>
    private const string Foundation = "20261127161049_Foundation", LastBefore = "20261125133255_InspectionRevision";

    /// <summary>The migration that made open items the aircraft's own.</summary>
    private const string OpenItems = "20261128013715_OpenItems";

    /// <summary>The migration that made the type list and gave wrenches their range.</summary>
    private const string Types = "20261128063604_Types";

    /// <summary>The migration that gave readings their parts' own hours.</summary>
    private const string OwnHours = "20261128093732_OwnHours";

    /// <summary>The migration that said whose an aircraft is.</summary>
    private const string Owners = "20261129043412_PeopleComeAndGo";

    /// <summary>Applies what migrations are pending, after a backup of what is there.</summary>
    /// <exception cref="InvalidDataException">The database is older than this program can carry over.</exception>
    public static async Task BringUpToDateAsync(RivetDb db, DataFolder data, TimeProvider clock, CancellationToken stop)
    {
        var applied = File.Exists(data.Database) ? [.. await db.Database.GetAppliedMigrationsAsync(stop)] : Array.Empty<string>();
        if (db.Database.GetMigrations().Except(applied).Any())
        {
            if (File.Exists(data.Database))
                Backup(data, Path.Combine(data.Backups, $"before-migration-{clock.GetUtcNow():yyyyMMdd-HHmmss}.db"));
            if (applied.Length > 0 && !applied.Contains(Foundation))
                await CarryOverAsync(db, applied, stop);
            await db.Database.MigrateAsync(stop);
            if (applied.Length > 0 && !applied.Contains(OpenItems))
                await db.OpenItemsFromHistoryAsync(stop);
            if (applied.Length > 0 && !applied.Contains(Types))
            {
                await db.TypesFromFilesAsync(stop);
                foreach (var tool in await db.Tools.ToListAsync(stop))
                    tool.TakeRangeFromName();
                await db.SaveChangesAsync(stop);
            }
            if (applied.Length > 0 && !applied.Contains(OwnHours))
                await db.CountAllOnPartsAsync(stop);
            if (applied.Length > 0 && !applied.Contains(Owners))
                await db.OwnersFromCertificatesAsync(clock.Today(), stop);
            await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;", stop);
        }
        await db.HasKeyAsync(clock.GetUtcNow(), stop);
        foreach (var old in Directory.EnumerateFiles(data.Backups, "before-migration-*.db").OrderDescending(StringComparer.Ordinal)
            .Skip(BackupsKept))
            File.Delete(old);
    }

    // The tables are those of the foundation already: what is left to say is that they came to be by it.
    private static async Task CarryOverAsync(RivetDb db, string[] applied, CancellationToken stop)
    {
        if (!applied.Contains(LastBefore))
            throw new InvalidDataException("This shop's database is older than this program can carry over. Nothing was changed.");
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await db.Database.ExecuteSqlAsync($"""
            INSERT INTO __EFMigrationsHistory (MigrationId, ProductVersion)
            SELECT {Foundation}, ProductVersion FROM __EFMigrationsHistory WHERE MigrationId = {LastBefore}
            """, stop);
        await db.Database.ExecuteSqlAsync($"DELETE FROM __EFMigrationsHistory WHERE MigrationId <> {Foundation}", stop);
        await transaction.CommitAsync(stop);
    }

    /// <summary>Copies the database while it is in use, through SQLite's online backup.</summary>
    /// <exception cref="SqliteException">It can't be read or written.</exception>
    public static void Backup(DataFolder data, string file)
    {
        // Not one of the pool's: the file may be another one than when that was opened.
        using var source = new SqliteConnection(new SqliteConnectionStringBuilder(data.ConnectionString) { Pooling = false }.ToString());
        using var target = new SqliteConnection(new SqliteConnectionStringBuilder { DataSource = file, Pooling = false }.ToString());
        source.Open();
        target.Open();
        source.BackupDatabase(target);
    }

    /// <summary>Holds everything that was signed against what is there.</summary>
    public static Task<Verified> VerifyAsync(RivetDb db, DataFolder data, CancellationToken stop) =>
        Verification.Of(db, data).RunAsync(stop);

    /// <summary>Whether every migration is applied.</summary>
    public static async Task<bool> IsMigratedAsync(this RivetDb db, CancellationToken stop) =>
        !(await db.Database.GetPendingMigrationsAsync(stop)).Any();
}
