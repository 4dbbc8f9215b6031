using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Surveys;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Demo;

/// <summary>
/// Two surveys: a four-seater that was never here, looked at and talked about; and the motor glider, half way through. Invented findings
/// and prices.
/// </summary>
internal static class DemoSurveys
{
    private sealed record Seen(string What, string Plain, string Zone, string Where, DiscrepancyClass Class, string Task, Subject Picture,
        Spread Cost, bool SellerPays = false, bool Hidden = false);

    private static readonly Seen[] OnTheTourer =
    [
        new("Right fuel tank: blue stains along the rear seam, wet after a night full", "The right fuel tank leaks along its rear seam.",
            "right-wing", "rear seam, ribs 2 to 4", DiscrepancyClass.Airworthiness, "sy-rw-tank", Subject.Skin, new(900, 1_700, 3_200),
            true),
        new("Left door post: crack of 14 mm at the lower hinge", "The post of the left door is cracked where the lower hinge sits.",
            "cabin", "left, lower hinge", DiscrepancyClass.Airworthiness, "sy-posts", Subject.Fitting, new(1_400, 2_300, 4_500)),
        new("Muffler: inner cone burnt through, loose in the can", "The inside of the muffler is burnt through.", "engine",
            "right muffler", DiscrepancyClass.Airworthiness, "sy-exhaust", Subject.Tube, new(480, 720, 1_100), Hidden: true),
        new("Two patches under the belly, no entry tells of them", "Two patches under the belly that no book tells of.", "tail-cone",
            "belly, behind the step", DiscrepancyClass.Recommended, "sy-untold", Subject.Skin, new(300, 1_100, 4_000), Hidden: true),
        new("Nose leg weeps, dust ring fresh", "The nose leg loses fluid.", "gear", "nose leg", DiscrepancyClass.Recommended, "sy-legs",
            Subject.Hose, new(250, 380, 700)),
    ];

    private static readonly Seen[] OnTheGlider =
    [
        new("Left wing fold: front pin worn, 0.3 mm play with the lock in", "The pin that holds the left wing out is worn.", "left-wing",
            "front pin", DiscrepancyClass.Airworthiness, "sy-lw-fold", Subject.Fitting, new(260, 420, 800)),
        new("Crankshaft: hub rocks by hand, outer seal wet", "The bearing behind the propeller has play, and its seal leaks.", "engine",
            "propeller end", DiscrepancyClass.Airworthiness, "sy-crank", Subject.Tube, new(1_300, 1_900, 3_100)),
        new("Fuel lines stamped eight years ago, stiff", "The fuel hoses are too old.", "engine", "tank to pump",
            DiscrepancyClass.Recommended, "sy-fuel-two", Subject.Hose, new(140, 210, 320)),
    ];

    public static async Task MakeAsync(DemoHistory demo, CancellationToken stop)
    {
        await TourerAsync(demo, stop);
        await GliderAsync(demo, stop);
    }

