using MellowRivet.Core.Inspections;
using MellowRivet.Core.Passports;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Passports;

/// <summary>How much goes along with an aircraft.</summary>
/// <param name="Records">Records that this shop signed.</param>
/// <param name="Elsewhere">Records that others signed.</param>
/// <param name="Inspections">Inspections and jobs.</param>
/// <param name="Found">Discrepancies.</param>
/// <param name="Readings">Everything measured.</param>
/// <param name="OpenItems">What is open on it.</param>
/// <param name="Parts">Parts that are or were on it.</param>
/// <param name="SurveysStay">Surveys before a purchase, which stay.</param>
public sealed record PassportContents(int Records, int Elsewhere, int Inspections, int Found, int Readings, int OpenItems, int Parts,
    int SurveysStay);

/// <summary>A passport an aircraft came with.</summary>
/// <param name="Taken">What is kept of it.</param>
/// <param name="Manifest">What it said; null where somebody altered it.</param>
/// <param name="Records">The records it brought, by their numbers there.</param>
public sealed record PassportCame(PassportTaken Taken, PassportManifest? Manifest, IReadOnlyList<SignedRecord> Records);

/// <summary>What pages ask about passports.</summary>
public static class PassportQueries
{
    public static async Task<PassportContents> ContentsAsync(this RivetDb db, Guid aircraftId, CancellationToken stop)
    {
        var inspections = db.Inspections.Where(row => row.AircraftId == aircraftId && row.Kind != InspectionKind.Survey);
        return new(
            await db.SignedRecords.CountAsync(record => record.AircraftId == aircraftId && record.ChainThere == null, stop),
            await db.SignedRecords.CountAsync(record => record.AircraftId == aircraftId && record.ChainThere != null, stop),
            await inspections.CountAsync(stop),
            await db.Discrepancies.CountAsync(found => inspections.Any(row => row.Id == found.InspectionId), stop),
            await db.Readings.CountAsync(reading => reading.AircraftId == aircraftId && (reading.InspectionId == null
                || inspections.Any(row => row.Id == reading.InspectionId)), stop),
            await db.OpenItems.CountAsync(item => item.AircraftId == aircraftId && item.End == null, stop),
            await db.Installations.Where(stay => stay.AircraftId == aircraftId).Select(stay => stay.ComponentId).Distinct()
                .CountAsync(stop),
            await db.Inspections.CountAsync(row => row.AircraftId == aircraftId && row.Kind == InspectionKind.Survey, stop));
    }

    /// <summary>When a key was first seen here: the shop's own, or one that a passport was taken in with; null for neither.</summary>
    public static async Task<DateTimeOffset?> KeyKnownSinceAsync(this RivetDb db, string fingerprint, CancellationToken stop) =>
        await db.ShopKeys.AsNoTracking().Where(line => line.Fingerprint == fingerprint && line.ShopThere == null)
            .Select(line => (DateTimeOffset?)line.From).FirstOrDefaultAsync(stop)
        ?? await db.Passports.AsNoTracking().Where(row => row.Fingerprint == fingerprint).OrderBy(row => row.At)
            .Select(row => (DateTimeOffset?)row.At).FirstOrDefaultAsync(stop);

    /// <summary>How many bulletins a passport brought.</summary>
    public static Task<int> CountBulletinsAsync(this RivetDb rows, CancellationToken stop) => rows.Bulletins.CountAsync(stop);

    /// <summary>The passports it came with, latest first.</summary>
    public static async Task<IReadOnlyList<PassportCame>> CameWithAsync(this RivetDb db, Guid aircraftId, CancellationToken stop)
    {
        var taken = await db.Passports.AsNoTracking().Where(row => row.AircraftId == aircraftId).ToListAsync(stop);
        var records = await db.SignedRecords.AsNoTracking().Where(record => record.AircraftId == aircraftId && record.ChainThere != null)
            .OrderBy(record => record.Id).ToListAsync(stop);
        var chains = await db.ShopKeys.AsNoTracking().ToDictionaryAsync(line => line.Fingerprint, line => line.Chain, stop);
        return [.. taken.OrderByDescending(row => row.At).Select(row => new PassportCame(row, PassportManifest.Read(row.Manifest).Manifest,
            [.. records.Where(record => chains.GetValueOrDefault(row.Fingerprint) == record.ChainThere)]))];
    }
}
