using MellowRivet.Core;
using MellowRivet.Core.Books;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Store;

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
        new("oil-temperature", "°C", 60, 118, "Dunlin manual 79-00, p. 2"),
        new("cylinder-temperature", "°C", 120, 240, "Dunlin manual 71-00, p. 6"),
        new("prop-bolt-torque", "in-lb", 280, 320, "Dunlin manual 61-10, p. 3"),
        new("aileron-cable-left", "lb", 35, 41, "Dunlin manual 27-10, p. 5"),
        new("aileron-cable-right", "lb", 35, 41, "Dunlin manual 27-10, p. 5"),
        new("elevator-cable", "lb", 30, 36, "Dunlin manual 27-30, p. 5"), new("rudder-cable", "lb", 25, 31, "Dunlin manual 27-20, p. 5"),
        new("torque-link-play", "thou", null, 60, "Dunlin manual 32-20, p. 4"),
        new("tyre-pressure", "psi", 28, 32, "Dunlin manual 32-40, p. 1"),
        new("brake-disc", "in", 0.34, null, "Dunlin manual 32-40, p. 3"), new("aileron-up-left", "°", 18, 22, "Dunlin manual 27-10, p. 2"),
        new("aileron-down-left", "°", 13, 17, "Dunlin manual 27-10, p. 2"),
        new("aileron-up-right", "°", 18, 22, "Dunlin manual 27-10, p. 2"),
        new("aileron-down-right", "°", 13, 17, "Dunlin manual 27-10, p. 2"), new("elevator-up", "°", 26, 30, "Dunlin manual 27-30, p. 2"),
        new("elevator-down", "°", 18, 22, "Dunlin manual 27-30, p. 2"), new("rudder-left", "°", 23, 27, "Dunlin manual 27-20, p. 2"),
        new("rudder-right", "°", 23, 27, "Dunlin manual 27-20, p. 2"),
    ];

    private static IEnumerable<(Subject, int)> Around => Enumerable.Range(0, 6).Select(from => (Subject.Around, from));
    private static IEnumerable<(Subject, int)> Findings => DemoFindings.Today.Select((finding, index) => (finding.Picture, index));

    public static async Task MakeAsync(DemoHistory demo, CancellationToken stop)
    {
        // Ten years are written while they are drawn.
        var drawing = demo.PicturesAsync(Around.Concat(Findings), stop);
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N04QF", "Pellworth Dunlin 2", "PD2-0318", Category.Standard,
            new(Wing.Low, Gear.NoseWheel, 1, 2));
        var engine = DemoShop.Fit(aircraft, EngineLayout.FlatFour, CompressionSchool.SixtyOfEighty, "TF4-2217", "WB-70355", new Hours(0),
            new(IgnitionKind.Magneto, IgnitionKind.Magneto), part: "TF4-160", propeller: "WP-74");
        foreach (var limit in Manual)
            aircraft.SetLimit(limit);
        aircraft.SetCableTable(new(["aileron-cable-left", "aileron-cable-right"],
            [new(-15, 26), new(0, 32), new(15, 38), new(30, 44), new(45, 50)], 3, "Dunlin manual 27-10, p. 5"));
        demo.Db.Aircraft.Add(aircraft);

        for (var test = 0; test < TestsInTheBooks; test++)
        {
            var at = demo.At(-(TestsInTheBooks - test) * 174, 15);
            var hours = new Hours(2010.4m + test * 109.6m + test * 7 % 5);
            aircraft.ReadTime(demo.Clock.DayOf(at), hours);
            if (test == NewCylinderAtTest)
                ChangeCylinderTwo(aircraft, engine, demo.Clock.DayOf(at), new Hours(hours.Value - 4.2m));
            var inspection = test % 2 == 1
                ? new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, $"{at:yy}-{(test * 3) + 14}",
                    demo.Worksheets("app-d"), demo.Clock.DayOf(at), null, DemoHistory.House)
                : null;
            if (inspection is not null)
                demo.Db.Inspections.Add(inspection);
            foreach (var place in engine.Layout.Cylinders)
                TakeOver(demo, aircraft, engine, place.Number, Held[place.Number - 1][test], hours, at, inspection);
            if (inspection is not null)
                await SignPastAsync(demo, inspection, aircraft, engine, at, test, stop);
        }
        await drawing;
        await TodayAsync(demo, aircraft, engine, stop);
    }

    private static void ChangeCylinderTwo(Aircraft aircraft, Component engine, DateOnly on, Hours at)
    {
        var old = aircraft.Cylinder(engine, 2)!;
        aircraft.TakeOff(old.Id, on, at, "low compression, exhaust valve");
        aircraft.Install(new(Guid.CreateVersion7(), ComponentKind.Cylinder, "TF4-520", "TF4-C-9941"), "2", at, new Hours(0), engine.Id, on);
    }

    // Six of the eight pictures taken, two dents pinned, one squawk still to answer.
    private static async Task ArriveAsync(DemoHistory demo, Aircraft aircraft, Inspection inspection, DateTimeOffset began,
        CancellationToken stop)
    {
        var (ines, piet) = (demo.Person("ines").Id, demo.Person("piet").Id);
        foreach (var words in new[]
            { "Pulls to the left when braking", "Radio crackles on the second box after rain",
                "Smells of fuel with full tanks in the morning" })
            inspection.Hear(Guid.CreateVersion7(), words, ines, began.AddMinutes(5));
        inspection.Answer(inspection.Squawks[0].Id,
            "Left main tyre worn through to the cord and the right brake line chafed: both on the fix list.", ines, began.AddHours(6));
        inspection.Answer(inspection.Squawks[1].Id, "Antenna base was wet; dried, resealed, no crackle with the hose on it.", ines,
            began.AddHours(6.5));
        var around = await demo.PicturesAsync(Around, stop);
        foreach (var (from, photo) in Enum.GetValues<Viewpoint>().Zip(around))
            inspection.Photograph(from, photo, piet, began.AddMinutes(12 + 2 * (int)from));
        inspection.Pin(Guid.CreateVersion7(), 262, 122, "Dent in the leading edge, a thumb wide, paint whole", piet, began.AddMinutes(28));
        inspection.Pin(Guid.CreateVersion7(), 120, 262, "Tailplane tip scraped, fresh", piet, began.AddMinutes(30));
        inspection.Note(new OnBoard("35 l left, 20 l right", "5.5 on the stick", "two headsets, tow bar, a child seat", piet,
            began.AddMinutes(34)));
        var airframe = new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Airframe, "Airframe, volume 2", demo.Written(2012, 3, 8),
            null, false);
        var engine = new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Engine, "Engine", demo.Written(2007, 9, 14), null, false);
        var propeller = new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Propeller, "Propeller", demo.Written(2015, 6, 1), null,
            false);
        demo.Db.LogBooks.AddRange(airframe, engine, propeller,
            new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.EquipmentList, $"Equipment list of {demo.Written(2021, 4, 2).Year}",
                demo.Written(2021, 4, 2), demo.Written(2021, 4, 2), false),
            new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.WeightSheet, $"Weighing of {demo.Written(2018, 2, 20).Year}",
                demo.Written(2018, 2, 20), demo.Written(2018, 2, 20), false));
        demo.Db.BookEntries.AddRange(
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, demo.Written(2012, 3, 8), new Hours(1322.4m),
                "Volume opened, totals carried over from volume 1.", "1", null, piet, began),
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, demo.Written(2013, 4, 11), new Hours(1480.9m),
                "Annual inspection. Left fuel selector seals replaced.", "4", null, piet, began),
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, demo.Written(2014, 5, 20), new Hours(1622.0m),
                "Annual inspection. Elevator trim cable replaced.", "7", null, piet, began),
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, demo.Written(2015, 6, 1), new Hours(1770.3m),
                "Annual inspection. Propeller replaced, see its book.", "11", null, piet, began),
            new BookEntry(Guid.CreateVersion7(), aircraft.Id, airframe.Id, demo.Written(2016, 5, 12), new Hours(1940.1m),
                "Annual inspection. Nose leg resealed.", "15", null, piet, began));
        inspection.Note(new BooksBrought([airframe.Id, engine.Id], "propeller book and equipment list on Thursday", ines,
            began.AddMinutes(50)));
    }

    // Marks of the first look; those of an earlier inspection had less to show.
    private static async Task MarksAsync(DemoHistory demo, Inspection inspection, Inspection? last, DateTimeOffset at,
        CancellationToken stop)
    {
        (string Zone, WitnessOf Of, WitnessAmount Amount, string Where, Subject Picture)[] marks = last is null
            ? [("engine", WitnessOf.Oil, WitnessAmount.Weep, "pushrod tube, cylinder 2", Subject.Tube),
                ("left-wing", WitnessOf.FuelDye, WitnessAmount.Weep, "sump drain", Subject.Skin),
                ("gear", WitnessOf.Hydraulic, WitnessAmount.None, "nose leg", Subject.Fitting)]
            : [("engine", WitnessOf.Oil, WitnessAmount.Wet, "pushrod tube, cylinder 2", Subject.Tube),
                ("engine", WitnessOf.Exhaust, WitnessAmount.Weep, "slip joint, right rear", Subject.Fitting),
                ("left-wing", WitnessOf.FuelDye, WitnessAmount.Weep, "sump drain", Subject.Skin)];
        var pictures = await demo.PicturesAsync(marks.Select((mark, index) => (mark.Picture, (last is null ? 300 : 320) + index)), stop);
        foreach (var (mark, index) in marks.Select((mark, index) => (mark, index)))
            Add(inspection, mark.Zone, mark.Of, mark.Amount, mark.Where, last, pictures[index], demo.Person("tamsin").Id,
                at.AddMinutes(3 * index));

        static void Add(Inspection inspection, string zone, WitnessOf of, WitnessAmount amount, string where, Inspection? last, Photo photo,
            Guid by, DateTimeOffset at)
        {
            var then = last?.WitnessMarks.FirstOrDefault(mark => mark.ZoneKey == zone && mark.Of == of);
            if (inspection.See(Guid.CreateVersion7(), zone, of, amount, where, null, then, photo, by, at) is { } refusal)
                throw new InvalidOperationException(refusal.Message);
        }
    }

    // Opened yesterday: half the panels are still off, and the tools are at the aircraft.
    private static async Task OpenUpAsync(DemoHistory demo, Inspection inspection, DateTimeOffset began, CancellationToken stop)
    {
        var (tamsin, piet) = (demo.Person("tamsin"), demo.Person("piet"));
        var last = (await demo.Db.LastSignedAsync(inspection, stop))!;
        await MarksAsync(demo, inspection, last, began.AddMinutes(60), stop);
        DemoHistory.LookAt(inspection, began.AddMinutes(55), tamsin, second: false,
            zone => zone.ZoneKey is "engine" or "propeller" or "left-wing" or "cabin" or "gear");
        inspection.Looked("left-wing", LookStep.Second, tamsin.Id, began.AddHours(6));
        inspection.Looked("right-wing", LookStep.First, piet.Id, began.AddHours(2));
        inspection.TakeZone("left-wing", tamsin.Id);
        inspection.TakeZone("engine", demo.Person("ines").Id);
        (string Zone, TagKind Kind, string What, string Hardware, bool Closed)[] tags =
        [
            ("engine", TagKind.Part, "Upper cowling", "14 quarter-turn studs stay in it", false),
            ("engine", TagKind.Part, "Lower cowling", "6 screws 10-32 × 5/8, 6 cup washers", false),
            ("cabin", TagKind.Part, "Left seat", "4 rail stops, 4 clevis pins", false),
            ("cabin", TagKind.Panel, "Floor panel, centre", "22 screws 8-32 × 1/2", false),
            ("left-wing", TagKind.Panel, "Access cover 4, aileron bellcrank", "8 screws 8-32 × 1/2", true),
            ("left-wing", TagKind.Panel, "Access cover 2, strut end", "8 screws 8-32 × 1/2", true),
            ("tail-cone", TagKind.Panel, "Aft bulkhead panel", "12 screws 6-32 × 3/8", false),
        ];
        foreach (var (tag, index) in tags.Select((tag, index) => (tag, index)))
        {
            var (made, _) = inspection.Open(tag.Zone, tag.Kind, tag.What, tag.Hardware, piet.Id, began.AddMinutes(75 + index * 8));
            if (tag.Closed)
                inspection.Close(made!.Number, true, tamsin.Id, began.AddHours(7).AddMinutes(index));
        }
        foreach (var tool in demo.Tools.Where(tool => tool.Number is "T-09" or "M-11" or "L-03" or "S-21" or "K-02"))
            inspection.TakeOut(tool, piet.Id, began.AddMinutes(70));
        inspection.BringIn(demo.Tools.Single(tool => tool.Number == "L-03").Id, null, piet.Id, began.AddHours(8));
        inspection.FindObject(Guid.CreateVersion7(), "cabin", "Hair clip under the left seat rail", null, piet.Id, began.AddHours(3));
    }

    // What is followed, and when it was last done. The engine was overhauled once, the left magneto is near its 500 h.
    private static void Follow(DemoHistory demo, Aircraft aircraft, Component engine)
    {
        var now = aircraft.TimeInService.Value;
        DemoHistory.Fly(aircraft, demo.Today.AddDays(-174), 4202.4m, demo.Today.AddDays(-1), now, 1);
        engine.WasOverhauled(new(demo.Today.AddMonths(-92), new Hours(2890.2m), "release CL-2218"));
        var locator = DemoHistory.Fit(aircraft, ComponentKind.LocatorTransmitter, "", "LT-406", "LT 30771", 3104, demo.Written(2021, 3, 1));
        DemoHistory.Fit(aircraft, ComponentKind.Battery, "", "BT-25", "0622-118", 3660, demo.Written(2022, 6, 1));
        DemoHistory.Fit(aircraft, ComponentKind.Altimeter, "left", "AL-20", "A7719", 0, null);
        DemoHistory.Fit(aircraft, ComponentKind.Pump, "", "SP-211", "P-40922", 3890, null, engine.Id, "suction pump");
        aircraft.Keep(new(Guid.CreateVersion7(), MajorKind.Repair, demo.Written(2016, 5, 12), "Left wing: leading edge skin replaced",
            "form of 2016-05-12, in the equipment list’s folder"));
        demo.Follow(aircraft, "annual", demo.Done(-348, 4095.8m, $"{demo.Today.AddDays(-348):yy}-71"));
        demo.Follow(aircraft, "hundred-hour", demo.Done(-97, 4221m, $"{demo.Today.AddDays(-97):yy}-96"));
        demo.Follow(aircraft, "altimeter", demo.Done(-640, 3925m, "26-A at Tollerby Instruments"));
        demo.Follow(aircraft, "transponder", demo.Done(-702, 3880m, "26-A at Tollerby Instruments"));
        demo.Follow(aircraft, "locator", demo.Done(-348, 4095.8m, "annual"));
        demo.Follow(aircraft, "magneto", demo.Done(-480, 3861.2m, "bench sheet 40"), demo.Done(-840, 3830.5m, "bench sheet 31"));
        foreach (var what in new[] { "oil", "plugs" })
            demo.Follow(aircraft, what, demo.Done(-24, 4296.4m, "oil change"));
        demo.Follow(aircraft, "quick-drain", demo.Done(-1190, 3610m, "annual"));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), null, engine.Id, "Overhaul", DueKind.Overhaul,
            new(2000, 144, CalendarRule.SameDay), new(Standing.Manual, "TF4 service letter 9, p. 2")),
            new LastDone(demo.Today.AddMonths(-92), 2890.2m, null, null, null, "release CL-2218"));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), null, locator.Id, "Battery: replace by the date marked on it",
            DueKind.Locator, new(NotAfter: demo.Today.AddDays(171)), new(Standing.Law, "14 CFR 91.207(c), from memory")));
        DueItem leg = new(Guid.CreateVersion7(), aircraft.Id, null, "Nose leg: strip and reseal", DueKind.Service, new(EveryLandings: 4000),
            new(Standing.Manual, "Dunlin manual 32-20, p. 7"));
        demo.Follow(aircraft, leg, new LastDone(demo.Today.AddDays(-900), 3700, null, 9_880));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "Seat belts: replace webbing", DueKind.LifeLimit,
            new(NotAfter: demo.Today.AddMonths(31)), new(Standing.Manual, "Dunlin manual 25-10, p. 3")));
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "Extinguisher: weigh", DueKind.Service,
            new(EveryMonths: 12), new(Standing.Manual, "label on the bottle")));
        for (var month = 24; month >= 0; month--)
            aircraft.ReadMeter(MeterKind.Landings, demo.Today.AddMonths(-month).AddDays(-1), 12_960 - month * 118, "TB");
    }

    private static void TakeOver(DemoHistory demo, Aircraft aircraft, Component engine, int number, double psi, Hours hours,
        DateTimeOffset at, Inspection? inspection)
    {
        var reading = new Reading(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, number)!.Id, Reading.CompressionKind,
            $"{number}", psi, Unit.Psi, new(true, 80, 14.7, Leak: psi < 72 ? LeakPath.ExhaustValve : LeakPath.None), hours,
            at.AddMinutes(number), demo.Person("ines").Id)
        { InspectionId = inspection?.Id };
        if (inspection is null)
            demo.Db.Readings.Add(reading);
        else
            inspection.Record(reading);
    }

    private static async Task SignPastAsync(DemoHistory demo, Inspection inspection, Aircraft aircraft, Component engine, DateTimeOffset at,
        int test, CancellationToken stop)
    {
        foreach (var (what, zone, done) in DemoFindings.Past[(test / 2 % DemoFindings.Past.Length)..].Take(2))
            inspection.Find(Guid.CreateVersion7(), what, zone, "", DiscrepancyClass.Recommended, false, null, demo.Person("ines").Id, at)
                .Correct(new(done), inspection.Terms, demo.Person("ines").Id, at.AddHours(5));
        demo.AnswerAll(inspection, aircraft, at, demo.Person("ines"), test, value: task => DemoAnswers.Worn(task, test));
        if (test >= 9)
            DemoEngineStation.Past(demo, aircraft, engine, inspection, test, at);
        if (test == TestsInTheBooks - 2)
        {
            await MarksAsync(demo, inspection, null, at.AddHours(-6), stop);
            await DemoFixList.LastYearAsync(demo, inspection, at, stop);
        }
        DemoHistory.LookAt(inspection, at.AddHours(-6), demo.Person("ines"), second: true);
        DemoHistory.InspectAll(inspection, at.AddHours(7), demo.Person("orla"));
        await demo.SignAsync(inspection, aircraft, demo.Person("orla"), at.AddHours(8), stop);
    }

    // The annual in progress: most of the engine and the left side done, the rest still to look at, one cylinder still to read.
    private static async Task TodayAsync(DemoHistory demo, Aircraft aircraft, Component engine, CancellationToken stop)
    {
        var began = demo.At(-1, 8);
        aircraft.ReadTime(demo.Today.AddDays(-1), new Hours(4318.6m));
        Follow(demo, aircraft, engine);
        var inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, $"{began:yy}-117",
            demo.Worksheets("app-d", "lubrication"), demo.Today.AddDays(-1), await demo.Db.TasksDoneAsync(aircraft.Id, demo.Clock, stop),
            DemoHistory.House, await demo.Db.KnownMarksAsync(aircraft.Id, stop));
        demo.Db.Inspections.Add(inspection);

        var (ines, tamsin) = (demo.Person("ines"), demo.Person("tamsin"));
        await ArriveAsync(demo, aircraft, inspection, began, stop);
        await OpenUpAsync(demo, inspection, began, stop);
        var test = inspection.Begin(new(Guid.CreateVersion7(), engine.Id, 80, 14.7, hot: true, null, ines.Id, began.AddHours(2)));
        foreach (var (number, psi, leak) in new[] { (1, 76.0, LeakPath.None), (2, 58.0, LeakPath.ExhaustValve), (3, 75.0, LeakPath.Rings) })
            inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, number)!.Id, Reading.CompressionKind,
                $"{number}", psi, Unit.Psi,
                new(true, 80, 14.7, null, leak), aircraft.TimeInService, began.AddHours(2).AddMinutes(number * 4), ines.Id)
            { InspectionId = inspection.Id, CompressionTestId = test.Id });

        var pictures = await demo.PicturesAsync(Findings, stop);
        for (var index = 0; index < DemoFindings.Today.Length; index++)
        {
            var finding = DemoFindings.Today[index];
            var task = inspection.Tasks.FirstOrDefault(task => task.Key == finding.Task);
            var by = index % 3 == 0 ? tamsin : ines;
            var found = inspection.Find(Guid.CreateVersion7(), finding.What, finding.Zone, finding.Where, finding.Class, finding.Grounded,
                task, by.Id, began.AddMinutes(35 + index * 11));
            found.Add(pictures[index]);
            if (finding.Done is { } done)
                found.Correct(new(done), inspection.Terms, ines.Id, began.AddHours(7).AddMinutes(index));
        }
        await DemoFixList.TodayAsync(demo, inspection, began, stop);
        DemoPrices.Today(demo, inspection, began);
        await DemoPrices.BookedAsync(demo, aircraft.Id, aircraft.Type, stop);
        DemoEngineStation.Today(demo, aircraft, engine, inspection, began);
        await demo.LogAsync("engine-log-four.csv", aircraft.Id, engine.Id, began, stop);
        foreach (var (zone, by) in new[] { ("run", ines), ("propeller", ines), ("left-wing", tamsin) })
            demo.AnswerAll(inspection, aircraft, began.AddHours(3), by, 23, task => task.ZoneKey == zone);
        demo.AnswerAll(inspection, aircraft, began.AddHours(4), ines, 23, task => task.ZoneKey == "engine"
            && task.Key.CompareTo("engine-m") < 0 && !task.IsCompression);
        DemoAnswers.Today(demo, aircraft, engine, inspection, began);
        demo.AnswerAll(inspection, aircraft, began.AddHours(5), tamsin, 23, task => task.ZoneKey is "cabin" or "gear"
            && task.Order % 3 != 0, DemoAnswers.Worn);
        DemoAnswers.SetAside(demo, aircraft, inspection, began);
        inspection.CarryIn(await demo.Db.OpenItemsAsync(aircraft.Id, stop));
        inspection.AnswerFromSheets(aircraft);
        inspection.Remember(aircraft);
        await demo.Db.SaveChangesAsync(stop);
    }
}
