using MellowRivet.Core.Amendments;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Store.Files;
using MellowRivet.Store.Proof;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

/// <summary>An inspection that was signed with everything that a signature rests on, one of its items cleared since.</summary>
public sealed class ProofTests : IAsyncLifetime
{
    private readonly TestShop shop = new();
    private Guid inspection, reading;

    private static readonly ShopRules Clearing = TestShop.Weighed with
    {
        Pack = TestShop.Rules with
            { Clearing = [new([Category.Standard], CertificateKind.InspectionAuthorization, false, new(Standing.Law, "test"))] },
    };

    private static Signer Entitled { get; } =
        new(new Person(Guid.NewGuid(), "Orla Test", "OT", [Role.Inspector], [new(CertificateKind.InspectionAuthorization, "1")]),
            new(CertificateKind.InspectionAuthorization, "1"));

    public async ValueTask InitializeAsync()
    {
        inspection = await shop.BeginAsync();
        await using var db = shop.Open();
        var aircraft = await db.Aircraft.WithParts().SingleAsync();
        db.Add(new DueItem(Guid.NewGuid(), aircraft.Id, null, "Annual inspection", DueKind.Inspection, new(EveryMonths: 12),
            new(Standing.Law, "test"), [InspectionKind.Annual]));
        await db.SaveChangesAsync();
        var photo = (await new PhotoFiles(shop.Data, TestShop.Clock).TakeInAsync(new MemoryStream(TestPictures.Jpeg()), "a.jpg", default))
            .Photo!;
        (await shop.Desk(db).WriteAsync(inspection, Guid.NewGuid(), job =>
        {
            foreach (var what in new[] { "Bladder seeps", "Cable frayed" })
                job.Inspection.Find(Guid.NewGuid(), what, "gear", "left", DiscrepancyClass.Airworthiness, false, null, TestShop.Ines,
                    TestShop.Now).Add(photo);
            foreach (var task in job.Inspection.Tasks)
                job.Inspection.Answer(task, TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
            job.Inspection.Begin(new(Guid.NewGuid(), job.Aircraft.Engines.Single().ComponentId, 80, 14.7, true, 61.5, TestShop.Ines,
                TestShop.Now));
            reading = job.Inspection.Record(new Reading(Guid.NewGuid(), job.Aircraft.Id, null, "tyre", "left", 30, Unit.Find("psi")!, new(),
                job.Aircraft.TimeInService, TestShop.Now, TestShop.Ines) { InspectionId = inspection }).Id;
            return null;
        }, default)).Refusal.ShouldBeNull();
        (await shop.SignAsync(db, inspection)).Refusal.ShouldBeNull();
        var item = (await db.OpenItems.AsNoTracking().ToListAsync()).Single(item => item.FirstNumber == "26-1-01");
        (await shop.Desk(db).ClearAsync(item.AircraftId, item.Id, Guid.NewGuid(), Clearing,
            new("Bladder replaced", CorrectionKind.Replaced, "manual 28-10"), Entitled, default)).Refusal.ShouldBeNull();
    }

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    // Whoever has the file has it without foreign keys and without triggers.
    private async Task<Verified> AfterAsync(RivetDb db, string tampering)
    {
        await db.Database.ExecuteSqlRawAsync("PRAGMA foreign_keys=OFF");
        foreach (var trigger in await db.Database.SqlQueryRaw<string>("SELECT name AS Value FROM sqlite_master WHERE type = 'trigger'")
            .ToListAsync())
            await db.Database.ExecuteSqlRawAsync($"DROP TRIGGER {trigger}");
        (await db.Database.ExecuteSqlRawAsync(tampering)).ShouldBeGreaterThan(0, tampering);
        return await ShopDatabase.VerifyAsync(db, shop.Data, default);
    }

    [Fact]
    public async Task What_was_signed_and_left_alone_holds()
    {
        await using var db = shop.Open();
        var found = await ShopDatabase.VerifyAsync(db, shop.Data, default);
        (found.Faults, found.Notes, found.Records, found.Elsewhere).ShouldSatisfyAllConditions(
            said => said.Faults.ShouldBeEmpty(), said => said.Notes.ShouldBeEmpty(), said => said.Records.ShouldBe(4));
        found.Head.ShouldBe(await db.HeadAsync(default));
    }

    // Kind by kind, what a person with the file might do to it, and the words that tell of it.
    [Theory]
    [InlineData("UPDATE Readings SET Value = 31", "the reading tyre left isn't as it was signed")]
    [InlineData("UPDATE Readings SET TimeInService = '900'", "the reading’s hours tyre left isn't as it was signed")]
    [InlineData("DELETE FROM Readings", "a reading that was signed is gone")]
    [InlineData("INSERT INTO Readings SELECT iif(Id LIKE '0%', '1', '0') || substr(Id, 2), AircraftId, ComponentId, Kind, 'right', "
        + "Value, UnitSymbol, Conditions, TimeInService, "
        + "At, PersonId, InspectionId, TaskId, CompressionTestId, ChangedAt, OwnTime FROM Readings", "was added since")]
    [InlineData("UPDATE InspectionTask SET Verdict = 'NotApplicable' WHERE Key = 'tyres'", "the task Tyres isn't as it was signed")]
    [InlineData("DELETE FROM InspectionTask WHERE Key = 'tyres'", "a task that was signed is gone")]
    [InlineData("UPDATE Discrepancy SET Class = 'Watch' WHERE Number = 1", "the discrepancy 1, Bladder seeps isn't as it was signed")]
    [InlineData("DELETE FROM Discrepancy WHERE Number = 2", "a discrepancy that was signed is gone")]
    [InlineData("UPDATE CompressionTest SET SupplyPsi = 90", "the compression test")]
    [InlineData("UPDATE Inspections SET State = 'InWork'", "its state was set to another since")]
    [InlineData("UPDATE Inspections SET State = 'SignedAirworthy'", "its state was set to another since")]
    [InlineData("""UPDATE Inspections SET SetAside = '[{{"v":1}}]'""", "the inspection 26-1 isn't as it was signed")]
    [InlineData("DELETE FROM Inspections", "an inspection that was signed is gone")]
    [InlineData("UPDATE OpenItems SET Because = 'Watch' WHERE FirstNumber = '26-1-02'", "open item 26-1-02 isn't as it was signed")]
    [InlineData("DELETE FROM OpenItems WHERE FirstNumber = '26-1-02'", "an open item that record 1 left open is gone")]
    [InlineData("UPDATE OpenItems SET InspectionId = AircraftId WHERE FirstNumber = '26-1-02'", "open item 26-1-02 was taken off it")]
    [InlineData("""UPDATE OpenItems SET "End" = (SELECT "End" FROM OpenItems WHERE "End" IS NOT NULL) WHERE FirstNumber = '26-1-02'""",
        "open item 26-1-02 was ended by no signature")]
    [InlineData("""UPDATE OpenItems SET "End" = NULL WHERE FirstNumber = '26-1-01'""", "that record 4 ended doesn't stand as it was ended")]
    [InlineData("""UPDATE OpenItems SET "End" = replace("End", 'replaced', 'painted') WHERE FirstNumber = '26-1-01'""",
        "that record 4 ended doesn't stand as it was ended")]
    [InlineData("UPDATE DueItems SET Done = '[]'", "a time that a due item was done doesn't stand as it was signed")]
    [InlineData("UPDATE DueItems SET Done = replace(Done, '1000.5', '1900.5')", "a time that a due item was done doesn't stand")]
    [InlineData("UPDATE SignedRecords SET Json = replace(Json, 'not good', 'good') WHERE Number = 1", "record 1 was altered")]
    [InlineData("UPDATE SignedRecords SET Json = 'null' WHERE Number = 1", "record 1 was altered")]
    [InlineData("UPDATE SignedRecords SET Json = '[]' WHERE Number = 4", "record 4 was altered")]
    [InlineData("UPDATE SignedRecords SET Book = 'Nonsense' WHERE Number = 1", "what was signed can't be read")]
    [InlineData("UPDATE SignedRecords SET SignedAt = 'yesterday' WHERE Number = 1", "what was signed can't be read")]
    [InlineData("UPDATE SignedRecords SET Signature = NULL WHERE Number = 2", "record 2 isn't signed with the shop's key")]
    [InlineData("UPDATE SignedRecords SET KeyFingerprint = 'x' WHERE Number = 2", "record 2 isn't signed with the shop's key")]
    [InlineData("DELETE FROM SignedRecords WHERE Number = 4", "record 4 is missing")]
    [InlineData("DELETE FROM SignedRecords WHERE Number = 2", "record 2 is missing")]
    [InlineData("UPDATE SignedRecords SET ChainThere = 'x', ShopThere = 'y', NumberThere = 4 WHERE Number = 4", "record 4")]
    [InlineData("UPDATE Evidence SET Json = replace(Json, 'tasks', 'taskz')", "what record 1 rests on is gone, or was altered")]
    [InlineData("DELETE FROM Evidence", "what record 1 rests on is gone, or was altered")]
    [InlineData("UPDATE ShopKeys SET AfterHash = 'x'", "key 1 of the shop was altered")]
    [InlineData("DELETE FROM ShopKeys", "isn't signed with the shop's key")]
    public async Task Each_kind_of_tampering_is_told_by_what_was_touched(string tampering, string says)
    {
        await using var db = shop.Open();
        (await AfterAsync(db, tampering)).Faults.ShouldContain(fault => fault.Contains(says));
    }

    // What goes on changing after a signature, and is nobody's word: everything else of these tables is bound.
    private static readonly HashSet<string> Changing =
    [
        "Inspections.Changes", "InspectionTask.Changes", "Discrepancy.Changes", "OpenItems.Changes", "OpenItems.Estimate",
        "OpenItems.Agreed", "Readings.OwnTime",
    ];

    [Theory]
    [InlineData("Inspections")]
    [InlineData("InspectionTask")]
    [InlineData("Discrepancy")]
    [InlineData("CompressionTest")]
    [InlineData("Readings")]
    [InlineData("OpenItems")]
    public async Task Every_column_that_a_signature_rests_on_is_bound(string table)
    {
        List<string> unseen = [];
        await using var db = shop.Open();
        await db.Database.ExecuteSqlRawAsync("PRAGMA foreign_keys=OFF");
        var columns = await db.Database.SqlQueryRaw<string>($"SELECT name AS Value FROM pragma_table_info('{table}')").ToListAsync();
        foreach (var column in columns.Where(column => !Changing.Contains($"{table}.{column}")))
        {
            await using var undone = await db.Database.BeginTransactionAsync();
            await db.Database.ExecuteSqlRawAsync($"""
                UPDATE "{table}" SET "{column}" = CASE typeof("{column}") WHEN 'integer' THEN "{column}" + 7 WHEN 'real' THEN "{column}" + 1
                    WHEN 'null' THEN '1' ELSE replace("{column}" || '9', 'A', 'B') END
                WHERE rowid = (SELECT MAX(rowid) FROM "{table}")
                """);
            if ((await ShopDatabase.VerifyAsync(db, shop.Data, default)).Fault is null)
                unseen.Add($"{table}.{column}");
            await undone.RollbackAsync();
        }
        unseen.ShouldBeEmpty();
        columns.Count.ShouldBeGreaterThan(5);
    }

    [Fact]
    public async Task A_photo_that_was_changed_or_is_gone_is_told()
    {
        await using var db = shop.Open();
        var photo = Directory.EnumerateFiles(shop.Data.Photos, "*.original", SearchOption.AllDirectories).Single();
        await File.AppendAllTextAsync(photo, "x");
        (await ShopDatabase.VerifyAsync(db, shop.Data, default)).Fault.ShouldNotBeNull().ShouldContain("that it rests on was changed");
        File.Delete(photo);
        (await ShopDatabase.VerifyAsync(db, shop.Data, default)).Fault.ShouldNotBeNull().ShouldContain("that it rests on is gone");
    }

    [Fact]
    public async Task A_value_put_right_in_the_open_holds_and_is_noted_and_one_made_up_by_hand_does_not()
    {
        await using var db = shop.Open();
        var aircraft = (await db.Aircraft.AsNoTracking().SingleAsync()).Id;
        (await shop.Desk(db).PutReadingRightAsync(aircraft, reading, "29", new(Guid.NewGuid(), "Read off the other gauge",
            new(TestShop.Ines, "Ines Test", TestShop.Now.AddHours(1)), TestShop.Today), default)).Refusal.ShouldBeNull();
        var found = await ShopDatabase.VerifyAsync(db, shop.Data, default);
        found.Faults.ShouldBeEmpty();
        found.Notes.ShouldHaveSingleItem().ShouldBe("readings put right in the open since they were signed: 1");
        (await AfterAsync(db, "UPDATE Amendments SET Why = 'Somebody else said so'")).Faults.Count.ShouldBe(2,
            "the amendment isn't the shop's, and so the reading isn't as it was signed");
    }

    // The hours of readings and of what was done at the same total follow the meter: that is no fault, and is told.
    [Fact]
    public async Task A_meter_put_right_after_a_signature_takes_hours_along_and_the_signature_holds()
    {
        await using var db = shop.Open();
        var meter = await db.MeterReadings.AsNoTracking().SingleAsync();
        (await shop.Desk(db).PutMeterRightAsync(meter.AircraftId, meter.Id, meter.On, meter.Shown - 0.5m, new(Guid.NewGuid(),
            "Read off the wrong meter", new(TestShop.Ines, "Ines Test", TestShop.Now.AddHours(1)), TestShop.Today), default))
            .Refusal.ShouldBeNull();
        var found = await ShopDatabase.VerifyAsync(db, shop.Data, default);
        found.Faults.ShouldBeEmpty();
        found.Notes.Count.ShouldBe(2, "readings, and what was done at those hours");
    }

    [Fact]
    public async Task A_made_up_amendment_covers_nothing()
    {
        await using var db = shop.Open();
        db.Amendments.Add(new Amendment(Guid.NewGuid(), (await db.Aircraft.SingleAsync()).Id, AmendmentOf.Reading, reading, "tyre left",
            "30 psi", "31 psi", "test", new(TestShop.Ines, "Ines Test", TestShop.Now.AddDays(1))));
        await db.SaveChangesAsync();
        (await AfterAsync(db, "UPDATE Readings SET Value = 31; UPDATE Amendments SET Signature = NULL")).Faults
            .ShouldContain(fault => fault.Contains("the reading tyre left isn't as it was signed"));
    }

    // Whoever has the folder has the key, and writes all of it anew: only what lies elsewhere tells.
    [Fact]
    public async Task A_chain_that_was_cut_with_all_that_tells_of_it_is_found_by_a_head_that_somebody_kept()
    {
        await using var db = shop.Open();
        var kept = await db.HeadAsync(default);
        (await AfterAsync(db, """
            DELETE FROM SignedRecords WHERE Number = 4; UPDATE sqlite_sequence SET seq = 3 WHERE name = 'SignedRecords';
            UPDATE OpenItems SET "End" = NULL
            """)).Faults.ShouldBeEmpty("nothing in the folder tells");
        kept.Fault(await db.ChainAsync(default)).ShouldNotBeNull().ShouldContain("the chain was cut");
    }

    [Fact]
    public async Task Each_signature_puts_the_head_in_a_file_outside_the_folder()
    {
        var file = Path.Combine(Path.GetTempPath(), $"rivet-heads-{Guid.NewGuid():N}.txt");
        var other = await shop.BeginOtherAsync();
        await using (var db = RivetDb.Of(new(shop.Data.Path) { HeadFile = file }))
        {
            (await shop.Desk(db).WriteAsync(other, Guid.NewGuid(), job =>
            {
                foreach (var task in job.Inspection.Tasks)
                    job.Inspection.Answer(task, TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
                return null;
            }, default)).Refusal.ShouldBeNull();
            File.Exists(file).ShouldBeFalse("nothing was signed");
            (await shop.SignAsync(db, other)).Refusal.ShouldBeNull();
            var head = await db.HeadAsync(default);
            (await File.ReadAllLinesAsync(file)).ShouldHaveSingleItem().ShouldEndWith($" {head.Number}-{head.Hash}");
        }
        File.Delete(file);
    }

    [Fact]
    public async Task The_key_is_its_owners_alone_hands_over_and_is_missed_where_it_is_gone()
    {
        await using var db = shop.Open();
        var file = ShopKeys.FileOf(db);
        if (!OperatingSystem.IsWindows())
            File.GetUnixFileMode(file).ShouldBe(UnixFileMode.UserRead | UnixFileMode.UserWrite);
        var first = (await db.OwnAsync(default)).ShouldHaveSingleItem();
        var (second, refusal) = await db.ChangeKeyAsync(lost: false, TestShop.Now.AddDays(1), default);
        (second!.Number, second.HandOver is not null, refusal).ShouldBe((2, true, null));
        (await db.ChangeKeyAsync(lost: true, TestShop.Now.AddDays(2), default)).Refusal!.Message.ShouldContain("leave --lost out");
        (await ShopDatabase.VerifyAsync(db, shop.Data, default)).Faults.ShouldBeEmpty();

        File.Delete(file);
        var item = (await db.OpenItems.AsNoTracking().ToListAsync()).Single(item => item.IsOpen);
        async Task<Written> ClearAsync() => await shop.Desk(db).ClearAsync(item.AircraftId, item.Id, Guid.NewGuid(), Clearing,
            new("Cable changed", CorrectionKind.Replaced, "manual 27-10"), Entitled, default);
        (await ClearAsync()).Refusal.ShouldBe(ShopKeys.Missing, "nothing is signed without it, and nothing is changed");
        (await db.OpenItems.AsNoTracking().SingleAsync(row => row.Id == item.Id)).IsOpen.ShouldBeTrue();
        // Unsealed, it would be taken for made up ever after.
        (await shop.Desk(db).PutReadingRightAsync(item.AircraftId, reading, "29", new(Guid.NewGuid(), "Read off the other gauge",
            new(TestShop.Ines, "Ines Test", TestShop.Now.AddHours(1)), TestShop.Today), default)).Refusal.ShouldBe(ShopKeys.Missing);
        (await db.Readings.AsNoTracking().SingleAsync(row => row.Id == reading)).Value.ShouldBe(30);
        (await db.ChangeKeyAsync(lost: false, TestShop.Now.AddDays(2), default)).Refusal.ShouldBe(ShopKeys.Missing);
        (await db.ChangeKeyAsync(lost: true, TestShop.Now.AddDays(2), default)).Line!.IsAnew.ShouldBeTrue();
        (await ClearAsync()).Refusal.ShouldBeNull();
        var found = await ShopDatabase.VerifyAsync(db, shop.Data, default);
        (found.Fault, found.Notes.ShouldHaveSingleItem().Contains("key 3 of this shop began")).ShouldBe((null, true));
        first.Fingerprint.ShouldNotBe((await db.OwnAsync(default))[^1].Fingerprint);
    }
}
