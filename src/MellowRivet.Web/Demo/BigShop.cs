using System.Globalization;
using System.Security.Cryptography;
using System.Threading.Channels;
using MellowRivet.Core;
using MellowRivet.Core.Books;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.EngineLogs;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Store.Proof;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Demo;

/// <summary>
/// A shop as large as one ever gets, to measure on: the demo's, and 300 aircraft with ten years of inspections, readings,
/// findings, photos, signed records and open items. Made twice as of one day it is the same but for its ids.
/// </summary>
internal static class BigShop
{
    public const int Fleet = 300, Years = 10, Bulletins = 2_000;
    private const int LooseParts = 80, DueEach = 25, LogsEvery = 10, InWorkEvery = 14;

    /// <summary>One aircraft with all that is known of it, and the entries that closed its inspections.</summary>
    private sealed record Made(Aircraft Aircraft, IReadOnlyList<object> Rows,
        IReadOnlyList<(Draft Draft, Guid AircraftId, Guid InspectionId, DateTimeOffset At)> Signed);

    public static async Task MakeAsync(DemoHistory demo, DataFolder data, CancellationToken stop)
    {
        var log = await demo.ReadLogAsync("engine-log-four.csv", stop);
        var pictures = Enum.GetValues<Subject>().Where(subject => subject is not (Subject.Page or Subject.Around)).Select(subject =>
        {
            using var small = new MemoryStream();
            using var drawn = DemoPictures.Draw(subject, 7, 0.12);
            drawn.CopyTo(small);
            return small.ToArray();
        }).ToList();
        foreach (var folder in Enumerable.Range(0, 256))
            Directory.CreateDirectory(Path.Combine(data.Photos, folder.ToString("x2", CultureInfo.InvariantCulture)));

        var made = Channel.CreateBounded<Made>(4);
        var making = Task.Run(async () =>
        {
            for (var number = 0; number < Fleet; number++)
                await made.Writer.WriteAsync(Make(demo, data, number, pictures, log), stop);
            made.Writer.Complete();
        }, stop);
        List<(Draft Draft, Guid AircraftId, Guid InspectionId, DateTimeOffset At)> signed = [];
        demo.Db.ChangeTracker.Clear();
        await foreach (var one in made.Reader.ReadAllAsync(stop))
        {
            demo.Db.AddRange(one.Rows);
            await demo.Db.SaveChangesAsync(stop);
            demo.Db.ChangeTracker.Clear();
            signed.AddRange(one.Signed);
        }
        await making;

        // One chain for the shop, in the order of its days.
        using var key = (await demo.Db.KeyAsync(demo.Clock.GetUtcNow(), stop))!;
        var last = await demo.Db.SignedRecords.AsNoTracking().OrderByDescending(record => record.Id).FirstOrDefaultAsync(stop);
        foreach (var some in signed.OrderBy(one => one.At).Chunk(1_000))
        {
            foreach (var (draft, aircraft, inspection, at) in some)
                demo.Db.SignedRecords.Add(last = SignedRecord.After(last, aircraft, inspection, draft.Book, draft.Content, at, key));
            await demo.Db.SaveChangesAsync(stop);
            demo.Db.ChangeTracker.Clear();
        }
        await TakeInBulletinsAsync(demo.Db, demo.Clock, stop);
    }

    private static Made Make(DemoHistory demo, DataFolder data, int number, List<byte[]> pictures,
        (string Sha, LogColumns Columns, IReadOnlyList<LogFlight> Flights) log)
    {
        var chance = new Random(1_000 + number);
        var (ines, orla, tamsin) = (demo.Person("ines"), demo.Person("orla"), demo.Person("tamsin"));
        var shop = demo.Shelf.Weigh(Category.Standard, demo.ById, demo.Clock);
        Signer signer = new(orla,
            shop.Pack.MaySign(orla, InspectionKind.Annual,
                new(default, "", "", "", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 4)), shop.Today).By!);
        RuleSource source = new(Standing.Manual, "invented for measuring, p. 1");

