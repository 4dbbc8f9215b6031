using System.Net;
using System.Text.Json.Nodes;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Schedule;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace MellowRivet.Web.Tests;

/// <summary>
/// The plan of the hangar as it is seen, pinned, promised, moved and handed over. The day is Wednesday, 25 November 2026.
/// </summary>
public sealed class PlanPagesTests : IAsyncLifetime
{
    private readonly DemoServer server = new();

    public async ValueTask InitializeAsync() => await server.InitializeAsync();

    public ValueTask DisposeAsync() => server.DisposeAsync();

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private async Task<KeptPlan> PlanAsync()
    {
        await using var scope = server.Services.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<PlanDesk>().ReckonAsync(default);
    }

    private Guid IdOf(string registration) => Guid.Parse(server.Walk(registration)["/walk/".Length..]);

    private Guid Person(string name) => server.With(db => db.People.Single(person => person.Name.StartsWith(name)).Id);

    [Fact]
    public async Task Everybody_who_works_here_sees_who_does_what_when_and_an_owner_does_not()
    {
        var wim = await server.EnterAsync("wim");
        var page = await wim.ReadAsync("/plan");
        page.QuerySelectorAll(".planned").Select(one => one.GetAttribute("aria-label")).Order().ShouldBe(["N04QF", "N0BRM", "N0LTS"]);
        page.QuerySelector(".reckoning").ShouldBeNull("the demo opens with its plan");
        page.QuerySelectorAll("svg.hangar-calendar .block").Length.ShouldBeGreaterThan(15);
        page.QuerySelectorAll("svg.hangar-calendar .hand-name").Select(name => name.TextContent).ShouldBe(
            ["Ines Calloway", "Orla Hob", "Piet Oduvane", "Tamsin Bexwell", "Wim Raskelf", "stand"]);
        page.QuerySelector(".planned[aria-label=N04QF] .ready-on")!.TextContent.ShouldContain("nine times in ten by");
        page.QuerySelector(".hangar-plan > .source")!.TextContent.ShouldContain("1,000 runs with drawn hours, seed 1");
        // Every job stands in somebody's day, and every day's jobs in the plan.
        var plan = (await PlanAsync()).Plan;
        foreach (var hand in plan.Hands)
            foreach (var day in plan.Pieces(hand.Id).GroupBy(piece => HangarPlan.DayOf(piece.From)))
                (await wim.ReadAsync($"/plan/me?who={hand.Id}&day={day.Key:yyyy-MM-dd}")).QuerySelectorAll(".my-day a").Select(one =>
                    one.TextContent).ShouldBe(day.Select(piece => $"{piece.Job.Job.Aircraft} · {piece.Job.Job.Title}"));
        var week = await wim.ReadAsync("/plan/week");
        week.QuerySelectorAll(".week-sheet tbody tr").Length.ShouldBe(5);
        week.QuerySelectorAll(".week-sheet td p").Length.ShouldBeGreaterThan(8);
        var casimir = await server.EnterAsync("casimir");
        foreach (var path in new[] { "/plan", "/plan/me", "/plan/week", "/plan.json", "/plan.csv", "/plan.ics" })
            (await casimir.GetAsync(path)).StatusCode.ShouldBe(HttpStatusCode.Forbidden, path);
    }

