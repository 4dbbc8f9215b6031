using System.Net;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>One shop for the tests of what is signed: each is about an aircraft of its own.</summary>
[CollectionDefinition(Name)]
public class SigningShop : ICollectionFixture<DemoServer>
{
    public const string Name = "signing";
}

/// <summary>Signed records: what is wrong in one is put right by a new one that names it.</summary>
[Collection(SigningShop.Name)]
public class RecordPagesTests(DemoServer server)
{
    [Fact]
    public async Task A_mistake_is_corrected_by_a_new_entry_and_both_show_it()
    {
        var engine = server.With(db => db.SignedRecords.AsNoTracking().AsEnumerable().First(record => record.Book == Book.Engine
            && db.Inspections.Any(row => row.Id == record.InspectionId && row.Kind == InspectionKind.HundredHour)));
        var (wim, walk) = (await server.EnterAsync("wim"), $"/walk/{engine.InspectionId}");
        (string, string)[] correction = [("record", $"{engine.Number}"), ("line", "1"), ("reads", "Engine run: static 5180 rpm."),
            ("password", Demo.DemoShop.Password)];
        async Task<HttpResponseMessage> SendAsync(Visitor visitor, params (string, string)[] more) =>
            await visitor.PostAsync($"{walk}/records?handler=Correct", [("post", $"{Guid.NewGuid()}"), .. correction, .. more]);

        var before = (await wim.ReadAsync($"{walk}/records")).QuerySelectorAll(".entry").Length;
        var poor = await Visitor.ParseAsync(await SendAsync(wim, ("why", "")));
        poor.QuerySelector(".field-problem")!.TextContent.ShouldContain("Say how the mistake came about");
        poor.QuerySelector($"#record-{engine.Number} textarea[name=reads]")!.TextContent.ShouldContain("static 5180 rpm");
        (await SendAsync(await server.EnterAsync("tamsin"), ("why", "x"))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await SendAsync(await server.EnterAsync("perpetua"), ("why", "x"))).StatusCode.ShouldBe(HttpStatusCode.NotFound, "not theirs");
        (await SendAsync(wim, ("why", "misread"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);

        var after = await wim.ReadAsync($"{walk}/records");
        var entries = after.QuerySelectorAll(".entry");
        entries.Length.ShouldBe(before + 1);
        after.QuerySelector($"#record-{engine.Number} .corrected")!.TextContent.ShouldContain("Corrected by record");
        entries[^1].TextContent.ShouldContain($"Correction of record {engine.Number}");
        entries[0].QuerySelectorAll(".seal").Last().TextContent.ShouldContain("head of the chain ");
        server.With(db => db.SignedRecords.AsNoTracking().Single(record => record.Id == engine.Id).Json).ShouldBe(engine.Json);
    }

    [Fact]
    public async Task On_paper_a_long_record_breaks_between_sentences_numbers_its_parts_and_can_be_searched()
    {
        var record = server.With(db => db.SignedRecords.AsNoTracking().AsEnumerable()
            .Where(record => record.Book == Book.Engine && record.Corrects is null).MaxBy(record => record.Json.Length))!;
        var ines = await server.EnterAsync("ines");
        async Task<List<string>> PagesAsync(string paper)
        {
            using var pdf = UglyToad.PdfPig.PdfDocument.Open(
                await (await ines.GetAsync($"/walk/{record.InspectionId}/records.pdf?paper={paper}")).Content.ReadAsByteArrayAsync());
            return [.. pdf.GetPages().Select(page => string.Join(' ', page.GetWords().Select(word => word.Text)))];
        }

        var head = server.With(db => db.SignedRecords.OrderBy(row => row.Id).AsEnumerable().Last() is var last
            ? new ChainHead(last.Number, last.Hash)
            : default);
        var lines = record.Text()["work"]!.AsArray().Select(line => $"{line}".Replace("Ω", "ohm", StringComparison.Ordinal)).ToList();
        foreach (var paper in new[] { "a4", "letter", "140x90", "90x60" })
        {
            var pages = await PagesAsync(paper);
            var whole = string.Join(' ', pages);
            foreach (var line in lines)
                whole.ShouldContain(line.Replace("  ", " ", StringComparison.Ordinal), Case.Sensitive, paper);
            whole.ShouldContain($"record {record.Number} ·");
            // Whoever keeps the sheet keeps the head of the chain with it, and what to compare the shop's key by.
            whole.ShouldContain($"head of the chain {head} · shop’s key {ShopKey.ToCompare(record.KeyFingerprint!)}", Case.Sensitive,
                paper);
            if (paper == "140x90")
            {
                pages.Count(page => page.StartsWith("Engine entry, part 1 of 2", StringComparison.Ordinal)).ShouldBe(1);
                pages.Count(page => page.StartsWith("Engine entry, part 2 of 2", StringComparison.Ordinal)).ShouldBe(1);
                foreach (var line in lines)
                    pages.Any(page => page.Contains(line, StringComparison.Ordinal)).ShouldBeTrue($"whole on one sticker: {line}");
            }
        }
        foreach (var paper in new[] { "9x9", "a9", "140x", "140x9000", "-1x90" })
            (await ines.GetAsync($"/walk/{record.InspectionId}/records.pdf?paper={paper}")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Fact]
    public async Task The_status_page_takes_a_form_and_the_card_says_what_comes_next()
    {
        var (ines, file) = (await server.EnterAsync("ines"), server.FileOf("N0TWQ"));
        var poor = await Visitor.ParseAsync(await ines.PostAsync($"{file}/status?handler=Major", ("post", $"{Guid.NewGuid()}"),
            ("kind", "Alteration"), ("what", "Second radio"), ("papers", "")));
        poor.QuerySelector(".field-problem")!.TextContent.ShouldContain("The form: its number or date");
        poor.QuerySelector("input[name=what]")!.GetAttribute("value").ShouldBe("Second radio");
        (await ines.PostAsync($"{file}/status?handler=Major", ("post", $"{Guid.NewGuid()}"), ("kind", "Alteration"),
            ("what", "Second radio"),
            ("papers", "form 12, folder 3"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var page = await ines.ReadAsync($"{file}/status");
        page.QuerySelectorAll(".status-page h2").Select(title => title.TextContent).ShouldBe(["Total time in service", "Life-limited parts",
            "Overhauls on a time basis", "Inspections", "Directives and bulletins", "Major repairs and alterations",
            "Open on the aircraft"]);
        page.Body!.TextContent.ShouldContain("Alteration: Second radio");
        page.QuerySelectorAll(".empty-line").Length.ShouldBe(5, "a line to write on, and nothing made up");
        var card = await ines.ReadAsync($"{file}/next");
        card.QuerySelector(".next-card")!.TextContent.ShouldContain("Annual inspection");
        card.QuerySelector(".again")!.TextContent.ShouldContain("Right main leg: seals weep");
        (await ines.GetAsync(card.QuerySelector("a[href$='due.ics']")!.GetAttribute("href")!)).Content.Headers.ContentType!.MediaType
            .ShouldBe("text/calendar");
        (await (await server.EnterAsync("tamsin")).PostAsync($"{file}/status?handler=Major", ("post", $"{Guid.NewGuid()}"))).StatusCode
            .ShouldBe(HttpStatusCode.Forbidden);
    }
}
