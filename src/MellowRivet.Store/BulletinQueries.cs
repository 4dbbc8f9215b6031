using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Records;
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

/// <summary>The shop's bulletins and types, kept between requests until one comes or changes, or the day does.</summary>
public sealed class BulletinShelf
{
    private sealed record Mark(int Bulletins, int Changes, int Types, int TypeChanges, Guid? Latest);

    private (Mark Mark, BulletinList List)? kept;

    public async Task<BulletinList> ListAsync(RivetDb db, DateOnly today, CancellationToken stop)
    {
        // The marks are read before what they stand for: what is loaded may be newer than its mark, never older.
        var held = await db.Bulletins.GroupBy(_ => 1).Select(all => new { Count = all.Count(), Changes = all.Sum(one => one.Changes) }).SingleOrDefaultAsync(stop);
        var types = await db.Types.GroupBy(_ => 1).Select(all => new { Count = all.Count(), Changes = all.Sum(one => one.Changes), Latest = all.Max(one => one.Id) }).SingleOrDefaultAsync(stop);
        Mark mark = new(held?.Count ?? 0, held?.Changes ?? 0, types?.Count ?? 0, types?.Changes ?? 0, types?.Latest);
        if (kept is { } there && there.Mark == mark && there.List.Today == today)
            return there.List;
        var list = new BulletinList(await db.Bulletins.AsNoTracking().ToListAsync(stop), await db.TypeListAsync(stop), today);
        kept = (mark, list);
        return list;
    }
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
        var open = touched.Count(ones => ones.Any(one => one.Answer.Answer == RuleAnswer.CannotTell && one.SupersededBy is null) && !ones.Any(one => one.Answer.Answer == RuleAnswer.Applies && one.SupersededBy is null));
        return New.Count == 0 ? "nothing new" : $"{New.Count} new: {applies} aircraft{(open > 0 ? $", {open} can’t tell" : "")}{(unknown.Count == 0 ? "" : $"; no list knows {string.Join(", ", unknown.Take(5))}{(unknown.Count > 5 ? $" and {unknown.Count - 5} more" : "")}: settle that under Types")}";
    }
}

/// <summary>What the pages load and keep of bulletins.</summary>
public static class BulletinQueries
{
    /// <summary>What was decided, done and read off on some aircraft and parts.</summary>
    public static async Task<(IReadOnlyList<BulletinCase> Cases, IReadOnlyList<StatedFact> Stated)> CasesAsync(this RivetDb db, IReadOnlyCollection<Guid> aircraft, IReadOnlyCollection<Guid> parts, CancellationToken stop) => (
        await db.BulletinCases.AsNoTracking().Where(one => aircraft.Contains(one.AircraftId!.Value) || parts.Contains(one.ComponentId!.Value)).ToListAsync(stop),
        await db.StatedFacts.AsNoTracking().Where(one => aircraft.Contains(one.AircraftId!.Value) || parts.Contains(one.ComponentId!.Value)).ToListAsync(stop));

    /// <summary>Facts that were read off an aircraft, loaded with its parts, and off what is on it.</summary>
    public static async Task<IReadOnlyList<StatedFact>> StatedOnAsync(this RivetDb db, Aircraft aircraft, CancellationToken stop) =>
        (await db.CasesAsync([aircraft.Id], [.. aircraft.Installations.Where(stay => stay.IsOn).Select(stay => stay.ComponentId)], stop)).Stated;

    /// <summary>One aircraft's due line with its bulletins, all loaded anew: for a write that decides by it.</summary>
    public static async Task<DueLine> FreshLineAsync(this RivetDb db, Guid aircraftId, Func<Category, RulePack> rules, DateOnly today, CancellationToken stop) =>
        (await db.DueLinesAsync([aircraftId], new(await db.Bulletins.AsNoTracking().ToListAsync(stop), await db.TypeListAsync(stop), today), rules, today, whole: true, stop))[0];

    /// <summary>The case of a bulletin on an aircraft or part, made where there is none.</summary>
    public static async Task<BulletinCase> CaseAsync(this RivetDb db, string family, Guid aircraftId, Guid? componentId, CancellationToken stop) =>
        await db.BulletinCases.FirstOrDefaultAsync(one => one.Family == family && one.ComponentId == componentId && one.AircraftId == (componentId == null ? aircraftId : null), stop)
        ?? db.BulletinCases.Add(new(Guid.CreateVersion7(), family, componentId is null ? aircraftId : null, componentId)).Entity;

    /// <summary>Takes bulletins in that aren't here yet. One that is here with the same revision and other words is left as it is and named.</summary>
    public static async Task<TakenIn> TakeInAsync(this RivetDb db, IReadOnlyList<Bulletin> bulletins, string from, Guid? by, DateTimeOffset at, CancellationToken stop)
    {
        var there = (await db.Bulletins.AsNoTracking().Select(held => new { held.Family, held.Revision }).ToListAsync(stop)).Select(held => (held.Family, held.Revision)).ToHashSet();
        List<ShopBulletin> added = [];
        foreach (var bulletin in bulletins)
            if (there.Add((bulletin.Family, bulletin.Revision)))
                added.Add(new(Guid.CreateVersion7(), bulletin, from, by, at));
        db.Bulletins.AddRange(added);
        return new(added, bulletins.Count - added.Count);
    }

    /// <summary>Notes in each case what an inspection complied with, as it is signed.</summary>
    internal static Refusal? MarkComplied(this RivetDb db, Job job, DateOnly on)
    {
        foreach (var work in job.Inspection.Bulletins.Where(work => work.Complied is not null))
        {
            var held = db.Bulletins.AsNoTracking().First(row => row.Id == work.BulletinId);
            var hours = work.ComponentId is { } part ? job.Aircraft.Fitting(part)?.TimeInService(job.Aircraft.TimeInService)?.Value : job.Aircraft.TimeInService.Value;
            var one = db.BulletinCases.FirstOrDefault(row => row.Family == work.Family && row.ComponentId == work.ComponentId && row.AircraftId == (work.ComponentId == null ? job.Aircraft.Id : null));
            if (one is null)
                db.BulletinCases.Add(one = new(Guid.CreateVersion7(), work.Family, work.ComponentId is null ? job.Aircraft.Id : null, work.ComponentId));
            var done = work.Complied!;
            if (one.Comply(held.Bulletin, new(on, hours, work.Revision, done.Method, done.Finding, done.Terminating, $"work order {job.Inspection.WorkOrder}", done.By), on) is { } refusal)
                return new("sign", $"{work.Title}: {refusal.Message}");
        }
        return null;
    }
}
