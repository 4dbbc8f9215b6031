using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>A task of a walk, as far as going from one to the next goes by it.</summary>
public sealed record WalkStep(Guid Id, Station Station, string ZoneKey, TaskVerdict Verdict);

/// <summary>What was seen on an engine at one of its aircraft's inspections.</summary>
public sealed record EngineSeen(Guid InspectionId, IReadOnlyList<PlugNote> Notes, IReadOnlyList<FilterCut> Cuts,
    IReadOnlyList<SheetCheck> Checks);

/// <summary>What is loaded of inspections beside the one that is worked on.</summary>
public static class InspectionQueries
{
    /// <summary>Whether a work order is taken.</summary>
    public static Task<bool> IsTakenAsync(this RivetDb db, string workOrder, CancellationToken stop) =>
        db.Inspections.AnyAsync(row => row.WorkOrder == workOrder, stop);

    /// <summary>The work orders that begin so.</summary>
    public static async Task<IReadOnlyList<string>> WorkOrdersAsync(this RivetDb db, string prefix, CancellationToken stop) =>
        await db.Inspections.Where(row => row.WorkOrder.StartsWith(prefix)).Select(row => row.WorkOrder).ToListAsync(stop);

    /// <summary>The work orders that were signed on an aircraft.</summary>
    public static async Task<IReadOnlyList<string>> SignedOrdersAsync(this RivetDb db, Guid aircraftId, CancellationToken stop) =>
        await db.Inspections.Where(row => row.AircraftId == aircraftId && db.SignedRecords.Any(record => record.InspectionId == row.Id))
            .Select(row => row.WorkOrder).ToListAsync(stop);

    /// <summary>Which inspections of an aircraft are here: a survey of it may have stayed with another shop.</summary>
    public static async Task<IReadOnlySet<Guid>> InspectionsOnAsync(this RivetDb db, Guid aircraftId, CancellationToken stop) =>
        await db.Inspections.Where(row => row.AircraftId == aircraftId).Select(row => row.Id).ToHashSetAsync(stop);

    /// <summary>The inspection or job of an aircraft that is in work; null where none is. A survey is no work on it.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="tasks">With its tasks.</param>
    public static Task<Inspection?> InWorkAsync(this RivetDb db, Guid aircraftId, CancellationToken stop, bool tasks = false)
    {
        var rows = db.Inspections.AsNoTracking().Where(row => row.AircraftId == aircraftId && row.State == InspectionState.InWork
            && row.Kind != InspectionKind.Survey);
        return (tasks ? rows.Include(row => row.Tasks) : rows).FirstOrDefaultAsync(stop);
    }

    /// <summary>Every inspection in work with its aircraft's registration, by that.</summary>
    public static async Task<IReadOnlyList<(Inspection Inspection, string Registration)>> AllInWorkAsync(this RivetDb db,
        CancellationToken stop) =>
        [.. (await (from inspection in db.Inspections.AsNoTracking()
                    join aircraft in db.Aircraft on inspection.AircraftId equals aircraft.Id
                    where inspection.State == InspectionState.InWork
                    orderby aircraft.Registration
                    select new { inspection, aircraft.Registration }).ToListAsync(stop)).Select(row => (row.inspection, row.Registration))];

    /// <summary>The line that a job was taken for; null for an inspection, or where there is none.</summary>
    public static async Task<Discrepancy?> JobLineAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        await db.Inspections.AnyAsync(row => row.Id == id && row.Kind == InspectionKind.Job, stop)
            ? await db.Discrepancies.AsNoTracking().Where(found => found.InspectionId == id).OrderBy(found => found.Number)
                .FirstOrDefaultAsync(stop)
            : null;

    /// <summary>The aircraft of an inspection; null where there is no such inspection.</summary>
    public static Task<Guid?> AircraftOfAsync(this RivetDb db, Guid inspectionId, CancellationToken stop) =>
        db.Inspections.Where(row => row.Id == inspectionId).Select(row => (Guid?)row.AircraftId).FirstOrDefaultAsync(stop);

    /// <summary>Whether an inspection is in work; null where there is none.</summary>
    public static Task<InspectionState?> StateOfAsync(this RivetDb db, Guid inspectionId, CancellationToken stop) =>
        db.Inspections.Where(row => row.Id == inspectionId).Select(row => (InspectionState?)row.State).FirstOrDefaultAsync(stop);

    /// <summary>
    /// The walk of an inspection, in order, as far as going on goes by it: what is answered with another task is left out.
    /// </summary>
    public static async Task<IReadOnlyList<WalkStep>> StepsAsync(this RivetDb db, Guid inspectionId, CancellationToken stop) =>
        await db.Set<InspectionTask>().Where(task => task.InspectionId == inspectionId && task.TiedTo == null).OrderBy(task => task.Order)
            .Select(task => new WalkStep(task.Id, task.Station, task.ZoneKey, task.Verdict)).ToListAsync(stop);

    /// <summary>
    /// The inspection of this aircraft that was signed last before another was opened, with its tasks and what it
    /// found; null where there is none.
    /// </summary>
    public static async Task<Inspection?> LastSignedWholeAsync(this RivetDb db, Inspection before, CancellationToken stop) =>
        await db.Inspections.AsNoTracking().Include(row => row.Tasks).Include(row => row.Discrepancies)
        .Where(row => row.AircraftId == before.AircraftId && row.State != InspectionState.InWork && row.Id != before.Id
            && row.Kind != InspectionKind.Job && row.Kind != InspectionKind.Survey && row.OpenedOn <= before.OpenedOn)
        .OrderByDescending(row => row.OpenedOn).FirstOrDefaultAsync(stop);

