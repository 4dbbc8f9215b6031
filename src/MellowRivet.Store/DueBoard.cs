using System.Collections.Concurrent;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>
/// The due lines of the whole shop with the bulletins on them, kept between requests: an aircraft's is reckoned anew when the
/// revision of its file has changed, or the day has, or the shop's bulletins have. What is handed out is shared and never changed.
/// </summary>
public sealed class DueBoard(BulletinShelf bulletins, Func<Category, RulePack> rules)
{
    private readonly ConcurrentDictionary<Guid, (int Revision, BulletinList List, DueLine Line)> kept = [];
    private (BulletinList List, IReadOnlyDictionary<Guid, BulletinTally> Of)? tally;

    /// <summary>Every aircraft's due line, by registration.</summary>
    public async Task<IReadOnlyList<DueLine>> LinesAsync(RivetDb db, DateOnly today, CancellationToken stop)
    {
        // The revisions are read before what they stand for: what is loaded may be newer than its revision, never older.
        var list = await bulletins.ListAsync(db, today, stop);
        var revisions = await db.Aircraft.AsNoTracking().Select(aircraft => new { aircraft.Id, aircraft.Changes }).ToListAsync(stop);
        await ReckonAsync(db, revisions.ToDictionary(row => row.Id, row => row.Changes), list, stop);
        return [.. revisions.Select(row => kept.TryGetValue(row.Id, out var there) ? there.Line : null).OfType<DueLine>().OrderBy(line => line.Aircraft.Registration, StringComparer.Ordinal)];
    }

    /// <summary>One aircraft's due line.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="aircraft">The aircraft as it was just loaded.</param>
    /// <param name="today">The day.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<DueLine> LineAsync(RivetDb db, Aircraft aircraft, DateOnly today, CancellationToken stop)
    {
        await ReckonAsync(db, new() { [aircraft.Id] = aircraft.Changes }, await bulletins.ListAsync(db, today, stop), stop);
        return kept[aircraft.Id].Line;
    }

    /// <summary>One aircraft's bulletins with those that don't apply and why, looked up anew.</summary>
    public async Task<BulletinResearch> ResearchAsync(RivetDb db, Guid aircraftId, DateOnly today, CancellationToken stop) =>
        (await db.DueLinesAsync([aircraftId], await bulletins.ListAsync(db, today, stop), rules, today, whole: true, stop))[0].Research;

    /// <summary>How each bulletin falls on the shop; those that concern no aircraft are left out.</summary>
    public async Task<IReadOnlyDictionary<Guid, BulletinTally>> TallyAsync(RivetDb db, DateOnly today, CancellationToken stop)
    {
        var lines = await LinesAsync(db, today, stop);
        var list = await bulletins.ListAsync(db, today, stop);
        if (tally is { } known && known.List == list)
            return known.Of;
        var of = lines.SelectMany(line => line.Research.Lines.Select(one => (line.Aircraft.Id, one))).GroupBy(pair => pair.one.Held.Id).ToDictionary(group => group.Key, group => new BulletinTally(
            Aircraft(group, one => one.Answer.Answer == RuleAnswer.Applies), Aircraft(group, one => one.Answer.Answer == RuleAnswer.CannotTell),
            Aircraft(group, one => one.Counts && one.State is BulletinState.Overdue or BulletinState.BeforeFlight or BulletinState.Soon)));
        tally = (list, of);
        return of;

        static int Aircraft(IEnumerable<(Guid Id, BulletinLine One)> lines, Func<BulletinLine, bool> which) => lines.Where(pair => which(pair.One)).Select(pair => pair.Id).Distinct().Count();
    }

    private async Task ReckonAsync(RivetDb db, Dictionary<Guid, int> revisions, BulletinList list, CancellationToken stop)
    {
        var stale = revisions.Where(row => !kept.TryGetValue(row.Key, out var there) || there.Revision != row.Value || there.List != list).Select(row => row.Key).ToList();
        if (stale.Count > 0)
            foreach (var line in await db.DueLinesAsync(stale, list, rules, list.Today, whole: false, stop))
            {
                kept[line.Aircraft.Id] = (revisions[line.Aircraft.Id], list, line);
                tally = null;
            }
    }
}

/// <summary>On how many aircraft a bulletin applies, can't be told, and is due now.</summary>
public sealed record BulletinTally(int Applies, int CannotTell, int Due)
{
    public static readonly BulletinTally Nowhere = new(0, 0, 0);
}
