using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;

namespace MellowRivet.Core.Inspections;

/// <summary>A due item as the plan sees it.</summary>
/// <param name="Entry">The item, and where it stands.</param>
/// <param name="IsDone">Done since the inspection was opened.</param>
/// <param name="IsLeftOut">Somebody decided not to do it now.</param>
public sealed record PlannedDue(DueEntry Entry, bool IsDone, bool IsLeftOut);

/// <summary>
/// What an inspection takes: its worksheet, what else falls due, what the owner said, and what was watched from last time.
/// </summary>
/// <param name="Zones">Zones with how many tasks each.</param>
/// <param name="NextInspection">The day of the inspection after this one, by forecast; null where it can't be told.</param>
/// <param name="Due">What falls due before that day.</param>
/// <param name="Squawks">The owner's complaints.</param>
/// <param name="FromLastTime">What the last inspection left open, watched or known.</param>
/// <param name="WorksheetHours">Hours the worksheet is expected to take.</param>
/// <param name="DueHours">The same of the due items that say.</param>
public sealed record WorkPlan(
    IReadOnlyList<(string Title, int Tasks)> Zones, DateOnly? NextInspection, IReadOnlyList<PlannedDue> Due, IReadOnlyList<Squawk> Squawks,
    IReadOnlyList<Discrepancy> FromLastTime, decimal WorksheetHours, decimal DueHours)
{
    /// <summary>Hours to look into one squawk, repairs not counted; common practice, the product's own.</summary>
    public const decimal HoursPerSquawk = 0.5m;

    /// <summary>Due items that say nothing of their hours.</summary>
    public int WithoutHours => Due.Count(item => !item.IsLeftOut && item.Entry.Item.LabourHours is null);

    public decimal Hours => WorksheetHours + DueHours + Squawks.Count * HoursPerSquawk;

    /// <param name="inspection">The inspection.</param>
    /// <param name="line">The aircraft's due line.</param>
    /// <param name="last">The signed inspection before it; null where there is none on file.</param>
    public static WorkPlan Of(Inspection inspection, DueLine line, Inspection? last)
    {
        var next = line.InspectionAfter(inspection.Kind);
        var due = DueOf(inspection, line);
        return new(
            [.. inspection.Walk.GroupBy(task => task.ZoneTitle).Select(zone => (zone.Key, zone.Count()))],
            next, due, inspection.Squawks,
            [.. (last?.Discrepancies ?? []).Where(found => found.IsOpen).OrderBy(found => found.Class).ThenBy(found => found.Number)],
            inspection.WorksheetHours, due.Where(item => !item.IsLeftOut).Sum(item => item.Entry.Item.LabourHours ?? 0));
    }

    /// <summary>What falls due before the inspection after this one, or was done with it.</summary>
    public static IReadOnlyList<PlannedDue> DueOf(Inspection inspection, DueLine line)
    {
        var next = line.InspectionAfter(inspection.Kind);
        // Done during this inspection is still part of its plan, though it no longer falls due.
        bool Done(DueEntry entry) => entry.Item.Last?.On >= inspection.OpenedOn && entry.Item.Last.Reference == inspection.WorkOrder;
        var falls = line.FallsDueBefore(next ?? line.Now.Today, inspection.Kind).ToList();
        return [.. line.Entries.Where(entry => falls.Contains(entry) || (Done(entry) && !entry.Item.DoneBy.Contains(inspection.Kind)))
            .Select(entry => new PlannedDue(entry, Done(entry), inspection.LeftOut.Contains(entry.Item.Id)))];
    }
}
