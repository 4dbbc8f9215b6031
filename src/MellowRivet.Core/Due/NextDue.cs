using System.Text.RegularExpressions;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Due;

/// <summary>An item that a signature counts as done.</summary>
/// <param name="Entry">The item as it stood before.</param>
/// <param name="Done">How it is noted.</param>
/// <param name="Status">Where it stands from then on.</param>
public sealed record DoneBySigning(DueEntry Entry, LastDone Done, DueStatus Status);

/// <summary>What comes next once an inspection is signed.</summary>
/// <param name="Done">What the signature counts as done, in the order of the due line.</param>
public sealed partial record NextDue(IReadOnlyList<DoneBySigning> Done)
{
    /// <param name="line">What is due on the aircraft before.</param>
    /// <param name="inspection">The inspection.</param>
    /// <param name="on">The day it is signed.</param>
    public static NextDue After(DueLine line, Inspection inspection, DateOnly on) => new(
    [
        .. line.Entries.Where(entry => entry.Bulletin is null
            && ((inspection.JobOf is null && entry.Item.DoneBy.Contains(inspection.Kind) && IsDone(entry.Item, inspection, line.Aircraft))
                || inspection.CountsAsBenched(entry.Item)
                || inspection.JobOf?.DueItem == entry.Item.Id))
            .Select(entry =>
            {
                // A part whose own hours nobody knows counts from here by the aircraft's.
                var by = entry.On is not null && entry.Now.Hours.Total is null ? line.Now : entry.Now;
                var done = entry.Item.AsNoted((entry with { Now = by }).DoneNow(on, inspection.WorkOrder)
                    with { CountedOn = by == entry.Now ? entry.Item.Last?.CountedOn : line.Aircraft.Id });
                return new DoneBySigning(entry, done, DueStatus.Of(entry.Item.Interval, done, by));
            })
            // What the file holds against it, such as a later day it was done on, stays as it is.
            .Where(done => done.Entry.Item.CheckDone(done.Done, on) is null),
    ]);

    // Oil that nobody changed and plugs that nobody did aren't counted from here, whatever inspection was signed. What names both is done
    // when both are, and what hangs on the aircraft when they are on every engine.
    private static bool IsDone(DueItem item, Inspection inspection, Aircraft aircraft) => aircraft.Engines
        .Where(engine => item.ComponentId is not { } part || part == engine.ComponentId)
        .All(engine => (!EngineOil().IsMatch(item.What) || inspection.OilFills.Any(fill => fill.EngineId == engine.ComponentId))
            && (!SparkPlugs().IsMatch(item.What)
                || !PlugTray.Of(aircraft, engine.Component, inspection).Places.Any(place => place.IsUndone)));

    // Whatever the words around it: taken for too much, an item stays due. Not a gearbox's oil, nor what oil runs through.
    [GeneratedRegex(
        @"(?<!\b(?:gear|gearbox|hydraulic|brake) )\boil\b(?! (?:cooler|hose|line|pump|tank|seal|sender|separator|pressure|temperature))",
        RegexOptions.IgnoreCase)]
    private static partial Regex EngineOil();

    // Not a drain plug, nor a magnetic one.
    [GeneratedRegex(@"(?<!\b(?:drain|magnetic|chip) )\bplugs?\b", RegexOptions.IgnoreCase)]
    private static partial Regex SparkPlugs();
}
