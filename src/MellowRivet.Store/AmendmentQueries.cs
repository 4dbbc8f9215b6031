using MellowRivet.Core.Amendments;
using MellowRivet.Core.Inspections;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>Questions about what was put right.</summary>
public static class AmendmentQueries
{
    /// <summary>What was put right in an aircraft's file, latest first.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="subjects">Of these things alone; null for all.</param>
    public static async Task<IReadOnlyList<Amendment>> AmendmentsOfAsync(this RivetDb db, Guid aircraftId, CancellationToken stop,
        IReadOnlyCollection<Guid>? subjects = null) =>
        await db.Amendments.AsNoTracking().Where(row => row.AircraftId == aircraftId
                && (subjects == null || subjects.Contains(row.Subject)))
            .OrderByDescending(row => row.At).ToListAsync(stop);

    /// <summary>A reading of an aircraft with its inspection's work order; null where there is no such reading.</summary>
    public static async Task<(Reading Reading, string? WorkOrder, bool InWork)?> ReadingAsync(this RivetDb db, Guid aircraftId,
        Guid readingId, CancellationToken stop)
    {
        if (await db.Readings.AsNoTracking().FirstOrDefaultAsync(row => row.Id == readingId && row.AircraftId == aircraftId, stop)
            is not { } reading)
            return null;
        var at = await db.Inspections.AsNoTracking().Where(row => row.Id == reading.InspectionId)
            .Select(row => new { row.WorkOrder, row.State }).FirstOrDefaultAsync(stop);
        return (reading, at?.WorkOrder, at?.State == InspectionState.InWork);
    }
}
