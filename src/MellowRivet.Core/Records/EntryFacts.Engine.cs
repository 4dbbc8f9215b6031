using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Records;

// What one engine's book tells: each engine of a twin has its own.
public static partial class EntryFacts
{
    private static IEnumerable<EntryFact> OfEngine(Closing closing, Installation engine)
    {
        var (inspection, aircraft, id) = (closing.Inspection, closing.Aircraft, engine.ComponentId);
        EnteredIn book = new(Book.Engine, id, "");
        EntryFact Fact(FactKind kind, RestsOn on, Guid about, params (string, string?)[] values) =>
            new(kind, $"{kind}/{about:N}", book, EntryFact.Said(values), on);
        RestsOn Sheet(EngineSheet sheet) => new(RestsOnKind.Sheet, sheet.Carrier.Id, $"{sheet.Kind}".ToLowerInvariant());
        SheetWork Work(EngineSheet sheet) => SheetWork.Of(sheet, aircraft, inspection);

        if (Compressions(CompressionSheet.Of(aircraft, engine.Component, inspection)) is { } compressions)
            yield return Fact(FactKind.Compressions, new(RestsOnKind.Compressions, id), id, compressions);
        if (Plugs(PlugTray.Of(aircraft, engine.Component, inspection)) is { } plugs)
            yield return Fact(FactKind.Plugs, new(RestsOnKind.Plugs, id), id, plugs);
        foreach (var stay in aircraft.SittingOn(id, ComponentKind.Magneto))
        {
            var (sheet, part) = (MagnetoSheet.Of(stay.Component), PartOf(stay));
            var (work, own) = (Work(sheet), stay.TimeInService(aircraft.TimeInService));
            if (inspection.BenchedMagnetos.Contains(stay.ComponentId))
                yield return Fact(FactKind.MagnetoBench, Sheet(sheet), stay.ComponentId, ("part", part),
                    ("hours", own is { } hours ? $"{hours} h" : ""),
                    ("values", Values(work.Values.Where(value => value.Of.Kind != "magneto-timing"))),
                    ("looks", Looks(work.Looks.Where(look => look.Of.Key != "lead"))));
            if (work.Values.FirstOrDefault(value => value.Of.Kind == "magneto-timing") is { Reading: { } timing } before)
                yield return Fact(FactKind.Timing, Sheet(sheet), stay.ComponentId, ("part", part), ("value", timing.InWords),
                    ("limit", Limit(before.Band)));
        }
        if (inspection.OilFills.FirstOrDefault(one => one.EngineId == id) is { } fill)
            yield return Fact(FactKind.OilFill, Sheet(OilSheet.Of(engine.Component)), id, ("amount", fill.Amount), ("oil", fill.Oil),
                ("filter", fill.Filter), ("hours", Read(Work(OilSheet.Of(engine.Component)), "oil-hours")),
                ("by", closing.Named(fill.By)));
        if (Read(Work(OilSheet.Of(engine.Component)), "oil-added") is { Length: > 0 } added)
            yield return Fact(FactKind.OilAdded, Sheet(OilSheet.Of(engine.Component)), id, ("amount", added));
        foreach (var cut in inspection.FilterCuts.Where(cut => cut.EngineId == id).OrderBy(cut => cut.Place))
            yield return Fact(FactKind.Filter, Sheet(OilSheet.Of(engine.Component)), cut.Id, ("place", cut.Place switch
            {
                FilterPlace.Filter => "oil filter cut open",
                FilterPlace.Screen => "oil screen taken out",
                _ => "magnetic plug taken out",
            }), ("held", cut.Metal == FilterMetal.None ? cut.Metal.InWords() : $"{cut.Metal.InWords()}, {cut.Amount.InWords()}"),
                ("words", cut.Words));
        var together = SheetTogether.Of(aircraft, engine.Component, inspection).ToList();
        foreach (var stay in aircraft.SittingOn(id, ComponentKind.Carburettor))
        {
            var work = Work(CarburettorSheet.Of(stay.Component));
            var balance = together.Where(one => one.Sheet == SheetKind.Carburettor && one.Carrier == stay.ComponentId)
                .Select(one => $"{Small(one.Name)} {one.Saw}");
            if (work.Done > 0)
                yield return Fact(FactKind.Carburettor, Sheet(work.Sheet), stay.ComponentId, ("part", PartOf(stay)),
                    ("values", Listed(balance)), ("looks", Looks(work.Looks)));
        }
        var exhaust = Work(ExhaustSheet.Of(aircraft, engine.Component));
        if (exhaust.Done > 0)
            yield return Fact(FactKind.Exhaust, Sheet(exhaust.Sheet), id,
                ("pressure", together.Find(one => one.Sheet == SheetKind.Exhaust)?.Saw), ("looks", Looks(exhaust.Looks)));
        foreach (var stay in aircraft.SittingOn(id, ComponentKind.Cylinder))
            if (Work(BorescopeSheet.Of(stay.Component)) is { Done: > 0 } work)
                yield return Fact(FactKind.Borescope, Sheet(work.Sheet), stay.ComponentId, ("part", PartOf(stay)),
                    ("found", Looks(work.Looks)));
        if (RunOf(closing, engine.Component) is { Count: > 0 } run)
            yield return Fact(FactKind.Run, new(RestsOnKind.Sheet, id, "run"), id,
                [("when", WhenRun(run)), .. run.Select(value => (value.Of.Kind, (string?)value.Reading!.InWords))]);
    }

