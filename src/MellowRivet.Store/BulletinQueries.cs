using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What is known of the service that bulletins come from: one row a source.</summary>
public sealed class FeedState
{
    /// <summary>The source's name.</summary>
    public string Source { get; init; } = "";

    /// <summary>What came out up to this day is here.</summary>
    public DateOnly Since { get; set; }
    public DateTimeOffset? AskedAt { get; set; }

    /// <summary>What the last asking brought, or why it failed, in words.</summary>
    public string Said { get; set; } = "";
}

/// <summary>What became of bulletins that came in.</summary>
/// <param name="New">Those that are new.</param>
/// <param name="Known">How many were here already, just so.</param>
public sealed record TakenIn(IReadOnlyList<ShopBulletin> New, int Known)
{
    /// <summary>How the new ones fall on the shop: "applies to 3 aircraft, 1 can’t tell".</summary>
    /// <param name="lines">The shop's due lines, with the bulletins on them.</param>
    /// <param name="types">The types it knows.</param>
    public string OnTheShop(IEnumerable<DueLine> lines, TypeList types)
    {
        var unknown = New.SelectMany(held => types.UnsettledIn(held.Bulletin)).Select(name => name.Name).Distinct().ToList();
        var ids = New.Select(held => held.Id).ToHashSet();
        var touched = lines.Select(line => line.Research.Lines.Where(one => ids.Contains(one.Held.Id)).ToList()).ToList();
        var applies = touched.Count(ones => ones.Any(one => one.Answer.Answer == RuleAnswer.Applies && one.SupersededBy is null));
        var open = touched.Count(ones => ones.Any(one => one.Answer.Answer == RuleAnswer.CannotTell && one.SupersededBy is null)
            && !ones.Any(one => one.Answer.Answer == RuleAnswer.Applies && one.SupersededBy is null));
        var more = unknown.Count > 5 ? $" and {unknown.Count - 5} more" : "";
        return New.Count == 0 ? "nothing new"
            : $"{New.Count} new: {applies} aircraft{(open > 0 ? $", {open} can’t tell" : "")}"
            + (unknown.Count == 0 ? "" : $"; no list knows {string.Join(", ", unknown.Take(5))}{more}: settle that under Types");
    }
}

/// <summary>What the pages load and keep of bulletins.</summary>
public static class BulletinQueries
{
    /// <summary>What was decided, done and read off on some aircraft and parts.</summary>
    public static async Task<(IReadOnlyList<BulletinFollowUp> FollowUps, IReadOnlyList<StatedFact> Stated)> FollowUpsAsync(this RivetDb db,
        IReadOnlyCollection<Guid> aircraft, IReadOnlyCollection<Guid> parts, CancellationToken stop) => (
        await db.BulletinFollowUps.AsNoTracking()
            .Where(one => aircraft.Contains(one.AircraftId!.Value) || parts.Contains(one.ComponentId!.Value)).ToListAsync(stop),
        await db.StatedFacts.AsNoTracking().Where(one => aircraft.Contains(one.AircraftId!.Value) || parts.Contains(one.ComponentId!.Value))
            .ToListAsync(stop));

    /// <summary>Facts that were read off aircraft, loaded with their parts, and off what is on them.</summary>
    public static async Task<IReadOnlyList<StatedFact>> StatedOnAsync(this RivetDb db, IReadOnlyCollection<Aircraft> fleet,
        CancellationToken stop)
    {
        var (aircraft, parts) = (fleet.Select(one => one.Id).ToList(), fleet.SelectMany(one => one.Installations).Where(stay => stay.IsOn)
            .Select(stay => stay.ComponentId).ToList());
        return await db.StatedFacts.AsNoTracking()
            .Where(one => aircraft.Contains(one.AircraftId!.Value) || parts.Contains(one.ComponentId!.Value)).ToListAsync(stop);
    }

