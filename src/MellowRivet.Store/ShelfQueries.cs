using MellowRivet.Core;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What the pages load of the shop's own worksheets and rules.</summary>
public static class ShelfQueries
{
    /// <summary>How the shop works.</summary>
    public static async Task<HouseRules> HouseRulesAsync(this RivetDb db, CancellationToken stop) =>
        (await db.Shop.AsNoTracking().SingleOrDefaultAsync(stop))?.Rules ?? new();

    /// <summary>Tools that are out at other inspections in work, with the work order they are out at.</summary>
    public static async Task<IReadOnlyDictionary<Guid, string>> ToolsElsewhereAsync(this RivetDb db, Guid inspectionId,
        CancellationToken stop) =>
        (await db.Inspections.AsNoTracking().Where(other => other.State == InspectionState.InWork && other.Id != inspectionId)
            .Select(other => new { other.WorkOrder, Out = EF.Property<List<ToolOut>>(other, "toolsOut") }).ToListAsync(stop))
        .SelectMany(other => other.Out.Where(tool => tool.In is null).Select(tool => (tool.ToolId, other.WorkOrder)))
        .DistinctBy(pair => pair.ToolId).ToDictionary(pair => pair.ToolId, pair => pair.WorkOrder);

    /// <summary>The published edition of each worksheet that inspections begin with now, by title.</summary>
    public static async Task<IReadOnlyList<Edition>> CurrentWorksheetsAsync(this RivetDb db, CancellationToken stop) =>
        [.. (await db.Editions.AsNoTracking()
            .Where(edition => !edition.IsDraft
                && !db.Editions.Any(later => later.Key == edition.Key && !later.IsDraft && later.Version > edition.Version))
                .ToListAsync(stop))
            .OrderBy(edition => edition.Worksheet.Title, StringComparer.Ordinal)];

    /// <summary>
    /// What was last done when on an aircraft, by its signed inspections. A task that only looks counts as done where
    /// something was found at it, too.
    /// </summary>
    public static async Task<IReadOnlyCollection<TaskDone>> TasksDoneAsync(this RivetDb db, Guid aircraftId, TimeProvider clock,
        CancellationToken stop)
    {
        var done = await db.Inspections.AsNoTracking()
            .Where(inspection => inspection.AircraftId == aircraftId && inspection.State != InspectionState.InWork
                && inspection.Kind != InspectionKind.Survey)
            .SelectMany(inspection => inspection.Tasks,
                (inspection, task) => new
                    { inspection.TimeInService, task.WorksheetKey, task.Key, task.ComponentId, task.Verdict, task.Kind, task.At })
            .Where(task => task.At != null
                && (task.Verdict == TaskVerdict.Good
                    || (task.Verdict == TaskVerdict.Discrepancy
                        && (task.Kind == TaskKind.Inspect || task.Kind == TaskKind.Measure || task.Kind == TaskKind.Functional))))
            .ToListAsync(stop);
        return [.. done.Select(task =>
            new TaskDone(task.WorksheetKey, task.Key, task.ComponentId, task.TimeInService.Value, clock.DayOf(task.At!.Value)))];
    }

    /// <summary>The inspection of this aircraft that was signed last before another was opened; null where there is none.</summary>
    public static Task<Inspection?> LastSignedAsync(this RivetDb db, Inspection before, CancellationToken stop) =>
        db.Inspections.AsNoTracking()
        .Where(other => other.AircraftId == before.AircraftId && other.Id != before.Id && other.State != InspectionState.InWork
            && other.Kind != InspectionKind.Job && other.Kind != InspectionKind.Survey && other.OpenedOn <= before.OpenedOn)
        .OrderByDescending(other => other.OpenedOn).FirstOrDefaultAsync(stop);