    /// <summary>Readings that the facts of an engine tell, so that the walk's tasks don't tell them again.</summary>
    private static IEnumerable<Guid> ToldBySheets(Closing closing, Component engine)
    {
        var tray = PlugTray.Of(closing.Aircraft, engine, closing.Inspection);
        return EngineSheets.Of(closing.Aircraft, engine)
            .SelectMany(sheet => SheetWork.Of(sheet, closing.Aircraft, closing.Inspection).Values)
            .Select(value => value.Reading).OfType<Reading>().Select(reading => reading.Id)
            // The worst of the plugs, typed again in the walk.
            .Concat(Plugs(tray) is null ? [] : closing.Inspection.Readings
                .Where(reading => reading.Kind == "plug-ohms-worst" && (reading.ComponentId ?? engine.Id) == engine.Id)
                .Select(reading => reading.Id));
    }

    private static (string, string?)[]? Compressions(CompressionSheet sheet)
    {
        var read = sheet.Cylinders.Where(cylinder => cylinder.Tries.Count > 0).Select(cylinder => (cylinder, last: cylinder.Tries[^1]))
            .ToList();
        if (read.Count == 0)
            return null;
        var conditions = CompressionSheet.ConditionsOf(read[0].last);
        // One supply for all, mostly; else each says its own.
        var (hot, cold) = (read.Any(one => one.last.Conditions.Hot == true), read.Any(one => one.last.Conditions.Hot != true));
        string Of((CylinderOnTest Cylinder, Reading Last) one) => $"no. {one.Cylinder.Place.Number} {one.Last.Value:0.#}/"
            + $"{one.Last.Conditions.SupplyPsi ?? 80:0.#}{(hot && cold ? one.Last.Conditions.Hot == true ? " hot" : " cold" : "")}"
            + (one.Last.Conditions.Leak is { Any: true } leak ? $" ({leak.Short})" : "");
        return
        [
            ("state", hot && cold ? "hot and cold" : hot ? "hot" : "cold"),
            ("supply", $"{conditions.Supply.Value:0.#} psi"),
            ("orifice", conditions.DayOrifice is { } orifice ? $"{orifice.Value:0.#} psi" : ""),
            ("readings", string.Join(", ", read.Select(Of).Concat(sheet.Missing.Select(number => $"no. {number} not read")))),
            ("limit", sheet.Limits.RejectBelow(conditions) is { } floor
                ? $"{sheet.Limits.FloorInWords(floor, conditions)} ({sheet.Limits.SourceFor(conditions).AsItStands})"
                : ""),
        ];
    }

    private static (string, string?)[]? Plugs(PlugTray tray)
    {
        var there = tray.Places.Where(place => place.Plug is not null).ToList();
        if (there.All(place => Enum.GetValues<PlugStep>().All(step => !place.IsDone(step)) && place.CameFrom == place.Hole))
            return null;
        string Done(PlugStep step, string words, Func<TrayPlace, bool>? of = null)
        {
            var done = there.Where(place => place.IsDone(step) && (of?.Invoke(place) ?? true)).ToList();
            return done.Count == 0 ? "" : done.Count == there.Count ? words
                : $"{words} ({string.Join(' ', done.Select(place => place.Hole))})";
        }
        string Range(PlugStep step)
        {
            var read = there.Select(place => place.ReadingOf(step)).OfType<Reading>().ToList();
            return read.Count == 0 ? "" : Done(step,
                read.MinBy(one => one.Value)! is var least && read.MaxBy(one => one.Value)! is var most && least.Value == most.Value
                ? least.InWords
                : most.Value >= MeasureText.OpenCircuit ? $"{least.InWords} to {most.InWords}"
                : $"{least.Value:0.####}–{most.InWords}");
        }
        var touched = there.Count(place => place.CameFrom != place.Hole || Enum.GetValues<PlugStep>().Any(place.IsDone));
        return
        [
            ("count", touched == tray.Places.Count ? $"all {touched}" : $"{touched} of {tray.Places.Count}"),
            ("done", string.Join(", ", new[]
            {
                Done(PlugStep.Look, "looked at"), Done(PlugStep.Clean, "cleaned"),
                Done(PlugStep.PressureTest, "fired under pressure", place => place.Said(PlugStep.PressureTest) == "pass"),
            }.Where(words => words.Length > 0))),
            ("gap", Range(PlugStep.GapSet)), ("ohms", Range(PlugStep.Ohms)),
            ("ohmsLimit", there.Select(place => place.Limits.OhmsReject).Distinct().ToList() is [var limit] ? $"{limit:0} Ω" : ""),
            ("gaskets", string.Join(", ", new[] { (GasketState.New, "new gaskets"), (GasketState.Annealed, "gaskets annealed") }
                .Select(one => Done(PlugStep.Gasket, one.Item2,
                    place => string.Equals(place.Said(PlugStep.Gasket), $"{one.Item1}", StringComparison.OrdinalIgnoreCase)))
                .Where(words => words.Length > 0))),
            ("torque", Range(PlugStep.Torque)),
            ("wrench", string.Join(", ", there.Select(place => place.ReadingOf(PlugStep.Torque)?.Conditions.Wrench).OfType<WrenchUsed>()
                .Select(Wrench).Distinct())),
            ("rotated", Rotated(tray, there)),
        ];
    }

