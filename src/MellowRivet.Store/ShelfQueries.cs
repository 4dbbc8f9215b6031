using MellowRivet.Core;
using MellowRivet.Core.Inspections;
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
    public static async Task<IReadOnlyDictionary<Guid, string>> ToolsElsewhereAsync(this RivetDb db, Guid inspectionId, CancellationToken stop) =>
        (await db.Inspections.AsNoTracking().Where(other => other.State == InspectionState.InWork && other.Id != inspectionId).Select(other => new { other.WorkOrder, Out = EF.Property<List<ToolOut>>(other, "toolsOut") }).ToListAsync(stop))
        .SelectMany(other => other.Out.Where(tool => tool.In is null).Select(tool => (tool.ToolId, other.WorkOrder))).DistinctBy(pair => pair.ToolId).ToDictionary(pair => pair.ToolId, pair => pair.WorkOrder);

    /// <summary>The published edition of each worksheet that inspections begin with now, by title.</summary>
    public static async Task<IReadOnlyList<Edition>> CurrentWorksheetsAsync(this RivetDb db, CancellationToken stop) =>
        [.. (await db.Editions.AsNoTracking().Where(edition => !edition.IsDraft && !db.Editions.Any(later => later.Key == edition.Key && !later.IsDraft && later.Version > edition.Version)).ToListAsync(stop))
            .OrderBy(edition => edition.Sheet.Title, StringComparer.Ordinal)];

    /// <summary>
    /// What was last done when on an aircraft, by its signed inspections. A task that only looks counts as done where
    /// something was found at it, too.
    /// </summary>
    public static async Task<IReadOnlyCollection<TaskDone>> TasksDoneAsync(this RivetDb db, Guid aircraftId, TimeProvider clock, CancellationToken stop)
    {
        var done = await db.Inspections.AsNoTracking().Where(inspection => inspection.AircraftId == aircraftId && inspection.State != InspectionState.InWork)
            .SelectMany(inspection => inspection.Tasks, (inspection, task) => new { inspection.TimeInService, task.SheetKey, task.Key, task.ComponentId, task.Verdict, task.Kind, task.At })
            .Where(task => task.At != null && (task.Verdict == TaskVerdict.Good || (task.Verdict == TaskVerdict.Discrepancy && (task.Kind == TaskKind.Inspect || task.Kind == TaskKind.Measure || task.Kind == TaskKind.Functional))))
            .ToListAsync(stop);
        return [.. done.Select(task => new TaskDone(task.SheetKey, task.Key, task.ComponentId, task.TimeInService.Value, clock.DayOf(task.At!.Value)))];
    }

    /// <summary>The inspection of this aircraft that was signed last before another was opened; null where there is none.</summary>
    public static Task<Inspection?> LastSignedAsync(this RivetDb db, Inspection before, CancellationToken stop) => db.Inspections.AsNoTracking()
        .Where(other => other.AircraftId == before.AircraftId && other.Id != before.Id && other.State != InspectionState.InWork && other.OpenedOn <= before.OpenedOn)
        .OrderByDescending(other => other.OpenedOn).FirstOrDefaultAsync(stop);

    /// <summary>
    /// Puts worksheets on the shelf that aren't there yet. A newer one of the product follows only where the shop has not
    /// written an edition of its own.
    /// </summary>
    public static async Task PutOnShelfAsync(this RivetDb db, IEnumerable<Worksheet> sheets, DateTimeOffset at, CancellationToken stop)
    {
        var there = await db.Editions.AsNoTracking().Select(edition => new { edition.Key, edition.Version, edition.By, edition.IsDraft }).ToListAsync(stop);
        foreach (var sheet in sheets)
        {
            var editions = there.Where(edition => edition.Key == sheet.Key).ToList();
            if (editions.All(edition => edition.By is null && !edition.IsDraft && edition.Version < sheet.Version))
                db.Editions.Add(new(Guid.CreateVersion7(), sheet, false, null, at, "as it came with the product"));
        }
        await db.SaveChangesAsync(stop);
    }
}
