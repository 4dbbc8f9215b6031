using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;

namespace MellowRivet.Web.Drawings;

/// <summary>A small plot of one kind of reading against time in service, between its limits.</summary>
public sealed class ReadingPlot
{
    public const int Width = 290, Height = 150, Left = 44, Right = 10, Top = 10, Bottom = 26;

    private readonly double fromHours, toHours, least, most;

    public ReadingPlot(IReadOnlyList<TrendPoint> series, ToleranceBand band)
    {
        (fromHours, toHours) = (series.Min(point => point.Hours), series.Max(point => point.Hours));
        if (toHours - fromHours < 10)
            (fromHours, toHours) = (fromHours - 50, toHours + 50);
        var levels = series.Select(point => point.Value).Concat(new[] { band.Low, band.High }.OfType<double>()).ToList();
        var room = Math.Max((levels.Max() - levels.Min()) * 0.12, Math.Abs(levels.Max()) * 0.01 + 1e-6);
        (least, most) = (levels.Min() - room, levels.Max() + room);
        var last = series.Max(point => point.Hours);
        Points = [.. series.OrderBy(point => point.Hours)
            .Select(point => new PlotPoint(X(point.Hours), Y(point.Value), true, point.Hours == last,
                $"{point.Hours:0.#} h: {point.Value:0.###} {band.Unit}"))];
        Limits = [.. new[] { band.Low, band.High }.OfType<double>().Select(level => new PlotTick(Y(level), $"{level:0.###}"))];
        HourTicks = [.. PlotAxis.Ticks(fromHours, toHours, 3).Select(hours => new PlotTick(X(hours), $"{hours:0}"))];
        ValueTicks = [.. PlotAxis.Ticks(least, most, 3).Select(level => new PlotTick(Y(level), $"{level:0.###}"))];
    }

    public IReadOnlyList<PlotPoint> Points { get; }
    public IReadOnlyList<PlotTick> Limits { get; }
    public IReadOnlyList<PlotTick> HourTicks { get; }
    public IReadOnlyList<PlotTick> ValueTicks { get; }

    private double X(double hours) => Left + (hours - fromHours) / (toHours - fromHours) * (Width - Left - Right);

    private double Y(double value) => Height - Bottom - (value - least) / (most - least) * (Height - Top - Bottom);
}

/// <summary>Marks along an axis.</summary>
public static class PlotAxis
{
    /// <summary>Round steps of 1, 2 or 5 times a power of ten, about as many as wanted.</summary>
    public static IEnumerable<double> Ticks(double from, double to, int wanted)
    {
        var rough = (to - from) / wanted;
        var power = Math.Pow(10, Math.Floor(Math.Log10(rough)));
        var step = power * (rough / power) switch { < 1.5 => 1, < 3.5 => 2, < 7.5 => 5, _ => 10 };
        for (var tick = Math.Ceiling(from / step) * step; tick <= to; tick += step)
            yield return Math.Abs(tick) < step / 1e6 ? 0 : tick;
    }
}