    // By which pattern, where they went by one; else each one's way.
    private static string Rotated(PlugTray tray, List<TrayPlace> there)
    {
        var moved = there.Where(place => place.CameFrom != place.Hole).ToList();
        if (moved.Count == 0)
            return "";
        var ways = moved.Select(place => new PlugMove(place.CameFrom, place.Hole)).ToHashSet();
        foreach (var (pattern, words) in new[] { (RotationPattern.NextInFiringOrder, "each to the next cylinder in firing order"),
            (RotationPattern.SwapPairs, "in pairs, 1 with 4 and 2 with 3") })
            if (PlugRotation.Plan(tray.Engine.FiringOrder, pattern, tray.Engine.Ignition).Plan is { } plan
                && ways.SetEquals(plan.Moves.Where(move => move.From != move.To)))
                return $"{words}{(tray.IsMixed ? ", within their row" : ", top and bottom exchanged")}";
        return string.Join(", ", ways.OrderBy(way => way.From.Cylinder).ThenBy(way => way.From.Row)
            .Select(way => $"{way.From} to {way.To}"));
    }

    /// <summary>The run after the work, or the one before it where there was no other.</summary>
    private static IReadOnlyList<ValueOnSheet> RunOf(Closing closing, Component engine)
    {
        var read = SheetWork.Of(RunSheet.Of(engine), closing.Aircraft, closing.Inspection).Values
            .Where(value => value.Reading is not null).ToLookup(value => value.Of.Position);
        return [.. read[SheetValue.After].Any() ? read[SheetValue.After] : read["before"]];
    }

    private static string WhenRun(IReadOnlyList<ValueOnSheet> run) =>
        run[0].Of.Position == SheetValue.After ? "after the work" : "before the work";

    private static string Read(SheetWork work, string kind) =>
        work.Values.FirstOrDefault(value => value.Of.Kind == kind)?.Reading is { } reading ? reading.InWords : "";

    private static string Values(IEnumerable<ValueOnSheet> values) => Listed(values.Where(value => value.Reading is not null)
        .Select(
            value => $"{Small(value.Of.Name)} {value.Reading!.InWords}"
                + $"{(Limit(value.Band) is { Length: > 0 } limit ? $" ({limit})" : "")}"));

    private static string Limit(ToleranceBand band) => band is { Low: null, High: null } ? "" : band.Describe();

    // What was found, place by place; else how much was looked at and is good.
    private static string Looks(IEnumerable<LookOnSheet> looks)
    {
        var done = looks.Where(look => look.Check is { State: not LookState.NotHere }).ToList();
        var found = done.Where(look => look.Check!.State == LookState.Found)
            .Select(look => $"{Small(look.Of.Text.Split(':')[0])}: {look.Check!.Words}").ToList();
        return done.Count == 0 ? ""
            : found.Count > 0 ? Listed(found)
            : done.Count <= 5
            ? $"{string.Join(", ", done.Select(look => Small(look.Of.Text.Split(':', ',')[0])).Distinct())} looked at, nothing found"
            : $"{done.Count} places looked at, nothing found";
    }

    private static string PartOf(Installation stay) => string.Join(" ", new[] { stay.Component.Title, stay.Position,
        stay.Component.SerialNumber.Length > 0 ? $"s/n {stay.Component.SerialNumber}" : "" }.Where(words => words.Length > 0));
}
