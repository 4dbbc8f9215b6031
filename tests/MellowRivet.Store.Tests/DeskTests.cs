using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

public class DeskTests : IAsyncLifetime
{
    private readonly TestShop shop = new();
    private Guid inspection;

    public async ValueTask InitializeAsync() => inspection = await shop.BeginAsync();

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private static Func<Job, Core.Refusal?> Find(string what) => job =>
    {
        job.Inspection.Find(Guid.NewGuid(), what, "gear", "", DiscrepancyClass.Airworthiness, false, null, TestShop.Ines, TestShop.Now);
        return null;
    };

    private async Task<Written> WriteAsync(Guid post, Func<Job, Core.Refusal?> work)
    {
        await using var db = shop.Open();
        return await shop.Desk(db).WriteAsync(inspection, post, work, default);
    }

    private async Task<Job> ReadAsync()
    {
        await using var db = shop.Open();
        return (await shop.Desk(db).JobAsync(inspection, default))!;
    }

    [Fact]
    public async Task What_is_kept_comes_back_as_it_was()
    {
        var job = await ReadAsync();
        job.Aircraft.TimeInService.ShouldBe(new Hours(1000.5m));
        job.Aircraft.Limits.ShouldHaveSingleItem().ShouldBe(new ManualLimit("tyre", "psi", 28, 32, "32-40"));
        var engine = job.Aircraft.Engines.Single();
        engine.OwnTimeThen.ShouldBe(new Hours(12.3m));
        engine.Component.CompressionRule.ShouldBe(new(Core.Compression.CompressionSchool.QuarterDrop, 61.5, "manual 72-00"));
        Enumerable.Range(1, 4).ShouldAllBe(number => job.Aircraft.Cylinder(engine.Component, number) != null);
        job.Inspection.Tasks.Select(task => task.Key).ShouldBe(["tyres", "brakes"], ignoreOrder: true);
    }

