using System.Globalization;
using System.Net;
using System.Text.Json.Nodes;
using CsvHelper;
using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Time.Testing;
using NodaTime;

namespace MellowRivet.Web.Tests.Days;

/// <summary>
/// The demo is made as of a nasty moment and its main figures are walked, by the pages. What is expected is worked out from the
/// rules (calendar months by another library, 14 CFR 91.409(b) by hand), never from a run.
/// </summary>
[Trait("part", "days")]
public sealed class AnyDayTests
{
    public static TheoryData<int> Even => [.. Enumerable.Range(0, NastyDays.All.Length).Where(row => row % 2 == 0)];

    [Theory]
    [MemberData(nameof(Even))]
    public Task The_main_figures_are_right(int row) => AnyDay.WalkAsync(row);
}

/// <summary>The other half of the days, beside the first.</summary>
[Trait("part", "days")]
public sealed class AnyOtherDayTests
{
    public static TheoryData<int> Odd => [.. Enumerable.Range(0, NastyDays.All.Length).Where(row => row % 2 == 1)];

    [Theory]
    [MemberData(nameof(Odd))]
    public Task The_main_figures_are_right(int row) => AnyDay.WalkAsync(row);
}

internal static class AnyDay
{
    public static async Task WalkAsync(int row)
    {
        var (shown, zone) = NastyDays.All[row];
        var moment = DateTime.Parse(shown, CultureInfo.InvariantCulture);
        var day = new DateOnly(moment.Year, moment.Month, moment.Day);
        // An hour that comes twice is taken for its first: with the greater offset from Greenwich.
        var offset = zone.IsAmbiguousTime(moment) ? zone.GetAmbiguousTimeOffsets(moment).Max() : zone.GetUtcOffset(moment);
        var clock = new FakeTimeProvider(new DateTimeOffset(moment, offset).ToUniversalTime());
        clock.SetLocalTimeZone(zone);
        clock.Today().ShouldBe(day);

        await using var server = await DemoServer.MadeOnAsync(clock);
        var orla = await server.EnterAsync("orla");
        await EveryPageStandsAsync(server, orla, day);
        await CalendarMonthsAsync(server, orla, day);
        await HundredHoursAsync(orla);
        await DeadlineAsync(server, orla, day);
        await TrendAsync(server, orla);
        await CloseAsync(server, clock, day);
    }

    private static async Task EveryPageStandsAsync(DemoServer server, Visitor visitor, DateOnly day)
    {
        var (walk, file) = (server.Walk("N04QF"), server.FileOf("N04QF"));
        foreach (var path in new[]
            { "/", "/due", "/bulletins", file, $"{file}/times", $"{file}/books", $"{walk}/arrive", $"{walk}/plan", $"{walk}/look",
                $"{walk}/fix-list", $"{walk}/bulletins", $"{server.FileOf("N0FLD")}", $"{server.FileOf("N0TWQ")}/bulletins" })
            (await visitor.GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.OK, path);
        // What the demo says was done lies behind it, by the shop's own clock.
        server.With(db => db.Readings.Max(reading => reading.At)).ShouldBeLessThanOrEqualTo(server.Clock.GetUtcNow());
        server.With(db => db.MeterReadings.Max(reading => reading.On)).ShouldBeLessThanOrEqualTo(day);
        server.With(db => db.Discrepancies.Max(found => found.FoundAt)).ShouldBeLessThanOrEqualTo(server.Clock.GetUtcNow());
    }

