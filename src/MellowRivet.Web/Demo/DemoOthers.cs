using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Store;

namespace MellowRivet.Web.Demo;

/// <summary>
/// The amateur-built, whose condition inspection waits to be begun, and the light-sport tug, whose 100-hour is nearly done.
/// </summary>
internal static class DemoOthers
{
    public static async Task MakeAsync(DemoHistory demo, CancellationToken stop)
    {
        await AmateurBuiltAsync(demo, stop);
        await TugAsync(demo, stop);
    }

    private static async Task AmateurBuiltAsync(DemoHistory demo, CancellationToken stop)
    {
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0BRM", "Osmund Kestrelet", "OK-07", Category.ExperimentalAmateurBuilt,
            new(Wing.Low, Gear.TailWheel, 1, 2, Fabric: true));
        var engine = DemoShop.Fit(aircraft, EngineLayout.FlatFourRear, CompressionSchool.QuarterDrop, "TF4-0861", "own make, 3",
            new Hours(0), new(IgnitionKind.HighEnergy, IgnitionKind.Magneto));
        demo.Db.Aircraft.Add(aircraft);
        int[][] held = [[78, 77, 74], [77, 77, 77], [78, 78, 77], [76, 77, 76]];
        for (var year = 0; year < 3; year++)
        {
            var at = demo.At(-344 - (2 - year) * 366, 14);
            aircraft.ReadTime(demo.Clock.DayOf(at), new Hours(412.5m + year * 61.3m));
            var past = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Condition, $"{at:yy}-{60 + year}",
                demo.Worksheets("app-d", "fabric"), demo.Clock.DayOf(at), null, DemoHistory.House);
            demo.Db.Inspections.Add(past);
            foreach (var place in engine.Layout.Cylinders)
                past.Record(Compression(demo, aircraft, engine, place.Number, held[place.Number - 1][year], 80, at, past));
            demo.AnswerAll(past, aircraft, at, demo.Person("ines"), year);
            DemoHistory.LookAt(past, at.AddHours(-5), demo.Person("ines"), second: true);
            DemoHistory.InspectAll(past, at.AddHours(2), demo.Person("orla"));
            await demo.SignAsync(past, aircraft, demo.Person("perpetua"), at.AddHours(4), stop);
        }
        aircraft.ReadTime(demo.Today, new Hours(588.2m));
        aircraft.InstallPlugs(engine, "EV-7 fine", 1, new Hours(412.5m), new Hours(0), PlugRow.Top);
        aircraft.InstallPlugs(engine, "QK-18M", 11, new Hours(412.5m), new Hours(0), PlugRow.Bottom);
        DemoHistory.Fly(aircraft, demo.Today.AddDays(-344), 535.1m, demo.Today, 588.2m, 2);
        demo.Follow(aircraft, "condition", demo.Done(-344, 535.1m, $"{demo.Today.AddDays(-344):yy}-62"));
        demo.Follow(aircraft, "locator", demo.Done(-344, 535.1m, "condition inspection"));
        demo.Follow(aircraft, "magneto", demo.Done(-900, 412.5m, "bench sheet 12"));
        demo.Follow(aircraft, "oil", demo.Done(-70, 572.4m, "oil change"));
        demo.Follow(aircraft, "plugs", demo.Done(-70, 572.4m, "oil change"));
        demo.Follow(aircraft, "engine-overhaul");
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "Fabric: punch test of the upper surfaces",
            DueKind.Service, new(EveryMonths: 24), new(Standing.Practice, "the builder’s own book, p. 31")),
            demo.Done(-690, 480, "condition inspection"));
        demo.Db.Inspections.Add(
            new(Guid.CreateVersion7(), aircraft, InspectionKind.Condition, $"{demo.Today:yy}-119",
                demo.Worksheets("app-d", "fabric", "lubrication"), demo.Today, await demo.Db.TasksDoneAsync(aircraft.Id, demo.Clock, stop),
                DemoHistory.House));
        await demo.Db.SaveChangesAsync(stop);
    }

    private static async Task TugAsync(DemoHistory demo, CancellationToken stop)
    {
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0LTS", "Brindle Mote LS", "BM-1142", Category.SpecialLightSport,
            new(Wing.High, Gear.NoseWheel, 1, 2));
        var engine = DemoShop.Fit(aircraft, EngineLayout.GearedFlatFour, CompressionSchool.SixtyOfEighty, "LQ4-5530", "CL-118",
            new Hours(0), new(IgnitionKind.HighEnergy, IgnitionKind.HighEnergy), part: "LQ4-A");
        foreach (var (measure, unit, low, high) in new (string, string, double?, double?)[]
        {
            ("static-rpm", "rpm", 5050, 5350), ("idle-rpm", "rpm", 1400, 1800), ("ignition-drop", "rpm", null, 300),
            ("oil-pressure", "bar", 2, 5), ("fuel-pressure", "bar", 0.15, 0.4),
            ("oil-temperature", "°C", 50, 110), ("cylinder-temperature", "°C", 50, 115), ("prop-bolt-torque", "N·m", 18, 22),
            ("tyre-pressure", "psi", 24, 28),
        })
            aircraft.SetLimit(new(measure, unit, low, high, "Mote manual 5-2"));
        demo.Db.Aircraft.Add(aircraft);
        int[][] held = [[85, 85, 84, 84], [85, 84, 84, 83], [84, 84, 83, 83], [85, 84, 84, 84]];
        for (var service = 0; service < 4; service++)
        {
            var then = demo.At(-107 * (4 - service), 13);
            aircraft.ReadTime(demo.Clock.DayOf(then), new Hours(1100m + service * 100m));
            foreach (var place in engine.Layout.Cylinders)
                demo.Db.Readings.Add(Compression(demo, aircraft, engine, place.Number, held[place.Number - 1][service], 87, then, null));
        }
        await LastHundredAsync(demo, aircraft, stop);
        aircraft.ReadTime(demo.Today.AddDays(-1), new Hours(1503.4m));
        DemoEngineStation.Geared(demo, aircraft, engine, demo.Today.AddDays(-1730));
        DemoHistory.Fly(aircraft, demo.Today.AddDays(-107), 1400, demo.Today.AddDays(-1), 1503.4m, 3);
        demo.Follow(aircraft, "condition", demo.Done(-214, 1300, $"{demo.Today.AddDays(-214):yy}-44"));
        demo.Follow(aircraft, "hundred-hour-light-sport", demo.Done(-107, 1400, $"{demo.Today.AddDays(-107):yy}-90"));
        demo.Follow(aircraft, "oil-geared", demo.Done(-40, 1466.9m, "oil change"));
        demo.Follow(aircraft, "hoses-geared", demo.Done(-1710, 402, "hose set H-20"));
        demo.Follow(aircraft, "transponder", demo.Done(-400, 1130, "Tollerby Instruments"));
        demo.Follow(aircraft, "locator", demo.Done(-214, 1300, "condition inspection"));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "Tow hook: overhaul", DueKind.Overhaul,
            new(EveryLandings: 2000, EveryMonths: 48, Calendar: CalendarRule.SameDay), new(Standing.Manual, "tow hook manual, p. 9")),
            new LastDone(demo.Today.AddDays(-300), 1210, null, 7_020));
        for (var month = 10; month >= 0; month--)
            aircraft.ReadMeter(MeterKind.Landings, demo.Today.AddMonths(-month).AddDays(-1), 8_810 - month * 176, "WR");
        var at = demo.At(-1, 13);
        var inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.HundredHour, $"{at:yy}-118",
            demo.Worksheets("light-sport", "geared-four", "lubrication"), demo.Today.AddDays(-1),
            await demo.Db.TasksDoneAsync(aircraft.Id, demo.Clock, stop), DemoHistory.House);
        demo.Db.Inspections.Add(inspection);
        var test = inspection.Begin(new(Guid.CreateVersion7(), engine.Id, 87, 14.5, hot: true, null, demo.Person("wim").Id, at));
        foreach (var (number, psi) in new[] { (1, 84.0), (2, 84.0), (3, 83.0), (4, 84.0) })
            inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, number)!.Id, Reading.CompressionKind,
                $"{number}", psi, Unit.Psi,
                new(true, 87, 14.5), aircraft.TimeInService, at.AddMinutes(number), demo.Person("wim").Id)
            { InspectionId = inspection.Id, CompressionTestId = test.Id });
        DemoEngineStation.Hundred(demo, aircraft, engine, inspection, at);
        demo.AnswerAll(inspection, aircraft, at, demo.Person("wim"), 5, task => task.Key is not ("ls-directives" or "ls-clean"),
            Pads(0.128));
        DemoHistory.LookAt(inspection, at.AddHours(-5), demo.Person("wim"), second: true);
        DemoHistory.InspectAll(inspection, at.AddHours(1), demo.Person("ines"));
        await demo.Db.SaveChangesAsync(stop);
    }

    // The 100-hour before, by the same lists: what was replaced then isn't due again.
    private static async Task LastHundredAsync(DemoHistory demo, Aircraft aircraft, CancellationToken stop)
    {
        var at = demo.At(-107, 13);
        var past = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.HundredHour, $"{at:yy}-90",
            demo.Worksheets("light-sport", "geared-four", "lubrication"), demo.Clock.DayOf(at), null, DemoHistory.House);
        demo.Db.Inspections.Add(past);
        demo.AnswerAll(past, aircraft, at, demo.Person("wim"), 3, value: Pads(0.165));
        DemoHistory.LookAt(past, at.AddHours(-6), demo.Person("wim"), second: true);
        DemoHistory.InspectAll(past, at.AddHours(1), demo.Person("ines"));
        var wim = demo.Person("wim");
        past.GoBy("Mote LS maintenance manual, chapter 5, 100-hour", "revision 7", wim,
            demo.Shelf.Weigh(aircraft.Category, demo.ById, demo.Clock).SignsBy(wim.Id, past, aircraft), at.AddHours(2));
        await demo.SignAsync(past, aircraft, wim, at.AddHours(2), stop);
    }

    private static Func<InspectionTask, double?> Pads(double thickness) =>
        task => task.Key is "ls-pads" or "ls-pads-right" ? thickness : null;

    internal static Reading Compression(DemoHistory demo, Aircraft aircraft, Component engine, int number, double psi, double supply,
        DateTimeOffset at, Inspection? inspection) =>
        new(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, number)!.Id, Reading.CompressionKind, $"{number}", psi, Unit.Psi,
            new(true, supply, 14.7, Leak: LeakPath.None), aircraft.TimeInService, at.AddMinutes(number), demo.Person("ines").Id)
        { InspectionId = inspection?.Id };
}
