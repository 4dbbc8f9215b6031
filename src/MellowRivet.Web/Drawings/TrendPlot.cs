using MellowRivet.Core.Compression;
using MellowRivet.Core.Measures;

namespace MellowRivet.Web.Drawings;

/// <summary>A point on the plot, in pixels, with what it says.</summary>
public sealed record PlotPoint(double X, double Y, bool Counts, bool IsLast, string Title);

/// <summary>A mark on an axis.</summary>
public sealed record PlotTick(double At, string Text);

/// <summary>The trend of a cylinder as a plot: leak area against hours, with the matching psi on the right.</summary>
public sealed class TrendPlot
{
    public const int Width = 560, Height = 270, Left = 44, Right = 44, Top = 14, Bottom = 34;

    private readonly double fromHours, toHours, mostArea;

    public TrendPlot(CylinderHistory history, TestConditions? conditions)
    {
        var readings = history.Readings;
        var under = conditions ?? TestConditions.Usual;
        var trend = history.Trend;
        fromHours = history.At(readings[0]);
        toHours = Math.Max(history.At(readings[^1]), trend.NextHours ?? 0);
        if (toHours - fromHours < 10)
            (fromHours, toHours) = (fromHours - 50, toHours + 50);
        mostArea = 1.12 * Math.Max(history.LimitArea ?? 0, Math.Max(0.4, readings.Max(reading => reading.LeakArea)));

        var since = history.Events.Count == 0 ? fromHours : history.Events.Max(done => done.Hours);
        Points = [.. readings.Select((reading, index) => new PlotPoint(X(history.At(reading)), Y(reading.LeakArea),
            history.At(reading) >= since, index == readings.Count - 1,
            $"{history.At(reading):0.#} h, {reading.At:yyyy-MM-dd}: {reading.Value:0.#}/{reading.Conditions.SupplyPsi ?? 80:0.#}, leak "
            + $"area {reading.LeakArea:0.00}"))];
        Events = [.. history.Events.Where(done => done.Hours >= fromHours).Select(done => new PlotTick(X(done.Hours), done.What))];
        LimitY = history.LimitArea is { } limit ? Y(limit) : null;
        LimitText = history.LimitArea is { } area
            ? $"limit {LeakArea.ReadingFor(area, under.Supply, under.Ambient).Value:0.#}/{under.Supply} = {area:0.00}"
            : null;
        HourTicks = [.. PlotAxis.Ticks(fromHours, toHours, 5).Select(hours => new PlotTick(X(hours), $"{hours:0}"))];
        AreaTicks = [.. PlotAxis.Ticks(0, mostArea, 5).Select(level => new PlotTick(Y(level), $"{level:0.0#}"))];
        PsiTicks = [.. PsiScale(under)];

        if (trend.Line is { } line)
        {
            var first = Math.Max(since, fromHours);
            Line = FormattableString.Invariant($"M{X(first):0.#} {Y(line.At(first)):0.#} L{X(toHours):0.#} {Y(line.At(toHours)):0.#}");
            const int steps = 24;
            var along = Enumerable.Range(0, steps + 1).Select(step => first + (toHours - first) * step / steps).ToList();
            var upper = along.Select(hours => Point(hours, line.Expect(hours).High));
            var lower = Enumerable.Reverse(along).Select(hours => Point(hours, line.Expect(hours).Low));
            Band = "M" + string.Join(" L", upper.Concat(lower)) + " Z";
        }
    }

    public IReadOnlyList<PlotPoint> Points { get; }
    public IReadOnlyList<PlotTick> Events { get; }
    public IReadOnlyList<PlotTick> HourTicks { get; }
    public IReadOnlyList<PlotTick> AreaTicks { get; }
    public IReadOnlyList<PlotTick> PsiTicks { get; }
    public double? LimitY { get; }
    public string? LimitText { get; }
    public string? Line { get; }
    public string? Band { get; }

    private double X(double hours) => Left + (hours - fromHours) / (toHours - fromHours) * (Width - Left - Right);

    private double Y(double area) => Height - Bottom - Math.Clamp(area / mostArea, 0, 1.02) * (Height - Top - Bottom);

    private string Point(double hours, double area) => FormattableString.Invariant($"{X(hours):0.#} {Y(area):0.#}");

    // The psi scale is crooked: a figure stands wherever there is room for it, from the supply down.
    private IEnumerable<PlotTick> PsiScale(TestConditions under)
    {
        var last = double.PositiveInfinity;
        for (var psi = Math.Ceiling(under.Supply.Value) - 1; psi > 0; psi--)
        {
            var area = LeakArea.MultipleOfMaster(new Psi(psi), under.Supply, under.Ambient);
            if (area > mostArea)
                yield break;
            if (last - Y(area) < 17)
                continue;
            last = Y(area);
            yield return new(last, $"{psi:0}");
        }
    }
}
