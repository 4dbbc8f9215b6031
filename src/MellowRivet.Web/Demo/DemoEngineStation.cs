using MellowRivet.Core;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Signing;

namespace MellowRivet.Web.Demo;

/// <summary>The engine's own story in the demo: plugs that wear and foul, oil that goes, a left magneto near its limits.</summary>
internal static class DemoEngineStation
{
    private const string PlugType = "QK-18M";

    // The lower hole of cylinder 2 is wet with oil more often than not, as its cylinder goes down; 4B gathers lead.
    private static PlugLook LookOf(PlugHole hole, int test) => hole.ToString() switch
    {
        "2B" when test >= 13 => PlugLook.OilWet,
        "4B" when test % 4 == 1 => PlugLook.LeadFouled,
        "1B" or "3B" when test % 8 == 3 => PlugLook.Sooty,
        _ => PlugLook.Normal,
    };

    /// <summary>A plug service of an annual of the past, with the oil and what the laboratory said.</summary>
    public static void Past(DemoHistory demo, Aircraft aircraft, Component engine, Inspection inspection, int test, DateTimeOffset at)
    {
        if (!aircraft.Fitted(ComponentKind.Plug).Any())
            aircraft.InstallPlugs(engine, PlugType, 201, aircraft.TimeInService, new Hours(0), on: demo.Clock.DayOf(at));
        var ines = demo.Person("ines").Id;
        foreach (var place in PlugTray.Of(aircraft, engine, inspection).Places)
            Service(demo, inspection, place, LookOf(place.Hole, test), 900 + place.Hole.Cylinder * 130 + test * 45,
                0.0163 + 0.0004 * ((test + place.Hole.Cylinder) % 4) + (test > 11 ? 0.0014 : 0), ines, at.AddMinutes(20), whole: true);
        Check(aircraft.MovePlugs(engine,
            PlugRotation.Plan(engine.FiringOrder, RotationPattern.NextInFiringOrder, engine.Ignition).Plan!.Moves, demo.Clock.DayOf(at)));
        Oil(inspection, aircraft, engine, test, ines, at.AddMinutes(50));
        Values(inspection, RunSheet.Of(engine), "after", ines, at.AddHours(6), ("oil-temperature", 84 + test % 5),
            ("oil-pressure", 78 - test * 0.4), ("static-rpm", 2380 - test * 2), ("idle-rpm", 680 + test % 3 * 10),
            ("mag-drop-left", 95 + test * 1.5), ("mag-drop-right", 90 + test % 4 * 5), ("mixture-rise", 25 + test % 3 * 5),
            ("bus-voltage", 14.1), ("suction", 5.0));
        foreach (var magneto in aircraft.Fitted(ComponentKind.Magneto).Where(magneto => magneto.ParentId == engine.Id))
            Values(inspection, MagnetoSheet.Of(magneto.Component), "", ines, at.AddHours(2),
                ("magneto-points-gap", 0.018 - 0.0002 * (test - 10)),
                ("magneto-e-gap", magneto.Position == "left" ? 10.5 - 0.22 * (test - 10) : 10.2));
    }

