using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Schedule;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>The plan of the hangar as it is shown.</summary>
/// <param name="Kept">As it was reckoned last; null before the first.</param>
/// <param name="IsStale">Something changed since: the next one is being reckoned.</param>
/// <param name="Progress">How much of that is done, from 0 to 1; null while it waits.</param>
/// <param name="HasFailed">It couldn't be reckoned.</param>
public sealed record PlanNow(KeptPlan? Kept, bool IsStale, double? Progress, bool HasFailed = false)
{
    /// <summary>When an aircraft is ready; null where it isn't in work, or nobody knows yet.</summary>
    public AircraftReady? Of(string registration) => Kept?.Plan.Of(registration);
}

/// <summary>The plan of the hangar, for whoever asks; and reckons the next one.</summary>
public sealed class PlanDesk(RivetDb db, ShopBoard board, PlanKeeper keeper, TimeProvider clock)
{
    // An hour that went by without a change is another plan too: what wasn't done in it is still to do.
    private static readonly TimeSpan Fresh = TimeSpan.FromHours(1);

    // The draws of every plan begin alike, so that a ready day moves by what changed and not by chance.
    private const int Seed = 1;

    /// <summary>The plan that is kept. Where something changed since, the next one is asked for and not waited for.</summary>
    public async Task<PlanNow> NowAsync(CancellationToken stop)
    {
        if (keeper.Latest is null && await StoredAsync(db.Plans.AsNoTracking(), stop) is { } stored)
            keeper.Publish(stored);
        var (kept, counts) = (keeper.Latest, await ChangeCounts.NowAsync(db, stop));
        var stale = kept is null || !Covers(kept, counts);
        if (stale)
            keeper.Ask();
        return new(kept, stale, keeper.Progress, keeper.HasFailed);
    }

    // A plan is reckoned from what is kept: one that another release wrote, and this one can't read, is thrown away.
    private async Task<KeptPlan?> StoredAsync(IQueryable<KeptPlan> plans, CancellationToken stop)
    {
        try
        {
            return await plans.SingleOrDefaultAsync(stop);
        }
        catch (FormatException)
        {
            await db.Plans.ExecuteDeleteAsync(stop);
            return null;
        }
    }

    private bool Covers(KeptPlan kept, ChangeCounts counts) => kept.Of.CoverPlan(counts)
        && clock.DayOf(kept.At) == clock.Today() && clock.GetUtcNow() - kept.At < Fresh;

    /// <summary>Reckons the plan anew where something changed, and keeps it with what moved.</summary>
    public async Task<KeptPlan> ReckonAsync(CancellationToken stop)
    {
        await keeper.Turn.WaitAsync(stop);
        try
        {
            // Read before what they stand for: a plan may be newer than its counts, never older.
            var counts = await ChangeCounts.NowAsync(db, stop);
            db.ChangeTracker.Clear();
            var before = await StoredAsync(db.Plans, stop);
            if (before is not null && Covers(before, counts))
            {
                keeper.Publish(before);
                return before;
            }
            keeper.Reckons(0);
            var at = clock.GetUtcNow();
            var question = await QuestionAsync(stop);
            var plan = await Task.Run(() => Planner.Plan(question, Seed, null, new Told(keeper), stop), stop);
            var later = new KeptPlan(at, counts, plan,
                [.. before is null ? [] : ReadyMove.Between(before.Plan, plan, at), .. before?.Moves ?? []]);
            if (before is null)
                db.Plans.Add(before = later);
            else
                before.Take(later);
            await db.SaveChangesAsync(stop);
            db.ChangeTracker.Clear();
            keeper.Publish(later);
            return later;
        }
        finally
        {
            keeper.Reckons(null);
            keeper.Turn.Release();
        }
    }

    /// <summary>Waits a while for the plan that has the last change; where it takes longer it is reckoned on beside.</summary>
    public async Task SettleAsync(TimeSpan patience, CancellationToken stop)
    {
        using var limit = CancellationTokenSource.CreateLinkedTokenSource(stop);
        limit.CancelAfter(patience);
        try
        {
            await ReckonAsync(limit.Token);
        }
#pragma warning disable CA1031 // What was decided is kept, whether it can be planned now or not; the round says why it can't.
        catch (Exception) when (!stop.IsCancellationRequested)
#pragma warning restore CA1031
        {
            keeper.Ask();
        }
    }

    private sealed class Told(PlanKeeper keeper) : IProgress<double>
    {
        public void Report(double value) => keeper.Reckons(value);
    }

