using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Parts;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Demo;

/// <summary>
/// What the trainer's annual and the twin's seals cost: ranges, listed parts, ways side by side, orders, hours that were booked.
/// </summary>
internal static class DemoPrices
{
    private const string CabinJob = "Cabin, small repair";

    private static readonly decimal[] CabinHours = [0.4m, 0.9m, 0.6m, 1.6m, 0.5m], AnnualHours = [31, 27.5m, 29, 36, 28];

    /// <summary>The annual in progress.</summary>
    public static void Today(DemoHistory demo, Inspection inspection, DateTimeOffset began)
    {
        var ines = demo.Person("ines").Id;
        Discrepancy Of(string words) => inspection.Discrepancies.Single(found => found.What.StartsWith(words, StringComparison.Ordinal));
        void Put(string words, Estimate estimate) => Of(words).Expect(estimate, inspection.Terms, ines, began.AddHours(6.5));
        Put("Engine mount bushing", new([new(Skill.Mechanic, new(4, 5, 9)), new(Skill.Assistant, new(3, 4, 6))],
        [
            new("mount bushing, upper", "VB-40-2", 4, "", new(70, 82.5m, 95), 21, false),
            new("mount bolt with nut", "VB-44", 4, "", Spread.Of(11.4m), null, true),
        ], null, "the engine on the hoist", Place: "hoist"));
        Put("Left seat rail", new([new(Skill.Mechanic, new(4, 6, 8))], [new("seat rail, left", "DN-25-118", 1, "", new(380, 410, 460), 12,
            false)]));
        Put("Tailplane tip rib", Estimate.Of(2, 15) with { Labour = [new(Skill.Mechanic, new(1, 2, 5))],
            WaitsFor = "the filler to cure, a night", CureHours = 14 });
        Put("Left main tyre", Of("Left main tyre").Estimate! with { Place = "stand" });
        Of("Map light").Call(CabinJob);
        Of("Door seal").Call(CabinJob);
        inspection.Expect(Inspection.ItselfKey, _ => (new([new(Skill.Mechanic, new(22, 26, 34)), new(Skill.Inspector, new(3, 4, 6))], []),
            null),
            inspection.Unpriced([]), ines, began);
        inspection.Decide(Inspection.ItselfKey, Disposition.Asked, ines, began);
        inspection.Decide(Inspection.ItselfKey, Disposition.Approved, null, began.AddHours(1));
        Alternative Way(string name, AlternativeKind kind, Spread hours, Spread? parts, Spread? outside, decimal? buys, int days,
            params string[] away) => new(name, kind, new([new(Skill.Mechanic, hours)], parts is { } price
                ? [new(name.ToLowerInvariant(), "", 1, "", price, days, false)] : [], outside is { } sum ? new("", sum, days) : null),
            buys, days, [.. away.Select(words => Of(words).Number)]);
        var cylinder = new Choice(Guid.CreateVersion7(), "Cylinder 2: 58/80, leaking past the exhaust valve", null,
        [
            Way("Valve and seat redone outside", AlternativeKind.Repair, new(7, 8, 10), null, new(620, 780, 1_150), 500, 16),
            Way("Exchange cylinder", AlternativeKind.Exchange, new(6, 7, 9), new(1_480, 1_560, 1_700), null, 1_200, 9),
            Way("Engine and propeller overhauled", AlternativeKind.Overhaul, new(52, 60, 78), new(900, 1_200, 1_900),
                new(21_500, 23_800, 29_000), 2_000, 75, "Engine mount bushing", "Alternator bracket"),
            Way("A new power unit, propeller included", AlternativeKind.Replace, new(40, 46, 60), new(38_500, 39_900, 42_000), null, 2_000,
                34,
                "Engine mount bushing", "Alternator bracket"),
        ]);
        inspection.Offer(cylinder);
        inspection.AskChoice(cylinder.Id, ines, began.AddHours(6));
        // Two of the bracket's parts are through the parts list: one here, one late.
        var bracket = new OrderedPart(Guid.CreateVersion7(), "alternator bracket", "AB-1180", 1, "", new(inspection.AircraftId,
            inspection.Id,
            $"{Of("Alternator bracket").Number:00}"));
        bracket.From(true, "Tollerby Airparts", 212, demo.Today.AddDays(2), true, demo.Today.AddDays(-1));
        bracket.Receive(new(Guid.CreateVersion7(), 1, PartCondition.Overhauled, "CL-20931", "R 1180-77", null, ines, began.AddHours(23)));
        var line = new OrderedPart(Guid.CreateVersion7(), "brake line 3/16, made up to sample", "BL-316", 1, "", new(inspection.AircraftId,
            inspection.Id, $"{Of("Right brake line").Number:00}"));
        line.From(true, "Fenwick Hose Works", 58, demo.Today.AddDays(12), false, demo.Today.AddDays(-1));
        var sealant = new OrderedPart(Guid.CreateVersion7(), "tank sealant, two parts", "TS-2", 2, "kit", PartFor.Shelf);
        sealant.From(true, "Tollerby Airparts", 64, demo.Today.AddDays(-4), false, demo.Today.AddDays(-18));
        demo.Db.OrderedParts.AddRange(bracket, line, sealant);
    }

