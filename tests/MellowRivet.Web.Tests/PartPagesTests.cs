using System.Net;
using System.Text.Json.Nodes;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Parts;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>The shop's parts, from an estimate's line to the aircraft's file.</summary>
public class PartPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N04QF");

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private OrderedPart Part(string what) => server.With(db => db.OrderedParts.AsNoTracking().Single(part => part.What == what));

    private Discrepancy Found(string words) => server.With(db => db.Discrepancies.AsNoTracking().AsEnumerable().Single(found =>
        found.InspectionId == Guid.Parse(Walk[6..]) && found.What.StartsWith(words, StringComparison.Ordinal)));

    private static string? Problem(AngleSharp.Dom.IDocument page) => page.QuerySelector(".field-problem")?.TextContent;

    [Fact]
    public async Task A_part_is_ordered_from_the_list_comes_with_its_trace_and_is_fitted_into_the_file()
    {
        var ines = await server.EnterAsync("ines");
        var rail = Found("Left seat rail");
        await ines.PostAsync($"{Walk}/fix-list/{rail.Number}?handler=Move", Post(), ("to", "Approved"));
        var list = await ines.ReadAsync("/parts");
        var needed = list.QuerySelectorAll("[name=needed]").Single(box => box.GetAttribute("value")!.Contains("seat rail, left"))
            .GetAttribute("value")!;
        (string, string) ordered = ("order", "true");
        Problem(await Visitor.ParseAsync(await ines.PostAsync("/parts?handler=Order", Post(), ordered, ("supplier", "Tollerby Airparts"))))!
            .ShouldContain("Tick those");
        var refused = await Visitor.ParseAsync(await ines.PostAsync("/parts?handler=Order", Post(), ordered, ("needed", needed)));
        Problem(refused)!.ShouldContain("from whom");
        refused.QuerySelectorAll("[name=needed][checked]").Length.ShouldBe(1, "what was ticked stays ticked");
        var day = DemoServer.Now.AddDays(12).ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
        (await ines.PostAsync("/parts?handler=Order", Post(), ordered, ("needed", needed), ("supplier", "Tollerby Airparts"),
            ("expected", day), ("core", "true"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var part = Part("seat rail, left");
        (part.State, part.Supplier, part.Price).ShouldBe((PartState.Ordered, "Tollerby Airparts", 410m));
        rail = Found("Left seat rail");
        (rail.Disposition, $"{rail.Estimate!.PartsBy:yyyy-MM-dd}").ShouldBe((Disposition.PartsAwaited, day), "typed once");
        rail.Agreed!.Price.ShouldBe(rail.Estimate.Price(rail.Agreed.Rates), "when it comes changes no price");
        Problem(await Visitor.ParseAsync(await ines.PostAsync("/parts?handler=Order", Post(), ordered, ("needed", needed),
            ("supplier", "Twice")))).ShouldNotBeNull("nothing is ordered twice from one list");

        var here = $"/parts/{part.Id}";
        Problem(await Visitor.ParseAsync(await ines.PostAsync($"{here}?handler=Receive", Post(), ("quantity", "2"), ("condition", "New"))))!
            .ShouldContain("too many");
        await ines.PostAsync($"{here}?handler=Receive", Post(), ("condition", "New"), ("batch", "R 7"));
        Problem(await Visitor.ParseAsync(await ines.PostAsync($"{here}?handler=Receive", Post(), ("quantity", "1"), ("condition", "New"))))!
            .ShouldContain("received twice");
        var receipt = ("receipt", $"{Part("seat rail, left").Receipts[0].Id}");
        Problem(await Visitor.ParseAsync(await ines.PostAsync($"{here}?handler=Fit", Post(), receipt)))!.ShouldContain("without a tag");
        var tamsin = await server.EnterAsync("tamsin");
        (await tamsin.PostAsync($"{here}?handler=Waive", Post(), ("words", "it looks good"))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        await ines.PostAsync($"{here}?handler=Waive", Post(), ("words", "made to the standard on its marking"));
        Problem(await Visitor.ParseAsync(await ines.PostAsync($"{here}?handler=Fit", Post(), receipt, ("quantity", "2"))))!
            .ShouldContain("can’t be fitted");
        var propeller = server.With(db => db.Installations.Include(stay => stay.Component).AsNoTracking().AsEnumerable().First(stay =>
            stay.IsOn && stay.AircraftId == part.AircraftId && stay.Component.Kind == Core.Fleet.ComponentKind.Magneto));
        (await ines.PostAsync($"{here}?handler=Fit", Post(), receipt, ("serial", "SR-88"), ("replaces", $"{propeller.ComponentId}")))
            .StatusCode.ShouldBe(HttpStatusCode.Redirect);
        server.With(db => db.Installations.Include(stay => stay.Component).Any(stay => stay.Component.SerialNumber == "SR-88"
            && stay.RemovedOn == null)).ShouldBeTrue("it is in the aircraft's file");
        part = Part("seat rail, left");
        (part.State, part.CoreIsOwed, part.Fitted[0].SerialOff).ShouldBe((PartState.Fitted, true, propeller.Component.SerialNumber));
        var correction = (await ines.ReadAsync($"{Walk}/fix-list/{rail.Number}")).QuerySelector(".parts-used")!;
        correction.QuerySelector("[name=serialIn]")!.GetAttribute("value").ShouldBe("SR-88", "what was fitted stands in the correction");
        (await ines.ReadAsync("/parts")).Body!.TextContent.ShouldContain("Cores owed");
        await ines.PostAsync($"{here}?handler=Core", Post());
        Part("seat rail, left").CoreIsOwed.ShouldBeFalse();
    }

    [Fact]
    public async Task What_is_over_its_life_goes_back_and_never_in()
    {
        var ines = await server.EnterAsync("ines");
        await ines.PostAsync("/parts?handler=Add", Post(), ("what", "Aged sealant"), ("quantity", "2"), ("unit", "kit"));
        var bad = await Visitor.ParseAsync(await ines.PostAsync("/parts?handler=Add", Post(), ("what", "Bad"), ("quantity", "-2")));
        Problem(bad)!.ShouldContain("above 0");
        bad.QuerySelector("[name=what]")!.GetAttribute("value").ShouldBe("Bad");
        var here = $"/parts/{Part("Aged sealant").Id}";
        await ines.PostAsync($"{here}?handler=Receive", Post(), ("condition", "New"), ("trace", "CC-4"),
            ("shelfLife", DemoServer.Now.AddDays(-1).ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture)));
        var receipt = ("receipt", $"{Part("Aged sealant").Receipts[0].Id}");
        Problem(await Visitor.ParseAsync(await ines.PostAsync($"{here}?handler=Fit", Post(), receipt)))!.ShouldContain("shelf life ended");
        Problem(await Visitor.ParseAsync(await ines.PostAsync($"{here}?handler=Back", Post(), receipt)))!.ShouldContain("why it goes back");
        await ines.PostAsync($"{here}?handler=Back", Post(), receipt, ("words", "out of life"));
        Part("Aged sealant").State.ShouldBe(PartState.SentBack);
    }

    // By hand: 7 h and 4 h at 95, a kit of 480, two quarts at 19.
    [Fact]
    public async Task What_was_left_open_shows_what_was_agreed_and_when_its_parts_come()
    {
        var page = await (await server.EnterAsync("ines")).ReadAsync($"{server.FileOf("N0TWQ")}/open-items");
        var seals = page.QuerySelectorAll(".open-item").Single(item => item.TextContent.Contains("seals weep"));
        seals.TextContent.ShouldContain("Agreed $1,563");
        seals.TextContent.ShouldContain("seal kit, main leg, HS-211: ordered from Corrin Parts Supply");
    }

    [Fact]
    public async Task The_list_leaves_as_csv_and_json_and_labels_bear_a_code_to_their_part()
    {
        var ines = await server.EnterAsync("ines");
        var csv = await (await ines.GetAsync("/parts.csv")).Content.ReadAsStringAsync();
        csv.ShouldContain("late,\"tank sealant, two parts\"");
        csv.ShouldContain("mount bushing");
        var file = JsonNode.Parse(await (await ines.GetAsync("/parts.json")).Content.ReadAsStringAsync())!;
        file["parts"]!.AsArray().Select(part => part!["what"]!.ToString()).ShouldContain("seal kit, main leg");
        var labels = await ines.ReadAsync("/parts/labels");
        var label = labels.QuerySelectorAll(".label").Single(one => one.TextContent.Contains("alternator bracket"));
        label.GetAttribute("data-address").ShouldBe($"/parts/{Part("alternator bracket").Id}");
        label.QuerySelector("svg path.code-ink")!.GetAttribute("d")!.Length.ShouldBeGreaterThan(500);
        label.TextContent.ShouldContain("tag CL-20931");
        (await ines.ReadAsync("/parts?q=CL-20931")).QuerySelectorAll(".order-lines li").Length.ShouldBe(2,
            "a tag finds its part: here, and its core is owed");
        (await (await server.EnterAsync("perpetua")).GetAsync("/parts")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }
}
