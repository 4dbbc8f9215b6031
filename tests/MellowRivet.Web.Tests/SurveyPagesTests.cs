using System.Net;
using System.Text.Json.Nodes;
using AngleSharp.Dom;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Surveys;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>A survey from its plate to what came of it, and what each side reads of it.</summary>
public class SurveyPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Glider => server.Walk("N0FLD");
    private string Tourer => server.Walk("N0ARD");

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private static readonly (string Name, string Value)[] Terms =
    [
        ("Buyer", "Odile Renshaw"), ("Wants", "an evening hour from grass"), ("Asking", "18000"), ("Limit", "4000"), ("Hours", "4"),
        ("MayOpen", "cowls"), ("InOrder", "21000"), ("Source", "two adverts of this month"), ("Spent", ""),
    ];

    private static (string, string)[] Plate(string registration) =>
    [
        ("Form.Registration", registration), ("Form.Serial", "OK-31"), ("Form.Type", "Kestrelet"), ("Form.Category",
            "ExperimentalAmateurBuilt"), ("Form.Seats", "2"), ("Form.Wing", "Low"), ("Form.Gear", "TailWheel"), ("Form.Engines", "1"),
        ("Form.Fabric", "true"), ("Form.Shown", "612.3"), ("Form.Layout", "flat-four"), ("Form.School", "SixtyOfEighty"),
    ];

    private async Task<string> BeginAsync(Visitor who, string registration)
    {
        var begun = await who.PostAsync("/surveys/new",
            [("Post", $"{Guid.NewGuid()}"), ("Aircraft", ""), .. Terms, .. Plate(registration)]);
        begun.StatusCode.ShouldBe(HttpStatusCode.Redirect, await begun.Content.ReadAsStringAsync());
        return begun.Headers.Location!.OriginalString[..^"/order".Length];
    }

    private Inspection Of(string walk)
    {
        var id = Guid.Parse(walk["/walk/".Length..]);
        return server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).Include(row => row.Discrepancies)
            .Single(row => row.Id == id));
    }

    private static async Task<string> FindAsync(Visitor who, string walk, string what, string cost, string zone = "gear")
    {
        (await who.PostAsync($"{walk}/find", Post(), ("what", what), ("zone", zone), ("class", "Airworthiness"))).StatusCode
            .ShouldBe(HttpStatusCode.Redirect);
        var list = await who.ReadAsync($"{walk}/fix-list");
        var number = list.QuerySelectorAll(".finds li").Single(line => line.TextContent.Contains(what)).QuerySelector("b")!.TextContent;
        (await who.PostAsync($"{walk}/fix-list/{int.Parse(number)}?handler=Estimate", Post(), ("hours", ""), ("parts", cost),
            ("outside", ""))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        return number;
    }

    [Fact]
    public async Task One_that_was_never_here_gets_a_light_file_and_a_walk_dear_things_first_that_says_what_it_is_not()
    {
        var ines = await server.EnterAsync("ines");
        var walk = await BeginAsync(ines, "N0NEW");
        var order = await ines.ReadAsync($"{walk}/order");
        order.QuerySelectorAll("h2.group").Select(group => group.TextContent.Split('\n')[0].Trim()).ShouldBe(
            ["Paper", "Dear things", "Quick look", "Run & flight"]);
        order.Body!.TextContent.ShouldContain("punch test", Case.Insensitive, "it is fabric-covered");
        order.Body!.TextContent.ShouldNotContain("Retraction:");
        order.QuerySelectorAll(".station > a").Select(station => station.TextContent.Trim()).ShouldBe(
            ["Paper", "Dear things", "Quick look", "Run & flight", "Findings", "Money"]);
        (await ines.ReadAsync("/")).Body!.TextContent.ShouldNotContain("N0NEW", Case.Sensitive, "it isn't in the hangar");
        (await ines.ReadAsync("/take-in")).Body!.TextContent.ShouldNotContain("N0NEW");
        var file = server.FileOf("N0NEW");
        (await ines.ReadAsync(file)).Body!.TextContent.ShouldContain("Only surveyed.");
        // On every page of it, and on every print.
        foreach (var path in new[] { "", "/order", "/money", "/survey-report", "/survey-report?side=seller", "/fix-list", "/compressions",
            "/dear/engine", "/paper/papers", "/fix-list/prices", "/find", "/tags", "/fix-list/choices" })
        {
            var page = await ines.ReadAsync(path.Length == 0 ? (await ines.GetAsync(walk)).Headers.Location!.OriginalString : walk + path);
            page.QuerySelector(".survey-says")!.TextContent.ShouldContain(SurveyWords.NoInspection, Case.Sensitive, path);
        }
        // Nothing that asks an owner or signs has a place there.
        foreach (var path in new[] { "/close", "/records", "/arrive", "/plan", "/look", "/bulletins", "/fix-list/owner",
            "/fix-list/estimate", "/fix-list/report" })
            (await ines.GetAsync(walk + path)).Headers.Location?.OriginalString.ShouldBe($"{walk}/money", path);
        (await ines.PostAsync($"{walk}/close", Post(), ("password", Demo.DemoShop.Password))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await ines.GetAsync($"{walk}/fix-list/report.pdf")).Content.ReadAsByteArrayAsync()).Length.ShouldBeGreaterThan(100);
        // Its owner brings it all the same: from then on it is like any other.
        (await ines.PostAsync($"{file}/data-plate?handler=Join", Post())).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync("/take-in")).Body!.TextContent.ShouldContain("N0NEW");
        (await ines.ReadAsync(file)).Body!.TextContent.ShouldNotContain("Only surveyed.");
    }

    [Theory]
    [InlineData("Asking", "0", "above 0")]
    [InlineData("Asking", "", "everything is weighed against it")]
    [InlineData("InOrder", "-1", "then nothing is said to be fair")]
    [InlineData("Source", "", "Where that figure comes from")]
    [InlineData("Buyer", "", "Who wants to buy it")]
    [InlineData("Form.Registration", "", "The registration")]
    [InlineData("Form.Shown", "many", "What the meter shows")]
    public async Task What_is_typed_wrong_is_said_beside_its_field_and_stays(string field, string typed, string says)
    {
        var ines = await server.EnterAsync("ines");
        var page = await Visitor.ParseAsync(await ines.PostAsync("/surveys/new", [("Post", $"{Guid.NewGuid()}"), ("Aircraft", ""),
            .. Terms.Concat(Plate("N0BAD")).Select(one => one.Item1 == field ? (field, typed) : one)]));
        page.QuerySelectorAll(".field-problem").Select(problem => problem.TextContent).ShouldContain(problem => problem.Contains(says));
        page.QuerySelector($"[name='{field}']")!.GetAttribute("value").ShouldBe(typed.Length > 0 ? typed : null);
        page.QuerySelector("[name=Wants]")!.GetAttribute("value").ShouldBe("an evening hour from grass", "the rest stays as well");
        server.With(db => db.Aircraft.Any(row => row.Registration == "N0BAD")).ShouldBeFalse();
    }

    [Fact]
    public async Task One_in_work_or_under_survey_is_not_surveyed_beside_that()
    {
        var ines = await server.EnterAsync("ines");
        async Task<string> SaidAsync(string registration) => (await Visitor.ParseAsync(await ines.PostAsync("/surveys/new",
            [("Post", $"{Guid.NewGuid()}"), ("Aircraft", server.FileOf(registration).Split('/')[^1]), .. Terms])))
            .QuerySelector(".field-problem")!.TextContent;
        (await SaidAsync("N04QF")).ShouldContain("annual inspection 26-117 is in work");
        (await SaidAsync("N0FLD")).ShouldContain("is under way: go on with that, or end it first");
    }

    [Fact]
    public async Task It_says_to_stop_at_once_with_what_was_not_looked_at_and_one_goes_on_or_ends_it()
    {
        var ines = await server.EnterAsync("ines");
        var walk = await BeginAsync(ines, "N0STP");
        (await ines.ReadAsync($"{walk}/fix-list")).QuerySelector(".survey-stop").ShouldBeNull();
        await FindAsync(ines, walk, "Left leg cracked", "3900");
        (await ines.ReadAsync($"{walk}/fix-list")).QuerySelector(".survey-stop").ShouldBeNull("it is within the limit");
        await FindAsync(ines, walk, "Right leg cracked", "200");
        var stop = (await ines.ReadAsync($"{walk}/dear/engine")).QuerySelector(".survey-stop")!.TextContent;
        stop.ShouldContain("$4,100, above the buyer’s limit of $4,000");
        stop.ShouldContain("Not looked at:");
        (await ines.PostAsync($"{walk}/money?handler=GoOn", Post())).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync($"{walk}/dear/engine")).QuerySelector(".survey-stop").ShouldBeNull("the buyer wants it looked at further");
        var number = await FindAsync(ines, walk, "Spar cracked at the root", "1", "left-wing");
        (await ines.PostAsync($"{walk}/money?handler=Mark", Post(), ("number", number), ("stops", "true"))).StatusCode
            .ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync($"{walk}/dear/engine")).QuerySelector(".survey-stop")!.TextContent
            .ShouldContain("ends the deal at any price");
        // Without a reason it doesn't end early; with one it does, and takes no more findings.
        (await Visitor.ParseAsync(await ines.PostAsync($"{walk}/money?handler=End", Post(), ("why", ""))))
            .QuerySelector(".field-problem")!.TextContent.ShouldContain("Say why it ends here");
        (await ines.PostAsync($"{walk}/money?handler=End", Post(), ("why", "a cracked spar"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Of(walk).Survey!.End!.Early.ShouldBeTrue();
        (await ines.ReadAsync($"{walk}/survey-report")).Body!.TextContent.ShouldContain("Ended early: a cracked spar");
        (await Visitor.ParseAsync(await ines.PostAsync($"{walk}/find", Post(), ("what", "Late"), ("zone", "gear"), ("class", "Watch"))))
            .Body!.TextContent.ShouldContain("has ended");
        (await ines.PostAsync($"{walk}/money?handler=Up", Post())).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Of(walk).InWork.ShouldBeTrue();
    }

    // By hand: 61,000 − 7,500 of the engine − 4,500 of work − 2,400 that falls due − 600 in reserve = 46,000; asking is 6,000 above.
    [Fact]
    public async Task The_money_says_what_to_negotiate_by_and_why_and_takes_what_is_said()
    {
        var ines = await server.EnterAsync("ines");
        var money = await ines.ReadAsync($"{Tourer}/money");
        money.QuerySelector(".verdict-head h1")!.TextContent.Trim().ShouldBe("Negotiate by $6,000");
        money.QuerySelectorAll(".because li").Length.ShouldBe(3);
        money.QuerySelector(".survey-bar svg")!.GetAttribute("aria-label")!.ShouldContain("fair $46,000");
        money.Body!.TextContent.ShouldContain("The $500 that the buyer has spent already is gone either way, and in no sum.");
        foreach (var (handler, form, problem) in new[]
        {
            ("Due", new[] { ("item", $"{Guid.NewGuid()}"), ("cost", "9..5..1") }, ""),
            ("Power", [("part", server.With(db => $"{db.Aircraft.AsNoTracking().WithParts().Single(row => row.Registration == "N0ARD")
                .Engines.Single().ComponentId}")), ("overhaul", "many")], "The overhaul as a number"),
            ("Reserve", [("what", ""), ("sum", "50")], "What the reserve is for"),
            ("Reserve", [("what", "the tank"), ("sum", "-50")], "A reserve from 0 up"),
            ("Reserve", [("what", "the tank"), ("sum", "1000000000000000")], "A reserve from 0 up"),
            ("Mark", [("number", "77"), ("stops", "true")], "no open line"),
            ("Terms", [("Buyer", "B"), ("Wants", "x"), ("Asking", "0")], "above 0"),
        })
        {
            var page = await Visitor.ParseAsync(await ines.PostAsync($"{Tourer}/money?handler={handler}", [Post(), .. form]));
            if (problem.Length > 0)
                page.QuerySelectorAll(".field-problem").Select(one => one.TextContent).ShouldContain(one => one.Contains(problem), handler);
            page.QuerySelector(".verdict-head h1")!.TextContent.ShouldContain("$6,000", Case.Sensitive, handler);
        }
        var json = JsonNode.Parse(await (await ines.GetAsync($"{Tourer}/survey.json")).Content.ReadAsStringAsync())!;
        ($"{json["verdict"]}", json["fair"]!["likely"]!.GetValue<decimal>(), json["findings"]!.AsArray().Count, $"{json["note"]}")
            .ShouldBe(("negotiate", 46_000, 5, SurveyWords.NoInspection));
    }

    // The buyer reads it all; the seller neither limit nor price in order nor verdict nor what is held in reserve.
    [Fact]
    public async Task Each_side_reads_its_own_by_its_own_link_and_the_seller_not_the_buyers_reasons()
    {
        var ines = await server.EnterAsync("ines");
        async Task<string> LinkAsync(string reader)
        {
            var page = await Visitor.ParseAsync(await ines.PostAsync($"{Tourer}/money?handler=Link", Post(), ("reader", reader),
                ("to", "someone@elsewhere.example"), ("days", "9")));
            return new Uri(page.QuerySelector(".link-once")!.GetAttribute("href")!).AbsolutePath;
        }
        var (stranger, buyers, sellers) = (server.Stranger(), await LinkAsync("Buyer"), await LinkAsync("Seller"));
        var buyer = (await stranger.ReadAsync(buyers)).Body!.TextContent;
        foreach (var words in new[] { SurveyWords.NoInspection, "Negotiate by $6,000", "$9,000", "The right fuel tank leaks", "In reserve",
            "What wasn’t seen", "Berit Halloran" })
            buyer.ShouldContain(words, Case.Sensitive, words);
        var listed = await stranger.ReadAsync(sellers);
        var seller = listed.Body!.TextContent;
        foreach (var words in new[] { SurveyWords.NoInspection, "The right fuel tank leaks", "The seller is asked to pay it",
            "this list isn’t complete" })
            seller.ShouldContain(words, Case.Sensitive, words);
        foreach (var words in new[] { "Negotiate", "negotiate", "61,000", "9,000", "52,000", "46,000", "reserve", "Berit Halloran", "limit",
            "insurance", "$500" })
            seller.ShouldNotContain(words, Case.Sensitive, words);
        var photo = listed.QuerySelector(".report-photos img")!.GetAttribute("src")!;
        (await stranger.GetAsync(photo)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var other = server.With(db => db.Discrepancies.AsEnumerable().First(found => found.Photos.Count > 0
            && !Tourer.EndsWith($"{found.InspectionId}", StringComparison.Ordinal)).Photos[0].Sha256);
        (await stranger.GetAsync($"{sellers}/photos/{other}/large")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await stranger.GetAsync($"/survey/{new string('a', 64)}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await stranger.GetAsync(sellers.Replace("/survey/", "/owner/", StringComparison.Ordinal))).StatusCode
            .ShouldBe(HttpStatusCode.NotFound);
    }

    // Perpetua owns the glider that Tove may buy: neither its survey nor that there is one is hers to see.
    [Fact]
    public async Task Whoever_sells_sees_nothing_of_what_the_buyer_has_surveyed()
    {
        var owner = await server.EnterAsync("perpetua");
        foreach (var path in new[] { "", "/money", "/order", "/survey-report", "/fix-list", "/dear/engine", "/fix-list.json" })
            (await owner.GetAsync(Glider + path)).StatusCode.ShouldBe(HttpStatusCode.NotFound, path);
        (await owner.GetAsync("/surveys")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        var file = (await owner.ReadAsync(server.FileOf("N0FLD"))).Body!.TextContent;
        file.ShouldNotContain("urvey");
        file.ShouldNotContain("Tove");
        // A drawn picture of the demo's may stand in several places: one that stands at the survey alone.
        var photo = server.With(db => db.Discrepancies.AsNoTracking().AsEnumerable()
            .SelectMany(found => found.Photos.Select(one => (one.Sha256, Here: Glider.EndsWith($"{found.InspectionId}",
                StringComparison.Ordinal))))
            .GroupBy(one => one.Sha256).First(group => group.All(one => one.Here)).Key);
        (await owner.GetAsync($"/photos/{photo}/thumb")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Papers_show_what_the_file_has_and_damage_is_looked_for_entry_by_entry()
    {
        var ines = await server.EnterAsync("ines");
        async Task<IDocument> PaperAsync(string key) => await ines.ReadAsync(
            $"{Glider}/paper/papers?task={Of(Glider).Tasks.Single(task => task.Key == key).Id}");
        (await PaperAsync("sy-holes")).QuerySelector("#evidence")!.TextContent.ShouldContain("A hole from 2009-04-25");
        (await PaperAsync("sy-totals")).QuerySelector("#evidence")!.TextContent.ShouldContain("The total falls: 318.2 h");
        (await PaperAsync("sy-signers")).QuerySelectorAll("#evidence .paper-lines li").Length.ShouldBe(5);
        var damage = await PaperAsync("sy-damage");
        damage.QuerySelector("#evidence")!.TextContent.ShouldContain("Outlanding, tail boom scratched");
        var form = damage.QuerySelectorAll(".seen-form")[0];
        var key = form.QuerySelector("[name=key]")!.GetAttribute("value")!;
        (await ines.PostAsync(form.GetAttribute("action")!, Post(), ("task", form.QuerySelector("[name=task]")!.GetAttribute("value")!),
            ("key", key), ("says", "NotThere"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Of(Glider).Survey!.Damage.Single().Says.ShouldBe(SeenThere.NotThere);
        (await ines.ReadAsync($"{Glider}/survey-report")).Body!.TextContent.ShouldContain("not to be found on it");
    }

    [Fact]
    public async Task Bought_it_joins_the_hangar_with_what_was_found_open_on_it()
    {
        var ines = await server.EnterAsync("ines");
        var walk = await BeginAsync(ines, "N0BGT");
        await FindAsync(ines, walk, "Left leg cracked", "900");
        await ines.PostAsync($"{walk}/money?handler=End", Post(), ("why", "dusk"));
        var bought = await ines.PostAsync($"{walk}/money?handler=Outcome", Post(), ("bought", "true"));
        bought.Headers.Location!.OriginalString.ShouldBe($"{server.FileOf("N0BGT")}/open-items");
        (await ines.ReadAsync($"{server.FileOf("N0BGT")}/open-items")).Body!.TextContent.ShouldContain("Left leg cracked");
        (await ines.ReadAsync("/")).Body!.TextContent.ShouldContain("N0BGT");
        server.With(db => db.OpenItems.AsNoTracking().Single(item => item.What == "Left leg cracked"))
            .Estimate!.PartsCost!.Value.Likely.ShouldBe(900, "its price came along");
        // It stays as it was.
        (await Visitor.ParseAsync(await ines.PostAsync($"{walk}/money?handler=Mark", Post(), ("number", "1"), ("stops", "true"))))
            .Body!.TextContent.ShouldContain("it stays as it was");
    }

    [Fact]
    public async Task A_finding_at_a_survey_is_priced_and_marked_and_never_put_right_there()
    {
        var ines = await server.EnterAsync("ines");
        var page = await ines.ReadAsync($"{Glider}/fix-list/1");
        page.QuerySelector(".mark-form").ShouldNotBeNull();
        page.QuerySelectorAll("form[action*='handler=Correct'], [name=to][value=Asked], [name=to][value=Approved]").ShouldBeEmpty();
        var corrected = await Visitor.ParseAsync(await ines.PostAsync($"{Glider}/fix-list/1?handler=Correct", Post(),
            ("action", "Pin replaced"), ("reference", "drawing 29"), ("kind", "Replaced")));
        corrected.Body!.TextContent.ShouldContain("nothing is put right");
        (await (await ines.GetAsync("/plan")).Content.ReadAsStringAsync()).ShouldNotContain("N0FLD", Case.Sensitive);
    }
}
