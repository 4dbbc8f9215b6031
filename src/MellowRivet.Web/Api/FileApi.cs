using System.Globalization;
using System.Text;
using CsvHelper;
using MellowRivet.Core.Exchange;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Api;

/// <summary>An aircraft's file as it leaves the shop: JSON with its schema, and its times as CSV.</summary>
internal static class FileApi
{
    public static void MapFiles(this WebApplication app)
    {
        app.MapGet("/schemas/aircraft-1.json", () => Results.Text(AircraftFile.Schema(), "application/schema+json")).AllowAnonymous().ExcludeFromDescription();
        app.MapGet("/aircraft/{id:guid}/file.json", async (Guid id, RivetDb db, CancellationToken stop) => await db.FileOfAsync(id, stop) is { } file
            ? Results.File(Encoding.UTF8.GetBytes(file.ToJson()), "application/json", $"{file.Registration}.json")
            : Results.NotFound()).RequireAuthorization().ExcludeFromDescription();
        app.MapGet("/aircraft/{id:guid}/times.csv", TimesAsync).RequireAuthorization().ExcludeFromDescription();
    }

    private static async Task<IResult> TimesAsync(Guid id, RivetDb db, CancellationToken stop)
    {
        if (await db.Aircraft.AsNoTracking().FirstOrDefaultAsync(row => row.Id == id, stop) is not { } aircraft)
            return Results.NotFound();
        var readings = await db.MeterReadings.AsNoTracking().Where(reading => reading.AircraftId == id).OrderBy(reading => reading.On).ThenBy(reading => reading.Id).ToListAsync(stop);
        using var buffer = new MemoryStream();
        await using (var text = new StreamWriter(buffer, new UTF8Encoding(encoderShouldEmitUTF8Identifier: true), leaveOpen: true))
        await using (var csv = new CsvWriter(text, new CsvHelper.Configuration.CsvConfiguration(CultureInfo.InvariantCulture) { InjectionOptions = CsvHelper.Configuration.InjectionOptions.Escape }))
            await csv.WriteRecordsAsync(readings.Select(reading => new { date = reading.On.ToString("yyyy-MM-dd"), meter = reading.Kind.ToString(), shown = reading.Shown, total = reading.Total, source = reading.Source }), stop);
        return Results.File(buffer.ToArray(), "text/csv", $"times-{aircraft.Registration}.csv");
    }
}
