using System.Security.Cryptography;
using System.Text;
using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Api;

/// <summary>What falls due: reckoned from what a program sends, and as calendars of the shop's own aircraft.</summary>
internal static class DueApi
{
    private const int MostItems = 500, MostReadings = 5_000;

    public static void MapDue(this WebApplication app)
    {
        app.MapPost("/api/v1/due", (HttpRequest request) => BenchBody.AnswerAsync<DueCall>(request, Reckon))
            .RequireRateLimiting("bench").OpenToAll("arithmetic: it keeps and reads nothing of the shop")
            .Accepts<DueCall>("application/json").Produces<DueAnswer>().ProducesValidationProblem()
            .WithName("Due").WithSummary("Reckons what falls due, when, and by which limb.");

        app.MapGet("/aircraft/{id:guid}/due.ics",
            async (Guid id, RivetDb db, ShopBoard board, TimeProvider clock, CancellationToken stop) =>
                await OneAsync(await db.PlateAsync(id, stop), board, clock, stop))
            .Needs(Right.Look).OwnersSee(Through.Aircraft).ExcludeFromDescription();
        app.MapGet("/due.ics", async (HttpContext context, Seen seen, ShopBoard board, TimeProvider clock, CancellationToken stop) =>
                await ShopAsync(await seen.OfAsync(context.User, stop), board, clock, stop))
            .Needs(Right.Look).OwnersSee(Through.Sight).ExcludeFromDescription();
        // A calendar program can't sign in: the key in the address is its person's, and opens nothing but this.
        app.MapGet("/calendar/{key}/shop.ics",
            async (string key, RivetDb db, ShopBoard board, TimeProvider clock, CancellationToken stop) =>
            await SightAsync(db, key, clock, stop) is { } sight
                ? await ShopAsync(sight, board, clock, stop)
                : Results.NotFound()).RequireRateLimiting("bench").OpenToAll("whoever has the key of a calendar").ExcludeFromDescription();
        app.MapGet("/calendar/{key}/{registration}.ics",
            async (string key, string registration, RivetDb db, ShopBoard board, TimeProvider clock, CancellationToken stop) =>
            await SightAsync(db, key, clock, stop) is { } sight && await db.RegisteredAsync(registration, stop) is { } aircraft
                && sight.Sees(aircraft.Id)
                ? await OneAsync(aircraft, board, clock, stop)
                : Results.NotFound()).RequireRateLimiting("bench").OpenToAll("whoever has the key of a calendar").ExcludeFromDescription();
    }

