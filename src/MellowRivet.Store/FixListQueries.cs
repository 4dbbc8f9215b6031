using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Store.Files;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What the fix list loads of earlier inspections.</summary>
public static class FixListQueries
{
    /// <summary>
    /// What was found on an aircraft before an inspection: of every signed one, or of a part that came from another aircraft.
    /// </summary>
    /// <param name="db">The shop.</param>
    /// <param name="inspection">The inspection.</param>
    /// <param name="near">Only in this zone or on this part; null for everything.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="corrected">Only what was corrected.</param>
    public static async Task<IReadOnlyList<EarlierFind>> EarlierFindsAsync(this RivetDb db, Inspection inspection, Place? near,
        CancellationToken stop, bool corrected = false)
    {
        var rows = from found in db.Discrepancies.AsNoTracking()
                   join other in db.Inspections on found.InspectionId equals other.Id
                   where other.Id != inspection.Id && other.State != InspectionState.InWork && other.OpenedOn <= inspection.OpenedOn
                   select new { found, other.AircraftId, other.WorkOrder, other.Id, other.OpenedOn, other.TimeInService };
        rows = near switch
        {
            null => rows.Where(row => row.AircraftId == inspection.AircraftId),
            { ComponentId: { } part } =>
                rows.Where(row => (row.AircraftId == inspection.AircraftId && row.found.ZoneKey == near.ZoneKey)
                    || row.found.ComponentId == part),
            _ => rows.Where(row => row.AircraftId == inspection.AircraftId && row.found.ZoneKey == near.ZoneKey),
        };
        if (corrected)
            rows = rows.Where(row => row.found.Correction != null);
        return [.. (await rows.ToListAsync(stop))
            .Select(row => new EarlierFind(row.found, row.WorkOrder, row.Id, row.OpenedOn, row.TimeInService.Value))
            .OrderByDescending(find => find.On).ThenBy(find => find.Found.Number)];
    }

    /// <summary>Whether a picture stands on an owner's page: only those that do are served there.</summary>
    public static async Task<bool> IsShownToOwnerAsync(this RivetDb db, Guid inspectionId, string sha256, CancellationToken stop) =>
        PhotoFiles.IsSha256(sha256)
        && (await db.Discrepancies.FromSql($"SELECT * FROM Discrepancy WHERE InspectionId = {inspectionId} AND instr(Photos, {sha256}) > 0")
            .AsNoTracking().ToListAsync(stop)).Any(found => OwnerList.IsShown(found) && found.Photos.Any(photo => photo.Sha256 == sha256));

    /// <summary>Whether a picture stands in a survey's report: what was found and is open.</summary>
    public static async Task<bool> IsInReportAsync(this RivetDb db, Guid inspectionId, string sha256, CancellationToken stop) =>
        PhotoFiles.IsSha256(sha256)
        && (await db.Discrepancies.FromSql($"SELECT * FROM Discrepancy WHERE InspectionId = {inspectionId} AND instr(Photos, {sha256}) > 0")
            .AsNoTracking().ToListAsync(stop)).Any(found => found.IsOpen && found.Photos.Any(photo => photo.Sha256 == sha256));

    /// <summary>The link that a token opens; null where there is none, or it has ended.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="token">The token.</param>
    /// <param name="clock">The shop's time.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="survey">It is one of the two sides of a survey; false for an inspection's owner.</param>
    public static async Task<OwnerLink?> OwnerLinkAsync(this RivetDb db, string token, TimeProvider clock, CancellationToken stop,
        bool survey = false)
    {
        if (token.Length != OwnerLink.TokenBytes * 2)
            return null;
        var hash = OwnerLink.HashOf(token);
        var link = await db.OwnerLinks.AsNoTracking().FirstOrDefaultAsync(row => row.TokenHash == hash, stop);
        return link?.HoldsAt(clock.GetUtcNow()) == true && (link.For != LinkFor.Owner) == survey ? link : null;
    }

    /// <summary>The known marks on an aircraft that no later inspection has taken the place of.</summary>
    public static async Task<IReadOnlyList<KnownMark>> KnownMarksAsync(this RivetDb db, Guid aircraftId, CancellationToken stop)
    {
        var marks = await (from found in db.Discrepancies.AsNoTracking()
                           join inspection in db.Inspections on found.InspectionId equals inspection.Id
                           where inspection.AircraftId == aircraftId && inspection.State != InspectionState.InWork
                              && found.Class == DiscrepancyClass.KnownMark
                              && (found.Disposition == Disposition.Open || found.Disposition == Disposition.Asked
                                  || found.Disposition == Disposition.Approved || found.Disposition == Disposition.Declined)
                              && !db.Discrepancies.Any(later => later.SameAs == found.Id && later.Disposition != Disposition.Withdrawn)
                           orderby inspection.OpenedOn, found.Number
                           select new { found, inspection.WorkOrder }).ToListAsync(stop);
        return [.. marks.Select(
            row => new KnownMark(row.found.Id, $"{row.WorkOrder}-{row.found.Number:00}", row.found.What, row.found.Place,
                row.found.Examination, row.found.Photos.Count > 0 ? row.found.Photos[0] : null))];
    }

    /// <summary>What an inspection found.</summary>
    public static async Task<IReadOnlyList<Discrepancy>> FoundAtAsync(this RivetDb db, Guid inspectionId, CancellationToken stop) =>
        await db.Discrepancies.AsNoTracking().Where(found => found.InspectionId == inspectionId).ToListAsync(stop);

    /// <summary>The links that were sent to the owner, latest first.</summary>
    public static async Task<IReadOnlyList<OwnerLink>> OwnerLinksAsync(this RivetDb db, Guid inspectionId, CancellationToken stop) =>
        [.. (await db.OwnerLinks.AsNoTracking().Where(link => link.InspectionId == inspectionId).ToListAsync(stop))
            .OrderByDescending(link => link.At)];

    /// <summary>Ends a link of an inspection at once.</summary>
    public static Task<Written> RevokeAsync(this RivetDb db, Guid inspectionId, Guid link, Guid post, TimeProvider clock,
        CancellationToken stop) => db.OnceAsync(post, clock, async () =>
        {
            (await db.OwnerLinks.FirstOrDefaultAsync(row => row.Id == link && row.InspectionId == inspectionId, stop))
                ?.Revoke(clock.GetUtcNow());
            return null;
        }, stop);

    /// <summary>Notes that the owner opened a link. A full disk keeps nobody from reading: it goes unnoted then.</summary>
    public static async Task OpenedAsync(this RivetDb db, Guid link, DateTimeOffset at, CancellationToken stop)
    {
        try
        {
            await db.OwnerLinks.Where(row => row.Id == link).ExecuteUpdateAsync(set => set.SetProperty(row => row.OpenedAt, at), stop);
        }
        catch (SqliteException full) when (Disk.IsFull(full))
        {
        }
    }
}
