using System.Net;
using MellowRivet.Core.Inspections;
using Microsoft.EntityFrameworkCore;
using SkiaSharp;

namespace MellowRivet.Web.Tests;

public class WalkPagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private Inspection Inspection(string registration)
    {
        var id = Guid.Parse(server.Walk(registration)["/walk/".Length..]);
        return server.With(db => db.Inspections.AsNoTracking()
            .Include(row => row.Tasks).Include(row => row.Discrepancies).Include(row => row.Readings).Include(row => row.CompressionTests)
            .Single(row => row.Id == id));
    }

    private static byte[] Picture()
    {
        using var bitmap = new SKBitmap(64, 48);
        bitmap.Erase(SKColors.Olive);
        using var encoded = bitmap.Encode(SKEncodedImageFormat.Jpeg, 90);
        return encoded.ToArray();
    }

    [Fact]
    public async Task The_hangar_says_where_each_inspection_stands_and_what_holds_it_up()
    {
        var hangar = await (await server.EnterAsync("ines")).ReadAsync("/");
        var line = hangar.QuerySelectorAll("tbody tr").Single(row => row.TextContent.Contains("N04QF"));
        line.QuerySelectorAll(".seam a").Length.ShouldBe(10, "a rivet for each zone");
        line.TextContent.ShouldContain("airworthiness open");
        line.TextContent.ShouldContain("to look at");
        line.QuerySelectorAll("td:nth-child(3) .block").ShouldAllBe(block => block.GetAttribute("href")!.StartsWith("/walk/"));
        line.QuerySelector("td:nth-child(4) .block")!.TextContent.ShouldContain("h left");
    }

    [Fact]
    public async Task The_hangar_keeps_up_with_what_is_written()
    {
        var tamsin = await server.EnterAsync("tamsin");
        async Task<string> HeldUpAsync() =>
            (await tamsin.ReadAsync("/")).QuerySelectorAll("tbody tr").Single(row => row.TextContent.Contains("N0BRM"))
                .QuerySelector($"td:nth-child(3) a[href='{server.Walk("N0BRM")}']")!.TextContent.Trim();
        var before = int.Parse((await HeldUpAsync()).Split(' ')[^4], System.Globalization.CultureInfo.InvariantCulture);
        var task = Inspection("N0BRM").Tasks.First(task => task
            is { Verdict: TaskVerdict.NotYet, Measure: null, IsCompression: false, ZoneKey: "tail" });
        foreach (var (verdict, version, expected) in new[] { ("Good", task.Changes, before - 1), ("NotYet", task.Changes + 1, before) })
        {
            (await tamsin.PostAsync($"{server.Walk("N0BRM")}/airframe/tail?handler=Verdict", ("post", $"{Guid.NewGuid()}"),
                ("task", $"{task.Id}"), ("seen", $"{version}"), ("verdict", verdict))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
            (await HeldUpAsync()).ShouldEndWith($"{expected} to look at");
        }
    }

    [Fact]
    public async Task Stations_stand_in_working_order()
    {
        var visitor = await server.EnterAsync("ines");
        var walk = server.Walk("N04QF");
        var page = await visitor.ReadAsync($"{walk}/fix-list");
        page.QuerySelectorAll(".station > a").Select(tab => tab.TextContent.Trim())
            .ShouldBe(["Arrive", "Look & open", "Engine", "Airframe", "Bulletins", "Fix list", "Close"]);
    }

    [Fact]
    public async Task A_verdict_is_kept_once_and_a_clash_overwrites_nobody()
    {
        var visitor = await server.EnterAsync("tamsin");
        var walk = server.Walk("N0BRM");
        var task = Inspection("N0BRM").Tasks.Single(task => task.Key == "tc-skin");
        (string, string)[] Form(Guid post, int version, string verdict, string reason = "") =>
            [("post", $"{post}"), ("task", $"{task.Id}"), ("seen", $"{version}"), ("verdict", verdict), ("reason", reason)];
        var path = $"{walk}/airframe/tail-cone?handler=Verdict";

        var first = Guid.NewGuid();
        (await visitor.PostAsync(path, Form(first, 0, "Good"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await visitor.PostAsync(path, Form(first, 0, "Good"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Inspection("N0BRM").Tasks.Single(row => row.Id == task.Id).Changes.ShouldBe(1, "the second post changed nothing");

        var clash = await Visitor.ParseAsync(await visitor.PostAsync(path, Form(Guid.NewGuid(), 0, "NotApplicable", "no tail cone")));
        clash.QuerySelectorAll(".clash dd").Select(said => said.TextContent)
            .ShouldBe(["good", "not on this one"], "theirs, and what was pressed here");
        clash.QuerySelector(".clash dt")!.TextContent.ShouldContain("Tamsin Bexwell");
        clash.QuerySelector("input[name=reason]")!.GetAttribute("value").ShouldBe("no tail cone");
        Inspection("N0BRM").Tasks.Single(row => row.Id == task.Id).Verdict.ShouldBe(TaskVerdict.Good);
    }

    [Theory]
    [InlineData("abc", "is no number")]
    [InlineData("1e9", "can’t be read")]
    [InlineData("-5", "below zero")]
    [InlineData("", "Type the value")]
    [InlineData("99999999999", "more than anything here measures")]
    public async Task A_measured_task_refuses_nonsense_beside_its_field_and_keeps_what_was_typed(string typed, string says)
    {
        var task = Inspection("N04QF").Tasks.Single(task => task.Key == "rw-aileron");
        var answer = await (await server.EnterAsync("ines")).PostAsync($"{server.Walk("N04QF")}/airframe/right-wing?handler=Verdict",
            ("post", $"{Guid.NewGuid()}"), ("task", $"{task.Id}"), ("seen", $"{task.Changes}"), ("verdict", "Good"), ("value", typed),
            ("unit", "in"));
        var page = await Visitor.ParseAsync(answer);
        page.QuerySelector(".judged-value .field-problem")!.TextContent.ShouldContain(says);
        page.QuerySelector("input[name=value]")!.GetAttribute("value").ShouldBe(typed);
    }

    [Fact]
    public async Task A_value_in_another_unit_is_converted_before_it_is_judged()
    {
        var task = Inspection("N0BRM").Tasks.Single(task => task.Key == "tail-elevator");
        // 2 mm is 78.7 thousandths of an inch (exactly 2000 / 25.4): within 100.
        await (await server.EnterAsync("ines")).PostAsync($"{server.Walk("N0BRM")}/airframe/tail?handler=Verdict",
            ("post", $"{Guid.NewGuid()}"), ("task", $"{task.Id}"), ("seen", "0"), ("verdict", "Good"), ("value", "2"), ("unit", "mm"));
        var after = Inspection("N0BRM");
        after.Tasks.Single(row => row.Id == task.Id).Verdict.ShouldBe(TaskVerdict.Good);
        after.Readings.Single(reading => reading.TaskId == task.Id).Value.ShouldBe(2000 / 25.4, 1e-9);
    }

    [Fact]
    public async Task Compressions_wait_for_the_caution_and_are_judged_one_by_one()
    {
        var visitor = await server.EnterAsync("ines");
        var path = $"{server.Walk("N0BRM")}/compressions";
        var gate = await visitor.ReadAsync(path);
        gate.QuerySelector(".caution")!.TextContent.ShouldContain("swing the propeller");
        gate.QuerySelectorAll("[data-psi]").Where(field => field.Closest("[hidden]") is null).ShouldBeEmpty();

        (string, string)[] Test(params (string, string)[] changes) =>
            [("post", $"{Guid.NewGuid()}"), ("supply", "80"), ("ambient", "14.7"), .. changes];
        var refused = await Visitor.ParseAsync(await visitor.PostAsync($"{path}?handler=Begin", Test(("hot", "true"))));
        refused.QuerySelector(".caution .field-problem")!.TextContent.ShouldContain("Read the caution");
        (await Visitor.ParseAsync(
            await visitor.PostAsync($"{path}?handler=Begin",
                Test(("caution", "true"))))).Body!.TextContent.ShouldContain("hot (within an hour");
        (await visitor.PostAsync($"{path}?handler=Begin", Test(("caution", "true"), ("hot", "true")))).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);

        var reading = Guid.NewGuid();
        foreach (var (typed, says) in new[]
            { ("81", "above the supply"), ("abc", "is not a reading"), ("-1", "below zero"), ("1e9", "is not a reading") })
            (await (await visitor.PostAsync($"{path}?handler=Reading", ("post", $"{Guid.NewGuid()}"), ("reading", $"{reading}"),
                ("cylinder", "1"), ("value", typed)))
                .Content.ReadAsStringAsync()).ShouldContain(says);
        await visitor.PostAsync($"{path}?handler=Reading", ("post", $"{Guid.NewGuid()}"), ("reading", $"{reading}"), ("cylinder", "1"),
            ("value", "67/80"), ("leak", "Rings"));
        await visitor.PostAsync($"{path}?handler=Reading", ("post", $"{Guid.NewGuid()}"), ("reading", $"{reading}"), ("cylinder", "1"),
            ("value", "76"), ("leak", "None"));
        Inspection("N0BRM").Readings.Count(kept => kept.Kind == Reading.CompressionKind).ShouldBe(1, "the same reading corrected");
        (await visitor.ReadAsync($"{path}?cylinder=1")).QuerySelector("#said-1")!.TextContent.ShouldContain("good");
    }

    [Fact]
    public async Task Judging_as_typed_keeps_nothing()
    {
        var before = Inspection("N04QF").Readings.Count;
        var engine = (await (await server.EnterAsync("ines"))
            .ReadAsync(
                $"{server.Walk(
                    "N04QF")}/compressions?handler=Judge&cylinder=4&value=55&leak=Rings&reading={Guid.NewGuid()}")).Body!.TextContent;
        engine.ShouldContain("test again");
        Inspection("N04QF").Readings.Count.ShouldBe(before);
    }

    [Fact]
    public async Task A_discrepancy_posted_twice_is_one_with_its_picture()
    {
        var visitor = await server.EnterAsync("tamsin");
        var post = Guid.NewGuid();
        for (var time = 0; time < 2; time++)
            (await visitor.SendAsync($"{server.Walk("N0BRM")}/find", [("a.jpg", Picture())], ("post", $"{post}"),
                ("what", "Cowl latch bent"), ("zone", "engine"), ("class", "Recommended")))
                .StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var found = Inspection("N0BRM").Discrepancies.Where(found => found.What == "Cowl latch bent").ShouldHaveSingleItem();
        var thumb = await visitor.GetAsync($"/photos/{found.Photos.ShouldHaveSingleItem().Sha256}/thumb");
        thumb.Content.Headers.ContentType!.MediaType.ShouldBe("image/jpeg");
    }

    [Theory]
    [InlineData("", "words.jpg", "is not a JPEG, PNG or WebP picture")]
    [InlineData("Bent bracket", "words.jpg", "is not a JPEG, PNG or WebP picture")]
    public async Task A_discrepancy_that_can_not_be_kept_says_why_and_loses_no_words(string what, string file, string says)
    {
        var before = Inspection("N0BRM").Discrepancies.Count;
        var answer = await (await server.EnterAsync("ines"))
            .SendAsync($"{server.Walk("N0BRM")}/find", [(file, "just words"u8.ToArray())],
            ("post", $"{Guid.NewGuid()}"), ("what", what), ("zone", "engine"), ("class", "Watch"), ("where", "left side"));
        var page = await Visitor.ParseAsync(answer);
        page.QuerySelector("#find-problems")!.TextContent.ShouldContain(says);
        page.QuerySelector("textarea[name=what]")!.TextContent.ShouldBe(what);
        page.QuerySelector("input[name=where]")!.GetAttribute("value").ShouldBe("left side");
        Inspection("N0BRM").Discrepancies.Count.ShouldBe(before);
    }

    [Fact]
    public async Task A_mechanic_can_not_sign_an_annual_and_is_told_what_it_takes()
    {
        var answer = await (await server.EnterAsync("ines"))
            .PostAsync($"{server.Walk("N04QF")}/close", ("post", $"{Guid.NewGuid()}"), ("password", Demo.DemoShop.Password));
        (await answer.Content.ReadAsStringAsync()).ShouldContain("takes a certificate as mechanic with inspection authorization");
        Inspection("N04QF").InWork.ShouldBeTrue();
    }

    [Fact]
    public async Task An_inspector_can_not_sign_with_open_tasks()
    {
        var answer = await (await server.EnterAsync("orla"))
            .PostAsync($"{server.Walk("N04QF")}/close", ("post", $"{Guid.NewGuid()}"), ("password", Demo.DemoShop.Password));
        (await answer.Content.ReadAsStringAsync()).ShouldContain("still things to do");
        Inspection("N04QF").InWork.ShouldBeTrue();
    }

    [Fact]
    public async Task The_hundred_hour_is_finished_and_signed_as_airworthy_with_the_password_again()
    {
        var visitor = await server.EnterAsync("wim");
        var walk = server.Walk("N0LTS");
        foreach (var task in Inspection("N0LTS").Tasks.Where(task => task.Verdict == TaskVerdict.NotYet))
            await visitor.PostAsync($"{walk}/airframe/{task.ZoneKey}?handler=Verdict", ("post", $"{Guid.NewGuid()}"),
                ("task", $"{task.Id}"), ("seen", $"{task.Changes}"), ("verdict", "Good"));

        // A light-sport goes by its maker's procedures: without their title and revision there is nothing to sign.
        (await (await visitor.PostAsync($"{walk}/close", ("post", $"{Guid.NewGuid()}"),
            ("password", Demo.DemoShop.Password))).Content.ReadAsStringAsync()).ShouldContain("manufacturer&#x27;s inspection procedures");
        (await visitor.PostAsync($"{walk}/close?handler=Checklist", ("post", $"{Guid.NewGuid()}"), ("title", "Mote inspection checklist"),
            ("revision", "rev. 6"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);

        var wrong = await visitor.PostAsync($"{walk}/close", ("post", $"{Guid.NewGuid()}"),
            ("password", "not-my-password"));
        (await wrong.Content.ReadAsStringAsync()).ShouldContain("Nothing was signed");
        Inspection("N0LTS").InWork.ShouldBeTrue();

        var post = Guid.NewGuid();
        var other = await visitor.PostAsync($"{walk}/close", ("read", "other entries"), ("post", $"{Guid.NewGuid()}"),
            ("password", Demo.DemoShop.Password));
        (await other.Content.ReadAsStringAsync()).ShouldContain("the entries read otherwise now");
        var read = await visitor.ReadEntriesAsync(walk);
        (await visitor.PostAsync($"{walk}/close", ("read", read), ("post", $"{post}"),
            ("password", Demo.DemoShop.Password))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        await visitor.PostAsync($"{walk}/close", ("read", read), ("post", $"{post}"), ("password", Demo.DemoShop.Password));
        Inspection("N0LTS").State.ShouldBe(InspectionState.SignedAirworthy);
        var entries = (await visitor.ReadAsync($"{walk}/records")).QuerySelectorAll(".entry");
        entries.Length.ShouldBe(3, "airframe, engine, propeller, once each");
        entries[0].TextContent.ShouldContain(
            "a 100-hour inspection by the manufacturer's inspection procedures, Mote inspection checklist, rev. 6, and was found to be in "
            + "a condition for safe operation");
        entries[0].TextContent.ShouldContain("QF 52240");
        entries[0].TextContent.ShouldContain("inspection procedures: Mote inspection checklist, rev. 6");
        entries[1].TextContent.ShouldContain("Not part of this inspection: engine run, drop, left ignition alone. No magnetos");

        var late = await visitor.PostAsync($"{walk}/find", ("post", $"{Guid.NewGuid()}"), ("what", "late"), ("zone", "gear"),
            ("class", "Watch"));
        (await late.Content.ReadAsStringAsync()).ShouldContain("This inspection is signed");
    }

    [Fact]
    public async Task An_aircraft_gets_its_file_is_taken_in_and_its_walk_begins()
    {
        var visitor = await server.EnterAsync("ines");
        (string, string)[] plate = [("Form.Registration", "N0NEW"), ("Form.Serial", "NW-1"), ("Form.Type", "Sallow Wren"),
            ("Form.Category", "Standard"), ("Form.Wing", "High"), ("Form.Gear", "TailWheel"),
            ("Form.Seats", "2"), ("Form.Layout", "flat-six"), ("Form.Engines", "2"), ("Form.School", "QuarterDrop"),
            ("Form.Top", "Magneto"), ("Form.Bottom", "HighEnergy"), ("Form.EngineSerial", "E9"), ("Form.PropellerSerial", "P9"),
            ("Form.RightPropellerSerial", "P10"), ("Form.TimeBasis", "Tach"), ("Form.Shown", "2210,4"), ("Form.Starters", "annual"),
            ("Form.Starters", "magneto")];
        var poor = await Visitor.ParseAsync(await visitor.PostAsync("/aircraft/new", plate));
        poor.QuerySelectorAll(".field-problem").ShouldHaveSingleItem().TextContent.ShouldContain("right engine's serial");
        poor.QuerySelector("input[name='Form.Registration']")!.GetAttribute("value").ShouldBe("N0NEW", "what was typed stays");

        var asked = await Visitor.ParseAsync(await visitor.PostAsync("/aircraft/new", [.. plate, ("Form.RightEngineSerial", "E10")]));
        asked.QuerySelector(".field-problem")!.TextContent.ShouldContain("“Sallow Wren” is on no type list");
        var made = await visitor.PostAsync("/aircraft/new",
            [.. plate, ("Form.RightEngineSerial", "E10"), ("Form.TypeMeans", "own"), ("Form.TypeMaker", "Sallow")]);
        made.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var file = await visitor.ReadAsync(made.Headers.Location!.OriginalString);
        file.QuerySelectorAll("a.due-row").Length.ShouldBe(3, "the annual, and a magneto on each engine");
        file.QuerySelectorAll("a.due-row")
            .ShouldAllBe(row => row.TextContent.Contains("can’t tell yet"), "nothing is fine without its history");
        (await Visitor.ParseAsync(
            await visitor.PostAsync("/aircraft/new",
                [.. plate, ("Form.RightEngineSerial", "E10")]))).Body!.TextContent.ShouldContain("has a file here already");

        var id = made.Headers.Location.OriginalString["/aircraft/".Length..];
        (string, string)[] form = [("Form.Post", $"{Guid.NewGuid()}"), ("Form.Aircraft", id), ("Form.Kind", "Annual"),
            ("Form.Worksheets", "app-d"), ("Form.Worksheets", "twin"), ("Form.WorkOrder", "26-900"),
            ("Form.Squawks", "Door rattles\nSmells of fuel")];
        (await Visitor.ParseAsync(await visitor.PostAsync("/take-in", [.. form, ("Form.Hours", "abc")])))
            .QuerySelector(".field-problem")!.TextContent.ShouldContain("the hours the meter shows");
        (await Visitor.ParseAsync(await visitor.PostAsync("/take-in", [.. form, ("Form.Hours", "2209")]))).Body!.TextContent.ShouldContain(
            "runs backwards");
        (await Visitor.ParseAsync(
            await visitor.PostAsync("/take-in",
                [("Form.Kind", "Condition"), .. form, ("Form.Hours", "2211")]))).Body!.TextContent.ShouldContain("nobody signs");
        (await visitor.PostAsync("/take-in", [.. form, ("Form.Hours", "2211.0")])).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var inspection = Inspection("N0NEW");
        inspection.TimeInService.Value.ShouldBe(2211m);
        inspection.Squawks.Select(squawk => squawk.Words).ShouldBe(["Door rattles", "Smells of fuel"]);
        inspection.Tasks.ShouldContain(task => task.Key == "gear-tailwheel");
        inspection.Tasks.ShouldNotContain(task => task.Key == "gear-nose");
        inspection.Walk.Where(task => task.Key == "engine-compression").Select(task => task.ZoneKey)
            .ShouldBe(["engine-left", "engine-right"], "once for each engine");
        inspection.Worksheets.Select(sheet => sheet.Key).ShouldBe(["app-d", "twin"]);
        (await Visitor.ParseAsync(
            await visitor.PostAsync("/take-in",
                [("Form.Post", $"{Guid.NewGuid()}"), ("Form.WorkOrder", "26-901"), .. form,
                    ("Form.Hours", "2211.0")]))).Body!.TextContent.ShouldContain("still in work");
    }

    [Theory]
    [InlineData("/walk/00000000-0000-0000-0000-000000000000/close")]
    [InlineData("WALK/airframe/nowhere")]
    [InlineData("WALK/fix-list/999")]
    [InlineData("WALK/compressions/00000000-0000-0000-0000-000000000000")]
    [InlineData("/shelf?handler=File&folder=../keys&key=x")]
    public async Task What_is_not_there_is_not_found(string path) =>
        (await (await server.EnterAsync("ines"))
            .GetAsync(path.Replace("WALK", server.Walk("N04QF")))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
}
