using System.Net;
using System.Text.RegularExpressions;
using AngleSharp.Dom;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>An owner sees their own aircraft and nothing else. Drawn from every address there is: one that was added is asked,
/// too.</summary>
public sealed class OwnersTests(DemoServer server) : IClassFixture<DemoServer>
{
    private Task<Visitor> Perpetua => server.EnterAsync("perpetua");

    private string Fill(Address asked, string walk, string file, string engine, string photo) => "/" + Regex.Replace(asked.Pattern,
        @"\{(\w+)[^/]*\}", part => part.Groups[1].Value switch
        {
            "id" when asked.Through == Through.Walk => walk.Split('/')[^1],
            "id" when asked.Through == Through.Aircraft => file.Split('/')[^1],
            "id" => $"{server.With(db => db.Bulletins.First().Id)}",
            "engine" or "carrier" => engine, "number" => "1", "sha" or "sha256" => photo, "size" => "thumb", "place" => "airframe",
            "kind" => "oil", "zone" => "cabin", "errand" => $"{Guid.Empty}", _ => "x",
        }) + (asked.Handler.Length > 0 ? $"?handler={asked.Handler}" : "");

    private async Task<IReadOnlyList<Address>> OfTheShopAsync() =>
        [.. (await EveryAddress.OfAsync(server.Services)).Where(asked => asked.OpenTo is null && asked.Pattern != "{**path:file}")];

    private string PhotoOf(string registration) => server.With(db => db.Discrepancies.AsEnumerable().First(found => found.Photos.Count > 0
        && server.Walk(registration).EndsWith($"{found.InspectionId}", StringComparison.Ordinal)).Photos[0].Sha256);

    private string EngineOf(string registration) => server.With(db =>
        $"{db.Aircraft.AsNoTracking().WithParts().Single(row => row.Registration == registration).Engines.First().ComponentId}");

    [Fact]
    public async Task What_is_foreign_is_not_there_and_what_is_the_shops_is_closed()
    {
        var owner = await Perpetua;
        var (foreign, closed) = (0, 0);
        foreach (var asked in await OfTheShopAsync())
        {
            var path = Fill(asked, server.Walk("N04QF"), server.FileOf("N04QF"), EngineOf("N04QF"), PhotoOf("N04QF"));
            using var answer = asked.Method == "POST" ? await owner.PostAsync(path) : await owner.ListenAsync(path);
            if (asked.Through is null)
            {
                answer.StatusCode.ShouldBe(HttpStatusCode.Forbidden, asked.Name);
                closed++;
            }
            else if (asked.Through is Through.Aircraft or Through.Walk or Through.Picture)
            {
                answer.StatusCode.ShouldBe(HttpStatusCode.NotFound, asked.Name);
                foreign++;
            }
        }
        (foreign, closed).ShouldSatisfyAllConditions(() => foreign.ShouldBeGreaterThan(130), () => closed.ShouldBeGreaterThan(30));
    }

    // Registrations of others, their people, the addresses that links were sent to: none of it stands on any page that an owner may open.
    [Fact]
    public async Task Nothing_of_another_owner_stands_on_their_pages()
    {
        var ines = await server.EnterAsync("ines");
        await ines.PostAsync($"{server.Walk("N0BRM")}/fix-list/owner", ("post", $"{Guid.NewGuid()}"), ("to", "other@elsewhere.example"),
            ("days", "14"));
        var owner = await Perpetua;
        var registrations = server.With(db => db.Aircraft.Select(row => row.Registration).ToList()).Except(["N0BRM", "N0FLD"]).ToList();
        string[] strange = [.. registrations, "Casimir", "elsewhere.example"];
        foreach (var asked in (await OfTheShopAsync()).Where(asked => asked is { Method: "GET", Through: not null, Handler: "" or "Csv" }
            && !asked.Pattern.EndsWith("/events", StringComparison.Ordinal) && asked.Through != Through.Picture))
            foreach (var registration in asked.Through == Through.Aircraft ? new[] { "N0BRM", "N0FLD" } : ["N0BRM"])
            {
                var answer = await owner.GetAsync(Fill(asked, server.Walk("N0BRM"), server.FileOf(registration), EngineOf(registration),
                    "x"));
                answer.StatusCode.ShouldNotBe(HttpStatusCode.InternalServerError, asked.Name);
                var text = await answer.Content.ReadAsStringAsync();
                strange.Where(text.Contains).ShouldBeEmpty($"{asked.Name} of {registration}");
            }
    }

    // What the shop noted for itself before they asked stays with it, by their own sign-in as by a link.
    [Fact]
    public async Task A_note_of_the_shops_own_is_not_an_owners()
    {
        var (ines, owner, walk) = (await server.EnterAsync("ines"), await Perpetua, server.Walk("N0BRM"));
        await ines.PostAsync($"{walk}/find", ("post", $"{Guid.NewGuid()}"), ("what", "Fairing cracked"), ("zone", "gear"),
            ("class", "Watch"),
            ("why", "for the test"), ("note", "Between us: second time this year"));
        var number = server.With(db => db.Discrepancies.Single(found => found.What == "Fairing cracked").Number);
        foreach (var path in new[] { $"{walk}/fix-list/{number}", $"{walk}/fix-list.json" })
        {
            (await (await ines.GetAsync(path)).Content.ReadAsStringAsync()).ShouldContain("Between us", customMessage: path);
            (await (await owner.GetAsync(path)).Content.ReadAsStringAsync()).ShouldNotContain("Between us", customMessage: path);
        }
    }

