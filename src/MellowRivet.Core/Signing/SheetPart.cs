using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Signing;

/// <summary>Who was the last to fill in something, and when.</summary>
public sealed record LastFilled(Guid By, DateTimeOffset At);

/// <summary>What of one part's sheet answers a task of the walk, as far as it is filled in.</summary>
/// <param name="Asked">What it is.</param>
/// <param name="EngineId">The engine.</param>
/// <param name="Carrier">The part the sheet is about.</param>
/// <param name="Sheet">The sheet; null for compressions and plugs, which have pages of their own.</param>
/// <param name="Done">How many of its places, values and looks are done.</param>
/// <param name="All">How many there are.</param>
/// <param name="Says">How far it is, in words.</param>
/// <param name="OpenGroups">Groups of looks that are all it still wants, each to be noted as good in one go; null where a value is
/// missing, too.</param>
/// <param name="Last">Who filled in the last of it; null while nobody has.</param>
/// <param name="Judged">What was judged there.</param>
public sealed record SheetPart(Asked Asked, Guid EngineId, Guid Carrier, SheetKind? Sheet, int Done, int All, string Says,
    IReadOnlyList<string>? OpenGroups, LastFilled? Last, IReadOnlyList<Judged> Judged)
{
    // Groups of a sheet by what is asked for, null for all of it; and what of it is judged together.
    private static readonly Dictionary<Asked, (SheetKind Sheet, string[]? Groups, string[] Together)> Grouped = new()
    {
        [Asked.Exhaust] = (SheetKind.Exhaust, ["Exhaust"], ["repair"]),
        [Asked.Intake] = (SheetKind.Exhaust, ["Intake"], []),
        [Asked.Hoses] = (SheetKind.Exhaust, ["Hoses"], []),
        [Asked.Mount] = (SheetKind.Exhaust, ["Mount and baffles"], []),
        [Asked.Magnetos] = (SheetKind.Magneto, null, []),
        [Asked.MagnetosInPlace] = (SheetKind.Magneto, ["In place"], []),
        [Asked.Carburettors] = (SheetKind.Carburettor, null, ["floats", "idle", "high"]),
        [Asked.Floats] = (SheetKind.Carburettor, ["Floats", "Bowl"], ["floats"]),
        [Asked.Balance] = (SheetKind.Carburettor, ["Balance"], ["idle", "high"]),
    };

    // Values without which the looks beside them say nothing. One of a pair of floats says nothing, either.
    private static readonly HashSet<(string Kind, string Position)> Needed = [("float", "one"), ("float", "other"), ("magneto-timing", "")];

    /// <summary>What it is, in words: "Plugs", "Magneto, left".</summary>
    public string Title(Aircraft aircraft)
    {
        var words = Signing.Asks.Called(Asked);
        return char.ToUpperInvariant(words[0]) + words[1..] + (Carrier == EngineId || aircraft.Fitting(Carrier)?.Position is not
            { Length: > 0 } position ? "" : $", {position}");
    }

    /// <summary>Everything it asks for is there, whatever it came to.</summary>
    public bool IsComplete => Done == All;

    /// <summary>What answers something that is asked for on one engine: a part for each magneto or carburettor.</summary>
    /// <param name="asked">What is asked for; the run's values are tasks of their own.</param>
    /// <param name="inspection">The inspection.</param>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="engine">The engine.</param>
    /// <param name="live">Everything that was judged.</param>
    public static IReadOnlyList<SheetPart> Of(Asked asked, Inspection inspection, Aircraft aircraft, Component engine,
        IReadOnlyList<Judged> live) => asked switch
        {
            Asked.Run => [],
            Asked.Compressions => [Compressions(inspection, aircraft, engine, live)],
            Asked.Plugs => [Plugs(inspection, aircraft, engine, live)],
            Asked.Filter => [Filter(inspection, engine, live)],
            _ => [.. Sheets(asked, aircraft, engine).Select(sheet => Of(asked, SheetWork.Of(sheet, aircraft, inspection), engine, live))],
        };

    private static IEnumerable<EngineSheet> Sheets(Asked asked, Aircraft aircraft, Component engine) => Grouped[asked].Sheet switch
    {
        SheetKind.Exhaust => [ExhaustSheet.Of(aircraft, engine)],
        SheetKind.Magneto => aircraft.SittingOn(engine.Id, ComponentKind.Magneto).Select(stay => MagnetoSheet.Of(stay.Component)),
        _ => aircraft.SittingOn(engine.Id, ComponentKind.Carburettor).Select(stay => CarburettorSheet.Of(stay.Component)),
    };

    private static SheetPart Compressions(Inspection inspection, Aircraft aircraft, Component engine, IReadOnlyList<Judged> live)
    {
        var sheet = CompressionSheet.Of(aircraft, engine, inspection);
        var all = engine.Layout.Cylinders.Count;
        var last = sheet.Cylinders.SelectMany(cylinder => cylinder.Tries).MaxBy(reading => reading.LastAt);
        return new(Asked.Compressions, engine.Id, engine.Id, null, all - sheet.Missing.Count, all, sheet.Missing.Count == 0
            ? string.Join(" · ", sheet.Cylinders.Select(cylinder => cylinder.Tries[^1].Value.ToString("0.#")))
            : $"no reading of cylinder {string.Join(", ", sheet.Missing)}", null, last is null ? null : new(last.PersonId, last.LastAt),
            [.. live.Where(judged => judged.Where.Cylinder is not null && judged.Where.EngineId == engine.Id)]);
    }

    private static SheetPart Plugs(Inspection inspection, Aircraft aircraft, Component engine, IReadOnlyList<Judged> live)
    {
        var places = PlugTray.Of(aircraft, engine, inspection).Places;
        var done = places.Count(place => !place.IsUndone);
        var last = places.SelectMany(place => place.Notes.Select(note => new LastFilled(note.By, note.At))
            .Concat(Enum.GetValues<PlugStep>().Select(place.ReadingOf).OfType<Reading>()
                .Select(reading => new LastFilled(reading.PersonId, reading.LastAt)))).MaxBy(one => one.At);
        return new(Asked.Plugs, engine.Id, engine.Id, null, done, places.Count, $"{done} of {places.Count} done"
            + (places.FirstOrDefault(place => place.IsUndone) is { } next ? $", next {next.Hole}" : ""), null, last,
            [.. live.Where(judged => judged.Where.Hole is not null && judged.Where.EngineId == engine.Id)]);
    }

    private static SheetPart Filter(Inspection inspection, Component engine, IReadOnlyList<Judged> live)
    {
        var last = inspection.FilterCuts.Where(cut => cut.EngineId == engine.Id).MaxBy(cut => cut.At);
        return new(Asked.Filter, engine.Id, engine.Id, SheetKind.Oil, last is null ? 0 : 1, 1, last is null
            ? "not said yet what it held"
            : $"{last.Place.InWords()}: {last.Metal.InWords()}, {last.Amount.InWords()}", null, last is null ? null : new(last.By, last.At),
            [.. live.Where(judged => judged.Where.Sheet == SheetKind.Oil && judged.Where.Carrier == engine.Id)]);
    }

    private static SheetPart Of(Asked asked, SheetWork work, Component engine, IReadOnlyList<Judged> live)
    {
        var (sheet, titles, together) = Grouped[asked];
        var groups = work.Sheet.Groups.Where(group => titles?.Contains(group.Title) ?? true).ToList();
        var looks = work.Looks.Where(look => look.IsWanted && groups.Any(group => group.Looks.Contains(look.Of))).ToList();
        var values = work.Values.Where(value => (Needed.Contains((value.Of.Kind, value.Of.Position)) || value.Of.StandsAlone
            && asked == Asked.Magnetos) && groups.Any(group => group.Values.Contains(value.Of))).ToList();
        var done = looks.Count(look => look.Check is not null) + values.Count(value => value.Reading is not null);
        var missing = values.Where(value => value.Reading is null).ToList();
        HashSet<string> names = [.. groups.SelectMany(group => group.Looks).Select(look => look.Key),
            .. groups.SelectMany(group => group.Values).Select(value => value.Kind), .. together];
        var last = looks.Where(look => look.Check is not null).Select(look => new LastFilled(look.Check!.By, look.Check.At))
            .Concat(groups.SelectMany(group => group.Values).Select(value => work.Values.First(one => one.Of == value).Reading)
                .OfType<Reading>().Select(reading => new LastFilled(reading.PersonId, reading.LastAt)))
            .MaxBy(one => one.At);
        return new(asked, engine.Id, work.Sheet.Carrier.Id, sheet, done, looks.Count + values.Count,
            missing is [var first, ..] && done == looks.Count + values.Count - missing.Count
                ? $"not read: {char.ToLowerInvariant(first.Of.Name[0])}{first.Of.Name[1..]}"
                : $"{done} of {looks.Count + values.Count} done",
            missing.Count > 0 ? null : [.. groups.Where(group => group.Looks.Any(look => looks.Any(one => one.Of == look
                && one.Check is null))).Select(group => group.Title)], last,
            [.. live.Where(judged => judged.Where.Sheet == sheet && judged.Where.Carrier == work.Sheet.Carrier.Id
                && names.Contains(judged.Key[(judged.Key.LastIndexOf('/') + 1)..]))]);
    }
}
