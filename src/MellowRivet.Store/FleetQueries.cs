using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>An aircraft in a list to choose from.</summary>
public sealed record FleetRow(Guid Id, string Registration, string Type);

/// <summary>What the pages load of the fleet.</summary>
public static class FleetQueries
{
    /// <summary>With every part that is or was on the aircraft.</summary>
    public static IQueryable<Aircraft> WithParts(this IQueryable<Aircraft> fleet) =>
        fleet.Include(aircraft => aircraft.Installations).ThenInclude(stay => stay.Component);

    /// <summary>Every aircraft that the shop looks after by registration, as one chooses among them.</summary>
    public static async Task<IReadOnlyList<FleetRow>> FleetAsync(this RivetDb db, CancellationToken stop) =>
        await db.Aircraft.AsNoTracking().Where(aircraft => !aircraft.OnlySurveyed).OrderBy(aircraft => aircraft.Registration)
            .Select(aircraft => new FleetRow(aircraft.Id, aircraft.Registration, aircraft.Type)).ToListAsync(stop);

    /// <summary>
    /// Parts that were taken off somewhere and are on nothing now. A cylinder that lies there with its engine is part of that; one whose
    /// engine flies on lies there by itself.
    /// </summary>
    public static IQueryable<Component> InStore(this RivetDb db) =>
        db.Components.Where(part => db.Installations.Where(stay => stay.RemovedAt != null).Select(stay => stay.ComponentId)
            .Contains(part.Id)
        && !db.Installations.Any(stay => stay.ComponentId == part.Id && stay.RemovedAt == null)
        && (part.Kind != ComponentKind.Cylinder
            || db.Installations.Any(stay => stay.ComponentId == part.Id
                && db.Installations.Any(engine => engine.ComponentId == stay.ParentId && engine.RemovedAt == null))));

    /// <summary>
    /// Every stay, on any aircraft, of the part of a stay and of what went along with it: tracked, to be put right together.
    /// </summary>
    public static async Task<IReadOnlyList<Installation>> StaysAlongAsync(this RivetDb db, Aircraft aircraft, Guid stayId,
        CancellationToken stop)
    {
        var parts = aircraft.Installations.Where(stay => stay.Id == stayId).SelectMany(stay => aircraft.GoesAlong(stay).Prepend(stay))
            .Select(stay => stay.ComponentId).ToList();
        return await db.Installations.Where(stay => parts.Contains(stay.ComponentId)).ToListAsync(stop);
    }

    /// <summary>
    /// Puts the hours of a stay right, unless something that was done on the part would then be still to come; saving is the caller's.
    /// </summary>
    public static async Task<Refusal?> PutStayRightAsync(this RivetDb db, Aircraft aircraft, Guid stayId, Hours at, Hours? ownTime,
        Hours? removedAt, CancellationToken stop)
    {
        var along = await db.StaysAlongAsync(aircraft, stayId, stop);
        if (aircraft.PutRight(stayId, along, at, ownTime, removedAt) is { } refusal)
            return refusal;
        var parts = along.Select(stay => stay.ComponentId).Distinct().ToList();
        foreach (var item in await db.DueItems.AsNoTracking().Where(item => parts.Contains(item.ComponentId!.Value)).ToListAsync(stop))
            if (aircraft.Fitting(item.ComponentId!.Value) is { } stay && stay.TimeInService(aircraft.TimeInService) is { } now
                && item.Last is { CountedOn: null } last && last.Hours > now.Value)
                return new("stayOwn", $"{item.What} was done at {last.Hours:0.0} h of its own, and it would have {now} h now.");
        return null;
    }

    /// <summary>The due items of an aircraft and of the parts that are on it.</summary>
    public static IQueryable<DueItem> DueOn(this RivetDb db, Guid aircraftId) => db.DueItems.Where(item => item.AircraftId == aircraftId
        || db.Installations.Any(stay => stay.AircraftId == aircraftId && stay.RemovedAt == null && stay.ComponentId == item.ComponentId));