    /// <summary>
    /// Puts worksheets on the shelf that aren't there yet. A newer one of the product follows only where the shop has not
    /// written an edition of its own.
    /// </summary>
    public static async Task PutOnShelfAsync(this RivetDb db, IEnumerable<Worksheet> sheets, DateTimeOffset at, CancellationToken stop)
    {
        var there = await db.Editions.AsNoTracking().Select(edition => new { edition.Key, edition.Version, edition.By, edition.IsDraft })
            .ToListAsync(stop);
        foreach (var sheet in sheets)
        {
            var editions = there.Where(edition => edition.Key == sheet.Key).ToList();
            if (editions.All(edition => edition.By is null && !edition.IsDraft && edition.Version < sheet.Version))
                db.Editions.Add(new(Guid.CreateVersion7(), sheet, false, null, at, "as it came with the product"));
        }
        await db.SaveChangesAsync(stop);
    }

    /// <summary>Every edition of a worksheet, earliest first.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="key">The worksheet.</param>
    /// <param name="toChange">Within a write.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<IReadOnlyList<Edition>> EditionsAsync(this RivetDb db, string key, bool toChange, CancellationToken stop) =>
        await (toChange ? db.Editions : db.Editions.AsNoTracking()).Where(edition => edition.Key == key).OrderBy(edition => edition.Version)
            .ToListAsync(stop);

    /// <summary>The published editions of some worksheets.</summary>
    public static async Task<ILookup<string, Edition>> PublishedAsync(this RivetDb db, IReadOnlyCollection<string> keys,
        CancellationToken stop) =>
        (await db.Editions.AsNoTracking().Where(edition => keys.Contains(edition.Key) && !edition.IsDraft).ToListAsync(stop))
            .ToLookup(edition => edition.Key);

    /// <summary>The drafts, by worksheet.</summary>
    public static Task<Dictionary<string, Edition>> DraftsAsync(this RivetDb db, CancellationToken stop) =>
        db.Editions.AsNoTracking().Where(edition => edition.IsDraft).ToDictionaryAsync(edition => edition.Key, stop);

    public static Task<bool> HasWorksheetAsync(this RivetDb db, string key, CancellationToken stop) =>
        db.Editions.AnyAsync(edition => edition.Key == key, stop);

    /// <summary>How many tools are in use, and how many types are known.</summary>
    public static async Task<(int Tools, int Types)> CountsAsync(this RivetDb db, CancellationToken stop) =>
        (await db.Tools.CountAsync(tool => !tool.IsRetired, stop), await db.Types.CountAsync(stop));

    /// <summary>Lets other rules hold for the shop and for all that is in work, within a write.</summary>
    public static async Task WorkByAsync(this RivetDb db, HouseRules rules, CancellationToken stop)
    {
        (await db.Shop.SingleOrDefaultAsync(stop) ?? db.Put(new Shop())).Work(rules);
        foreach (var inspection in await db.Inspections.Include(row => row.Discrepancies)
            .Where(inspection => inspection.State == InspectionState.InWork).ToListAsync(stop))
            inspection.Work(rules);
    }

    /// <summary>Every tool of the shop, those in use first, by name and number.</summary>
    public static async Task<IReadOnlyList<Tool>> ToolsAsync(this RivetDb db, CancellationToken stop) =>
        await db.Tools.AsNoTracking().OrderBy(tool => tool.IsRetired).ThenBy(tool => tool.Name).ThenBy(tool => tool.Number)
            .ToListAsync(stop);

    /// <summary>The torque wrenches in use, by name and number.</summary>
    public static async Task<IReadOnlyList<Tool>> WrenchesAsync(this RivetDb db, CancellationToken stop) =>
        await db.Tools.AsNoTracking().Where(tool => tool.IsTorqueWrench && !tool.IsRetired).OrderBy(tool => tool.Name)
            .ThenBy(tool => tool.Number).ToListAsync(stop);

    /// <summary>A tool, to look at; null where there is none, or none is asked for.</summary>
    public static async Task<Tool?> ToolAsync(this RivetDb db, Guid? id, CancellationToken stop) =>
        id is null ? null : await db.Tools.AsNoTracking().FirstOrDefaultAsync(tool => tool.Id == id, stop);

    /// <summary>A tool, within a write; null where there is none.</summary>
    public static Task<Tool?> ToolToChangeAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.Tools.FirstOrDefaultAsync(tool => tool.Id == id, stop);
}
