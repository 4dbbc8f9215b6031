using MellowRivet.Core;
using MellowRivet.Core.Worksheets;
using MellowRivet.Web.Pages.Shared;

namespace MellowRivet.Web.Pages.Shelves;

/// <summary>Reads a worksheet that was sent as a file, JSON or CSV.</summary>
internal static class WorksheetFile
{
    /// <param name="file">The file; null or empty where only a title was typed.</param>
    /// <param name="title">The title of a new one; a JSON file brings its own.</param>
    /// <param name="into">The worksheet whose next edition it is to be; null for a new one.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<(Worksheet? Worksheet, Refusal? Refusal)> ReadAsync(IFormFile? file, string? title, Worksheet? into,
        CancellationToken stop)
    {
        var begun = into ?? Worksheet.Begin(Worksheet.KeyFor(title ?? ""), title?.Trim() ?? "", "our own");
        if (file is null || file.Length == 0)
            return into is not null ? (null, new("file", "Choose the file.")) : Sound(begun);
        var (text, wrong) = await Uploads.ReadTextAsync(file, "file", Worksheet.MostBytes, "Choose the file.", stop);
        if (wrong is not null)
            return (null, wrong);
        try
        {
            if (text.TrimStart().StartsWith('{'))
                return (Worksheet.Parse(text), null);
            return into is null && string.IsNullOrWhiteSpace(title)
                ? (null, new("title", "A table has no title of its own: type one."))
                : (WorksheetCsv.Read(text, begun), null);
        }
        catch (Exception problem) when (problem is FormatException or CsvHelper.CsvHelperException)
        {
            return (null, new("file",
                $"{(problem is FormatException ? problem.Message : "This is no table that can be read.")} Nothing was taken in."));
        }
    }

    private static (Worksheet?, Refusal?) Sound(Worksheet sheet) =>
        sheet.Fault() is null ? (sheet, null) : (null, new("title", "Give it a title, in letters."));
}
