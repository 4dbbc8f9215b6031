using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using static MellowRivet.Core.Discrepancies.DiscrepancyClass;

namespace MellowRivet.Web.Demo;

/// <summary>
/// What the trainer's fix list has beyond words and a photo: last year's at the same places, pins, sizes on photos, prices, steps,
/// the owner's questions, a sound.
/// </summary>
internal static class DemoFixList
{
    private static readonly Dictionary<string, Pin> Pins = new()
    {
        ["Alternator bracket"] = new(141, 78), ["Spinner backplate"] = new(150, 45), ["Leading edge nick"] = new(118, 43),
        ["Left seat rail"] = new(143, 140), ["Stall warning"] = new(96, 117),
        ["Paint blisters"] = new(70, 140), ["Left main tyre"] = new(107, 145), ["Tip light lens"] = new(282, 133),
        ["Tailplane tip rib"] = new(96, 258), ["Right brake line"] = new(193, 145),
    };

    // What it is expected to cost: hours, parts, and in how many days the parts come.
    private static readonly (string Words, decimal Hours, decimal Parts, int? Days, Disposition To)[] Expected =
    [
        ("Alternator bracket", 2.5m, 240, null, Disposition.Approved), ("Left main tyre", 1, 185, null, Disposition.Approved),
        ("Right brake line", 1.5m, 60, 12, Disposition.PartsAwaited),
        ("Left seat rail", 6, 410, null, Disposition.Asked), ("Stall warning", 1, 0, null, Disposition.Asked),
        ("Static drain cap", 0.3m, 14, null, Disposition.InWork),
        ("Engine mount bushing", 5, 330, 21, Disposition.Asked), ("Air box seal", 1, 35, null, Disposition.Asked),
        ("Door seal", 1.5m, 48, null, Disposition.Declined),
        ("Wing walk coating", 3, 40, null, Disposition.Asked), ("Tip light lens", 0.5m, 28, null, Disposition.Approved),
    ];

    /// <summary>The annual before: the same places a year earlier, a repair, and two known marks.</summary>
    public static async Task LastYearAsync(DemoHistory demo, Inspection inspection, DateTimeOffset at, CancellationToken stop)
    {
        var (ines, orla) = (demo.Person("ines").Id, demo.Person("orla").Id);
        (string What, string Zone, string Where, DiscrepancyClass Class, Subject Picture, int Seed)[] earlier =
        [
            ("Alternator bracket cracked at the lower ear", "engine", "lower left, behind the baffle", Airworthiness, Subject.Fitting, 400),
            ("Spinner backplate: hairline at one screw hole, stop-drilled", "propeller", "screw 7", Watch, Subject.Fitting, 405),
            ("Lower skin dent, 40 mm across, 3 mm deep, smooth", "right-wing", "between ribs 9 and 10", DiscrepancyClass.KnownMark,
                Subject.Skin, 402),
            ("Line beside the third rivet of the left gear leg fairing, looks like a crack", "gear", "left leg, outside",
                DiscrepancyClass.KnownMark,
                Subject.Fitting, 403),
            ("Wing walk coating worn at the root", "right-wing", "root", Recommended, Subject.Cloth, 404),
            ("Baggage door hinge pin worn, rattles on the roll", "cabin", "baggage door, upper hinge", Recommended, Subject.Fitting, 406),
        ];
        var pictures = await demo.PicturesAsync(earlier.Select(find => (find.Picture, find.Seed)), stop);
        foreach (var (find, photo) in earlier.Zip(pictures))
        {
            var pin = Pins.FirstOrDefault(pin => find.What.StartsWith(pin.Key, StringComparison.Ordinal)).Value
                ?? (find.Zone == "right-wing" && find.Class == DiscrepancyClass.KnownMark ? new Pin(232, 140) : null);
            var found = inspection.Find(Guid.CreateVersion7(), find.What, find.Zone, find.Where, find.Class, false, null, ines, at, pin);
            found.Add(photo);
            if (find.What.StartsWith("Spinner", StringComparison.Ordinal))
                Draw(found, 150);
        }
        var (bracket, plate, dent, line, walk, hinge) = (inspection.Discrepancies[^6], inspection.Discrepancies[^5],
            inspection.Discrepancies[^4], inspection.Discrepancies[^3], inspection.Discrepancies[^2], inspection.Discrepancies[^1]);
        bracket.Correct(new("Crack ends stop-drilled, ear welded by the shop next door, dressed and painted.", CorrectionKind.Repaired,
            "weld sheet 12"), inspection.Terms, ines, at.AddHours(4));
        plate.Correct(new("Ends of the hairline stop-drilled, looked at with the glass after the run.", CorrectionKind.Adjusted,
            "spinner sheet 2"), inspection.Terms, ines, at.AddHours(4));
        walk.Correct(new("Edges glued down, touched up.", CorrectionKind.Adjusted, "paint sheet 4"), inspection.Terms, ines,
            at.AddHours(5));
        // What the owner declined stays with the aircraft.
        hinge.Move(Disposition.Asked, null, inspection.Terms, ines, at.AddHours(2));
        hinge.Move(Disposition.Declined, "it has rattled for years", inspection.Terms, null, at.AddHours(3));
        dent.Examine(new(FoundHow.Measurement,
            "3 mm deep over 40 mm, ribs and lap straight, inside looked at through cover 5; same as in the 2019 entry", ines,
            demo.Clock.DayOf(at), null), demo.Clock.DayOf(at), new(DiscrepancyClass.KnownMark, false, ines, at), demo.Shelf.Classes);
        line.Examine(new(FoundHow.DyePenetrant, "no indication: a scratch in the paint, 11 mm", orla, demo.Clock.DayOf(at),
            demo.Today.AddDays(400)), demo.Clock.DayOf(at), new(DiscrepancyClass.KnownMark, false, orla, at), demo.Shelf.Classes);
    }

