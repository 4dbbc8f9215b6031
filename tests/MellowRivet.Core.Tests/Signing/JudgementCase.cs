using System.Reflection;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using static MellowRivet.Core.Tests.Bulletins.BulletinFixture;

namespace MellowRivet.Core.Tests.Signing;

/// <summary>An inspection with one of each thing that can be judged, and short words to read and look at it.</summary>
public abstract class JudgementCase
{
    protected readonly Aircraft aircraft = new(Guid.NewGuid(), "N0TST", "Test type", "T-1", Category.Standard,
        new(Wing.Low, Gear.NoseWheel, 1, 2));
    protected readonly Inspection inspection;
    protected readonly Component engine;

    protected static readonly Worksheet Sheet = Worksheet.Parse("""
        { "key": "all", "title": "All", "version": 1, "basis": "test", "zones": [
          { "key": "engine", "title": "Engine", "station": "engine", "book": "engine", "tasks": [ { "key": "comp", "text": "Compressions",
          "reference": "(d)(3)", "compression": true } ] },
          { "key": "gear", "title": "Gear", "station": "airframe", "book": "airframe", "tasks": [
            { "key": "pads", "text": "Pads", "reference": "(e)(9)", "measure": { "kind": "pads", "unit": "in", "low": 0.1, "high": null,
            "standing": "practice", "source": "common practice", "method": "wear" } },
            { "key": "cable", "text": "Cable", "reference": "(f)", "measure": { "kind": "cable", "unit": "lb", "low": 30, "high": 40,
            "standing": "manual", "source": "manual 27", "method": "cableTension" } },
            { "key": "bolt", "text": "Bolt", "reference": "(h)(2)", "measure": { "kind": "bolt", "unit": "in-lb", "low": 280, "high": 320,
            "standing": "reference", "source": "table", "method": "torque" } },
            { "key": "vane", "text": "Vane", "reference": "(f)", "measure": { "kind": "vane", "unit": "°", "low": null, "high": null,
            "standing": "manual", "source": "no limit on file yet" } } ] } ] }
        """);

    protected JudgementCase()
    {
        engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "", "E-1")
            { LayoutKey = EngineLayout.FlatFour.Key, Ignition = new(IgnitionKind.Magneto, IgnitionKind.Magneto) };
        engine.JudgeCompressionBy(new(CompressionSchool.SixtyOfEighty));
        aircraft.InstallEngine(engine, "", default, new Hours(120));
        aircraft.ReadTime(new DateOnly(2026, 11, 20), new Hours(1000.5m));
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1"), "left", default, null, engine.Id);
        foreach (var side in new[] { "left", "right" })
            aircraft.Install(new(Guid.NewGuid(), ComponentKind.Carburettor, "", $"C-{side}"), side, default, null, engine.Id);
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Hose, "", "H-1"), "", default, null, engine.Id);
        aircraft.InstallPlugs(engine, "P", 1, default, null);
        inspection = Fixture.Inspect(aircraft, [Sheet], new(FirstLook: false));
    }

    protected IReadOnlyList<Judged> All => InspectionJudgements.Of(inspection, aircraft);
    protected IReadOnlyList<JudgedLine> Lines => JudgedLines.Of(inspection, aircraft);
    protected JudgedLine Only => Lines.ShouldHaveSingleItem();
    protected Component Part(ComponentKind kind, string position = "") =>
        aircraft.SittingOn(engine.Id)
            .First(stay => stay.Component.Kind == kind && (position.Length == 0 || stay.Position == position)).Component;
    protected TrayPlace Place(string hole) => PlugTray.Of(aircraft, engine, inspection).At(PlugHole.Parse(hole)!.Value)!;

    protected IReadOnlyList<string> Entered(Book book) =>
        [.. RecordWriter.Draft(Fixture.Close(inspection, aircraft), new(Fixture.Inspector, Fixture.Inspector.Certificates[0]))
        .Single(draft => draft.Book == book).Content["work"]!.AsArray().Select(line => $"{line}")];

    protected void Value(EngineSheet sheet, string kind, string position, double value, int minute = 0) =>
        inspection.Measure(Guid.NewGuid(), sheet, sheet.Values.Single(one => one.Kind == kind && one.Position == position), value,
            sheet.Values.First(one => one.Kind == kind).Band.Unit, new(Fixture.Ines, Fixture.Now.AddMinutes(minute))).ShouldBeNull();

    protected void Found(EngineSheet sheet, string key, int minute = 0, LookState state = LookState.Found) =>
        inspection.Look(sheet, sheet.Looks.Single(look => look.Key == key),
            new(sheet.Carrier.Id, sheet.Kind, key, state, "cracked", null, null, Fixture.Ines, Fixture.Now.AddMinutes(minute)))
                .ShouldBeNull();

    protected void Task(string key, double value, ReadingConditions? conditions = null)
    {
        var task = inspection.Tasks.Single(one => one.Key == key);
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, task.ComponentId, task.Measure!.Kind, task.ZoneKey, value,
            Unit.Find(task.Measure.Unit)!, conditions
                ?? new(), aircraft.TimeInService, Fixture.Now, Fixture.Ines) { InspectionId = inspection.Id, TaskId = task.Id });
    }

    protected void Ohms(string hole, double ohms) =>
        inspection.Measure(Guid.NewGuid(), Place(hole), PlugStep.Ohms, ohms, null, new(Fixture.Ines, Fixture.Now)).ShouldBeNull();
}
