using MellowRivet.Core.Books;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store.Mapping;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace MellowRivet.Store;

/// <summary>The shop's database. Core's own types are what is stored.</summary>
public sealed class RivetDb(DbContextOptions<RivetDb> options) : IdentityUserContext<Account, Guid>(options)
{
    public DbSet<Person> People => Set<Person>();
    public DbSet<Aircraft> Aircraft => Set<Aircraft>();
    public DbSet<Component> Components => Set<Component>();
    public DbSet<Installation> Installations => Set<Installation>();
    public DbSet<MeterReading> MeterReadings => Set<MeterReading>();
    public DbSet<DueItem> DueItems => Set<DueItem>();
    public DbSet<LogBook> LogBooks => Set<LogBook>();
    public DbSet<BookEntry> BookEntries => Set<BookEntry>();
    public DbSet<Inspection> Inspections => Set<Inspection>();
    public DbSet<Reading> Readings => Set<Reading>();
    public DbSet<SignedRecord> SignedRecords => Set<SignedRecord>();
    public DbSet<Posting> Postings => Set<Posting>();

    public static void Use(DbContextOptionsBuilder builder, DataFolder data) => builder
        .UseSqlite(data.ConnectionString, sqlite => sqlite.UseQuerySplittingBehavior(QuerySplittingBehavior.SplitQuery))
        .AddInterceptors(DurableConnection.Instance)
        // SQLite rebuilds a table outside a transaction. A backup is made before any migration, and is the way back.
        .ConfigureWarnings(warnings => warnings.Ignore(RelationalEventId.NonTransactionalMigrationOperationWarning));

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<Enum>().HaveConversion<string>();
        configurationBuilder.Properties<Hours>().HaveConversion<HoursText>();
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<UtcText>();
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<Account>().HasIndex(account => account.PersonId).IsUnique();
        builder.Entity<Posting>().Property(posting => posting.Id).ValueGeneratedNever();
        builder.ApplyConfigurationsFromAssembly(typeof(RivetDb).Assembly);
    }
}
