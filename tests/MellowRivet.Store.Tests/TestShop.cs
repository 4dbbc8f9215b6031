using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Time.Testing;

namespace MellowRivet.Store.Tests;

/// <summary>A shop on a real SQLite file in a folder of its own.</summary>
public sealed class TestShop : IAsyncDisposable
{
    /// <summary>The one day of these tests.</summary>
    public static readonly DateTimeOffset Now = new(2026, 11, 23, 10, 0, 0, TimeSpan.Zero);
    public static readonly DateOnly Today = new(2026, 11, 23);
    public static FakeTimeProvider Clock { get; } = new(Now);

    public static readonly Guid Ines = Guid.NewGuid();

    public static readonly Worksheet Sheet = Worksheet.Parse("""
        { "key": "two", "title": "Two tasks", "version": 1, "basis": "test", "zones": [
          { "key": "gear", "title": "Gear", "station": "airframe", "book": "airframe", "looks": false, "tasks": [
            { "key": "tyres", "text": "Tyres", "reference": "(e)(8)" }, { "key": "brakes", "text": "Brakes", "reference": "(e)(9)" } ] } ] }
        """);

    public static readonly RulePack Rules = RulePack.Parse("""
        { "key": "t", "title": "Test pack", "effective": "2026-01-01", "note": "", "signing": [],
          "statements": [ { "inspections": ["annual"], "categories": ["standard"], "airworthy": "good {date}",
          "unairworthy": "not good {date}", "source": { "standing": "practice", "text": "test" } } ],
          "jobs": { "categories": ["standard"], "done": "done {date}", "notDone": "not done {date}", "preventive": null,
          "source": { "standing": "practice", "text": "test" }, "preventiveOn": [], "preventiveSource": null } }
        """);

    public static EntryTemplate Template { get; } = EntryTemplate.Parse(File.ReadAllText(
        Path.Combine(AppContext.BaseDirectory, "shelf", "entries", "usual.json")));

    public static ShopRules Weighed { get; } = new(Rules, new([], [], Core.Discrepancies.Meaning.None), Template,
        new Dictionary<Guid, Person> { [Ines] = new(Ines, "Ines Test", "IT", [Role.Mechanic], [new(CertificateKind.Mechanic, "2")]) },
        new FakeTimeProvider(Now));

    public DataFolder Data { get; } = new(Path.Combine(Path.GetTempPath(), $"rivet-store-{Guid.NewGuid():N}")) { LockSeconds = 1 };

    public static Signer Signer { get; } = new(new Person(Guid.NewGuid(), "Orla Test", "OT", [Role.Inspector], []),
        new(CertificateKind.InspectionAuthorization, "1"));

    public RivetDb Open() => RivetDb.Of(Data);

    public static Shelf Shelf { get; } = new()
    {
        Worksheets = [], RulePacks = [Rules], UsualJobs = [], Kits = [],
        EntryTemplates = new Dictionary<string, EntryTemplate> { [Template.Key] = Template },
        DueStarters = [], UsualFindings = [], NeverDeferred = [], Surveys = Core.Surveys.SurveyRules.Usual,
        Meaning = Core.Discrepancies.Meaning.None, WhoMay = new("t", "", "", "", "", "", "", [], []),
    };

    /// <summary>What verifying a shop finds first, and how many records it has.</summary>
    public static async Task<(string? Fault, int Records)> VerifiedAsync(RivetDb db)
    {
        var found = await ShopDatabase.VerifyAsync(db, new(Path.GetDirectoryName(db.Database.GetDbConnection().DataSource)!), default);
        return (found.Fault, found.Records);
    }

    public KeptStanding Kept { get; } = new();

    /// <summary>Signs an inspection by its entries as they stand now.</summary>
    public async Task<Written> SignAsync(RivetDb db, Guid inspection) =>
        await Desk(db).SignAsync(inspection, Guid.NewGuid(), Weighed, Signer, await ReadAsync(db, inspection), default);

    /// <summary>Reads its entries as they stand now.</summary>
    public async Task<string> ReadAsync(RivetDb db, Guid inspection)
    {
        var job = (await Desk(db).JobAsync(inspection, default))!;
        var due = await Board(db).InTurnAsync(job.Aircraft.Id, default);
        return RecordWriter.ReadAs(RecordWriter.Draft(new(job.Inspection, job.Aircraft, Weighed, due, Clock.Today(), Clock), Signer));
    }

    public ShopBoard Board(RivetDb db, TimeProvider? clock = null) => new(db, Kept, Shelf, clock ?? Clock);

    public Desk Desk(RivetDb db) => new(db, Clock, new WalkFeed(), Board(db));

    // All steps of the way to the present shape take longer than most tests: they are gone once, and each shop is a copy.
    private static readonly Lazy<Task<byte[]>> Empty = new(async () =>
    {
        await using var shop = new TestShop();
        await using (var db = shop.Open())
        {
            await db.Database.MigrateAsync();
            await db.Database.ExecuteSqlRawAsync("PRAGMA journal_mode=WAL;");
        }
        var copy = Path.Combine(shop.Data.Path, "copy.db");
        ShopDatabase.Backup(shop.Data, copy);
        return await File.ReadAllBytesAsync(copy);
    });

    public async Task<Guid> BeginAsync()
    {
        await File.WriteAllBytesAsync(Data.Database, await Empty.Value);
        await using var db = Open();
        await ShopDatabase.BringUpToDateAsync(db, Data, Clock, default);
        var aircraft = new Aircraft(Guid.NewGuid(), "N0TST", "Test", "T-1", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
        var engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "", "E-1") { LayoutKey = EngineLayout.FlatFour.Key };
        engine.JudgeCompressionBy(new(CompressionSchool.QuarterDrop, 61.5, "manual 72-00"));
        aircraft.InstallEngine(engine, "", default, new Hours(12.3m));
        aircraft.ReadTime(new DateOnly(2026, 11, 20), new Hours(1000.5m));
        aircraft.SetLimit(new("tyre", "psi", 28, 32, "32-40"));
        var inspection = new Inspection(Guid.NewGuid(), aircraft, InspectionKind.Annual, "26-1", [Sheet], new DateOnly(2026, 11, 22));
        db.AddRange(aircraft, inspection);
        await db.SaveChangesAsync();
        return inspection.Id;
    }

    /// <summary>A second inspection, of the same aircraft.</summary>
    public async Task<Guid> BeginOtherAsync()
    {
        await using var db = Open();
        var aircraft = await db.Aircraft.WithParts().SingleAsync();
        var inspection = new Inspection(Guid.NewGuid(), aircraft, InspectionKind.Annual, "26-2", [Sheet], new DateOnly(2026, 11, 23));
        db.Add(inspection);
        await db.SaveChangesAsync();
        return inspection.Id;
    }

    public ValueTask DisposeAsync()
    {
        Kept.Dispose();
        Microsoft.Data.Sqlite.SqliteConnection.ClearAllPools();
        Directory.Delete(Data.Path, recursive: true);
        return ValueTask.CompletedTask;
    }
}
