using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;

namespace MellowRivet.Core.Records;

/// <summary>The total time of the airframe, an engine or a propeller.</summary>
/// <param name="What">What it is: "Airframe", "Engine, left".</param>
/// <param name="Serial">Its serial number.</param>
/// <param name="Total">Total time in service; null where nobody knows.</param>
/// <param name="Overhauled">Its last overhaul; null for none on file.</param>
/// <param name="SinceOverhaul">Time since that; null where either time isn't known.</param>
public sealed record StatusTime(string What, string Serial, Hours? Total, Overhaul? Overhauled, Hours? SinceOverhaul);

/// <summary>
/// The status records of an aircraft, as 14 CFR 91.417(a)(2) lists them (from memory): what goes with it when it is sold. Where nothing is
/// known there is nothing: an empty line, and not a made-up one.
/// </summary>
/// <param name="Times">(i) Total time in service of the airframe, each engine and each propeller.</param>
/// <param name="LifeLimited">(ii) Life-limited parts.</param>
/// <param name="Overhauls">(iii) Parts that are overhauled on a time basis: what falls due, and what was overhauled.</param>
/// <param name="Inspections">(iv) Inspections, with the time since the last.</param>
/// <param name="Bulletins">(v) Directives and bulletins that concern it, with method, revision, date and what is due next.</param>
/// <param name="Major">(vi) Major repairs and alterations, with their forms.</param>
/// <param name="Open">What is open on it beside: airworthiness items left open, and what is placarded.</param>
public sealed record AircraftStatus(IReadOnlyList<StatusTime> Times, IReadOnlyList<DueEntry> LifeLimited, IReadOnlyList<DueEntry> Overhauls,
    IReadOnlyList<DueEntry> Inspections, IReadOnlyList<BulletinLine> Bulletins, IReadOnlyList<MajorWork> Major,
    IReadOnlyList<OpenItem> Open)
{
    /// <param name="line">What is due on the aircraft.</param>
    /// <param name="research">Its bulletins.</param>
    /// <param name="open">Its open items.</param>
    public static AircraftStatus Of(DueLine line, BulletinResearch research, IReadOnlyList<OpenItem> open)
    {
        var aircraft = line.Aircraft;
        var total = aircraft.TimeInService;
        IReadOnlyList<DueEntry> Kind(params DueKind[] kinds) =>
            [.. line.OwnItems.Entries.Where(entry => kinds.Contains(entry.Item.Kind))
                .OrderBy(entry => entry.Title, StringComparer.Ordinal)];
        StatusTime Of(string what, Installation stay) => new(stay.Position.Length == 0 ? what : $"{what}, {stay.Position}",
            stay.Component.SerialNumber, stay.TimeInService(total), stay.Component.LastOverhaul, stay.SinceOverhaul(total));
        return new(
            [
                new("Airframe", aircraft.SerialNumber, aircraft.ReadOn is null ? null : total, null, null),
                .. aircraft.Engines.Select(engine => Of("Engine", engine)),
                .. aircraft.Propellers.Select(propeller => Of("Propeller", propeller)),
                .. aircraft.Installations.Where(stay => stay is { IsOn: true, Component.LastOverhaul: not null }
                    && stay.Component.Kind is not (ComponentKind.Engine or ComponentKind.Propeller))
                    .Select(stay => Of(Capital(stay.Component.Title), stay)),
            ],
            Kind(DueKind.LifeLimit), Kind(DueKind.Overhaul), Kind(DueKind.Inspection, DueKind.Instrument, DueKind.Locator),
            [.. research.Lines.Where(one => one.State is not (BulletinState.DoesNotApply or BulletinState.Superseded))
                .OrderBy(one => one.Bulletin.Kind).ThenBy(one => one.Bulletin.Number, StringComparer.Ordinal)],
            [.. aircraft.MajorWork.OrderBy(work => work.On ?? DateOnly.MinValue)], open);
    }

    private static string Capital(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
