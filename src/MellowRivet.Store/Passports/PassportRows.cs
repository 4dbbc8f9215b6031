using System.Data.Common;
using System.IO.Compression;
using MellowRivet.Core;
using MellowRivet.Core.Amendments;
using MellowRivet.Core.Books;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Parts;
using MellowRivet.Core.Passports;
using MellowRivet.Core.People;
using MellowRivet.Store.Proof;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Passports;

/// <summary>Unpacks a passport's rows into a database of their own, and asks of them what the shop's own rows keep to.</summary>
internal static class PassportRows
{
    // A database without a row: bringing one up takes seconds, and each passport wants one.
    private static readonly Lazy<Task<byte[]>> Empty = new(async () =>
    {
        DataFolder made = new(Path.Combine(Path.GetTempPath(), $"{Guid.NewGuid():N}.empty"));
        await using (var db = RivetDb.Of(made))
            await db.Database.MigrateAsync();
        SqliteConnection.ClearAllPools();
        var bytes = await File.ReadAllBytesAsync(made.Database);
        Directory.Delete(made.Path, recursive: true);
        return bytes;
    });

    /// <exception cref="BadPassportException">A row isn't one that this program can keep, or doesn't belong to the aircraft.</exception>
    public static async Task<Verified> UnpackAsync(ZipArchive zip, PassportManifest manifest, string text, string signature,
        DataFolder rows, TimeProvider clock, CancellationToken stop)
    {
        await File.WriteAllBytesAsync(rows.Database, await Empty.Value, stop);
        await using var db = RivetDb.Of(rows);
        await db.Database.ExecuteSqlRawAsync("PRAGMA synchronous=OFF;", stop);
        var data = manifest.Files.Select(file => file.Path).Where(path => path.StartsWith("data/", StringComparison.Ordinal)).ToHashSet();
        if (data.Except(PassportTables.All.Select(table => table.Path)).FirstOrDefault() is { } unknown)
            throw new BadPassportException($"it holds “{unknown}”, which this program doesn’t know: a newer one made it");
        if (PassportTables.All.FirstOrDefault(table => !data.Contains(table.Path)) is { } missing)
            throw new BadPassportException($"“{missing.Path}” is missing");
        HashSet<string> files = [];
        await using (var transaction = await db.Database.BeginTransactionAsync(stop))
        {
            foreach (var table in PassportTables.All)
                await UnpackAsync(db, zip, table, manifest, files, stop);
            db.Passports.Add(new(manifest.Aircraft.Id, manifest, text, signature, Guid.Empty, manifest.MadeAt));
            await db.SaveChangesAsync(stop);
            await transaction.CommitAsync(stop);
        }
        var there = manifest.Kept.Select(file => Path.GetFileNameWithoutExtension(file.Path)).Concat(manifest.Missing).ToHashSet();
        if (files.FirstOrDefault(sha => !there.Contains(sha)) is { } gone)
            throw new BadPassportException($"a picture, sound or log that its rows name isn’t in it ({gone[..16]})");
        await SoundAsync(db, manifest, clock, stop);
        var found = await new Verification(db, sha => there.Contains(sha)
            ? null
            : $"a picture, sound or video that it rests on is not in it ({sha[..16]})") { IsPart = true }.RunAsync(stop);
        return found.Fault is { } fault ? throw new BadPassportException(fault) : found;
    }

    private static async Task UnpackAsync(RivetDb db, ZipArchive zip, PassportTable table, PassportManifest manifest,
        HashSet<string> files, CancellationToken stop)
    {
        var known = (await RawRows.ReadAsync(db, $"SELECT name FROM pragma_table_info('{table.Table}')", [], stop))
            .Select(row => (string)row[0]!).ToHashSet(StringComparer.Ordinal);
        known.ExceptWith(table.Left);
        var (number, last) = (0, 0);
        DbCommand? insert = null;
        List<string> columns = [];
        var lines = PassportReader.LinesAsync(zip, table.Path, stop);
        if (table == PassportTables.Records)
            // The earliest stays the first: what another shop signed stands before what this one will.
            last = -await lines.CountAsync(stop) - 1;
        try
        {
            await foreach (var line in lines)
            {
                number++;
                var row = RowText.Read(line);
                if (row.FirstOrDefault(member => !known.Contains(member.Column)).Column is { } odd)
                    throw new BadPassportException($"“{table.Path}”, line {number}, has a column that this program doesn’t know: "
                        + $"{PassportManifest.Shown(odd)}. A newer one made it");
                Belongs(table, row, manifest, number);
                foreach (var value in row.Select(member => member.Value).OfType<string>())
                    files.UnionWith(RawRows.FilesIn(value));
                if (table == PassportTables.Records)
                    row.AddRange([("Number", (long)++last), ("TakenInAt", manifest.MadeAt.UtcDateTime.ToString("O"))]);
                else if (table == PassportTables.People)
                    row.AddRange([("Roles", "[]"), ("Owns", "[]"), ("LeftAt", manifest.MadeAt.UtcDateTime.ToString("O"))]);
                else if (table == PassportTables.Aircraft)
                    row.Add(("OnlySurveyed", 0L));
                if (insert is null || !columns.SequenceEqual(row.Select(member => member.Column)))
                {
                    columns = [.. row.Select(member => member.Column)];
                    if (insert is not null)
                        await insert.DisposeAsync();
                    insert = await InsertAsync(db, table.Table, columns, stop);
                }
                Fill(insert, [.. row.Select(member => member.Value)]);
                await insert.ExecuteNonQueryAsync(stop);
            }
        }
        catch (SqliteException problem)
        {
            throw new BadPassportException($"“{table.Path}”, line {number}, can’t be kept: {problem.Message}");
        }
        finally
        {
            if (insert is not null)
                await insert.DisposeAsync();
        }
        if (table == PassportTables.Aircraft && number != 1)
            throw new BadPassportException(number == 0 ? "it holds no aircraft" : "it holds more than one aircraft");
    }