    /// <summary>The case of a bulletin on an aircraft or part, made where there is none.</summary>
    public static async Task<BulletinFollowUp> FollowUpAsync(this RivetDb db, string family, Guid aircraftId, Guid? componentId,
        CancellationToken stop) =>
        await db.BulletinFollowUps.FirstOrDefaultAsync(one => one.Family == family && one.ComponentId == componentId
            && one.AircraftId == (componentId == null ? aircraftId : null), stop)
        ?? db.BulletinFollowUps.Add(new(Guid.CreateVersion7(), family, componentId is null ? aircraftId : null, componentId)).Entity;

    /// <summary>
    /// Takes bulletins in that aren't here yet. One that is here with the same revision and other words is left as it is and named.
    /// </summary>
    public static async Task<TakenIn> TakeInAsync(this RivetDb db, IReadOnlyList<Bulletin> bulletins, string from, Guid? by,
        DateTimeOffset at, CancellationToken stop)
    {
        var there = (await db.Bulletins.AsNoTracking().Select(held => new { held.Family, held.Revision }).ToListAsync(stop))
            .Select(held => (held.Family, held.Revision)).ToHashSet();
        List<ShopBulletin> added = [];
        foreach (var bulletin in bulletins)
            if (there.Add((bulletin.Family, bulletin.Revision)))
                added.Add(new(Guid.CreateVersion7(), bulletin, from, by, at));
        db.Bulletins.AddRange(added);
        return new(added, bulletins.Count - added.Count);
    }

    /// <summary>Notes in each case what an inspection complied with, as it is signed.</summary>
    internal static Refusal? SetComplied(this RivetDb db, Job job, DateOnly on)
    {
        foreach (var work in job.Inspection.Bulletins.Where(work => work.Complied is not null))
        {
            var held = db.Bulletins.AsNoTracking().First(row => row.Id == work.BulletinId);
            var hours = work.ComponentId is { } part
                ? job.Aircraft.Fitting(part)?.TimeInService(job.Aircraft.TimeInService)?.Value
                : job.Aircraft.TimeInService.Value;
            var one = db.BulletinFollowUps.FirstOrDefault(row => row.Family == work.Family && row.ComponentId == work.ComponentId
                && row.AircraftId == (work.ComponentId == null ? job.Aircraft.Id : null));
            if (one is null)
                db.BulletinFollowUps.Add(one = new(Guid.CreateVersion7(), work.Family, work.ComponentId is null
                    ? job.Aircraft.Id
                    : null, work.ComponentId));
            var done = work.Complied!;
            if (one.Comply(held.Bulletin,
                new(on, hours, work.Revision, done.Method, done.Finding, done.Terminating, 
                    BulletinFollowUp.SignedReference(job.Inspection.WorkOrder),
                    done.By), on) is { } refusal)
                return new("sign", $"{work.Title}: {refusal.Message}");
        }
        return null;
    }

    /// <summary>A bulletin, to look at; null where there is none.</summary>
    public static Task<ShopBulletin?> BulletinAsync(this RivetDb db, Guid? id, CancellationToken stop) =>
        db.Bulletins.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, stop);

    /// <summary>A bulletin, within a write; null where there is none.</summary>
    public static Task<ShopBulletin?> BulletinToChangeAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.Bulletins.FirstOrDefaultAsync(row => row.Id == id, stop);

    /// <summary>Whether a revision of a bulletin is here.</summary>
    public static Task<bool> IsHereAsync(this RivetDb db, Bulletin bulletin, CancellationToken stop) =>
        db.Bulletins.AnyAsync(row => row.Family == bulletin.Family && row.Revision == bulletin.Revision, stop);

    /// <summary>Every bulletin the shop holds.</summary>
    public static async Task<IReadOnlyList<ShopBulletin>> AllBulletinsAsync(this RivetDb db, CancellationToken stop) =>
        await db.Bulletins.AsNoTracking().ToListAsync(stop);

    /// <summary>How far a service of bulletins was heard; null where it never was.</summary>
    public static Task<FeedState?> FeedAsync(this RivetDb db, string source, CancellationToken stop) =>
        db.Feeds.AsNoTracking().FirstOrDefaultAsync(row => row.Source == source, stop);
}
