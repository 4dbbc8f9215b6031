using MellowRivet.Core.Amendments;
using MellowRivet.Core.Passports;
using MellowRivet.Core.Records;
using MellowRivet.Store.Files;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Proof;

/// <summary>What verifying found.</summary>
/// <param name="Faults">What isn't as it was signed; empty where everything is.</param>
/// <param name="Notes">What a person should know all the same: values put right in the open, what is from before evidence was kept.</param>
/// <param name="Head">How far the shop's own chain is.</param>
/// <param name="Records">How many records this shop signed.</param>
/// <param name="Elsewhere">How many it keeps that others signed.</param>
public sealed record Verified(IReadOnlyList<string> Faults, IReadOnlyList<string> Notes, ChainHead Head, int Records, int Elsewhere)
{
    /// <summary>The first of them, or null.</summary>
    public string? Fault => Faults.Count > 0 ? Faults[0] : null;
}

/// <summary>
/// Holds everything that was signed against what is there: the chain, the shop's keys, and for each signed inspection the rows and files
/// it rested on.
/// </summary>
/// <param name="db">The shop; or what a passport brought, in a database of its own.</param>
/// <param name="fileFault">What is wrong with a file by its SHA-256; null where it is there and whole.</param>
public sealed partial class Verification(RivetDb db, Func<string, string?> fileFault)
{
    private readonly List<string> faults = [];
    private readonly SortedDictionary<string, int> notes = new(StringComparer.Ordinal);

    // By the chain they belong to, in their order.
    private ILookup<string, ShopKeyLine> keys = Array.Empty<ShopKeyLine>().ToLookup(line => line.Chain);

    // By what was put right.
    private ILookup<Guid, Amendment> amendments = Array.Empty<Amendment>().ToLookup(one => one.Subject);

    /// <summary>A shop in its folder.</summary>
    public static Verification Of(RivetDb db, DataFolder data) => new(db, sha => KeptFiles.Fault(data, sha));

    /// <summary>Whether the database holds only an aircraft of its shop: the rest of the chain isn't missed.</summary>
    public bool IsPart { get; init; }

    public async Task<Verified> RunAsync(CancellationToken stop)
    {
        if (db.Database.CurrentTransaction is not null)
            return await HoldAsync(stop);
        // One moment for all of it: what somebody signs meanwhile is no fault.
        await db.Database.OpenConnectionAsync(stop);
        await using var moment = ((SqliteConnection)db.Database.GetDbConnection()).BeginTransaction(deferred: true);
        await db.Database.UseTransactionAsync(moment, stop);
        var found = await HoldAsync(stop);
        await db.Database.UseTransactionAsync(null, stop);
        return found;
    }

    private async Task<Verified> HoldAsync(CancellationToken stop)
    {
        List<SignedRecord> records;
        try
        {
            records = await LoadAsync(stop);
        }
        catch (Exception problem) when (problem is FormatException or InvalidOperationException or SqliteException)
        {
            // A word that is none of a list, a day that is none: nothing was ever kept so.
            return new([.. faults, $"what was signed can't be read: {problem.Message}"], [], ChainHead.Empty, 0, 0);
        }
        KeysHold();
        var own = records.Where(record => !record.IsElsewhere).ToList();
        if (!IsPart)
            faults.AddRange(RecordChain.Faults(own, await EverWrittenAsync(stop),
                [.. keys.SelectMany(chain => chain).Where(line => line.ShopThere is null)]));
        foreach (var record in records.Where(record => record.IsElsewhere))
            if ((record.OwnFault() ?? record.KeyFault([.. keys[record.ChainThere!]])) is { } fault)
                Add(fault);
        await PassportsHoldAsync(records, stop);
        AmendmentsHold();
        await BoundRowsHoldAsync(records, stop);
        return new(faults, [.. notes.Select(note => note.Value > 0 ? $"{note.Key}: {note.Value}" : note.Key)],
            own.Count == 0 ? ChainHead.Empty : new(own[^1].Id, own[^1].Hash), own.Count, records.Count - own.Count);
    }