        var aircraft = new Aircraft(Guid.CreateVersion7(), $"N0M{number:000}", number % 3 == 0
            ? "Ostrand Corrin 4"
            : "Pellworth Dunlin 4", $"M-{number}", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 4));
        var engine = DemoShop.Fit(aircraft, EngineLayout.FlatFour, CompressionSchool.SixtyOfEighty, $"ME-{number}", $"MP-{number}",
            new Hours(200), new(IgnitionKind.Magneto, IgnitionKind.Magneto), part: "TF4-180", propeller: "WP-74");
        aircraft.InstallPlugs(engine, "QK-18M", 1, new Hours(0), new Hours(0));
        foreach (var part in Enumerable.Range(0, LooseParts))
            DemoHistory.Fit(aircraft, ComponentKind.Other, $"place {part}", $"MX-{part}", $"{number}-{part}", 0, null,
                name: $"Measured part {part}");
        List<object> rows = [aircraft];

        var (began, hours) = (demo.Today.AddYears(-Years).AddDays(number % 29 - 40), 1000m);
        List<OpenItem> open = [];
        List<(Draft, Guid, Guid, DateTimeOffset)> signed = [];
        aircraft.ReadTime(began, new Hours(hours));
        for (var year = 0; year < Years; year++)
        {
            var (from, to) = (began.AddYears(year), year == Years - 1 ? demo.Today.AddDays(-(number % 13) - 1) : began.AddYears(year + 1));
            var yearly = 60 + chance.Next(80);
            foreach (var month in Enumerable.Range(1, 11).Where(month => from.AddMonths(month) < to))
                aircraft.ReadTime(from.AddMonths(month), new Hours(hours + Math.Round(yearly * month / 12m, 1)));
            aircraft.ReadTime(to, new Hours(hours += yearly));
            var working = year == Years - 1 && number % InWorkEvery == 0;
            var at = demo.Clock.At(to, new(9, 0));
            var inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, $"M{number:000}-{year:00}",
                demo.Worksheets("app-d"), to, null, DemoHistory.House, null, open.Where(item => item.IsOpen));
            Work(demo, inspection, aircraft, engine, chance, at, working, pictures, data, rows);
            rows.Add(inspection);
            if (working)
                continue;
            signed.AddRange(RecordWriter.Draft(new(inspection, aircraft, shop, DueLine.Of(aircraft, [], [], to), to, demo.Clock), signer)
                .Select(draft => (draft, aircraft.Id, inspection.Id, at.AddHours(30))));
            var left = OpenItemsAfter.Signing(inspection, [.. open.Where(item => item.IsOpen)], orla.Id, to);
            open.AddRange(left);
            inspection.Sign();
        }
        rows.AddRange(open);
        rows.AddRange(Due(aircraft, engine, source, demo.Today));
        rows.AddRange(Papers(aircraft, demo, ines.Id, began));
        if (number % LogsEvery == 0)
            rows.AddRange(Enumerable.Range(0, Years)
                .Select(year => new EngineLog(Guid.CreateVersion7(), aircraft.Id, engine.Id, $"flights {year}", log.Sha, log.Columns,
                    log.Flights, tamsin.Id, demo.Clock.At(began.AddYears(year), new(12, 0)))));
        return new(aircraft, rows, signed);
    }

    // An annual's own: its tasks, what was read, what was found with its photos, what was done about it.
    private static void Work(DemoHistory demo, Inspection inspection, Aircraft aircraft, Component engine, Random chance, DateTimeOffset at,
        bool working, List<byte[]> pictures, DataFolder data, List<object> rows)
    {
        var (ines, tamsin, orla) = (demo.Person("ines"), demo.Person("tamsin"), demo.Person("orla"));
        void Read(string kind, Guid part, string position, double value, Unit unit, ReadingConditions conditions, Guid? test = null) =>
            inspection.Record(new(Guid.CreateVersion7(), aircraft.Id, part, kind, position, Math.Round(value, 3), unit, conditions,
                aircraft.TimeInService, at.AddMinutes(inspection.Readings.Count),
                ines.Id) { InspectionId = inspection.Id, CompressionTestId = test });

        var test = inspection.Begin(new(Guid.CreateVersion7(), engine.Id, 80, 14.7, hot: true, null, ines.Id, at));
        foreach (var place in engine.Layout.Cylinders)
            Read(Reading.CompressionKind, aircraft.Cylinder(engine, place.Number)!.Id, $"{place.Number}", 70 + chance.Next(9), Unit.Psi,
                new(true, 80, 14.7, null, LeakPath.None), test.Id);
        foreach (var stay in aircraft.SittingOn(engine.Id, ComponentKind.Plug))
            Read(PlugKinds.Ohms, stay.ComponentId, stay.Position, 1_400 + chance.Next(900), Unit.Ohm, new());
        Read(OilUse.AddedKind, engine.Id, "", 1, Unit.Litre, new());
        foreach (var metal in OilMetals.All)
            rows.Add(new Reading(Guid.CreateVersion7(), aircraft.Id, engine.Id, metal.Kind, "", 8 + chance.Next(20), Unit.PartsPerMillion,
                new(), aircraft.TimeInService, at, ines.Id));
        rows.Add(new Reading(Guid.CreateVersion7(), aircraft.Id, engine.Id, "oil-hours", "", 40, Unit.Hour, new(), aircraft.TimeInService,
            at, ines.Id));
        demo.AnswerAll(inspection, aircraft, at.AddHours(2), ines, chance.Next(100), working
            ? task => task.Order % 2 == 0 && !task.IsCompression
            : null);
        DemoHistory.LookAt(inspection, at, tamsin, second: !working);

        var zones = inspection.Tasks.Select(task => task.ZoneKey).Distinct().ToList();
        foreach (var find in Enumerable.Range(0, 6 + chance.Next(2)))
        {
            var (finding, past) = (DemoFindings.Today[chance.Next(DemoFindings.Today.Length)],
                DemoFindings.Past[find % DemoFindings.Past.Length]);
            var found = inspection.Find(Guid.CreateVersion7(), $"{finding.What} ({find + 1})", zones[chance.Next(zones.Count)],
                finding.Where, working || find > 1
                    ? finding.Class
                    : DiscrepancyClass.Recommended, false, null, ines.Id, at.AddHours(3).AddMinutes(find * 9));
            found.Add(Picture(data, pictures[chance.Next(pictures.Count)], chance.Next(), at));
            if (working ? find < 3 : find > 1)
                found.Correct(new(past.Done), inspection.Terms, ines.Id, at.AddHours(20));
        }
        foreach (var carried in inspection.Discrepancies.Where(found => found.WaitsForALook && !working).ToList())
            carried.Correct(new("Put right this year."), inspection.Terms, ines.Id, at.AddHours(21));
        if (!working)
            DemoHistory.InspectAll(inspection, at.AddHours(26), orla);
    }

    // The picture with a number behind its end: another file, that looks the same.
    private static Photo Picture(DataFolder data, byte[] picture, int number, DateTimeOffset at)
    {
        byte[] bytes = [.. picture, .. BitConverter.GetBytes(number)];
        var sha = Convert.ToHexStringLower(SHA256.HashData(bytes));
        var path = Path.Combine(data.Photos, sha[..2], sha);
        File.WriteAllBytes($"{path}.original", bytes);
        File.WriteAllBytes($"{path}.thumb.jpg", picture);
        return new(sha, 153, 115, null, at);
    }

    private static IEnumerable<DueItem> Due(Aircraft aircraft, Component engine, RuleSource source,
        DateOnly today) => Enumerable.Range(0, DueEach).Select(item =>
    {
        var onEngine = item % 5 == 0;
        Interval interval = new(item % 3 == 0 ? null : 50 * (1 + item), item % 3 == 1 ? null : 6 * (1 + item % 9), item % 2 == 0
            ? CalendarRule.EndOfMonth
            : CalendarRule.SameDay);
        var due = new DueItem(Guid.CreateVersion7(), onEngine ? null : aircraft.Id, onEngine
            ? engine.Id
            : null, $"Measured item {item}", DueKind.Service, interval, source);
        if (item % 11 != 0)
            due.SetDone(new(today.AddDays(-item * 13), Math.Max(0, aircraft.TimeInService.Value - item * 9), null, null, null, "measured"),
                today);
        return due;
    });

    private static IEnumerable<object> Papers(Aircraft aircraft, DemoHistory demo, Guid by, DateOnly began)
    {
        var book = new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Airframe, "Airframe, volume 1", began.AddYears(-3), null,
            false);
        yield return book;
        yield return new LogBook(Guid.CreateVersion7(), aircraft.Id, BookKind.Engine, "Engine", began.AddYears(-3), null, false);
        for (var entry = 0; entry < 36; entry++)
            yield return new BookEntry(Guid.CreateVersion7(), aircraft.Id, book.Id, began.AddMonths(entry - 36),
                new Hours(600 + entry * 10), $"Measured entry {entry}", $"{entry + 1}", null, by, demo.Now);
    }

    /// <summary>
    /// As many bulletins as a large shop's list has: one in eight concerns part of the fleet, one in forty asks for a
    /// serial number that nobody has read.
    /// </summary>
    private static async Task TakeInBulletinsAsync(RivetDb db, TimeProvider clock, CancellationToken stop)
    {
        var (today, at) = (clock.Today(), clock.GetUtcNow());
        db.Types.AddRange(Enumerable.Range(0, 97)
            .Select(number => new KnownType(Guid.CreateVersion7(), TypeKind.Aircraft, "Another", $"Type {number}")));
        await db.TakeInAsync([.. Enumerable.Range(0, Bulletins).Select(number =>
        {
            var model = number % 8 == 0 ? "Ostrand Corrin 4" : $"Another Type {number % 97}";
            var serials =
                $"ME-{number % 250} to ME-{number % 250 + 60} except ME-{number % 250 + 9} to ME-{number % 250 + 12}; MX-series all";
            var third = number % 40 == 0
                ? "engine.crankshaft.serial in K-1 to K-900"
                : "none of:\n  engine.modification.MM-1 is yes\n  aircraft.hours at least 900000";
            return new Bulletin(BulletinFile.FormatName, BulletinFile.CurrentVersion, "Measured Issuer", $"MB-{number:0000}", "",
                (BulletinKind)(number % 6 + 1), $"Measured subject {number}", today.AddDays(-number), today.AddDays(-number),
                RuleText.Read($"aircraft.model is {model}\nengine.serial in {serials}\n{third}").Rule!,
                new([new(DeadlineKind.WithinHours, Hours: 50), new(DeadlineKind.WithinMonths, Months: 12)], new Repeat(100)), "measured",
                [], ComponentKind.Engine);
        })], "measured", null, at, stop);
        await db.SaveChangesAsync(stop);
        db.ChangeTracker.Clear();
    }
}