    /// <summary>The annual in progress: five plugs done, the engine run before the work, one magneto on the bench.</summary>
    public static void Today(DemoHistory demo, Aircraft aircraft, Component engine, Inspection inspection, DateTimeOffset began)
    {
        var (ines, tamsin) = (demo.Person("ines").Id, demo.Person("tamsin").Id);
        Values(inspection, RunSheet.Of(engine), "before", ines, began.AddHours(1), ("oil-temperature", 71), ("oil-pressure", 68),
            ("fuel-pressure", 4.2), ("cylinder-temperature", 182), ("static-rpm", 2335), ("idle-rpm", 690), ("mag-drop-left", 128),
            ("mag-drop-right", 96), ("mixture-rise", 30), ("bus-voltage", 14.1));
        inspection.PressuresAtAltitude(engine, "before",
            [new(1_000, 64.2), new(2_000, 62.9), new(3_000, 61.0), new(4_000, 60.4), new(6_000, 56.8), new(8_000, 54.1)], ines,
            began.AddHours(0.5));
        inspection.PressuresAtAltitude(engine, SheetValue.After,
            [new(1_000, 65.8), new(2_000, 65.1), new(4_000, 63.0), new(6_000, 61.2), new(7_000, 60.2), new(8_000, 58.7)], ines,
            began.AddHours(9));
        foreach (var (place, index) in PlugTray.Of(aircraft, engine, inspection).Places.Select((place, index) => (place, index)))
            if (index < 6)
                Service(demo, inspection, place, LookOf(place.Hole, 21), index == 3
                    ? 4_200
                    : 1_500 + index * 170, 0.0182 + 0.0006 * (index % 3), tamsin, began.AddHours(5)
                    .AddMinutes(index * 6), whole: index < 4);
        Oil(inspection, aircraft, engine, 21, tamsin, began.AddHours(3));
        var left = aircraft.Fitted(ComponentKind.Magneto)
            .First(magneto => magneto.ParentId == engine.Id && magneto.Position == "left").Component;
        var sheet = MagnetoSheet.Of(left);
        Values(inspection, sheet, "", ines, began.AddHours(6), ("magneto-primary", 0.41), ("magneto-secondary", 13_850),
            ("magneto-capacitor", 0.31), ("magneto-e-gap", 6.5), ("magneto-points-gap", 0.0155));
        foreach (var look in sheet.Looks.Take(4))
            Check(inspection.Look(sheet, look,
                new(left.Id, SheetKind.Magneto, look.Key, look.Key == "brush" ? LookState.Found : LookState.Good, look.Key == "brush"
                    ? "Brush short, 3 mm left: new one fitted"
                    : "", null, null, ines, began.AddHours(6.2))));
    }

    /// <summary>Carburettors and hoses of a geared four, with what their last service said.</summary>
    public static void Geared(DemoHistory demo, Aircraft aircraft, Component engine, DateOnly hosesMade)
    {
        foreach (var side in new[] { "left", "right" })
            DemoHistory.Fit(aircraft, ComponentKind.Carburettor, side, "CV-64", side == "left" ? "C 2207" : "C 2208", 0, null, engine.Id);
        foreach (var (name, position) in new[] { ("coolant hoses", "set"), ("fuel hoses", "engine bay"), ("oil hoses", "engine bay, oil") })
            DemoHistory.Fit(aircraft, ComponentKind.Hose, position, "", $"H-{hosesMade:yyMM}-{position.Length}", 0, hosesMade,
                engine.Id, name);
        aircraft.InstallPlugs(engine, "QK-12", 41, aircraft.TimeInService, null, on: demo.Today.AddMonths(-5));
    }

    /// <summary>
    /// The tug's 100-hour: every plug done, the filter cut, fuel and temperatures read at the run; what its ignition doesn't
    /// have is left out with the reason.
    /// </summary>
    public static void Hundred(DemoHistory demo, Aircraft aircraft, Component engine, Inspection inspection, DateTimeOffset at)
    {
        var wim = demo.Person("wim");
        foreach (var place in PlugTray.Of(aircraft, engine, inspection).Places)
            Service(demo, inspection, place, PlugLook.Normal, 1_150 + place.Hole.Cylinder * 60, 0.0352, wim.Id, at.AddMinutes(-90),
                whole: true, gap: 0.035);
        Check(
            inspection.Cut(new(Guid.CreateVersion7(), engine.Id, FilterPlace.Filter, FilterMetal.None, FilterAmount.None, "", null, wim.Id,
                at.AddMinutes(-60))));
        inspection.Fill(new(engine.Id, "10W-40, semi-synthetic, for gearboxes", 3.2, "l", "QF-12", wim.Id, at.AddMinutes(-55)));
        var rules = demo.Shelf.Weigh(aircraft.Category, new Dictionary<Guid, Core.People.Person> { [wim.Id] = wim }, demo.Clock);
        var signs = rules.SignsBy(wim.Id, inspection, aircraft);
        foreach (var left in new[] { "mag-drop-left", "mag-drop-right" })
            Check(inspection.LeaveOut(Asks.Find(inspection, aircraft, rules, $"run/{engine.Id:N}/{left}")!,
                "No magnetos: the drop of each ignition module was measured by the engine’s list.", wim, signs, at));
    }