    [Fact]
    public async Task A_finding_moves_the_day_on_every_page_that_shows_it_and_says_by_how_much()
    {
        var ines = await server.EnterAsync("ines");
        var before = (await PlanAsync()).Plan.Of("N0BRM")!;
        var walk = server.Walk("N0BRM");
        var (open, day) = (await ines.ReadAsync("/plan"), await ines.ReadAsync("/plan/me"));
        var link = new Uri((await Visitor.ParseAsync(await ines.PostAsync($"{walk}/fix-list/owner", Post(), ("to", "owner@example.org"),
            ("days", "14")))).QuerySelector(".link-once")!.GetAttribute("href")!).AbsolutePath;
        await ines.PostAsync($"{walk}/find", Post(), ("what", "Tail spring cracked"), ("zone", "tail"), ("class", "Airworthiness"));
        var number = server.With(db => db.Discrepancies.AsNoTracking().Single(found => found.What == "Tail spring cracked").Number);
        await ines.PostAsync($"{walk}/fix-list/prices/{number:00}", Post(), ("mechanic", "2..3..5"), ("quantity", "1"), ("unit", ""),
            ("what", "tail spring"), ("number", "TS-4"), ("price", ""), ("lead", "33"), ("shelf", "order"), ("cure", "12"), ("place",
                "stand"));
        // A page that stands open asks again and again, and is loaded anew when there is another plan; one into which somebody may be
        // typing says so, and stays.
        static string Ask(AngleSharp.Dom.IDocument page) => page.QuerySelector("#reckoning")!.GetAttribute("hx-get")!;
        await PlanAsync();
        (await ines.GetAsync(Ask(day))).Headers.GetValues("HX-Refresh").ShouldBe(["true"]);
        var told = await ines.GetAsync(Ask(open));
        told.Headers.Contains("HX-Refresh").ShouldBeFalse();
        (await Visitor.ParseAsync(told)).QuerySelector(".reckoning")!.TextContent.ShouldContain("has changed since you");
        var again = (await ines.ReadAsync("/plan")).QuerySelector("#reckoning")!;
        again.ClassList.ShouldBeEmpty("it is of now");
        (await ines.GetAsync(again.GetAttribute("hx-get")!)).Headers.Contains("HX-Refresh").ShouldBeFalse();
        var now = (await PlanAsync()).Plan.Of("N0BRM")!;
        now.Likely.ShouldBeGreaterThan(before.Likely);
        var page = await ines.ReadAsync("/plan");
        var planned = page.QuerySelector(".planned[aria-label=N0BRM]")!.TextContent;
        planned.ShouldContain($"{now.Likely.DayNumber - before.Likely.DayNumber} days later");
        planned.ShouldContain($"new: {number:00} Tail spring cracked");
        planned.ShouldContain("tail spring: here 2026-12-28, if it is ordered");
        page.QuerySelector(".hangar-calendar")!.TextContent.ShouldContain("tail spring: 12-28");
        (await ines.ReadAsync("/")).Body!.TextContent.ShouldContain($"{now.Likely:ddd yyyy-MM-dd}");
        // The page of an owner who signed in, and the one of a link.
        var owned = (await (await server.EnterAsync("perpetua")).ReadAsync("/")).QuerySelectorAll(".ready-line");
        owned.ShouldHaveSingleItem().TextContent.ShouldContain($"{now.Likely:yyyy-MM-dd}");
        var owners = (await server.Stranger().ReadAsync(link)).QuerySelector(".owner-ready")!.TextContent;
        owners.ShouldContain($"{now.Likely:yyyy-MM-dd}");
        owners.ShouldNotContain("tail spring", Case.Insensitive, "nobody put it to them yet");
    }

