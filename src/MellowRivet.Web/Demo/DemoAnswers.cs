using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Signing;

namespace MellowRivet.Web.Demo;

/// <summary>
/// Bad judgements of the trainer's annual, each answered in another way: read again, part replaced, on the fix list, set lower, set aside.
/// </summary>
internal static class DemoAnswers
{
    public static void Today(DemoHistory demo, Aircraft aircraft, Component engine, Inspection inspection, DateTimeOffset began)
    {
        var (ines, orla) = (demo.Person("ines"), demo.Person("orla"));
        var rules = demo.Shelf.Weigh(aircraft.Category, new Dictionary<Guid, Core.People.Person> { [ines.Id] = ines, [orla.Id] = orla },
            demo.Clock);
        var signs = rules.SignsBy(orla.Id, inspection, aircraft)!;

        // An idle too fast at first, set down and read again.
        var run = RunSheet.Of(engine);
        var idle = run.Values.Single(value => value.Kind == "idle-rpm" && value.Position == "before");
        Check(inspection.Measure(Guid.CreateVersion7(), run, idle, 810, idle.Band.Unit, new(ines.Id, began.AddHours(1))));
        inspection.Remember(aircraft);
        Check(inspection.Measure(Guid.CreateVersion7(), run, idle, 690, idle.Band.Unit, new(ines.Id, began.AddHours(1.4))));

        // A plug with a cracked insulator, and another in its place.
        var place = PlugTray.Of(aircraft, engine, inspection).Places[^1];
        Check(inspection.NotePlug(place, PlugStep.Look, nameof(PlugLook.Cracked), new(ines.Id, began.AddHours(5))));
        inspection.Remember(aircraft);
        Check(aircraft.FitPlug(engine, place.Hole, "QK-18M", "219", IgnitionKind.Magneto, demo.Today.AddDays(-1), "insulator cracked",
            demo.Person("ines").Id));

        // A short brush of the left magneto: on the list, and put right there.
        var brush = Find(inspection, aircraft, judged => judged.Key.EndsWith("/brush", StringComparison.Ordinal));
        var (found, _) = inspection.PutOnList(Guid.CreateVersion7(), "Left magneto: carbon brush short, 3 mm left", brush.Where.ZoneKey,
            "left magneto, distributor block", new(DiscrepancyClass.Airworthiness, false, ines.Id, began.AddHours(6.3)), null, brush,
            rules.Classes);
        Check(
            found!.Correct(new("Brush replaced, moves freely, block wiped clean.", CorrectionKind.Replaced, "magneto sheet 12, p. 4",
                [new("MB-14", "", "")]), inspection.Terms, ines.Id, began.AddHours(6.6)));

        // Oil that grew at a pushrod tube: on the list, and set lower by the inspector with reason and reference.
        var oil = Find(inspection, aircraft, judged => judged.Key.StartsWith("mark/", StringComparison.Ordinal)
            && judged.Saw.StartsWith("oil", StringComparison.Ordinal));
        var (weep, _) = inspection.PutOnList(Guid.CreateVersion7(), "Oil at the pushrod tube of cylinder 2, wet, more than last year",
            oil.Where.ZoneKey, "pushrod tube, cylinder 2", new(DiscrepancyClass.Airworthiness, false, ines.Id, began.AddHours(6.8)), null,
            oil, rules.Classes);
        Check(
            weep!.Classify(new(DiscrepancyClass.Watch, false, orla.Id, began.AddHours(8),
                "Seal weeps, no drip in a twenty-minute run; within what the engine manual allows at a pushrod tube.",
                "TF4 manual 72-30, p. 11", signs), rules.Classes, null));
    }

    /// <summary>What wears on the wheels, each side by itself.</summary>
    public static double? Worn(InspectionTask task) => task.Key switch
    {
        "gear-brakes" => 0.135,
        "gear-brakes-right" => 0.16,
        "gear-disc" => 0.364,
        "gear-disc-right" => 0.367,
        "gear-tread-left" => 1.4,
        "gear-tread-right" => 2.1,
        _ => null,
    };

    /// <summary>What wears on the wheels at an annual of the past: new pads and tyres at every fifth, discs that thin slowly.</summary>
    public static double? Worn(InspectionTask task, int test) => task.Key switch
    {
        "gear-brakes" => Math.Round(0.31 - 0.035 * (test / 2 % 5), 3),
        "gear-brakes-right" => Math.Round(0.31 - 0.03 * (test / 2 % 5), 3),
        "gear-disc" => Math.Round(0.398 - 0.0035 * (test / 2), 4),
        "gear-disc-right" => Math.Round(0.398 - 0.0032 * (test / 2), 4),
        "gear-tread-left" or "gear-tread-right" => Math.Round(4.2 - 0.6 * (test / 2 % 5), 1),
        _ => null,
    };

    /// <summary>A battery that read low with everything on, set aside by the inspector with reason and reference.</summary>
    public static void SetAside(DemoHistory demo, Aircraft aircraft, Inspection inspection, DateTimeOffset began)
    {
        var (ines, orla) = (demo.Person("ines"), demo.Person("orla"));
        var rules = demo.Shelf.Weigh(aircraft.Category, new Dictionary<Guid, Core.People.Person> { [orla.Id] = orla }, demo.Clock);
        var task = inspection.Tasks.First(task => task.Key == "cabin-battery");
        inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, null, task.Measure!.Kind, task.ZoneKey, 12.1, Core.Measures.Unit.Volt,
            new(), inspection.TimeInService, began.AddHours(5.5), ines.Id) { InspectionId = inspection.Id, TaskId = task.Id });
        var low = Find(inspection, aircraft, judged => judged.Key == $"task/{task.Id:N}");
        Check(inspection.SetJudgementAside(aircraft, low.Key, low.Seen,
            "Read with the radios on; 12.7 V an hour after they were off.", "Dunlin manual 24-30, p. 2", orla,
            rules.SignsBy(orla.Id, inspection, aircraft), began.AddHours(8.1)));
    }

    private static Judged Find(Inspection inspection, Aircraft aircraft, Func<Judged, bool> which) =>
        InspectionJudgements.Of(inspection, aircraft).First(judged => judged.WantsAnswer && which(judged));

    private static void Check(Refusal? refusal)
    {
        if (refusal is not null)
            throw new InvalidOperationException(refusal.Message);
    }
}
