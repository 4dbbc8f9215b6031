using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Metadata;

namespace MellowRivet.Store.Tests;

/// <summary>
/// The schema, the model that was generated for it, and shops of the release before, whose migrations were drawn together into one.
/// </summary>
public sealed class CarriedOverTests : IAsyncLifetime
{
    private readonly TestShop old = new();

    public async ValueTask InitializeAsync()
    {
        // Rows that the release before wrote: one aircraft of the demo with its first signed inspection.
        using var script = new StreamReader(typeof(CarriedOverTests).Assembly.GetManifestResourceStream("release-1.sql")!);
        await using var connection = new SqliteConnection($"Data Source={old.Data.Database};Foreign Keys=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = await script.ReadToEndAsync();
        await command.ExecuteNonQueryAsync();
    }

    public ValueTask DisposeAsync() => old.DisposeAsync();

    [Fact]
    public async Task A_shop_of_the_release_before_opens_with_all_it_had()
    {
        await using (var db = old.Open())
            await ShopDatabase.BringUpToDateAsync(db, old.Data, TestShop.Clock, default);
        Directory.EnumerateFiles(old.Data.Backups).ShouldHaveSingleItem("a backup was made before");

        await using var after = old.Open();
        (await after.Database.GetAppliedMigrationsAsync()).Count()
            .ShouldBe(16, "the foundation, open items, types, own hours, stays that ended, what entries say, jobs, the status, people, "
                + "typed once, videos, estimates, the plan of the hangar, surveys, passports, what was said apart");
        (await after.Database.GetPendingMigrationsAsync()).ShouldBeEmpty();
        (await TestShop.VerifiedAsync(after)).ShouldBe((null, 3));
        var aircraft = await after.Aircraft.WithParts().Include(row => row.MeterReadings).SingleAsync();
        (aircraft.Registration, aircraft.TimeInService, aircraft.MeterReadings.Count).ShouldBe(("N04QF", new Hours(4318.6m), 6));
        aircraft.Cylinder(aircraft.Engines.Single().Component, 2)!.SerialNumber.ShouldBe("TF4-C-9941",
            "the one that took the worn one's place");
        var signed = await after.Inspections.Include(row => row.Tasks).Include(row => row.Discrepancies).Include(row => row.Readings)
            .SingleAsync();
        (signed.State, signed.Tasks.Count, signed.Discrepancies.Count(found => found.Correction is not null),
            signed.Readings.Count).ShouldBe((InspectionState.SignedAirworthy, 7, 2, 11));
        signed.House.LabourRate.ShouldBe(95);
        (await after.DueItems.CountAsync(), (await after.BulletinFollowUps.ToListAsync())
            .Count(one => one.Done.Count > 0 || one.Policy is not null), await after.People.CountAsync()).ShouldBe((4, 2, 6));
        // What its bulletins name and its files bear is on the type list: nothing is asked about that is spelled as ever.
        var types = await after.TypeListAsync(default);
        types.Find(TypeKind.Aircraft, aircraft.Type).Type!.FullName.ShouldBe("Pellworth Dunlin 2");
        new ModelsOnFile(await after.Aircraft.WithParts()
            .ToListAsync()).Unsettled(new(await after.Bulletins.ToListAsync(), types, TestShop.Today)).ShouldBeEmpty();

        (await after.Tools.SingleAsync(tool => tool.Number == "T-09")).Reaches(100, Unit.InchPound)
            .ShouldNotBeNull("its name tells its range: 150–750 in-lb");

        // Its readings count on their parts' own hours: the engine had 1866.4 h when the aircraft had 4318.6 h.
        var engine = aircraft.Engines.Single();
        var read = signed.Readings.Where(reading => reading.ComponentId == engine.ComponentId).ToList();
        read.ShouldNotBeEmpty();
        read.ShouldAllBe(reading => reading.OwnTime == engine.TimeInService(reading.TimeInService));

        // It goes on being worked on, and what was signed stays as it was.
        aircraft.ReadMeter(MeterKind.Tach, TestShop.Today.AddDays(10), 4320m, "IC").ShouldBeNull();
        await after.SaveChangesAsync();
        await Should.ThrowAsync<SqliteException>(() => after.Database.ExecuteSqlRawAsync("DELETE FROM SignedRecords WHERE Number = 3"));
    }

    [Fact]
    public async Task A_shop_older_than_that_is_left_alone_and_told_why()
    {
        await using var db = old.Open();
        await db.Database.ExecuteSqlRawAsync("DELETE FROM __EFMigrationsHistory WHERE MigrationId > '20261125'");
        (await Should.ThrowAsync<InvalidDataException>(
            () => ShopDatabase.BringUpToDateAsync(db, old.Data, TestShop.Clock, default))).Message.ShouldContain("Nothing was changed");
        (await db.Database.GetAppliedMigrationsAsync()).Last().ShouldBe("20261124031352_EngineLogs");
    }

    [Fact]
    public async Task What_was_carried_over_has_the_tables_of_a_new_shop()
    {
        await using var fresh = new TestShop();
        await fresh.BeginAsync();
        await using var one = fresh.Open();
        await using var other = old.Open();
        await ShopDatabase.BringUpToDateAsync(other, old.Data, TestShop.Clock, default);
        (await SchemaAsync(other)).ShouldBe(await SchemaAsync(one));
    }

    [Fact]
    public void The_last_migration_is_up_to_what_is_mapped()
    {
        using var db = old.Open();
        db.Database.HasPendingModelChanges().ShouldBeFalse("tools/model NAME writes the migration and the model");
    }

    // EF Core takes the generated model without asking whether the mapping has changed since.
    [Fact]
    public void The_generated_model_is_that_of_the_mapping()
    {
        using var db = old.Open();
        var mapped = db.GetService<IModelRuntimeInitializer>()
            .Initialize((IModel)((IMutableModel)db.GetService<IDesignTimeModel>().Model), designTime: false);
        db.Model.ToDebugString(MetadataDebugStringOptions.LongDefault)
            .ShouldBe(mapped.ToDebugString(MetadataDebugStringOptions.LongDefault), "tools/model writes it anew");
    }

    private static async Task<string[]> SchemaAsync(RivetDb db) =>
        [.. (await db.Database.SqlQueryRaw<string>("""
            SELECT m.type || ' ' || m.name || ' ' || COALESCE(p.name || ' ' || p.type || ' ' || p."notnull" || ' ' || p.pk, '') || ' ' ||
                CASE m.type WHEN 'table' THEN '' ELSE COALESCE(m.sql, '') END AS Value
            FROM sqlite_master m LEFT JOIN pragma_table_info(m.name) p ON m.type = 'table'
            WHERE m.name NOT LIKE 'sqlite_%' AND m.name <> '__EFMigrationsLock'
            """).ToListAsync()).Select(line => line.Replace("\r", "").Trim().TrimEnd(';')).Order(StringComparer.Ordinal)];
}
