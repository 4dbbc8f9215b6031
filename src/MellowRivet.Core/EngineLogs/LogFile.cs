using System.Globalization;
using System.Text.RegularExpressions;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.EngineLogs;

/// <summary>What an engine monitor writes down.</summary>
public enum LogChannel { Rpm = 1, Egt, Cht, OilTemperature, OilPressure, FuelFlow }

/// <summary>A column of a log: which channel, and of which cylinder where it is one's.</summary>
public sealed record LogColumn(LogChannel Channel, int? Cylinder, int Column);

/// <summary>Which column holds what, and in which units.</summary>
/// <param name="Time">The column of the time.</param>
/// <param name="Columns">The columns of the channels.</param>
/// <param name="Fahrenheit">Temperatures are in °F.</param>
/// <param name="Bar">Oil pressure is in bar.</param>
public sealed record LogColumns(int Time, IReadOnlyList<LogColumn> Columns, bool Fahrenheit, bool Bar)
{
    private const string TimeWord = "time";

    /// <summary>Reads what is said of each column: "time", a channel as "Rpm", or one of a cylinder as "Egt 3".</summary>
    public static (LogColumns Columns, Refusal? Refusal) Read(IReadOnlyList<string?> said, bool fahrenheit, bool bar)
    {
        var times = said.Index().Where(one => one.Item == TimeWord).ToList();
        if (times.Count != 1)
            return (new(0, [], false, false), new("columns", "Say which one column is the time."));
        var columns = new List<LogColumn>();
        foreach (var (column, held) in said.Index())
        {
            var words = (held ?? "").Split(' ');
            if (Enum.TryParse<LogChannel>(words[0], out var channel) && Enum.IsDefined(channel))
                columns.Add(new(channel, words.Length > 1 && int.TryParse(words[1], out var number) && number is >= 1 and <= 12
                    ? number
                    : null, column));
        }
        return (new(times[0].Index, columns, fahrenheit, bar), null);
    }

    /// <summary>What a column holds, as it is said; "" for nothing that is wanted.</summary>
    public string Holds(int column) => column == Time ? TimeWord
        : Columns.FirstOrDefault(one => one.Column == column) is not { } held ? ""
        : held.Cylinder is { } number ? $"{held.Channel} {number}" : $"{held.Channel}";
}

/// <summary>A log as a table: its titles, its rows, and what its columns probably are.</summary>
public sealed partial class LogFile
{
    /// <summary>Largest file taken, in bytes.</summary>
    public const int MostBytes = 32 * 1024 * 1024;

    private const int MostLines = 250_000, MostColumns = 80, MostTitleLines = 6;

    private LogFile(string[] titles, IReadOnlyList<DelimitedRow> rows) => (Titles, Rows) = (titles, rows);

    public IReadOnlyList<string> Titles { get; }
    public IReadOnlyList<DelimitedRow> Rows { get; }

    /// <summary>Reads a file as it came. A few lines about the flight may stand above the titles.</summary>
    public static (LogFile? File, Refusal? Refusal) Read(byte[] bytes)
    {
        if (bytes.Length is 0 or > MostBytes)
            return (null, new("file", bytes.Length == 0 ? "The file is empty." : $"The file is larger than {MostBytes / 1024 / 1024} MB."));
        var (rows, fault) = DelimitedText.Read(bytes, MostLines, MostColumns);
        if (rows is null)
            return (null, new("file", fault!));
        // The titles are the first line whose cells are mostly no numbers and which is followed by a line as wide that mostly is.
        var at = Enumerable.Range(0, Math.Min(MostTitleLines, Math.Max(0, rows.Count - 1))).FirstOrDefault(
            index => rows[index].Cells.Length >= 2 && rows[index + 1].Cells.Length >= rows[index].Cells.Length - 1
                && rows[index].Cells.Count(cell => Number(cell) is null && cell.Length > 0) > rows[index].Cells.Length / 2
                && rows[index + 1].Cells.Count(cell => Seconds(cell) is not null
                    || cell.Length == 0) * 2 >= rows[index + 1].Cells.Length, -1);
        return at < 0
            ? (null, new("file", "No line of titles was found: time, rpm, temperatures and pressures in columns are wanted."))
            : (new(rows[at].Cells, [.. rows.Skip(at + 1)]), null);
    }

    /// <summary>Which columns probably hold what, by their titles.</summary>
    public LogColumns Guess()
    {
        var columns = new List<LogColumn>();
        var time = -1;
        for (var column = 0; column < Titles.Count; column++)
        {
            var title = Titles[column].ToLowerInvariant();
            var cylinder = Digits().Match(title) is { Success: true } digits
                ? int.Parse(digits.Value, CultureInfo.InvariantCulture)
                : (int?)null;
            LogChannel? channel = title.Contains("egt") || title.StartsWith("exh") ? LogChannel.Egt
                : title.Contains("cht") || title.StartsWith("head") ? LogChannel.Cht
                : title.Contains("rpm") || title.Contains("engine speed") ? LogChannel.Rpm
                : title.Contains("oil") && (title.Contains("temp") || title.Contains('°') || title.EndsWith(" t"))
                ? LogChannel.OilTemperature
                : title.Contains("oil") ? LogChannel.OilPressure
                : title.Contains("flow") || title is "ff" ? LogChannel.FuelFlow : null;
            if (channel is { } found && (found is not (LogChannel.Egt or LogChannel.Cht) || cylinder is >= 1 and <= 12))
                columns.Add(new(found, found is LogChannel.Egt or LogChannel.Cht ? cylinder : null, column));
            else if (time < 0 && (title.Contains("time") || title is "t" or "s" || title.StartsWith("sec") || title.Contains("elapsed")))
                time = column;
        }
        var all = string.Join(' ', Titles).ToLowerInvariant();
        return new(Math.Max(0, time), columns, all.Contains("°f") || all.Contains("(f)") || all.Contains("deg f"), all.Contains("bar"));
    }

    /// <summary>A cell as a number: points or commas for the decimals; null for a gap, text, or what isn't finite.</summary>
    public static double? Number(string cell) => TypedNumber.Parse(cell);

    /// <summary>A cell as seconds: a plain number, h:mm:ss, or a day with a time.</summary>
    public static double? Seconds(string cell)
    {
        if (Number(cell) is { } plain)
            return plain;
        if (cell.Contains(':') && TimeSpan.TryParse(cell, CultureInfo.InvariantCulture, out var clock) && cell.IndexOf(':') <= 2)
            return clock.TotalSeconds;
        return DateTime.TryParse(cell, CultureInfo.InvariantCulture, DateTimeStyles.None, out var moment)
            ? (moment - new DateTime(2000, 1, 1, 0, 0, 0, DateTimeKind.Unspecified)).TotalSeconds
            : null;
    }

    [GeneratedRegex(@"\d+")]
    private static partial Regex Digits();
}
