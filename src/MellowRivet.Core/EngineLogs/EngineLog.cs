using MellowRivet.Core.Measures;

namespace MellowRivet.Core.EngineLogs;

/// <summary>One stretch of a thinned series: its moment, and the least and greatest value in it.</summary>
/// <param name="T">Seconds from the flight's beginning.</param>
/// <param name="Low">The least.</param>
/// <param name="High">The greatest.</param>
public sealed record LogStretch(double T, double Low, double High);

/// <summary>A channel of a flight, thinned for drawing.</summary>
public sealed record LogSeries(LogChannel Channel, int? Cylinder, IReadOnlyList<LogStretch> Stretches);

/// <summary>What a flight's log comes to.</summary>
/// <param name="HottestCylinder">The cylinder with the greatest head temperature; null without one.</param>
/// <param name="GreatestCht">That temperature, °C.</param>
/// <param name="GreatestEgt">The greatest exhaust temperature, °C.</param>
/// <param name="EgtSpread">The greatest difference between cylinders at one moment above half the greatest rpm, °C.</param>
/// <param name="GreatestRpm">The greatest rpm.</param>
/// <param name="IdleRpm">The least rpm while it ran, steady for three rows.</param>
/// <param name="OilTemperature">The last oil temperature while it ran, °C.</param>
/// <param name="OilPressure">The median oil pressure above half the greatest rpm, psi.</param>
/// <param name="GreatestFuelFlow">The greatest fuel flow, in the log's own unit.</param>
public sealed record LogSummary(int? HottestCylinder, double? GreatestCht, double? GreatestEgt, double? EgtSpread, double? GreatestRpm,
    double? IdleRpm, double? OilTemperature, double? OilPressure, double? GreatestFuelFlow);

/// <summary>One flight of a log.</summary>
/// <param name="Number">From 1.</param>
/// <param name="Rows">How many rows it has.</param>
/// <param name="Seconds">How long it lasted.</param>
/// <param name="Series">Its channels, thinned.</param>
/// <param name="Summary">What it comes to.</param>
public sealed record LogFlight(int Number, int Rows, double Seconds, IReadOnlyList<LogSeries> Series, LogSummary Summary);

/// <summary>An engine monitor's log, as it was taken in. The file itself is kept as it came.</summary>
public sealed class EngineLog
{
    /// <summary>Into how many stretches a flight is thinned.</summary>
    public const int Stretches = 240;

    /// <summary>A pause longer than this begins another flight, seconds.</summary>
    public const double Pause = 300;

    private const int LongestName = 80;

    private List<LogFlight> flights = [];

    private EngineLog() { }

