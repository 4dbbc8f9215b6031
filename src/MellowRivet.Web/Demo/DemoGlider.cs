using MellowRivet.Core.Books;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Web.Demo;

/// <summary>
/// The folding-wing motor glider: for sale, with nothing in its books from 2009 to 2016 and an engine whose time nobody knows.
/// </summary>
internal static class DemoGlider
{
    private static readonly (string On, decimal? Hours, string Text)[] Entries =
    [
        ("1998-05-30", 0, "First flight after completion. Weighed, rigged, all controls to stops."),
        ("1999-06-12", 61.4m, "Yearly inspection. Tail wheel fork bush replaced."),
        ("2000-06-24", 92.0m, "Yearly inspection. Radio fitted, weighed again."),
        ("2001-05-20", 118.9m, "Yearly inspection. Left wing fold pin polished, lock adjusted."),
        ("2002-07-02", 151.2m, "Engine top end inspected, rings replaced, both cylinders measured."),
        ("2003-06-28", 182.0m, "Yearly inspection. Gear oil changed."),
        ("2004-08-15", 203.7m, "Outlanding, tail boom scratched, ground out and painted."),
        ("2005-06-19", 231.5m, "Yearly inspection. New propeller fitted, track 2 mm."),
        ("2006-07-08", 262.3m, "Yearly inspection. Fuel hoses replaced."),
        ("2007-06-30", 290.8m, "Yearly inspection. Canopy hinge replaced."),
        ("2008-07-12", 311.6m, "Yearly inspection. Right aileron push rod end replaced."),
        ("2009-04-25", 318.2m, "Yearly inspection. No findings."),
        ("2016-09-17", 309.4m, "Taken out of the barn. Cleaned, fuel system flushed, new hoses, test flown 0.6 h."),
        ("2017-09-02", 327.5m, "Yearly inspection. Drive belt replaced."),
        ("2018-08-25", 341.2m, "Yearly inspection. Rudder cable replaced, left."),
        ("2019-05-11", 352.0m, "Yearly inspection. Wing fold lock springs replaced, both sides."),
        ("2020-08-01", 366.9m, "Yearly inspection."),
        ("2021-07-24", 383.1m, "Yearly inspection. Carburettor rebuilt."),
        ("2022-09-10", 398.8m, "Yearly inspection. Spar root inspected, no findings."),
        ("2023-08-26", 411.2m, "Yearly inspection. Battery replaced."),
        ("2024-09-07", 424.7m, "Yearly inspection."),
        ("2025-09-20", 437.3m, "Yearly inspection. Tyre replaced. Offered for sale."),
    ];

    public static async Task MakeAsync(DemoHistory demo, CancellationToken stop)
    {
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0FLD", "Lindqvale Tarn M", "LT-12", Category.ExperimentalAmateurBuilt,
            new(Wing.Low, Gear.TailWheel, 1, 2, FoldingWing: true)) { TimeBasis = MeterKind.HourMeter };
        demo.Db.Aircraft.Add(aircraft);
        DemoShop.Fit(aircraft, EngineLayout.InlineTwoStroke, CompressionSchool.QuarterDrop, "TS2-0419", "52-1107", ownTime: null,
            new(IgnitionKind.HighEnergy, IgnitionKind.HighEnergy), propeller: "WP-52");

        // The hour meter was replaced in the barn: it began at zero again.
        aircraft.ReadMeter(MeterKind.HourMeter, demo.Written(2008, 7, 12), 311.6m, "from the books");
        aircraft.ReadMeter(MeterKind.HourMeter, demo.Written(2009, 4, 25), 318.2m, "from the books");
        aircraft.ReadMeter(MeterKind.HourMeter, demo.Written(2017, 9, 2), 18.1m, "from the books", new(319.8m, 0));
        foreach (var (on, total) in new[] { ("2024-09-07", 424.7m), ("2025-09-20", 437.3m), ("2026-05-02", 441m), ("2026-10-11", 449.6m) })
            aircraft.ReadMeter(MeterKind.HourMeter, demo.Moved(DateOnly.ParseExact(on, "yyyy-MM-dd")), total - 319.8m + 10.4m,
                "from the books");

        var book = new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Airframe, "Airframe logbook", demo.Written(1998, 5, 30), null,
            false);
        var one = new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Engine, "Engine logbook, first engine",
            demo.Written(1998, 5, 30), demo.Written(2006, 7, 8), true);
        demo.Db.LogBooks.AddRange(book, one,
            new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.WeightSheet, "Weighing at completion", demo.Written(1998, 5, 28),
                demo.Written(1998, 5, 28), false),
            new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Drawings, "Builder’s drawings, 41 sheets", demo.Written(1993, 2, 1),
                demo.Written(1998, 4, 1), false));
        foreach (var (on, hours, text) in Entries)
            demo.Db.BookEntries.Add(
                new(Guid.CreateVersion7(), aircraft.Id, book.Id, demo.Moved(DateOnly.ParseExact(on, "yyyy-MM-dd")), hours is { } known
                    ? new Hours(known)
                    : null, text, "", null, demo.Person("piet").Id, demo.Now.AddDays(-6)));
        demo.Db.BookEntries.Add(
            new(Guid.CreateVersion7(), aircraft.Id, book.Id, null, null, "", "38", await demo.PictureAsync(Subject.Page, 3, stop),
                demo.Person("piet").Id, demo.Now.AddDays(-6)));

        demo.Follow(aircraft, "condition", new LastDone(demo.Written(2025, 9, 20), 437.3m, null, null, null, "airframe logbook"));
        demo.Follow(aircraft, "gearbox-oil");
        demo.Follow(aircraft, "engine-overhaul");
        demo.Follow(aircraft, new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "Wing fold pins: measure for wear", DueKind.Service,
            new(100, 24, CalendarRule.SameDay), new(Standing.Manual, "builder’s drawings, sheet 29")),
            new LastDone(demo.Written(2019, 5, 11), 352.0m, null, null, null, "airframe logbook"));
        await demo.Db.SaveChangesAsync(stop);
    }
}
