namespace MellowRivet.Core.Trends;

/// <summary>Something done to the part. Where it restarts the series, readings before it no longer count.</summary>
/// <param name="Hours">Time in service when it was done.</param>
/// <param name="Restarts">Whether a new series begins.</param>
/// <param name="What">What was done, short enough for the plot.</param>
/// <param name="Why">Why it was done, where that is on file.</param>
public sealed record TrendEvent(double Hours, bool Restarts, string What = "", string? Why = null);

/// <summary>Which way is worse.</summary>
public enum Direction { Falling = 1, Rising }

/// <summary>When the series meets its limit, in hours; an end of the range is null where the band never meets it.</summary>
public sealed record Crossing(double Hours, double? Earliest, double? Latest);

/// <summary>A series read as a trend.</summary>
/// <param name="N">How many points counted: those since the last restart.</param>
/// <param name="Line">The robust line; null under four points.</param>
/// <param name="NextHours">At which hours the next reading is expected, one usual interval on.</param>
/// <param name="Next">What the next reading should be, with its band.</param>
/// <param name="LastExpected">What the readings before the last one expected of it; null where they are under four.</param>
/// <param name="LastIsUnusual">Whether the last reading stands outside that; null where it can't be told.</param>
/// <param name="Crossing">When the limit is met, or null.</param>
/// <param name="Why">Why there is no forecast or no crossing, or what the crossing rests on.</param>
/// <param name="IsPast">The last reading is past the limit, whatever the line does.</param>
public sealed record TrendReading(
    int N, RobustFit? Line, double? NextHours, Expectation? Next, Expectation? LastExpected, bool? LastIsUnusual, Crossing? Crossing,
    string Why, bool IsPast);

/// <summary>Reads a series of values against time in service as a trend.</summary>
public static class Trend
{
    /// <summary>Under this many points since the last restart there is no forecast.</summary>
    public const int FewestPoints = 4;

    /// <param name="points">The series, in any order.</param>
    /// <param name="events">What was done; the last that restarts decides where the series begins.</param>
    /// <param name="limit">The level it must not reach, in the unit of the values; null where there is none.</param>
    /// <param name="direction">Which way is worse.</param>
    /// <param name="resolution">What the instrument can't tell apart, in the unit of the values; the band is never narrower.</param>
    public static TrendReading Read(IEnumerable<TrendPoint> points, IEnumerable<TrendEvent>? events = null,
        double? limit = null, Direction direction = Direction.Falling, double resolution = 0)
    {
        var restart = events?.Where(done => done.Restarts).Select(done => (double?)done.Hours).Max();
        var series = points.Where(point => restart is null || point.Hours >= restart).OrderBy(point => point.Hours).ToList();
        var since = restart is null ? "" : $" since the restart at {restart:0.#} h";

        var isPast = series.Count > 0 && limit is { } level
            && (direction == Direction.Falling ? series[^1].Value < level : series[^1].Value > level);
        if (series.Count < FewestPoints)
            return Silent(series.Count, $"{Count(series.Count)}{since}: a forecast needs {FewestPoints}.", isPast);
        if (series[0].Hours == series[^1].Hours)
            return Silent(series.Count, "All readings were taken at the same hours: no forecast.", isPast);

        var line = new RobustFit(series, resolution);
        var nextHours = series[^1].Hours + (series[^1].Hours - series[0].Hours) / (series.Count - 1);
        var lastExpected = ExpectationOfLast(series, resolution);
        bool? lastIsUnusual = lastExpected is { } band ? series[^1].Value < band.Low || series[^1].Value > band.High : null;
        var (crossing, why) = Meets(line, limit, direction, series[^1].Hours, isPast);
        return new(series.Count, line, nextHours, line.Expect(nextHours), lastExpected, lastIsUnusual, crossing,
            why + $" From {series.Count} readings{since}.", isPast);
    }

    private static TrendReading Silent(int n, string why, bool isPast) => new(n, null, null, null, null, null, null, why, isPast);

    private static string Count(int n) => n switch { 0 => "No reading", 1 => "One reading", _ => $"{n} readings" };

    private static Expectation? ExpectationOfLast(List<TrendPoint> series, double resolution)
    {
        var before = series[..^1];
        return before.Count >= FewestPoints && before[0].Hours != before[^1].Hours
            ? new RobustFit(before, resolution).Expect(series[^1].Hours)
            : null;
    }

    private static (Crossing?, string) Meets(RobustFit line, double? limit, Direction direction, double lastHours, bool isPast)
    {
        if (limit is not { } level)
            return (null, "No limit was given, so there is no crossing to forecast.");
        var worsens = direction == Direction.Falling ? line.Slope < 0 : line.Slope > 0;
        if (!worsens)
            return (null, isPast ? "The last reading is past the limit already, whatever the line does."
                : "The line doesn't move towards the limit, so it never meets it.");
        var (hours, earliest, latest) = line.Crossing(level)!.Value;
        if (hours < 0)
            return (null, "The line was never on the good side of the limit.");
        // What has happened needs no forecast: a line that is slower than the last reading would say the opposite of it.
        if (isPast && hours > lastHours)
            return (null, "The last reading is past the limit already, sooner than the line through all of them.");
        var open = latest is null ? " The readings scatter too much to say by when at the latest." : "";
        return (new(hours, earliest, latest),
            (hours > lastHours ? "The line moves towards the limit." : isPast
                ? "The line has already met the limit, and the last reading is past it."
                : "The line has already met the limit; the last reading still holds.") + open);
    }
}