    /// <summary>The records that were signed for an inspection, earliest first.</summary>
    public static async Task<IReadOnlyList<SignedRecord>> RecordsOfAsync(this RivetDb db, Guid inspectionId, CancellationToken stop) =>
        await db.SignedRecords.AsNoTracking().Where(record => record.InspectionId == inspectionId).OrderBy(record => record.Id)
            .ToListAsync(stop);

    /// <summary>Every record that was signed on an aircraft, here and elsewhere, earliest first.</summary>
    public static async Task<IReadOnlyList<SignedRecord>> RecordsOnAsync(this RivetDb db, Guid aircraftId, CancellationToken stop) =>
        await db.SignedRecords.AsNoTracking().Where(record => record.AircraftId == aircraftId).OrderBy(record => record.Id)
            .ToListAsync(stop);

    /// <summary>The inspections of an aircraft that found something, by their work orders; surveys are the buyer's.</summary>
    public static async Task<IReadOnlyList<(Guid Id, string WorkOrder)>> ListsOnAsync(this RivetDb db, Guid aircraftId,
        CancellationToken stop) =>
        [.. (await db.Inspections.AsNoTracking().Where(row => row.AircraftId == aircraftId && row.Kind != InspectionKind.Survey
            && row.Discrepancies.Any()).OrderBy(row => row.OpenedOn).Select(row => new { row.Id, row.WorkOrder }).ToListAsync(stop))
            .Select(row => (row.Id, row.WorkOrder))];

    /// <summary>The records of the chain that one of a shop's keys belongs to.</summary>
    public static async Task<IReadOnlyList<SignedRecord>> RecordsByAsync(this RivetDb db, string fingerprint, CancellationToken stop) =>
        await db.SignedRecords.AsNoTracking().Where(record => db.ShopKeys.Any(line => line.Fingerprint == fingerprint
            && line.Chain == record.ChainThere)).OrderBy(record => record.Id).ToListAsync(stop);

    /// <summary>Looks at plugs of every inspection of an aircraft.</summary>
    public static async Task<IReadOnlyList<PlugNote>> PlugNotesOnAsync(this RivetDb db, Guid aircraftId, CancellationToken stop) =>
        [.. (await db.Inspections.AsNoTracking().Where(row => row.AircraftId == aircraftId)
            .Select(row => EF.Property<List<PlugNote>>(row, "plugNotes")).ToListAsync(stop)).SelectMany(notes => notes)];

    /// <summary>What filters showed at every other inspection of an aircraft.</summary>
    public static async Task<IReadOnlyList<FilterCut>> FilterCutsBesideAsync(this RivetDb db, Guid aircraftId, Guid inspectionId,
        CancellationToken stop) =>
        [.. (await db.Inspections.AsNoTracking().Where(row => row.AircraftId == aircraftId && row.Id != inspectionId)
            .Select(row => EF.Property<List<FilterCut>>(row, "filterCuts")).ToListAsync(stop)).SelectMany(cuts => cuts)];

    /// <summary>The oil change of an engine before an inspection, the latest; null for none on file.</summary>
    public static async Task<OilFill?> LastOilFillAsync(this RivetDb db, Guid aircraftId, Guid engineId, Guid inspectionId,
        CancellationToken stop) =>
        (await db.Inspections.AsNoTracking().Where(row => row.AircraftId == aircraftId && row.Id != inspectionId)
            .Select(row => EF.Property<List<OilFill>>(row, "oilFills")).ToListAsync(stop))
        .SelectMany(fills => fills).Where(fill => fill.EngineId == engineId).MaxBy(fill => fill.At);

    /// <summary>What was seen on the engines of an aircraft, inspection by inspection.</summary>
    public static async Task<IReadOnlyList<EngineSeen>> EngineSeenAsync(this RivetDb db, Guid aircraftId, CancellationToken stop) =>
        [.. (await db.Inspections.AsNoTracking().Where(row => row.AircraftId == aircraftId)
            .Select(row => new { row.Id, Notes = EF.Property<List<PlugNote>>(row, "plugNotes"),
                Cuts = EF.Property<List<FilterCut>>(row, "filterCuts"), Checks = EF.Property<List<SheetCheck>>(row, "sheetChecks") })
                    .ToListAsync(stop))
            .Select(row => new EngineSeen(row.Id, row.Notes, row.Cuts, row.Checks))];

    /// <summary>The due item by which a discrepancy is watched; null where it isn't.</summary>
    public static Task<DueItem?> WatchOfAsync(this RivetDb db, Guid discrepancyId, CancellationToken stop) =>
        db.DueItems.FirstOrDefaultAsync(item => item.DiscrepancyId == discrepancyId && item.RetiredWhy == null, stop);

    /// <summary>Ends the watch on a discrepancy, within a write, where there is one.</summary>
    public static void EndWatch(this RivetDb db, Guid discrepancyId, string why) =>
        db.DueItems.FirstOrDefault(item => item.DiscrepancyId == discrepancyId && item.RetiredWhy == null)?.Retire(why);
}