    [Fact]
    public async Task Their_own_opens_with_its_pictures_and_the_lists_hold_theirs_alone()
    {
        var owner = await Perpetua;
        (await owner.ReadAsync("/")).QuerySelectorAll("a.reg").Select(one => one.TextContent)
            .ShouldBe(["N0BRM", "N0FLD"], ignoreOrder: true);
        (await owner.ReadAsync(server.FileOf("N0BRM"))).QuerySelector(".plate")!.TextContent.ShouldContain("N0BRM");
        (await owner.ReadAsync($"{server.Walk("N0BRM")}/fix-list")).Title.ShouldNotBeNull();
        var due = (await owner.ReadAsync("/due")).Body!.TextContent;
        due.ShouldContain("N0FLD");
        due.ShouldNotContain("N0TWQ");

        await (await server.EnterAsync("ines")).SendAsync($"{server.Walk("N0BRM")}/find", [("a.jpg", FoundPagesTests.Picture())],
            ("post", $"{Guid.NewGuid()}"), ("what", "Chafed hose"), ("zone", "gear"), ("class", "Watch"), ("why", "for the test"));
        (await owner.GetAsync($"/photos/{PhotoOf("N0BRM")}/thumb")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await owner.GetAsync($"/photos/{PhotoOf("N04QF")}/thumb")).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        var casimir = await server.EnterAsync("casimir");
        (await casimir.GetAsync($"/photos/{PhotoOf("N0BRM")}/thumb")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await casimir.GetAsync(server.FileOf("N0BRM"))).StatusCode.ShouldBe(HttpStatusCode.NotFound, "sold years ago");
        (await casimir.GetAsync(server.FileOf("N0FLD"))).StatusCode.ShouldBe(HttpStatusCode.OK, "shared with another");
    }

    [Fact]
    public void A_picture_is_looked_for_in_every_column_that_holds_one()
    {
        server.With(db => PicturesOf.Places(db).Select(place => $"{place.Table}.{place.Column}").Distinct().Order().ToList()).ShouldBe(
            ["BookEntries.Photo", "Discrepancy.Photos", "Discrepancy.Sounds", "Discrepancy.Videos", "Inspections.Arrival",
                "Inspections.BenchChecks",
                "Inspections.CarriedMarks", "Inspections.FilterCuts", "Inspections.ForeignObjects", "Inspections.SaidApart",
                "Inspections.WitnessMarks",
                "OpenItems.Photos", "StatedFacts.Photo"]);
    }

    [Fact]
    public async Task A_calendar_address_shows_what_its_person_sees_now()
    {
        var casimir = await server.EnterAsync("casimir");
        var address = (await Visitor.ParseAsync(await casimir.PostAsync("/due/calendar"))).QuerySelector("code.address")!.TextContent;
        var at = new Uri(address).AbsolutePath;
        var stranger = server.Stranger();
        var shop = await (await stranger.GetAsync(at)).Content.ReadAsStringAsync();
        shop.ShouldContain("N0TWQ:");
        shop.ShouldNotContain("N04QF");
        (await stranger.GetAsync(at.Replace("shop.ics", "N0TWQ.ics"))).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await stranger.GetAsync(at.Replace("shop.ics", "N04QF.ics"))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await stranger.GetAsync(at.Replace("shop.ics", "N0BRM.ics"))).StatusCode.ShouldBe(HttpStatusCode.NotFound, "theirs no more");
    }

    [Fact]
    public async Task An_assistant_records_what_they_read_and_changes_no_file()
    {
        var tamsin = await server.EnterAsync("tamsin");
        foreach (var handler in new[] { "times?handler=Take", "books?handler=Explain", "?handler=Done", "data-plate", "parts?handler=Fit" })
            (await tamsin.PostAsync($"{server.FileOf("N04QF")}/{handler}".Replace("/?", "?"))).StatusCode.ShouldBe(HttpStatusCode.Forbidden,
                handler);
        (await tamsin.ReadAsync($"{server.FileOf("N04QF")}/times")).QuerySelector("form[action*=Look], form[action*=Take]").ShouldBeNull();
        (await tamsin.PostAsync($"{server.Walk("N04QF")}/arrive?handler=Hear", ("post", $"{Guid.NewGuid()}"), ("words", "Left brake soft")))
            .StatusCode.ShouldBe(HttpStatusCode.Redirect);
    }

    [Fact]
    public async Task Every_address_that_an_owner_may_open_says_what_bounds_them() =>
        (await OfTheShopAsync()).Where(asked => asked.Needs is Right.Look or Right.Sign && asked.Through is null)
            .Select(asked => asked.Pattern)
            .Distinct().ShouldAllBe(pattern => pattern.StartsWith("shelf") || pattern == "bulletins" || pattern == "bulletins.json"
                || pattern == "share" || pattern == "outbox" || pattern.StartsWith("parts") || pattern.StartsWith("plan"),
                    "what is the shop's own, and nothing of an aircraft, is closed");
}
