using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Due;

/// <summary>One item of an aircraft's due line.</summary>
/// <param name="Item">What falls due.</param>
/// <param name="On">The part it hangs on, as fitted; null for the aircraft's own.</param>
/// <param name="Status">Where it stands.</param>
/// <param name="Now">What it counts by now: the part's own hours, where it hangs on one.</param>
/// <param name="Place">Where the part sits, in words: "left, right engine"; "" where there is one place.</param>
public sealed record DueEntry(DueItem Item, Installation? On, DueStatus Status, DueNow Now, string Place)
{
    /// <summary>The bulletin that falls due; null for the aircraft's own items.</summary>
    public BulletinLine? Bulletin { get; init; }

    /// <summary>That it was done now, with everything it may count by.</summary>
    public LastDone DoneNow(DateOnly on, string reference) =>
        new(on, Now.Hours.Total, null, Now.Landings.Total, Now.Cycles.Total, reference);

    /// <summary>What is due, with the part it is due on.</summary>
    public string Title => On is null ? Item.What : $"{Item.What}, {On.Component.Title}{(Place.Length > 0 ? " " + Place : "")}";
}

/// <summary>Everything that falls due on one aircraft, soonest first.</summary>
/// <param name="Aircraft">The aircraft.</param>
/// <param name="Entries">What calls for a hand first, then by forecast.</param>
/// <param name="Now">What the reckoning rests on.</param>
/// <param name="Retired">What isn't followed any more.</param>
public sealed record DueLine(Aircraft Aircraft, IReadOnlyList<DueEntry> Entries, DueNow Now, IReadOnlyList<DueItem> Retired)
{
    /// <summary>The shop's bulletins as they stand on it.</summary>
    public BulletinResearch Research { get; private init; } = BulletinResearch.None;

    /// <summary>The same without what falls due by bulletins.</summary>
    public DueLine OwnItems =>
        this with { Research = BulletinResearch.None, Entries = [.. Entries.Where(entry => entry.Bulletin is null)] };

    /// <summary>The same with what falls due by bulletins in its place.</summary>
    public DueLine With(BulletinResearch research) =>
        this with { Research = research, Entries = InOrder(Entries.Concat(research.Lines.Select(line => line.Due).OfType<DueEntry>())) };

    /// <param name="aircraft">The aircraft, with its parts.</param>
    /// <param name="items">The items of the aircraft and of the parts on it.</param>
    /// <param name="readings">Its meter readings of the last years.</param>
    /// <param name="today">Today.</param>
    public static DueLine Of(Aircraft aircraft, IReadOnlyCollection<DueItem> items, IReadOnlyCollection<MeterReading> readings,
        DateOnly today)
    {
        var now = new DueNow(today, Hours(aircraft, readings), Counted(readings, MeterKind.Landings), Counted(readings, MeterKind.Cycles));
        var fitted = aircraft.Installations.Where(stay => stay.IsOn).ToDictionary(stay => stay.ComponentId);
        var entries = items.Where(item => item.RetiredWhy is null).Select(item =>
        {
            var on = item.ComponentId is { } part ? fitted.GetValueOrDefault(part) : null;
            // Where nobody knows the part's own hours, those since it was done are the aircraft's; on another aircraft nobody can tell.
            var own = on is null || item.Last?.CountedOn == aircraft.Id ? now
                : item.Last is { CountedOn: not null } ? now with { Hours = now.Hours with { Total = null } }
                : now with { Hours = now.Hours with { Total = on.TimeInService(aircraft.TimeInService)?.Value } };
            return new DueEntry(item, on, DueStatus.Of(item.Interval, item.Last, own), own, on is null ? "" : aircraft.PlaceOf(on));
        });
        return new(aircraft, InOrder(entries), now, [.. items.Where(item => item.RetiredWhy is not null)]);
    }

    private static IReadOnlyList<DueEntry> InOrder(IEnumerable<DueEntry> entries) =>
        [.. entries.OrderBy(entry => Rank(entry.Status.State)).ThenBy(entry => entry.Status.Forecast ?? DateOnly.MaxValue)
            .ThenBy(entry => entry.Item.What, StringComparer.Ordinal)];

    /// <summary>The inspection that comes next, by forecast; null where none is followed.</summary>
    public DueEntry? NextInspection =>
        Entries.Where(entry => entry.Item.Kind == DueKind.Inspection && entry.Status.Forecast is not null)
            .MinBy(entry => entry.Status.Forecast);

    /// <summary>
    /// The day of the inspection after one that is done now: what falls due before it is better done while the aircraft is
    /// open. Null where no such inspection is followed or can be forecast.
    /// </summary>
    /// <param name="kind">The kind that is open, or would be.</param>
    public DateOnly? InspectionAfter(InspectionKind kind) => Entries
        .Where(entry => entry.Item.Kind == DueKind.Inspection && entry.Item.DoneBy.Contains(kind))
        .Select(entry => DueStatus.Of(entry.Item.Interval,
            new LastDone(Now.Today, Now.Hours.Total, null, Now.Landings.Total, Now.Cycles.Total), Now).Forecast)
        .Min();

    /// <summary>
    /// What falls due by a day, what is due already, and what can't be told: to be done or found out while the aircraft is open.
    /// </summary>
    /// <param name="until">The day, usually of the next inspection.</param>
    /// <param name="kind">The inspection that is open: what it does by being signed isn't listed.</param>
    public IEnumerable<DueEntry> FallsDueBefore(DateOnly until, InspectionKind kind) => Entries.Where(entry =>
        !entry.Item.DoneBy.Contains(kind)
        && (entry.Status.State is DueState.Overdue or DueState.Grace or DueState.Unknown
            || (entry.Status.Governing?.Earliest ?? entry.Status.Forecast) <= until));

    /// <summary>The order in which states call for a hand.</summary>
    public static int Rank(DueState state) =>
        state switch { DueState.Overdue => 0, DueState.Grace => 1, DueState.Soon => 2, DueState.Unknown => 3, _ => 4 };

    private static Counted Hours(Aircraft aircraft, IReadOnlyCollection<MeterReading> readings) => new(
        aircraft.ReadOn is null ? null : aircraft.TimeInService.Value, aircraft.ReadOn,
        Utilisation.Of(readings.Where(reading => reading.Kind == aircraft.TimeBasis)
            .Select(reading => new Count(reading.On, reading.Total))));

    private static Counted Counted(IReadOnlyCollection<MeterReading> readings, MeterKind kind) =>
        Due.Counted.Of([.. readings.Where(reading => reading.Kind == kind).Select(reading => new Count(reading.On, reading.Total))]);
}
