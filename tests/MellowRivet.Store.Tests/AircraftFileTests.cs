using MellowRivet.Core.Books;
using MellowRivet.Core.Due;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Time.Testing;

namespace MellowRivet.Store.Tests;

public class AircraftFileTests : IAsyncLifetime
{
    private static readonly DateOnly Today = TestShop.Today;
    private readonly TestShop shop = new();
    private Guid inspectionId;

    public async ValueTask InitializeAsync() => inspectionId = await shop.BeginAsync();

    public async ValueTask DisposeAsync() => await shop.DisposeAsync();

    private async Task<Guid> FollowAsync(DueItem item)
    {
        await using var db = shop.Open();
        db.DueItems.Add(item);
        await db.SaveChangesAsync();
        return item.Id;
    }

    private async Task<Aircraft> AircraftAsync()
    {
        await using var db = shop.Open();
        return await db.Aircraft.AsNoTracking().WithParts().Include(row => row.MeterReadings).SingleAsync();
    }

    [Fact]
    public async Task Signing_marks_what_it_does_as_done_and_nothing_else()
    {
        var aircraft = await AircraftAsync();
        RuleSource source = new(Standing.Practice, "test");
        var annual = await FollowAsync(
            new(Guid.NewGuid(), aircraft.Id, null, "annual", DueKind.Inspection, new(EveryMonths: 12), source, [InspectionKind.Annual]));
        var oil = await FollowAsync(
            new(Guid.NewGuid(), null, aircraft.Engines.Single().ComponentId, "oil", DueKind.Service, new(25), source,
                [InspectionKind.Annual]));
        var altimeter = await FollowAsync(
            new(Guid.NewGuid(), aircraft.Id, null, "altimeter", DueKind.Instrument, new(EveryMonths: 24), source));
        await using (var db = shop.Open())
        {
            var desk = shop.Desk(db);
            await desk.WriteAsync(inspectionId, Guid.NewGuid(), job =>
            {
                foreach (var task in job.Inspection.Tasks)
                    task.Set(TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
                job.Inspection.Fill(new(job.Aircraft.Engines.Single().ComponentId, "SAE 50", 8, "qt", "", TestShop.Ines, TestShop.Now));
                return null;
            }, default);
            (await shop.SignAsync(db, inspectionId)).Refusal.ShouldBeNull();
        }
        await using var after = shop.Open();
        var items = await after.DueItems.ToDictionaryAsync(item => item.Id);
        items[annual].Last.ShouldBe(new LastDone(Today, 1000.5m, null, null, null, "26-1"));
        items[oil].Last!.Hours.ShouldBe(1012.8m, "the engine's own hours: 12.3 when fitted");
        items[altimeter].Last.ShouldBeNull();
    }

    [Fact]
    public async Task The_due_lines_of_the_shop_are_those_of_each_aircraft()
    {
        var aircraft = await AircraftAsync();
        RuleSource source = new(Standing.Practice, "test");
        await FollowAsync(new(Guid.NewGuid(), aircraft.Id, null, "annual", DueKind.Inspection, new(EveryMonths: 12), source));
        await FollowAsync(new(Guid.NewGuid(), null, aircraft.Engines.Single().ComponentId, "overhaul", DueKind.Overhaul, new(2000),
            source));
        await using var db = shop.Open();
        var there = await db.Aircraft.AsNoTracking().WithParts().SingleAsync();
        var one = DueLine.Of(there, await db.DueItems.AsNoTracking().ToListAsync(), await db.MeterReadings.AsNoTracking()
            .ToListAsync(), Today);
        var all = (await shop.Board(db).NowAsync(default)).Lines.ShouldHaveSingleItem();
        all.Entries.Select(entry => (entry.Title, entry.Status.State, entry.Status.Forecast))
            .ShouldBe(one.Entries.Select(entry => (entry.Title, entry.Status.State, entry.Status.Forecast)));
        all.Entries.Count.ShouldBe(2);
    }

    // What the board keeps between requests has to be what is on file, whatever was changed and wherever.
    [Fact]
    public async Task The_board_reckons_anew_what_changed_and_keeps_the_rest()
    {
        var aircraft = await AircraftAsync();
        var engine = aircraft.Engines.Single().ComponentId;
        var oil = await FollowAsync(new(Guid.NewGuid(), null, engine, "oil", DueKind.Service, new(25), new(Standing.Practice, "test")));
        async Task<DueLine> LineAsync()
        {
            await using var db = shop.Open();
            return (await shop.Board(db).NowAsync(default)).Lines.Single(line => line.Aircraft.Id == aircraft.Id);
        }
        async Task ChangeAsync(Func<RivetDb, Task> change)
        {
            await using var db = shop.Open();
            await change(db);
            await db.SaveChangesAsync();
        }

        var first = await LineAsync();
        first.Entries.ShouldHaveSingleItem().Status.State.ShouldBe(DueState.Unknown);
        (await LineAsync()).ShouldBeSameAs(first, "nothing changed");
        await ChangeAsync(async db => (await db.DueItems.SingleAsync(item => item.Id == oil)).SetDone(new(Today, 1000), Today)
            .ShouldBeNull());
        (await LineAsync()).Entries.Single().Status.Limb(LimbKind.Hours)!.Remaining.ShouldBe(12.2m);
        await ChangeAsync(async db => (await db.Aircraft.Include(row => row.MeterReadings).SingleAsync(row => row.Id == aircraft.Id))
            .ReadTime(Today, new Hours(1010.5m)));
        (await LineAsync()).Entries.Single().Status.Limb(LimbKind.Hours)!.Remaining.ShouldBe(2.2m);
        await ChangeAsync(async db => (await db.Components.SingleAsync(part => part.Id == engine))
            .Identify("P", "E-9", "port engine", null));
        (await LineAsync()).Entries.Single().Title.ShouldBe("oil, port engine");
        await ChangeAsync(async db => (await db.Aircraft.WithParts().SingleAsync(row => row.Id == aircraft.Id))
            .TakeOff(engine, Today, new Hours(1010.5m), "sold").ShouldBeNull());
        (await LineAsync()).Entries.ShouldBeEmpty();
        await using var tomorrow = shop.Open();
        (await shop.Board(tomorrow, new FakeTimeProvider(TestShop.Now.AddDays(1)))
            .NowAsync(default)).Lines.Single().Now.Today.ShouldBe(Today.AddDays(1));
    }

    [Fact]
    public async Task A_file_taken_in_by_another_shop_goes_out_of_it_equal()
    {
        var aircraft = await AircraftAsync();
        await FollowAsync(new(Guid.NewGuid(), null, aircraft.Engines.Single().ComponentId, "overhaul", DueKind.Overhaul, new(2000),
            new(Standing.Manual, "p. 1")));
        await using var here = shop.Open();
        var book = new LogBook(Guid.NewGuid(), aircraft.Id, BookKind.Airframe, "volume 1", null, null, false);
        here.LogBooks.Add(book);
        here.BookEntries.Add(new(Guid.NewGuid(), aircraft.Id, book.Id, new DateOnly(2020, 1, 1), new Hours(10), "words", "", null,
            TestShop.Ines, TestShop.Now));
        await here.SaveChangesAsync();
        var json = (await here.FileOfAsync(aircraft.Id, TestShop.Clock, default))!.ToJson();

        await using var other = new TestShop();
        await using var db = other.Open();
        await ShopDatabase.BringUpToDateAsync(db, other.Data, TestShop.Clock, default);
        var file = AircraftFile.Read(json, Today).File!;
        (await db.OnceAsync(Guid.NewGuid(), TestShop.Clock, () => db.TakeInAsync(file, TestShop.Ines, TestShop.Clock, default),
            default)).Refusal.ShouldBeNull();
        (await db.OnceAsync(Guid.NewGuid(), TestShop.Clock, () => db.TakeInAsync(file, TestShop.Ines, TestShop.Clock, default),
            default)).Refusal!.Message.ShouldContain("has a file here already");
        await using var again = other.Open();
        (await again.FileOfAsync(aircraft.Id, TestShop.Clock, default))!.ToJson().ShouldBe(json);
    }

    [Fact]
    public async Task A_part_moved_takes_what_falls_due_on_it_along()
    {
        var engine = (await AircraftAsync()).Engines.Single().ComponentId;
        await FollowAsync(new(Guid.NewGuid(), null, engine, "overhaul", DueKind.Overhaul, new(2000), new(Standing.Manual, "p. 1")));
        var to = new Aircraft(Guid.NewGuid(), "N0TWO", "Test", "T-2", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
        await using (var db = shop.Open())
        {
            db.Aircraft.Add(to);
            var from = await db.Aircraft.WithParts().SingleAsync(row => row.Registration == "N0TST");
            from.MoveTo(engine, to, "", Today, "swap").ShouldBeNull();
            await db.SaveChangesAsync();
        }
        await using var after = shop.Open();
        (await shop.Board(after).LineAsync(to.Id, default)).Entries.ShouldHaveSingleItem().Item.What.ShouldBe("overhaul");
        (await shop.Board(after).NowAsync(default)).Lines.Single(line => line.Aircraft.Registration == "N0TST").Entries.ShouldBeEmpty();
    }
}
