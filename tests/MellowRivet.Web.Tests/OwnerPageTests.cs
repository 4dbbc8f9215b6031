using System.Net;
using MellowRivet.Core.Discrepancies;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>The owner's page: a link without a sign-in, for one inspection's list and nothing else.</summary>
public class OwnerPageTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N0BRM");

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private async Task<string> LinkAsync(params (string, string)[] more)
    {
        var page = await Visitor.ParseAsync(await (await server.EnterAsync("ines"))
            .PostAsync($"{Walk}/fix-list/owner", [Post(), ("to", "owner@example.org"), ("days", "14"), .. more]));
        return new Uri(page.QuerySelector(".link-once")!.GetAttribute("href")!).AbsolutePath;
    }

    private Discrepancy Find(string what)
    {
        var id = Guid.Parse(Walk["/walk/".Length..]);
        return server.With(db => db.Discrepancies.AsNoTracking().Single(found => found.InspectionId == id && found.What == what));
    }

    [Fact]
    public async Task Many_lines_are_answered_at_once_and_what_has_no_price_is_under_no_sum()
    {
        var ines = await server.EnterAsync("ines");
        var numbers = new Dictionary<string, int>();
        foreach (var (what, parts) in new[] { ("Many cheap", "40"), ("Many dear", "900"), ("Many unpriced", "") })
        {
            await ines.PostAsync($"{Walk}/find", Post(), ("what", what), ("zone", "gear"), ("class", "Recommended"));
            numbers[what] = Find(what).Number;
            // Prices go down the list like a sheet: each is kept as it is typed.
            var said = await ines.PressAsync($"{Walk}/fix-list/prices?handler=Price", Post(), ("key", $"{numbers[what]:00}"),
                ("hours", ""), ("parts", parts));
            said.StatusCode.ShouldBe(HttpStatusCode.OK);
        }
        (await Visitor.ParseAsync(await ines.PressAsync($"{Walk}/fix-list/prices?handler=Price", Post(),
            ("key", $"{numbers["Many cheap"]:00}"), ("hours", "two"), ("parts", "40")))).QuerySelector(".field-problem")!
                .TextContent.ShouldContain("“two” is none");
        var path = await LinkAsync(("askAll", "true"));
        var owner = server.Stranger();
        async Task<string> SeenAsync() => (await owner.ReadAsync(path)).QuerySelector(".owner-many [name=seen]")!.GetAttribute("value")!;
        var seen = await SeenAsync();
        Task<HttpResponseMessage> AnswerAsync(string under) => owner.PostAsync($"{path}?handler=Many", Post(), ("which", "Under"),
            ("under", under), ("answer", "Approve"), ("seen", seen));
        (await Visitor.ParseAsync(await AnswerAsync("a lot"))).QuerySelector(".owner-many .field-problem")!.TextContent
            .ShouldContain("Type the sum");
        (await Visitor.ParseAsync(await AnswerAsync(new('9', 60)))).QuerySelector(".owner-many .field-problem")!.TextContent
            .ShouldContain("Type the sum");
        // A price that rises while the owner reads isn't approved by what they read.
        await ines.PressAsync($"{Walk}/fix-list/prices?handler=Price", Post(), ("key", $"{numbers["Many cheap"]:00}"), ("hours", ""),
            ("parts", "41"));
        (await Visitor.ParseAsync(await AnswerAsync("100"))).QuerySelector(".owner-many .field-problem")!.TextContent
            .ShouldContain("has changed since");
        Find("Many cheap").Disposition.ShouldBe(Disposition.Asked);
        seen = await SeenAsync();
        (await AnswerAsync("100")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (Find("Many cheap").Disposition, Find("Many dear").Disposition, Find("Many unpriced").Disposition)
            .ShouldBe((Disposition.Approved, Disposition.Asked, Disposition.Asked));
        (await owner.PostAsync($"{path}?handler=Many", Post(), ("which", "All"), ("answer", "Decline"),
            ("seen", await SeenAsync()))).StatusCode
            .ShouldBe(HttpStatusCode.Redirect);
        Find("Many dear").Disposition.ShouldBe(Disposition.Declined);
        Find("Many cheap").Disposition.ShouldBe(Disposition.Approved, "what was answered stays");
    }

    [Fact]
    public async Task An_owner_reads_answers_and_asks_without_signing_in()
    {
        var ines = await server.EnterAsync("ines");
        foreach (var (what, @class) in new[] { ("Owner line tyre", "Airworthiness"), ("Owner line paint", "Recommended") })
            await ines.PostAsync($"{Walk}/find", Post(), ("what", what), ("zone", "gear"), ("class", @class));
        var tyre = Find("Owner line tyre");
        await ines.PostAsync($"{Walk}/fix-list/{tyre.Number}?handler=Estimate", Post(), ("hours", ""), ("parts", "200"));
        await ines.PostAsync($"{Walk}/fix-list/{tyre.Number}?handler=Attach", Post(), ("note", "between us: he always haggles"));
        var path = await LinkAsync(("askAll", "true"));

        var owner = server.Stranger();
        var page = await owner.ReadAsync(path);
        page.Body!.TextContent.ShouldContain("Owner line tyre");
        page.Body.TextContent.ShouldContain("$200");
        page.Body.TextContent.ShouldContain("it may not fly until it is done", Case.Sensitive, "what declining means");
        page.Body.TextContent.ShouldNotContain("haggles");
        page.QuerySelector("meta[name=referrer]")!.GetAttribute("content").ShouldBe("no-referrer");

        var token = page.QuerySelector("input[name=__RequestVerificationToken]")!.GetAttribute("value")!;
        async Task<HttpResponseMessage> Say(string answer, string words = "") => await owner.PostWithAsync(path, token, Post(),
            ("number", $"{tyre.Number}"), ("answer", answer), ("words", words), ("seen", (await owner.ReadAsync(path))
                .QuerySelector($"#line-{tyre.Number} [name=seen]")!.GetAttribute("value")!));
        (await Visitor.ParseAsync(await owner.PostWithAsync(path, token, Post(), ("number", $"{tyre.Number}"), ("answer", "Approve"),
            ("seen", "what stood there yesterday")))).QuerySelector(".field-problem")!.TextContent.ShouldContain("has changed since");
        (await Say("Decline")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await owner.ReadAsync(path))
            .QuerySelector(".owner-total")!.TextContent.ShouldContain("declined that must be done to be airworthy");
        (await Say("Approve")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await Visitor.ParseAsync(await Say("Ask"))).QuerySelector(".field-problem")!.TextContent.ShouldContain("question first");
        (await Say("Ask", "Can it wait?")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var answered = Find("Owner line tyre");
        (answered.Disposition, answered.Steps[^1].By, answered.OwnerWaits).ShouldBe((Disposition.Approved, null, true));
        (await ines.ReadAsync($"{Walk}/fix-list?show=OwnerWaits")).Body!.TextContent.ShouldContain("Owner line tyre");
        (await ines.ReadAsync("/outbox")).Body!.TextContent.ShouldContain(path);
    }

    [Fact]
    public async Task A_link_opens_nothing_but_its_own_list_and_its_pictures()
    {
        var path = await LinkAsync();
        var owner = server.Stranger();
        await owner.ReadAsync(path);
        foreach (var elsewhere in new[]
            { "/", Walk, $"{Walk}/fix-list", $"{Walk}/fix-list/1", $"{Walk}/fix-list.json", "/outbox", "/shelf" })
            (await owner.GetAsync(elsewhere)).StatusCode.ShouldBe(HttpStatusCode.Redirect, elsewhere);
        var trainer = Guid.Parse(server.Walk("N04QF")["/walk/".Length..]);
        var foreign = server.With(db => db.Discrepancies.AsNoTracking().Where(found => found.InspectionId == trainer).AsEnumerable()
            .First(found => found.Photos.Count > 0).Photos[0].Sha256);
        (await owner.GetAsync($"{path}/photos/{foreign}/large")).StatusCode.ShouldBe(HttpStatusCode.NotFound,
            "a picture of another aircraft");
        (await owner.GetAsync($"{path}/photos/..%2f..%2frivet.db/large")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await owner.GetAsync($"/photos/{foreign}/large")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        foreach (var guess in new[] { "/owner/x", $"/owner/{new string('0', 64)}", $"{path}0" })
            (await owner.GetAsync(guess)).StatusCode.ShouldBe(HttpStatusCode.NotFound, guess);
        (await owner.ForgeAsync(path)).StatusCode.ShouldBe(HttpStatusCode.BadRequest, "without the page's own form token");
    }

    [Fact]
    public async Task A_link_that_was_ended_or_has_run_out_is_gone()
    {
        var ines = await server.EnterAsync("ines");
        var path = await LinkAsync();
        var id = server.With(db => db.OwnerLinks.AsNoTracking().AsEnumerable().MaxBy(link => link.At)!.Id);
        await ines.PostAsync($"{Walk}/fix-list/owner?handler=Revoke", Post(), ("link", $"{id}"));
        (await server.Stranger().GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        var old = await LinkAsync();
        await server.With(db => db.OwnerLinks.Where(link => link.TokenHash == OwnerLink.HashOf(old.Replace("/owner/", "")))
            .ExecuteUpdateAsync(set => set.SetProperty(link => link.Ends, DemoServer.Now.AddMinutes(-1))));
        (await server.Stranger().GetAsync(old)).StatusCode.ShouldBe(HttpStatusCode.NotFound);

        var wrong = await Visitor.ParseAsync(await ines.PostAsync($"{Walk}/fix-list/owner", Post(), ("to", "nobody"), ("days", "14")));
        wrong.QuerySelector(".field-problem")!.TextContent.ShouldContain("mail address");
        wrong.QuerySelector("input[name=to]")!.GetAttribute("value").ShouldBe("nobody");
    }

    [Fact]
    public async Task The_outbox_hands_out_mail_as_files_and_nothing_else()
    {
        var ines = await server.EnterAsync("ines");
        await LinkAsync();
        var file = (await ines.ReadAsync("/outbox")).QuerySelector("a[href*='handler=File']")!.GetAttribute("href")!;
        var mail = await (await ines.GetAsync(file)).Content.ReadAsStringAsync();
        mail.ShouldContain("To: owner@example.org");
        mail.ShouldContain("Subject: N0BRM");
        (await ines.GetAsync("/outbox?handler=File&name=../rivet")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await server.EnterAsync("tamsin"))
            .GetAsync("/outbox")).StatusCode.ShouldBe(HttpStatusCode.Forbidden, "it holds the owners' links");
    }
}
