using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;

namespace MellowRivet.Web.Demo;

/// <summary>The school trainer: ten years of compressions with cylinder 2 going down, and an annual in progress.</summary>
internal static class DemoTrainer
{
    private const int TestsInTheBooks = 21;
    private const int NewCylinderAtTest = 12;

    // What each cylinder held, test by test, out of 80. Cylinder 2 was changed before the test that reads 78 again.
    private static readonly int[][] Held =
    [
        [78, 78, 77, 78, 77, 77, 78, 77, 77, 76, 77, 77, 76, 77, 76, 77, 76, 76, 77, 76, 76],
        [77, 77, 76, 76, 75, 74, 74, 72, 71, 69, 67, 64, 78, 77, 77, 76, 75, 73, 72, 69, 66],
        [77, 78, 77, 77, 76, 77, 77, 76, 77, 76, 76, 76, 77, 75, 76, 76, 75, 76, 75, 76, 75],
        [78, 77, 78, 78, 77, 78, 77, 77, 78, 77, 77, 78, 77, 77, 77, 76, 77, 77, 76, 77, 77],
    ];

    // An invented manual's limits.
    private static readonly ManualLimit[] Manual =
    [
        new("static-rpm", "rpm", 2275, 2425, "Dunlin manual 71-00, p. 4"), new("idle-rpm", "rpm", 600, 750, "Dunlin manual 71-00, p. 4"),
        new("oil-pressure", "psi", 55, 95, "Dunlin manual 79-00, p. 2"), new("fuel-pressure", "psi", 0.5, 8, "Dunlin manual 73-00, p. 2"),
        new("oil-temperature", "°C", 60, 118, "Dunlin manual 79-00, p. 2"), new("cylinder-temperature", "°C", 120, 240, "Dunlin manual 71-00, p. 6"),
        new("prop-bolt-torque", "in-lb", 280, 320, "Dunlin manual 61-10, p. 3"), new("aileron-cable-left", "lb", 35, 41, "Dunlin manual 27-10, p. 5"),
        new("aileron-cable-right", "lb", 35, 41, "Dunlin manual 27-10, p. 5"), new("tyre-pressure-main", "psi", 28, 32, "Dunlin manual 32-40, p. 1"),
    ];