    public static Task<DbCommand> InsertAsync(RivetDb db, string table, IReadOnlyList<string> columns, CancellationToken stop) =>
        RawRows.CommandAsync(db,
            $"INSERT INTO \"{table}\" ({string.Join(", ", columns.Select(column => $"\"{column}\""))}) "
            + $"VALUES ({string.Join(", ", columns.Select((_, at) => $"@v{at}"))})",
            columns.Select((_, at) => ($"@v{at}", (object)DBNull.Value)), stop);

    public static void Fill(DbCommand insert, IReadOnlyList<object?> values)
    {
        for (var at = 0; at < values.Count; at++)
            insert.Parameters[at].Value = values[at] ?? DBNull.Value;
    }

    // What says whose it is says this aircraft; what hangs on an inspection or part hangs on one that came with it, by foreign keys.
    private static void Belongs(PassportTable table, List<(string Column, object? Value)> row, PassportManifest manifest, int number)
    {
        var aircraft = manifest.Aircraft.Id.ToString();
        var says = table == PassportTables.Aircraft ? "Id" : "AircraftId";
        if (row.FirstOrDefault(member => member.Column == says).Value is { } other
            && !string.Equals($"{other}", aircraft, StringComparison.OrdinalIgnoreCase))
            throw new BadPassportException(table == PassportTables.Aircraft
                ? "it holds another aircraft than its manifest says"
                : $"“{table.Path}”, line {number}, belongs to another aircraft");
    }

    // Every value by its own type, as the pages will read it, and the file by what is asked of one that comes as JSON.
    private static async Task SoundAsync(RivetDb db, PassportManifest manifest, TimeProvider clock, CancellationToken stop)
    {
        try
        {
            foreach (var row in await db.Aircraft.AsNoTracking().ToListAsync(stop))
                if (row.Registration != manifest.Aircraft.Registration || row.SerialNumber != manifest.Aircraft.SerialNumber)
                    throw new BadPassportException("its data plate says another registration or serial number than its manifest");
            await LoadAsync<Component>(db, stop);
            await LoadAsync<Installation>(db, stop);
            await LoadAsync<MeterReading>(db, stop);
            await LoadAsync<DueItem>(db, stop);
            await LoadAsync<BookEntry>(db, stop);
            await LoadAsync<ShopBulletin>(db, stop);
            await LoadAsync<BulletinFollowUp>(db, stop);
            await LoadAsync<StatedFact>(db, stop);
            await LoadAsync<Inspection>(db, stop);
            await LoadAsync<InspectionTask>(db, stop);
            await LoadAsync<CompressionTest>(db, stop);
            await LoadAsync<Discrepancy>(db, stop);
            await LoadAsync<Reading>(db, stop);
            await LoadAsync<OpenItem>(db, stop);
            await LoadAsync<EngineLog>(db, stop);
            await LoadAsync<BookedTime>(db, stop);
            await LoadAsync<OrderedPart>(db, stop);
            await LoadAsync<Amendment>(db, stop);
            await LoadAsync<Person>(db, stop);
            foreach (var record in await db.SignedRecords.AsNoTracking().ToListAsync(stop))
                if (record.FormFault() is { } fault)
                    throw new BadPassportException(fault);
            // Pages reckon with these: a judgement, a sentence, a due day. What they can't reckon with isn't taken in.
            var file = (await db.FileOfAsync(manifest.Aircraft.Id, clock, stop))!;
            if (AircraftFile.Read(file.ToJson(), clock.Today()).Refusal is { } refusal)
                throw new BadPassportException(refusal.Message.Replace(" Nothing was taken in.", "").TrimEnd('.'));
        }
        catch (Exception problem) when (problem is FormatException or InvalidOperationException or ArgumentException or InvalidCastException
            or OverflowException or System.Text.Json.JsonException or NullReferenceException)
        {
            throw new BadPassportException($"a row in it can’t be read: {problem.Message.TrimEnd('.')}");
        }
    }

    private static async Task LoadAsync<T>(RivetDb db, CancellationToken stop) where T : class
    {
        await foreach (var _ in db.Set<T>().AsNoTracking().AsAsyncEnumerable().WithCancellation(stop))
        {
        }
    }
}
