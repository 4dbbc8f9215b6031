using System.Globalization;
using System.Text;
using CsvHelper;
using CsvHelper.Configuration;

namespace MellowRivet.Core.Exchange;

/// <summary>One row of a table, with its line for messages.</summary>
public sealed record DelimitedRow(int Line, string[] Cells);

/// <summary>A table as text: commas, semicolons or tabs, UTF-8, UTF-16 or Latin-1.</summary>
public static class DelimitedText
{
    /// <summary>Reads a table, its line of titles first.</summary>
    /// <param name="bytes">The file.</param>
    /// <param name="mostLines">More lines than these are refused.</param>
    /// <param name="mostColumns">More columns than these are refused.</param>
    /// <returns>The rows, or what is wrong.</returns>
    public static (IReadOnlyList<DelimitedRow>? Rows, string? Fault) Read(byte[] bytes, int mostLines, int mostColumns)
    {
        var text = Decode(bytes);
        if (text.Contains('\0'))
            return (null, "This is no text file. Save the table as CSV and send that.");
        var lines = text.AsSpan().Count('\n');
        if (lines > mostLines)
            return (null, $"{lines} lines; {mostLines} is the most. Send it in parts.");
        var firstLine = text.AsSpan(0, text.IndexOf('\n') is var end and >= 0 ? end : text.Length).ToString();
        var delimiter = new[] { ";", "\t", "," }.MaxBy(mark => firstLine.Split(mark).Length)!;
        var shape = new CsvConfiguration(CultureInfo.InvariantCulture)
            { Delimiter = delimiter, HasHeaderRecord = false, BadDataFound = null, TrimOptions = TrimOptions.Trim,
                IgnoreBlankLines = true };
        using var parser = new CsvParser(new StringReader(text), shape);
        List<DelimitedRow> rows = [];
        while (parser.Read())
        {
            if (parser.Count > mostColumns)
                return (null, $"Line {parser.RawRow} has {parser.Count} columns; {mostColumns} is the most.");
            rows.Add(new(parser.RawRow, parser.Record ?? []));
        }
        return (rows, null);
    }

    private static string Decode(byte[] bytes)
    {
        if (bytes is [0xFF, 0xFE, ..])
            return Encoding.Unicode.GetString(bytes, 2, bytes.Length - 2);
        if (bytes is [0xFE, 0xFF, ..])
            return Encoding.BigEndianUnicode.GetString(bytes, 2, bytes.Length - 2);
        try
        {
            return new UTF8Encoding(false, throwOnInvalidBytes: true).GetString(bytes).TrimStart('\uFEFF');
        }
        catch (DecoderFallbackException)
        {
            return Encoding.Latin1.GetString(bytes);
        }
    }
}
