using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Compression;

/// <summary>
/// Compressions over the years, in leak area: on its own hours those of the cylinder that is fitted now, wherever it flew; on the
/// aircraft's every reading taken at its place, with the cylinders that were changed. The trend is the fitted one's, both ways.
/// </summary>
/// <param name="Axis">Whose hours it runs on.</param>
/// <param name="Readings">The last try of each time, earliest first.</param>
/// <param name="Events">What was done since that begins a new series: another cylinder, an overhaul.</param>
/// <param name="LimitArea">The leak area of the engine's floor, × master orifice; null where the floor isn't known.</param>
/// <param name="Trend">The trend of leak area, × master orifice per hour.</param>
/// <param name="ToAircraft">What is added to its hours to get the aircraft's; zero where it runs on those.</param>
public sealed record CylinderHistory(HoursAxis Axis, IReadOnlyList<Reading> Readings, IReadOnlyList<TrendEvent> Events, double? LimitArea,
    TrendReading Trend, double ToAircraft)
{
    /// <summary>How the last reading differs from what those before it led to expect; null where it doesn't.</summary>
    public Surprise? Surprise => Readings.Count == 0 ? null
        : new Series("", null, [.. Readings.Select(reading => new TrendPoint(At(reading), reading.LeakArea))], Events, LimitArea, Trend, 0)
            { Worse = Direction.Rising }.Surprise;

    /// <summary>It leaks more than its readings led to expect.</summary>
    public bool IsWorseThanExpected => Surprise == Trends.Surprise.Worse;

    /// <summary>Where a reading stands on the axis.</summary>
    public double At(Reading reading) => reading.On(Axis);

    /// <param name="aircraft">The aircraft with its components, those taken off too.</param>
    /// <param name="engine">One of its engines.</param>
    /// <param name="number">The cylinder's number.</param>
    /// <param name="compressions">Compressions of any cylinder, aircraft and time.</param>
    /// <param name="conditions">The conditions under which the limit is drawn: the latest test's, or the usual.</param>
    /// <param name="axis">Whose hours it runs on.</param>
    public static CylinderHistory Of(Aircraft aircraft, Component engine, int number, IEnumerable<Reading> compressions,
        TestConditions? conditions, HoursAxis axis = HoursAxis.Part)
    {
        var fitted = aircraft.Installations
            .Where(stay => stay.Component.Kind == ComponentKind.Cylinder && stay.ParentId == engine.Id
                && stay.Position == number.ToString())
            .OrderBy(stay => stay.InstalledAt).ToList();
        var now = aircraft.Cylinder(engine, number);
        var readings = compressions
            .Where(reading => reading.Kind == Reading.CompressionKind && reading.Value > 0 && (axis == HoursAxis.Part
                ? reading.ComponentId == now?.Id && now is not null
                : reading.AircraftId == aircraft.Id && fitted.Any(cylinder => cylinder.ComponentId == reading.ComponentId)))
            .GroupBy(reading => reading.On(axis))
            .Select(tries => tries.MaxBy(reading => reading.At)!)
            .OrderBy(reading => reading.On(axis)).ToList();
        List<TrendEvent> events = axis == HoursAxis.Part
            ? [.. (now?.Overhauls ?? []).Where(done => done.OwnTime is not null)
                .Select(done => new TrendEvent((double)done.OwnTime!.Value.Value, Restarts: true, "overhaul", done.Reference))]
            : [.. fitted.Zip(fitted.Skip(1),
                (old, fresh) => new TrendEvent((double)fresh.InstalledAt.Value, Restarts: true, old.ComponentId == fresh.ComponentId
                    ? "fitted again"
                    : "new cylinder", old.RemovedWhy))];

        var under = conditions ?? TestConditions.Usual;
        var limit = (engine.CompressionRule ?? new(CompressionSchool.SixtyOfEighty)).Limits().RejectBelow(under) is { Value: > 0 } floor
            && floor <= under.Supply
            ? LeakArea.MultipleOfMaster(floor, under.Supply, under.Ambient)
            : (double?)null;
        var points = readings.Select(reading => new TrendPoint(reading.On(axis), reading.LeakArea));
        return new(axis, readings, events, limit, Trends.Trend.Read(points, events, limit, Direction.Rising, Resolution(readings)),
            axis == HoursAxis.Part && now is not null ? aircraft.Fitting(now.Id)!.ToAircraft(readings) : 0);
    }

    // A gauge is read to half a pound; what that is in leak area depends on where the needle stands.
    private static double Resolution(List<Reading> readings)
    {
        if (readings.Count == 0 || readings[^1].Value <= 0.5)
            return 0;
        var last = readings[^1];
        var (supply, ambient) = (new Psi(last.Conditions.SupplyPsi ?? 80),
            new Psi(last.Conditions.AmbientPsi ?? Psi.StandardAmbient.Value));
        return LeakArea.MultipleOfMaster(new Psi(last.Value - 0.5), supply, ambient) - last.LeakArea;
    }
}
