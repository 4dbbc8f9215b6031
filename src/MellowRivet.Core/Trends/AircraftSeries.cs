using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Trends;

/// <summary>One series: what was measured at one place of one part, over the years.</summary>
/// <param name="Label">Where, short: a cylinder's number, a plug's, "left".</param>
/// <param name="Component">The part whose series it is; null for the airframe.</param>
/// <param name="Points">Values against hours, earliest first, in the group's unit.</param>
/// <param name="Events">What was done to the part.</param>
/// <param name="Limit">The level it must not reach; null where none is known.</param>
/// <param name="Trend">The series read as a trend.</param>
/// <param name="ToAircraft">What is added to its hours to get this aircraft's; zero where it runs on those.</param>
public sealed record Series(string Label, Component? Component, IReadOnlyList<TrendPoint> Points, IReadOnlyList<TrendEvent> Events,
    double? Limit, TrendReading Trend, double ToAircraft)
{
    /// <summary>Which way is worse; null where neither is.</summary>
    public Direction? Worse { get; init; }

    /// <summary>
    /// How the last reading differs from what those before it led to expect; null where it doesn't, and where it lies inside the band that
    /// is drawn through all of them.
    /// </summary>
    public Surprise? Surprise
    {
        get
        {
            if (Trend.LastIsUnusual != true || Trend.LastExpected is not { } expected || Trend.Line is not { } line)
                return null;
            var (last, drawn) = (Points[^1], line.Expect(Points[^1].Hours));
            if (last.Value >= drawn.Low && last.Value <= drawn.High)
                return null;
            var above = last.Value > expected.High;
            return Worse is not { } worse ? above ? Trends.Surprise.Higher : Trends.Surprise.Lower
                : above == (worse == Direction.Rising) ? Trends.Surprise.Worse : Trends.Surprise.Better;
        }
    }

    /// <summary>Better than expected is no warning.</summary>
    public bool IsUnusual => Surprise is not (null or Trends.Surprise.Better);

    /// <summary>Already past its limit, or expected there within 100 h.</summary>
    public bool NearsLimit =>
        Trend.IsPast || Trend.Crossing is { } crossing && Points.Count > 0 && crossing.Hours <= Points[^1].Hours + 100;

    /// <summary>
    /// Where the line meets the limit, no further ahead than the readings it rests on reach back; null beyond, where a line says nothing.
    /// </summary>
    public Crossing? Foreseen =>
        Trend.Crossing is { } crossing && Trend.N > 0
            && crossing.Hours - Points[^1].Hours <= Points[^1].Hours - Points[^Math.Min(Trend.N, Points.Count)].Hours ? crossing : null;
}

/// <summary>Series of one kind beside each other, on shared axes.</summary>
/// <param name="Kind">What was measured, as it is stored.</param>
/// <param name="Title">The same in words.</param>
/// <param name="Unit">The unit of every point.</param>
/// <param name="Direction">Which way is worse; null where neither is.</param>
/// <param name="Series">The series, by place.</param>
public sealed record SeriesGroup(string Kind, string Title, string Unit, Direction? Direction, IReadOnlyList<Series> Series)
{
    public bool IsUnusual => Series.Any(series => series.IsUnusual);

    public bool NearsLimit => Series.Any(series => series.NearsLimit);
}

/// <summary>Every series of an aircraft, those that are unusual now first.</summary>
public static class AircraftSeries
{
    private sealed record Known(string Title, Direction? Direction, double? Limit = null);

    // Names and which way is worse; where nothing is known the stored name is shown and neither way is called worse.
    private static readonly Dictionary<string, Known> Kinds = new()
    {
        [Reading.CompressionKind] = new("Compression, as leak area", Direction.Rising),
        [PlugKinds.Ohms] = new("Plug resistance", Direction.Rising, PlugLimits.Magneto.OhmsReject),
        [PlugKinds.GapFound] = new("Plug gap as found", Direction.Rising, PlugLimits.Magneto.GapMost),
        [PlugKinds.GapSet] = new("Plug gap as set", null), [PlugKinds.Torque] = new("Plug torque", null),
        ["oil-pressure"] = new("Oil pressure", Direction.Falling), ["oil-temperature"] = new("Oil temperature", Direction.Rising),
        ["fuel-pressure"] = new("Fuel pressure", Direction.Falling),
        ["cylinder-temperature"] = new("Cylinder or coolant temperature", Direction.Rising),
        ["static-rpm"] = new("Static rpm", Direction.Falling), ["idle-rpm"] = new("Idle rpm", null),
        ["mag-drop-left"] = new("Drop, left ignition", Direction.Rising, MagnetoDrop.Most),
        ["mag-drop-right"] = new("Drop, right ignition", Direction.Rising, MagnetoDrop.Most),
        [OilUse.AddedKind] = new("Oil: hours a litre", Direction.Falling),
    };

    /// <summary>Kinds that are no series of their own: hours on the oil, and points against altitude.</summary>
    private static readonly HashSet<string> LeftOut = ["oil-hours", Inspection.AltitudeKind, PlugKinds.Torque, PlugKinds.GapSet];

    /// <param name="aircraft">The aircraft with its parts, those taken off too.</param>
    /// <param name="readings">All its readings, and those of the parts that are on it from wherever they flew.</param>
    /// <param name="axis">Whose hours the series run on.</param>
    public static IReadOnlyList<SeriesGroup> Of(Aircraft aircraft, IReadOnlyCollection<Reading> readings,
        HoursAxis axis = HoursAxis.Part) =>
    [
        .. readings.Where(reading => !LeftOut.Contains(reading.Kind) && (axis == HoursAxis.Part || reading.AircraftId == aircraft.Id))
            .GroupBy(reading => reading.Kind).Select(kind => GroupOf(aircraft, kind.Key, [.. kind], axis))
            .Where(group => group.Series.Count > 0)
            .OrderByDescending(group => group.IsUnusual).ThenByDescending(group => group.NearsLimit)
            .ThenBy(group => Array.IndexOf([.. Kinds.Keys], group.Kind) is var place and >= 0 ? place : int.MaxValue)
            .ThenBy(group => group.Title, StringComparer.Ordinal),
    ];

