using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using Microsoft.Extensions.Time.Testing;

namespace MellowRivet.Core.Tests;

/// <summary>A small aircraft, a small worksheet and the shipped shelf, for the tests of the walk.</summary>
internal static class Fixture
{
    public static readonly DateTimeOffset Now = new(2026, 11, 23, 10, 0, 0, TimeSpan.Zero);
    public static readonly DateOnly Today = new(2026, 11, 23);
    public static FakeTimeProvider Clock { get; } = new(Now);
    public static readonly Guid Ines = Guid.NewGuid();

    public static string Shelf => Path.Combine(AppContext.BaseDirectory, "shelf");
    public static RulePack Rules { get; } = RulePack.Parse(File.ReadAllText(Path.Combine(Shelf, "rule-packs", "us.json")));
    public static EntryTemplate Template { get; } = EntryTemplate.Parse(File.ReadAllText(Path.Combine(Shelf, "entries", "usual.json")));
    public static ClassRules Classes { get; } = new(
        UsualFinding.Parse(File.ReadAllText(Path.Combine(Shelf, "findings", "usual.json"))),
        NeverDeferred.Parse(File.ReadAllText(Path.Combine(Shelf, "deferral", "never.json"))),
        Meaning.Parse(File.ReadAllText(Path.Combine(Shelf, "meaning", "parts.json"))));

    /// <summary>Somebody who may sign an annual, a 100-hour and a condition inspection.</summary>
    public static Person Inspector { get; } = new(Ines, "Ines Test", "IT", [Role.Inspector],
        [new(CertificateKind.InspectionAuthorization, "77"), new(CertificateKind.Mechanic, "76")]);

    /// <summary>The shipped rules, and an inspector.</summary>
    public static ShopRules Shop { get; } = Among(Inspector);

    /// <summary>
    /// The same without scope, sheets asked for and looks: what stands in the way of a small worksheet is that worksheet.
    /// </summary>
    public static ShopRules Bare { get; } = Shop with { Pack = Rules with { Scopes = [], Asks = [], Looks = [] } };

    public static ShopRules Among(params Person[] people) => new(Rules, Classes, Template, people.ToDictionary(person => person.Id), Clock);

    /// <summary>What the entries of an inspection are written from, where nothing falls due.</summary>
    public static Closing Close(Inspection inspection, Aircraft aircraft, DateOnly? on = null, ShopRules? shop = null,
        DueLine? due = null) =>
        new(inspection, aircraft, shop ?? Shop, due ?? DueLine.Of(aircraft, [], [], on ?? Today), on ?? Today, Clock);

    public static Worksheet Shipped(string key) => Worksheet.Parse(File.ReadAllText(Path.Combine(Shelf, "worksheets", $"{key}.json")));
    public static Worksheet AppendixD { get; } = Shipped("app-d");

    public static Worksheet Small { get; } = Worksheet.Parse("""
        { "key": "small", "title": "Small", "version": 3, "basis": "test", "zones": [
          { "key": "engine", "title": "Engine", "station": "engine", "book": "engine", "looks": false, "perEngine": true, "tasks": [
            { "key": "comp", "text": "Compressions", "reference": "(d)(3)", "compression": true },
            { "key": "oil", "text": "Oil pressure", "reference": "(d)(1)", "measure": { "kind": "oil-pressure", "unit": "psi", "low": 55,
            "high": 95, "standing": "practice", "source": "common practice" } } ] },
          { "key": "gear", "title": "Gear", "station": "airframe", "book": "airframe", "looks": false, "tasks": [
            { "key": "tyres", "text": "Tyres", "reference": "(e)(8)" },
            { "key": "nose", "text": "Nose leg", "reference": "(e)(1)", "appliesTo": "noseWheel" },
            { "key": "tail", "text": "Tail wheel", "reference": "(e)(1)", "appliesTo": "tailWheel" } ] } ] }
        """);

    public static Aircraft Aircraft(Category category = Category.Standard, string serial = "T-1",
        CompressionSchool school = CompressionSchool.SixtyOfEighty)
    {
        var aircraft = new Aircraft(Guid.NewGuid(), "N0TST", "Test type", serial, category, new(Wing.Low, Gear.NoseWheel, 1, 2));
        var engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "", "E-1") { LayoutKey = EngineLayout.FlatFour.Key };
        engine.JudgeCompressionBy(new(school));
        aircraft.InstallEngine(engine, "", new Hours(0), new Hours(120));
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Propeller, "", "P-1"), "", new Hours(900), new Hours(0));
        aircraft.ReadTime(new DateOnly(2026, 11, 20), new Hours(1000.5m));
        return aircraft;
    }

    public static Inspection Inspection(Aircraft aircraft, InspectionKind kind = InspectionKind.Annual) =>
        new(Guid.NewGuid(), aircraft, kind, "26-1", [Small], new DateOnly(2026, 11, 22));

    public static Inspection Inspect(Aircraft aircraft, IReadOnlyList<Worksheet> sheets, HouseRules? house = null) =>
        new(Guid.NewGuid(), aircraft, InspectionKind.Annual, "26-1", sheets, new DateOnly(2026, 11, 22), null, house);

    public static Person Person(params Certificate[] certificates) =>
        new(Guid.NewGuid(), "Test Person", "TP", [Role.Mechanic], certificates);

    public static Reading Compress(Inspection inspection, Aircraft aircraft, int number, double psi, bool hot = true, bool again = false,
        int minute = 0) =>
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, aircraft.Cylinder(aircraft.Engines.First().Component, number)!.Id,
            Reading.CompressionKind, $"{number}", psi, Unit.Psi,
            new(hot, 80, 14.7, null, Leaks.None, again), aircraft.TimeInService, Now.AddMinutes(minute), Ines)
        { InspectionId = inspection.Id });

    /// <summary>Answers everything as good.</summary>
    public static void Finish(Inspection inspection, Aircraft aircraft)
    {
        foreach (var number in new[] { 1, 2, 3, 4 })
            Compress(inspection, aircraft, number, 77);
        var oil = inspection.Tasks.Single(task => task.Key == "oil");
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, null, "oil-pressure", "engine", 70, Unit.Psi, new(), aircraft.TimeInService, Now,
            Ines) { InspectionId = inspection.Id, TaskId = oil.Id });
        foreach (var task in inspection.Tasks.Where(task => task.Verdict == TaskVerdict.NotYet))
            task.Set(TaskVerdict.Good, null, inspection.JudgementAt(task, aircraft), Ines, Now).ShouldBeNull();
    }
}
