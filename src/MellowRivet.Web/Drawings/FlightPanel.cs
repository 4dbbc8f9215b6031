using MellowRivet.Core.EngineLogs;

namespace MellowRivet.Web.Drawings;

/// <summary>One line of a panel: a channel, or one cylinder's.</summary>
public sealed record PanelLine(string Name, int Style, string Path, double EndY);

/// <summary>A panel of a flight: one kind of channel over the time, a line for each cylinder.</summary>
public sealed class FlightPanel
{
    public const int Width = 820, Height = 150, Left = 46, Right = 64, Top = 8, Bottom = 22;

    private readonly double seconds, least, most;

    private FlightPanel(string title, double seconds, IReadOnlyList<LogSeries> series)
    {
        Title = title;
        this.seconds = Math.Max(1, seconds);
        var all = series.SelectMany(one => one.Stretches).ToList();
        (least, most) = (all.Min(stretch => stretch.Low), all.Max(stretch => stretch.High));
        var room = Math.Max(1, (most - least) * 0.06);
        (least, most) = (least - room, most + room);
        Lines = [.. series.Where(one => one.Stretches.Count > 0)
            .Select(one => new PanelLine(one.Cylinder?.ToString() ?? "", (one.Cylinder ?? 1) % 6,
            // Down to the least and up to the greatest of each stretch: peaks stand as they were.
            "M"
                + string.Join("L", one.Stretches.SelectMany(stretch => stretch.Low == stretch.High
                    ? [At(stretch.T, stretch.Low)]
                    : new[] { At(stretch.T, stretch.Low), At(stretch.T, stretch.High) })), Y(one.Stretches[^1].High)))];
        ValueTicks = [.. PlotAxis.Ticks(least, most, 4).Select(level => new PlotTick(Y(level), $"{level:0.#}"))];
        TimeTicks = [.. PlotAxis.Ticks(0, this.seconds / 60, 8).Select(minutes => new PlotTick(X(minutes * 60), $"{minutes:0.#}"))];
    }

    public string Title { get; }
    public IReadOnlyList<PanelLine> Lines { get; }
    public IReadOnlyList<PlotTick> ValueTicks { get; }
    public IReadOnlyList<PlotTick> TimeTicks { get; }

    public static IReadOnlyList<FlightPanel> Of(LogFlight flight) =>
        [.. flight.Series.Where(series => series.Stretches.Count > 0).GroupBy(series => series.Channel).OrderBy(group => group.Key)
        .Select(group => new FlightPanel(
            $"{(group.Key is LogChannel.Egt or LogChannel.Cht ? group.Key.ToString().ToUpperInvariant() : group.Key.InWords())}"
            + $"{(group.Key.UnitOf().Length > 0 && group.Key != LogChannel.Rpm ? $", {group.Key.UnitOf()}" : "")}", flight.Seconds,
            [.. group]))];

    private double X(double at) => Left + at / seconds * (Width - Left - Right);

    private double Y(double value) => Height - Bottom - (value - least) / (most - least) * (Height - Top - Bottom);

    private string At(double t, double value) => FormattableString.Invariant($"{X(t):0.#} {Y(value):0.#}");
}
