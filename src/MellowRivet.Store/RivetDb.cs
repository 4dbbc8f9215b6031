using System.Linq.Expressions;
using MellowRivet.Core.Amendments;
using MellowRivet.Core.Books;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Parts;
using MellowRivet.Core.Passports;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store.Mapping;
using MellowRivet.Store.Proof;
using Microsoft.AspNetCore.Identity.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace MellowRivet.Store;

/// <summary>The shop's database. Core's own types are what is stored.</summary>
/// <param name="options">How it is reached.</param>
/// <param name="acting">Who is at it, for the shop's log; null where nobody is, and nothing is logged.</param>
public sealed class RivetDb(DbContextOptions<RivetDb> options, Acting? acting = null) : IdentityUserContext<Account, Guid>(options)
{
    internal (Actor Who, DateTimeOffset At)? ActingNow => acting?.Now;

    /// <summary>What is signed with the next save.</summary>
    internal List<ToSign> Signing { get; } = [];

    public DbSet<Person> People => Set<Person>();
    public DbSet<Aircraft> Aircraft => Set<Aircraft>();
    public DbSet<KnownType> Types => Set<KnownType>();
    public DbSet<Component> Components => Set<Component>();
    public DbSet<Installation> Installations => Set<Installation>();
    public DbSet<MeterReading> MeterReadings => Set<MeterReading>();
    public DbSet<DueItem> DueItems => Set<DueItem>();
    public DbSet<ShopBulletin> Bulletins => Set<ShopBulletin>();
    public DbSet<BulletinFollowUp> BulletinFollowUps => Set<BulletinFollowUp>();
    public DbSet<StatedFact> StatedFacts => Set<StatedFact>();
    public DbSet<FeedState> Feeds => Set<FeedState>();
    public DbSet<LogBook> LogBooks => Set<LogBook>();
    public DbSet<BookEntry> BookEntries => Set<BookEntry>();
    public DbSet<Inspection> Inspections => Set<Inspection>();
    public DbSet<Discrepancy> Discrepancies => Set<Discrepancy>();
    public DbSet<OpenItem> OpenItems => Set<OpenItem>();
    public DbSet<BookedTime> BookedTimes => Set<BookedTime>();
    public DbSet<OrderedPart> OrderedParts => Set<OrderedPart>();
    public DbSet<KeptPlan> Plans => Set<KeptPlan>();
    public DbSet<OwnerLink> OwnerLinks => Set<OwnerLink>();
    public DbSet<Reading> Readings => Set<Reading>();
    public DbSet<EngineLog> EngineLogs => Set<EngineLog>();
    public DbSet<SignedRecord> SignedRecords => Set<SignedRecord>();
    public DbSet<Evidence> Evidence => Set<Evidence>();
    public DbSet<ShopKeyLine> ShopKeys => Set<ShopKeyLine>();
    public DbSet<PassportTaken> Passports => Set<PassportTaken>();
    public DbSet<Edition> Editions => Set<Edition>();
    public DbSet<Tool> Tools => Set<Tool>();
    public DbSet<Amendment> Amendments => Set<Amendment>();
    public DbSet<Shop> Shop => Set<Shop>();
    public DbSet<Whereabouts> Whereabouts => Set<Whereabouts>();
    public DbSet<ChangeCount> Counts => Set<ChangeCount>();
    public DbSet<Session> Sessions => Set<Session>();
    public DbSet<LogLine> Log => Set<LogLine>();
    public DbSet<Posting> Postings => Set<Posting>();

    /// <summary>A shop's database outside the running application.</summary>
    public static RivetDb Of(DataFolder data, Acting? acting = null)
    {
        var options = new DbContextOptionsBuilder<RivetDb>();
        Use(options, data);
        return new(options.Options, acting);
    }

    public static void Use(DbContextOptionsBuilder builder, DataFolder data) => builder
        .UseSqlite(data.ConnectionString, sqlite => sqlite.UseQuerySplittingBehavior(QuerySplittingBehavior.SplitQuery)
            // A list goes as one parameter, however long: every part of a large fleet would be more than a statement takes.
            .UseParameterizedCollectionMode(ParameterTranslationMode.Parameter))
        .AddInterceptors(DurableConnection.Instance)
        .AddInterceptors(data.HeadFile is { } file ? [new HeadKeeper(file)] : Array.Empty<IInterceptor>())
        // SQLite rebuilds a table outside a transaction. A backup is made before any migration, and is the way back.
        // Whether the last migration is up to the model is a test's to ask, not every start's: it would build the model anew.
        .ConfigureWarnings(warnings =>
            warnings.Ignore(RelationalEventId.NonTransactionalMigrationOperationWarning, RelationalEventId.PendingModelChangesWarning));

    /// <summary>Gives the connection back before its time; nothing can be asked for from then on.</summary>
    public ValueTask GiveBackAsync() => DisposeAsync();

    /// <summary>
    /// Nothing is saved but through <see cref="SaveChangesAsync(bool, CancellationToken)"/>: only that counts readings on
    /// their parts and raises versions.
    /// </summary>
    /// <exception cref="NotSupportedException">Always.</exception>
    public override int SaveChanges(bool acceptAllChangesOnSuccess) =>
        throw new NotSupportedException("The shop's database is saved by SaveChangesAsync alone.");

