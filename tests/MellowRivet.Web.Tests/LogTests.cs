using System.Net;
using System.Text;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.People;
using MellowRivet.Web.Demo;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

public sealed class LogTests(DemoServer server) : IClassFixture<DemoServer>
{
    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private LogLine Last(Deed deed) => server.With(db => db.Log.AsNoTracking().Where(line => line.Deed == deed)
        .OrderByDescending(line => line.Number).First());

    [Fact]
    public async Task What_somebody_may_have_to_answer_for_is_told_with_who_and_what_stood_there_before()
    {
        var (ines, orla, walk) = (await server.EnterAsync("ines"), await server.EnterAsync("orla"), server.Walk("N04QF"));

        await ines.PostAsync($"{walk}/compressions?handler=JudgedBy", Post(), ("school", "SixtyOfEighty"), ("floor", "64"),
            ("reference", "TF4 manual, p. 9"));
        var judged = Last(Deed.LimitSet);
        (judged.Name, judged.Before, judged.After).ShouldSatisfyAllConditions(said => said.Name.ShouldBe("Ines Calloway"),
            said => said.After!.ShouldContain("floor 64 psi, TF4 manual, p. 9"), said => said.Before!.ShouldNotContain("64 psi"));
        (await ines.ReadAsync($"{walk}/compressions")).Body!.TextContent.ShouldContain("put on file by Ines Calloway, 2026-11-25");

        var task = server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).AsEnumerable()
            .Single(row => walk.EndsWith($"{row.Id}")).Tasks.First(one => one is { Measure.Kind: "static-rpm" }));
        foreach (var high in new[] { "2350", "2360" })
            await ines.PostAsync($"{walk}/engine/{task.ZoneKey}?task={task.Id}&handler=Limit", Post(), ("task", $"{task.Id}"),
                ("low", "2250"), ("high", high), ("reference", "TF4 manual, p. 5"));
        (await ines.ReadAsync($"{walk}/engine/{task.ZoneKey}?task={task.Id}")).Body!.TextContent
            .ShouldContain("TF4 manual, p. 5, put on file by Ines Calloway, 2026-11-25");
        var limit = Last(Deed.LimitSet);
        (limit.Before, limit.After).ShouldBe(("from 2250 to 2350 rpm, TF4 manual, p. 5", "from 2250 to 2360 rpm, TF4 manual, p. 5"));

        await orla.PostAsync("/shelf?handler=House", Post(), ("inspector", "AirworthinessItems"), ("firstLook", "true"),
            ("name", "Hob, Daughters & Co"),
            ("preAuthorised", "333"), ("labourRate", "90"), ("money", "$"), ("stickerWidth", "140"), ("stickerHeight", "90"),
            ("places", "stand 2, hoist 1"));
        Last(Deed.HouseRulesSet).ShouldSatisfyAllConditions(line => line.After.ShouldBe(
            "PreAuthorised = 333, LabourRate = 90, Name = Hob, Daughters & Co"),
            line => line.Before.ShouldBe("PreAuthorised = 0, LabourRate = 95, Name = Hob & Daughters, Quillmoor Field"));
        await orla.PostAsync("/shelf?handler=House", Post(), ("inspector", "AirworthinessItems"), ("firstLook", "true"),
            ("preAuthorised", "333"), ("labourRate", "90"), ("money", "$"), ("stickerWidth", "140"), ("stickerHeight", "90"),
            ("places", "stand 2, hoist 1"));
        (Last(Deed.HouseRulesSet).Before, Last(Deed.HouseRulesSet).After).ShouldBe(("Name = Hob, Daughters & Co", "Name = "));

        await ines.PostAsync($"{walk}/fix-list/owner", Post(), ("to", "owner@example.org"), ("days", "14"));
        Last(Deed.OwnerLinkMade).About.ShouldContain("owner@example.org");
        await ines.PostAsync($"{walk}/fix-list/owner?handler=Revoke", Post(), ("link", $"{server.With(db => db.OwnerLinks.First().Id)}"));
        Last(Deed.OwnerLinkEnded).Name.ShouldBe("Ines Calloway");

        foreach (var (path, file) in new[] { ($"{server.FileOf("N04QF")}/file.json", "N04QF.json"), ("/due?handler=Csv", "due-shop.csv"),
            ($"{walk}/fix-list.csv", "fix-list.csv"), ($"{walk}/fix-list/photos.zip", "photos.zip") })
        {
            await ines.GetAsync(path);
            Last(Deed.Exported).About.ShouldContain(file);
        }

        await ines.PostAsync("/me?handler=Password", Post(), ("before", "wrong"), ("password", "x"));
        Last(Deed.SignatureRefused).ShouldSatisfyAllConditions(line => line.Name.ShouldBe("Ines Calloway"),
            line => line.From.ShouldBe("127.0.0.1"), line => line.About.ShouldBe("a new password"));
        await server.Stranger().PostAsync("/enter", ("name", "piet"), ("password", "wrong"));
        (Last(Deed.TurnedAway).About, Last(Deed.TurnedAway).By).ShouldBe(("as Piet Oduvane", null));
    }

    [Fact]
    public async Task A_deferral_a_lowered_class_and_a_signature_are_told()
    {
        var (ines, walk) = (await server.EnterAsync("ines"), server.Walk("N04QF"));
        async Task<Discrepancy> FindAsync(string what, string @class)
        {
            await ines.PostAsync($"{walk}/find", Post(), ("what", what), ("zone", "gear"), ("class", @class), ("why", "for the test"));
            return server.With(db => db.Discrepancies.AsNoTracking().AsEnumerable().Single(found => found.What == what));
        }
        var paint = await FindAsync("Scuffed paint at the fairing", "Airworthiness");
        await ines.PostAsync($"{walk}/fix-list/{paint.Number}?handler=Classify", Post(), ("class", "Watch"), ("why", "paint alone"),
            ("seen", $"{paint.Changes}"));
        Last(Deed.ClassLowered).ShouldSatisfyAllConditions(line => line.About.ShouldContain("Scuffed paint"),
            line => line.Before.ShouldBe("airworthiness"), line => line.After!.ShouldStartWith("watch"),
            line => line.Name.ShouldBe("Ines Calloway"));
        await FindAsync("Nut loose at the strut", "Recommended");
        Last(Deed.ClassLowered).After!.ShouldContain("for the test");

        var clock = await FindAsync("Clock stopped", "Deferrable");
        foreach (var question in DeferralWalk.Questions)
            await ines.PostAsync($"{walk}/fix-list/{clock.Number}?handler=Defer", Post(), ("question", question.Key),
                ("says", $"{question.GoesOn}"), ("words", "not required for flight"));
        await ines.PostAsync($"{walk}/fix-list/{clock.Number}?handler=Correct", Post(), ("action", "Placarded inoperative"),
            ("reference", "equipment list"), ("kind", "Deferred"));
        Last(Deed.Deferred).ShouldSatisfyAllConditions(line => line.About.ShouldEndWith($"-{clock.Number:00}, Clock stopped"),
            line => line.Name.ShouldBe("Ines Calloway"));

        await (await server.EnterAsync("perpetua")).PostAsync($"{server.FileOf("N0FLD")}/job?handler=Preventive", Post(),
            ("zone", "airframe"), ("reference", "type manual 33-40"), ("password", DemoShop.Password), ("title", "Landing light bulb"),
            ("action", "Landing light bulb replaced."), ("partNumber", "LB-4509"));
        Last(Deed.Signed).ShouldSatisfyAllConditions(line => line.Name.ShouldBe("Perpetua Lorne"),
            line => line.About.ShouldStartWith("N0FLD "), line => line.After!.ShouldStartWith("record "));
    }

    [Fact]
    public async Task A_line_is_never_changed_and_never_deleted()
    {
        await server.EnterAsync("ines");
        await using var shop = new SqliteConnection(server.Data.ConnectionString);
        await shop.OpenAsync();
        foreach (var statement in new[] { "UPDATE Log SET Name = 'x'", "DELETE FROM Log" })
        {
            await using var command = shop.CreateCommand();
            command.CommandText = statement;
            Should.Throw<SqliteException>(() => command.ExecuteNonQuery()).Message.ShouldContain("never");
        }
        SqliteConnection.ClearPool(shop);
    }

    [Fact]
    public async Task Whoever_manages_the_shop_finds_a_line_and_takes_a_table_along()
    {
        var orla = await server.EnterAsync("orla");
        await server.Stranger().PostAsync("/enter", ("name", "piet"), ("password", "wrong"));
        var all = (await orla.ReadAsync("/people/log")).QuerySelectorAll("tbody tr").Length;
        var some = (await orla.ReadAsync("/people/log?words=piet%20odu&deed=TurnedAway&from=2026-11-25&to=2026-11-25"))
            .QuerySelectorAll("tbody tr");
        some.Length.ShouldBeInRange(1, all - 1);
        some.ShouldAllBe(row => row.TextContent.Contains("Piet Oduvane"));
        (await orla.ReadAsync("/people/log?to=2026-11-24")).Body!.TextContent.ShouldContain("Nothing like that");
        (await orla.ReadAsync("/people/log?words=100%25_")).Body!.TextContent
            .ShouldContain("Nothing like that", customMessage: "no wildcards");
        var csv = await (await orla.GetAsync("/people/log?handler=Csv&deed=TurnedAway")).Content.ReadAsByteArrayAsync();
        csv[..3].ShouldBe(Encoding.UTF8.GetPreamble());
        Encoding.UTF8.GetString(csv).ShouldContain("turned away at the door,as Piet Oduvane");
        (await (await server.EnterAsync("ines")).GetAsync("/people/log")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        DemoShop.Password.ShouldNotBeOneOf([.. server.With(db => db.Log.Select(line => line.About).ToList())]);
    }
}
