using System.Text;
using MellowRivet.Core.Due;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Store.Files;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Tests;

public class EngineStationStoreTests : IAsyncLifetime
{
    private static readonly DateOnly Today = TestShop.Today;
    private readonly TestShop shop = new();
    private Guid inspection;

    public async ValueTask InitializeAsync()
    {
        inspection = await shop.BeginAsync();
        await WriteAsync(job =>
        {
            var engine = job.Aircraft.Engines.Single().Component;
            job.Aircraft.InstallPlugs(engine, "QK", 1, new Hours(500), new Hours(0));
            job.Aircraft.Install(new(Guid.NewGuid(), ComponentKind.Magneto, "", "M-1"), "left", new Hours(500), new Hours(20), engine.Id);
        });
    }

    public ValueTask DisposeAsync() => shop.DisposeAsync();

    private async Task WriteAsync(Action<Job> work)
    {
        await using var db = shop.Open();
        (await shop.Desk(db).WriteAsync(inspection, Guid.NewGuid(), job => { work(job); return null; }, default)).Done.ShouldBeTrue();
    }

    private async Task<Job> ReadAsync()
    {
        await using var db = shop.Open();
        return (await shop.Desk(db).JobAsync(inspection, default))!;
    }

    private static PlugTray Tray(Job job) => PlugTray.Of(job.Aircraft, job.Aircraft.Engines.Single().Component, job.Inspection);

    [Fact]
    public async Task Plugs_their_marks_and_their_moves_come_back_as_they_were()
    {
        await WriteAsync(job =>
        {
            var place = Tray(job).At(new(2, PlugRow.Bottom))!;
            job.Inspection.NotePlug(place, PlugStep.Look, nameof(PlugLook.OilWet), new(TestShop.Ines, TestShop.Now)).ShouldBeNull();
            job.Inspection.Measure(Guid.NewGuid(), place, PlugStep.Ohms, 2_400, null, new(TestShop.Ines, TestShop.Now)).ShouldBeNull();
            var engine = job.Aircraft.Engines.Single().Component;
            job.Aircraft.MovePlugs(engine, PlugRotation.Plan(engine.FiringOrder, RotationPattern.SwapPairs).Plan!.Moves, Today)
                .ShouldBeNull();
        });
        // 2B and 3T change places: wear goes along, and where it came from is known.
        var place = Tray(await ReadAsync()).At(new(3, PlugRow.Top))!;
        (place.CameFrom, place.Look, place.ReadingOf(PlugStep.Ohms)!.Value,
            place.Time).ShouldBe((new PlugHole(2, PlugRow.Bottom), PlugLook.OilWet, 2_400, new Hours(500.5m)));
    }

    // A reading may belong to no inspection, so one that only left it would go on counting in trends, wear and "last time".
    [Fact]
    public async Task What_is_measured_again_or_taken_back_leaves_nothing_behind()
    {
        var id = Guid.NewGuid();
        var (at, now) = (new PlugHole(1, PlugRow.Top), TestShop.Now);
        void Oil(Job job, double? litres)
        {
            var sheet = OilSheet.Of(job.Aircraft.Engines.Single().Component);
            job.Inspection.Measure(id, sheet, sheet.Values.First(), litres, Unit.Litre, new(TestShop.Ines, now)).ShouldBeNull();
        }
        foreach (var ohms in new[] { 900.0, 1_900 })
            await WriteAsync(job => job.Inspection.Measure(Guid.NewGuid(), Tray(job).At(at)!, PlugStep.Ohms, ohms, null,
                new(TestShop.Ines, now))
                .ShouldBeNull());
        // The page sends the id its field was made with, however often it is typed.
        foreach (var litres in new double?[] { 1.5, 2, 2.5 })
            await WriteAsync(job => Oil(job, litres));
        foreach (var psi in new[] { 60.0, 62 })
            await WriteAsync(job =>
                job.Inspection.PressuresAtAltitude(job.Aircraft.Engines.Single().Component, "before",
                    [new(1_000, psi), new(2_000, psi - 2)], TestShop.Ines, now));
        async Task<List<(string, double)>> KeptAsync()
        {
            await using var db = shop.Open();
            return [.. (await db.Readings.AsNoTracking().ToListAsync()).Select(reading => (reading.Kind, reading.Value)).Order()];
        }
        (await KeptAsync())
            .ShouldBe([(OilUse.AddedKind, 2.5), (Inspection.AltitudeKind, 60), (Inspection.AltitudeKind, 62), (PlugKinds.Ohms, 1_900)]);
        await WriteAsync(job => Oil(job, null));
        (await KeptAsync()).ShouldNotContain(reading => reading.Item1 == OilUse.AddedKind);
    }

