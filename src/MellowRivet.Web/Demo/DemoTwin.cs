using MellowRivet.Core.Books;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Demo;

/// <summary>The light twin: its annual is completed as unairworthy with a list; the seals of a main leg are seven weeks away.</summary>
internal static class DemoTwin
{
    private static readonly int[][] Left = [[77], [76], [75], [78], [77], [76]];
    private static readonly int[][] Right = [[76], [74], [77], [76], [73], [77]];

    private static readonly (string What, string Zone, string Where, DiscrepancyClass Class, Subject Picture, string? Done)[] Found =
    [
        ("Right main leg: seals weep, down to the second ring by the morning; seal kit ordered, seven weeks", "gear", "right main",
            DiscrepancyClass.Airworthiness, Subject.Fitting, null),
        ("Hydraulic power pack: fluid a hand below the mark, dark", "gear", "nose bay", DiscrepancyClass.Recommended, Subject.Hose, null),
        ("Left cowl flap hinge worn, rattles by hand", "engine-left", "lower", DiscrepancyClass.Watch, Subject.Fitting, null),
        ("Nose locker seal parted at the corner", "cabin", "nose locker", DiscrepancyClass.Recommended, Subject.Cloth,
            "Seal bonded, water test dry."),
        ("Right alternator belt cracked across", "engine-right", "", DiscrepancyClass.Airworthiness, Subject.Hose,
            "Belt replaced, tension set and set again after the run."),
        ("Left main tyre cut across the shoulder, cord in sight", "gear", "left main, outside", DiscrepancyClass.Airworthiness,
            Subject.Tyre, null),
        ("Scratch along the left wing walk, in the paint alone", "left-wing", "walk", DiscrepancyClass.KnownMark, Subject.Skin, null),
    ];

    public static async Task MakeAsync(DemoHistory demo, CancellationToken stop)
    {
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0TWQ", "Ostrand Corrin 6", "OC6-0077", Category.Standard,
            new(Wing.Low, Gear.NoseWheel, 2, 6, Retractable: true));
        demo.Db.Aircraft.Add(aircraft);
        Ignition two = new(IgnitionKind.Magneto, IgnitionKind.Magneto);
        var left = DemoShop.Fit(aircraft, EngineLayout.FlatSix, CompressionSchool.OrificeOfTheDay, "SF6-3140", "WB-81220", new Hours(0),
            two, "left", "SF6-260", "WP-76C");
        var right = DemoShop.Fit(aircraft, EngineLayout.FlatSix, CompressionSchool.OrificeOfTheDay, "SF6-3092", "WB-81221", new Hours(0),
            two, "right", "SF6-260", "WP-76C");

