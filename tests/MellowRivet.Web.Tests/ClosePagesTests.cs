using System.Net;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Signing;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>What stands before a signature, as Close takes its answers: by whoever may sign this inspection, and nobody else.</summary>
[Collection(SigningShop.Name)]
public class ClosePagesTests(DemoServer server)
{
    private string Walk => server.Walk("N04QF");

    private Inspection Inspection() =>
        server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).AsEnumerable()
            .Single(row => Walk.EndsWith($"{row.Id}", StringComparison.Ordinal)));

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    // An annual takes an inspection authorization (14 CFR 65.95, from memory): a mechanic without one answers none of this.
    [Fact]
    public async Task A_mechanic_who_may_not_sign_the_annual_is_told_so_and_changes_nothing()
    {
        var ines = await server.EnterAsync("ines");
        var page = await ines.ReadAsync($"{Walk}/close");
        page.QuerySelectorAll(".zone-look-form, .aside-form:not(.add-line) form, .lengths")
            .ShouldBeEmpty("nothing is offered that would be refused");
        async Task<string> SaidAsync(string handler, params (string, string)[] form) =>
            (await Visitor.ParseAsync(await ines.PostAsync($"{Walk}/close?handler={handler}", [Post(), .. form]))).Body!.TextContent;
        (await SaidAsync("Zone", ("zone", "left-wing"), ("from", "zone")))
            .ShouldContain("The look that counts is that of somebody who may sign");
        (await SaidAsync("Checklist", ("title", "My list"), ("revision", "1"))).ShouldContain("Only somebody who may sign");
        var asked = page.QuerySelectorAll(".asked-line a").Select(link => link.GetAttribute("href")!)
            .First(href => href.Contains("/plugs/", StringComparison.Ordinal));
        (await SaidAsync("NotPart", ("key", $"plugs/{Guid.Parse(asked.Split('/')[^1]):N}"), ("reason", "no time")))
            .ShouldContain("Only somebody who may sign");
        Inspection().SignersLooks.ShouldBeEmpty();
        (Inspection().Checklist, Inspection().NotPart.Count).ShouldBe((null, 0));
        (await (await server.EnterAsync("tamsin"))
            .PostAsync($"{Walk}/close?handler=Zone", Post(), ("zone", "left-wing"))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task The_inspector_answers_each_of_them_and_takes_it_back()
    {
        var orla = await server.EnterAsync("orla");
        async Task DoAsync(string handler, params (string, string)[] form) =>
            (await orla.PostAsync($"{Walk}/close?handler={handler}", [Post(), .. form])).StatusCode.ShouldBe(HttpStatusCode.Redirect,
                handler);
        await DoAsync("Zone", ("zone", "left-wing"), ("from", "close"));
        Inspection().SignersLooks.ShouldHaveSingleItem().ZoneKey.ShouldBe("left-wing");
        await DoAsync("Zone", ("zone", "left-wing"), ("from", "close"), ("back", "true"));
        Inspection().SignersLooks.ShouldBeEmpty();

        var page = await orla.ReadAsync($"{Walk}/close");
        var form = page.QuerySelectorAll(".judged-line form[action*=Aside]").Single();
        string Field(string name) => form.QuerySelector($"input[name={name}]")!.GetAttribute("value")!;
        var poor = await Visitor.ParseAsync(
            await orla.PostAsync($"{Walk}/close?handler=Aside", Post(), ("key", Field("key")), ("seen", Field("seen")),
                ("reason", "borescope clean"), ("reference", "")));
        poor.QuerySelector(".field-problem")!.TextContent.ShouldContain("By which data");
        poor.QuerySelectorAll(".judged-line form[action*=Aside] input[name=reason]").Single().GetAttribute("value")
            .ShouldBe("borescope clean", "what was typed stays");
        await DoAsync("Aside", ("key", Field("key")), ("seen", Field("seen")),
            ("reason", "Borescope clean, flown ten hours and tested again then."), ("reference", "TF4 manual 72-30, p. 2"));
        Inspection().SetAside.ShouldContain(aside => aside.InWords.StartsWith("Compression, cylinder 2", StringComparison.Ordinal));
        await DoAsync("Up", ("key", Field("key")));
        Inspection().SetAside.ShouldNotContain(aside => aside.InWords.StartsWith("Compression, cylinder 2", StringComparison.Ordinal));
    }

    [Fact]
    public async Task The_entries_stand_there_before_they_are_signed_and_each_sentence_leads_to_what_it_rests_on()
    {
        var orla = await server.EnterAsync("orla");
        async Task<AngleSharp.Dom.IDocument> EntriesAsync() => await orla.ReadAsync($"{Walk}/close");
        static string Said(AngleSharp.Dom.IDocument page, string item) =>
            page.QuerySelector($".entry-draft[aria-label='{item}']")!.TextContent;
        async Task<string> DoAsync(string handler, params (string, string)[] form)
        {
            var answer = await orla.PostAsync($"{Walk}/close?handler={handler}", [Post(), .. form]);
            return answer.StatusCode == HttpStatusCode.Redirect ? ""
                : (await Visitor.ParseAsync(answer)).QuerySelector("#entries ~ .field-problem")!.TextContent;
        }

        var page = await EntriesAsync();
        page.QuerySelectorAll(".entry-draft").Length.ShouldBe(3);
        Said(page, "Engine").ShouldContain("Differential compression, engine hot, supply 80 psi: no. 1 76/80, no. 2 58/80 (exhaust valve)");
        Said(page, "Engine").ShouldContain("no. 4 not read");
        foreach (var link in page.QuerySelectorAll(".entry-draft li > a").Select(link => link.GetAttribute("href")!)
            .DistinctBy(href => string.Join('/', href.Split('?', '#')[0].Split('/').Skip(3).Take(1))))
            (await orla.GetAsync(link)).StatusCode.ShouldBe(HttpStatusCode.OK, link);

        (await DoAsync("Length", ("length", "Short"))).ShouldBe("");
        Said(await EntriesAsync(), "Engine").ShouldContain("Compressions hot: no. 1 76/80");
        (await DoAsync("Length", ("length", "Full"))).ShouldBe("");

        var line = $"{Guid.NewGuid()}";
        (await DoAsync("Line", ("line", line), ("words", " "))).ShouldContain("Write the line");
        (await DoAsync("Line", ("line", line), ("words", "Washed, and its drains opened"))).ShouldBe("");
        Said(await EntriesAsync(), "Airframe").ShouldContain("Washed, and its drains opened.");

        // A fact is left out with a reason that is kept; what the rules want in an entry is not left out.
        var key = $"Compressions/{Guid.Parse(page.QuerySelector(".entry-draft a[href*='/compressions/']")!.GetAttribute("href")!
            .Split('/')[^1]):N}";
        (await DoAsync("Omit", ("key", key), ("reason", ""))).ShouldContain("Say why");
        (await DoAsync("Omit", ("key", key), ("reason", "Entered on the work order alone"))).ShouldBe("");
        (await EntriesAsync()).QuerySelector("li.omitted")!.TextContent.ShouldContain("Left out: Entered on the work order alone");
        Inspection().Omitted.ShouldHaveSingleItem().Text.ShouldStartWith("Differential compression");
        var done = server.With(db => db.Set<Core.Discrepancies.Discrepancy>().AsNoTracking().AsEnumerable()
            .First(found => found.InspectionId == Inspection().Id && found.Correction is not null));
        (await DoAsync("Omit", ("key", $"found/{done.Id:N}"), ("reason", "embarrassing"))).ShouldContain("43.9(a)");

        // A mechanic who may not sign it adds a line, and leaves nothing out.
        var ines = await server.EnterAsync("ines");
        (await ines.PostAsync($"{Walk}/close?handler=Line", Post(), ("line", $"{Guid.NewGuid()}"), ("words", "Polished"))).StatusCode
            .ShouldBe(HttpStatusCode.Redirect);
        (await (await ines.PostAsync($"{Walk}/close?handler=Omit", Post(), ("key", key), ("again", "true"))).Content.ReadAsStringAsync())
            .ShouldContain("Only somebody who may sign");
        Inspection().Omitted.Count.ShouldBe(1);
        (await DoAsync("Omit", ("key", key), ("again", "true"))).ShouldBe("");
        (await DoAsync("Line", ("line", line), ("words", ""))).ShouldBe("");
        (Inspection().Omitted.Count, Inspection().AddedLines.Single().Words).ShouldBe((0, "Polished"));
    }

    [Fact]
    public async Task The_house_says_which_looks_the_signer_takes()
    {
        var orla = await server.EnterAsync("orla");
        (string, string)[] House(string look) =>
            [Post(), ("inspector", "AirworthinessItems"), ("firstLook", "true"), ("preAuthorised", "0"), ("labourRate", "95"),
                ("money", "$"), ("signersLook", look)];
        (await orla.PostAsync("/shelf?handler=House", House("Sometimes"))).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await orla.PostAsync("/shelf?handler=House", House("WhatCounts"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await orla.ReadAsync($"{Walk}/close")).QuerySelector("#zones")!.TextContent.ShouldContain("at airworthiness items");
        (await orla.PostAsync("/shelf?handler=House", House(""))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        server.With(db => db.Shop.Single().Rules.SignersLook).ShouldBe((LookSchool?)null);
        (await orla.ReadAsync($"{Walk}/close")).QuerySelector("#zones")!.TextContent.ShouldContain("at every zone");
    }
}
