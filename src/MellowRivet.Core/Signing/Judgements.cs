using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Signing;

/// <summary>One place where things are judged at an inspection.</summary>
/// <param name="Name">What it is.</param>
/// <param name="From">The types whose judgements it takes up: a test holds that none of Core's is left out.</param>
/// <param name="Of">What was judged there.</param>
public sealed record JudgingPlace(string Name, IReadOnlyList<Type> From, Func<Inspection, Aircraft, IEnumerable<Judged>> Of);

/// <summary>Everything that was judged at an inspection, from every sheet there is: one list, which the signature is weighed by.</summary>
public static class InspectionJudgements
{
    public static IReadOnlyList<JudgingPlace> Places { get; } =
    [
        new("compressions", [typeof(JudgedCylinder)], Compressions),
        new("plugs", [typeof(TrayPlace), typeof(PlugJudge), typeof(PlugLooks)], Plugs),
        new("sheets of the engine station", [typeof(SheetWork), typeof(ValueOnSheet), typeof(SheetCheck), typeof(ToleranceBand)],
            SheetValues),
        new("floats, balance, exhaust pressure, magneto drops",
            [
                typeof(SheetTogether), typeof(Together), typeof(FloatJudge), typeof(CarburettorBalance), typeof(ExhaustPressure),
                typeof(MagnetoDrop),
            ],
            OfSeveral),
        new("filters and screens", [typeof(FilterCut)], Filters),
        new("measured tasks, cables, wear, torque and bulletins' steps", [typeof(TaskJudge), typeof(Inspection), typeof(ToleranceBand)],
            Tasks),
        new("witness marks", [typeof(WitnessMark)], WitnessMarks),
    ];

    /// <summary>All of it, in the order of the places.</summary>
    public static IReadOnlyList<Judged> Of(Inspection inspection, Aircraft aircraft) =>
        [.. Places.SelectMany(place => place.Of(inspection, aircraft))];

    private static IEnumerable<Judged> Compressions(Inspection inspection, Aircraft aircraft)
    {
        foreach (var engine in aircraft.Engines)
            foreach (var cylinder in CompressionSheet.Of(aircraft, engine.Component, inspection).Cylinders)
                if (cylinder.Latest is { } latest)
                    yield return new(JudgedKeys.Compression(cylinder.Cylinder.Id),
                        $"Compression, {On(aircraft, engine)}cylinder {cylinder.Place.Number}",
                        $"{latest.Reading.Held}/{new Psi(cylinder.Tries[^1].Conditions.SupplyPsi ?? 80)}"
                        + $"{(!latest.Reading.Leak.Any ? "" : $", {latest.Reading.Leak.Short}")}",
                        new(ZoneOf(inspection, engine), engine.ComponentId, Cylinder: cylinder.Place.Number), cylinder.Cylinder.Id,
                        latest.Judgement, cylinder.Tries[^1].PersonId, cylinder.Tries[^1].LastAt)
                        { Place = $"{On(aircraft, engine)}cylinder {cylinder.Place.Number}" };
    }

    private static IEnumerable<Judged> Plugs(Inspection inspection, Aircraft aircraft)
    {
        foreach (var engine in aircraft.Engines)
            foreach (var place in PlugTray.Of(aircraft, engine.Component, inspection).Places.Where(place => place.Plug is not null))
                foreach (var (of, judgement) in place.Judgements)
                {
                    var reading = of is { } step ? place.ReadingOf(step) : null;
                    var notes = place.Notes.Where(note => note.Said != PlugNote.Moved).ToList();
                    var note = notes.Where(note => note.Step == of).MaxBy(note => note.At) ?? notes.MaxBy(note => note.At);
                    yield return new(
                        of is { } named ? JudgedKeys.Plug(place.Plug!.Id, named)
                        : place.IsScrap && note is { Step: null } ? JudgedKeys.PlugDropped(place.Plug!.Id)
                        : JudgedKeys.PlugPlace(place.Plug!.Id),
                        $"Plug {place.Hole}, {On(aircraft, engine)}{of?.InWords() ?? "as it is"}",
                        reading is not null ? reading.InWords : note?.Said is { } said
                            ? Spoken(of, said)
                            : place.Plug.SerialNumber,
                        new(ZoneOf(inspection, engine), engine.ComponentId, Hole: place.Hole.ToString()), place.Plug.Id, judgement,
                        reading?.PersonId ?? note?.By ?? Guid.Empty, reading?.LastAt ?? note?.At ?? default)
                        { Place = $"{On(aircraft, engine)}plug {place.Hole}" };
                }
    }

