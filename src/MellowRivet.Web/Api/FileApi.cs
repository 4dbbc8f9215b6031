using System.Security.Claims;
using System.Text;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.People;
using MellowRivet.Core.Trends;
using MellowRivet.Store;
using MellowRivet.Store.Passports;
using MellowRivet.Web.Access;
using MellowRivet.Web.Handover;

namespace MellowRivet.Web.Api;

/// <summary>An aircraft's file as it leaves the shop: JSON with its schema, and its times as CSV.</summary>
internal static class FileApi
{
    public static void MapFiles(this WebApplication app)
    {
        app.MapGet("/schemas/aircraft-1.json", () => Results.Text(AircraftFile.Schema(), "application/schema+json"))
            .OpenToAll("a published format").ExcludeFromDescription();
        app.MapGet("/schemas/passport-1.json", (RivetDb db) => Results.Text(PassportSchema.Of(db), "application/schema+json"))
            .OpenToAll("a published format").ExcludeFromDescription();
        app.MapGet("/aircraft/{id:guid}/file.json",
            async (Guid id, RivetDb db, TimeProvider clock, CancellationToken stop) => await db.FileOfAsync(id, clock, stop) is { } file
            ? Results.File(Encoding.UTF8.GetBytes(file.ToJson()), "application/json", $"{file.Registration}.json")
            : Results.NotFound()).Needs(Right.Look).OwnersSee(Through.Aircraft).ExcludeFromDescription();
        app.MapGet("/aircraft/{id:guid}/trends.csv", TrendsCsvAsync).Needs(Right.Look).OwnersSee(Through.Aircraft).ExcludeFromDescription();
        app.MapGet("/aircraft/{id:guid}/trends.json",
            TrendsJsonAsync).Needs(Right.Look).OwnersSee(Through.Aircraft).ExcludeFromDescription();
        app.MapGet("/aircraft/{id:guid}/times.csv", TimesAsync).Needs(Right.Look).OwnersSee(Through.Aircraft).ExcludeFromDescription();
    }

    private static async Task<IResult> TrendsCsvAsync(Guid id, string? hours, ClaimsPrincipal user, RivetDb db, CancellationToken stop)
    {
        if (await db.AircraftAsync(id, stop) is not { } aircraft)
            return Results.NotFound();
        if (!EnumNames.TryRead<HoursAxis>(hours ?? nameof(HoursAxis.Part), out var axis))
            return Results.Problem("Hours are those of the part, or of the aircraft: hours=part, hours=aircraft.", statusCode: 400);
        var groups = await db.SeriesOfAsync(aircraft, axis, user.SeesFleet(), stop);
        return Csv(groups.SelectMany(
            group => group.Series.SelectMany(
                series => series.Points.Select(point => new
                    { kind = group.Kind, unit = group.Unit, place = series.Label, part = series.Component?.SerialNumber,
                        hours = point.Hours, value = point.Value }))), $"trends-{aircraft.Registration}.csv");
    }

    private static async Task<IResult> TrendsJsonAsync(Guid id, string? hours, ClaimsPrincipal user, RivetDb db, CancellationToken stop)
    {
        if (await db.AircraftAsync(id, stop) is not { } aircraft)
            return Results.NotFound();
        if (!EnumNames.TryRead<HoursAxis>(hours ?? nameof(HoursAxis.Part), out var axis))
            return Results.Problem("Hours are those of the part, or of the aircraft: hours=part, hours=aircraft.", statusCode: 400);
        var groups = await db.SeriesOfAsync(aircraft, axis, user.SeesFleet(), stop);
        return Results.Json(new
        {
            format = "mellow-rivet-trends",
            version = 2,
            hours = axis.ToString().ToLowerInvariant(),
            registration = aircraft.Registration,
            series = groups.SelectMany(group => group.Series.Select(series => new
            {
                kind = group.Kind,
                unit = group.Unit,
                place = series.Label,
                part = series.Component?.SerialNumber,
                limit = series.Limit,
                toAircraftHours = series.ToAircraft,
                points = series.Points.Select(point => new { hours = point.Hours, value = point.Value }),
                events = series.Events.Select(done => new { hours = done.Hours, restarts = done.Restarts, what = done.What }),
                n = series.Trend.N,
                slopePer100Hours = series.Trend.Line?.Slope * 100,
                noise = series.Trend.Line?.Noise,
                lastIsUnusual = series.Trend.LastIsUnusual,
                crossing = series.Trend.Crossing,
                why = series.Trend.Why,
            })),
        });
    }

    private static async Task<IResult> TimesAsync(Guid id, RivetDb db, CancellationToken stop)
    {
        if (await db.PlateAsync(id, stop) is not { } aircraft)
            return Results.NotFound();
        var readings = await db.TimesAsync(id, stop);
        return Csv(readings.Select(reading => new
            { date = reading.On.ToString("yyyy-MM-dd"), meter = reading.Kind.ToString(), shown = reading.Shown, total = reading.Total,
                source = reading.Source }), $"times-{aircraft.Registration}.csv");
    }

    private static IResult Csv<T>(IEnumerable<T> rows, string name) => Results.File(TableWriter.Write(rows), "text/csv", name);
}
