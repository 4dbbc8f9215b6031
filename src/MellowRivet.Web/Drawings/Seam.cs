using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Hangar;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Web.Drawings;

/// <summary>One rivet of a seam: a task, or a group whose worst state it shows.</summary>
public sealed record Rivet(State State, string Title, string Href);

/// <summary>Progress as a row of rivets: an empty hole is not yet looked at, a set rivet is good, anything else breaks the seam.</summary>
public static class Seam
{
    /// <summary>What fits a station's tab in one row; more than this and the rivets stand for groups.</summary>
    public const int Most = 12;

    /// <summary>The seam of a station: a rivet for each zone, or for each discrepancy while they fit.</summary>
    public static IReadOnlyList<Rivet> Of(Station station, Inspection inspection, bool readyToSign,
        BulletinResearch? research = null) => station switch
    {
        Station.Arrive => Arrive(inspection),
        Station.LookAndOpen => LookAndOpen(inspection),
        Station.Engine or Station.Airframe or Station.Paper or Station.Dear or Station.Quick or Station.Run =>
            OfZones(ZoneProgress.Of(station, inspection), inspection.Id),
        Station.Bulletins => Bulletins(inspection, research ?? BulletinResearch.None),
        Station.FixList => FixList(inspection),
        Station.Close => [new(!inspection.InWork ? State.Good : readyToSign ? State.CannotTell : State.NotYet,
            !inspection.InWork ? "signed" : readyToSign ? "ready to be signed" : "not ready to be signed", $"/walk/{inspection.Id}/close")],
        _ => [],
    };

    /// <summary>The seam of a survey's money: one rivet with its verdict.</summary>
    public static IReadOnlyList<Rivet> OfMoney(SurveyStand stand, Guid walk) => [new(stand.Shape, stand.Verdict, $"/walk/{walk}/money")];

    /// <summary>A rivet for each task of a zone.</summary>
    public static IReadOnlyList<Rivet> OfZone(string zoneKey, Inspection inspection) =>
        [.. inspection.Walk.Where(task => task.ZoneKey == zoneKey).Select(task =>
        {
            var state = States.Of(task, inspection);
            return new Rivet(state, $"{task.Text}: {state.Word()}",
                $"/walk/{inspection.Id}/{Place(task.Station)}/{task.ZoneKey}?task={task.Id}");
        })];

    /// <summary>A rivet for each zone.</summary>
    public static IReadOnlyList<Rivet> OfZones(IEnumerable<ZoneProgress> zones, Guid walk) =>
        [.. zones.Select(zone => new Rivet(zone.Worst, $"{zone.Title}: {zone.InWords}", zone.Href(walk)))];

    /// <summary>Where a zone is worked on.</summary>
    public static string Href(this ZoneProgress zone, Guid walk) => $"/walk/{walk}/{Place(zone.Station)}/{zone.Key}";

    public static string Place(Station station) => station switch
    {
        Station.LookAndOpen => "look",
        Station.FixList => "fix-list",
        _ => station.ToString().ToLowerInvariant(),
    };

    // A rivet for each squawk while they fit, then the walk-round, what was aboard, and the books.
    private static IReadOnlyList<Rivet> Arrive(Inspection inspection)
    {
        var href = $"/walk/{inspection.Id}/arrive";
        var arrival = inspection.Arrival;
        var open = inspection.Squawks.Count(squawk => !squawk.IsAnswered);
        IEnumerable<Rivet> squawks = inspection.Squawks.Count > Most - 3
            ? [new(open == 0 ? State.Good : State.NotYet, $"{open} of {inspection.Squawks.Count} squawks not answered", href)]
            : inspection.Squawks.Select(squawk => new Rivet(squawk.IsAnswered
                ? State.Good
                : State.NotYet, $"“{squawk.Words}”: {(squawk.IsAnswered ? "answered" : "not answered yet")}",
                $"{href}#squawk-{squawk.Number}"));
        return
        [
            .. squawks,
            new(arrival.Seen == 8 ? State.Good : State.NotYet, $"Walk-round: {arrival.Seen} of 8 photographed", href),
            new(arrival.OnBoard is null
                ? State.NotYet
                : State.Good, $"What was aboard: {(arrival.OnBoard is null ? "not yet" : "noted")}", href),
            new(arrival.Books is null ? State.NotYet : State.Good, $"Books brought: {(arrival.Books is null ? "not yet" : "noted")}", href),
        ];
    }

    // A rivet for each zone that is looked at while they fit, then the tags and the tools.
    private static IReadOnlyList<Rivet> LookAndOpen(Inspection inspection)
    {
        var href = $"/walk/{inspection.Id}/look";
        var waiting = inspection.Looks.Count(zone => zone.Next(inspection.House) is not null);
        IEnumerable<Rivet> zones = inspection.Looks.Count > Most - 2
            ? [new(waiting == 0 ? State.Good : State.NotYet, $"{waiting} of {inspection.Looks.Count} zones wait for a look", href)]
            : inspection.Looks.Select(zone => new Rivet(zone.Next(inspection.House) is null ? State.Good : State.NotYet,
                $"{zone.Title}: {(zone.Next(inspection.House) is { } next ? $"next {next.InWords()}" : "looked at clean")}",
                $"{href}?zone={zone.ZoneKey}"));
        var (open, tools) = (inspection.Tags.Count(tag => tag.Closed is null), inspection.ToolsOut.Count(tool => tool.In is null));
        return
        [
            .. zones,
            new(open > 0 ? State.NotYet : State.Good, open > 0
                ? $"Panels and parts: {open} still open or off"
                : "No panel open, no part off", $"/walk/{inspection.Id}/tags"),
            new(tools > 0 ? State.NotYet : State.Good, tools > 0
                ? $"Tools: {tools} still out"
                : "No tool out", $"/walk/{inspection.Id}/tools"),
        ];
    }

    // A rivet for each bulletin that concerns the aircraft while they fit, else one for each state they stand in.
    private static IReadOnlyList<Rivet> Bulletins(Inspection inspection, BulletinResearch research)
    {
        var href = $"/walk/{inspection.Id}/bulletins";
        var lines = research.Lines.Where(line => line.State is not (BulletinState.DoesNotApply or BulletinState.Superseded))
            .Select(line => (line, state: States.Of(line, inspection))).ToList();
        return lines.Count <= Most
            ? [.. lines.Select(pair =>
                new Rivet(pair.state, $"{pair.line.Bulletin.Title}: {pair.line.State.InWords()}", $"{href}?b={pair.line.Key}"))]
            : [.. lines.GroupBy(pair => pair.line.State).OrderByDescending(group => group.Key)
                .Select(group => new Rivet(group.Max(pair => pair.state), $"{group.Count()} {group.Key.InWords()}",
                    $"{href}#{group.Key}"))];
    }

    private static IReadOnlyList<Rivet> FixList(Inspection inspection)
    {
        var href = $"/walk/{inspection.Id}/fix-list";
        var open = inspection.Discrepancies.Where(found => found.IsOpen).Select(found => (found, state: States.Of(found)))
            .OrderByDescending(pair => pair.state).ToList();
        return open.Count <= Most
            ? [.. open.Select(pair => new Rivet(pair.state, $"{pair.found.What}: {pair.state.Word()}", $"{href}/{pair.found.Number}"))]
            : [.. open.GroupBy(pair => pair.found.ZoneKey).OrderByDescending(zone => zone.Max(pair => pair.state))
                .Select(zone => new Rivet(zone.Max(pair => pair.state), $"{inspection.ZoneTitle(zone.Key)}: {zone.Count()} open",
                    $"{href}#zone-{zone.Key}"))];
    }
}