    [Fact]
    public async Task The_same_post_twice_makes_one_record()
    {
        var post = Guid.NewGuid();
        (await WriteAsync(post, Find("cut")))
            .ShouldSatisfyAllConditions(written => written.Refusal.ShouldBeNull(), written => written.Repeated.ShouldBeFalse());
        (await WriteAsync(post, Find("cut"))).ShouldBe(new Written(null, Repeated: true));
        (await ReadAsync()).Inspection.Discrepancies.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task Two_hands_at_once_get_two_numbers_and_lose_nothing()
    {
        var all = await Task.WhenAll(Enumerable.Range(0, 8).Select(i => Task.Run(() => WriteAsync(Guid.NewGuid(), Find($"find {i}")))));
        all.ShouldAllBe(written => written.Done);
        (await ReadAsync()).Inspection.Discrepancies.Select(found => found.Number).Order().ShouldBe(Enumerable.Range(1, 8));
    }

    [Fact]
    public async Task A_refusal_leaves_nothing_behind()
    {
        var post = Guid.NewGuid();
        (await WriteAsync(post, job =>
        {
            Find("half done")(job);
            return new("field", "no");
        })).Done.ShouldBeFalse();
        (await ReadAsync()).Inspection.Discrepancies.ShouldBeEmpty();
        (await WriteAsync(post, Find("now")))
            .ShouldSatisfyAllConditions(written => written.Refusal.ShouldBeNull(),
                written => written.Repeated.ShouldBeFalse("the post was not used up by its refusal"));
    }

    [Fact]
    public async Task A_photo_added_to_a_discrepancy_is_kept_with_it()
    {
        await WriteAsync(Guid.NewGuid(), Find("cut"));
        var photo = new Photo(new string('a', 64), 4000, 3000, new DateTime(2026, 11, 22, 9, 8, 7), TestShop.Now);
        await WriteAsync(Guid.NewGuid(), job =>
        {
            job.Inspection.Discrepancies.Single().Add(photo);
            return null;
        });
        (await ReadAsync()).Inspection.Discrepancies.Single().Photos.ShouldHaveSingleItem().ShouldBe(photo);
    }

    [Fact]
    public async Task Signing_with_open_tasks_writes_nothing()
    {
        await using var db = shop.Open();
        var written = await shop.SignAsync(db, inspection);
        written.Refusal!.Field.ShouldBe("sign");
        (await db.SignedRecords.CountAsync()).ShouldBe(0);
        (await ReadAsync()).Inspection.InWork.ShouldBeTrue();
    }

    [Fact]
    public async Task Nothing_slips_in_behind_a_signature()
    {
        await SignAsync();
        (await WriteAsync(Guid.NewGuid(), Find("late"))).Refusal!.Field.ShouldBe("inspection");

        // A writer that loaded before the signature and saves after it collides on the inspection’s count of changes.
        var other = await shop.BeginOtherAsync();
        await using var early = shop.Open();
        var stale = await early.Inspections.Include(row => row.Tasks).SingleAsync(row => row.Id == other);
        await FinishAsync(other);
        stale.Tasks[0].Set(TaskVerdict.NotApplicable, "late", null, TestShop.Ines, TestShop.Now);
        await Should.ThrowAsync<DbUpdateConcurrencyException>(() => early.SaveChangesAsync());
    }

    // Another program, or a disk that hangs, holds the write lock: the person is told, and nothing is half done.
    [Fact]
    public async Task A_turn_that_does_not_come_is_told_in_words()
    {
        await using var other = new SqliteConnection(shop.Data.ConnectionString);
        await other.OpenAsync();
        await using (var held = other.BeginTransaction(deferred: false))
        {
            var written = await WriteAsync(Guid.NewGuid(), Find("late"));
            (written.Refusal!.Field, written.Done).ShouldBe((Once.Busy, false));
            written.Refusal.Message.ShouldContain("what you typed is still here");
        }
        (await WriteAsync(Guid.NewGuid(), Find("now"))).Done.ShouldBeTrue();
        (await ReadAsync()).Inspection.Discrepancies.Select(found => found.What).ShouldBe(["now"]);
    }

    [Fact]
    public async Task A_signed_record_can_not_be_changed_or_deleted_in_the_database()
    {
        await SignAsync();
        await using var db = shop.Open();
        (await Should.ThrowAsync<SqliteException>(
            () => db.Database.ExecuteSqlRawAsync("UPDATE SignedRecords SET Json = '[]' WHERE Number = 1"))).Message.ShouldContain(
                "never changes");
        (await Should.ThrowAsync<SqliteException>(() => db.Database.ExecuteSqlRawAsync("DELETE FROM SignedRecords"))).Message.ShouldContain(
            "never deleted");
        (await TestShop.VerifiedAsync(db)).ShouldBe((null, 2));
    }

    [Theory]
    [InlineData("UPDATE SignedRecords SET Json = replace(Json, 'good', 'bad') WHERE Number = 2", "record 2 was altered")]
    [InlineData("UPDATE SignedRecords SET AircraftId = upper(AircraftId), Book = 'Propeller' WHERE Number = 1", "record 1 was altered")]
    [InlineData("UPDATE SignedRecords SET SignedAt = '2020-01-01T00:00:00.0000000Z' WHERE Number = 1", "record 1 was altered")]
    [InlineData("DELETE FROM SignedRecords WHERE Number = 1", "record 1 is missing")]
    [InlineData("DELETE FROM SignedRecords WHERE Number = 2", "record 2 is missing")]
    public async Task Someone_who_alters_the_file_itself_is_found_out(string tampering, string says)
    {
        await SignAsync();
        await using var db = shop.Open();
        await db.Database.ExecuteSqlRawAsync("DROP TRIGGER signed_records_never_change; DROP TRIGGER signed_records_never_go;");
        await db.Database.ExecuteSqlRawAsync(tampering);
        (await TestShop.VerifiedAsync(db)).Fault.ShouldNotBeNull().ShouldStartWith(says);
    }

    [Fact]
    public async Task A_backup_is_a_whole_shop_again()
    {
        await SignAsync();
        var copy = Path.Combine(shop.Data.Path, "copy", "rivet.db");
        Directory.CreateDirectory(Path.GetDirectoryName(copy)!);
        ShopDatabase.Backup(shop.Data, copy);

        await using var restored = RivetDb.Of(new(Path.GetDirectoryName(copy)!));
        (await TestShop.VerifiedAsync(restored)).ShouldBe((null, 2));
        (await restored.Inspections.SingleAsync()).State.ShouldBe(InspectionState.SignedAirworthy);
    }

    [Fact]
    public async Task A_database_that_needs_migrating_is_backed_up_first()
    {
        await using var db = shop.Open();
        await db.Database.ExecuteSqlRawAsync("DELETE FROM __EFMigrationsHistory");
        // The tables are there already, so the migration itself fails: what was there is in the backup.
        await Should.ThrowAsync<SqliteException>(() => ShopDatabase.BringUpToDateAsync(db, shop.Data, TestShop.Clock, default));
        var backup = Directory.GetFiles(shop.Data.Backups).ShouldHaveSingleItem();
        await using var connection = new SqliteConnection($"Data Source={backup};Pooling=False");
        await connection.OpenAsync();
        var count = connection.CreateCommand();
        count.CommandText = "SELECT COUNT(*) FROM Inspections";
        (await count.ExecuteScalarAsync()).ShouldBe(1L);
    }

    [Fact]
    public async Task Every_write_waits_for_the_disk()
    {
        await using var db = shop.Open();
        (await db.Database.SqlQueryRaw<long>("SELECT synchronous AS Value FROM pragma_synchronous").SingleAsync()).ShouldBe(2, "2 is FULL");
        (await db.Database.SqlQueryRaw<string>("SELECT journal_mode AS Value FROM pragma_journal_mode").SingleAsync()).ShouldBe("wal");
        (await db.Database.SqlQueryRaw<long>("SELECT foreign_keys AS Value FROM pragma_foreign_keys").SingleAsync()).ShouldBe(1);
    }

    // Opening one sets it up anew, which costs as much as a small query.
    [Fact]
    public async Task A_connection_is_opened_once_for_all_that_is_asked_and_given_back_after_it()
    {
        System.Data.Common.DbConnection connection;
        await using (var db = shop.Open())
        {
            connection = db.Database.GetDbConnection();
            var opened = 0;
            connection.StateChange += (_, change) => opened += change.CurrentState == System.Data.ConnectionState.Open ? 1 : 0;
            await db.Aircraft.CountAsync();
            await using (var turn = await db.Database.BeginTransactionAsync())
                await turn.CommitAsync();
            await db.Aircraft.AsNoTracking().ToListAsync();
            (opened, connection.State).ShouldBe((1, System.Data.ConnectionState.Open));
        }
        connection.State.ShouldBe(System.Data.ConnectionState.Closed);
    }

    private Task SignAsync() => FinishAsync(inspection);

    private async Task FinishAsync(Guid id)
    {
        await using var db = shop.Open();
        var desk = shop.Desk(db);
        (await desk.WriteAsync(id, Guid.NewGuid(), job =>
        {
            foreach (var task in job.Inspection.Tasks)
                task.Set(TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
            return null;
        }, default)).Done.ShouldBeTrue();
        (await shop.SignAsync(db, id)).Done.ShouldBeTrue();
    }
}
