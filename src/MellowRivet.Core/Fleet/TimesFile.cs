using System.Globalization;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Fleet;

/// <summary>Which column of a file holds what; counted from zero.</summary>
/// <param name="Date">The day.</param>
/// <param name="DateFormat">How the days are written, one of <see cref="TimesFile.DateFormats"/>.</param>
/// <param name="Meters">The columns of the meters, by kind.</param>
public sealed record TimesColumns(int Date, string DateFormat, IReadOnlyDictionary<MeterKind, int> Meters);

/// <summary>One row of a file, with its line for messages.</summary>
public sealed record TimesRow(int Line, IReadOnlyList<string> Cells);

/// <summary>A CSV of meter readings: commas, semicolons or tabs, UTF-8, UTF-16 or Latin-1, points or commas for the decimals.</summary>
public sealed class TimesFile
{
    /// <summary>Largest file taken, in bytes.</summary>
    public const int MostBytes = 2 * 1024 * 1024;

    /// <summary>Most lines taken. A reading a day for fifty years stays below it.</summary>
    public const int MostLines = 20_000;

    private const int MostColumns = 40;

    private TimesFile(IReadOnlyList<string> headers, IReadOnlyList<TimesRow> rows) => (Headers, Rows) = (headers, rows);

    public static IReadOnlyList<string> DateFormats { get; } = ["yyyy-MM-dd", "dd.MM.yyyy", "dd/MM/yyyy", "MM/dd/yyyy", "d MMM yyyy",
        "yyyy/MM/dd"];

    public IReadOnlyList<string> Headers { get; }
    public IReadOnlyList<TimesRow> Rows { get; }

    /// <summary>Reads a file as it came, or says why it can't be one.</summary>
    public static (TimesFile? File, Refusal? Refusal) Read(byte[] bytes)
    {
        if (bytes.Length == 0)
            return (null, new("file", "The file is empty."));
        if (bytes.Length > MostBytes)
            return (null, new("file", $"The file is larger than {MostBytes / 1024 / 1024} MB. Send the years one by one."));
        var (table, fault) = DelimitedText.Read(bytes, MostLines, MostColumns);
        if (table is null)
            return (null, new("file", fault!));
        var rows = table.Select(row => new TimesRow(row.Line, row.Cells)).ToList();
        return rows.Count < 2 || rows[0].Cells.Count < 2
            ? (null, new("file", "A line of titles and at least one reading are wanted, in columns apart by commas, semicolons or tabs."))
            : (new([.. rows[0].Cells.Select(title => title.Length > 40 ? title[..40] + "…" : title)], rows[1..]), null);
    }

    /// <summary>Which column probably holds what, by its title and its first cells.</summary>
    public TimesColumns Guess()
    {
        var date = Headers.Select((_, column) => column).FirstOrDefault(column => FormatOf(column) is not null, 0);
        int? Find(params string[] words) => Headers.Select((title, column) => (title, column)).Where(named => named.column != date
            && words.Any(word => named.title.Contains(word, StringComparison.OrdinalIgnoreCase))).Select(named => (int?)named.column)
            .FirstOrDefault();
        var meters = new Dictionary<MeterKind, int>();
        void Take(MeterKind kind, int? column)
        {
            if (column is { } found && !meters.ContainsValue(found))
                meters[kind] = found;
        }
        Take(MeterKind.Landings, Find("landing", "ldg"));
        Take(MeterKind.Cycles, Find("cycle"));
        Take(MeterKind.HourMeter, Find("hour meter", "hourmeter", "meter"));
        Take(MeterKind.Tach, Find("tach", "hours", "time", "total"));
        return new(date, FormatOf(date) ?? DateFormats[0], meters);
    }

    /// <summary>True where days and months of a column can't be told apart, so that a person has to say.</summary>
    public bool IsAmbiguous(int column) => Parses(column, "dd/MM/yyyy") && Parses(column, "MM/dd/yyyy");

    /// <summary>A cell as a day, or null.</summary>
    public static DateOnly? Day(string cell, string format) =>
        DateOnly.TryParseExact(cell, format, CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day : null;

    /// <summary>A cell as a meter's figure, or what is wrong with it.</summary>
    public static (decimal? Value, string? Wrong) Figure(string cell) => cell switch
    {
        ['=' or '+' or '@', ..] => (null, $"“{Short(cell)}” is a formula, not a figure"),
        ['-', ..] => (null, $"“{Short(cell)}” is below zero"),
        _ => TypedNumber.ParseHours(cell) is { } hours ? (hours.Value, null) : (null, $"“{Short(cell)}” is no figure"),
    };

    private static string Short(string cell) => cell.Length > 24 ? cell[..24] + "…" : cell;

    private string? FormatOf(int column) => DateFormats.FirstOrDefault(format => Parses(column, format));

    private bool Parses(int column, string format)
    {
        var cells = Rows.Where(row => column < row.Cells.Count && row.Cells[column].Length > 0).Select(row => row.Cells[column]).Take(400)
            .ToList();
        return cells.Count > 0 && cells.All(cell => Day(cell, format) is not null);
    }
}
