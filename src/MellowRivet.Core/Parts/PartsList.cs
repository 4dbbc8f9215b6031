using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Parts;

/// <summary>A part that an estimate names and that nobody has asked a supplier for.</summary>
/// <param name="Part">The part, as the estimate has it.</param>
/// <param name="For">What it is for.</param>
/// <param name="Of">The line that it is for, in words.</param>
/// <param name="Decision">What the owner has said to that line.</param>
/// <param name="Class">What the line means for the aircraft; null for what is no discrepancy.</param>
public sealed record NeededPart(PartNeeded Part, PartFor For, string Of, Decision Decision, DiscrepancyClass? Class)
{
    /// <summary>Its name in a form.</summary>
    public string Key => $"{For.InspectionId:N}/{For.Key}/{Part.What}/{Part.Number}";
}

/// <summary>What parts the estimates of inspections name.</summary>
public static class PartsList
{
    /// <summary>
    /// What is still to be asked for: the listed parts of lines that are neither declined nor settled, the slowest first. What is typed
    /// as one sum names no part.
    /// </summary>
    /// <param name="inspections">Inspections in work.</param>
    /// <param name="ordered">What is on the shop's list already; what went back is needed again.</param>
    public static IReadOnlyList<NeededPart> Needed(IEnumerable<Inspection> inspections, IEnumerable<OrderedPart> ordered)
    {
        var listed = ordered.Where(part => part.State != PartState.SentBack).ToList();
        // What was ordered where a line was left open is on its way to it still.
        bool Underway(Inspection inspection, PricedLine line, PartNeeded part) => line.Priced is Discrepancy { CarriedFrom: not null }
            && listed.Exists(other => other.AircraftId == inspection.AircraftId && other.InspectionId != inspection.Id
                && other.State != PartState.Fitted && (other.What, other.Number) == (part.What, part.Number));
        var there = listed.Select(part => (part.InspectionId, part.Key, part.What,
            part.Number)).ToHashSet();
        return
        [
            .. inspections.SelectMany(inspection => JobEstimate.Of(inspection).Lines
                .Where(line => line.FallsAwayWith is null && line.Priced.Decided() != Decision.Declined && line.Priced is not Discrepancy
                    { IsOpen: false } && line.Priced.Estimate is { HasPlainParts: false })
                .SelectMany(line => line.Priced.Estimate!.Parts.Where(part => !Underway(inspection, line, part)).Select(part =>
                    new NeededPart(part,
                    new(inspection.AircraftId, inspection.Id, line.Key), line.Title, line.Priced.Decided(), line.Class))))
                .Where(needed => !there.Contains((needed.For.InspectionId, needed.For.Key, needed.Part.What, needed.Part.Number)))
                .OrderBy(needed => needed.Part.OnShelf).ThenByDescending(needed => needed.Part.LeadDays ?? 0),
        ];
    }
}