    /// <summary>What there is to do in the shop, and with what.</summary>
    public async Task<PlanQuestion> QuestionAsync(CancellationToken stop)
    {
        var shop = await board.StandingAsync(stop);
        var inspections = await db.Inspections.AsNoTracking().Where(row => row.State == InspectionState.InWork
                // At a survey nothing is put right.
                && row.Kind != InspectionKind.Survey)
            .Include(row => row.Discrepancies.Where(found => found.Disposition != Disposition.Withdrawn)).OrderBy(row => row.WorkOrder)
            .ToListAsync(stop);
        var ids = inspections.Select(row => row.Id).ToList();
        var tasks = (await db.Set<InspectionTask>().AsNoTracking().Where(row => ids.Contains(row.InspectionId) && row.TiedTo == null)
            .OrderBy(row => row.Order).Select(row => new { row.InspectionId, row.ZoneKey, row.ZoneTitle, row.Text,
                IsLeft = row.Verdict == TaskVerdict.NotYet }).ToListAsync(stop)).ToLookup(row => row.InspectionId);
        var aircraft = inspections.Select(row => (Guid?)row.AircraftId).Distinct().ToList();
        var parts = (await db.OrderedParts.AsNoTracking().Where(row => aircraft.Contains(row.AircraftId)).ToListAsync(stop))
            .ToLookup(row => row.AircraftId);
        var booked = (await db.BookedTimes.AsNoTracking().Where(row => ids.Contains(row.InspectionId) && row.Hours != null)
            .ToListAsync(stop)).ToLookup(row => row.InspectionId);
        List<WorkInHand> work = [];
        foreach (var kind in inspections.Where(row => shop[row.AircraftId] is not null)
            .GroupBy(row => (shop[row.AircraftId]!.Due.Aircraft.Type, row.Kind)))
        {
            var slow = await db.SlowFindsAsync(kind.Key.Type, kind.Key.Kind, stop);
            foreach (var inspection in kind)
            {
                var waits = LongWaits.Of(tasks[inspection.Id].Select(task => (task.ZoneKey, task.Text)), slow)
                    .Select(wait => wait.ZoneKey).ToList();
                var line = shop[inspection.AircraftId]!.Due;
                work.Add(new(inspection, line.Aircraft.Registration,
                    [.. tasks[inspection.Id].GroupBy(task => task.ZoneKey).Select(zone => new ZoneLeft(zone.Key, zone.First().ZoneTitle,
                        zone.Count(), zone.Count(task => task.IsLeft)))
                        .OrderBy(zone => waits.IndexOf(zone.Key) is >= 0 and var first ? first : waits.Count)],
                    inspection.JobOf is not null ? [] : [.. WorkPlan.DueOf(inspection, line.OwnItems).Where(item =>
                        item is { IsLeftOut: false, IsDone: false }).Select(item => new DueWork(item.Entry.Item.Id, item.Entry.Title,
                            item.Entry.Item.LabourHours))],
                    [.. parts[inspection.AircraftId]],
                    booked[inspection.Id].GroupBy(row => row.Key).ToDictionary(one => one.Key, one => one.Sum(row => row.Hours!.Value))));
            }
        }
        var house = await db.HouseRulesAsync(stop);
        return HangarWork.Question(work, ShopHands.Of(shop.People.Values), ShopPlaces.Read(house.Places.ToLowerInvariant()).Places,
            clock.Here(clock.GetUtcNow()));
    }
}

/// <summary>What is loaded of what was found before and took long.</summary>
public static class SlowFinds
{
    // The latest are enough to know where long waits are found; older parts come from other suppliers.
    private const int Most = 1_000;

    /// <summary>
    /// What was found on a type, or at a kind of inspection, that waited for parts or an outside shop, at signed inspections.
    /// </summary>
    public static async Task<IReadOnlyList<SlowFind>> SlowFindsAsync(this RivetDb db, string type, InspectionKind kind,
        CancellationToken stop)
    {
        var signed = from inspection in db.Inspections.AsNoTracking()
                     join aircraft in db.Aircraft on inspection.AircraftId equals aircraft.Id
                     where inspection.State != InspectionState.InWork && inspection.Kind != InspectionKind.Survey
                        && (aircraft.Type == type || inspection.Kind == kind)
                     select new { inspection.Id, inspection.WorkOrder, inspection.OpenedOn, OfType = aircraft.Type == type };
        var ordered = (await (from part in db.OrderedParts.AsNoTracking()
                              join inspection in signed on part.InspectionId equals inspection.Id
                              where part.OrderedOn != null
                              select part).ToListAsync(stop)).ToLookup(part => (part.InspectionId, part.Key));
        var ids = ordered.Select(part => part.Key.InspectionId!.Value).Distinct().ToList();
        var rows = await (from found in db.Discrepancies.AsNoTracking()
                          join inspection in signed on found.InspectionId equals inspection.Id
                          where (found.Estimate != null || ids.Contains(found.InspectionId)) && found.Disposition != Disposition.Withdrawn
                          orderby inspection.OpenedOn descending
                          select new { found.InspectionId, found.Number, found.ZoneKey, found.What, found.Estimate, inspection.WorkOrder,
                              inspection.OfType }).Take(Most).ToListAsync(stop);
        return
        [
            .. rows.Select(row =>
            {
                List<(string What, int Days)> waits =
                [
                    ("", 0), .. ordered[((Guid?)row.InspectionId, $"{row.Number:00}")].Select(part => (part.What,
                        (part.ExpectedOn ?? part.OrderedOn!.Value).DayNumber - part.OrderedOn!.Value.DayNumber)),
                ];
                if (row.Estimate?.Slowest is { } slow)
                    waits.Add((slow.What, slow.LeadDays!.Value));
                if (row.Estimate?.Outside is { Days: { } days } outside)
                    waits.Add((outside.What.Length > 0 ? outside.What : "outside work", days));
                var waited = waits.MaxBy(one => one.Days);
                return new SlowFind(row.OfType, row.ZoneKey, $"{row.WorkOrder}-{row.Number:00}", row.What, waited.What, waited.Days);
            }).Where(find => find.Days > 0),
        ];
    }
}
