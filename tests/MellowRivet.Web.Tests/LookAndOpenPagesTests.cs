using System.Net;
using MellowRivet.Core.Inspections;
using Microsoft.EntityFrameworkCore;
using SkiaSharp;

namespace MellowRivet.Web.Tests;

/// <summary>Looks, tags, tools and second people, on the amateur-built whose inspection nobody has begun.</summary>
public class LookAndOpenPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N0BRM");

    private Inspection Inspection(string registration = "N0BRM")
    {
        var id = Guid.Parse(server.Walk(registration)["/walk/".Length..]);
        return server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).Include(row => row.Discrepancies)
            .Include(row => row.Readings).Single(row => row.Id == id));
    }

    private static byte[] Picture()
    {
        using var bitmap = new SKBitmap(64, 48);
        bitmap.Erase(SKColors.SlateGray);
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Jpeg, 90);
        return encoded.ToArray();
    }

    private static (string, string) Post() => ("post", $"{Guid.NewGuid()}");

    private static async Task<string> ProblemOf(HttpResponseMessage answer) =>
        (await Visitor.ParseAsync(answer)).QuerySelector(".field-problem")!.TextContent;

    [Fact]
    public async Task A_zone_is_looked_at_dirty_cleaned_and_looked_at_again_with_who_and_when()
    {
        var piet = await server.EnterAsync("piet");
        var zone = $"{Walk}/look?zone=propeller";
        (await ProblemOf(await piet.PostAsync($"{zone}&handler=Looked", Post(), ("look", "Cleaned"))))
            .ShouldContain("first look comes before cleaning");
        var mark = await piet.SendAsync($"{zone}&handler=Mark", "photo", [("m.jpg", Picture())], Post(), ("of", "Oil"), ("amount", "Weep"),
            ("where", "blade root A"));
        mark.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        foreach (var look in new[] { "First", "Cleaned", "Second" })
            (await piet.PostAsync($"{zone}&handler=Looked", Post(), ("look", look))).StatusCode.ShouldBe(HttpStatusCode.Redirect, look);
        var page = await piet.ReadAsync(zone);
        page.QuerySelector(".look-steps")!.TextContent.Split("Piet Oduvane").Length.ShouldBe(4, "his name three times");
        page.QuerySelector("#marks")!.TextContent.ShouldContain("oil, weep");
        page.QuerySelectorAll("#marks img").Length.ShouldBe(1);
        page.QuerySelector(".mark-form").ShouldBeNull("what is there after cleaning is new");
        (await ProblemOf(await piet.PostAsync($"{zone}&handler=Mark", Post(), ("of", "Oil"), ("amount", "Wet"))))
            .ShouldContain("is cleaned");
    }

    [Fact]
    public async Task Last_times_mark_stands_beside_this_times()
    {
        var page = await (await server.EnterAsync("ines")).ReadAsync($"{server.Walk("N04QF")}/look?zone=engine");
        var pair = page.QuerySelectorAll(".mark-pair").First(pair => pair.TextContent.Contains("oil, wet"));
        pair.TextContent.ShouldContain("more than last time");
        pair.QuerySelectorAll("img").Length.ShouldBe(2, "now and then");
    }

    [Fact]
    public async Task A_picture_that_is_none_keeps_the_mark_out_and_says_why()
    {
        var answer = await (await server.EnterAsync("piet"))
            .SendAsync($"{Walk}/look?zone=tail&handler=Mark", "photo", [("words.jpg", "just words"u8.ToArray())], Post(), ("of", "Coolant"),
                ("amount", "Drip"), ("where", "under the post"));
        var page = await Visitor.ParseAsync(answer);
        page.QuerySelector(".field-problem")!.TextContent.ShouldContain("is not a JPEG");
        page.QuerySelector("input[name=where]")!.GetAttribute("value").ShouldBe("under the post");
        page.QuerySelector("input[value=Coolant]")!.HasAttribute("checked").ShouldBeTrue();
        Inspection().WitnessMarks.ShouldNotContain(mark => mark.ZoneKey == "tail");
    }

    [Fact]
    public async Task A_panel_has_a_label_and_closes_only_after_a_last_look()
    {
        var piet = await server.EnterAsync("piet");
        var tags = $"{Walk}/tags";
        (await ProblemOf(await piet.PostAsync($"{tags}?handler=Open", Post(), ("zone", "gear"), ("kind", "Panel"), ("what", ""))))
            .ShouldContain("Say what it is");
        var post = Post();
        for (var time = 0; time < 2; time++)
            await piet.PostAsync($"{tags}?handler=Open", post, ("zone", "gear"), ("kind", "Part"), ("what", "Tail-wheel fairing"),
                ("hardware", "3 screws"));
        var tag = Inspection().Tags.Single(tag => tag.What == "Tail-wheel fairing");
        var label = (await piet.ReadAsync($"{Walk}/labels")).QuerySelectorAll(".label")
            .Single(label => label.TextContent.Contains("Tail-wheel fairing"));
        label.TextContent.ShouldContain("3 screws");
        label.GetAttribute("data-address").ShouldEndWith($"{Walk}/tags?tag={tag.Number}");
        (await ProblemOf(await piet.PostAsync($"{tags}?handler=Close", Post(), ("number", $"{tag.Number}"))))
            .ShouldContain("Look inside once more");
        await piet.PostAsync($"{tags}?handler=Close", Post(), ("number", $"{tag.Number}"), ("inside", "true"));
        Inspection().Tags.Single(other => other.Number == tag.Number).Closed.ShouldNotBeNull();
    }

    [Fact]
    public async Task A_tool_is_at_one_aircraft_at_a_time_and_holds_up_its_close()
    {
        var piet = await server.EnterAsync("piet");
        var mirror = server.With(db => db.Tools.Single(tool => tool.Number == "M-11"));
        (await piet.ReadAsync($"{Walk}/tools")).QuerySelector($"input[value='{mirror.Id}']")!.HasAttribute("disabled")
            .ShouldBeTrue("it is out at the trainer");
        (await ProblemOf(await piet.PostAsync($"{Walk}/tools?handler=Out", Post(), ("tools", $"{mirror.Id}"))))
            .ShouldContain("bring it in there first");
        var pliers = server.With(db => db.Tools.Single(tool => tool.Number == "P-05"));
        (await ProblemOf(await piet.PostAsync($"{Walk}/tools?handler=Out", Post()))).ShouldContain("Tick the tools");
        await piet.PostAsync($"{Walk}/tools?handler=Out", Post(), ("tools", $"{pliers.Id}"));
        (await piet.ReadAsync($"{Walk}/close")).Body!.TextContent.ShouldContain("Safety-wire pliers P-05 is still out");
        await piet.PostAsync($"{Walk}/tools?handler=In", Post(), ("tool", $"{pliers.Id}"));
        (await piet.ReadAsync($"{Walk}/close")).Body!.TextContent.ShouldNotContain("P-05");
        await piet.PostAsync($"{Walk}/tools?handler=Object", Post(), ("zone", "cabin"), ("what", "Biro under the seat"));
        Inspection().ForeignObjects.ShouldContain(found => found.What == "Biro under the seat");
    }

    [Fact]
    public async Task A_second_person_is_another_person_who_may_and_the_server_says_so()
    {
        var (ines, orla) = (await server.EnterAsync("ines"), await server.EnterAsync("orla"));
        var task = Inspection().Tasks.Single(task => task.Key == "tail-rudder");
        await ines.PostAsync($"{Walk}/airframe/tail?handler=Verdict", Post(), ("task", $"{task.Id}"), ("seen", $"{task.Changes}"),
            ("verdict", "Good"));
        (await ProblemOf(await ines.PostAsync($"{Walk}/inspect", Post(), ("task", $"{task.Id}"))))
            .ShouldContain("somebody else has to inspect it");
        (await orla.ReadAsync($"{Walk}/inspect")).QuerySelector("#queue")!.TextContent.ShouldContain("Rudder: hinges");
        (await orla.PostAsync($"{Walk}/inspect", Post(), ("task", $"{task.Id}"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Inspection().Tasks.Single(other => other.Id == task.Id).InspectedBy.ShouldNotBeNull();
        (await orla.ReadAsync($"{Walk}/inspect")).QuerySelector("#queue")!.TextContent.ShouldNotContain("Rudder: hinges");
    }

    [Fact]
    public async Task A_verdict_is_taken_back_with_the_reading_that_came_with_it()
    {
        var ines = await server.EnterAsync("ines");
        var task = Inspection().Tasks.Single(task => task.Key == "cabin-battery");
        var (given, path) = (Guid.NewGuid(), $"{Walk}/airframe/cabin");
        await ines.PostAsync($"{path}?handler=Verdict", ("post", $"{given}"), ("task", $"{task.Id}"), ("seen", $"{task.Changes}"),
            ("verdict", "Good"), ("value", "12.6"), ("unit", "V"));
        Inspection().Readings.ShouldContain(reading => reading.Id == given);
        (string, string)[] undo = [("task", $"{task.Id}"), ("seen", $"{task.Changes + 1}"), ("before", "NotYet"), ("given", $"{given}")];
        (await ines.PostAsync($"{path}?handler=Undo", [Post(), .. undo])).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        server.With(db => db.Readings.Any(reading => reading.Id == given)).ShouldBeFalse("a mistyped reading is on no trend");
        Inspection().Tasks.Single(other => other.Id == task.Id).Verdict.ShouldBe(TaskVerdict.NotYet);
        (await ProblemOf(await ines.PostAsync($"{path}?handler=Undo", [Post(), .. undo]))).ShouldContain("answered again since");
    }

    [Theory]
    [InlineData("", "", "Type the temperature")]
    [InlineData("warm", "", "is no temperature")]
    [InlineData("60", "", "says nothing at 60")]
    [InlineData("59", "°F", "Within limits")]
    public async Task A_cable_is_judged_by_the_table_at_its_temperature(string temperature, string unit, string says)
    {
        // 59 °F is 15 °C exactly, where the demo's table has 38 ± 3 lb.
        var task = Inspection("N04QF").Tasks.Single(task => task.Key == "rw-cable");
        var judged = await (await server.EnterAsync("ines"))
            .ReadAsync(
                $"{server.Walk("N04QF")}/airframe/right-wing?handler=Judge&task={task.Id}&value=36&unit=lb&temperature={temperature}"
                + $"&temperatureUnit={Uri.EscapeDataString(unit)}");
        judged.Body!.TextContent.ShouldContain(says);
    }

    [Fact]
    public async Task The_manuals_table_goes_on_file_for_the_cables_that_are_ticked()
    {
        var ines = await server.EnterAsync("ines");
        var task = Inspection().Tasks.Single(task => task.Key == "lw-cable");
        var path = $"{Walk}/airframe/left-wing?handler=Table";
        (string, string)[] form = [("task", $"{task.Id}"), ("cables", "aileron-cable-right"), ("cables", "not-a-cable"),
            ("tolerance", "2,5"), ("reference", "builder's book 4")];
        var poor = await Visitor.ParseAsync(await ines.PostAsync(path, [Post(), .. form, ("rows", "15 38")]));
        poor.QuerySelector(".limit .field-problem")!.TextContent.ShouldContain("at least two rows");
        poor.QuerySelector("textarea[name=rows]")!.TextContent.ShouldBe("15 38");
        (await ines.PostAsync(path, [Post(), .. form, ("rows", "0 30\n20 36")])).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var table = server.With(db => db.Aircraft.AsNoTracking()
            .Single(aircraft => aircraft.Registration == "N0BRM")).CableTables.ShouldHaveSingleItem();
        table.Measures.ShouldBe(["aileron-cable-right", "aileron-cable-left"]);
        table.TolerancePounds.ShouldBe(2.5);
    }

    [Fact]
    public async Task A_torque_takes_a_wrench_in_calibration_and_says_what_to_set_with_an_extension()
    {
        var ines = await server.EnterAsync("ines");
        var task = Inspection().Tasks.Single(task => task.Key == "prop-bolts");
        var (good, ended) = server.With(
            db => (db.Tools.Single(tool => tool.Number == "T-04"), db.Tools.Single(tool => tool.Number == "T-07")));
        var path = $"{Walk}/engine/propeller";
        (string, string)[] form = [("task", $"{task.Id}"), ("seen", $"{task.Changes}"), ("verdict", "Good"), ("value", "135"),
            ("unit", "in-lb")];
        (await ines.PostAsync($"{path}?handler=Limit", Post(), ("task", $"{task.Id}"), ("low", "130"), ("high", "140"),
            ("reference", "p. 3"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ProblemOf(await ines.PostAsync($"{path}?handler=Verdict", [Post(), .. form]))).ShouldContain("Choose the wrench");
        (await ProblemOf(await ines.PostAsync($"{path}?handler=Verdict", [Post(), .. form, ("wrench", $"{ended.Id}")])))
            .ShouldContain("no final torque");
        // AC 43.13-1B figure 7-2, from memory: 135 in-lb, 10 in wrench, 1.5 in extension: 117.4.
        (await ines.ReadAsync(
            $"{path}?handler=Judge&task={task.Id}&value=135&unit=in-lb&wrench={good.Id}&extension=1.5")).Body!.TextContent.ShouldContain(
                "117.4 in-lb");
        (await ines.PostAsync($"{path}?handler=Verdict",
            [Post(), .. form, ("wrench", $"{good.Id}"), ("extension", "1.5")])).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var used = Inspection().Readings.Single(reading => reading.TaskId == task.Id).Conditions.Wrench!;
        (used.Title, used.CalibratedUntil, used.ExtensionInches).ShouldBe((good.Title, good.CalibratedUntil!.Value, 1.5));
        used.Setting.ShouldBe(117.4, 0.05);
    }

    [Fact]
    public async Task Out_of_limits_offers_the_discrepancy_filled_in()
    {
        var task = Inspection().Tasks.Single(task => task.Key == "gear-brakes");
        var ines = await server.EnterAsync("ines");
        var judged = await ines.ReadAsync($"{Walk}/airframe/gear?handler=Judge&task={task.Id}&value=0.08&unit=in");
        var offer = judged.QuerySelector("button[data-then]")!.GetAttribute("formaction")!;
        var kept = await ines.PostAsync(offer, Post(), ("task", $"{task.Id}"), ("seen", $"{task.Changes}"), ("verdict", "Discrepancy"),
            ("value", "0.08"), ("unit", "in"));
        Inspection().Readings.Single(reading => reading.TaskId == task.Id).Value.ShouldBe(0.08, "it is kept as it was read");
        var find = await ines.ReadAsync(kept.Headers.Location!.OriginalString);
        find.QuerySelector("textarea[name=what]")!.TextContent.ShouldBe("Brake, left: thinner pad: 0.08 in");
        find.QuerySelector("input[name=measured]")!.GetAttribute("value").ShouldBe("0.08 in; at least 0.1 in");
        find.QuerySelector("select[name=how] option[selected]")!.TextContent.ShouldBe("measured");
        find.QuerySelectorAll("input[name=class][type=radio]").ShouldBeEmpty("its class comes from the judgement");
        // Words of a leak, of paint or of nothing: it is an airworthiness item by its judgement, and a helper's wish doesn't lower it.
        var answer = await (await server.EnterAsync("tamsin"))
            .PostAsync($"{Walk}/find", Post(), ("what", "Paint chipped"), ("zone", "gear"), ("class", "Recommended"), ("why", "only paint"),
                ("reference", "none"), ("judged", $"task/{task.Id:N}"));
        (await answer.Content.ReadAsStringAsync()).ShouldContain("Only somebody who may sign");
    }

    [Fact]
    public async Task What_somebody_does_is_told_to_whoever_has_the_walk_open()
    {
        var (wim, tamsin) = (await server.EnterAsync("wim"), await server.EnterAsync("tamsin"));
        using var answer = await wim.ListenAsync($"{Walk}/events?zone=gear&task=");
        answer.Content.Headers.ContentType!.MediaType.ShouldBe("text/event-stream");
        using var news = new StreamReader(await answer.Content.ReadAsStreamAsync());
        (await NextAsync()).ShouldContain("\"initials\":\"WR\",\"zoneKey\":\"gear\"");
        var (post, task) = (Guid.NewGuid(), Inspection().Tasks.Single(task => task.Key == "gear-shock"));
        await tamsin.PostAsync($"{Walk}/airframe/gear?handler=Verdict", ("post", $"{post}"), ("task", $"{task.Id}"),
            ("seen", $"{task.Changes}"), ("verdict", "Good"));
        (await NextAsync()).ShouldContain($"\"post\":\"{post}\"");

        async Task<string> NextAsync()
        {
            using var patience = new CancellationTokenSource(TimeSpan.FromSeconds(20));
            while (await news.ReadLineAsync(patience.Token) is { } line)
                if (line.StartsWith("data:", StringComparison.Ordinal))
                    return line;
            throw new InvalidOperationException("The stream ended.");
        }
    }

    [Fact]
    public async Task A_page_that_was_open_when_the_inspection_was_signed_is_told_not_to_ask_for_news_again()
    {
        var wim = await server.EnterAsync("wim");
        var signed = server.With(db => db.Inspections.AsNoTracking().First(row => row.State == InspectionState.SignedAirworthy).Id);
        // An event source that gets "no content" closes: WHATWG HTML, 9.2.3.
        (await wim.GetAsync($"/walk/{signed}/events")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await wim.GetAsync($"/walk/{Guid.NewGuid()}/events")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Two_tasks_are_tied_and_untied_by_hand_and_answered_once()
    {
        var ines = await server.EnterAsync("ines");
        InspectionTask Of(string key) => Inspection().Tasks.Single(task => task.Key == key);
        var path = $"{Walk}/airframe/tail";
        (await ines.PostAsync($"{path}?handler=Tie", Post(), ("task", $"{Of("fb-tail-fabric").Id}"),
            ("to", $"{Of("tail-skin").Id}"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var page = await ines.ReadAsync($"{path}?task={Of("tail-skin").Id}");
        page.QuerySelector(".tied")!.TextContent.ShouldContain("Tail fabric: tears at hinges");
        page.QuerySelectorAll(".tasks .what").ShouldAllBe(what => !what.TextContent.Contains("Tail fabric: tears"));
        await ines.PostAsync($"{path}?handler=Verdict", Post(), ("task", $"{Of("tail-skin").Id}"), ("seen", $"{Of("tail-skin").Changes}"),
            ("verdict", "Good"));
        Of("fb-tail-fabric").Verdict.ShouldBe(TaskVerdict.Good);
        await ines.PostAsync($"{path}?handler=Tie", Post(), ("task", $"{Of("fb-tail-fabric").Id}"));
        Of("fb-tail-fabric").TiedTo.ShouldBeNull();
    }

    [Fact]
    public async Task A_zone_that_somebody_took_is_theirs_to_filter_by()
    {
        var (piet, tamsin) = (await server.EnterAsync("piet"), await server.EnterAsync("tamsin"));
        await piet.PostAsync($"{Walk}/airframe/right-wing?handler=Take", Post(), ("mine", "true"));
        int Mine(AngleSharp.Dom.IDocument page) =>
            int.Parse(page.QuerySelectorAll(".filters a").Single(link => link.TextContent.StartsWith("mine", StringComparison.Ordinal))
                .QuerySelector(".mono")!.TextContent);
        Mine(await piet.ReadAsync($"{Walk}/airframe/right-wing")).ShouldBeGreaterThan(10);
        var others = await tamsin.ReadAsync($"{Walk}/airframe/right-wing");
        Mine(others).ShouldBe(0);
        others.QuerySelector(".zones .here")!.TextContent.ShouldContain("PO’s");
        others.QuerySelector(".take-zone button")!.TextContent.ShouldBe("Take it over from PO");
        await piet.PostAsync($"{Walk}/airframe/right-wing?handler=Take", Post(), ("mine", "false"));
        Inspection().Looks.Single(zone => zone.ZoneKey == "right-wing").TakenBy.ShouldBeNull();
    }

    [Fact]
    public async Task A_filter_leaves_what_a_person_can_do_now()
    {
        var page = await (await server.EnterAsync("ines")).ReadAsync($"{server.Walk("N04QF")}/airframe/tail-cone?show=PanelsOpen");
        page.QuerySelectorAll(".tasks > li").Length.ShouldBe(5);
        page.QuerySelector(".filters .on")!.TextContent.ShouldContain("panels open");
        page.QuerySelectorAll(".zones a").ShouldAllBe(link => link.GetAttribute("href")!.EndsWith("?show=PanelsOpen"));
    }

    [Fact]
    public async Task Coming_back_leads_to_where_one_was()
    {
        var wim = await server.EnterAsync("wim");
        var tasks = Inspection().Walk.ToList();
        var task = tasks.First(task => task.Key == "gear-links");
        await wim.PostAsync($"{Walk}/airframe/gear?handler=Verdict", Post(), ("task", $"{task.Id}"), ("seen", $"{task.Changes}"),
            ("verdict", "Good"));
        var next = Inspection().Walk.First(other => other.Order > task.Order && other.Verdict == TaskVerdict.NotYet);
        (await wim.GetAsync(Walk)).Headers.Location!.OriginalString.ShouldBe($"{Walk}/airframe/gear?task={next.Id}");
        (await (await server.EnterAsync("perpetua"))
            .GetAsync(Walk)).Headers.Location!.OriginalString.ShouldNotContain("gear", Case.Insensitive, "another person was never there");
    }
}
