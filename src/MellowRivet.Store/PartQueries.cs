using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Parts;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What pages load and keep of the parts list.</summary>
public static class PartQueries
{
    /// <summary>Everything on the shop's parts list.</summary>
    public static async Task<IReadOnlyList<OrderedPart>> PartsAsync(this RivetDb db, CancellationToken stop) =>
        await db.OrderedParts.AsNoTracking().ToListAsync(stop);

    /// <summary>A part of the list, to look at; null where there is none.</summary>
    public static Task<OrderedPart?> PartAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.OrderedParts.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, stop);

    /// <summary>
    /// Parts for one line of an inspection; of one that was carried over also those that were ordered where it was left open.
    /// </summary>
    public static async Task<IReadOnlyList<OrderedPart>> PartsForAsync(this RivetDb db, Guid inspectionId, int number,
        CancellationToken stop)
    {
        HashSet<(Guid? Inspection, string Key)> lines = [(inspectionId, $"{number:00}")];
        if (await db.Discrepancies.AsNoTracking().FirstOrDefaultAsync(row => row.InspectionId == inspectionId && row.Number == number, stop)
            is { CarriedFrom: { } item, CarriedNumber: { } first })
        {
            foreach (var other in await db.Discrepancies.Where(row => row.CarriedFrom == item)
                .Select(row => new { row.InspectionId, row.Number }).ToListAsync(stop))
                lines.Add((other.InspectionId, $"{other.Number:00}"));
            var order = first[..first.LastIndexOf('-')];
            if (await db.Inspections.Where(row => row.WorkOrder == order).Select(row =>
                (Guid?)row.Id).FirstOrDefaultAsync(stop) is { } where)
                lines.Add((where, first[(order.Length + 1)..]));
        }
        var ids = lines.Select(line => line.Inspection).ToList();
        return [.. (await db.OrderedParts.AsNoTracking().Where(row => ids.Contains(row.InspectionId)).ToListAsync(stop))
            .Where(part => lines.Contains((part.InspectionId, part.Key)))];
    }

    /// <summary>
    /// Parts for an aircraft, by the line that each is for as people say it: "26-111-01"; those for no line are left out.
    /// </summary>
    public static async Task<ILookup<string, OrderedPart>> PartsByLineAsync(this RivetDb db, Guid aircraftId, CancellationToken stop)
    {
        var rows = await (from part in db.OrderedParts.AsNoTracking()
                          join inspection in db.Inspections on part.InspectionId equals inspection.Id
                          where part.AircraftId == aircraftId
                          select new { part, inspection.WorkOrder }).ToListAsync(stop);
        return rows.ToLookup(row => $"{row.WorkOrder}-{row.part.Key}", row => row.part);
    }

    /// <summary>Inspections in work with what was found and has an estimate, to look at: what has none names no part.</summary>
    public static async Task<IReadOnlyList<Inspection>> InWorkWithFoundAsync(this RivetDb db, CancellationToken stop) =>
        await db.Inspections.AsNoTracking().Include(row => row.Discrepancies.Where(found => found.Estimate != null))
            .Where(row => row.State == InspectionState.InWork && row.Kind != InspectionKind.Survey)
            .ToListAsync(stop);

    /// <summary>The work orders of inspections.</summary>
    public static async Task<IReadOnlyDictionary<Guid, string>> OrdersAsync(this RivetDb db, IReadOnlyCollection<Guid> ids,
        CancellationToken stop) =>
        await db.Inspections.Where(row => ids.Contains(row.Id)).ToDictionaryAsync(row => row.Id, row => row.WorkOrder, stop);

    /// <summary>The registrations of aircraft.</summary>
    public static async Task<IReadOnlyDictionary<Guid, string>> RegistrationsAsync(this RivetDb db, CancellationToken stop) =>
        await db.Aircraft.ToDictionaryAsync(row => row.Id, row => row.Registration, stop);

    /// <summary>Changes a part of the list in turn, once.</summary>
    public static Task<Written> WritePartAsync(this RivetDb db, Guid id, Guid post, TimeProvider clock, Func<OrderedPart,
        Task<Refusal?>> decide,
        CancellationToken stop) => db.OnceAsync(post, clock, async () =>
            await db.OrderedParts.FirstOrDefaultAsync(row => row.Id == id, stop) is { } part
                ? await decide(part) : new("part", "It is not on the list any more."), stop);

    /// <summary>
    /// Parts that are put on the list and asked for or ordered, all or none; the lines they are for say when they are expected, and those
    /// that the owner agreed to wait for their parts from then on.
    /// </summary>
    public static Task<Written> OrderAsync(this RivetDb db, IReadOnlyList<OrderedPart> fresh, IReadOnlyList<Guid> listed, Guid post,
        Func<OrderedPart, Refusal?> from, Guid by, TimeProvider clock, CancellationToken stop) => db.OnceAsync(post, clock, async () =>
        {
            foreach (var one in fresh)
                if ((await db.OrderedParts.Where(row => row.InspectionId == one.InspectionId && row.Key == one.Key && row.What == one.What
                    && row.Number == one.Number).ToListAsync(stop)).Exists(part => part.State != PartState.SentBack))
                    return new("supplier", $"{one.InWords} is on the list already: somebody else was quicker.");
            var parts = fresh.Select(db.Put).Concat(await db.OrderedParts.Where(row => listed.Contains(row.Id)).ToListAsync(stop)).ToList();
            foreach (var part in parts)
                if (from(part) is { } refusal)
                    return refusal;
            foreach (var of in parts.Where(part => part is { OrderedOn: not null, InspectionId: not null }).GroupBy(part =>
                part.InspectionId))
                if (await db.Inspections.Include(row => row.Discrepancies).FirstOrDefaultAsync(row => row.Id == of.Key, stop)
                    is { InWork: true } inspection)
                    foreach (var line in of.GroupBy(part => part.Key))
                        if (inspection.Line(line.Key) is { IsOpen: true } found)
                            Await(found, [.. line], inspection, by, clock.GetUtcNow());
            return null;
        }, stop);

    private static void Await(Discrepancy found, IReadOnlyList<OrderedPart> parts, Inspection inspection, Guid by, DateTimeOffset at)
    {
        if (parts.Max(part => part.ExpectedOn) is { } day && found.Estimate is { } estimate && !(estimate.PartsBy >= day))
            found.Expect(estimate with { PartsBy = day }, inspection.Terms, by, at);
        var words = $"{string.Join(", ", parts.Select(part => part.What))}: {parts[0].Supplier}";
        if (found.Disposition == Disposition.Approved)
            found.Move(Disposition.PartsAwaited, words.Length <= Discrepancy.LongestWhere ? words : words[..Discrepancy.LongestWhere],
                inspection.Terms, by, at);
    }
}
