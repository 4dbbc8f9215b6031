using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>A laboratory's samples of an engine's oil, put on file.</summary>
public static class OilSamples
{
    /// <summary>
    /// Adds the samples that aren't here yet, all or none; saving is the caller's. One taken while the engine was on another
    /// aircraft is counted on that one's hours.
    /// </summary>
    /// <param name="db">The shop, within a write.</param>
    /// <param name="aircraft">The aircraft it is on now.</param>
    /// <param name="engine">The engine.</param>
    /// <param name="samples">The samples.</param>
    /// <param name="by">Who brings them.</param>
    /// <param name="today">The day.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<Refusal?> TakeInAsync(this RivetDb db, Aircraft aircraft, Component engine, IReadOnlyList<OilSample> samples,
        Guid by, DateOnly today, CancellationToken stop)
    {
        var hours = new PartHours(await db.Installations.Where(stay => stay.ComponentId == engine.Id).ToListAsync(stop));
        var names = await db.Aircraft.Where(row => db.Installations.Any(stay => stay.ComponentId == engine.Id && stay.AircraftId == row.Id))
            .ToDictionaryAsync(row => row.Id, row => (row.Registration, row.TimeInService), stop);
        var there = (await db.SeriesOf([engine.Id]).Where(reading => reading.Kind.StartsWith("oil-"))
            .Select(reading => new { reading.Kind, reading.AircraftId, reading.TimeInService }).ToListAsync(stop))
            .Select(reading => (reading.Kind, reading.AircraftId, reading.TimeInService)).ToHashSet();
        foreach (var sample in samples)
        {
            var stay = hours.StayOn(sample.On);
            var (on, had) = stay is not null && names.TryGetValue(stay.AircraftId, out var where)
                ? where
                : (aircraft.Registration, aircraft.TimeInService);
            if (sample.TimeInService > had || sample.On > today)
                return new("lab",
                    $"The sample of {sample.On:yyyy-MM-dd} at {sample.TimeInService} h is still to come: {on} has {had}"
                    + $" h. Nothing was taken in.");
            if (stay is not null && stay.AircraftId != aircraft.Id
                && (sample.TimeInService < stay.InstalledAt || sample.TimeInService > stay.RemovedAt))
                return new("lab",
                    $"On {sample.On:yyyy-MM-dd} the engine was on {on}, from {stay.InstalledAt} to {stay.RemovedAt} h of it, and the "
                    + $"table has {sample.TimeInService} h. Nothing was taken in.");
            foreach (var (kind, value) in sample.Ppm.Append(new("oil-hours", sample.OilHours ?? -1))
                .Where(one => one.Value >= 0 && there.Add((one.Key, stay?.AircraftId ?? aircraft.Id, sample.TimeInService))))
                db.Readings.Add(new(Guid.CreateVersion7(), stay?.AircraftId ?? aircraft.Id, engine.Id, kind, "", value, kind == "oil-hours"
                    ? Unit.Hour
                    : Unit.PartsPerMillion, new(), sample.TimeInService,
                    new(sample.On.ToDateTime(new TimeOnly(12, 0)), TimeSpan.Zero), by));
        }
        return null;
    }
}
