using MellowRivet.Core.Trends;

namespace MellowRivet.Web.Look;

/// <summary>One small plot of a group, all of which share their axes.</summary>
public sealed record SmallPlot(Series Series, IReadOnlyList<PlotPoint> Points, IReadOnlyList<PlotPoint> Others, string? Line, string? Band, double? LimitY, IReadOnlyList<double> Events);

/// <summary>A group of series as small plots on shared axes.</summary>
public sealed class SmallMultiple
{
    public const int Width = 210, Height = 118, Left = 38, Right = 8, Top = 8, Bottom = 20;

    private readonly double from, to, least, most;

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
    public SmallMultiple(SeriesGroup group, ILookup<string, TrendPoint>? others = null)
    {
        var all = group.Series.SelectMany(series => series.Points).ToList();
        (from, to) = (all.Min(point => point.Hours), all.Max(point => point.Hours));
        if (to - from < 10)
            (from, to) = (from - 50, to + 50);
        var levels = all.Select(point => point.Value).Concat(group.Series.Select(series => series.Limit).OfType<double>()).ToList();
        var room = Math.Max((levels.Max() - levels.Min()) * 0.1, Math.Abs(levels.Max()) * 0.01 + 1e-9);
        (least, most) = (levels.Min() - room, levels.Max() + room);
        HourTicks = [.. PlotAxis.Ticks(from, to, 3).Select(hours => new PlotTick(X(hours), $"{hours:0}"))];
        ValueTicks = [.. PlotAxis.Ticks(least, most, 3).Select(level => new PlotTick(Y(level), $"{level:0.####}"))];
        Plots = [.. group.Series.Select(series => PlotOf(group, series, [.. others?[series.Label] ?? []]))];
    }

    public IReadOnlyList<PlotTick> HourTicks { get; }
    public IReadOnlyList<PlotTick> ValueTicks { get; }
    public IReadOnlyList<SmallPlot> Plots { get; }

    private SmallPlot PlotOf(SeriesGroup group, Series series, IReadOnlyList<TrendPoint> others)
    {
        var since = series.Events.Where(done => done.Restarts).Select(done => done.Hours).DefaultIfEmpty(double.NegativeInfinity).Max();
        var points = series.Points.Select((point, index) => new PlotPoint(X(point.Hours), Y(point.Value), point.Hours >= since, index == series.Points.Count - 1, $"{point.Hours:0.#} h: {point.Value:0.###} {group.Unit}")).ToList();
        var last = series.Points.Count > 0 ? series.Points[^1].Hours : 0;
        var shift = others.Count > 0 ? last - others.Max(point => point.Hours) : 0;
        var beside = others.Where(point => point.Hours + shift >= from).Select(point => new PlotPoint(X(point.Hours + shift), Y(point.Value), false, false, $"the other: {point.Value:0.###} {group.Unit}")).ToList();
        string? line = null, band = null;
        if (series.Trend.Line is { } fit)
        {
            var begin = Math.Max(from, since);
            line = FormattableString.Invariant($"M{X(begin):0.#} {Y(fit.At(begin)):0.#}L{X(to):0.#} {Y(fit.At(to)):0.#}");
            var along = Enumerable.Range(0, 13).Select(step => begin + (to - begin) * step / 12).ToList();
            band = "M" + string.Join("L", along.Select(hours => At(hours, fit.Expect(hours).High)).Concat(Enumerable.Reverse(along).Select(hours => At(hours, fit.Expect(hours).Low)))) + "Z";
        }
        return new(series, points, beside, line, band, series.Limit is { } limit ? Y(limit) : null, [.. series.Events.Where(done => done.Hours >= from).Select(done => X(done.Hours))]);
    }

    private string At(double hours, double value) => FormattableString.Invariant($"{X(hours):0.#} {Y(value):0.#}");

    private double X(double hours) => Left + (hours - from) / (to - from) * (Width - Left - Right);

    // A band may reach beyond the plot: it is cut at the edge.
    private double Y(double value) => Height - Bottom - Math.Clamp((value - least) / (most - least), 0, 1) * (Height - Top - Bottom);
}