    private static async Task TourerAsync(DemoHistory demo, CancellationToken stop)
    {
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0ARD", "Dunlin 4", "PD4-0208", Category.Standard,
            new(Wing.Low, Gear.NoseWheel, 1, 4));
        aircraft.ForSurvey();
        aircraft.ReadTime(demo.Today.AddDays(-9), new Hours(3_812.4m));
        var engine = DemoShop.Fit(aircraft, EngineLayout.FlatFour, CompressionSchool.SixtyOfEighty, "TF4-2290", "WP-74-611", null,
            new(IgnitionKind.Magneto, IgnitionKind.Magneto), part: "TF4-180", propeller: "WP-74");
        demo.Db.Aircraft.Add(aircraft);
        var overhaul = new DueItem(Guid.CreateVersion7(), null, engine.Id, "Overhaul", DueKind.Overhaul, new(EveryHours: 2_000),
            new(Standing.Manual, "engine manual 5-1"));
        demo.Follow(aircraft, overhaul);
        var annual = new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "Annual inspection", DueKind.Inspection, new(EveryMonths: 12),
            new(Standing.Law, "14 CFR 91.409(a), from memory"));
        demo.Follow(aircraft, annual, new LastDone(demo.Today.AddDays(-300), 3_770m, null, null, null, "airframe logbook"));
        var at = demo.At(-9, 9);
        var survey = Begin(demo, aircraft, new("Berit Halloran", "a tourer for four, from short grass", 52_000, 9_000, 6,
            "cowls, shrouds, inspection panels, one plug a cylinder", new(61_000, "three adverts of this month, hours alike"), 500), at,
            "-115", "survey", "survey-metal");
        await FindAsync(demo, survey, OnTheTourer, at, stop);
        foreach (var (number, held) in new[] { (1, 76), (2, 74), (3, 71), (4, 77) })
            survey.Record(DemoOthers.Compression(demo, aircraft, engine, number, held, 80, at.AddHours(2), survey));
        demo.AnswerAll(survey, aircraft, at.AddHours(4), demo.Person("ines"), 3, only: task => task.Key != "sy-flight");
        survey.Say(new PowerSaid(engine.Id, 1_500, null, new(26_000, 30_000, 35_000), null));
        survey.Say(annual.Id, new(1_900, 2_400, 3_300));
        survey.Hold("own-tank", "left tank inside: sealed, and not opened", 600);
        if (survey.EndSurvey(aircraft, "no flight: the seller’s insurance ended last week", demo.Person("ines").Id, at.AddHours(6))
            is { } wrong)
            throw new InvalidOperationException(wrong.Message);
        demo.Db.Inspections.Add(survey);
        await demo.Db.SaveChangesAsync(stop);
    }

    private static async Task GliderAsync(DemoHistory demo, CancellationToken stop)
    {
        var aircraft = await demo.Db.Aircraft.WithParts().SingleAsync(row => row.Registration == "N0FLD", stop);
        var engine = aircraft.Engines.Single().Component;
        var at = demo.Now.AddMinutes(-200);
        var survey = Begin(demo, aircraft, new("Tove Marchbank", "soaring from grass, folded among others in a hangar", 24_500, 5_000, 5,
            "cowl, exhaust at the port, inspection rings", new(28_000, "two sales of the type this year, by the club")), at, "-120",
            "survey",
            "survey-metal", "survey-two-stroke");
        await FindAsync(demo, survey, OnTheGlider, at, stop);
        string[] done = ["sy-totals", "sy-holes", "sy-damage", "sy-signers", "sy-life", "sy-rw-fold", "sy-firewall", "sy-pistons"];
        foreach (var task in survey.Walk.Where(task => done.Contains(task.Key)))
            survey.Answer(task, TaskVerdict.Good, null, null, demo.Person("ines").Id, at.AddHours(1));
        survey.Say(new PowerSaid(engine.Id, 190, 300, new(3_600, 4_400, 5_400), null));
        survey.Offer(new(Guid.CreateVersion7(), "Engine: overhaul, or another power unit", null,
        [
            new("Overhauled by the maker’s shop", AlternativeKind.Overhaul, Estimate.Of(9, 4_400), 300, 50, []),
            new("A new power unit with its propeller", AlternativeKind.Replace, Estimate.Of(16, 9_800), 600, 70, []),
        ]));
        demo.Db.Inspections.Add(survey);
        await demo.Db.SaveChangesAsync(stop);
    }

    private static Inspection Begin(DemoHistory demo, Aircraft aircraft, SurveyTerms terms, DateTimeOffset at, string order,
        params string[] sheets) => new(Guid.CreateVersion7(), aircraft, $"{demo.Today:yy}{order}", demo.Worksheets(sheets),
            new Survey(terms, demo.Shelf.Surveys), demo.Clock.DayOf(at), DemoHistory.House);

    private static async Task FindAsync(DemoHistory demo, Inspection survey, IReadOnlyList<Seen> seen, DateTimeOffset at,
        CancellationToken stop)
    {
        var by = demo.Person("ines").Id;
        var photos = await demo.PicturesAsync(seen.Select((one, index) => (one.Picture, 40 + index)), stop);
        foreach (var (one, index) in seen.Select((one, index) => (one, index)))
        {
            var task = survey.Walk.Single(task => task.Key == one.Task);
            var found = survey.Find(Guid.CreateVersion7(), one.What, one.Zone, one.Where, one.Class, false, task, by,
                at.AddMinutes(50 + (index * 11)));
            found.Describe(one.What, one.Plain, found.Place, FoundHow.Visual, null, by, at.AddMinutes(51 + (index * 11)));
            found.Add(photos[index]);
            found.Expect(new([], [new(Estimate.PartsAtOnce, "", 1, "", one.Cost, null, false)]), survey.Terms, by, at.AddHours(3));
            survey.Mark(new(found.Number, one.SellerPays, one.Hidden, false));
        }
    }
}