    /// <summary>Whatever the sheets that answer a task still want, as far as looks and a magneto's timing go.</summary>
    public static void FillIn(Inspection inspection, Aircraft aircraft, InspectionTask task, Guid by, DateTimeOffset at)
    {
        foreach (var part in inspection.SheetsFor(task, aircraft).Where(part => part.Asked == Asked.MagnetosInPlace && !part.IsComplete))
            Values(inspection, MagnetoSheet.Of(aircraft.Fitting(part.Carrier)!.Component), "", by, at, ("magneto-timing", 25));
        inspection.LookAtRestOf(task, aircraft, by, at);
    }

    private static void Service(DemoHistory demo, Inspection inspection, TrayPlace place, PlugLook look, double ohms, double found, Guid by,
        DateTimeOffset at, bool whole, double gap = 0.0165)
    {
        var aircraftId = inspection.AircraftId;
        Check(inspection.NotePlug(place, PlugStep.Look, look.ToString(), new(by, at)));
        void Read(PlugStep step, double value, WrenchUsed? wrench = null) =>
            inspection.Record(new(Guid.CreateVersion7(), aircraftId, place.Plug!.Id, PlugKinds.Of(step)!, place.Hole.ToString(), value,
                PlugKinds.UnitOf(step), new(Wrench: wrench), inspection.TimeInService, at.AddMinutes((int)step),
                by) { InspectionId = inspection.Id });
        Read(PlugStep.Ohms, ohms);
        Read(PlugStep.GapFound, Math.Round(found, 4));
        if (!whole)
            return;
        Check(inspection.NotePlug(place, PlugStep.Clean, "done", new(by, at.AddMinutes(2))));
        Read(PlugStep.GapSet, gap);
        Check(inspection.NotePlug(place, PlugStep.PressureTest, "pass", new(by, at.AddMinutes(4))));
        Check(inspection.NotePlug(place, PlugStep.Gasket, nameof(GasketState.Annealed), new(by, at.AddMinutes(5))));
        Read(PlugStep.Torque, PlugLimits.TorqueInchPounds, demo.Pulled(PlugLimits.TorqueInchPounds, PlugKinds.UnitOf(PlugStep.Torque), at));
    }

    private static void Oil(Inspection inspection, Aircraft aircraft, Component engine, int test, Guid by, DateTimeOffset at)
    {
        inspection.Fill(new(engine.Id, "SAE 50, ashless dispersant", 8, "qt", "QF-48", by, at));
        // From 22 hours a litre down to 14, as cylinder 2 passes more and more.
        var sheet = OilSheet.Of(engine);
        Values(inspection, sheet, "", by, at, ("oil-added", Math.Round(219.2 / (24 - 0.45 * test), 1)), ("oil-hours", 24 + test % 3),
            ("oil-iron", 18 + test * 0.6 + (test == 21 ? 14 : test % 3)), ("oil-copper", 4 + test % 2), ("oil-aluminium", 5 + test % 3),
            ("oil-chromium", 3 + test % 2), ("oil-silicon", 6 + test % 4), ("oil-lead", 2_400 + test % 5 * 120));
        Check(inspection.Cut(new(Guid.CreateVersion7(), engine.Id, FilterPlace.Filter, test < 17
            ? FilterMetal.Carbon
            : FilterMetal.Ferrous, test < 19 ? FilterAmount.FewSpecks : FilterAmount.ManySpecks, test == 21
            ? "Fine, magnetic, from the pleats nearest the outlet"
            : "", null, by, at)));
        foreach (var look in sheet.Looks)
            Check(inspection.Look(sheet, look, new(engine.Id, SheetKind.Oil, look.Key, LookState.Good, "", null, null, by, at)));
    }

    private static void Values(Inspection inspection, EngineSheet sheet, string position, Guid by, DateTimeOffset at,
        params (string Kind, double Value)[] values)
    {
        foreach (var (kind, value) in values)
        {
            var of = sheet.Values.Single(one => one.Kind == kind && one.Position == position);
            Check(inspection.Measure(Guid.CreateVersion7(), sheet, of, value, of.Band.Unit, new(by, at)));
        }
    }

    private static void Check(Refusal? refusal)
    {
        if (refusal is not null)
            throw new InvalidOperationException(refusal.Message);
    }
}
