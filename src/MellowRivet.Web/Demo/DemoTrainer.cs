using MellowRivet.Core.Books;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
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
        var engine = DemoShop.Fit(aircraft, EngineLayout.FlatFour, CompressionSchool.SixtyOfEighty, "TF4-2217", "WB-70355", new Hours(0), new(IgnitionKind.Magneto, IgnitionKind.Magneto), part: "TF4-160");
        foreach (var limit in Manual)
            aircraft.SetLimit(limit);
        demo.Db.Aircraft.Add(aircraft);

        for (var test = 0; test < TestsInTheBooks; test++)
        {
            var at = demo.Now.AddDays(-(TestsInTheBooks - test) * 174).Date.AddHours(15);
            var hours = new Hours(2010.4m + test * 109.6m + test * 7 % 5);
            aircraft.ReadTime(DateOnly.FromDateTime(at), hours);
            if (test == NewCylinderAtTest)
                ChangeCylinderTwo(aircraft, engine, DateOnly.FromDateTime(at), new Hours(hours.Value - 4.2m));
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

    private static void ChangeCylinderTwo(Aircraft aircraft, Component engine, DateOnly on, Hours at)
    {
        var old = aircraft.Cylinder(engine, 2)!;
        aircraft.TakeOff(old.Id, on, at, "low compression, exhaust valve");
        aircraft.Install(new(Guid.CreateVersion7(), ComponentKind.Cylinder, "TF4-520", "TF4-C-9941"), "2", at, new Hours(0), engine.Id, on);
    }

    // Six of the eight pictures taken, two dents pinned, one squawk still to answer.
    private static async Task ArriveAsync(DemoHistory demo, Aircraft aircraft, Inspection inspection, DateTimeOffset began, CancellationToken stop)
    {
        var (ines, piet) = (demo.Person("ines").Id, demo.Person("piet").Id);
        foreach (var words in new[] { "Pulls to the left when braking", "Radio crackles on the second box after rain", "Smells of fuel with full tanks in the morning" })
            inspection.Hear(Guid.CreateVersion7(), words, ines, began.AddMinutes(5));
        inspection.Answer(inspection.Squawks[0].Id, "Left main tyre worn through to the cord and the right brake line chafed: both on the fix list.", ines, began.AddHours(6));
        inspection.Answer(inspection.Squawks[1].Id, "Antenna base was wet; dried, resealed, no crackle with the hose on it.", ines, began.AddHours(6.5));
        var around = await demo.PicturesAsync(Enumerable.Range(0, 6).Select(from => (Subject.Around, from)), stop);
        foreach (var (from, photo) in Enum.GetValues<Viewpoint>().Zip(around))
            inspection.Photograph(from, photo, piet, began.AddMinutes(12 + 2 * (int)from));
        inspection.Pin(Guid.CreateVersion7(), 262, 122, "Dent in the leading edge, a thumb wide, paint whole", piet, began.AddMinutes(28));
        inspection.Pin(Guid.CreateVersion7(), 120, 262, "Tailplane tip scraped, fresh", piet, began.AddMinutes(30));
        inspection.Note(new OnBoard("35 l left, 20 l right", "5.5 on the stick", "two headsets, tow bar, a child seat", piet, began.AddMinutes(34)));
        var airframe = new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Airframe, "Airframe, volume 2", new DateOnly(2012, 3, 8), null, false);
        var engine = new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Engine, "Engine", new DateOnly(2007, 9, 14), null, false);
        var propeller = new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Propeller, "Propeller", new DateOnly(2015, 6, 1), null, false);
        demo.Db.LogBooks.AddRange(airframe, engine, propeller,
            new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.EquipmentList, "Equipment list of 2021", new DateOnly(2021, 4, 2), new DateOnly(2021, 4, 2), false),
            new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.WeightSheet, "Weighing of 2018", new DateOnly(2018, 2, 20), new DateOnly(2018, 2, 20), false));
        demo.Db.BookEntries.AddRange(
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, new DateOnly(2012, 3, 8), new Hours(1322.4m), "Volume opened, totals carried over from volume 1.", "1", null, piet, began),
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, new DateOnly(2013, 4, 11), new Hours(1480.9m), "Annual inspection. Left fuel selector seals replaced.", "4", null, piet, began),
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, new DateOnly(2014, 5, 20), new Hours(1622.0m), "Annual inspection. Elevator trim cable replaced.", "7", null, piet, began),
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, new DateOnly(2015, 6, 1), new Hours(1770.3m), "Annual inspection. Propeller replaced, see its book.", "11", null, piet, began),
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, new DateOnly(2016, 5, 12), new Hours(1940.1m), "Annual inspection. Nose leg resealed.", "15", null, piet, began));
        inspection.Note(new BooksBrought([airframe.Id, engine.Id], "propeller book and equipment list on Thursday", ines, began.AddMinutes(50)));
    }

    // What is followed, and when it was last done. The engine was overhauled once, the left magneto is near its 500 h.
    private static void Follow(DemoHistory demo, Aircraft aircraft, Component engine)
    {
        var now = aircraft.TimeInService.Value;
        DemoHistory.Fly(aircraft, demo.Today.AddDays(-174), 4202.4m, demo.Today.AddDays(-1), now, 1);
        engine.WasOverhauled(new(demo.Today.AddMonths(-92), new Hours(2890.2m), "release CL-2218"));
        var locator = DemoHistory.Fit(aircraft, ComponentKind.LocatorTransmitter, "", "LT-406", "LT 30771", 3104, new DateOnly(2021, 3, 1));
        DemoHistory.Fit(aircraft, ComponentKind.Battery, "", "BT-25", "0622-118", 3660, new DateOnly(2022, 6, 1));
        DemoHistory.Fit(aircraft, ComponentKind.Altimeter, "left", "AL-20", "A7719", 0, null);
        DemoHistory.Fit(aircraft, ComponentKind.Pump, "", "SP-211", "P-40922", 3890, null, engine.Id, "suction pump");
        demo.Follow(aircraft, "annual", demo.Done(-348, 4095.8m, $"{demo.Now.AddDays(-348):yy}-71"));
        demo.Follow(aircraft, "hundred-hour", demo.Done(-97, 4221m, $"{demo.Now.AddDays(-97):yy}-96"));
        demo.Follow(aircraft, "altimeter", demo.Done(-640, 3925m, "26-A at Tollerby Instruments"));
        demo.Follow(aircraft, "transponder", demo.Done(-702, 3880m, "26-A at Tollerby Instruments"));
        demo.Follow(aircraft, "locator", demo.Done(-348, 4095.8m, "annual"));
        demo.Follow(aircraft, "magneto", demo.Done(-480, 3861.2m, "bench sheet 40"), demo.Done(-840, 3830.5m, "bench sheet 31"));
        demo.Follow(aircraft, "oil-plugs", demo.Done(-24, 4296.4m, "oil change"));
        demo.Follow(aircraft, "quick-drain", demo.Done(-1190, 3610m, "annual"));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), null, engine.Id, "Overhaul", DueKind.Overhaul, new(2000, 144, CalendarRule.SameDay), new(Standing.Manual, "TF4 service letter 9, p. 2")), demo.Done(-92 * 30, 2890.2m, "release CL-2218"));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), null, locator.Id, "Battery: replace by the date marked on it", DueKind.Locator, new(NotAfter: demo.Today.AddDays(171)), new(Standing.Law, "14 CFR 91.207(c), from memory")));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "Nose leg: strip and reseal", DueKind.Service, new(EveryLandings: 4000), new(Standing.Manual, "Dunlin manual 32-20, p. 7")), new LastDone(demo.Today.AddDays(-900), 3700, null, 9_880));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "Seat belts: replace webbing", DueKind.LifeLimit, new(NotAfter: demo.Today.AddMonths(31)), new(Standing.Manual, "Dunlin manual 25-10, p. 3")));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "Extinguisher: weigh", DueKind.Service, new(EveryMonths: 12), new(Standing.Manual, "label on the bottle")));
        for (var month = 24; month >= 0; month--)
            aircraft.ReadMeter(MeterKind.Landings, demo.Today.AddMonths(-month).AddDays(-1), 12_960 - month * 118, "TB");
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
        Follow(demo, aircraft, engine);
        var inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, $"{demo.Now:yy}-117", demo.Worksheet, demo.Today.AddDays(-1));
        demo.Db.Inspections.Add(inspection);

        var (ines, tamsin) = (demo.Person("ines"), demo.Person("tamsin"));
        await ArriveAsync(demo, aircraft, inspection, began, stop);
        var test = inspection.Begin(new(Guid.CreateVersion7(), engine.Id, 80, 14.7, hot: true, null, ines.Id, began.AddHours(2)));
        foreach (var (number, psi, leak) in new[] { (1, 76.0, LeakPath.None), (2, 58.0, LeakPath.ExhaustValve), (3, 75.0, LeakPath.Rings) })
            inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, number)!.Id, Reading.CompressionKind, $"{number}", psi, Unit.Psi,
                new(true, 80, 14.7, null, leak), aircraft.TimeInService, began.AddHours(2).AddMinutes(number * 4), ines.Id)
            { InspectionId = inspection.Id, CompressionTestId = test.Id });

        var pictures = await demo.PicturesAsync(DemoFindings.Today.Select((finding, index) => (finding.Picture, index)), stop);
        for (var index = 0; index < DemoFindings.Today.Length; index++)
        {
            var finding = DemoFindings.Today[index];
            var task = inspection.Tasks.FirstOrDefault(task => task.Key == finding.Task);
            var by = index % 3 == 0 ? tamsin : ines;
            var found = inspection.Find(Guid.CreateVersion7(), finding.What, finding.Zone, finding.Where, finding.Class, finding.Grounded, task, by.Id, began.AddMinutes(35 + index * 11));
            found.Add(pictures[index]);
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
