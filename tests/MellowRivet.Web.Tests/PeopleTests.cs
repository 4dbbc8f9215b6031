using System.Net;
using MellowRivet.Core.People;
using MellowRivet.Web.Demo;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>People come and go, and the log tells of it.</summary>
public sealed class PeopleTests(DemoServer server) : IClassFixture<DemoServer>
{
    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private Guid IdOf(string name) => server.With(db => db.People.Single(person => person.Name == name).Id);

    private async Task<Visitor> EnteredAsync(string name, string password = DemoShop.Password)
    {
        var visitor = server.Stranger();
        (await visitor.PostAsync("/enter", ("name", name), ("password", password))).StatusCode.ShouldBe(HttpStatusCode.Redirect, name);
        return visitor;
    }

    private async Task<string> SaidAsync(Visitor visitor, string path, params (string, string)[] form)
    {
        var answer = await visitor.PostAsync(path, [Post(), .. form]);
        return answer.StatusCode == HttpStatusCode.Redirect
            ? ""
            : (await Visitor.ParseAsync(answer)).QuerySelector(".field-problem")!.TextContent.Trim();
    }

    private async Task<string> NewAsync(string name, params string[] roles)
    {
        var signIn = name.Split(' ')[0].ToLowerInvariant();
        (await (await server.EnterAsync("orla")).PostAsync("/people", [("Form.Name", name), ("Form.Initials", $"{signIn[0]}{signIn[^1]}q"),
            ("Form.SignInName", signIn), ("Form.Password", "otters mend clocks"), .. roles.Select(role => ("Form.Roles", role))]))
            .StatusCode.ShouldBe(HttpStatusCode.Redirect);
        return signIn;
    }

    [Fact]
    public async Task The_door_closes_at_once_and_everywhere_with_all_that_hangs_on_it()
    {
        var orla = await server.EnterAsync("orla");
        var name = await NewAsync("Odo Penhallow", "Mechanic");
        var (desk, phone, walk) = (await EnteredAsync(name, "otters mend clocks"), await EnteredAsync(name, "otters mend clocks"),
            server.Walk("N04QF"));
        var calendar = (await Visitor.ParseAsync(await desk.PostAsync("/due/calendar"))).QuerySelector("code.address")!.TextContent;
        var link = (await Visitor.ParseAsync(await desk.PostAsync($"{walk}/fix-list/owner", Post(), ("to", "o@example.org"),
            ("days", "9"))))
            .QuerySelector("a.link-once")!.GetAttribute("href")!;
        (await server.Stranger().GetAsync(new Uri(link).AbsolutePath)).StatusCode.ShouldBe(HttpStatusCode.OK);

        (await SaidAsync(orla, $"/people/{IdOf("Odo Penhallow")}?handler=Close")).ShouldBeEmpty();
        foreach (var browser in new[] { desk, phone })
            (await browser.GetAsync("/")).Headers.Location!.OriginalString.ShouldContain("/enter");
        (await server.Stranger().PostAsync("/enter", ("name", name), ("password", "otters mend clocks"))).StatusCode
            .ShouldBe(HttpStatusCode.OK, "not by the door either");
        (await server.Stranger().GetAsync(new Uri(calendar).AbsolutePath)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await server.Stranger().GetAsync(new Uri(link).AbsolutePath)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await orla.ReadAsync("/people")).QuerySelector("tr.left")!.TextContent.ShouldContain("Odo Penhallow");

        await SaidAsync(orla, $"/people/{IdOf("Odo Penhallow")}?handler=LetIn");
        await EnteredAsync(name, "otters mend clocks");
    }

