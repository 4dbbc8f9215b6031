using MathNet.Numerics.Statistics;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Oil;

/// <summary>How much oil an engine uses.</summary>
/// <param name="Points">The engine's own hours against hours flown per litre, earliest first.</param>
/// <param name="HoursPerLitre">The latest; null with fewer than two notes of oil added.</param>
/// <param name="Trend">Its trend: falling is worse.</param>
public sealed record OilUse(IReadOnlyList<TrendPoint> Points, double? HoursPerLitre, TrendReading Trend)
{
    public const string AddedKind = "oil-added";

    /// <summary>The same in hours per US quart.</summary>
    public double? HoursPerQuart => HoursPerLitre is { } per ? per * Unit.Quart.To(Unit.Litre, 1) : null;

    /// <summary>Reads consumption off what was added: each note covers the hours since the one before.</summary>
    /// <param name="added">Readings of oil added to one engine, in any order.</param>
    /// <param name="axis">Whose hours it runs on.</param>
    public static OilUse Of(IEnumerable<Reading> added, HoursAxis axis = HoursAxis.Part)
    {
        var notes = added.Where(reading => reading.Kind == AddedKind).OrderBy(reading => reading.On(axis)).ToList();
        var points = notes.Zip(notes.Skip(1)).Where(pair => pair.Second.Value > 0 && pair.Second.On(axis) > pair.First.On(axis))
            .Select(pair => new TrendPoint(pair.Second.On(axis),
                (pair.Second.On(axis) - pair.First.On(axis)) / Unit.Find(pair.Second.UnitSymbol)!.To(Unit.Litre, pair.Second.Value)))
                    .ToList();
        return new(points, points.Count == 0 ? null : points[^1].Value, Trends.Trend.Read(points));
    }
}

/// <summary>A laboratory value against this engine's own history.</summary>
/// <param name="Metal">Which metal.</param>
/// <param name="Ppm">The latest, parts per million.</param>
/// <param name="PerHundredHours">The same over the hours the oil had, ppm in 100 h; null where the hours aren't known.</param>
/// <param name="Usual">The median of the rates before; null with fewer than three.</param>
/// <param name="IsUnusual">More than three times the spread above the usual; null where it can't be told.</param>
public sealed record OilMetal(OilMetals.Metal Metal, double Ppm, double? PerHundredHours, double? Usual, bool? IsUnusual)
{
    // As many robust standard deviations above the usual; and never fewer ppm than a laboratory's own scatter.
    private const double Deviations = 3, LeastSpread = 1;

    /// <param name="readings">Readings of one engine, of any kind.</param>
    public static IReadOnlyList<OilMetal> Of(IReadOnlyCollection<Reading> readings)
    {
        var hours = readings.Where(reading => reading.Kind == "oil-hours").GroupBy(reading => reading.SeriesTime.Value)
            .ToDictionary(group => group.Key, group => group.MaxBy(reading => reading.At)!.Value);
        return [.. OilMetals.All.Select(
            metal => Of(metal, readings.Where(reading => reading.Kind == metal.Kind).OrderBy(reading => reading.SeriesTime.Value)
                .ThenBy(reading => reading.At).ToList(), hours)).OfType<OilMetal>()];
    }

    private static OilMetal? Of(OilMetals.Metal metal, List<Reading> values, Dictionary<decimal, double> hours)
    {
        if (values.Count == 0)
            return null;
        double? Rate(Reading value) => hours.TryGetValue(value.SeriesTime.Value, out var on) && on > 0 ? value.Value / on * 100 : null;
        var latest = values[^1];
        var before = values[..^1].Select(Rate).OfType<double>().ToList();
        double? usual = before.Count >= 3 ? before.Median() : null;
        if (usual is not { } middle || Rate(latest) is not { } rate)
            return new(metal, latest.Value, Rate(latest), usual, null);
        var spread = Math.Max(LeastSpread, 1.4826 * before.Select(one => Math.Abs(one - middle)).Median());
        return new(metal, latest.Value, rate, usual, rate > middle + Deviations * spread);
    }
}
