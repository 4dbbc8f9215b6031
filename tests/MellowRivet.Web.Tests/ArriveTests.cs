using System.Net;
using MellowRivet.Core.Inspections;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

public class ArriveTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N0BRM");

    private Inspection Inspection()
    {
        var id = Guid.Parse(Walk["/walk/".Length..]);
        return server.With(db => db.Inspections.AsNoTracking().Include(row => row.Discrepancies).Single(row => row.Id == id));
    }

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    [Fact]
    public async Task A_squawk_stands_in_the_way_until_it_is_answered()
    {
        var visitor = await server.EnterAsync("ines");
        (await (await visitor.PostAsync($"{Walk}/arrive?handler=Hear", Post(), ("words", " "))).Content.ReadAsStringAsync())
            .ShouldContain("What did the owner say?");
        var post = Guid.NewGuid();
        foreach (var _ in Enumerable.Range(0, 2))
            (await visitor.PostAsync($"{Walk}/arrive?handler=Hear", ("post", $"{post}"),
                ("words", "Trim creeps in the cruise"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var squawk = Inspection().Squawks.Single(heard => heard.Words == "Trim creeps in the cruise");
        (await visitor.ReadAsync($"{Walk}/close"))
            .QuerySelector(".middle")!.TextContent.ShouldContain("Trim creeps in the cruise”: not answered yet");

        // Put on the fix list, it is answered by its number there.
        var find = await visitor.ReadAsync($"{Walk}/find?squawk={squawk.Id}");
        find.QuerySelector("textarea[name=what]")!.TextContent.ShouldBe("Trim creeps in the cruise");
        await visitor.PostAsync($"{Walk}/find", Post(), ("squawk", $"{squawk.Id}"), ("what", "Trim wheel friction lost"), ("zone", "cabin"),
            ("class", "Recommended"), ("why", "it holds against the stick in every position"));
        var found = Inspection().Discrepancies.Single(item => item.What == "Trim wheel friction lost");
        Inspection().Squawks.Single(heard => heard.Id == squawk.Id).Answer.ShouldBe(
            $"On the fix list as {Inspection().WorkOrder}-{found.Number:00}.");
        (await visitor.ReadAsync($"{Walk}/close")).QuerySelector(".middle")!.TextContent.ShouldNotContain("Trim creeps");
        await visitor.PostAsync($"{Walk}/arrive?handler=Answer", Post(), ("squawk", $"{squawk.Id}"), ("answer", "Friction set anew."));
        Inspection().Squawks.Single(heard => heard.Id == squawk.Id).Answer.ShouldBe("Friction set anew.");
    }

    [Fact]
    public async Task The_walk_round_is_photographed_and_damage_pinned()
    {
        var visitor = await server.EnterAsync("piet");
        (await (await visitor.PostAsync($"{Walk}/arrive?handler=Photo", Post(), ("view", "Tail"))).Content.ReadAsStringAsync())
            .ShouldContain("Take or choose a picture");
        var bad = await visitor.SendAsync($"{Walk}/arrive?handler=Photo", "photo", [("x.jpg", [1, 2, 3])], Post(), ("view", "Tail"));
        (await bad.Content.ReadAsStringAsync()).ShouldContain("is not a JPEG");
        using var bitmap = new SkiaSharp.SKBitmap(64, 48);
        bitmap.Erase(SkiaSharp.SKColors.Olive);
        using var jpeg = bitmap.Encode(SkiaSharp.SKEncodedImageFormat.Jpeg, 90);
        (await visitor.SendAsync($"{Walk}/arrive?handler=Photo", "photo", [("x.jpg", jpeg.ToArray())], Post(),
            ("view", "Tail"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Inspection().Arrival.Round.ShouldHaveSingleItem().From.ShouldBe(Viewpoint.Tail);
        (await visitor.ReadAsync($"{Walk}/arrive")).QuerySelectorAll(".standpoint.seen").ShouldHaveSingleItem();

        (await (await visitor.PostAsync($"{Walk}/arrive?handler=Pin", Post(), ("damage", "dent"))).Content.ReadAsStringAsync())
            .ShouldContain("Touch the place");
        (await (await visitor.PostAsync($"{Walk}/arrive?handler=Pin", Post(), ("x", "400"), ("y", "10"),
            ("damage", "dent"))).Content.ReadAsStringAsync()).ShouldContain("Touch the place");
        await visitor.PostAsync($"{Walk}/arrive?handler=Pin", Post(), ("x", "120.5"), ("y", "130"), ("damage", "dent, a thumb wide"));
        await visitor.PostAsync($"{Walk}/arrive?handler=Pin", Post(), ("zone", "tail"), ("damage", "scratch"));
        Inspection().Arrival.CameInWith.Select(pin => pin.What).ShouldBe(["dent, a thumb wide", "scratch"]);
        await visitor.PostAsync($"{Walk}/arrive?handler=Unpin", Post(), ("pin", $"{Inspection().Arrival.CameInWith[1].Id}"));
        Inspection().Arrival.CameInWith.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task What_was_aboard_the_meters_and_the_books_are_noted()
    {
        var visitor = await server.EnterAsync("tamsin");
        (await (await visitor.PostAsync($"{Walk}/arrive?handler=Aboard", Post(), ("fuel", "20 l"))).Content.ReadAsStringAsync())
            .ShouldContain("is an answer");
        await visitor.PostAsync($"{Walk}/arrive?handler=Aboard", Post(), ("fuel", "20 l"), ("inside", "nothing"));
        (await (await visitor.PostAsync($"{Walk}/arrive?handler=Meter", Post(), ("kind", "Landings"),
            ("shown", "12,5"))).Content.ReadAsStringAsync()).ShouldContain("whole numbers");
        (await visitor.PostAsync($"{Walk}/arrive?handler=Meter", Post(), ("kind", "Landings"), ("shown", "1250"))).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);
        await visitor.PostAsync($"{Walk}/arrive?handler=Books", Post(), ("missing", "propeller book"));
        var arrival = Inspection().Arrival;
        arrival.OnBoard!.LeftInside.ShouldBe("nothing");
        arrival.Books!.Missing.ShouldBe("propeller book");
        (await visitor.ReadAsync($"{Walk}/arrive")).QuerySelectorAll(".station.here .seam a")
            .Select(rivet => rivet.GetAttribute("aria-label")).ShouldContain("Books brought: noted");
    }

    [Fact]
    public async Task The_plan_lists_what_falls_due_and_takes_a_done_or_a_not_now()
    {
        var visitor = await server.EnterAsync("orla");
        var walk = server.Walk("N04QF");
        var plan = await visitor.ReadAsync($"{walk}/plan");
        plan.QuerySelector(".plan-hours")!.TextContent.ShouldContain("About 16.5 h");
        var item = server.With(db => db.DueItems.AsNoTracking().First(row => row.What == "Extinguisher: weigh"));
        plan.QuerySelector(".plan-columns .plan-due")!.TextContent.ShouldContain("Extinguisher: weigh",
            customMessage: "what can't be told is found out while it is open");
        await visitor.PostAsync($"{walk}/plan?handler=Choose", Post(), ("item", $"{item.Id}"), ("doIt", "false"));
        (await visitor.ReadAsync($"{walk}/plan")).QuerySelectorAll(".left-out")
            .ShouldHaveSingleItem().TextContent.ShouldContain("Extinguisher");
        await visitor.PostAsync($"{walk}/plan?handler=Choose", Post(), ("item", $"{item.Id}"), ("doIt", "true"));
        (await visitor.PostAsync($"{walk}/plan?handler=Done", Post(), ("item", $"{item.Id}"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await visitor.ReadAsync($"{walk}/plan")).QuerySelectorAll(".plan-due li")
            .Single(line => line.TextContent.Contains("Extinguisher")).TextContent.ShouldContain("done with this inspection");
    }

    [Fact]
    public async Task A_watched_discrepancy_goes_on_the_due_line_and_off_it_when_corrected()
    {
        var visitor = await server.EnterAsync("ines");
        await visitor.PostAsync($"{Walk}/find", Post(), ("what", "Fairing seam opens a hair"), ("zone", "tail"), ("class", "Watch"),
            ("why", "a hair"));
        var found = Inspection().Discrepancies.Single(item => item.What == "Fairing seam opens a hair");
        var place = $"{Walk}/fix-list/{found.Number}";
        (await (await visitor.PostAsync($"{place}?handler=Watch", Post(), ("by", "2020-01-01"))).Content.ReadAsStringAsync())
            .ShouldContain("A day to come");
        (await visitor.PostAsync($"{place}?handler=Watch", Post(), ("by", "2031-01-01"), ("hours", "50"))).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);
        (await visitor.ReadAsync(server.FileOf("N0BRM"))).Body!.TextContent.ShouldContain("Look again: Fairing seam opens a hair");
        (await visitor.PostAsync($"{place}?handler=Correct", Post(), ("action", "Seam rebonded."),
            ("kind", "Repaired"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await visitor.ReadAsync(server.FileOf("N0BRM"))).QuerySelectorAll("a.due-row")
            .ShouldAllBe(row => !row.TextContent.Contains("Fairing seam"));
    }
}
