using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Parts;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>What jobs took, what sister aircraft had, and what is ordered, as the shop keeps it.</summary>
public sealed class EstimateStoreTests : IAsyncDisposable
{
    private readonly TestShop shop = new();

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private static Discrepancy Find(Inspection inspection, string what, InspectionTask? task = null, FoundHow how = FoundHow.Visual)
    {
        var found = inspection.Find(Guid.NewGuid(), what, "gear", "", DiscrepancyClass.Recommended, false, task, TestShop.Ines,
            TestShop.Now);
        found.Describe(what, null, found.Place, how, null, TestShop.Ines, TestShop.Now);
        return found;
    }

    private static Task<Inspection> WholeAsync(RivetDb db, Guid id) =>
        db.Inspections.Include(row => row.Tasks).Include(row => row.Discrepancies).SingleAsync(row => row.Id == id);

    private static BookedTime Booked(Guid inspection, int number, decimal? hours) => new(Guid.NewGuid(), inspection, $"{number:00}", "Lamp",
        TestShop.Ines, Skill.Mechanic, TestShop.Now.AddHours(-number), hours);

    [Fact]
    public async Task Jobs_count_once_they_are_done_each_with_all_its_hours_and_what_it_was_put_at()
    {
        var id = await shop.BeginAsync();
        await using var db = shop.Open();
        var inspection = await WholeAsync(db, id);
        for (var job = 1; job <= 7; job++)
        {
            var found = Find(inspection, $"lamp {job}");
            found.Expect(Estimate.Of(2, null), inspection.Terms, TestShop.Ines, TestShop.Now).ShouldBeNull();
            db.BookedTimes.AddRange(Booked(id, job, job), Booked(id, job, 0.5m));
            if (job <= 5)
                found.Correct(new("replaced"), inspection.Terms, TestShop.Ines, TestShop.Now).ShouldBeNull();
            else if (job == 6)
                found.Move(Disposition.Withdrawn, "the wrong one", inspection.Terms, TestShop.Ines, TestShop.Now).ShouldBeNull();
        }
        db.BookedTimes.Add(Booked(id, 1, null));
        await db.SaveChangesAsync();
        var learned = await db.TookAsync("Lamp", TestShop.Clock, default);
        learned.Jobs.Select(job => job.Hours).Order().ToList().ShouldBe([1.5m, 2.5m, 3.5m, 4.5m, 5.5m],
            "neither what is in work nor what was withdrawn");
        learned.Jobs.ShouldAllBe(job => job.PutAt == 2 && job.Order.StartsWith("26-1-0"));
        (await db.TookAsync("Tyre", TestShop.Clock, default)).Jobs.ShouldBeEmpty();
        (await db.TookAsync("", TestShop.Clock, default)).ShouldBe(Learned.Nothing);
        (await db.JobKindsAsync(default)).ShouldBe(["Lamp"]);
    }