    private async Task<List<SignedRecord>> LoadAsync(CancellationToken stop)
    {
        foreach (var row in await RawRows.ReadAsync(db, "PRAGMA quick_check(3)", [], stop))
            if (row[0] is string said && said != "ok")
                Add($"the database file is damaged: {said}");
        keys = (await db.ShopKeys.AsNoTracking().OrderBy(line => line.Number).ToListAsync(stop)).ToLookup(line => line.Chain);
        evidence = await db.Evidence.AsNoTracking().ToDictionaryAsync(row => row.Hash, stop);
        amendments = (await db.Amendments.AsNoTracking().ToListAsync(stop)).ToLookup(one => one.Subject);
        return await db.SignedRecords.AsNoTracking().OrderBy(record => record.Id).ToListAsync(stop);
    }

    private async Task<long> EverWrittenAsync(CancellationToken stop) => await db.Database.SqlQuery<long>(
        $"SELECT COALESCE(MAX(seq), 0) AS Value FROM sqlite_sequence WHERE name = 'SignedRecords'").SingleAsync(stop);

    private void KeysHold()
    {
        foreach (var chain in keys)
        {
            if (ShopKeyLine.Fault([.. chain]) is { } fault)
                Add(fault);
            foreach (var line in chain.Where(line => line.IsAnew))
                Note($"key {line.Number} of {line.ShopThere ?? "this shop"} began on {line.From:yyyy-MM-dd} without the one before it, "
                    + "which was lost: nothing but paper says that it was the shop itself");
        }
    }

    // A manifest stays as it was signed, and says which records of another shop have to be here.
    private async Task PassportsHoldAsync(List<SignedRecord> records, CancellationToken stop)
    {
        var there = records.Where(record => record.IsElsewhere).Select(record => record.Hash).ToHashSet();
        foreach (var taken in await db.Passports.AsNoTracking().ToListAsync(stop))
        {
            var key = keys.SelectMany(chain => chain).FirstOrDefault(line => line.Fingerprint == taken.Fingerprint);
            var (manifest, _) = PassportManifest.Read(taken.Manifest);
            if (key is null || manifest is null || manifest.Aircraft.Id != taken.AircraftId
                || !PassportManifest.Holds(key.PublicKey, taken.Manifest, taken.Signature))
            {
                Add($"the passport that was taken in on {taken.At:yyyy-MM-dd} was altered");
                continue;
            }
            surveysElsewhere.UnionWith(manifest.SurveysLeftBehind);
            if (manifest.Records.Count(hash => !there.Contains(hash)) is > 0 and var gone)
                Add($"{gone} of the records that the passport of {manifest.Aircraft.Registration} brought "
                    + $"{(gone == 1 ? "is" : "are")} gone");
        }
    }

    private void AmendmentsHold()
    {
        foreach (var forged in amendments.SelectMany(of => of).Where(one => !Holds(one)))
            Add($"what was put right on {forged.At:yyyy-MM-dd} ({Short(forged.What)}) wasn't written by the shop as it stands");
    }

    // One from before the shop had a key has no seal.
    private bool Holds(Amendment amendment)
    {
        var known = keys.SelectMany(chain => chain).ToList();
        return amendment.IsSealedBy(known)
            || (amendment.Signature is null && known.All(line => amendment.At < line.From || line.Number > 1));
    }

    private void Add(string fault)
    {
        if (!faults.Contains(fault))
            faults.Add(fault);
    }

    /// <summary>What is said once, however often it is so.</summary>
    private void Note(string words) => notes[words] = 0;

    /// <summary>What is counted.</summary>
    private void Count(string words) => notes[words] = notes.GetValueOrDefault(words) + 1;

    private static string Short(string words) => words.Length <= 60 ? words : $"{words[..60]}…";
}