    /// <summary>
    /// The due lines of some aircraft, by registration, with the shop's bulletins on them: six queries, however many there are.
    /// </summary>
    /// <param name="db">The shop.</param>
    /// <param name="which">The aircraft.</param>
    /// <param name="list">The shop's bulletins.</param>
    /// <param name="rules">The rule pack of a category.</param>
    /// <param name="today">The day.</param>
    /// <param name="whole">With the bulletins that don't apply, and why; else only with those that concern the aircraft.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<IReadOnlyList<DueLine>> DueLinesAsync(this RivetDb db, IReadOnlyCollection<Guid> which, BulletinList list,
        Func<Category, RulePack> rules, DateOnly today, bool whole, CancellationToken stop)
    {
        // A bulletin may ask for the hours on a day long ago.
        var asksLongAgo = list.All.Any(
            held => held.Bulletin.Compliance.Deadlines.Any(limb => limb
                is { When: DeadlineKind.WithinHours, From: CountedFrom.Effective }));
        var fleet = await db.Aircraft.AsNoTracking().WithParts().Where(aircraft => which.Contains(aircraft.Id))
            .OrderBy(aircraft => aircraft.Registration).ToListAsync(stop);
        var parts = fleet.SelectMany(aircraft => aircraft.Installations).Where(stay => stay.IsOn).Select(stay => stay.ComponentId).ToList();
        var items = await db.DueItems.AsNoTracking()
            .Where(item => which.Contains(item.AircraftId!.Value) || parts.Contains(item.ComponentId!.Value)).ToListAsync(stop);
        var since = today.AddMonths(-Utilisation.MonthsLookedAt - 1);
        var readings = (await db.MeterReadings.AsNoTracking()
            .Where(reading => (reading.On >= since
                || (asksLongAgo && (reading.Kind == MeterKind.Tach || reading.Kind == MeterKind.HourMeter)))
                && which.Contains(reading.AircraftId)).ToListAsync(stop)).ToLookup(reading => reading.AircraftId);
        var (followUps, stated) = list.All.Count > 0 ? await db.FollowUpsAsync(which, parts, stop) : ([], []);
        var onAircraft = items.Where(item => item.AircraftId is not null).ToLookup(item => item.AircraftId!.Value);
        var onPart = items.Where(item => item.ComponentId is not null).ToLookup(item => item.ComponentId!.Value);
        var (followUpsOf, statedOf) = (followUps.ToLookup(one => one.AircraftId ?? one.ComponentId),
            stated.ToLookup(one => one.AircraftId ?? one.ComponentId));
        // A start reckons the whole shop, and nothing of one aircraft rests on another.
        return [.. (fleet.Count > 1 ? fleet.AsParallel().AsOrdered().Select(Reckon) : fleet.Select(Reckon))];

        DueLine Reckon(Aircraft aircraft)
        {
            var fitted = aircraft.Installations.Where(stay => stay.IsOn).Select(stay => stay.ComponentId).ToList();
            var line = DueLine.Of(aircraft, [.. onAircraft[aircraft.Id], .. fitted.SelectMany(part => onPart[part])],
                [.. readings[aircraft.Id]], today);
            var own = fitted.Select(part => (Guid?)part).Append(aircraft.Id).ToList();
            var research = BulletinResearch.Of(list, [.. own.SelectMany(id => followUpsOf[id])], [.. own.SelectMany(id => statedOf[id])],
                rules(aircraft.Category).Bulletins, line, [.. readings[aircraft.Id]], whole);
            return line.With(research);
        }
    }

    /// <summary>What is due on an aircraft by its own items, without bulletins.</summary>
    public static DueLine OwnDue(this RivetDb db, Aircraft aircraft, DateOnly on) => DueLine.Of(aircraft, [.. db.DueOn(aircraft.Id)],
        [.. db.MeterReadings.AsNoTracking().Where(reading => reading.AircraftId == aircraft.Id
            && !(reading.Kind == MeterKind.Tach || reading.Kind == MeterKind.HourMeter))], on);

    /// <summary>Marks as done what an inspection does by being signed.</summary>
    internal static void SetDoneBySigning(this RivetDb db, NextDue next, DateOnly on)
    {
        foreach (var done in next.Done)
            db.DueItems.First(item => item.Id == done.Entry.Item.Id).SetDone(done.Done, on);
    }

    /// <summary>An aircraft with its parts, to look at; null where there is none.</summary>
    public static Task<Aircraft?> AircraftAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.Aircraft.AsNoTracking().WithParts().FirstOrDefaultAsync(row => row.Id == id, stop);

    /// <summary>An aircraft's own row, to look at; null where there is none.</summary>
    public static Task<Aircraft?> PlateAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.Aircraft.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, stop);

    /// <summary>The aircraft of a registration; null where there is none.</summary>
    public static Task<Aircraft?> RegisteredAsync(this RivetDb db, string registration, CancellationToken stop) =>
        db.Aircraft.AsNoTracking().FirstOrDefaultAsync(row => row.Registration == registration, stop);

    /// <summary>An aircraft with its parts, within a write; null where there is none.</summary>
    public static Task<Aircraft?> AircraftToChangeAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.Aircraft.WithParts().FirstOrDefaultAsync(row => row.Id == id, stop);

    /// <summary>An aircraft with everything its meters ever showed, to look at.</summary>
    public static Task<Aircraft> WithMetersAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.Aircraft.AsNoTracking().Include(row => row.MeterReadings).FirstAsync(row => row.Id == id, stop);

    /// <summary>What an aircraft's meters showed, earliest first.</summary>
    public static async Task<IReadOnlyList<MeterReading>> TimesAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        await db.MeterReadings.AsNoTracking().Where(reading => reading.AircraftId == id).OrderBy(reading => reading.On)
            .ThenBy(reading => reading.Id).ToListAsync(stop);

    /// <summary>How often an aircraft's meters were read.</summary>
    public static Task<int> CountTimesAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.MeterReadings.CountAsync(reading => reading.AircraftId == id, stop);

    /// <summary>What an aircraft's meters showed, latest first: so many, after so many.</summary>
    public static async Task<IReadOnlyList<MeterReading>> LatestTimesAsync(this RivetDb db, Guid id, int after, int most,
        CancellationToken stop) =>
        await db.MeterReadings.AsNoTracking().Where(reading => reading.AircraftId == id).OrderByDescending(reading => reading.On)
            .ThenByDescending(reading => reading.Id).Skip(after).Take(most).ToListAsync(stop);

    /// <summary>A due item of an aircraft or of a part on it, within a write; null where it isn't there.</summary>
    public static Task<DueItem?> DueItemAsync(this RivetDb db, Guid aircraftId, Guid id, CancellationToken stop) =>
        db.DueOn(aircraftId).FirstOrDefaultAsync(item => item.Id == id, stop);

    /// <summary>Where a part was, in order.</summary>
    public static async Task<IReadOnlyList<Installation>> StaysOfAsync(this RivetDb db, Guid part, CancellationToken stop) =>
        await db.Installations.AsNoTracking().Where(stay => stay.ComponentId == part).OrderBy(stay => stay.Id).ToListAsync(stop);

    /// <summary>Parts that lie in the shop, by kind.</summary>
    public static async Task<IReadOnlyList<Component>> StoredAsync(this RivetDb db, CancellationToken stop) =>
        await db.InStore().AsNoTracking().OrderBy(part => part.Kind).ToListAsync(stop);

    /// <summary>A part that lies in the shop, within a write; null where it doesn't any more.</summary>
    public static Task<Component?> StoredAsync(this RivetDb db, Guid id, CancellationToken stop) =>
        db.InStore().FirstOrDefaultAsync(part => part.Id == id, stop);

    /// <summary>
    /// What came off with a part when it came off last, within a write. What was fitted elsewhere since then stays there.
    /// </summary>
    public static async Task<IReadOnlyList<Installation>> CameOffWithAsync(this RivetDb db, Component part, CancellationToken stop)
    {
        var last = await db.Installations.Where(stay => stay.ComponentId == part.Id).OrderByDescending(stay => stay.Id).FirstAsync(stop);
        var cameOff = (await db.Aircraft.WithParts().FirstAsync(row => row.Id == last.AircraftId, stop)).CameOffWith(last);
        var ids = cameOff.Select(stay => stay.ComponentId).ToList();
        var elsewhere = await db.Installations.Where(stay => ids.Contains(stay.ComponentId) && stay.RemovedAt == null)
            .Select(stay => stay.ComponentId).ToListAsync(stop);
        return [.. cameOff.Where(stay => !elsewhere.Contains(stay.ComponentId))];
    }
}