    /// <summary>The annual in progress.</summary>
    public static async Task TodayAsync(DemoHistory demo, Inspection inspection, DateTimeOffset began, CancellationToken stop)
    {
        var (ines, tamsin) = (demo.Person("ines").Id, demo.Person("tamsin").Id);
        foreach (var found in inspection.Discrepancies)
            if (Pins.FirstOrDefault(pin => found.What.StartsWith(pin.Key, StringComparison.Ordinal)).Value is { } pin)
                found.Describe(found.What, null, found.Place with { Pin = pin }, found.How, null, found.FoundBy, began);
        Draw(Of(inspection, "Spinner"), 196);
        foreach (var (words, hours, parts, days, to) in Expected)
        {
            var found = Of(inspection, words);
            found.Expect(Estimate.Of(hours, parts, days is { } later ? demo.Today.AddDays(later) : null), inspection.Terms, ines,
                began.AddHours(4));
            if (to == Disposition.InWork)
                found.Move(to, null, inspection.Terms, ines, began.AddHours(7));
            else
                found.Move(Disposition.Asked, null, inspection.Terms, ines, began.AddHours(5));
            if (to is Disposition.Approved or Disposition.PartsAwaited)
                found.Move(Disposition.Approved, null, inspection.Terms, null, began.AddHours(6));
            if (to is Disposition.PartsAwaited)
                found.Move(to, "line 3/16, made up to sample", inspection.Terms, ines, began.AddHours(6.5));
            if (to is Disposition.Declined)
                found.Move(to, "next winter, with the paint", inspection.Terms, null, began.AddHours(6.2));
        }
        Of(inspection, "Left seat rail")
            .Add(Guid.CreateVersion7(), "Can the rail be exchanged on one side only?", null, began.AddHours(6.4));
        var nick = Of(inspection, "Leading edge nick");
        nick.Examine(new(FoundHow.Visual, "dressed to the propeller maker's limits, edge smooth under a fingernail", ines,
            demo.Today.AddDays(-1), null), demo.Today, new(DiscrepancyClass.KnownMark, false, ines, began.AddHours(3)), demo.Shelf.Classes);
        var rail = Of(inspection, "Left seat rail");
        rail.Describe(rail.What, "The rail that holds the left seat is worn: the pin no longer locks the seat firmly.", rail.Place,
            FoundHow.Measurement, "hole 7.4 mm, limit 6.6 mm (Dunlin manual 25-10, p. 6)", tamsin, began.AddHours(2));
        var pulley = Of(inspection, "Aileron pulley");
        pulley.Add(await demo.SoundAsync(stop));
        pulley.Add(await demo.VideoAsync(stop));
        foreach (var photo in await demo.PicturesAsync([(Subject.Fitting, 500), (Subject.Fitting, 501)], stop))
            pulley.Add(photo);
    }

    private static Discrepancy Of(Inspection inspection, string words) =>
        inspection.Discrepancies.Single(found => found.What.StartsWith(words, StringComparison.Ordinal));

    // Along the drawn crack, with the plate beside it for a scale.
    private static void Draw(Discrepancy found, double pixels) => found.Draw(found.Photos[0].Sha256,
    [
        new(AnnotationKind.Scale, [new(195, 600), new(765, 600)], "steel rule, between two of its lines", 60, 0.1, 1.5),
        new(AnnotationKind.Length, [new(375, 315), new(375 + pixels * 0.55, 322), new(375 + pixels, 315)], "hairline", PickPixels: 1.5),
        new(AnnotationKind.Arrow, [new(640, 180), new(375 + pixels + 12, 300)], "stop drill", PickPixels: 1.5),
    ], found.Changes);
}
