using System.IO.Compression;
using System.Net;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Passports;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Store;
using MellowRivet.Store.Passports;
using MellowRivet.Store.Proof;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

/// <summary>Aircraft that go to another shop, and what goes on there.</summary>
public sealed class PassportTests(DemoServer server) : IClassFixture<DemoServer>, IAsyncDisposable
{
    private readonly PassportDesk desk = new(server);

    public ValueTask DisposeAsync() => desk.DisposeAsync();

    [Fact]
    public async Task The_five_aircraft_of_the_demo_come_to_another_shop_equal_in_every_field_and_file()
    {
        var (data, db) = await desk.OtherShopAsync();
        await using (db)
        {
            foreach (var registration in new[] { "N04QF", "N0BRM", "N0LTS", "N0TWQ", "N0FLD" })
            {
                var first = await desk.MakeAsync(registration);
                (await desk.TakeInAsync(data, db, first)).Refusal.ShouldBeNull();
                var (went, came) = (PassportDesk.Hashes(first), PassportDesk.Hashes(await desk.MakeAsync(db, data, registration)));
                string[] ofTheMaking = ["README.txt", "manifest.json", "manifest.sig", "data/keys.jsonl", "data/passports.jsonl"];
                bool IsTheirs(KeyValuePair<string, string> file) => !ofTheMaking.Contains(file.Key)
                    // Sized copies are made anew by whoever takes a picture in.
                    && !file.Key.EndsWith(".large.jpg", StringComparison.Ordinal)
                    && !file.Key.EndsWith(".thumb.jpg", StringComparison.Ordinal);
                went.Where(IsTheirs).OrderBy(file => file.Key, StringComparer.Ordinal)
                    .ShouldBe(came.Where(IsTheirs).OrderBy(file => file.Key, StringComparer.Ordinal), registration);
                (await desk.TakeInAsync(data, db, first)).Refusal!.Message.ShouldContain($"{registration} has a file here already");
            }
            var found = await ShopDatabase.VerifyAsync(db, data, default);
            (found.Faults, found.Records, found.Elsewhere).ShouldSatisfyAllConditions(said => said.Faults.ShouldBeEmpty(),
                said => said.Records.ShouldBe(0), said => said.Elsewhere.ShouldBe(server.With(shop => shop.SignedRecords.Count())));
            (await db.People.ToListAsync()).ShouldAllBe(person => !person.IsHere && person.Roles.Count == 0
                && person.Elsewhere == "Hob & Daughters, Quillmoor Field");
            // This shop gives them nothing, and lets them in nowhere.
            (await db.ChangePersonAsync(db.People.First().Id, Guid.NewGuid(), server.Clock, (person, _) =>
            {
                person.ComeBack();
                return Task.FromResult<Refusal?>(null);
            }, default)).Refusal!.Message.ShouldStartWith("They work at Hob & Daughters");
            (await db.People.AsNoTracking().AllAsync(person => person.LeftAt != null)).ShouldBeTrue();
        }
    }