    [Fact]
    public async Task A_copy_of_a_cookie_opens_nothing_after_its_owner_left()
    {
        using var handler = new HttpClientHandler { AllowAutoRedirect = false, CookieContainer = new() };
        using var http = new HttpClient(handler) { BaseAddress = server.Address };
        async Task SendAsync(string path, params (string Name, string Value)[] fields)
        {
            var page = await http.GetAsync("/");
            if (page.StatusCode != HttpStatusCode.OK)
                page = await http.GetAsync("/enter");
            var token = (await Visitor.ParseAsync(page)).QuerySelector("input[name=__RequestVerificationToken]")!.GetAttribute("value")!;
            await http.PostAsync(path, new FormUrlEncodedContent([new("__RequestVerificationToken", token),
                .. fields.Select(field => KeyValuePair.Create(field.Name, field.Value))]));
        }
        await SendAsync("/enter", ("name", "tamsin"), ("password", DemoShop.Password));
        var copy = handler.CookieContainer.GetCookieHeader(server.Address);
        async Task<HttpStatusCode> ByCopyAsync()
        {
            using var other = new HttpClient(new HttpClientHandler { AllowAutoRedirect = false, UseCookies = false })
                { BaseAddress = server.Address };
            other.DefaultRequestHeaders.Add("Cookie", copy);
            return (await other.GetAsync("/due")).StatusCode;
        }
        (await ByCopyAsync()).ShouldBe(HttpStatusCode.OK);
        await SendAsync("/leave");
        (await ByCopyAsync()).ShouldBe(HttpStatusCode.Redirect);
    }

