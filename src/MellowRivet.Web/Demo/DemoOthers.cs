using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;

namespace MellowRivet.Web.Demo;

/// <summary>The amateur-built, whose condition inspection waits to be begun, and the light-sport tug, whose 100-hour is nearly done.</summary>
internal static class DemoOthers
{
    public static async Task MakeAsync(DemoHistory demo, CancellationToken stop)
    {
        await AmateurBuiltAsync(demo, stop);
        await TugAsync(demo, stop);
    }

    private static async Task AmateurBuiltAsync(DemoHistory demo, CancellationToken stop)
    {
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0BRM", "Osmund Kestrelet", "OK-07", Category.ExperimentalAmateurBuilt, new(Wing.Low, Gear.TailWheel, 1, 2));
        var engine = DemoShop.Fit(aircraft, EngineLayout.FlatFourRear, CompressionSchool.QuarterDrop, "TF4-0861", "own make, 3", default);
        demo.Db.Aircraft.Add(aircraft);
        int[][] held = [[78, 77, 74], [77, 77, 77], [78, 78, 77], [76, 77, 76]];
        for (var year = 0; year < 3; year++)
        {
            var at = demo.Now.AddDays(-344 - (2 - year) * 366).Date.AddHours(14);
            aircraft.ReadTime(DateOnly.FromDateTime(at), new Hours(412.5m + year * 61.3m));
            var past = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Condition, $"{at:yy}-{60 + year}", demo.Worksheet, DateOnly.FromDateTime(at));
            demo.Db.Inspections.Add(past);
            foreach (var place in engine.Layout.Cylinders)
                past.Record(Compression(demo, aircraft, engine, place.Number, held[place.Number - 1][year], 80, at, past));
            DemoHistory.AnswerAll(past, aircraft, at, demo.Person("ines"), year);
            await demo.SignAsync(past, aircraft, demo.Person("perpetua"), at.AddHours(4), stop);
        }
        aircraft.ReadTime(demo.Today, new Hours(588.2m));
        demo.Db.Inspections.Add(new(Guid.CreateVersion7(), aircraft, InspectionKind.Condition, $"{demo.Now:yy}-119", demo.Worksheet, demo.Today));
        await demo.Db.SaveChangesAsync(stop);
    }

    private static async Task TugAsync(DemoHistory demo, CancellationToken stop)
    {
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0LTS", "Brindle Mote LS", "BM-1142", Category.SpecialLightSport, new(Wing.High, Gear.NoseWheel, 1, 2));
        var engine = DemoShop.Fit(aircraft, EngineLayout.GearedFlatFour, CompressionSchool.SixtyOfEighty, "LQ4-5530", "CL-118", default);
        demo.Db.Aircraft.Add(aircraft);
        int[][] held = [[85, 85, 84, 84], [85, 84, 84, 83], [84, 84, 83, 83], [85, 84, 84, 84]];
        for (var service = 0; service < 4; service++)
        {
            var at = demo.Now.AddDays(-107 * (4 - service)).Date.AddHours(13);
            aircraft.ReadTime(DateOnly.FromDateTime(at), new Hours(1100m + service * 100m));
            foreach (var place in engine.Layout.Cylinders)
                demo.Db.Readings.Add(Compression(demo, aircraft, engine, place.Number, held[place.Number - 1][service], 87, at, null));
        }
        aircraft.ReadTime(demo.Today.AddDays(-1), new Hours(1503.4m));
        var now = demo.Now.AddHours(-3);
        var inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.HundredHour, $"{demo.Now:yy}-118", demo.Worksheet, demo.Today.AddDays(-1));
        demo.Db.Inspections.Add(inspection);
        var test = inspection.Begin(new(Guid.CreateVersion7(), engine.Id, 87, 14.5, hot: true, null, demo.Person("wim").Id, now));
        foreach (var (number, psi) in new[] { (1, 84.0), (2, 84.0), (3, 83.0), (4, 84.0) })
            inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, number)!.Id, Reading.CompressionKind, $"{number}", psi, Unit.Psi,
                new(true, 87, 14.5), aircraft.TimeInService, now.AddMinutes(number), demo.Person("wim").Id)
            { InspectionId = inspection.Id, CompressionTestId = test.Id });
        DemoHistory.AnswerAll(inspection, aircraft, now, demo.Person("wim"), 5, task => task.Key is not ("gen-placards" or "gen-weight"));
        await demo.Db.SaveChangesAsync(stop);
    }

    private static Reading Compression(DemoHistory demo, Aircraft aircraft, Component engine, int number, double psi, double supply, DateTimeOffset at, Inspection? inspection) =>
        new(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, number)!.Id, Reading.CompressionKind, $"{number}", psi, Unit.Psi,
            new(true, supply, 14.7, Leak: LeakPath.None), aircraft.TimeInService, at.AddMinutes(number), demo.Person("ines").Id)
        { InspectionId = inspection?.Id };
}