        var came = demo.Today.AddDays(-19);
        aircraft.InstallPlugs(left, "QK-18M", 301, new Hours(0), null);
        aircraft.InstallPlugs(right, "QK-18M", 321, new Hours(0), null);
        aircraft.ReadTime(demo.Today.AddDays(-390), new Hours(5102.7m), "IC");
        aircraft.ReadTime(came, new Hours(5187.3m), "IC");
        DemoHistory.Fly(aircraft, demo.Today.AddDays(-390), 5102.7m, came, 5187.3m, 5);
        foreach (var engine in new[] { left, right })
            engine.WasOverhauled(new(demo.Today.AddMonths(engine == left ? -70 : -131), new Hours(engine == left ? 4210 : 3608),
                engine == left ? "release CL-1877" : "release CL-1203"));
        demo.Follow(aircraft, "annual", demo.Done(-391, 5102.7m, "at Tollerby"));
        demo.Follow(aircraft, "altimeter", demo.Done(-560, 5060, "Tollerby Instruments"));
        demo.Follow(aircraft, "transponder", demo.Done(-560, 5060, "Tollerby Instruments"));
        demo.Follow(aircraft, "locator", demo.Done(-19, 5187.3m, "annual"));
        demo.Follow(aircraft, "magneto", demo.Done(-1400, 4702, "bench sheets 3 to 6"));
        foreach (var (engine, then) in new[] { (left, 4210m), (right, 3608m) })
            demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), null, engine.Id, "Overhaul", DueKind.Overhaul,
                new(1700, 144, CalendarRule.SameDay), new(Standing.Manual, "SF6 service letter 4, p. 1")),
                demo.Done(engine == left ? -70 * 30 : -131 * 30, then, "release"));

        var at = demo.At(-19, 9);
        var inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, $"{at:yy}-111",
            demo.Worksheets("app-d", "retractable", "twin"), came, null, DemoHistory.House);
        demo.Db.Inspections.Add(inspection);
        foreach (var (engine, held) in new[] { (left, Left), (right, Right) })
        {
            var test = inspection.Begin(
                new(Guid.CreateVersion7(), engine.Id, 80, 14.6, hot: true, 52, demo.Person("ines").Id, at.AddHours(1)));
            foreach (var place in engine.Layout.Cylinders)
                inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, aircraft.Cylinder(engine, place.Number)!.Id,
                    Reading.CompressionKind, $"{place.Number}", held[place.Number - 1][0], Unit.Psi,
                    new(true, 80, 14.6, 52, LeakPath.None), aircraft.TimeInService, at.AddHours(1)
                        .AddMinutes(place.Number * 4), demo.Person("ines").Id)
                { InspectionId = inspection.Id, CompressionTestId = test.Id });
        }
        inspection.Hear(Guid.CreateVersion7(), "Right wheel light takes its time on the way down", demo.Person("orla").Id, at);
        inspection.Answer(inspection.Squawks[0].Id, "The right leg is slow on weeping seals: on the list, seal kit ordered.",
            demo.Person("ines").Id, at.AddHours(6));
        for (var index = 0; index < Found.Length; index++)
        {
            var (what, zone, where, @class, picture, done) = Found[index];
            var found = inspection.Find(Guid.CreateVersion7(), what, zone, where, @class, false, null, demo.Person("ines").Id,
                at.AddHours(2)
                .AddMinutes(index * 17));
            found.Add(await demo.PictureAsync(picture, 60 + index, stop));
            if (done is not null)
                found.Correct(new(done), inspection.Terms, demo.Person("ines").Id, at.AddDays(2));
            if (index == 0)
                DemoPrices.Seals(demo, inspection, found, at.AddHours(2));
        }
        demo.AnswerAll(inspection, aircraft, at.AddHours(4), demo.Person("ines"), 31);
        DemoHistory.LookAt(inspection, at, demo.Person("tamsin"), second: true);
        DemoHistory.InspectAll(inspection, at.AddDays(2).AddHours(-1), demo.Person("orla"));
        demo.Db.LogBooks.AddRange(
            new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Airframe, "Airframe, volume 3", demo.Written(2014, 5, 2), null, false),
            new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Engine, "Left engine", demo.Written(2021, 1, 11), null, false),
            new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.WeightSheet, $"Weighing of {demo.Written(2019, 8, 8).Year}",
                demo.Written(2019, 8, 8), demo.Written(2019, 8, 8), false));
        // What signing does to the due line is done to what is kept.
        await demo.Db.SaveChangesAsync(stop);
        await demo.SignAsync(inspection, aircraft, demo.Person("orla"), at.AddDays(2), stop);
        // One line of the list is put right while the seals are on their way.
        var tyre = (await demo.Db.OpenItems.Where(item => item.AircraftId == aircraft.Id).ToListAsync(stop))
            .Single(item => item.What.StartsWith("Left main tyre", StringComparison.Ordinal));
        var (ines, rules) = (demo.Person("ines"), demo.Shelf.Weigh(aircraft.Category, demo.ById, demo.Clock));
        Desk.Clear(demo.Db, tyre, aircraft, rules,
            new("Tyre and tube changed, wheel balanced, pressure set.", CorrectionKind.Replaced, "Corrin manual 32-40, p. 6",
                [new("TY-600-8", "", "K 55120")]), new(ines, rules.Pack.MayClear(ines, aircraft, demo.Today).By!), demo.At(-12, 14),
                demo.Today.AddDays(-12));
        await demo.Db.SaveChangesAsync(stop);
        // And a job by itself, between inspections.
        var taken = demo.At(-8, 10);
        var (job, _) = new TypedJob("Battery replaced", "airframe", null, null).Begin(Guid.CreateVersion7(), aircraft, $"{taken:yy}-112",
            DemoHistory.House with { AskFirst = false }, preventive: false, ines.Id, demo.Today.AddDays(-8), taken);
        job!.JobLine!.Correct(new("New one fitted, terminals greased, charging checked at cruise rpm.", CorrectionKind.Replaced,
            "Corrin manual 24-30, p. 2", [new("BT-35", "0522-417", "1125-090")]), job.Terms, ines.Id, taken.AddHours(1));
        demo.Db.Inspections.Add(job);
        await demo.SignAsync(job, aircraft, ines, taken.AddHours(1.5), stop);
    }
}
