using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace MellowRivet.Web.Handover;

/// <summary>
/// Writes a table as CSV for a spreadsheet: UTF-8 with a mark, so that it is read right; a cell never begins as a formula, and a number
/// below zero stays a number. Every table that leaves the shop is written here.
/// </summary>
internal sealed class TableWriter : CsvWriter
{
    private TableWriter(TextWriter text)
        : base(text, new CsvConfiguration(CultureInfo.InvariantCulture) { InjectionOptions = InjectionOptions.Escape }) { }

    /// <summary>A table with a column for each property of its rows.</summary>
    public static byte[] Write<T>(IEnumerable<T> rows) => Write(csv => csv.WriteRecords(rows));

    /// <summary>A table that is written cell by cell.</summary>
    public static byte[] Write(Action<TableWriter> write)
    {
        using var buffer = new MemoryStream();
        using (var text = new StreamWriter(buffer, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true), leaveOpen: true))
        using (var csv = new TableWriter(text))
            write(csv);
        return buffer.ToArray();
    }

    protected override string? SanitizeForInjection(string? field) =>
        decimal.TryParse(field, NumberStyles.Float, CultureInfo.InvariantCulture, out _) ? field : base.SanitizeForInjection(field);
}
