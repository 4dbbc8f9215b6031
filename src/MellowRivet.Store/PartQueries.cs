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

    /// <summary>Parts for one line of an inspection.</summary>
    public static async Task<IReadOnlyList<OrderedPart>> PartsForAsync(this RivetDb db, Guid inspectionId, string key,
        CancellationToken stop) =>
        await db.OrderedParts.AsNoTracking().Where(row => row.InspectionId == inspectionId && row.Key == key).ToListAsync(stop);

    /// <summary>Inspections in work with what was found, to look at.</summary>
    public static async Task<IReadOnlyList<Inspection>> InWorkWithFoundAsync(this RivetDb db, CancellationToken stop) =>
        await db.Inspections.AsNoTracking().Include(row => row.Discrepancies).Where(row => row.State == InspectionState.InWork)
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
