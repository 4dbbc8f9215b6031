using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Trends;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>Readings counted on their parts' own hours as they are saved: the engine of N0TST came to it at 0 h with 12.3 h.</summary>
public sealed class SeriesStoreTests : IAsyncLifetime
{
    private readonly TestShop shop = new();
    private Guid inspection, home, away, engine;

    public async ValueTask InitializeAsync()
    {
        inspection = await shop.BeginAsync();
        await using var db = shop.Open();
        var aircraft = await db.Aircraft.WithParts().SingleAsync();
        var other = new Aircraft(Guid.NewGuid(), "N0AWY", "Test", "T-2", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
        other.ReadTime(TestShop.Today, new Hours(5000));
        (home, away, engine) = (aircraft.Id, other.Id, aircraft.Engines.Single().ComponentId);
        db.AddRange(other, Read(home, engine, 600, -100), Read(home, null, 600, -100));
        await db.SaveChangesAsync();
    }

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private static Reading Read(Guid on, Guid? part, decimal hours, int days) =>
        new(Guid.NewGuid(), on, part, "oil-pressure", "", 70, Unit.Psi, new(), new Hours(hours), TestShop.Now.AddDays(days), TestShop.Ines);

    private async Task FileAsync(Guid aircraft, Func<RivetDb, Aircraft, Task<Core.Refusal?>> change)
    {
        await using var db = shop.Open();
        (await shop.Desk(db)
            .WriteFileAsync(aircraft, Guid.NewGuid(), there => change(db, there), default, meters: true)).Refusal.ShouldBeNull();
    }

    private async Task MoveAsync(Guid from, Guid to, int days) =>
        await FileAsync(from, async (db, aircraft) => aircraft.MoveTo(engine, await db.Aircraft.WithParts()
            .SingleAsync(row => row.Id == to), "", TestShop.Today.AddDays(days), "lent"));

    private async Task<double[]> OwnAsync()
    {
        await using var db = shop.Open();
        var aircraft = await db.Aircraft.AsNoTracking().WithParts().SingleAsync(row => row.Id == home);
        return [.. (await db.SeriesOfAsync(aircraft, HoursAxis.Part, surveyed: true, default))
            .Single(group => group.Kind == "oil-pressure").Series.Single(series => series.Component?.Id == engine).Points.Select(
                point => Math.Round(point.Hours, 1))];
    }

    [Fact]
    public async Task A_reading_is_counted_on_its_part_as_it_is_saved_and_goes_along_there_and_back()
    {
        await using (var db = shop.Open())
            (await shop.Desk(db).WriteAsync(inspection, Guid.NewGuid(), job =>
            {
                job.Inspection.Record(Read(home, engine, 1000.5m, 0));
                return null;
            }, default)).Job!.Inspection.Readings.Single().OwnTime.ShouldBe(new Hours(1012.8m));
        await MoveAsync(home, away, 1);
        await FileAsync(away, (db, aircraft) =>
        {
            aircraft.ReadTime(TestShop.Today.AddDays(30), new Hours(5050));
            db.Readings.Add(Read(away, engine, 5050, 30));
            return Task.FromResult<Core.Refusal?>(null);
        });
        await MoveAsync(away, home, 40);
        (await OwnAsync()).ShouldBe([612.3, 1012.8, 1062.8]);

        await using var now = shop.Open();
        (await now.SeriesOf([engine]).CountAsync()).ShouldBe(3);
        (await now.SeriesOf([], home).SingleAsync()).OwnTime.ShouldBeNull("the airframe runs on the aircraft's");
    }

    [Fact]
    public async Task A_stay_put_right_counts_every_reading_anew_on_the_next_aircraft_too()
    {
        await MoveAsync(home, away, 1);
        await FileAsync(away, (db, aircraft) =>
        {
            db.Readings.Add(Read(away, engine, 5000, 2));
            return Task.FromResult<Core.Refusal?>(null);
        });
        Guid stay;
        await using (var db = shop.Open())
            stay = (await db.Installations.SingleAsync(one => one.ComponentId == engine && one.AircraftId == home)).Id;
        // It came with 112.3 h, not 12.3 h.
        await FileAsync(home, async (db, aircraft) =>
            aircraft.PutRight(stay, await db.StaysAlongAsync(aircraft, stay, default), new Hours(0), new Hours(112.3m),
                new Hours(1000.5m)));
        await using var now = shop.Open();
        (await now.SeriesOf([engine]).ToListAsync()).Select(reading => reading.OwnTime!.Value.Value).Order().ShouldBe([712.3m, 1112.8m]);
        (await now.Installations.AsNoTracking().Where(one => one.AircraftId == away).ToListAsync())
            .ShouldAllBe(one => one.OwnTimeThen == new Hours(1112.8m), "its cylinders came with it");
    }

    // 800 h of its own done, and 12.3 + 1000.5 h now: hours that would put what was done into the future aren't taken.
    [Theory]
    [InlineData(12.3, null)]
    [InlineData(0.0, null)]
    [InlineData(null, null)]
    [InlineData(-1.0, "was done at 1005.0 h of its own")]
    public async Task A_stay_is_not_put_right_below_what_was_done_on_the_part(double? own, string? refused)
    {
        await using var db = shop.Open();
        var due = new Core.Due.DueItem(Guid.NewGuid(), null, engine, "oil", Core.Due.DueKind.Service, new(25),
            new(Core.Judgements.Standing.Practice, "test"));
        due.SetDone(new(TestShop.Today, own is < 0 ? 1005 : 800, null, null, null, "book"), TestShop.Today).ShouldBeNull();
        db.DueItems.Add(due);
        await db.SaveChangesAsync();
        var aircraft = await db.Aircraft.WithParts().SingleAsync(row => row.Id == home);
        var refusal = await db.PutStayRightAsync(aircraft, aircraft.Engines.Single().Id, new Hours(0), own is { } hours
            ? new Hours((decimal)Math.Max(0, hours))
            : null, null, default);
        if (refused is null)
            refusal.ShouldBeNull();
        else
            refusal!.Message.ShouldContain(refused);
    }

    // The engine was away for a while: a sample from then is counted on that aircraft's hours, and its place in
    // the series is the engine's own.
    [Theory]
    [InlineData(5020, null)]
    [InlineData(900, "from 5000.0 to 5050.0 h")]
    [InlineData(6000, "still to come")]
    public async Task A_sample_belongs_to_the_aircraft_the_engine_was_on_that_day(int hours, string? refused)
    {
        await MoveAsync(home, away, 1);
        await FileAsync(away, (db, aircraft) =>
        {
            aircraft.ReadTime(TestShop.Today.AddDays(30), new Hours(5050));
            return Task.FromResult<Core.Refusal?>(null);
        });
        await MoveAsync(away, home, 40);
        await using var db = shop.Open();
        var aircraft = await db.Aircraft.WithParts().SingleAsync(row => row.Id == home);
        var refusal = await db.TakeInAsync(aircraft, aircraft.Engines.Single().Component,
            [new(TestShop.Today.AddDays(15), new Hours(hours), 25, new Dictionary<string, double> { ["oil-iron"] = 20 })], TestShop.Ines,
            TestShop.Today.AddDays(60), default);
        if (refused is not null)
        {
            refusal!.Message.ShouldContain(refused);
            return;
        }
        refusal.ShouldBeNull();
        await db.SaveChangesAsync();
        var iron = await db.SeriesOf([engine]).SingleAsync(reading => reading.Kind == "oil-iron");
        (iron.AircraftId, iron.OwnTime).ShouldBe((away, new Hours(1032.8m)));
    }

    // What the last release wrote has no own hours: they follow from the stays when the shop is brought up to date.
    [Fact]
    public async Task A_shop_of_the_release_before_gets_them_from_the_stays()
    {
        await MoveAsync(home, away, 1);
        await using (var db = shop.Open())
        {
            db.Readings.Add(Read(away, engine, 5020, 30));
            await db.SaveChangesAsync();
            await db.Database.ExecuteSqlAsync($"UPDATE Readings SET OwnTime = NULL");
        }
        await using (var db = shop.Open())
            await db.CountAllOnPartsAsync(default);
        await using var now = shop.Open();
        (await now.Readings.AsNoTracking().ToListAsync()).Select(reading => reading.OwnTime?.Value).Order()
            .ShouldBe([null, 612.3m, 1032.8m]);
    }

    [Fact]
    public async Task Nothing_is_saved_past_what_counts_and_stamps()
    {
        await using var db = shop.Open();
        db.Readings.Add(Read(home, engine, 900, -5));
        Should.Throw<NotSupportedException>(() => db.SaveChanges());
    }

    [Theory]
    [InlineData("SELECT * FROM Discrepancy WHERE ComponentId = 'x'", "IX_Discrepancy_ComponentId")]
    [InlineData("SELECT * FROM DueItems WHERE DiscrepancyId = 'x'", "IX_DueItems_DiscrepancyId")]
    [InlineData("SELECT * FROM Inspections WHERE AircraftId = 'x' AND State = 'InWork' ORDER BY OpenedOn DESC",
        "IX_Inspections_AircraftId_State_OpenedOn")]
    [InlineData("SELECT * FROM Readings WHERE ComponentId = 'x' AND Kind = 'compression'", "IX_Readings_ComponentId_Kind")]
    public async Task What_is_asked_for_often_is_found_by_an_index(string query, string index)
    {
        await using var connection = new SqliteConnection(shop.Data.ConnectionString);
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
#pragma warning disable CA2100 // The query is one of those above.
        command.CommandText = $"EXPLAIN QUERY PLAN {query}";
#pragma warning restore CA2100
        await using var plan = await command.ExecuteReaderAsync();
        (await plan.ReadAsync()).ShouldBeTrue();
        plan.GetString(3).ShouldContain(index);
    }
}
