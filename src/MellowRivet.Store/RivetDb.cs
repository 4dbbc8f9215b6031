using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store.Mapping;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>The shop's database. Core's own types are what is stored.</summary>
public sealed class RivetDb(DbContextOptions<RivetDb> options) : IdentityUserContext<Account, Guid>(options)
{
    public DbSet<Person> People => Set<Person>();
    public DbSet<Aircraft> Aircraft => Set<Aircraft>();
    public DbSet<Inspection> Inspections => Set<Inspection>();
    public DbSet<Reading> Readings => Set<Reading>();
    public DbSet<SignedRecord> SignedRecords => Set<SignedRecord>();
    public DbSet<Posting> Postings => Set<Posting>();

    public static void Use(DbContextOptionsBuilder builder, DataFolder data) => builder
        .UseSqlite(data.ConnectionString, sqlite => sqlite.UseQuerySplittingBehavior(QuerySplittingBehavior.SplitQuery))
        .AddInterceptors(DurableConnection.Instance);

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