    [Fact]
    public async Task One_clock_runs_for_a_person_and_the_signature_stops_it()
    {
        var (id, other) = (await shop.BeginAsync(), await shop.BeginOtherAsync());
        await using var db = shop.Open();
        var desk = shop.Desk(db);
        BookedTime Clock(Guid inspection, int number, double began) => new(Guid.NewGuid(), inspection, $"{number:00}", "Lamp",
            TestShop.Ines,
            Skill.Mechanic, TestShop.Now.AddHours(began));
        (await desk.StartClockAsync(Clock(id, 1, -3), Guid.NewGuid(), default)).Refusal.ShouldBeNull();
        (await desk.StartClockAsync(Clock(other, 2, -1), Guid.NewGuid(), default)).Refusal.ShouldBeNull();
        (await desk.StartClockAsync(Clock(other, 2, 0), Guid.NewGuid(), default)).Refusal.ShouldBeNull("it runs already");
        var rows = await db.BookedTimes.AsNoTracking().ToListAsync();
        rows.Select(row => (row.Key, row.Hours)).OrderBy(row => row.Key).ShouldBe([("01", 2m), ("02", null)]);
        await using (var signs = shop.Open())
        {
            var inspection = await WholeAsync(signs, other);
            foreach (var task in inspection.Tasks)
                inspection.Answer(task, TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
            await signs.SaveChangesAsync();
            (await shop.SignAsync(signs, other)).Refusal.ShouldBeNull();
        }
        (await db.BookedTimes.AsNoTracking().SingleAsync(row => row.Key == "02")).Hours.ShouldBe(1m);
        (await desk.BookAsync(Clock(other, 2, 0), Guid.NewGuid(), default)).Refusal!.Message.ShouldContain("signed");
    }

    [Theory]
    [InlineData(2, 0)]
    [InlineData(3, 1)]
    public async Task What_sister_aircraft_had_is_told_from_three_on(int sisters, int places)
    {
        var id = await shop.BeginAsync();
        await using var db = shop.Open();
        var own = await db.Aircraft.SingleAsync();
        for (var sister = 0; sister < sisters; sister++)
        {
            var aircraft = new Aircraft(Guid.NewGuid(), $"N0S{sister}A", own.Type, $"T-{sister + 2}", Category.Standard,
                new(Wing.Low, Gear.NoseWheel, 1, 2));
            aircraft.ReadTime(new DateOnly(2026, 1, 1), new Hours(100 * (sister + 1)));
            var inspection = new Inspection(Guid.NewGuid(), aircraft, InspectionKind.Annual, $"25-{sister}", [TestShop.Sheet],
                new DateOnly(2026, 1, 1));
            Find(inspection, "tyre cut", inspection.Tasks.First(task => task.Key == "tyres"), FoundHow.Mirror);
            Find(inspection, "no matter").Move(Disposition.Withdrawn, "a shadow", inspection.Terms, TestShop.Ines, TestShop.Now);
            inspection.Sign();
            db.AddRange(aircraft, inspection);
        }
        await db.SaveChangesAsync();
        var (finds, inspected) = await db.SisterFindsAsync(own, zone => zone, default);
        inspected.ShouldBe(sisters);
        var usual = TypeUsual.Of(finds, inspected);
        usual.Count.ShouldBe(places);
        if (places > 0)
            usual[0].ShouldBe(new UsualPlace("Gear: Tyres", 3, 3, 100, 300, FoundHow.Mirror, "tyre cut"));
        (await db.DaysInAsync((await db.Inspections.AsNoTracking().SingleAsync(row => row.Id == id)), own.Type, TestShop.Clock, default))
            .ShouldBeEmpty("nothing of it bears a signature");
    }

    [Fact]
    public async Task Two_who_order_the_same_part_order_it_once_and_its_line_says_when_it_comes()
    {
        var id = await shop.BeginAsync();
        await using var db = shop.Open();
        var inspection = await WholeAsync(db, id);
        var found = Find(inspection, "seals weep");
        found.Expect(new([], [new("seal kit", "HS-2", 1, "", Spread.Of(480), 49, false)]), inspection.Terms, TestShop.Ines, TestShop.Now);
        found.Move(Disposition.Asked, null, inspection.Terms, TestShop.Ines, TestShop.Now);
        found.Move(Disposition.Approved, null, inspection.Terms, null, TestShop.Now);
        await db.SaveChangesAsync();
        async Task<Refusal?> OrderAsync(RivetDb at) => (await at.OrderAsync([new(Guid.NewGuid(), "seal kit", "HS-2", 1, "",
            new(inspection.AircraftId, id, "01"))], [], Guid.NewGuid(), part => part.From(true, "Corrin Parts", 480,
            TestShop.Today.AddDays(49), false, TestShop.Today), TestShop.Ines, TestShop.Clock, default)).Refusal;
        (await OrderAsync(db)).ShouldBeNull();
        await using var second = shop.Open();
        (await OrderAsync(second))!.Message.ShouldContain("somebody else was quicker");
        var line = await second.Discrepancies.AsNoTracking().SingleAsync();
        (line.Disposition, line.Estimate!.PartsBy, line.Agreed!.Price, line.Price(new(LabourRate: 500)))
            .ShouldBe((Disposition.PartsAwaited, TestShop.Today.AddDays(49), Spread.Of(480), Spread.Of(480)));
        (await second.OrderedParts.AsNoTracking().SingleAsync()).State.ShouldBe(PartState.Ordered);
    }

    [Fact]
    public async Task A_line_that_is_left_open_takes_its_price_and_its_parts_to_the_next_inspection()
    {
        var id = await shop.BeginAsync();
        await using var db = shop.Open();
        var inspection = await WholeAsync(db, id);
        foreach (var task in inspection.Tasks)
            inspection.Answer(task, TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
        var found = Find(inspection, "seals weep");
        found.Expect(Estimate.Of(null, 480), inspection.Terms, TestShop.Ines, TestShop.Now);
        found.Move(Disposition.Asked, null, inspection.Terms, TestShop.Ines, TestShop.Now);
        found.Move(Disposition.Approved, null, inspection.Terms, null, TestShop.Now);
        db.OrderedParts.Add(new(Guid.NewGuid(), "seal kit", "HS-2", 1, "", new(inspection.AircraftId, id, "01")));
        await db.SaveChangesAsync();
        (await shop.SignAsync(db, id)).Refusal.ShouldBeNull();
        await using var later = shop.Open();
        var aircraft = await later.Aircraft.WithParts().SingleAsync();
        var next = new Inspection(Guid.NewGuid(), aircraft, InspectionKind.Annual, "27-1", [TestShop.Sheet], TestShop.Today,
            openItems: await later.OpenItems.AsNoTracking().ToListAsync());
        later.Add(next);
        await later.SaveChangesAsync();
        await using var again = shop.Open();
        var carried = await again.Discrepancies.AsNoTracking().SingleAsync(row => row.InspectionId == next.Id);
        (carried.Disposition, carried.Price(new(LabourRate: 500))).ShouldBe((Disposition.Approved, Spread.Of(480)));
        (await again.PartsForAsync(next.Id, carried.Number, default)).ShouldHaveSingleItem().What.ShouldBe("seal kit");
        (await again.PartsByLineAsync(aircraft.Id, default))["26-1-01"].ShouldHaveSingleItem();
    }

    // A shop of the release before: the owner's yes is a step, and no price was kept with it.
    [Fact]
    public async Task What_was_approved_before_prices_were_kept_stays_at_the_rate_of_that_release()
    {
        var id = await shop.BeginAsync();
        await using var db = shop.Open();
        var inspection = await WholeAsync(db, id);
        inspection.Work(new(LabourRate: 95));
        var found = Find(inspection, "tyre");
        found.Expect(Estimate.Of(2, null), inspection.Terms, TestShop.Ines, TestShop.Now);
        found.Move(Disposition.Asked, null, inspection.Terms, TestShop.Ines, TestShop.Now);
        found.Move(Disposition.Approved, null, inspection.Terms, null, TestShop.Now);
        await db.SaveChangesAsync();
        await db.Database.ExecuteSqlAsync($"UPDATE Discrepancy SET Agreed = NULL");
        await using var later = shop.Open();
        await later.WorkByAsync(new(LabourRate: 150), default);
        await later.SaveChangesAsync();
        var kept = await later.Discrepancies.AsNoTracking().SingleAsync();
        kept.Price(new(LabourRate: 150)).ShouldBe(Spread.Of(190));
    }
}
