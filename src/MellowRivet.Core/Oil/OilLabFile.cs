using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Oil;

/// <summary>One sample of a laboratory's table.</summary>
/// <param name="On">The day it was taken.</param>
/// <param name="TimeInService">The aircraft's time in service then.</param>
/// <param name="OilHours">Hours on the oil; null where the table doesn't say.</param>
/// <param name="Ppm">Each metal it has, by its kind, parts per million.</param>
public sealed record OilSample(DateOnly On, Hours TimeInService, double? OilHours, IReadOnlyDictionary<string, double> Ppm);

/// <summary>
/// A laboratory's table of oil samples: a line each, with the day, the aircraft's hours, the hours on the oil, and metals in ppm.
/// </summary>
public static class OilLabFile
{
    /// <summary>Largest file taken, in bytes.</summary>
    public const int MostBytes = 256 * 1024;

    private static readonly Dictionary<string, string[]> Words = new()
    {
        ["oil-iron"] = ["iron", "fe"], ["oil-copper"] = ["copper", "cu"], ["oil-aluminium"] = ["aluminium", "aluminum", "al"],
        ["oil-chromium"] = ["chromium", "chrome", "cr"],
        ["oil-nickel"] = ["nickel", "ni"], ["oil-silicon"] = ["silicon", "si"], ["oil-lead"] = ["lead", "pb"], ["oil-tin"] = ["tin", "sn"],
    };

    /// <summary>Reads a table whole, or says by its line why it can't be taken in.</summary>
    public static (IReadOnlyList<OilSample>? Samples, Refusal? Refusal) Read(byte[] bytes)
    {
        if (bytes.Length is 0 or > MostBytes)
            return (null, new("lab", bytes.Length == 0 ? "The file is empty." : $"The file is larger than {MostBytes / 1024} kB."));
        var (rows, fault) = DelimitedText.Read(bytes, 2_000, 60);
        if (rows is null || rows.Count < 2)
            return (null, new("lab", fault ?? "A line of titles and at least one sample are wanted."));
        var titles = rows[0].Cells.Select(title => title.ToLowerInvariant()
            .Split((char[])[' ', '(', '[', ',', '_'], StringSplitOptions.RemoveEmptyEntries)).ToList();
        int Column(params string[] words) => titles.FindIndex(title => title.Any(words.Contains));
        var (day, hours, oil) = (Column("date", "day", "sampled"),
            titles.FindIndex(title => (title.Contains("hours") || title.Contains("time")) && !title.Contains("oil")),
            titles.FindIndex(title => title.Contains("oil")));
        var metals = Words.Select(metal => (metal.Key, Column: Column(metal.Value))).Where(metal => metal.Column >= 0).ToList();
        if (day < 0 || hours < 0 || metals.Count == 0)
            return (null, new("lab", "Titles wanted: date, hours (the aircraft’s), oil hours, and metals such as iron or Fe."));
        var samples = new List<OilSample>();
        foreach (var row in rows.Skip(1))
        {
            string Cell(int column) => column >= 0 && column < row.Cells.Length ? row.Cells[column] : "";
            var on = TimesFile.DateFormats.Select(format => TimesFile.Day(Cell(day), format)).FirstOrDefault(read => read is not null);
            if (on is not { } taken || TypedNumber.ParseHours(Cell(hours)) is not { } at)
                return (null, new("lab", $"Line {row.Line}: a day and the aircraft’s hours are wanted. Nothing was taken in."));
            var ppm = new Dictionary<string, double>();
            foreach (var (kind, column) in metals.Where(metal => Cell(metal.Column).Length > 0))
            {
                if (TypedNumber.Parse(Cell(column)) is not (>= 0 and < 1e6 and var value))
                    return (null, new("lab", $"Line {row.Line}: “{Cell(column)}” is no figure in ppm. Nothing was taken in."));
                ppm[kind] = value;
            }
            var onOil = TypedNumber.ParseHours(Cell(oil));
            if (Cell(oil).Length > 0 && onOil is null)
                return (null, new("lab", $"Line {row.Line}: “{Cell(oil)}” is no number of hours on the oil. Nothing was taken in."));
            samples.Add(new(taken, at, onOil is { } hoursOn ? (double)hoursOn.Value : null, ppm));
        }
        return (samples, null);
    }
}
