using System.Text.Json.Nodes;
using MellowRivet.Core.Amendments;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Proof;

/// <summary>Records that join the chain with the next save, once what they rest on is saved.</summary>
/// <param name="AircraftId">The aircraft.</param>
/// <param name="InspectionId">The inspection.</param>
/// <param name="Drafts">What is signed.</param>
/// <param name="At">When.</param>
/// <param name="WorkOrder">The work order of an inspection that they close; null where they rest on nothing but their texts.</param>
/// <param name="Clears">They end an open item, which names the first of them.</param>
internal sealed record ToSign(Guid AircraftId, Guid InspectionId, IReadOnlyList<Draft> Drafts, DateTimeOffset At, string? WorkOrder = null,
    bool Clears = false);

/// <summary>The end of the chain: what is added to it, and how far it is.</summary>
public static class Chain
{
    /// <summary>How far the shop's own chain is.</summary>
    public static async Task<ChainHead> HeadAsync(this RivetDb db, CancellationToken stop) =>
        await db.SignedRecords.AsNoTracking().Where(record => record.Id > 0).OrderByDescending(record => record.Id)
            .Select(record => new ChainHead(record.Id, record.Hash)).FirstOrDefaultAsync(stop) is { Number: > 0 } head
            ? head
            : ChainHead.Empty;

    /// <summary>The hashes of the shop's own chain, by number from 1.</summary>
    public static async Task<IReadOnlyList<string>> ChainAsync(this RivetDb db, CancellationToken stop) =>
        await db.SignedRecords.AsNoTracking().Where(record => record.Id > 0).OrderBy(record => record.Id).Select(record => record.Hash)
            .ToListAsync(stop);

    /// <summary>The number of the next record that is signed with the next save.</summary>
    internal static long NextNumber(this RivetDb db) =>
        (db.SignedRecords.Where(record => record.Id > 0).Max(record => (long?)record.Id) ?? 0)
        + db.Signing.Sum(sign => sign.Drafts.Count) + 1;

    /// <summary>
    /// Adds the records that wait to be signed. Called between a save and its commit, so that what they bind is what is kept.
    /// </summary>
    /// <exception cref="NoKeyException">The shop's key is gone.</exception>
    internal static async Task AppendAsync(this RivetDb db, CancellationToken stop)
    {
        var last = await db.SignedRecords.AsNoTracking().Where(record => record.Id > 0).OrderByDescending(record => record.Id)
            .FirstOrDefaultAsync(stop);
        using var key = await db.KeyAsync(db.Signing[0].At, stop) ?? throw new NoKeyException();
        foreach (var sign in db.Signing)
        {
            var evidence = await EvidenceOfAsync(db, sign, (last?.Id ?? 0) + 1, stop);
            if (evidence is not null)
                db.Evidence.Add(evidence);
            foreach (var draft in sign.Drafts)
            {
                var content = (JsonObject)draft.Content.DeepClone();
                if (evidence is not null)
                    content[SignedRecord.EvidenceMember] = evidence.Hash;
                last = SignedRecord.After(last, sign.AircraftId, sign.InspectionId, draft.Book, content, sign.At, key);
                db.SignedRecords.Add(last);
            }
        }
        db.Signing.Clear();
    }

    /// <summary>Seals what was put right, so that nobody who has the database alone makes one up.</summary>
    /// <exception cref="NoKeyException">The shop's key is gone: unsealed, it would be taken for made up ever after.</exception>
    internal static async Task SealAmendmentsAsync(this RivetDb db, CancellationToken stop)
    {
        var added = db.ChangeTracker.Entries<Amendment>().Where(entry => entry.State == EntityState.Added).Select(entry => entry.Entity)
            .ToList();
        if (added.Count == 0)
            return;
        using var key = await db.KeyAsync(added[0].At, stop) ?? throw new NoKeyException();
        foreach (var amendment in added)
            amendment.Seal(key);
    }

    private static async Task<Evidence?> EvidenceOfAsync(RivetDb db, ToSign sign, long first, CancellationToken stop)
    {
        if (sign.WorkOrder is null && !sign.Clears)
            return null;
        Dictionary<string, EvidencePart> parts = [];
        BoundTo of = new(sign.AircraftId, sign.InspectionId, sign.WorkOrder ?? $"record {first}");
        foreach (var table in sign.Clears ? [BoundTable.Ended] : BoundTable.OfInspection)
        {
            var columns = await table.ColumnsAsync(db, stop);
            parts[table.Name] = new(columns, [.. (await table.RowsAsync(db, columns, of, stop)).Select(row => row.Digest)]);
        }
        if (sign.WorkOrder is { } order)
            foreach (var list in BoundEntries.All)
                parts[list.Name] = new(list.Members, [.. (await list.RowsAsync(db, order, stop))[order].Select(row => row.Digest)]);
        return new(sign.AircraftId, sign.InspectionId, parts, sign.Clears ? [] : await FilesAsync(db, sign.InspectionId, stop));
    }

    private static async Task<IReadOnlyCollection<string>> FilesAsync(RivetDb db, Guid inspection, CancellationToken stop)
    {
        List<string> files = [];
        foreach (var (table, where) in new[] { ("Inspections", "\"Id\""), ("Discrepancy", "\"InspectionId\"") })
            files.AddRange((await RawRows.ReadAsync(db, $"SELECT * FROM \"{table}\" WHERE {where} = @subject",
                [("@subject", inspection.ToString().ToUpperInvariant())], stop))
                .SelectMany(row => row.OfType<string>()).SelectMany(RawRows.FilesIn));
        return files.Distinct().ToList();
    }
}
