using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>
/// Open items are the aircraft's: signing leaves them, a signed entry clears them, and a bad judgement is kept until it is answered.
/// </summary>
public class OpenItemStoreTests : IAsyncLifetime
{
    private readonly TestShop shop = new();
    private Guid inspection;

    private static readonly ShopRules Clearing = TestShop.Weighed with
    {
        Pack = TestShop.Rules with
            { Clearing = [new([Category.Standard], CertificateKind.InspectionAuthorization, false,
                new(Core.Judgements.Standing.Law, "test"))] },
    };

    private static Signer Entitled { get; } =
        new(new Person(Guid.NewGuid(), "Orla Test", "OT", [Role.Inspector], [new(CertificateKind.InspectionAuthorization, "1")]),
            new(CertificateKind.InspectionAuthorization, "1"));

    public async ValueTask InitializeAsync() => inspection = await shop.BeginAsync();

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private async Task<Written> WriteAsync(Func<Job, Core.Refusal?> work, Guid? id = null)
    {
        await using var db = shop.Open();
        return await shop.Desk(db).WriteAsync(id ?? inspection, Guid.NewGuid(), work, default);
    }

    private async Task SignAsync()
    {
        await using var db = shop.Open();
        (await shop.SignAsync(db, inspection)).Refusal.ShouldBeNull();
    }

    private async Task<Written> ClearAsync(Guid item, Guid? post = null, Signer? by = null, string reference = "manual 28-10",
        Guid? aircraft = null)
    {
        await using var db = shop.Open();
        return await shop.Desk(db)
            .ClearAsync(aircraft ?? db.OpenItems.Single(row => row.Id == item).AircraftId, item, post ?? Guid.NewGuid(), Clearing,
                new("Bladder replaced", CorrectionKind.Replaced, reference), by
                ?? Entitled, default);
    }

