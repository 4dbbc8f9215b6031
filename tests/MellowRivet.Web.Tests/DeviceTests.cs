using System.Net;
using System.Net.Http.Json;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>What the shop says to a device that is taken to where there is no network, and takes from one that comes back.</summary>
public class DeviceTests(DemoServer server) : IClassFixture<DemoServer>
{
    private sealed record Door(Guid Me, string Token, string Version, string Grant, int Minutes);

    private sealed record Along(string Title, string[] Start, string[] Keys, string[] Not, string Version);

    private sealed record Onward(string Next);

    private sealed record Standing(bool Stays);

    private string Walk => server.Walk("N0BRM");

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private Inspection Inspection()
    {
        var id = Guid.Parse(Walk["/walk/".Length..]);
        return server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).Single(row => row.Id == id));
    }

    // What was signed takes nothing more, and nobody's work is dropped: it stands on the aircraft, with its story.
    [Fact]
    public async Task What_was_said_before_a_signature_and_arrives_after_it_is_left_open_on_the_aircraft()
    {
        var ines = await server.EnterAsync("ines");
        var signed = server.With(db => db.Inspections.AsNoTracking().Single(row => row.WorkOrder == "26-111"));
        var (walk, post) = ($"/walk/{signed.Id}", Post());
        var zone = server.With(db => db.Set<InspectionTask>().First(task => task.InspectionId == signed.Id).ZoneKey);
        var refused = await ines.TellAsync($"{walk}/find", post, ("what", "Rudder cable cracked"), ("zone", zone));
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        refused.Headers.Contains("X-Rivet-Signed").ShouldBeTrue();

        Task<HttpResponseMessage> LeaveAsync((string, string) under, double age) => ines.BringAsync($"{walk}/along?handler=Late", age,
            0, under, ("words", "Rudder cable cracked; strand 3 of 7"), ("zone", zone));
        foreach (var age in new[] { 0, 60, -5, 1e12 })
            (await LeaveAsync(Post(), age)).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, "said later, or nonsense");
        var ago = TimeSpan.FromDays(300).TotalSeconds;
        for (var times = 0; times < 2; times++)
        {
            var left = await LeaveAsync(post, ago);
            left.StatusCode.ShouldBe(HttpStatusCode.OK);
            (await left.Content.ReadAsStringAsync()).ShouldContain("26-111-L1");
        }
        var item = server.With(db => db.OpenItems.AsNoTracking().Single(row => row.DiscrepancyId == Guid.Parse(post.Item2)));
        item.FirstNumber.ShouldBe("26-111-L1");
        item.Because.ShouldBe(OpenBecause.Airworthiness, "cracked, by its words");
        item.What.ShouldStartWith("Rudder cable cracked; strand 3 of 7 (said by Ines");
        item.FoundBy.ShouldBe(server.With(db => db.People.Single(person => person.Name.StartsWith("Ines")).Id));
        item.FoundAt.ShouldBeLessThan(DemoServer.Now.AddDays(-299));
        (await ines.ReadAsync($"/aircraft/{signed.AircraftId}/open-items")).QuerySelector("#item-26-111-L1")!.TextContent
            .ShouldContain("signed without it");
        // Nothing of it is in what was signed, and it doesn't look as if it were.
        server.With(db => db.Discrepancies.Any(found => found.InspectionId == signed.Id && found.What.StartsWith("Rudder cable cracked")))
            .ShouldBeFalse();
        (await LeaveAsync(Post(), ago)).StatusCode.ShouldBe(HttpStatusCode.OK);
        server.With(db => db.OpenItems.Count(row => row.FirstNumber.StartsWith("26-111-L"))).ShouldBe(2);
        (await ines.BringAsync($"{Walk}/along?handler=Late", ago, 0, Post(), ("words", "Still in work")))
            .StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
    }

    // A browser's own store lies in the clear in the folder that somebody may carry away.
    [Theory]
    [InlineData("/fix-list"), InlineData("/airframe/cabin?handler=Panels"), InlineData("/along?handler=Judging"),
        InlineData("/along?handler=List")]
    public async Task What_the_shop_says_stands_on_no_browsers_disk(string part)
    {
        var ines = await server.EnterAsync("ines");
        var answer = await ines.GetAsync(Walk + part);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK);
        answer.Headers.CacheControl!.NoStore.ShouldBeTrue();
    }

    [Fact]
    public async Task What_goes_out_through_an_outbox_is_told_where_the_work_goes_on_and_nothing_else()
    {
        var ines = await server.EnterAsync("ines");
        var post = Post();
        (string, string)[] squawk = [post, ("words", "Heater smells in the climb")];
        for (var times = 0; times < 2; times++)
        {
            var told = await ines.TellAsync($"{Walk}/arrive?handler=Hear", squawk);
            told.StatusCode.ShouldBe(HttpStatusCode.OK);
            (await told.Content.ReadFromJsonAsync<Onward>())!.Next.ShouldStartWith($"{Walk}/arrive");
        }
        (await ines.ReadAsync($"{Walk}/arrive")).Body!.TextContent.Split("Heater smells in the climb").Length.ShouldBe(2,
            "sent twice, it is there once");
        (await ines.PostAsync($"{Walk}/arrive?handler=Hear", squawk)).StatusCode.ShouldBe(HttpStatusCode.Redirect,
            "a form without scripts is led on as ever");
    }

    [Fact]
    public async Task What_is_refused_says_so_by_its_status_whether_a_page_or_a_part_of_one_comes_back()
    {
        var ines = await server.EnterAsync("ines");
        var page = await ines.TellAsync($"{Walk}/arrive?handler=Hear", Post(), ("words", " "));
        page.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await Visitor.ParseAsync(page)).QuerySelector("main .field-problem").ShouldNotBeNull();
        var sheet = await ines.ReadAsync($"{server.Walk("N04QF")}/compressions");
        var form = sheet.QuerySelector("form.try")!;
        string Of(string name) => form.QuerySelector($"input[name={name}]")!.GetAttribute("value")!;
        var part = await ines.PressAsync(form.GetAttribute("action")!, Post(), ("reading", Of("reading")), ("cylinder", Of("cylinder")),
            ("value", "many"));
        part.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity, "a reading that isn't kept must not pass for one that is");
    }

    [Fact]
    public async Task A_panel_that_a_device_opened_is_closed_by_what_the_device_knows_of_it()
    {
        var ines = await server.EnterAsync("ines");
        await ines.TellAsync($"{Walk}/tags?handler=Open", Post(), ("kind", "Panel"), ("zone", "tail"),
            ("what", "Elevator bellcrank cover"), ("hardware", ""));
        (string, string)[] known = [("what", "Elevator bellcrank cover"), ("inside", "true")];
        (await ines.TellAsync($"{Walk}/tags?handler=Close", [Post(), ("zone", "cabin"), .. known])).StatusCode
            .ShouldBe(HttpStatusCode.UnprocessableEntity, "no other panel");
        Inspection().Tags.Single(tag => tag.What == "Elevator bellcrank cover").Closed.ShouldBeNull();
        await ines.TellAsync($"{Walk}/tags?handler=Close", [Post(), ("zone", "tail"), .. known]);
        Inspection().Tags.Single(tag => tag.What == "Elevator bellcrank cover").Closed.ShouldNotBeNull();
    }

    [Fact]
    public async Task A_device_is_told_what_to_take_along_and_what_is_nothing_without_the_shop()
    {
        var ines = await server.EnterAsync("ines");
        var list = (await (await ines.GetAsync($"{Walk}/along?handler=List")).Content.ReadFromJsonAsync<Along>())!;
        list.Title.ShouldStartWith("N0BRM");
        foreach (var address in list.Start.Where(address => !list.Not.Any(not => address.EndsWith($"/{not}", StringComparison.Ordinal))))
            ((int)(await ines.GetAsync(address)).StatusCode).ShouldBeOneOf(200, 302);
        list.Not.ShouldContain("close", "nobody signs on a page of yesterday");
        list.Version.ShouldBe((await (await ines.GetAsync("/device/token")).Content.ReadFromJsonAsync<Door>())!.Version);
        var page = await ines.ReadAsync($"{Walk}/close");
        page.QuerySelectorAll("[data-waits=yes]").ShouldBeEmpty("what is signed never waits on a device");
        (await ines.ReadAsync($"{Walk}/tags")).QuerySelectorAll("[data-waits=yes] form[method=post]").ShouldNotBeEmpty();
    }

    [Fact]
    public async Task A_phone_locks_after_the_minutes_that_the_shop_has_set()
    {
        var (orla, ines) = (await server.EnterAsync("orla"), await server.EnterAsync("ines"));
        (string, string)[] Rules(string minutes) => [Post(), ("inspector", "Never"), ("firstLook", "true"), ("lockMinutes", minutes)];
        foreach (var wrong in new[] { "0", "241", "1.5", "soon" })
            (await (await orla.PostAsync("/shelf?handler=House", Rules(wrong))).Content.ReadAsStringAsync(
                TestContext.Current.CancellationToken)).ShouldContain("locks after 1 to 240 minutes", Case.Sensitive, wrong);
        (await orla.PostAsync("/shelf?handler=House", Rules("5"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await (await ines.GetAsync("/device/token")).Content.ReadFromJsonAsync<Door>())!.Minutes.ShouldBe(5);
        (await ines.ReadAsync($"{Walk}/tags")).QuerySelector("[data-lock-minutes]")!.GetAttribute("data-lock-minutes")
            .ShouldBe("5", "inspections in work hold by it at once");
    }

    [Fact]
    public async Task A_device_learns_that_its_person_left_with_nobody_in()
    {
        var orla = await server.EnterAsync("orla");
        var piet = await server.EnterAsync("piet");
        var door = (await (await piet.GetAsync("/device/token")).Content.ReadFromJsonAsync<Door>())!;
        var stranger = server.Stranger();
        async Task<HttpResponseMessage> AskAsync(string grant) =>
            await stranger.GetAsync($"/device/standing?grant={Uri.EscapeDataString(grant)}");
        (await (await AskAsync(door.Grant)).Content.ReadFromJsonAsync<Standing>())!.Stays.ShouldBeTrue();
        (await AskAsync($"{door.Me:N}")).StatusCode.ShouldBe(HttpStatusCode.NotFound, "whoever guesses learns nothing");
        (await stranger.GetAsync("/device/token")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await orla.PostAsync($"/people/{door.Me}?handler=Close", Post())).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await (await AskAsync(door.Grant)).Content.ReadFromJsonAsync<Standing>())!.Stays.ShouldBeFalse();
    }
}