    [Fact]
    public async Task A_benched_magneto_is_counted_from_the_signature_and_the_other_due_items_are_not()
    {
        Guid bench, swap;
        await using (var db = shop.Open())
        {
            var magneto = (await db.Aircraft.WithParts().SingleAsync()).Fitted(ComponentKind.Magneto).Single().ComponentId;
            RuleSource source = new(Standing.Practice, "test");
            DueItem one = new(Guid.NewGuid(), null, magneto, "Bench inspection", DueKind.Service, new(EveryHours: 500), source),
                other = new(Guid.NewGuid(), null, magneto, "Overhaul", DueKind.Overhaul, new(EveryHours: 1_500), source);
            db.DueItems.AddRange(one, other);
            await db.SaveChangesAsync();
            (bench, swap) = (one.Id, other.Id);
        }
        await WriteAsync(job =>
        {
            var sheet = MagnetoSheet.Of(job.Aircraft.Fitted(ComponentKind.Magneto).Single().Component);
            foreach (var value in sheet.Values)
                job.Inspection.Measure(Guid.NewGuid(), sheet, value, value.Band.Low is { } low
                    ? (low + (value.Band.High ?? low)) / 2
                    : 25, value.Band.Unit, new(TestShop.Ines, TestShop.Now)).ShouldBeNull();
            foreach (var look in sheet.Looks)
                job.Inspection.Look(sheet, look,
                    new(sheet.Carrier.Id, sheet.Kind, look.Key, LookState.Good, "", null, null, TestShop.Ines, TestShop.Now))
                        .ShouldBeNull();
            job.Inspection.Bench(SheetWork.Of(sheet, job.Aircraft, job.Inspection), true).ShouldBeNull();
            foreach (var task in job.Inspection.Tasks)
                task.Set(TaskVerdict.Good, null, null, TestShop.Ines, TestShop.Now);
        });
        await using (var db = shop.Open())
            (await shop.SignAsync(db, inspection)).Refusal.ShouldBeNull();
        await using var after = shop.Open();
        var items = await after.DueItems.ToDictionaryAsync(item => item.Id);
        items[bench].Last!.Hours.ShouldBe(520.5m, "the magneto's own hours: 20 when fitted at 500, 1000.5 now");
        items[swap].Last.ShouldBeNull();
    }

    [Fact]
    public async Task A_log_is_kept_as_it_came_and_its_flights_come_back()
    {
        var files = new LogFiles(shop.Data);
        var text = "s,rpm,CHT1\n" + string.Join('\n', Enumerable.Range(0, 50).Select(row => $"{row},{2300 + row},{150 + row}"));
        var (sha, refusal) = await files.TakeInAsync(new MemoryStream(Encoding.UTF8.GetBytes(text)), default);
        refusal.ShouldBeNull();
        Encoding.UTF8.GetString(files.Read(sha)!).ShouldBe(text);
        files.Read("../rivet.db").ShouldBeNull();
        var file = LogFile.Read(files.Read(sha)!).File!;
        await using (var db = shop.Open())
        {
            var aircraft = await db.Aircraft.WithParts().SingleAsync();
            db.EngineLogs.Add(new(Guid.NewGuid(), aircraft.Id, aircraft.Engines.Single().ComponentId, "x.csv", sha!, file.Guess(),
                EngineLog.Read(file, file.Guess()).Flights, TestShop.Ines, TestShop.Now));
            await db.SaveChangesAsync();
        }
        await using var again = shop.Open();
        var flight = (await again.EngineLogs.SingleAsync()).Flights.Single();
        (flight.Rows, flight.Summary.HottestCylinder, flight.Summary.GreatestCht, flight.Series.Count).ShouldBe((50, 1, 199, 2));
        flight.Series[1].Stretches[^1].High.ShouldBe(199);
    }
}