    private async Task LeaveTwoAsync()
    {
        (await WriteAsync(job =>
        {
            foreach (var what in new[] { "Bladder seeps", "Cable frayed" })
                job.Inspection.Find(Guid.NewGuid(), what, "gear", "left", DiscrepancyClass.Airworthiness, false, null, TestShop.Ines,
                    TestShop.Now);
            foreach (var task in job.Inspection.Tasks)
                job.Inspection.Answer(task, TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
            return null;
        })).Refusal.ShouldBeNull();
        await SignAsync();
    }

    [Fact]
    public async Task Signing_leaves_them_and_entries_clear_them_one_by_one_once_each()
    {
        await LeaveTwoAsync();
        await using var db = shop.Open();
        var aircraft = await db.Aircraft.AsNoTracking().SingleAsync();
        var items = await db.OpenItemsAsync(aircraft.Id, default);
        items.Select(item => (item.FirstNumber, item.Because))
            .ShouldBe([("26-1-01", OpenBecause.Airworthiness), ("26-1-02", OpenBecause.Airworthiness)]);

        (await ClearAsync(items[0].Id, reference: "")).Refusal!.Field.ShouldBe("reference");
        (await ClearAsync(items[0].Id,
            by: new(new Person(Guid.NewGuid(), "Nobody", "NN", [Role.Mechanic], []),
                Entitled.Certificate))).Refusal!.Field.ShouldBe("sign");
        var post = Guid.NewGuid();
        (await ClearAsync(items[0].Id, post)).Refusal.ShouldBeNull();
        (await ClearAsync(items[0].Id, post)).Repeated.ShouldBeTrue("sent again it is the same");
        (await ClearAsync(items[0].Id)).Refusal!.Message.ShouldContain("not open any more");
        (await db.SignedRecords.AsNoTracking().OrderBy(record => record.Id)
            .LastAsync()).Json.ShouldContain("1 airworthiness item stays open");
        (await ClearAsync(items[1].Id)).Refusal.ShouldBeNull();
        (await db.SignedRecords.AsNoTracking().OrderBy(record => record.Id)
            .LastAsync()).Json.ShouldContain("the last airworthiness item");
        (await db.OpenItemsAsync(aircraft.Id, default)).ShouldBeEmpty();
        (await TestShop.VerifiedAsync(db)).Fault.ShouldBeNull();
        (await db.Aircraft.AsNoTracking()
            .SingleAsync()).Changes.ShouldBeGreaterThan(aircraft.Changes, "whoever keeps the hangar's line makes it anew");
    }

    [Fact]
    public async Task A_job_is_signed_by_itself_ends_the_item_it_was_taken_for_and_one_taken_by_mistake_leaves_nothing()
    {
        await LeaveTwoAsync();
        await using var db = shop.Open();
        var (aircraft, item) = (await db.Aircraft.WithParts().FirstAsync(), (await db.OpenItems.ToListAsync()).First(one => one.IsOpen));
        async Task<Guid> TakeAsync()
        {
            var id = Guid.NewGuid();
            (await shop.Desk(db).WriteFileAsync(aircraft.Id, Guid.NewGuid(), of =>
            {
                var (job, refusal) = new TypedJob(null, null, null, item).Begin(id, of, $"J-{id:N}"[..12], new(FirstLook: false), false,
                    TestShop.Ines, DateOnly.FromDateTime(TestShop.Now.UtcDateTime), TestShop.Now);
                db.Put(job!);
                return Task.FromResult<Refusal?>(refusal);
            }, default)).Refusal.ShouldBeNull();
            db.ChangeTracker.Clear();
            return id;
        }

        var mistaken = await TakeAsync();
        (await shop.Desk(db).GiveUpAsync(mistaken, Guid.NewGuid(), default)).Refusal.ShouldBeNull();
        (await db.Inspections.AnyAsync(row => row.Id == mistaken)).ShouldBeFalse();
        (await db.OpenItems.AsNoTracking().FirstAsync(one => one.Id == item.Id)).IsOpen.ShouldBeTrue("it is still to do");

        var taken = await TakeAsync();
        (await shop.SignAsync(db, taken)).Refusal!.Message.ShouldContain("still things to do");
        (await WriteAsync(job =>
            job.Inspection.JobLine!.Correct(new("Replaced", CorrectionKind.Replaced, "manual 28-10"), job.Inspection.Terms,
            TestShop.Ines, TestShop.Now), taken)).Refusal.ShouldBeNull();
        (await shop.Desk(db).GiveUpAsync(taken, Guid.NewGuid(), default)).Refusal!.Message.ShouldContain("Something was recorded");
        (await shop.SignAsync(db, taken)).Refusal.ShouldBeNull();
        (await db.OpenItems.AsNoTracking().FirstAsync(one => one.Id == item.Id)).IsOpen.ShouldBeFalse();
        var record = (await db.SignedRecords.AsNoTracking().Where(row => row.InspectionId == taken).ToListAsync()).ShouldHaveSingleItem();
        record.Text()["work"]![0]!.ToString().ShouldContain("Replaced. Ref. manual 28-10.");
        (await TestShop.VerifiedAsync(db)).Fault.ShouldBeNull();
    }

    // Somebody put a line on the list, took one off or changed a value between reading the entries and signing them.
    [Fact]
    public async Task Other_entries_than_those_that_were_read_are_not_signed()
    {
        (await WriteAsync(job =>
        {
            foreach (var task in job.Inspection.Tasks)
                job.Inspection.Answer(task, TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
            return null;
        })).Refusal.ShouldBeNull();
        await using var db = shop.Open();
        var read = await shop.ReadAsync(db, inspection);
        (await WriteAsync(job => job.Inspection.AddLine(Guid.NewGuid(), null, false, "Tested beside it", TestShop.Ines, TestShop.Now)))
            .Refusal.ShouldBeNull();
        (await shop.Desk(db).SignAsync(inspection, Guid.NewGuid(), TestShop.Weighed, TestShop.Signer, read, default))
            .Refusal!.Message.ShouldContain("the entries read otherwise now");
        (await db.SignedRecords.CountAsync()).ShouldBe(0);
        (await shop.SignAsync(db, inspection)).Refusal.ShouldBeNull();
        (await db.SignedRecords.FirstAsync()).Text()["work"]!.AsArray().Select(line => $"{line}").ShouldContain("Tested beside it.");
    }

    [Fact]
    public async Task While_an_inspection_is_in_work_it_is_put_right_there()
    {
        await LeaveTwoAsync();
        await using var db = shop.Open();
        var item = (await db.OpenItemsAsync((await db.Aircraft.SingleAsync()).Id, default))[0];
        await shop.BeginOtherAsync();
        (await ClearAsync(item.Id)).Refusal!.Message.ShouldContain("which is in work: put it right there");
    }

    // A shop of the release before: its last signed inspection had left something open, and the next one was in work already.
    [Fact]
    public async Task A_shop_from_before_gets_its_open_items_from_its_last_signed_inspection()
    {
        await LeaveTwoAsync();
        var next = await shop.BeginOtherAsync();
        await using (var db = shop.Open())
            await db.Database.ExecuteSqlRawAsync("DELETE FROM OpenItems");
        await using (var db = shop.Open())
            await db.OpenItemsFromHistoryAsync(default);
        await using var after = shop.Open();
        var items = await after.OpenItemsAsync((await after.Aircraft.SingleAsync()).Id, default);
        items.Count.ShouldBe(2);
        var work = await after.Inspections.Include(row => row.Discrepancies).SingleAsync(row => row.Id == next);
        work.Discrepancies.Select(found => (found.CarriedFrom, found.WaitsForALook))
            .ShouldBe(items.Select(item => ((Guid?)item.Id, true)), ignoreOrder: true);
    }

    [Fact]
    public async Task A_bad_judgement_outlives_the_value_that_was_taken_back()
    {
        await using var first = shop.Open();
        var engine = (await first.Aircraft.WithParts().SingleAsync()).Engines.Single().Component;
        var sheet = RunSheet.Of(engine);
        var drop = sheet.Values.Single(value => value.Kind == "mag-drop-left" && value.Position == "after");
        Task<Written> MeasureAsync(double? value, int minute) =>
            WriteAsync(job => job.Inspection.Measure(Guid.NewGuid(), sheet, drop, value, drop.Band.Unit,
                new(TestShop.Ines, TestShop.Now.AddMinutes(minute))));
        (await MeasureAsync(260, 0)).Refusal.ShouldBeNull();
        (await MeasureAsync(null, 1)).Refusal.ShouldBeNull();
        await using var db = shop.Open();
        var job = (await shop.Desk(db).JobAsync(inspection, default))!;
        job.Inspection.Readings.ShouldBeEmpty();
        var line = JudgedLines.Of(job.Inspection, job.Aircraft).ShouldHaveSingleItem();
        (line.IsUnanswered, line.Judged.Saw).ShouldBe((true, "260 rpm"));
        (await MeasureAsync(120, 2)).Refusal.ShouldBeNull();
        await using var after = shop.Open();
        job = (await shop.Desk(after).JobAsync(inspection, default))!;
        JudgedLines.Of(job.Inspection, job.Aircraft).ShouldHaveSingleItem().By.ShouldBe(AnsweredBy.ReadAgain);
    }
}
