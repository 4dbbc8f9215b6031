using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Parts;
using MellowRivet.Core.People;
using MellowRivet.Core.Schedule;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>The plan of the hangar as the shop keeps it.</summary>
public sealed class PlanStoreTests : IAsyncDisposable
{
    private readonly TestShop shop = new();
    private readonly PlanKeeper keeper = new();

    public async ValueTask DisposeAsync()
    {
        keeper.Dispose();
        await shop.DisposeAsync();
    }

    private PlanDesk Plans(RivetDb db) => new(db, shop.Board(db), keeper, TestShop.Clock);

    private async Task<Guid> BeginAsync()
    {
        var id = await shop.BeginAsync();
        await using var db = shop.Open();
        if (!await db.People.AnyAsync(person => person.Id == TestShop.Ines))
            db.People.Add(new(TestShop.Ines, "Ines Test", "IT", [Role.Mechanic], []));
        await db.SaveChangesAsync();
        return id;
    }

    private static Task<Inspection> InWorkAsync(RivetDb db, Guid id) => db.Inspections.Include(row => row.Tasks)
        .Include(row => row.Discrepancies).SingleAsync(row => row.Id == id);

    private static async Task FindAsync(RivetDb db, Guid id, string what, Estimate estimate)
    {
        var inspection = await InWorkAsync(db, id);
        inspection.Find(Guid.NewGuid(), what, "gear", "", DiscrepancyClass.Recommended, false, null, TestShop.Ines, TestShop.Now)
            .Expect(estimate, inspection.Terms, TestShop.Ines, TestShop.Now);
        await db.SaveChangesAsync();
    }

    private static Estimate Hours(decimal hours, int? days = null) => new([new(Skill.Mechanic, Spread.Of(hours))],
        days is null ? [] : [new("hose", "H-1", 1, "", null, days, false)]);

    [Fact]
    public async Task A_change_makes_the_plan_stale_and_the_next_one_says_what_moved()
    {
        var id = await BeginAsync();
        await using var db = shop.Open();
        await FindAsync(db, id, "tyre", Hours(4));
        var none = await Plans(db).NowAsync(default);
        (none.Kept, none.IsStale).ShouldBe((null, true));
        var first = await Plans(db).ReckonAsync(default);
        first.Plan.Jobs.Select(job => job.Job.Title).ShouldContain("01 tyre");
        (await Plans(db).NowAsync(default)).IsStale.ShouldBeFalse();
        (await Plans(db).ReckonAsync(default)).Plan.ShouldBeSameAs(keeper.Latest!.Plan, "nothing changed: nothing is reckoned");

        await FindAsync(db, id, "hose", Hours(1, 14));
        (await Plans(db).NowAsync(default)).IsStale.ShouldBeTrue();
        var second = await Plans(db).ReckonAsync(default);
        var move = second.Moves.ShouldHaveSingleItem();
        (move.Days, move.Because).ShouldBe((14, "new: 02 hose, 1 h, hose 14 days away"));
        second.LastMove(move.Aircraft).ShouldBe(move);

        // Ordered, booked, another week, pinned: each is another plan.
        async Task StaleAfterAsync(Func<RivetDb, Task> change)
        {
            await Plans(db).ReckonAsync(default);
            (await Plans(db).NowAsync(default)).IsStale.ShouldBeFalse();
            await using var other = shop.Open();
            await change(other);
            await other.SaveChangesAsync();
            (await Plans(db).NowAsync(default)).IsStale.ShouldBeTrue();
        }
        var aircraft = (await InWorkAsync(db, id)).AircraftId;
        await StaleAfterAsync(other =>
        {
            var part = new OrderedPart(Guid.NewGuid(), "hose", "H-1", 1, "", new(aircraft, id, "02"));
            part.From(true, "Corrin Parts", null, TestShop.Today.AddDays(30), false, TestShop.Today);
            other.OrderedParts.Add(part);
            return Task.CompletedTask;
        });
        (await Plans(db).ReckonAsync(default)).Moves[0].Because.ShouldBe("02 hose: hose expected 2026-12-23");
        await StaleAfterAsync(async other => (await other.People.SingleAsync(row => row.Id == TestShop.Ines)).Work(WorkWeek.Usual with
            { HoursPerDay = 2 }).ShouldBeNull());
        await StaleAfterAsync(async other => (await InWorkAsync(other, id)).Pin("01", TestShop.Ines, TestShop.Today.AddDays(3),
            TestShop.Ines,
            TestShop.Now, TestShop.Today).ShouldBeNull());
        await StaleAfterAsync(other =>
        {
            other.BookedTimes.Add(new(Guid.NewGuid(), id, "01", "", TestShop.Ines, Skill.Mechanic, TestShop.Now, 3));
            return Task.CompletedTask;
        });
        var last = (await Plans(db).ReckonAsync(default)).Plan.Jobs.Single(job => job.Job.Title == "01 tyre");
        (last.Job.Hours.Likely, last.Start.Day).ShouldBe((1, 26), "what is left of it, on the day it is pinned to");
    }