    /// <param name="id">Its id.</param>
    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="engineId">The engine.</param>
    /// <param name="name">The file's name as it came.</param>
    /// <param name="sha256">The kept file.</param>
    /// <param name="columns">Which column holds what.</param>
    /// <param name="flights">Its flights.</param>
    /// <param name="by">Who took it in.</param>
    /// <param name="at">When.</param>
    public EngineLog(Guid id, Guid aircraftId, Guid engineId, string name, string sha256, LogColumns columns,
        IReadOnlyList<LogFlight> flights, Guid by, DateTimeOffset at)
    {
        (Id, AircraftId, EngineId, Name, Sha256, Columns, AddedBy, AddedAt) = (id, aircraftId, engineId, name, sha256, columns, by, at);
        this.flights = [.. flights];
    }

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }
    public Guid EngineId { get; private set; }
    public string Name { get; private set; } = "";
    public string Sha256 { get; private set; } = "";
    public LogColumns Columns { get; private set; } = new(0, [], false, false);
    public Guid AddedBy { get; private set; }
    public DateTimeOffset AddedAt { get; private set; }
    public IReadOnlyList<LogFlight> Flights => flights;

    /// <summary>A file's name as it is kept.</summary>
    public static string NameOf(string? name) => name?.Trim() is { Length: > 0 } own ? own[..Math.Min(LongestName, own.Length)] : "log";

    /// <summary>Reads a file's flights, or says why it holds none.</summary>
    public static (IReadOnlyList<LogFlight> Flights, Refusal? Refusal) Read(LogFile file, LogColumns columns)
    {
        if (columns.Columns.Count == 0)
            return ([], new("columns", "Say which columns hold what: at least one besides the time."));
        if (columns.Columns.Append(new(LogChannel.Rpm, null, columns.Time))
            .Any(column => column.Column < 0 || column.Column >= file.Titles.Count))
            return ([], new("columns", "There is no such column."));
        if (columns.Columns.GroupBy(column => (column.Channel, column.Cylinder)).FirstOrDefault(same => same.Count() > 1) is { } twice)
            return ([], new("columns", $"Two columns can’t both be {twice.Key.Channel.InWords(twice.Key.Cylinder)}."));
        var flights = new List<LogFlight>();
        var (times, values) = (new List<double>(), columns.Columns.Select(_ => new List<double>()).ToList());
        void Land()
        {
            if (times.Count >= 10 && times[^1] > times[0])
                flights.Add(FlightOf(flights.Count + 1, times, columns, values));
            times.Clear();
            values.ForEach(list => list.Clear());
        }
        foreach (var row in file.Rows)
        {
            // A row without a time is a line of text between flights, or damage: it is passed over.
            if (columns.Time >= row.Cells.Length || LogFile.Seconds(row.Cells[columns.Time]) is not { } at)
                continue;
            if (times.Count > 0 && (at < times[^1] || at - times[^1] > Pause))
                Land();
            times.Add(at);
            for (var index = 0; index < columns.Columns.Count; index++)
            {
                var column = columns.Columns[index];
                values[index].Add(column.Column < row.Cells.Length && LogFile.Number(row.Cells[column.Column]) is { } read
                    ? Converted(column.Channel, read, columns)
                    : double.NaN);
            }
        }
        Land();
        return flights.Count == 0
            ? ([], new("columns", "No stretch of ten rows with a rising time was found. Is the time’s column the right one?"))
            : (flights, null);
    }

    private static double Converted(LogChannel channel, double value, LogColumns columns) => channel switch
    {
        LogChannel.Egt or LogChannel.Cht or LogChannel.OilTemperature when columns.Fahrenheit => Unit.Fahrenheit.To(Unit.Celsius, value),
        LogChannel.OilPressure when columns.Bar => Unit.Bar.To(Unit.Psi, value),
        _ => value,
    };

    private static LogFlight FlightOf(int number, List<double> times, LogColumns columns, List<List<double>> values)
    {
        var series = columns.Columns.Select((column, index) => new LogSeries(column.Channel, column.Cylinder, Thin(times, values[index])))
            .ToList();
        return new(number, times.Count, times[^1] - times[0], series, SummaryOf(columns, values));
    }

    /// <summary>
    /// Thins a series by the least and greatest of each of as many equal stretches (min–max decimation), so that no peak is lost;
    /// a stretch without a value is left out.
    /// </summary>
    public static IReadOnlyList<LogStretch> Thin(IReadOnlyList<double> times, IReadOnlyList<double> values)
    {
        var (from, width) = (times[0], (times[^1] - times[0]) / Stretches);
        var (low, high) = (new double[Stretches], new double[Stretches]);
        Array.Fill(low, double.PositiveInfinity);
        Array.Fill(high, double.NegativeInfinity);
        for (var row = 0; row < times.Count; row++)
            if (double.IsFinite(values[row]))
            {
                var stretch = width <= 0 ? 0 : Math.Min(Stretches - 1, (int)((times[row] - from) / width));
                (low[stretch], high[stretch]) = (Math.Min(low[stretch], values[row]), Math.Max(high[stretch], values[row]));
            }
        return [.. Enumerable.Range(0, Stretches).Where(stretch => high[stretch] >= low[stretch])
            .Select(stretch => new LogStretch(Math.Round((stretch + 0.5) * width, 1), Math.Round(low[stretch], 2),
                Math.Round(high[stretch], 2)))];
    }

    private static LogSummary SummaryOf(LogColumns columns, List<List<double>> values)
    {
        List<double>? Of(LogChannel channel) =>
            columns.Columns.Select((column, index) => (column, index)).Where(one => one.column.Channel == channel)
                .Select(one => values[one.index]).FirstOrDefault();
        static double? Most(IEnumerable<double>? list) => list?.Where(double.IsFinite).Select(value => (double?)value).Max();
        var hottest = columns.Columns.Select((column, index) => (column.Channel, column.Cylinder, Most: Most(values[index])))
            .Where(one => one.Channel == LogChannel.Cht && one.Most is not null).OrderByDescending(one => one.Most).FirstOrDefault();
        var egts = columns.Columns.Select((column, index) => (column, index)).Where(one => one.column.Channel == LogChannel.Egt)
            .Select(one => values[one.index]).ToList();
        var rpm = Of(LogChannel.Rpm);
        var greatest = Most(rpm);
        var rows = values[0].Count;
        bool Pulling(int row) => rpm is null || greatest is null || rpm[row] > greatest / 2;
        double? spread = egts.Count < 2
            ? null
            : Enumerable.Range(0, rows).Where(Pulling).Where(row => egts.All(list => double.IsFinite(list[row])))
            .Select(row => (double?)(egts.Max(list => list[row]) - egts.Min(list => list[row]))).Max();
        var pressures = Of(LogChannel.OilPressure) is { } oil
            ? Enumerable.Range(0, rows).Where(row => Pulling(row) && double.IsFinite(oil[row])).Select(row => oil[row]).Order().ToList()
            : [];
        var running = rpm is null ? [] : Enumerable.Range(0, rows).Where(row => rpm[row] > 300).ToList();
        double? idle = rpm is null || running.Count < 3
            ? null
            : Enumerable.Range(0, running.Count - 2)
            .Select(index => (double?)new[] { rpm[running[index]], rpm[running[index + 1]], rpm[running[index + 2]] }.Order().ElementAt(1))
            .Min();
        var warm = Of(LogChannel.OilTemperature);
        var last = warm is null
            ? -1
            : Enumerable.Range(0, rows).LastOrDefault(row => double.IsFinite(warm[row]) && (rpm is null || rpm[row] > 300), -1);
        return new(hottest.Cylinder, hottest.Most, Most(egts.SelectMany(list => list)), spread, greatest, idle, last < 0
            ? null
            : warm![last], pressures.Count == 0 ? null : pressures[pressures.Count / 2], Most(Of(LogChannel.FuelFlow)));
    }
}

/// <summary>Channels as people say them.</summary>
public static class LogWords
{
    public static string InWords(this LogChannel channel, int? cylinder = null) => channel switch
    {
        LogChannel.Egt => $"EGT {cylinder}".TrimEnd(),
        LogChannel.Cht => $"CHT {cylinder}".TrimEnd(),
        LogChannel.OilTemperature => "oil temperature",
        LogChannel.OilPressure => "oil pressure",
        LogChannel.FuelFlow => "fuel flow",
        _ => "rpm",
    };

    /// <summary>The unit a channel is kept in; the log's own where it is passed on as it came.</summary>
    public static string UnitOf(this LogChannel channel) =>
        channel switch { LogChannel.Rpm => "rpm", LogChannel.OilPressure => "psi", LogChannel.FuelFlow => "", _ => "°C" };
}
