using System.Net;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Signing;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>What stands before a signature, as Close takes its answers: by whoever may sign this inspection, and nobody else.</summary>
public class ClosePagesTests(DemoServer server) : IClassFixture<DemoServer>
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
        page.QuerySelectorAll(".zone-look-form, .aside-form form").ShouldBeEmpty("nothing is offered that would be refused");
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
