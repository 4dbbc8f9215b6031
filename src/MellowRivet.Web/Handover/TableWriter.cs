using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;

namespace MellowRivet.Web.Handover;

/// <summary>Writes a table as CSV for a spreadsheet: a cell never begins as a formula, and a number below zero stays a number.</summary>
internal sealed class TableWriter(TextWriter text)
    : CsvWriter(text, new CsvConfiguration(CultureInfo.InvariantCulture) { InjectionOptions = InjectionOptions.Escape })
{
    protected override string? SanitizeForInjection(string? field) =>
        decimal.TryParse(field, NumberStyles.Float, CultureInfo.InvariantCulture, out _) ? field : base.SanitizeForInjection(field);
}
