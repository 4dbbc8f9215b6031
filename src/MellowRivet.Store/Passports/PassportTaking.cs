using MellowRivet.Core;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Passports;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store.Files;
using MellowRivet.Store.Proof;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Passports;

/// <summary>Takes an aircraft in from its passport: its files first, then its rows in one turn, wholly or not at all.</summary>
/// <param name="db">The shop.</param>
/// <param name="data">Its folder.</param>
/// <param name="clock">The time.</param>
public sealed class PassportTaking(RivetDb db, DataFolder data, TimeProvider clock)
{
    /// <summary>Takes it in.</summary>
    /// <param name="passport">The passport, checked.</param>
    /// <param name="file">Where it lies.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="by">Who takes it in; empty for the command line.</param>
    /// <param name="progress">Who is told how far it is.</param>
    /// <param name="stop">Stops it.</param>
    /// <exception cref="IOException">The disk is full or gone; nothing of the aircraft is kept.</exception>
    public async Task<Written> TakeInAsync(ReadPassport passport, string file, Guid post, Guid by, IProgress<PassportProgress>? progress,
        CancellationToken stop)
    {
        await using var from = passport.OpenRows();
        if (!await db.Postings.AnyAsync(done => done.Id == post, stop))
        {
            if (await HereAsync(from, passport.Manifest, stop) is { } here)
                return new(here);
            await FilesAsync(passport.Manifest, file, progress, stop);
        }
        return await db.OnceAsync(post, clock, async () =>
        {
            if (await HereAsync(from, passport.Manifest, stop) is { } here)
                return here;
            var orders = await OrdersAsync(from, stop);
            var first = Math.Min(0, await db.SignedRecords.MinAsync(record => (long?)record.Id, stop) ?? 0);
            foreach (var table in PassportTables.All)
                await CopyAsync(from, table, passport.Manifest, orders, first, stop);
            db.Passports.Add(new(post, passport.Manifest, passport.Text, passport.Signature, by, clock.GetUtcNow()));
            await ChangeCounts.RaiseAsync(db, Enum.GetValues<CountedRows>(), stop);
            db.Tell(Deed.TakenIn, $"{passport.Manifest.Aircraft.Registration}, with the passport of {passport.Manifest.Shop.Name}");
            return null;
        }, stop);
    }

    // An aircraft comes once, and so does every part and paper of it.
    private async Task<Refusal?> HereAsync(RivetDb from, PassportManifest manifest, CancellationToken stop)
    {
        var aircraft = manifest.Aircraft;
        if (await db.Aircraft.AnyAsync(row => row.Id == aircraft.Id || row.Registration == aircraft.Registration, stop))
            return new("file", $"{aircraft.Registration} has a file here already. Nothing was taken in.");
        foreach (var table in PassportTables.All.Where(table => !IsShared(table) && table != PassportTables.Aircraft))
        {
            var key = table == PassportTables.Evidence || table == PassportTables.Records ? "Hash" : "Id";
            var ids = (await RawRows.ReadAsync(from, $"SELECT \"{key}\" FROM \"{table.Table}\"", [], stop)).Select(row => (string)row[0]!);
            foreach (var some in ids.Chunk(500))
                if ((await RawRows.ReadAsync(db, $"SELECT 1 FROM \"{table.Table}\" WHERE \"{key}\" IN "
                    + $"({string.Join(", ", some.Select((_, at) => $"@i{at}"))}) LIMIT 1", some.Select((id, at) => ($"@i{at}", (object)id)),
                    stop)).Count > 0)
                    return new("file", $"Something of it is here already, on another aircraft ({table.What.Split(',', ':')[0]}). "
                        + "Nothing was taken in.");
        }
        return await KeysAsync(from, stop);
    }

    // A shop's keys follow each other there as they do here, and nobody brings one of ours.
    private async Task<Refusal?> KeysAsync(RivetDb from, CancellationToken stop)
    {
        var here = await db.ShopKeys.AsNoTracking().ToListAsync(stop);
        var fresh = (await from.ShopKeys.AsNoTracking().ToListAsync(stop))
            .Where(line => here.All(known => known.Fingerprint != line.Fingerprint)).ToList();
        foreach (var chain in fresh.GroupBy(line => line.Chain))
        {
            var known = here.Where(line => line.Chain == chain.Key).ToList();
            if (known.Exists(line => line.ShopThere is null)
                || ShopKeyLine.Fault([.. known.Concat(chain).OrderBy(line => line.Number)]) is not null)
                return new("file", "Its keys don’t go with those of that shop that are known here: ask that shop. Nothing was taken in.");
        }
        return null;
    }