    /// <summary>The twin's seal kit: the price the owner agreed to, and seven weeks from the order.</summary>
    public static void Seals(DemoHistory demo, Inspection inspection, Discrepancy leg, DateTimeOffset at)
    {
        var ines = demo.Person("ines").Id;
        leg.Expect(new([new(Skill.Mechanic, new(5, 7, 12)), new(Skill.Assistant, new(3, 4, 6))],
            [new("seal kit, main leg", "HS-211", 1, "", new(465, 480, 520), 49, false),
                new("hydraulic fluid", "HF-5", 2, "qt", Spread.Of(19), null, true)],
            null, "the leg off and drained", demo.Today.AddDays(30)), inspection.Terms, ines, at.AddHours(4));
        leg.Move(Disposition.Asked, null, inspection.Terms, ines, at.AddHours(4));
        leg.Move(Disposition.Approved, null, inspection.Terms, null, at.AddHours(7));
        leg.Move(Disposition.PartsAwaited, "seal kit, main leg: Corrin Parts Supply", inspection.Terms, ines, at.AddHours(8));
        var kit = new OrderedPart(Guid.CreateVersion7(), "seal kit, main leg", "HS-211", 1, "", new(inspection.AircraftId, inspection.Id,
            $"{leg.Number:00}"));
        kit.From(true, "Corrin Parts Supply", 480, demo.Today.AddDays(30), false, demo.Today.AddDays(-19));
        demo.Db.OrderedParts.Add(kit);
    }

    /// <summary>Hours that were booked at earlier annuals of the trainer: on the inspections, and on small things in the cabin.</summary>
    public static async Task BookedAsync(DemoHistory demo, Guid aircraftId, string type, CancellationToken stop)
    {
        var past = (await demo.Db.Inspections.Include(row => row.Discrepancies)
            .Where(row => row.AircraftId == aircraftId && row.Kind == InspectionKind.Annual && row.State != InspectionState.InWork)
            .ToListAsync(stop)).OrderByDescending(row => row.OpenedOn).ToList();
        var (ines, tamsin) = (demo.Person("ines").Id, demo.Person("tamsin").Id);
        foreach (var (inspection, hours) in past.Zip(AnnualHours))
            Book(demo, inspection, Inspection.ItselfKey, JobKinds.Of(inspection, type), ines, hours);
        var cabin = past.SelectMany(inspection => inspection.Discrepancies.Where(found => found is { ZoneKey: "cabin",
            Correction: not null })
            .Select(found => (inspection, found)));
        foreach (var ((inspection, found), hours) in cabin.Zip(CabinHours))
            Book(demo, inspection, $"{found.Number:00}", CabinJob, tamsin, hours);
    }

    private static void Book(DemoHistory demo, Inspection inspection, string key, string kind, Guid by, decimal hours) =>
        demo.Db.BookedTimes.Add(new(Guid.CreateVersion7(), inspection.Id, key, kind, by, Skill.Mechanic,
            demo.Clock.At(inspection.OpenedOn, new(11, 0)), hours));
}