    [Fact]
    public async Task A_start_has_the_plan_at_once_and_one_that_cannot_be_read_is_thrown_away()
    {
        var id = await BeginAsync();
        await using var db = shop.Open();
        await FindAsync(db, id, "tyre", Hours(4, 9));
        var kept = await Plans(db).ReckonAsync(default);
        using var anew = new PlanKeeper();
        PlanDesk Again(RivetDb of) => new(of, shop.Board(of), anew, TestShop.Clock);
        await using var other = shop.Open();
        var now = await Again(other).NowAsync(default);
        now.IsStale.ShouldBeFalse();
        now.Kept!.Plan.Jobs.Select(job => (job.Job.Id, job.Hand, job.Start, job.End, job.By)).ShouldBe(
            kept.Plan.Jobs.Select(job => (job.Job.Id, job.Hand, job.Start, job.End, job.By)));
        now.Kept.Plan.Aircraft.Select(ready => (ready.Aircraft, ready.Likely, ready.NineInTen, ready.By)).ShouldBe(
            kept.Plan.Aircraft.Select(ready => (ready.Aircraft, ready.Likely, ready.NineInTen, ready.By)));
        await other.Database.ExecuteSqlRawAsync("UPDATE Plans SET Plan = '{{\"v\":99,\"is\":1}}'");
        using var later = new PlanKeeper();
        var thrown = await new PlanDesk(other, shop.Board(other), later, TestShop.Clock).NowAsync(default);
        (thrown.Kept, thrown.IsStale).ShouldBe((null, true));
        (await Again(other).ReckonAsync(default)).Plan.Jobs.Count.ShouldBe(kept.Plan.Jobs.Count);
    }

    [Fact]
    public async Task What_took_long_before_is_found_by_estimate_and_by_order()
    {
        var id = await BeginAsync();
        await using var db = shop.Open();
        await FindAsync(db, id, "disc", Hours(2, 21));
        await FindAsync(db, id, "seal", Hours(1));
        var aircraft = await db.Aircraft.SingleAsync(row => row.Id == db.Inspections.Single(one => one.Id == id).AircraftId);
        var part = new OrderedPart(Guid.NewGuid(), "seal kit", "HS-2", 1, "", new(aircraft.Id, id, "02"));
        part.From(true, "Corrin Parts", null, TestShop.Today.AddDays(49), false, TestShop.Today);
        db.OrderedParts.Add(part);
        await db.SaveChangesAsync();
        (await db.SlowFindsAsync(aircraft.Type, InspectionKind.Annual, default)).ShouldBeEmpty("it is in work still");
        await db.Database.ExecuteSqlRawAsync("UPDATE Inspections SET State = 'SignedAirworthy'");
        (await db.SlowFindsAsync(aircraft.Type, InspectionKind.Job, default)).Select(find => (find.OfType, find.What, find.Waited,
            find.Days))
            .OrderBy(find => find.Days).ShouldBe([(true, "disc", "hose", 21), (true, "seal", "seal kit", 49)]);
        (await db.SlowFindsAsync("another", InspectionKind.Annual, default)).ShouldAllBe(find => !find.OfType);
        (await db.SlowFindsAsync("another", InspectionKind.Permit, default)).ShouldBeEmpty();
    }
}
