using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Worksheets;

/// <summary>A worksheet as it is offered for an inspection.</summary>
/// <param name="Worksheet">The worksheet.</param>
/// <param name="Suits">It is ticked beforehand for this aircraft and this kind.</param>
/// <param name="Due">How many of its tasks would be due now.</param>
/// <param name="Tasks">How many tasks it has on this aircraft.</param>
public sealed record WorksheetOffer(Worksheet Worksheet, bool Suits, int Due, int Tasks)
{
    /// <summary>It, before an aircraft is chosen.</summary>
    public static WorksheetOffer Of(Worksheet sheet) => new(sheet, false, sheet.Tasks.Count(), sheet.Tasks.Count());

    /// <summary>Worksheets, the leading one first: one that suits before one that doesn't, the longest before shorter ones.</summary>
    /// <param name="sheets">The shop's worksheets.</param>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="kind">What kind of inspection.</param>
    /// <param name="done">What was last done when on it.</param>
    /// <param name="today">The day.</param>
    public static IReadOnlyList<WorksheetOffer> For(IEnumerable<Worksheet> sheets, Aircraft aircraft, InspectionKind kind,
        IReadOnlyCollection<TaskDone> done, DateOnly today) => [.. sheets.Select(sheet =>
    {
        var walk = WalkList.Merge([sheet], aircraft, kind, done, today);
        return new WorksheetOffer(sheet, sheet.IsOfferedFor(aircraft, kind), walk.Count(line => line.Pick.IsDue), walk.Count);
    }).OrderByDescending(offer => offer.Suits).ThenByDescending(offer => offer.Tasks)];
}