    // What several aircraft have together: whatever the shop has of it stays as it is.
    private static bool IsShared(PassportTable table) =>
        table == PassportTables.Keys || table == PassportTables.People || table == PassportTables.Bulletins;

    // An inspection in work goes on here, under a work order of its own where another in work has that number.
    private async Task<Dictionary<string, string>> OrdersAsync(RivetDb from, CancellationToken stop)
    {
        Dictionary<string, string> orders = [];
        foreach (var order in await from.Inspections.Where(row => row.State == InspectionState.InWork).Select(row => row.WorkOrder)
            .ToListAsync(stop))
            if (await db.Inspections.AnyAsync(row => row.WorkOrder == order, stop))
                orders[order] = TakingIn.NextOrder(clock.Today(), [.. await db.WorkOrdersAsync(TakingIn.OrdersOf(clock.Today()), stop),
                    .. orders.Values]);
        return orders;
    }

    private async Task CopyAsync(RivetDb from, PassportTable table, PassportManifest manifest, Dictionary<string, string> orders,
        long first, CancellationToken stop)
    {
        await using var select = await RawRows.CommandAsync(from, $"SELECT * FROM \"{table.Table}\" ORDER BY rowid", [], stop);
        await using var reader = await select.ExecuteReaderAsync(stop);
        var columns = Enumerable.Range(0, reader.FieldCount).Select(reader.GetName).ToList();
        await using var insert = await PassportRows.InsertAsync(db, table.Table, columns, stop);
        if (IsShared(table))
            insert.CommandText = insert.CommandText.Replace("INSERT INTO", "INSERT OR IGNORE INTO", StringComparison.Ordinal);
        int At(string column) => columns.IndexOf(column);
        while (await reader.ReadAsync(stop))
        {
            var row = RawRows.Values(reader);
            if (table == PassportTables.Records)
                (row[At("Number")], row[At("TakenInAt")]) = ((long)row[At("Number")]! + first, clock.GetUtcNow().UtcDateTime.ToString("O"));
            else if (table == PassportTables.People)
                row[At("LeftAt")] = clock.GetUtcNow().UtcDateTime.ToString("O");
            else if (table == PassportTables.InspectionRows && $"{row[At("State")]}" == nameof(InspectionState.InWork)
                && orders.TryGetValue((string)row[At("WorkOrder")]!, out var order))
                row[At("WorkOrder")] = order;
            // The passport itself was put among its rows to be verified with them; it is kept by the post's id.
            else if (table == PassportTables.Passports && Guid.Parse((string)row[At("Id")]!) == manifest.Aircraft.Id)
                continue;
            PassportRows.Fill(insert, row);
            await insert.ExecuteNonQueryAsync(stop);
        }
    }

    // Each goes the way of one that is sent: what it is is decided by its content, and sized copies are made anew.
    private async Task FilesAsync(PassportManifest manifest, string file, IProgress<PassportProgress>? progress, CancellationToken stop)
    {
        using var zip = PassportReader.Open(file);
        PhotoFiles photos = new(data, clock);
        var kept = manifest.Kept.ToList();
        var (done, total) = (0L, kept.Sum(one => one.Bytes));
        foreach (var one in kept)
        {
            progress?.Report(new("taking in pictures and sounds", done, total));
            await using var content = await zip.GetEntry(one.Path)!.OpenAsync(stop);
            var taken = one.Path.Split('/')[0] switch
            {
                "photos" => (await photos.TakeInAsync(content, one.Path, stop)).Photo?.Sha256,
                "sounds" => (await new SoundFiles(data, clock).TakeInAsync(content, one.Path, stop)).Sound?.Sha256,
                "videos" => (await new VideoFiles(data, clock).TakeInAsync(content, one.Path, stop)).Video?.Sha256,
                "logs" => (await new LogFiles(data).TakeInAsync(content, stop)).Sha256,
                _ => (await new DocumentFiles(data).TakeInAsync(content, one.Path, stop)).Attachment?.Sha256,
            };
            if (taken is null || !Path.GetFileName(one.Path).StartsWith(taken, StringComparison.Ordinal))
                throw new BadPassportException($"“{one.Path}” is no such file as it should be");
            done += one.Bytes;
        }
        progress?.Report(new("taking in pictures and sounds", total, total));
    }
}