    /// <summary>What a kind of reading is called.</summary>
    public static string TitleOf(string kind) => (Kinds.GetValueOrDefault(kind) ?? NamedElsewhere(kind)).Title;

    private static SeriesGroup GroupOf(Aircraft aircraft, string kind, List<Reading> readings, HoursAxis axis)
    {
        var known = Kinds.GetValueOrDefault(kind) ?? NamedElsewhere(kind);
        if (kind == Reading.CompressionKind)
            return new(kind, known.Title, "× master orifice", known.Direction, [.. Compressions(aircraft, readings, axis)]);
        var unit = Unit.Find(readings.MaxBy(reading => reading.At)!.UnitSymbol)!;
        var own = aircraft.LimitOf(kind);
        double? limit = own is null
            ? known.Limit
            : (known.Direction == Direction.Falling ? own.Low : known.Direction == Direction.Rising ? own.High : null) is { } level
            ? Unit.Find(own.UnitSymbol)!.To(unit, level)
            : null;
        var fitted = readings.Where(reading => reading.ComponentId is not { } part || aircraft.Fitting(part) is not null);
        var series = fitted.GroupBy(reading => (reading.ComponentId, Position: PlaceOf(reading, kind)))
            .Select(group => One(aircraft, kind, group.Key.ComponentId, group.Key.Position, [.. group], unit, limit, known.Direction, axis))
            .Where(one => one.Points.Count > 0).OrderBy(one => one.Label, StringComparer.Ordinal).ToList();
        return new(kind, known.Title, kind == OilUse.AddedKind ? "h/l" : unit.Symbol, known.Direction, series);
    }

    // A plug's series goes with the plug, whichever hole it sat in; what a task or the run after the work measured is one series.
    private static string PlaceOf(Reading reading, string kind) =>
        kind.StartsWith("plug-", StringComparison.Ordinal) || reading.TaskId is not null || reading.Position == SheetValue.After
            ? ""
            : reading.Position;

    private static Series One(Aircraft aircraft, string kind, Guid? componentId, string position, List<Reading> readings, Unit unit,
        double? limit, Direction? direction, HoursAxis axis)
    {
        var stay = componentId is { } id ? aircraft.Fitting(id) : null;
        var label = string.Join(" ",
            new[] { stay is null || stay.Component.Kind == ComponentKind.Engine && stay.Position.Length == 0
                ? ""
                : stay.Component.Kind == ComponentKind.Plug
                ? $"{stay.Position} · {stay.Component.SerialNumber}"
                : aircraft.PlaceOf(stay), position }.Where(words => words.Length > 0));
        var points = kind == OilUse.AddedKind
            ? OilUse.Of(readings, axis).Points
            : [.. readings.GroupBy(reading => reading.On(axis)).Select(same => same.MaxBy(reading => reading.At)!)
                .OrderBy(reading => reading.On(axis))
                .Select(reading => PointOf(reading, axis, Unit.Find(reading.UnitSymbol)!.To(unit, reading.Value)))];
        var toAircraft = stay?.ToAircraft(readings) ?? 0;
        var events = stay?.Component.Overhauls.Where(done => done.OwnTime is not null)
            .Select(done => new TrendEvent((double)done.OwnTime!.Value.Value + (axis == HoursAxis.Part ? 0 : toAircraft), true, "overhaul",
                done.Reference)).Where(done => done.Hours >= 0).ToList() ?? [];
        return new(label, stay?.Component, points, events, limit,
            Trend.Read(points, events, limit, direction ?? Direction.Rising, Resolution(unit)), axis == HoursAxis.Part ? toAircraft : 0)
        { Worse = direction };
    }

    private static TrendPoint PointOf(Reading reading, HoursAxis axis, double value) => new(reading.On(axis), value) { Of = reading };

    private static IEnumerable<Series> Compressions(Aircraft aircraft, List<Reading> readings, HoursAxis axis) =>
        from engine in aircraft.Engines
        from place in engine.Component.Layout.Cylinders
        let history = CylinderHistory.Of(aircraft, engine.Component, place.Number, readings, null, axis)
        where history.Readings.Count > 0
        let cylinder = aircraft.Cylinder(engine.Component, place.Number)
        select new Series($"{engine.Position} {place.Number}".Trim(), cylinder
            ?? engine.Component, [.. history.Readings.Select(reading => PointOf(reading, axis, reading.LeakArea))],
            history.Events, history.LimitArea, history.Trend,
            history.ToAircraft) { Worse = Direction.Rising };

    private static Known NamedElsewhere(string kind)
    {
        if (OilMetals.All.FirstOrDefault(metal => metal.Kind == kind) is { } metal)
            return new($"{metal.Name} in the oil", Direction.Rising);
        if (MagnetoSheet.Values.FirstOrDefault(value => value.Kind == kind) is { } value)
            return new(value.Name, null);
        return new(char.ToUpperInvariant(kind[0]) + kind[1..].Replace('-', ' '), null);
    }

    // What an instrument of the trade can't tell apart: a band is never narrower.
    private static double Resolution(Unit unit) =>
        unit.Symbol switch { "in" => 0.0005, "rpm" => 10, "Ω" => 50, "°C" => 1, "psi" => 0.5, "ppm" => 1, "°" => 0.5, "V" => 0.05, _ => 0 };
}
