namespace MellowRivet.Core.Trends;

/// <summary>How something wears towards its minimum.</summary>
/// <param name="N">Readings since it was last renewed.</param>
/// <param name="PerHundredHours">What it loses in 100 hours, in the unit of the readings; null where it can't be told.</param>
/// <param name="HoursLeft">Hours in service until it meets the minimum, from the last reading; zero where it is there already.</param>
/// <param name="Earliest">The earliest of them that the readings allow; null under four readings.</param>
/// <param name="Why">What it rests on, or why there is no forecast.</param>
public sealed record Wear(int N, double? PerHundredHours, double? HoursLeft, double? Earliest, string Why)
{
    /// <summary>
    /// Reads the wear off a series of thicknesses. A reading thicker than the one before by more than a hand measures wrong is
    /// a new part, and the series begins anew. Two or three readings give the plain rate between first and last, without a
    /// range; from four on it is the robust line.
    /// </summary>
    /// <param name="points">Thickness against time in service, in any order.</param>
    /// <param name="minimum">The least good thickness.</param>
    /// <param name="resolution">What the gauge can't tell apart, in the unit of the readings.</param>
    public static Wear Of(IEnumerable<TrendPoint> points, double minimum, double resolution)
    {
        var all = points.OrderBy(point => point.Hours).ToList();
        var from = Enumerable.Range(1, Math.Max(0, all.Count - 1))
            .LastOrDefault(index => all[index].Value > all[index - 1].Value + 3 * resolution);
        var series = all[from..];
        if (series.Count == 0)
            return new(0, null, null, null, "No reading yet.");
        var last = series[^1];
        if (last.Value <= minimum)
            return new(series.Count, null, 0, null, "It is at its minimum.");
        var since = from > 0 ? $" since it was renewed before {series[0].Hours:0.#} h" : "";
        if (series.Count == 1 || series[0].Hours == last.Hours)
            return new(series.Count, null, null, null, $"One reading{since}: no rate yet.");
        var trend = Trend.Read(series, limit: minimum, resolution: resolution);
        var perHour = trend.Line is { } line ? -line.Slope : (series[0].Value - last.Value) / (last.Hours - series[0].Hours);
        if (perHour <= 0)
            return new(series.Count, null, null, null, $"No wear to be seen in {series.Count} readings{since}.");
        var left = Math.Max(0, (last.Value - minimum) / perHour);
        return trend.Crossing is { } crossing
            ? new(series.Count, perHour * 100, left, crossing.Earliest is { } early
                ? Math.Clamp(early - last.Hours, 0, left)
                : null, $"From {series.Count} readings{since}, robust line.")
            : new(series.Count, perHour * 100, left, null, $"From {series.Count} readings{since}: a rate, no range.");
    }
}