    /// <summary>A new key for a calendar address, and what is kept of it.</summary>
    public static (string Key, string Hash) NewKey()
    {
        var key = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(20));
        return (key, Hash(key));
    }

    /// <summary>What is kept of a key.</summary>
    public static string Hash(string key) => Convert.ToHexStringLower(SHA256.HashData(Encoding.UTF8.GetBytes(key)));

    private static Task<Sight?> SightAsync(RivetDb db, string key, TimeProvider clock, CancellationToken stop) =>
        db.SightOfKeyAsync(Hash(key), clock.Today(), stop);

    private static async Task<IResult> OneAsync(Core.Fleet.Aircraft? aircraft, ShopBoard board, TimeProvider clock, CancellationToken stop)
    {
        if (aircraft is null)
            return Results.NotFound();
        var line = await board.LineAsync(aircraft.Id, stop);
        return Results.Text(DueCalendar.Write([line], $"{aircraft.Registration}: due", clock.GetUtcNow()), DueCalendar.ContentType);
    }

    private static async Task<IResult> ShopAsync(Sight sight, ShopBoard board, TimeProvider clock, CancellationToken stop) =>
        Results.Text(DueCalendar.Write([.. (await board.StandingAsync(stop)).LinesFor(sight)],
            sight.IsWhole ? "Due in the shop" : "Due on your aircraft", clock.GetUtcNow()), DueCalendar.ContentType);

    private static DueAnswer? Reckon(DueCall call, Problems problems)
    {
        if (call.Today is not { Year: >= 1950 and <= 2199 })
            problems.Add("today", "A date from 1950 to 2199 is wanted: 2026-11-23.");
        if (call.Items is not { Count: > 0 and <= MostItems })
            problems.Add("items", $"From 1 to {MostItems} items are wanted.");
        if (call.Tach?.Count > MostReadings)
            problems.Add("tach", $"Up to {MostReadings} readings are wanted.");
        decimal? now = problems.Hours("hoursNow", call.HoursNow);
        var tach = new List<Count>();
        foreach (var (reading, index) in (call.Tach ?? []).Take(MostReadings).Select((reading, index) => (reading, index)))
        {
            if (reading?.Date is null)
                problems.Add($"tach[{index}].date", "A date is wanted: 2026-11-23.");
            if (reading?.Hours is null)
                problems.Add($"tach[{index}].hours", "A number from 0 to 999999 h is wanted.");
            if (problems.Hours($"tach[{index}].hours", reading?.Hours) is { } hours && reading?.Date is { } on)
                tach.Add(new(on, hours));
        }
        var byDay = tach.OrderBy(reading => reading.On).ThenBy(reading => reading.Total).ToList();
        if (byDay.Zip(byDay.Skip(1)).FirstOrDefault(pair => pair.Second.Total < pair.First.Total) is { Second.On: var back }
            && back != default)
            problems.Add("tach", $"Readings that don’t run backwards are wanted: the one of {back:yyyy-MM-dd} is below the one before it.");
        if (byDay.Count > 0 && call.Today is { } today && byDay[^1].On > today)
            problems.Add("tach", "Readings up to today are wanted.");

        var items = (call.Items ?? []).Take(MostItems).Select((item, index) => Read(item, $"items[{index}]", call.Today, problems))
            .ToList();
        if (problems.Any)
            return null;

        var counted = Counted.Of(byDay);
        var hoursNow = new DueNow(call.Today!.Value, now is { } given ? counted with { Total = given, On = call.Today } : counted);
        return new([.. items.Select(item =>
        {
            var status = DueStatus.Of(item.Interval, item.Last, hoursNow);
            var (byHours, byDate) = (status.Limb(LimbKind.Hours), status.Limb(LimbKind.Calendar));
            return new DueItemAnswer(item.Id, byDate?.DueOn, byHours?.DueAt, (int?)byDate?.Remaining, byHours?.Remaining, status.Forecast,
                status.Governing?.Kind, status.State, status.Why);
        })]);
    }

    private static (string Id, Interval Interval, LastDone Last) Read(DueItemCall? item, string field, DateOnly? today, Problems problems)
    {
        if (string.IsNullOrWhiteSpace(item?.Id))
            problems.Add($"{field}.id", "A name for the item is wanted.");
        var every = problems.Hours($"{field}.everyHours", item?.EveryHours);
        if (every is <= 0)
            problems.Add($"{field}.everyHours", "Hours above 0 are wanted.");
        var first = problems.Hours($"{field}.firstAtHours", item?.FirstAtHours);
        if (first is not null && every is null)
            problems.Add($"{field}.firstAtHours", "It goes with everyHours.");
        if (item?.EveryMonths is <= 0 or > 600)
            problems.Add($"{field}.everyMonths", "Whole months from 1 to 600 are wanted.");
        if (item is not null && item.EveryHours is null && item.EveryMonths is null)
            problems.Add($"{field}.everyHours", "At least one of everyHours and everyMonths is wanted.");
        var grace = problems.Hours($"{field}.graceHours", item?.GraceHours) ?? 0;
        if (item?.LastDoneDate > today)
            problems.Add($"{field}.lastDoneDate", "A day up to today is wanted.");
        return (item?.Id ?? "", new(every, item?.EveryMonths, item?.CalendarRule ?? CalendarRule.EndOfMonth, grace, FirstAtHours: first),
            new(item?.LastDoneDate, problems.Hours($"{field}.lastDoneHours", item?.LastDoneHours),
                problems.Hours($"{field}.lastDueHours", item?.LastDueHours)));
    }

    private static decimal? Hours(this Problems problems, string field, decimal? value)
    {
        if (value is < 0 or >= 1_000_000)
        {
            problems.Add(field, "A number from 0 to 999999 h is wanted.");
            return null;
        }
        return value;
    }
}

internal sealed record DueCall(DateOnly? Today, decimal? HoursNow, IReadOnlyList<TachCall?>? Tach, IReadOnlyList<DueItemCall?>? Items);

internal sealed record TachCall(DateOnly? Date, decimal? Hours);

internal sealed record DueItemCall(
    string? Id, decimal? EveryHours, int? EveryMonths, CalendarRule? CalendarRule, decimal? GraceHours, DateOnly? LastDoneDate,
    decimal? LastDoneHours, decimal? LastDueHours, decimal? FirstAtHours = null);

internal sealed record DueAnswer(IReadOnlyList<DueItemAnswer> Items);

internal sealed record DueItemAnswer(
    string Id, DateOnly? DueDate, decimal? DueHours, int? RemainingDays, decimal? RemainingHours, DateOnly? ForecastDate,
    LimbKind? Governing, DueState State, string Why);
