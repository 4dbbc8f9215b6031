using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Worksheets;

/// <summary>
/// A worksheet as a table: a line for each task, its zone's fields beside it. Title, basis and offer stay with
/// the worksheet it is read into.
/// </summary>
public static class WorksheetCsv
{
    private static CsvConfiguration Shape(string delimiter) => new(CultureInfo.InvariantCulture)
    {
        Delimiter = delimiter,
        InjectionOptions = InjectionOptions.Escape,
        TrimOptions = TrimOptions.Trim,
        BadDataFound = null,
        MissingFieldFound = null,
    };

    private static readonly string[] Headers =
    [
        "zone", "zoneTitle", "station", "book", "zoneHours", "looks", "perEngine", "key", "text", "reference", "kind", "with", "at",
        "needs", "secondPerson", "same",
        "appliesTo", "caution", "compression", "measure", "unit", "low", "high", "standing", "source", "method", "covers", "asks",
        "sample", "minutes", "cannotShow", "cost", "likelihood", "paper",
    ];

    /// <summary>UTF-8 with a mark, so that spreadsheets read it right. A cell never begins as a formula.</summary>
    public static byte[] Write(Worksheet sheet)
    {
        using var buffer = new MemoryStream();
        using (var text = new StreamWriter(buffer, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true), leaveOpen: true))
        using (var csv = new CsvWriter(text, Shape(",")))
        {
            foreach (var header in Headers)
                csv.WriteField(header);
            csv.NextRecord();
            foreach (var (zone, task) in sheet.Zones.SelectMany(zone => zone.Tasks.Select(task => (zone, task))))
            {
                foreach (var cell in new object?[]
                {
                    zone.Key, zone.Title, Name(zone.Station), Name(zone.Book), zone.Hours, YesNo(zone.Looks), YesNo(zone.PerEngine),
                    task.Key, task.Text, task.Reference, Name(task.Kind), task.With,
                    string.Join("; ", task.At ?? []), string.Join("; ", (task.Needs ?? []).Select(need => Name(need))),
                    YesNo(task.SecondPerson), task.Same, Name(task.AppliesTo), task.Caution, YesNo(task.Compression),
                    task.Measure?.Kind, task.Measure?.Unit, task.Measure?.Low, task.Measure?.High, task.Measure is { } one
                        ? Name(one.Standing)
                        : null, task.Measure?.Source, task.Measure is { } other ? Name(other.Method) : null,
                    string.Join("; ", task.Covers ?? []), task.Asks is { } asked ? Name(asked) : null,
                    task.Sampling?.How, task.Sampling?.Minutes, task.Sampling?.CannotShow, task.Sampling?.Cost,
                    task.Sampling is { Cost.Length: > 0 } dear ? dear.Likelihood : null,
                    task.Sampling?.Paper is { } topic ? Name(topic) : null,
                })
                    csv.WriteField(cell);
                csv.NextRecord();
            }
        }
        return buffer.ToArray();
    }

    /// <summary>Reads a table into a worksheet, whole or not at all.</summary>
    /// <param name="text">The table.</param>
    /// <param name="into">Whose title, basis and offer it keeps.</param>
    /// <exception cref="FormatException">A column is missing or a cell can't be read; the message names the line.</exception>
    public static Worksheet Read(string text, Worksheet into)
    {
        var first = text.AsSpan(0, text.IndexOf('\n') is var end and >= 0 ? end : text.Length).ToString();
        using var csv = new CsvReader(new StringReader(text), Shape(new[] { ";", "\t", "," }.MaxBy(mark => first.Split(mark).Length)!));
        if (!csv.Read() || !csv.ReadHeader())
            throw new FormatException("The table is empty.");
        if (new[] { "zone", "key", "text" }.FirstOrDefault(name => !csv.HeaderRecord!.Contains(name)) is { } missing)
            throw new FormatException(
                $"The first line names the columns, and “{missing}” isn't among them. An exported worksheet shows them all.");
        List<(WorksheetZone Zone, List<WorksheetTask> Tasks)> zones = [];
        var lines = 0;
        while (csv.Read())
        {
            if (++lines > Worksheet.MostTasks)
                throw new FormatException($"More than {Worksheet.MostTasks} tasks.");
            var line = new Line(csv, csv.Parser.RawRow);
            var zone = zones.FirstOrDefault(other => other.Zone.Key == line.Cell("zone"));
            if (zone.Zone is null)
                zones.Add(
                    zone = (new(line.Cell("zone") ?? "", line.Cell("zoneTitle") ?? line.Cell("zone")
                        ?? "", line.Choice("station", Station.Airframe), line.Choice("book", Book.Airframe), [],
                    (decimal?)line.Number("zoneHours"), line.Flag("looks", true), line.Flag("perEngine", false)), []));
            zone.Tasks.Add(TaskOf(line));
        }
        var sheet = into with { Zones = [.. zones.Select(pair => pair.Zone with { Tasks = pair.Tasks })] };
        return sheet.Fault() is { } fault ? throw new FormatException(fault) : sheet;
    }

    private static WorksheetTask TaskOf(Line line) => new(
        line.Cell("key") ?? "", line.Cell("text") ?? "", line.Cell("reference") ?? "", line.Cell("caution"),
        line.Cell("measure") is { } kind
            ? new(kind, line.Cell("unit")
                ?? "", line.Number("low"), line.Number("high"), line.Choice("standing", Standing.Manual), line.Cell("source")
                ?? "", line.Choice("method", MeasureMethod.Plain))
            : null,
        line.Flag("compression", false), line.Choice("appliesTo", AppliesTo.Every), line.Choice("kind", TaskKind.Inspect),
        line.Cell("with"),
        line.List("at", text => TaskInterval.Parse(text)),
        line.List("needs", text => Enum.TryParse<Need>(text, true, out var need) && Enum.IsDefined(need) ? need : (Need?)null),
        line.Flag("secondPerson", false), line.Cell("same"),
        line.Cell("covers")?.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries), line.Cell("asks") is null
            ? null
            : line.Choice("asks", Asked.Run), SamplingOf(line));

    private static Sampling? SamplingOf(Line line) => line.Cell("sample") is not { } how ? null
        : new(how, (int)Math.Clamp(line.Number("minutes") ?? 0, -1, Sampling.LongestLook + 1), line.Cell("cannotShow") ?? "",
            line.Cell("cost") ?? "", (decimal)Math.Clamp(line.Number("likelihood") ?? 0, -1, 2),
            line.Cell("paper") is null ? null : line.Choice("paper", PaperTopic.Totals));

    private static string Name<T>(T value) where T : struct, Enum => char.ToLowerInvariant(value.ToString()[0]) + value.ToString()[1..];

    private static string YesNo(bool value) => value ? "yes" : "no";

    // One line with messages that name it.
    private sealed class Line(CsvReader csv, int number)
    {
        // A spreadsheet's guard against formulas comes back as a quote in front.
        public string? Cell(string column) => csv.TryGetField<string>(column, out var text) && !string.IsNullOrWhiteSpace(text)
            ? text is ['\'', '=' or '+' or '-' or '@', ..] ? text[1..] : text
            : null;

        public double? Number(string column) =>
            Cell(column) is not { } text ? null : Measures.TypedNumber.Parse(text) ?? throw Wrong(column, text, "a number");

        public bool Flag(string column, bool without) => Cell(column)?.ToLowerInvariant() switch
        {
            null => without,
            "yes" or "true" or "1" => true,
            "no" or "false" or "0" => false,
            var text => throw Wrong(column, text, "yes or no"),
        };

        public T Choice<T>(string column, T without) where T : struct, Enum => Cell(column) is not { } text
            ? without
            : Enum.TryParse<T>(text, true, out var value) && Enum.IsDefined(value) && !char.IsDigit(text[0])
                ? value
                : throw Wrong(column, text, "one of " + string.Join(", ", Enum.GetValues<T>().Select(Name)));

        public IReadOnlyList<T>? List<T>(string column, Func<string, T?> read) where T : struct => Cell(column) is not { } text
            ? null
            : [.. text.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries)
                .Select(part => read(part) ?? throw Wrong(column, part, "understood"))];

        private FormatException Wrong(string column, string text, string wanted) =>
            new($"Line {number}, {column}: “{text}” isn't {wanted}.");
    }
}