    private static string Spoken(PlugStep? step, string said) =>
        step == PlugStep.Look && EnumNames.TryRead<PlugLook>(said, out var look) ? look.InWords() : said;

    private static IEnumerable<Judged> SheetValues(Inspection inspection, Aircraft aircraft)
    {
        foreach (var (engine, work) in Works(inspection, aircraft))
        {
            var where = new JudgedWhere(ZoneOf(inspection, engine), engine.ComponentId, work.Sheet.Kind, work.Sheet.Carrier.Id);
            // After the work counts before it, and what a task of the walk measured is judged there, by the worksheet's limits.
            // A good value that a look spoils is answered with the look; one that is bad by itself is answered by itself.
            foreach (var kind in work.Values.Where(value => value.Judgement is not null && value.Reading!.TaskId is null
                && !IsSpoilt(work, value)).GroupBy(value => value.Of.Kind))
                if (work.Values.All(value => value.Of.Kind != kind.Key || value.Reading?.TaskId is null))
                {
                    var value = kind.LastOrDefault(one => one.Of.Position == SheetValue.After) ?? kind.Last();
                    yield return new(JudgedKeys.Value(work.Sheet.Carrier.Id, kind.Key),
                        $"{Title(aircraft, engine, work.Sheet)}, {char.ToLowerInvariant(value.Of.Name[0])}{value.Of.Name[1..]}",
                        value.Reading!.InWords,
                        where, work.Sheet.Carrier.Id, value.Judgement!, value.Reading.PersonId, value.Reading.LastAt, value.Of.IsLaw)
                        { Place = PlaceOf(aircraft, engine, work.Sheet.Carrier.Id) };
                }
            foreach (var look in work.Looks)
                if (look is { Check: { } check, Of.With: null } && check.Judgement is { } judgement)
                    yield return new(JudgedKeys.Look(work.Sheet.Carrier.Id, work.Sheet.Kind, check.Key),
                        $"{Title(aircraft, engine, work.Sheet)}, {look.Of.Text.Split(':')[0].ToLowerInvariant()}", check.Words.Length > 0
                            ? check.Words
                            : "looked at",
                        where, work.Sheet.Carrier.Id, judgement, check.By, check.At)
                        { IsMeasured = false, Photo = check.Photo, Place = PlaceOf(aircraft, engine, work.Sheet.Carrier.Id) };
        }
    }

    private static bool IsSpoilt(SheetWork work, ValueOnSheet value) =>
        value.Of.SpoiltBy is { } key && work.Looks.Any(look => look.Of.Key == key && look.Check is { State: LookState.Found })
        && value.Band.Judge(Unit.Find(value.Reading!.UnitSymbol)!.To(value.Band.Unit, value.Reading.Value)).Verdict is Verdict.Good
        or Verdict.Watch;

    private static IEnumerable<Judged> OfSeveral(Inspection inspection, Aircraft aircraft)
    {
        foreach (var engine in aircraft.Engines)
            foreach (var one in SheetTogether.Of(aircraft, engine.Component, inspection))
                yield return new(JudgedKeys.Together(one.Carrier, one.Key), $"{On(aircraft, engine)}{one.Name}", one.Saw,
                    new(ZoneOf(inspection, engine), engine.ComponentId, one.Sheet, one.Carrier), one.Carrier, one.Judgement, one.By, one.At,
                    one.Needed) { Place = PlaceOf(aircraft, engine, one.Carrier) };
    }

