using MellowRivet.Core.Trends;

namespace MellowRivet.Web.Drawings;

/// <summary>One small plot of a group, all of which share their scales.</summary>
public sealed record SmallPlot(Series Series, IReadOnlyList<PlotTick> HourTicks, IReadOnlyList<PlotPoint> Points,
    IReadOnlyList<PlotPoint> Others, string? Line, string? Band, double? LimitY, IReadOnlyList<double> Events);

/// <summary>
/// A group of series as small plots on shared scales. On the aircraft's hours they share the hours too; each part's own hours end
/// at its last reading, at the same edge, so that a young part stands beside an old one at the same slope.
/// </summary>
public sealed class SmallMultiple
{
    public const int Width = 210, Height = 118, Left = 38, Right = 8, Top = 8, Bottom = 20;

    private readonly double span, margin, least, most;
    private readonly double? sharedTo;

    /// <summary>A change with its sign and two figures: the readings don't tell more.</summary>
    public static string TwoFigures(double change)
    {
        if (change == 0)
            return "0";
        var step = Math.Pow(10, Math.Floor(Math.Log10(Math.Abs(change))) - 1);
        return (Math.Round(change / step) * step).ToString("+0.########;-0.########;0");
    }

    /// <param name="group">The group.</param>
    /// <param name="others">Another engine's points beside each series, by label; moved so that their last stands over this one's.</param>
    /// <param name="axis">Whose hours the series run on.</param>
    public SmallMultiple(SeriesGroup group, ILookup<string, TrendPoint>? others = null, HoursAxis axis = HoursAxis.Part)
    {
        var all = group.Series.SelectMany(series => series.Points).ToList();
        var reach = axis == HoursAxis.Aircraft
            ? all.Max(point => point.Hours) - all.Min(point => point.Hours)
            : group.Series.Max(series => series.Points[^1].Hours - series.Points[0].Hours);
        margin = reach < 10 ? 50 : 0;
        span = reach + 2 * margin;
        sharedTo = axis == HoursAxis.Aircraft ? all.Max(point => point.Hours) + margin : null;
        var levels = all.Select(point => point.Value).Concat(group.Series.Select(series => series.Limit).OfType<double>()).ToList();
        var room = Math.Max((levels.Max() - levels.Min()) * 0.1, Math.Abs(levels.Max()) * 0.01 + 1e-9);
        (least, most) = (levels.Min() - room, levels.Max() + room);
        ValueTicks = [.. PlotAxis.Ticks(least, most, 3).Select(level => new PlotTick(Y(level), $"{level:0.####}"))];
        Plots = [.. group.Series.Select(series => PlotOf(group, series, [.. others?[series.Label] ?? []]))];
    }

    public IReadOnlyList<PlotTick> ValueTicks { get; }
    public IReadOnlyList<SmallPlot> Plots { get; }

    private SmallPlot PlotOf(SeriesGroup group, Series series, IReadOnlyList<TrendPoint> others)
    {
        var to = sharedTo ?? Math.Max(series.Points[^1].Hours + margin, span / 10);
        var from = to - span;
        double X(double hours) => Left + (hours - from) / span * (Width - Left - Right);
        string At(double hours, double value) => FormattableString.Invariant($"{X(hours):0.#} {Y(value):0.#}");

        var since = series.Events.Where(done => done.Restarts).Select(done => done.Hours).DefaultIfEmpty(double.NegativeInfinity).Max();
        var points = series.Points.Select(
            (point, index) => new PlotPoint(X(point.Hours), Y(point.Value), point.Hours >= since, index == series.Points.Count - 1,
                $"{point.Hours:0.#} h: {point.Value:0.###} {group.Unit}")).ToList();
        var last = series.Points[^1].Hours;
        var shift = others.Count > 0 ? last - others.Max(point => point.Hours) : 0;
        var beside = others.Where(point => point.Hours + shift >= from)
            .Select(point => new PlotPoint(X(point.Hours + shift), Y(point.Value), false, false,
                $"the other: {point.Value:0.###} {group.Unit}")).ToList();
        string? line = null, band = null;
        if (series.Trend.Line is { } fit)
        {
            // Over its own readings alone: what is drawn beyond them, or cut at the edge, would be another slope.
            var begin = series.Points.First(point => point.Hours >= since).Hours;
            line = $"M{At(begin, fit.At(begin))}L{At(last, fit.At(last))}";
            var along = Enumerable.Range(0, 13).Select(step => begin + (last - begin) * step / 12).ToList();
            band = "M" + string.Join("L", along.Select(hours => At(hours, fit.Expect(hours).High))
                .Concat(Enumerable.Reverse(along).Select(hours => At(hours, fit.Expect(hours).Low)))) + "Z";
        }
        return new(series, [.. HoursAlong(from, to).Select(hours => new PlotTick(X(hours), $"{hours:0}"))], points, beside, line, band,
            series.Limit is { } limit
                ? Y(limit)
                : null, [.. series.Events.Where(done => done.Hours >= from).Select(done => X(done.Hours))]);
    }

    // A young part has few round hours on a wide scale: then closer ones.
    private static List<double> HoursAlong(double from, double to)
    {
        List<double> Ticks(int wanted) => [.. PlotAxis.Ticks(from, to, wanted).Where(hours => hours >= 0)];
        return Ticks(3) is { Count: > 1 } few ? few : Ticks(5);
    }

    // A band may reach beyond the plot: it is cut at the edge.
    private double Y(double value) => Height - Bottom - Math.Clamp((value - least) / (most - least), 0, 1) * (Height - Top - Bottom);
}