    public static async Task MakeAsync(DemoHistory demo, CancellationToken stop)
    {
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N04QF", "Pellworth Dunlin 2", "PD2-0318", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
        var engine = DemoShop.Fit(aircraft, EngineLayout.FlatFour, CompressionSchool.SixtyOfEighty, "TF4-2217", "WB-70355", default);
        foreach (var limit in Manual)
            aircraft.SetLimit(limit);
        demo.Db.Aircraft.Add(aircraft);

        for (var test = 0; test < TestsInTheBooks; test++)
        {
            var at = demo.Now.AddDays(-(TestsInTheBooks - test) * 174).Date.AddHours(15);
            var hours = new Hours(2010.4m + test * 109.6m + test * 7 % 5);
            aircraft.ReadTime(DateOnly.FromDateTime(at), hours);
            if (test == NewCylinderAtTest)
                ChangeCylinderTwo(aircraft, engine, new Hours(hours.Value - 4.2m));
            var inspection = test % 2 == 1 ? new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, $"{at:yy}-{(test * 3) + 14}", demo.Worksheet, DateOnly.FromDateTime(at)) : null;
            if (inspection is not null)
                demo.Db.Inspections.Add(inspection);
            foreach (var place in engine.Layout.Cylinders)
                TakeOver(demo, aircraft, engine, place.Number, Held[place.Number - 1][test], hours, at, inspection);
            if (inspection is not null)
                await SignPastAsync(demo, inspection, aircraft, at, test, stop);
        }
        await TodayAsync(demo, aircraft, engine, stop);
    }

    private static void ChangeCylinderTwo(Aircraft aircraft, Component engine, Hours at)
    {
        var old = aircraft.Cylinder(engine, 2)!;
        old.Remove(at, "low compression, exhaust valve");
        aircraft.Install(new(Guid.CreateVersion7(), ComponentKind.Cylinder, "2", "", "TF4-C-9941", at, default) { ParentId = engine.Id });
    }

    private static void TakeOver(DemoHistory demo, Aircraft aircraft, Component engine, int number, double psi, Hours hours, DateTimeOffset at, Inspection? inspection)
    {
        var reading = new Reading(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, number)!.Id, Reading.CompressionKind, $"{number}", psi, Unit.Psi,
            new(Hot: true, SupplyPsi: 80, AmbientPsi: 14.7, Leak: psi < 72 ? LeakPath.ExhaustValve : LeakPath.None), hours, at.AddMinutes(number), demo.Person("ines").Id)
        { InspectionId = inspection?.Id };
        if (inspection is null)
            demo.Db.Readings.Add(reading);
        else
            inspection.Record(reading);
    }

    private static async Task SignPastAsync(DemoHistory demo, Inspection inspection, Aircraft aircraft, DateTimeOffset at, int test, CancellationToken stop)
    {
        foreach (var (what, zone, done) in DemoFindings.Past[(test / 2 % DemoFindings.Past.Length)..].Take(2))
            inspection.Find(Guid.CreateVersion7(), what, zone, "", DiscrepancyClass.Recommended, false, null, demo.Person("ines").Id, at)
                .Correct(done, demo.Person("ines").Id, at.AddHours(5));
        DemoHistory.AnswerAll(inspection, aircraft, at, demo.Person("ines"), test);
        await demo.SignAsync(inspection, aircraft, demo.Person("orla"), at.AddHours(8), stop);
    }

    // The annual in progress: most of the engine and the left side done, the rest still to look at, one cylinder still to read.
    private static async Task TodayAsync(DemoHistory demo, Aircraft aircraft, Component engine, CancellationToken stop)
    {
        var began = demo.Now.AddDays(-1).Date.AddHours(8);
        aircraft.ReadTime(demo.Today.AddDays(-1), new Hours(4318.6m));
        var inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, $"{demo.Now:yy}-117", demo.Worksheet, demo.Today.AddDays(-1));
        demo.Db.Inspections.Add(inspection);

        var (ines, tamsin) = (demo.Person("ines"), demo.Person("tamsin"));
        var test = inspection.Begin(new(Guid.CreateVersion7(), engine.Id, 80, 14.7, hot: true, null, ines.Id, began.AddHours(2)));
        foreach (var (number, psi, leak) in new[] { (1, 76.0, LeakPath.None), (2, 58.0, LeakPath.ExhaustValve), (3, 75.0, LeakPath.Rings) })
            inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, number)!.Id, Reading.CompressionKind, $"{number}", psi, Unit.Psi,
                new(true, 80, 14.7, null, leak), aircraft.TimeInService, began.AddHours(2).AddMinutes(number * 4), ines.Id)
            { InspectionId = inspection.Id, CompressionTestId = test.Id });

        for (var index = 0; index < DemoFindings.Today.Length; index++)
        {
            var finding = DemoFindings.Today[index];
            var task = inspection.Tasks.FirstOrDefault(task => task.Key == finding.Task);
            var by = index % 3 == 0 ? tamsin : ines;
            var found = inspection.Find(Guid.CreateVersion7(), finding.What, finding.Zone, finding.Where, finding.Class, finding.Grounded, task, by.Id, began.AddMinutes(35 + index * 11));
            found.Add(await demo.PictureAsync(finding.Picture, index, stop));
            if (finding.Done is { } done)
                found.Correct(done, ines.Id, began.AddHours(7).AddMinutes(index));
        }
        foreach (var (zone, by) in new[] { ("run", ines), ("propeller", ines), ("left-wing", tamsin) })
            DemoHistory.AnswerAll(inspection, aircraft, began.AddHours(3), by, 23, task => task.ZoneKey == zone);
        DemoHistory.AnswerAll(inspection, aircraft, began.AddHours(4), ines, 23, task => task.ZoneKey == "engine" && task.Key.CompareTo("engine-m") < 0 && !task.IsCompression);
        DemoHistory.AnswerAll(inspection, aircraft, began.AddHours(5), tamsin, 23, task => task.ZoneKey is "cabin" or "gear" && task.Order % 3 != 0);
        await demo.Db.SaveChangesAsync(stop);
    }
}
