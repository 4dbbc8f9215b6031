using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Records;

/// <summary>An aircraft and its inspection, with short words for what is done at it, and its entries as text.</summary>
internal sealed class EntryCase
{
    public static readonly Person Mechanic = new(Guid.NewGuid(), "Mads Bolt", "MB", [Role.Mechanic],
        [new(CertificateKind.Mechanic, "M 12")]);
    public static readonly Person Inspector = new(Guid.NewGuid(), "Ida Quill", "IQ", [Role.Inspector],
        [new(CertificateKind.InspectionAuthorization, "I 77")]);
    public static readonly WrenchUsed Wrench = new(Guid.NewGuid(), "Torque wrench T-1", new(2027, 6, 28), null, null, 420);

    private readonly RulePack rules;

    public Aircraft Aircraft { get; }
    public Inspection Inspection { get; }
    public List<DueItem> Due { get; } = [];

    public EntryCase(Aircraft aircraft, InspectionKind kind, Worksheet sheet, string pack = "us")
    {
        rules = RulePack.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "rule-packs", $"{pack}.json")));
        (Aircraft, Inspection) = (aircraft, new(Guid.NewGuid(), aircraft, kind, "26-9", [sheet], new(2026, 11, 22), null,
            new(FirstLook: false)));
    }

    public Closing Closing => new(Inspection, Aircraft, new(rules, Fixture.Classes, Fixture.Template,
        new[] { Mechanic, Inspector }.ToDictionary(person => person.Id), Fixture.Clock), DueLine.Of(Aircraft, Due, [], Fixture.Today),
            Fixture.Today,
        Fixture.Clock);

    public string Text => string.Join("\n\n", LogbookEntry.Of(Closing).Select(entry => string.Join("\n",
    [
        $"{entry.Item}, {entry.Time} h{(entry.SinceOverhaul is { } since ? $", since overhaul {since} h" : "")}", entry.Extent,
        .. entry.Told.Select(line => $"- {line}"), entry.Statement,
    ])));

    /// <summary>An engine as it comes: cylinders, two magnetos, plugs.</summary>
    public static Component Fit(Aircraft aircraft, string layout, string serial, string position, CompressionSchool school, decimal own,
        IgnitionKind fires = IgnitionKind.Magneto)
    {
        var engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "", serial)
            { LayoutKey = layout, Ignition = new(fires, fires) };
        engine.JudgeCompressionBy(new(school));
        aircraft.InstallEngine(engine, position, default, new Hours(own));
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Propeller, "", $"P-{serial}"), position, default, new Hours(own));
        return engine;
    }

    public void Compress(Component engine, double supply, bool hot, double? orifice, params (double Held, Leaks Leak)[] read)
    {
        foreach (var (index, one) in read.Index())
            Inspection.Record(new(Guid.NewGuid(), Aircraft.Id, Aircraft.Cylinder(engine, index + 1)!.Id, Reading.CompressionKind,
                $"{index + 1}", one.Held, Unit.Psi, new(hot, supply, 14.7, orifice, one.Leak), Aircraft.TimeInService, Fixture.Now,
                Mechanic.Id) { InspectionId = Inspection.Id });
    }

    public void Run(Component engine, params (string Kind, double Value)[] values) => Values(RunSheet.Of(engine), SheetValue.After, values);

    public void Values(EngineSheet sheet, string position, params (string Kind, double Value)[] values)
    {
        foreach (var (kind, value) in values)
            Inspection.Measure(Guid.NewGuid(), sheet, sheet.Values.Single(one => one.Kind == kind && one.Position == position), value,
                sheet.Values.First(one => one.Kind == kind).Band.Unit, new(Mechanic.Id, Fixture.Now)).ShouldBeNull();
    }

    public void LooksGood(EngineSheet sheet, params string[] except)
    {
        foreach (var look in sheet.Looks.Where(look => !except.Contains(look.Key)))
            Inspection.Look(sheet, look, new(sheet.Carrier.Id, sheet.Kind, look.Key, LookState.Good, "", null, null, Mechanic.Id,
                Fixture.Now)).ShouldBeNull();
    }

    public void Plugs(Component engine, double gap)
    {
        foreach (var (index, hole) in PlugTray.Holes(engine).Index())
        {
            TrayPlace Place() => PlugTray.Of(Aircraft, engine, Inspection).At(hole)!;
            Inspection.NotePlug(Place(), PlugStep.Look, nameof(PlugLook.Normal), new(Mechanic.Id, Fixture.Now)).ShouldBeNull();
            Inspection.NotePlug(Place(), PlugStep.Clean, "done", new(Mechanic.Id, Fixture.Now)).ShouldBeNull();
            Inspection.NotePlug(Place(), PlugStep.PressureTest, "pass", new(Mechanic.Id, Fixture.Now)).ShouldBeNull();
            Inspection.NotePlug(Place(), PlugStep.Gasket, nameof(GasketState.New), new(Mechanic.Id, Fixture.Now)).ShouldBeNull();
            Inspection.Measure(Guid.NewGuid(), Place(), PlugStep.Ohms, 1_000 + index * 100, null, new(Mechanic.Id, Fixture.Now))
                .ShouldBeNull();
            Inspection.Measure(Guid.NewGuid(), Place(), PlugStep.GapFound, gap, null, new(Mechanic.Id, Fixture.Now)).ShouldBeNull();
            Inspection.Measure(Guid.NewGuid(), Place(), PlugStep.GapSet, gap, null, new(Mechanic.Id, Fixture.Now)).ShouldBeNull();
            Inspection.Measure(Guid.NewGuid(), Place(), PlugStep.Torque, 420, Wrench, new(Mechanic.Id, Fixture.Now)).ShouldBeNull();
        }
    }

    public void Oil(Component engine, string oil, double amount, string unit, string filter, FilterMetal metal = FilterMetal.None,
        FilterAmount held = FilterAmount.None)
    {
        var (fill, refusal) = OilFill.Read(engine.Id, oil, $"{amount}", unit, filter, Mechanic.Id, Fixture.Now);
        refusal.ShouldBeNull();
        Inspection.Fill(fill!);
        Inspection.Cut(new(Guid.NewGuid(), engine.Id, FilterPlace.Filter, metal, held, "", null, Mechanic.Id, Fixture.Now)).ShouldBeNull();
    }

    public void Task(string key, double value, double? celsius = null, Guid? on = null)
    {
        var task = Inspection.Tasks.Single(one => one.Key == key && (on is null || one.ComponentId == on));
        Inspection.Record(new(Guid.NewGuid(), Aircraft.Id, task.ComponentId, task.Measure!.Kind, task.ZoneKey, value,
            Unit.Find(task.Measure.Unit)!, new(Celsius: celsius), Aircraft.TimeInService, Fixture.Now, Mechanic.Id)
            { InspectionId = Inspection.Id, TaskId = task.Id });
        task.Set(TaskVerdict.Good, null, new(Verdict.Good, "", new(Standing.Practice, ""), null, ""), Mechanic.Id, Fixture.Now)
            .ShouldBeNull();
    }

    public void Good(string key, bool second = false)
    {
        var task = Inspection.Tasks.Single(one => one.Key == key);
        task.Set(TaskVerdict.Good, null, null, Mechanic.Id, Fixture.Now).ShouldBeNull();
        if (second)
            task.Inspect(Inspector, Fixture.Now).ShouldBeNull();
    }

    public Discrepancy Find(string what, string zone, DiscrepancyClass @class, string where = "") =>
        Inspection.Find(Guid.NewGuid(), what, zone, where, @class, false, null, Mechanic.Id, Fixture.Now);

    public Discrepancy Done(string what, string zone, Correction done, string where = "", bool inspected = false)
    {
        var found = Find(what, zone, DiscrepancyClass.Airworthiness, where);
        found.Correct(done, Inspection.Terms, Mechanic.Id, Fixture.Now).ShouldBeNull();
        found.ReplaceParts(Aircraft, "26-9", Fixture.Today).ShouldBeNull();
        if (inspected)
            found.Inspect(Inspector, Fixture.Now.AddHours(26)).ShouldBeNull();
        return found;
    }
}
