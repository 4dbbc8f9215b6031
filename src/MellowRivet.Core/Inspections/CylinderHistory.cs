using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Inspections;

/// <summary>
/// The compressions of one cylinder place over the years, in leak area: every reading ever taken there, the cylinders
/// that were changed, and the trend of the one that is fitted now.
/// </summary>
/// <param name="Readings">The last try of each time in service, earliest first.</param>
/// <param name="Events">Cylinders fitted since; each begins a new series.</param>
/// <param name="LimitArea">The leak area of the engine's floor, × master orifice; null where the floor isn't known.</param>
/// <param name="Trend">The trend of leak area, × master orifice per hour.</param>
public sealed record CylinderHistory(IReadOnlyList<Reading> Readings, IReadOnlyList<TrendEvent> Events, double? LimitArea, TrendReading Trend)
{
    /// <param name="aircraft">The aircraft with its components, those taken off too.</param>
    /// <param name="engine">One of its engines.</param>
    /// <param name="number">The cylinder's number.</param>
    /// <param name="compressions">Compressions of the aircraft, of any cylinder and time.</param>
    /// <param name="conditions">The conditions under which the limit is drawn: the latest test's, or the usual.</param>
    public static CylinderHistory Of(Aircraft aircraft, Component engine, int number, IEnumerable<Reading> compressions, TestConditions? conditions)
    {
        var fitted = aircraft.Installations
            .Where(stay => stay.Component.Kind == ComponentKind.Cylinder && stay.ParentId == engine.Id && stay.Position == number.ToString())
            .OrderBy(stay => stay.InstalledAt).ToList();
        var readings = compressions
            .Where(reading => reading.Kind == Reading.CompressionKind && reading.Value > 0 && fitted.Any(cylinder => cylinder.ComponentId == reading.ComponentId))
            .GroupBy(reading => reading.TimeInService)
            .Select(tries => tries.MaxBy(reading => reading.At)!)
            .OrderBy(reading => reading.TimeInService).ToList();
        var events = fitted.Zip(fitted.Skip(1), (old, fresh) =>
            new TrendEvent((double)fresh.InstalledAt.Value, Restarts: true, "new cylinder", old.RemovedWhy)).ToList();

        var under = conditions ?? TestConditions.Usual;
        var limit = (engine.CompressionRule ?? new(CompressionSchool.SixtyOfEighty)).Limits().RejectBelow(under) is { Value: > 0 } floor && floor <= under.Supply
            ? LeakArea.MultipleOfMaster(floor, under.Supply, under.Ambient)
            : (double?)null;
        var points = readings.Select(reading => new TrendPoint((double)reading.TimeInService.Value, reading.LeakArea));
        return new(readings, events, limit, Trends.Trend.Read(points, events, limit, Direction.Rising, Resolution(readings)));
    }

    // A gauge is read to half a pound; what that is in leak area depends on where the needle stands.
    private static double Resolution(List<Reading> readings)
    {
        if (readings.Count == 0 || readings[^1].Value <= 0.5)
            return 0;
        var last = readings[^1];
        var (supply, ambient) = (new Psi(last.Conditions.SupplyPsi ?? 80), new Psi(last.Conditions.AmbientPsi ?? Psi.StandardAmbient.Value));
        return LeakArea.MultipleOfMaster(new Psi(last.Value - 0.5), supply, ambient) - last.LeakArea;
    }
}