    [Fact]
    public async Task Whoever_takes_it_in_goes_on_from_there_and_what_came_is_held_to_as_well()
    {
        var (data, db) = await desk.OtherShopAsync();
        await using (db)
        {
            (await desk.TakeInAsync(data, db, await desk.MakeAsync("N0TWQ"))).Refusal.ShouldBeNull();
            var aircraft = await db.Aircraft.SingleAsync();
            var item = (await db.OpenItemsAsync(aircraft.Id, default))[0];
            Person mechanic = new(Guid.NewGuid(), "Brenna Wether", "BW", [Role.Mechanic], [new(CertificateKind.Mechanic, "WM 1")]);
            var rules = server.Services.GetRequiredService<Shelf>().Weigh(aircraft.Category,
                new Dictionary<Guid, Person> { [mechanic.Id] = mechanic }, server.Clock);
            (await new Desk(db, server.Clock, new WalkFeed()).ClearAsync(aircraft.Id, item.Id, Guid.NewGuid(), rules,
                new("Put right", CorrectionKind.Replaced, "manual 32-40"), new(mechanic, mechanic.Certificates[0]), default))
                .Refusal.ShouldBeNull();
            var own = await db.SignedRecords.SingleAsync(record => record.Id > 0);
            (own.Number, own.IsElsewhere, own.PreviousHash).ShouldBe((1, false, SignedRecord.Genesis), "a chain of its own");
            (await ShopDatabase.VerifyAsync(db, data, default)).Faults.ShouldBeEmpty();

            // And to a third one, with what both signed.
            var (third, next) = await desk.OtherShopAsync();
            await using (next)
            {
                (await desk.TakeInAsync(third, next, await desk.MakeAsync(db, data, "N0TWQ"))).Refusal.ShouldBeNull();
                var found = await ShopDatabase.VerifyAsync(next, third, default);
                (found.Fault, found.Elsewhere).ShouldBe((null, 9));
            }

            async Task<IReadOnlyList<string>> AfterAsync(string tampering)
            {
                foreach (var trigger in await db.Database.SqlQueryRaw<string>(
                    "SELECT name AS Value FROM sqlite_master WHERE type = 'trigger'").ToListAsync())
                    await db.Database.ExecuteSqlRawAsync($"DROP TRIGGER {trigger}");
                (await db.Database.ExecuteSqlRawAsync(tampering)).ShouldBeGreaterThan(0);
                return (await ShopDatabase.VerifyAsync(db, data, default)).Faults;
            }
            (await AfterAsync("UPDATE Readings SET Value = Value + 1 WHERE InspectionId IS NOT NULL"))
                .ShouldContain(fault => fault.Contains("isn't as it was signed"));
            (await AfterAsync("DELETE FROM SignedRecords WHERE Number = (SELECT MIN(Number) FROM SignedRecords)"))
                .ShouldContain(fault => fault.Contains("1 of the records that the passport of N0TWQ brought is gone"));
            (await AfterAsync("UPDATE Passports SET Manifest = replace(Manifest, 'N0TWQ', 'N0TWX')"))
                .ShouldContain(fault => fault.Contains("the passport that was taken in on"));
        }
    }