    // Every item of every aircraft that has months: counted by NodaTime, rounded up to the month's end where the rule says so.
    private static async Task CalendarMonthsAsync(DemoServer server, Visitor visitor, DateOnly day)
    {
        var rows = (await DueAsync(visitor)).ToLookup(line => line.What);
        // What is only surveyed is followed by nobody.
        var items = server.With(db => db.DueItems.AsNoTracking()
            .Where(item => !db.Aircraft.Any(row => row.OnlySurveyed && row.Id == item.AircraftId)).AsEnumerable()
            .Where(item => item.Interval is { EveryMonths: not null } or { NotAfter: not null }).ToList());
        items.Count.ShouldBeGreaterThan(20);
        foreach (var item in items.Where(item => item.Last?.On is not null || item.Interval.EveryMonths is null))
        {
            LocalDate? due = item.Interval.NotAfter is { } marked ? LocalDate.FromDateOnly(marked) : null;
            if (item.Interval is { EveryMonths: { } months } interval && item.Last?.On is { } done)
            {
                var counted = LocalDate.FromDateOnly(done).PlusMonths(months);
                counted = interval.Calendar == CalendarRule.EndOfMonth ? counted.With(DateAdjusters.EndOfMonth) : counted;
                due = due is { } other && other < counted ? other : counted;
            }
            rows[item.What].ShouldContain(line => line.DueDate == due!.Value.ToDateOnly()
                && line.RemainingDays == Period.DaysBetween(LocalDate.FromDateOnly(day), due.Value), $"{item.What}: {due}");
        }
    }

    // 14 CFR 91.409(b), from memory: due at 1500.0, 3.4 over of the 10 allowed; the trainer's at 4321.0, 2.4 to go.
    private static async Task HundredHoursAsync(Visitor visitor)
    {
        var hundred = (await DueAsync(visitor)).Where(line => line.What.Contains("100-hour", StringComparison.Ordinal))
            .ToDictionary(line => line.Registration);
        (hundred["N0LTS"].DueHours, hundred["N0LTS"].RemainingHours, hundred["N0LTS"].State).ShouldBe((1500m, -3.4m, "grace"));
        (hundred["N04QF"].DueHours, hundred["N04QF"].RemainingHours, hundred["N04QF"].State).ShouldBe((4321m, 2.4m, "soon"));
    }