    private static IEnumerable<Judged> Filters(Inspection inspection, Aircraft aircraft)
    {
        foreach (var engine in aircraft.Engines)
            foreach (var cut in inspection.FilterCuts.Where(cut => cut.EngineId == engine.ComponentId))
                yield return new(JudgedKeys.Filter(engine.ComponentId, cut.Place), $"Oil, {On(aircraft, engine)}{cut.Place.InWords()}",
                    $"{cut.Metal.InWords()}, {cut.Amount.InWords()}",
                    new(ZoneOf(inspection, engine), engine.ComponentId, SheetKind.Oil, engine.ComponentId), engine.ComponentId,
                    cut.Judge(null), cut.By, cut.At)
                    { IsMeasured = false, Photo = cut.Photo, Place = $"{On(aircraft, engine)}{cut.Place.InWords()}" };
    }

    private static IEnumerable<Judged> Tasks(Inspection inspection, Aircraft aircraft)
    {
        foreach (var task in inspection.Tasks.Where(task => task.Measure is not null))
            if (inspection.ReadingAt(task) is { } reading && TaskJudge.Judge(task, aircraft, reading).Judgement is { } judgement)
                yield return new(JudgedKeys.Task(task.Id), task.Text,
                    $"{reading.InWords}{(reading.Conditions.Celsius is { } at ? $" at {at:0.#} °C" : "")}",
                    new(task.ZoneKey, TaskId: task.Id), task.ComponentId, judgement, reading.PersonId, reading.LastAt);
    }

    private static IEnumerable<Judged> WitnessMarks(Inspection inspection, Aircraft aircraft)
    {
        foreach (var mark in inspection.WitnessMarks)
            if (mark.Judgement is { } judgement)
                yield return new(JudgedKeys.Mark(mark.Id),
                    $"{inspection.ZoneTitle(mark.ZoneKey)}, witness mark{(mark.Where.Length > 0 ? $" {mark.Where}" : "")}",
                    $"{mark.Of.InWords()}, {mark.Amount.InWords()}, {mark.Then.InWords()}",
                    new(mark.ZoneKey), null, judgement, mark.Seen.By, mark.Seen.At)
                    { IsMeasured = false, Photo = mark.Photo, Place = mark.Where };
    }

    // Every sheet of every engine, and the borescope's, as far as it is filled in.
    private static IEnumerable<(Installation Engine, SheetWork Work)> Works(Inspection inspection, Aircraft aircraft) =>
        from engine in aircraft.Engines
        from sheet in EngineSheets.Of(aircraft, engine.Component)
            .Concat(aircraft.SittingOn(engine.ComponentId, ComponentKind.Cylinder).Select(stay => BorescopeSheet.Of(stay.Component)))
        select (engine, SheetWork.Of(sheet, aircraft, inspection));

    private static string Title(Aircraft aircraft, Installation engine, EngineSheet sheet)
    {
        var place = sheet.Carrier.Id == engine.ComponentId ? "" : aircraft.Fitting(sheet.Carrier.Id)?.Position ?? "";
        return $"{sheet.Kind.InWords()}{(place.Length > 0 ? $" {place}" : "")}"
            + $"{(On(aircraft, engine) is { Length: > 0 } on ? $", {on.TrimEnd()}" : "")}";
    }

    // "left magneto", "right engine": what a sheet is about, where that says more than the zone.
    private static string PlaceOf(Aircraft aircraft, Installation engine, Guid carrier) => carrier == engine.ComponentId
        ? On(aircraft, engine).TrimEnd()
        : aircraft.Fitting(carrier) is { } stay ? $"{On(aircraft, engine)}{stay.Position} {stay.Component.Kind.InWords()}".Trim() : "";

    // "left engine ", where there are two.
    private static string On(Aircraft aircraft, Installation engine) => aircraft.Engines.Skip(1).Any() ? $"{engine.Position} engine " : "";

    private static string ZoneOf(Inspection inspection, Installation engine) => inspection.EngineZone(engine);
}