    // Two shops number their work by themselves: one that is in work goes on under a number of its own.
    [Fact]
    public async Task An_inspection_in_work_goes_on_under_a_work_order_that_nobody_has_there()
    {
        var (data, db) = await desk.OtherShopAsync();
        await using (db)
        {
            var order = server.With(shop => shop.Inspections.Single(row => row.State == InspectionState.InWork
                && row.AircraftId == shop.Aircraft.Single(one => one.Registration == "N04QF").Id).WorkOrder);
            Aircraft there = new(Guid.NewGuid(), "N0THR", "Test", "1", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
            db.AddRange(there, new Inspection(Guid.NewGuid(), there, InspectionKind.Annual, order, [], DemoServer.Today));
            await db.SaveChangesAsync();
            (await desk.TakeInAsync(data, db, await desk.MakeAsync("N04QF"))).Refusal.ShouldBeNull();
            var orders = await db.Inspections.Where(row => row.State == InspectionState.InWork).Select(row => row.WorkOrder).ToListAsync();
            orders.Count.ShouldBe(2);
            orders.ShouldBeUnique();
            (await ShopDatabase.VerifyAsync(db, data, default)).Faults.ShouldBeEmpty();
        }
    }

    [Fact]
    public async Task A_survey_stays_with_the_shop_and_no_word_of_it_travels()
    {
        var file = await desk.MakeAsync("N0FLD");
        await using var read = await desk.ReadAsync(file);
        read.Manifest.SurveysLeftBehind.ShouldBeEmpty("nobody learns from it that the aircraft was surveyed");
        var survey = server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).Include(row => row.Discrepancies)
            .Single(row => row.Kind == InspectionKind.Survey && row.AircraftId == read.Manifest.Aircraft.Id));
        await using var rows = read.OpenRows();
        (await rows.Inspections.AnyAsync(row => row.Id == survey.Id)).ShouldBeFalse();
        using var zip = ZipFile.OpenRead(file);
        foreach (var entry in zip.Entries.Where(entry => entry.FullName.StartsWith("data/", StringComparison.Ordinal)))
        {
            using var content = new StreamReader(entry.Open());
            var text = content.ReadToEnd();
            text.ShouldNotContain(survey.WorkOrder);
            foreach (var found in survey.Discrepancies)
                text.ShouldNotContain(found.What);
        }
        var surveyed = server.With(db => db.Aircraft.Single(row => row.OnlySurveyed).Registration);
        await Should.ThrowAsync<NoPassportException>(() => desk.MakeAsync(surveyed));
    }

    // Signed as only the shop itself could: what it can't be is found out all the same.
    // Whoever has no key of the shop signs with one of their own: the fingerprint is another, which is what a person compares. What
    // pretends to be the shop's own is refused.
    // A thousand random bytes would find the same: each flip is refused in words, or changes nothing that is read.
    [Fact]
    public void Every_table_of_the_shop_goes_or_stays_and_none_is_forgotten()
    {
        var known = PassportFormat.Goes.Concat(PassportFormat.Stays).ToList();
        known.ShouldBeUnique();
        server.With(db => db.Model.GetEntityTypes().Select(entity => entity.GetTableName()!).Distinct().Order().ToList())
            .ShouldBe(known.Order());
    }

    [Fact]
    public async Task The_schema_is_the_one_that_ships()
    {
        var answer = await server.Stranger().GetAsync("/schemas/passport-1.json");
        var schema = await answer.Content.ReadAsStringAsync();
        schema.ShouldBe(SourceTree.Read("docs/schemas/passport-1.json"));
        var whole = JsonNode.Parse(schema)!;
        var pointers = Regex.Matches(schema, "\"\\$ref\": \"#/([^\"]*)\"").Select(match => match.Groups[1].Value).ToList();
        pointers.Count.ShouldBeGreaterThan(20);
        // RFC 6901: each leads somewhere.
        foreach (var pointer in pointers)
            pointer.Split('/').Aggregate((JsonNode?)whole, (node, step) => node?[step]).ShouldNotBeNull(pointer);
    }

    [Fact]
    public async Task It_is_made_beside_the_page_and_saved_and_who_may_not_keep_files_gets_none()
    {
        var orla = await server.EnterAsync("orla");
        var page = $"{server.FileOf("N0BRM")}/passport";
        (await orla.ReadAsync(page)).QuerySelector("#errand button")!.TextContent.ShouldBe("Make the passport");
        (await orla.GetAsync($"{page}?handler=File")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await orla.PostAsync(page)).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        await DoneAsync(orla, page, "a[href$='handler=File']");
        var answer = await orla.GetAsync($"{page}?handler=File");
        answer.Content.Headers.ContentDisposition!.FileName.ShouldBe($"N0BRM-passport-{DemoServer.Today:yyyy-MM-dd}.zip");
        var file = Path.Combine(desk.Folder, "made.zip");
        await File.WriteAllBytesAsync(file, await answer.Content.ReadAsByteArrayAsync());
        await using (var read = await desk.ReadAsync(file))
            read.Manifest.Files.Select(one => one.Path).ShouldContain("to-read/signed-records.pdf");
        var casimir = await server.EnterAsync("casimir");
        foreach (var (visitor, path) in new[] { (await server.EnterAsync("piet"), page), (casimir, page) })
        {
            (await visitor.GetAsync($"{path}?handler=File")).StatusCode.ShouldBeOneOf(HttpStatusCode.Forbidden, HttpStatusCode.NotFound);
            (await visitor.PostAsync(path)).StatusCode.ShouldBeOneOf(HttpStatusCode.Forbidden, HttpStatusCode.NotFound);
        }

        // Sent in where the aircraft is: checked, shown, and refused with what is wrong once somebody says yes.
        var post = Guid.NewGuid();
        (await orla.SendAsync("/aircraft/import", "file", [("made.zip", await File.ReadAllBytesAsync(file))], ("post", $"{post}")))
            .Headers.Location!.OriginalString.ShouldEndWith($"/aircraft/import/{post}");
        var arrival = await DoneAsync(orla, $"/aircraft/import/{post}", "#errand form button");
        arrival.QuerySelector(".passport-facts")!.TextContent.ShouldContain("Hob & Daughters");
        (await orla.PostAsync($"/aircraft/import/{post}")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await DoneAsync(orla, $"/aircraft/import/{post}", "[role=alert]")).QuerySelector("[role=alert]")!.TextContent
            .ShouldContain("N0BRM has a file here already");

        var broken = Guid.NewGuid();
        await orla.SendAsync("/aircraft/import", "file", [("made.zip", (await File.ReadAllBytesAsync(file))[..^9])], ("post", $"{broken}"));
        (await DoneAsync(orla, $"/aircraft/import/{broken}", "[role=alert]")).QuerySelector("[role=alert]")!.TextContent
            .ShouldContain("cut short");
    }

    private static async Task<AngleSharp.Dom.IDocument> DoneAsync(Visitor visitor, string page, string shows)
    {
        // Waited for as a browser waits: it asks again.
        for (var asked = 0; asked < 600; asked++)
        {
            var document = await visitor.ReadAsync(page);
            if (document.QuerySelector(shows) is not null)
                return document;
            await Task.Delay(100);
        }
        throw new InvalidOperationException($"{page} never showed {shows}.");
    }
}