    // The directive: within 25 hours and within 3 months of its effective day. The hours then are the last reading on or before it.
    private static async Task DeadlineAsync(DemoServer server, Visitor visitor, DateOnly day)
    {
        var (file, aircraft) = (server.FileOf("N04QF"), Guid.Parse(server.FileOf("N04QF").Split('/')[^1]));
        var (held, engine) = server.With(
            db => (db.Bulletins.AsNoTracking().AsEnumerable()
                .Single(one => one.Bulletin.Number == "AD 2026-21-04"), db.Aircraft.AsNoTracking().WithParts()
                .Single(row => row.Id == aircraft).Engines.Single().ComponentId));
        (await visitor.PostAsync($"{file}/bulletins?handler=Read", ("post", $"{Guid.NewGuid()}"), ("id", $"{held.Id}"),
            ("part", $"{engine}"), ("fact", "engine.crankshaft.serial"),
            ("value", "TK-4217"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var effective = held.Bulletin.Effective;
        effective.ShouldBe(day.AddDays(-20), "written for the 25th of November, effective on the 5th");
        var then = server.With(db => db.MeterReadings.AsNoTracking()
            .Where(reading => reading.AircraftId == aircraft && reading.Kind == Core.Fleet.MeterKind.Tach && reading.On <= effective)
            .AsEnumerable().MaxBy(reading => reading.Total)!.Total);
        var line = (await DueAsync(visitor))
            .Single(line => line.Registration == "N04QF" && line.What.StartsWith("AD 2026-21-04", StringComparison.Ordinal));
        line.DueHours.ShouldBe(then + 25);
        line.DueDate.ShouldBe(LocalDate.FromDateOnly(effective).PlusMonths(3).ToDateOnly());
    }

    // The median of the slopes between every two points since the new cylinder: written down again, slowly.
    private static async Task TrendAsync(DemoServer server, Visitor visitor)
    {
        var trends = JsonNode.Parse(await (await visitor.GetAsync($"{server.FileOf("N04QF")}/trends.json")).Content.ReadAsStringAsync())!;
        var series = trends["series"]!.AsArray()
            .Single(one => one!["kind"]!.ToString() == "compression" && one["place"]!.ToString() == "2")!;
        var restart = series["events"]!.AsArray().Where(one => (bool)one!["restarts"]!).Max(one => (double?)one!["hours"]) ?? 0;
        var points = series["points"]!.AsArray().Select(point => ((double)point!["hours"]!, (double)point["value"]!))
            .Where(point => point.Item1 >= restart).ToList();
        points.Count.ShouldBe(10, "nine tests since the new cylinder, and today’s");
        double[] slopes = [.. points.SelectMany((one, index) => points.Skip(index + 1)
            .Select(other => (other.Item2 - one.Item2) / (other.Item1 - one.Item1))).Order()];
        var median = slopes.Length % 2 == 1 ? slopes[slopes.Length / 2] : (slopes[slopes.Length / 2 - 1] + slopes[slopes.Length / 2]) / 2;
        ((double)series["slopePer100Hours"]!).ShouldBe(median * 100, 1e-9);
    }

    // The tug's 100-hour is signed: the entry carries the shop's day, and the hours that were overflown come off the next period.
    private static async Task CloseAsync(DemoServer server, TimeProvider clock, DateOnly day)
    {
        var wim = await server.EnterAsync("wim");
        var walk = server.Walk("N0LTS");
        var id = Guid.Parse(walk.Split('/')[^1]);
        foreach (var task in server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks)
            .Single(row => row.Id == id).Tasks.Where(task => task.Verdict == TaskVerdict.NotYet).ToList()))
            await wim.PostAsync($"{walk}/airframe/{task.ZoneKey}?handler=Verdict", ("post", $"{Guid.NewGuid()}"), ("task", $"{task.Id}"),
                ("seen", $"{task.Changes}"), ("verdict", "Good"));
        (await wim.PostAsync($"{walk}/close?handler=Checklist", ("post", $"{Guid.NewGuid()}"), ("title", "Mote inspection checklist"),
            ("revision", "rev. 6"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await wim.PostAsync($"{walk}/close", ("post", $"{Guid.NewGuid()}"), ("read", await wim.ReadEntriesAsync(walk)),
            ("password", Demo.DemoShop.Password))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var records = server.With(db => db.SignedRecords.AsNoTracking().Where(record => record.InspectionId == id).ToList());
        records.Count.ShouldBe(3);
        records.ShouldAllBe(record => record.Text()["date"]!.ToString() == day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
        records.ShouldAllBe(record => record.SignedAt == clock.GetUtcNow());
        var next = (await DueAsync(wim))
            .Single(line => line.Registration == "N0LTS" && line.What.Contains("100-hour", StringComparison.Ordinal));
        (next.DueHours, next.RemainingHours).ShouldBe((1600m, 96.6m));
        (await wim.ReadAsync($"{server.FileOf("N0LTS")}/books")).Body!.TextContent.ShouldContain(
            day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture));
    }

    private sealed record Line(string Registration, string What, string State, DateOnly? DueDate, int? RemainingDays, decimal? DueHours,
        decimal? RemainingHours);

    private static async Task<IReadOnlyList<Line>> DueAsync(Visitor visitor)
    {
        using var csv = new CsvReader(
            new StringReader((await (await visitor.GetAsync("/due?handler=Csv")).Content.ReadAsStringAsync()).TrimStart('\uFEFF')),
            CultureInfo.InvariantCulture);
        List<Line> lines = [];
        await csv.ReadAsync();
        csv.ReadHeader();
        while (await csv.ReadAsync())
            lines.Add(new(csv.GetField("registration")!, csv.GetField("item")!, csv.GetField("state")!, csv.GetField<DateOnly?>("dueDate"),
                csv.GetField<int?>("remainingDays"), csv.GetField<decimal?>("dueHours"), csv.GetField<decimal?>("remainingHours")));
        return lines;
    }
}