    [Fact]
    public async Task A_job_is_pinned_to_who_can_do_it_on_a_day_to_come_and_the_rest_gives_way()
    {
        var ines = await server.EnterAsync("ines");
        var plan = (await PlanAsync()).Plan;
        var job = plan.Jobs.First(one => one.Job.Aircraft == "N04QF" && one.Job.Line!.Key == "18");
        (string, string)[] Form(string hand, string day) => [Post(), ("inspection", $"{IdOf("N04QF")}"), ("key", "18"), ("hand", hand),
            ("day", day)];
        var past = await Visitor.ParseAsync(await ines.PostAsync("/plan?handler=Pin", Form("", "2026-11-20")));
        past.QuerySelector("#pin .field-problem")!.TextContent.ShouldContain("2026-11-20 is gone by");
        past.QuerySelector("#pin [name=day]")!.GetAttribute("value").ShouldBe("2026-11-20", "what was typed stays");
        (await Visitor.ParseAsync(await ines.PostAsync("/plan?handler=Pin", Form($"{Person("Tamsin")}", "")))).QuerySelector(
            "#pin .field-problem")!.TextContent.ShouldContain("It takes mechanic’s hands: Tamsin Bexwell is none");
        (await ines.PostAsync("/plan?handler=Pin", Form($"{Person("Wim")}", "2026-12-03"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var pinned = (await PlanAsync()).Plan.Jobs.Single(one => one.Job.Id == job.Job.Id);
        (pinned.Hand, HangarPlan.DayOf(pinned.Start)).ShouldBe((ShopHands.Id(Person("Wim")), new DateOnly(2026, 12, 3)));
        (await ines.ReadAsync("/plan?open=N04QF")).QuerySelectorAll(".planned-jobs td").Count(cell => cell.TextContent.Contains('◆'))
            .ShouldBe(2, "the hand and the day");
        await ines.PostAsync("/plan?handler=Pin", Form("", ""));
        (await PlanAsync()).Plan.Jobs.Single(one => one.Job.Id == job.Job.Id).Job.Pin.ShouldBeNull();
        (await (await server.EnterAsync("tamsin")).PostAsync("/plan?handler=Pin", Form("", "2026-12-03"))).StatusCode
            .ShouldBe(HttpStatusCode.Forbidden, "an assistant decides nothing");
    }

    [Fact]
    public async Task A_promise_stands_with_how_likely_it_is_kept()
    {
        var ines = await server.EnterAsync("ines");
        (string, string)[] Form(string on) => [Post(), ("inspection", $"{IdOf("N04QF")}"), ("on", on)];
        (await Visitor.ParseAsync(await ines.PostAsync("/plan?handler=Promise", Form("2026-11-01")))).QuerySelector(".field-problem")!
            .TextContent.ShouldContain("2026-11-01 is gone by");
        await ines.PostAsync("/plan?handler=Promise", Form("2026-11-27"));
        var ready = (await PlanAsync()).Plan.Of("N04QF")!;
        var said = (await ines.ReadAsync("/plan")).QuerySelector(".planned[aria-label=N04QF] .judged")!.TextContent;
        said.ShouldContain("kept in 0 of 100 runs");
        said.ShouldContain($"{ready.LateBy} days late");
        (await ines.ReadAsync("/")).Body!.TextContent.ShouldContain($"{ready.LateBy} days late");
        await ines.PostAsync("/plan?handler=Promise", Form(""));
        server.With(db => db.Inspections.Single(row => row.Id == IdOf("N04QF")).Promised).ShouldBeNull();
    }

    [Fact]
    public async Task It_leaves_as_a_table_as_JSON_and_as_calendars_of_peoples_days()
    {
        var orla = await server.EnterAsync("orla");
        var plan = (await PlanAsync()).Plan;
        var file = JsonNode.Parse(await (await orla.GetAsync("/plan.json")).Content.ReadAsStringAsync())!;
        file["format"]!.ToString().ShouldBe("mellow-rivet-plan");
        file["jobs"]!.AsArray().Select(job => $"{job!["id"]} {job["start"]}").ShouldBe(plan.Jobs.Select(job =>
            $"{job.Job.Id} {job.Start:yyyy-MM-ddTHH:mm:ss}"));
        file["aircraft"]!.AsArray().Count.ShouldBe(3);
        (await (await orla.GetAsync("/plan.csv")).Content.ReadAsStringAsync()).Split('\n', StringSplitOptions.RemoveEmptyEntries).Length
            .ShouldBe(plan.Jobs.Count + 1);
        static int Events(string text) => text.Split("BEGIN:VEVENT").Length - 1;
        var whole = await (await orla.GetAsync("/plan.ics")).Content.ReadAsStringAsync();
        Events(whole).ShouldBe(plan.Hands.Sum(hand => plan.Pieces(hand.Id).Count()));
        var wim = Person("Wim");
        var mine = plan.Pieces(ShopHands.Id(wim)).ToList();
        var own = await (await orla.GetAsync($"/plan.ics?who={wim}")).Content.ReadAsStringAsync();
        Events(own).ShouldBe(mine.Count);
        own.ShouldContain($"DTSTART:{mine[0].From:yyyyMMddTHHmmss}");
        // A calendar program comes with its person's key, and gets their days alone; an owner's key opens none.
        async Task<string> KeyAsync(string who) =>
            (await Visitor.ParseAsync(await (await server.EnterAsync(who)).PostAsync("/due/calendar")))
            .QuerySelector("code.address")!.TextContent.Replace("shop.ics", "days.ics", StringComparison.Ordinal);
        var feed = new Uri(await KeyAsync("wim")).AbsolutePath;
        Events(await (await server.Stranger().GetAsync(feed)).Content.ReadAsStringAsync()).ShouldBe(mine.Count);
        (await server.Stranger().GetAsync(new Uri(await KeyAsync("casimir")).AbsolutePath)).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task When_somebody_works_is_kept_and_what_cannot_be_is_told_at_its_field()
    {
        var orla = await server.EnterAsync("orla");
        var page = $"/people/{Person("Wim")}";
        (string, string)[] Form(string begins, string hours, string off, params string[] days) =>
            [Post(), ("typed.Begins", begins), ("typed.Hours", hours), ("typed.Off", off), .. days.Select(day => ("typed.Days", day))];
        async Task<string> RefusedAsync(params (string, string)[] form) => (await Visitor.ParseAsync(await orla.PostAsync(
            $"{page}?handler=Week", form))).QuerySelector(".field-problem")!.TextContent;
        (await RefusedAsync(Form("8 o'clock", "8", "", "Monday"))).ShouldContain("as 08:00");
        (await RefusedAsync(Form("08:00", "-3", "", "Monday"))).ShouldContain("as a number");
        (await RefusedAsync(Form("20:00", "8", "", "Monday"))).ShouldContain("past midnight");
        (await RefusedAsync(Form("08:00", "8", "next week", "Monday"))).ShouldContain("“next week”");
        (await RefusedAsync(Form("08:00", "8", "2026-12-10 2026-12-01", "Monday"))).ShouldContain("ends before it begins");
        await orla.PostAsync($"{page}?handler=Week", Form("07:30", "6", "2026-12-01\n2026-12-07 2026-12-09\n2027-01-01 on", "Monday",
            "Tuesday"));
        server.With(db => db.People.Single(person => person.Name.StartsWith("Wim")).Week!.InWords).ShouldBe("6 h from 07:30, Mon Tue");
        (await orla.ReadAsync(page)).QuerySelector("textarea[name='typed.Off']")!.TextContent.ShouldContain("2027-01-01 on");
        (await PlanAsync()).Plan.Pieces(ShopHands.Id(Person("Wim"))).Select(piece => HangarPlan.DayOf(piece.From)).ShouldAllBe(day =>
            day.DayOfWeek == DayOfWeek.Monday || day.DayOfWeek == DayOfWeek.Tuesday);
        // Off for good: told, and planned without them.
        await orla.PostAsync($"{page}?handler=Week", Form("07:30", "6", "2026-11-01 on", "Monday"));
        (await PlanAsync()).Plan.Problems.ShouldContain(problem => problem.Words.StartsWith("Wim Raskelf never works"));
    }

    [Fact]
    public async Task A_line_says_its_cure_its_place_and_what_comes_before_it()
    {
        var ines = await server.EnterAsync("ines");
        var line = $"{server.Walk("N04QF")}/fix-list/prices/18";
        (string, string)[] Form(string cure, string place, string after) =>
            [Post(), ("mechanic", "3"), ("cure", cure), ("place", place), ("after", after)];
        async Task<string> RefusedAsync(params (string, string)[] form) =>
            (await Visitor.ParseAsync(await ines.PostAsync(line, form))).QuerySelector(".field-problem")!.TextContent;
        (await RefusedAsync(Form("a night", "", ""))).ShouldContain("Hours to cure as a number");
        (await RefusedAsync(Form("9000", "", ""))).ShouldContain("Hours to cure from 0");
        (await RefusedAsync(Form("", "", "18"))).ShouldContain("“18” is no number of this list, or this line’s own");
        (await RefusedAsync(Form("", "", "77"))).ShouldContain("“77”");
        (await ines.PostAsync(line, Form("10", "Stand", "2"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var job = (await PlanAsync()).Plan.Jobs.Single(one => one.Job.Id.EndsWith("-117/18", StringComparison.Ordinal));
        (job.Job.CureHours, job.Job.Place).ShouldBe((10, "stand"));
        (await ines.ReadAsync($"/plan?from={job.Start:yyyy-MM-dd}")).QuerySelectorAll(".hand-name").Select(name => name.TextContent)
            .ShouldContain("stand", "the place is drawn, with who is on it");
        job.Job.After.ShouldHaveSingleItem().ShouldEndWith("-117/02");
        (await ines.ReadAsync(line)).QuerySelector("[name=after]")!.GetAttribute("value").ShouldBe("02");
    }

    [Fact]
    public async Task The_plan_of_an_inspection_puts_first_what_led_to_long_waits_and_says_why()
    {
        var plan = await (await server.EnterAsync("ines")).ReadAsync($"{server.Walk("N04QF")}/plan");
        var first = plan.QuerySelectorAll(".look-first li").Select(one => one.TextContent).ToList();
        first[0].ShouldContain("longest bracket with bush, 19 days");
        first[1].ShouldContain("on this kind of inspection; longest seal kit, main leg, 49 days");
        first.Skip(2).ShouldAllBe(text => text.Contains("common practice"));
    }
}