    [Fact]
    public async Task Other_roles_hold_with_the_next_request()
    {
        var orla = await server.EnterAsync("orla");
        var name = await NewAsync("Bram Ottery", "Assistant");
        var bram = await EnteredAsync(name, "otters mend clocks");
        (await bram.GetAsync("/take-in")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        await SaidAsync(orla, $"/people/{IdOf("Bram Ottery")}?handler=Roles", ("typed.Roles", "Mechanic"));
        (await bram.GetAsync("/take-in")).StatusCode.ShouldBe(HttpStatusCode.OK);
        await SaidAsync(orla, $"/people/{IdOf("Bram Ottery")}?handler=Roles", ("typed.Roles", "Owner"));
        (await bram.GetAsync(server.FileOf("N04QF"))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        await SaidAsync(orla, $"/people/{IdOf("Bram Ottery")}?handler=Owns",
            ("typed.Aircraft", server.FileOf("N04QF").Split('/')[^1]), ("typed.From", "2026-11-25"));
        (await bram.GetAsync(server.FileOf("N04QF"))).StatusCode.ShouldBe(HttpStatusCode.OK);
        server.With(db => db.Log.AsEnumerable().Last(line => line.Deed == Deed.RolesSet && line.About.StartsWith("Bram")))
            .ShouldSatisfyAllConditions(line => line.Before.ShouldBe("mechanic"), line => line.After.ShouldBe("owner"),
                line => line.Name.ShouldBe("Orla Hob"));
    }

    [Fact]
    public async Task A_new_password_is_ones_own_and_leaves_the_other_browsers_outside()
    {
        var name = await NewAsync("Cato Wick", "Mechanic");
        var (here, there) = (await EnteredAsync(name, "otters mend clocks"), await EnteredAsync(name, "otters mend clocks"));
        (await SaidAsync(here, "/me?handler=Password", ("before", "wrong"), ("password", "kites over slate")))
            .ShouldContain("not your password");
        foreach (var (weak, why) in new[] { ("aaaaaaaaaa", "over and over"), ("cato-wick-1", "words of this place"),
            ("N04QF-N0TWQ", "words"), ("quillmoor-1", "words of this place"), ("HobDaughters", "words of this place"),
            ("dragon12345", "every list"), (new string('x', 129), "From 10 to 128") })
            (await SaidAsync(here, "/me?handler=Password", ("before", "otters mend clocks"), ("password", weak))).ShouldContain(why);
        (await SaidAsync(here, "/me?handler=Password", ("before", "otters mend clocks"), ("password", "kites over slate"))).ShouldBeEmpty();
        (await here.GetAsync("/me")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await there.GetAsync("/me")).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var again = await EnteredAsync(name, "kites over slate");
        (await SaidAsync(here, "/me?handler=LeaveOthers")).ShouldBeEmpty();
        (await again.GetAsync("/me")).StatusCode.ShouldBe(HttpStatusCode.Redirect);

        var orla = await server.EnterAsync("orla");
        (await SaidAsync(orla, $"/people/{IdOf("Cato Wick")}?handler=Password", ("password", "short"))).ShouldContain("From 10");
        (await SaidAsync(orla, $"/people/{IdOf("Cato Wick")}?handler=Password", ("password", "herons keep ledgers"))).ShouldBeEmpty();
        (await here.GetAsync("/me")).StatusCode.ShouldBe(HttpStatusCode.Redirect, "set by the admin");
    }

    [Fact]
    public async Task The_last_who_manages_the_shop_stays_and_a_clumsy_name_is_refused()
    {
        var orla = await server.EnterAsync("orla");
        var path = $"/people/{IdOf("Orla Hob")}";
        (await SaidAsync(orla, $"{path}?handler=Close")).ShouldContain("Nobody would manage the shop");
        (await SaidAsync(orla, $"{path}?handler=Roles", ("typed.Roles", "Inspector"))).ShouldContain("Nobody would manage the shop");
        (await SaidAsync(orla, $"{path}?handler=Roles")).ShouldContain("At least one role");
        (await SaidAsync(orla, $"{path}?handler=Name", ("typed.Name", new string('n', 81)), ("typed.Initials", "OH"))).ShouldContain("80");
        (await SaidAsync(orla, $"{path}?handler=Name", ("typed.Name", "Orla"), ("typed.Initials", "IC"))).ShouldContain("Ines Calloway");
        (await SaidAsync(orla, $"{path}?handler=Certificate", ("typed.Kind", "Mechanic"), ("typed.Number", ""))).ShouldContain("a number");
    }

    [Fact]
    public async Task What_was_signed_stays_under_the_name_of_then()
    {
        var orla = await server.EnterAsync("orla");
        var record = server.With(db => db.SignedRecords.AsNoTracking().AsEnumerable().Last(row => row.Json.Contains("Wim Raskelf")));
        (await SaidAsync(orla, $"/people/{IdOf("Wim Raskelf")}?handler=Name", ("typed.Name", "Wim Tolliver"), ("typed.Initials", "WT")))
            .ShouldBeEmpty();
        (await orla.ReadAsync($"/walk/{record.InspectionId}/records")).Body!.TextContent.ShouldContain("Wim Raskelf");
        server.With(db => Store.ShopDatabase.VerifyAsync(db, server.Data, default).Result.Fault).ShouldBeNull();
        (await SaidAsync(orla, $"/people/{IdOf("Wim Tolliver")}?handler=Name", ("typed.Name", "Wim Raskelf"), ("typed.Initials", "WR")))
            .ShouldBeEmpty();
    }

    [Fact]
    public async Task A_certificate_that_ends_is_reminded_of_and_then_signs_nothing()
    {
        var orla = await server.EnterAsync("orla");
        (await orla.ReadAsync("/")).Body!.TextContent.ShouldContain("Ines Calloway’s certificate ends on");
        (await (await server.EnterAsync("piet")).ReadAsync("/")).Body!.TextContent.ShouldNotContain("certificate ends");
        (await (await server.EnterAsync("ines")).ReadAsync("/")).Body!.TextContent.ShouldContain("certificate ends on");
        var path = $"/people/{IdOf("Wim Raskelf")}?handler=Certificate";
        (string, string)[] held = [("typed.Kind", "RepairmanLightSportMaintenance"), ("typed.Number", "QF 52240")];
        await SaidAsync(orla, path, [.. held, ("typed.Until", "2026-11-24")]);
        (await (await server.EnterAsync("wim")).ReadAsync($"{server.Walk("N0LTS")}/close")).Body!.TextContent
            .ShouldContain("which ended on 2026-11-24");
        await SaidAsync(orla, path, held);
        (await (await server.EnterAsync("wim")).ReadAsync($"{server.Walk("N0LTS")}/close")).Body!.TextContent
            .ShouldNotContain("which ended");
    }
}