    public override async Task<int> SaveChangesAsync(bool acceptAllChangesOnSuccess, CancellationToken cancellationToken = default)
    {
        // Both or neither: a reader between the two would take old content for the new revision's.
        await using var own = Database.CurrentTransaction is null ? await Database.BeginTransactionAsync(cancellationToken) : null;
        // What changed is looked for once: looking through every tracked row takes its time.
        DetectChanges();
        var detects = ChangeTracker.AutoDetectChangesEnabled;
        ChangeTracker.AutoDetectChangesEnabled = false;
        try
        {
            await this.CountOnPartsAsync(cancellationToken);
            await StampAsync(cancellationToken);
            await this.SealAmendmentsAsync(cancellationToken);
            if (ActingNow is { } now)
                await this.LogAsync(now.Who, now.At, cancellationToken);
            var rows = await base.SaveChangesAsync(acceptAllChangesOnSuccess, cancellationToken);
            if (Signing.Count > 0)
                rows += await SignAsync(acceptAllChangesOnSuccess, cancellationToken);
            if (own is not null)
                await own.CommitAsync(cancellationToken);
            return rows;
        }
        finally
        {
            ChangeTracker.AutoDetectChangesEnabled = detects;
        }
    }

    // Once what they rest on is saved, and in the same turn.
    private async Task<int> SignAsync(bool accept, CancellationToken stop)
    {
        await this.AppendAsync(stop);
        if (ActingNow is { } now)
            await this.LogAsync(now.Who, now.At, stop);
        return await base.SaveChangesAsync(accept, stop);
    }

    private void DetectChanges()
    {
        try
        {
            ChangeTracker.DetectChanges();
        }
        catch (InvalidOperationException problem) when (IdTakenException.Is(problem))
        {
            throw new IdTakenException(problem);
        }
    }

    // An aircraft whose file changes gets a new revision in the same save, and so does an inspection that changes.
    private async Task StampAsync(CancellationToken stop)
    {
        var changed = ChangeTracker.Entries()
            .Where(entry => entry.State is EntityState.Added or EntityState.Modified or EntityState.Deleted)
            .ToList();
        await ChangeCounts.RaiseAsync(this, changed.Select(entry => ChangeCounts.CountedAs(entry.Entity)).OfType<CountedRows>(), stop);
        var parts = changed.Select(entry => entry.Entity switch { Component part => part.Id, DueItem item => item.ComponentId,
            BulletinFollowUp one => one.ComponentId, StatedFact fact => fact.ComponentId, _ => null }).OfType<Guid>().ToHashSet();
        var touched = changed.Select(entry => entry.Entity switch
        {
            Aircraft aircraft => aircraft.Id,
            Installation stay => stay.AircraftId,
            MeterReading reading => reading.AircraftId,
            DueItem item => item.AircraftId,
            BulletinFollowUp one => one.AircraftId,
            StatedFact fact => fact.AircraftId,
            OpenItem item => item.AircraftId,
            _ => null,
        }).OfType<Guid>().ToHashSet();
        if (parts.Count > 0)
            // An aircraft's file shows the parts that were on it, too.
            touched.UnionWith(await Installations.Where(stay => parts.Contains(stay.ComponentId)).Select(stay => stay.AircraftId)
                .ToListAsync(stop));
        var others = Raise<Aircraft>(touched, row => row.Changes);
        if (others.Count > 0)
            await Aircraft.Where(row => others.Contains(row.Id))
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.Changes, row => row.Changes + 1), stop);

        var written = changed.Select(entry => entry.Entity switch
        {
            Inspection inspection => inspection.Id,
            InspectionTask task => task.InspectionId,
            Discrepancy found => found.InspectionId,
            // One that was taken back is of no inspection any more: it was of one.
            Reading reading => reading.InspectionId ?? (Guid?)entry.OriginalValues[nameof(Reading.InspectionId)],
            CompressionTest test => test.InspectionId,
            _ => null,
        }).OfType<Guid>().ToHashSet();
        var away = Raise<Inspection>(written, row => row.Changes);
        if (away.Count > 0)
            await Inspections.Where(row => away.Contains(row.Id))
                .ExecuteUpdateAsync(set => set.SetProperty(row => row.Changes, row => row.Changes + 1), stop);
    }

    // Raises the revision of those that are tracked, and says which aren't.
    private List<Guid> Raise<T>(HashSet<Guid> ids, Expression<Func<T, int>> revision) where T : class
    {
        var tracked = ChangeTracker.Entries<T>().Where(entry => ids.Contains((Guid)entry.Property("Id").CurrentValue!)).ToList();
        foreach (var entry in tracked.Where(entry => entry.State is not EntityState.Added))
            entry.Property(revision).CurrentValue++;
        return [.. ids.Except(tracked.Select(entry => (Guid)entry.Property("Id").CurrentValue!))];
    }

    protected override void ConfigureConventions(ModelConfigurationBuilder configurationBuilder)
    {
        configurationBuilder.Properties<Hours>().HaveConversion<HoursText>();
        configurationBuilder.Properties<DateTimeOffset>().HaveConversion<UtcText>();
    }

    protected override void OnModelCreating(ModelBuilder builder)
    {
        base.OnModelCreating(builder);
        builder.Entity<Account>().HasIndex(account => account.PersonId).IsUnique();
        builder.Entity<Session>().Property(session => session.Id).ValueGeneratedNever();
        builder.Entity<Session>().HasIndex(session => session.AccountId);
        builder.Entity<LogLine>().HasKey(line => line.Number);
        builder.Entity<LogLine>().HasIndex(line => line.At);
        builder.Entity<Posting>().Property(posting => posting.Id).ValueGeneratedNever();
        builder.Entity<Posting>().HasIndex(posting => posting.At);
        builder.ApplyConfigurationsFromAssembly(typeof(RivetDb).Assembly);
        foreach (var property in builder.Model.GetEntityTypes().SelectMany(entity => entity.GetProperties()))
            if ((Nullable.GetUnderlyingType(property.ClrType) ?? property.ClrType) is { IsEnum: true } words)
                property.SetValueConverter(typeof(EnumText<>).MakeGenericType(words));
    }
}
