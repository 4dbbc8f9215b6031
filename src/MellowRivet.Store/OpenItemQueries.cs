using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What is open on an aircraft, whichever inspection found it.</summary>
public static class OpenItemQueries
{
    /// <summary>The open items of an aircraft, worst first.</summary>
    public static async Task<IReadOnlyList<OpenItem>> OpenItemsAsync(this RivetDb db, Guid aircraftId, CancellationToken stop) =>
        [.. (await db.OpenItems.AsNoTracking().Where(item => item.AircraftId == aircraftId && item.End == null).ToListAsync(stop))
            .OrderBy(item => item.Because).ThenBy(item => item.FirstNumber, StringComparer.Ordinal)];

    /// <summary>Everything that is or was open on an aircraft.</summary>
    public static async Task<IReadOnlyList<OpenItem>> AllItemsAsync(this RivetDb db, Guid aircraftId, CancellationToken stop) =>
        await db.OpenItems.AsNoTracking().Where(item => item.AircraftId == aircraftId).ToListAsync(stop);

    /// <summary>An item, open or not; null where there is none.</summary>
    public static Task<OpenItem?> ItemAsync(this RivetDb db, Guid? id, CancellationToken stop) =>
        db.OpenItems.AsNoTracking().FirstOrDefaultAsync(item => item.Id == id, stop);

    /// <summary>Settles what an inspection carried in, and adds what it leaves open. Saving is the caller's.</summary>
    internal static void SettleOpenItems(this RivetDb db, Inspection inspection, Guid by, DateOnly on)
    {
        var open = db.OpenItems.Where(item => item.AircraftId == inspection.AircraftId && item.End == null).AsEnumerable()
            .Union(db.OpenItems.Local.Where(item => item.AircraftId == inspection.AircraftId && item.IsOpen)).ToList();
        db.OpenItems.AddRange(inspection.IsSurvey ? OpenItemsAfter.Buying(inspection, open, on)
            : OpenItemsAfter.Signing(inspection, open, by, on));
    }

    /// <summary>
    /// A shop from before items were the aircraft's: what each one's last signed inspection left open becomes
    /// its open items, in work as well.
    /// </summary>
    public static async Task OpenItemsFromHistoryAsync(this RivetDb db, CancellationToken stop)
    {
        var inspections = await db.Inspections.Include(row => row.Tasks).Include(row => row.Discrepancies)
            .Where(row => db.Discrepancies.Any(found => found.InspectionId == row.Id) || row.State == InspectionState.InWork)
            .ToListAsync(stop);
        foreach (var of in inspections.GroupBy(row => row.AircraftId))
        {
            if (of.Where(row => !row.InWork).MaxBy(row => row.OpenedOn) is not { } last)
                continue;
            List<OpenItem> items = [.. OpenItemsAfter.Signing(last, [], Guid.Empty, last.OpenedOn)];
            db.OpenItems.AddRange(items);
            foreach (var open in of.Where(row => row.InWork))
                open.CarryIn(items);
        }
        await db.SaveChangesAsync(stop);
    }
}
