using System.Net;
using System.Text;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>
/// The engine station's pages, on the amateur-built's walk: mixed ignitions, a plug's whole service, a magneto, a filter.
/// </summary>
public class EnginePagesTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N0BRM");

    private string Sheet(SheetKind kind, ComponentKind carrier) => server.With(db =>
        $"{Walk}/engine-sheet/{kind.ToString().ToLowerInvariant()}/"
        + $"{db.Aircraft.AsNoTracking().WithParts().Single(row => row.Registration == "N0BRM").Fitted(carrier).First().ComponentId}");

    private static (string, string)[] Step(string hole, string step, string value, params (string, string)[] more) =>
        [("post", $"{Guid.NewGuid()}"), ("reading", $"{Guid.NewGuid()}"), ("hole", hole), ("step", step), ("value", value), .. more];

    [Fact]
    public async Task A_plug_goes_through_its_sequence_and_an_expired_wrench_does_not_torque_it()
    {
        var piet = await server.EnterAsync("piet");
        var (good, expired) = server.With(
            db => (db.Tools.First(tool => tool.Number == "T-09").Id, db.Tools.First(tool => tool.Number == "T-07").Id));
        foreach (var (step, value) in new[]
            { ("Look", "OilWet"), ("Ohms", "1800"), ("Clean", "done"), ("GapFound", "0,019"), ("GapSet", "0.0165"),
                ("PressureTest", "pass"), ("Gasket", "New") })
            (await piet.PostAsync($"{Walk}/plugs?handler=Step", Step("3B", step, value))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await Visitor.ParseAsync(
            await piet.PostAsync($"{Walk}/plugs?handler=Step", Step("3B", "Torque", "420", ("wrench", $"{expired}")))))
            .QuerySelector("#said-Torque")!.TextContent.ShouldContain("calibration");
        (await piet.PostAsync($"{Walk}/plugs?handler=Step", Step("3B", "Torque", "420", ("wrench", $"{good}")))).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);
        var page = await piet.ReadAsync($"{Walk}/plugs?hole=3B");
        page.QuerySelector(".tray-place.on")!.TextContent.ShouldContain("done");
        page.QuerySelector("#plug-said")!.TextContent.ShouldContain("whole sequence");
        page.QuerySelector(".row-lock")!.TextContent.ShouldContain("Mixed ignition");
    }

    [Fact]
    public async Task Plugs_of_mixed_ignitions_do_not_change_rows()
    {
        var ines = await server.EnterAsync("ines");
        (await Visitor.ParseAsync(
            await ines.PostAsync($"{Walk}/plugs?handler=Move", ("post", $"{Guid.NewGuid()}"), ("from", "1T"),
                ("to", "2B")))).Body!.TextContent.ShouldContain("Plugs stay in their row");
        (await ines.PostAsync($"{Walk}/plugs?handler=Move", ("post", $"{Guid.NewGuid()}"), ("from", "1T"),
            ("to", "2T"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync($"{Walk}/plugs?hole=2T")).QuerySelector(".tray-place.on .came")!.TextContent.ShouldContain("from 1T");
        (await ines.PostAsync($"{Walk}/plugs?handler=Rotate", ("post", $"{Guid.NewGuid()}"), ("pattern", "SwapPairs"))).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);
        (await Visitor.ParseAsync(
            await ines.PostAsync($"{Walk}/plugs?handler=Fit", ("post", $"{Guid.NewGuid()}"), ("hole", "4T"), ("number", "901"),
                ("suits", "Magneto")))).Body!.TextContent.ShouldContain("isn't made for it");
        (await ines.PostAsync($"{Walk}/plugs?handler=Dropped", ("post", $"{Guid.NewGuid()}"), ("hole", "4T"))).StatusCode.ShouldBe(
            HttpStatusCode.Redirect);
        (await ines.PostAsync($"{Walk}/plugs?handler=Fit", ("post", $"{Guid.NewGuid()}"), ("hole", "4T"), ("number", "902"),
            ("suits", "HighEnergy"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var page = await ines.ReadAsync($"{Walk}/plug-labels");
        page.QuerySelectorAll(".plug-label").Length.ShouldBe(9, "eight places and the placard");
        page.Body!.TextContent.ShouldContain("Plug 902");
    }

    [Fact]
    public async Task A_value_is_judged_as_it_is_sent_and_what_was_typed_stays()
    {
        var wim = await server.EnterAsync("wim");
        var magneto = Sheet(SheetKind.Magneto, ComponentKind.Magneto);
        (string, string)[] Value(string of, string value) =>
            [("post", $"{Guid.NewGuid()}"), ("reading", $"{Guid.NewGuid()}"), ("of", of), ("value", value)];
        (await wim.PostAsync($"{magneto}?handler=Value", Value("magneto-e-gap", "14.1"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await wim.ReadAsync(magneto)).QuerySelector("#said-magneto-e-gap-")!.TextContent.ShouldContain("6–14°");
        var refused = await Visitor.ParseAsync(await wim.PostAsync($"{magneto}?handler=Value", Value("magneto-retard", "thirty")));
        refused.QuerySelector("#said-magneto-retard-")!.TextContent.ShouldContain("no number");
        ((AngleSharp.Html.Dom.IHtmlInputElement)refused.QuerySelector("#value-magneto-retard-")!).Value.ShouldBe("thirty");
        (await Visitor.ParseAsync(
            await wim.PostAsync($"{magneto}?handler=Benched", ("post", $"{Guid.NewGuid()}"),
                ("done", "true")))).Body!.TextContent.ShouldContain("still open");
    }

    [Fact]
    public async Task A_look_takes_words_a_picture_and_a_sound()
    {
        var ines = await server.EnterAsync("ines");
        var exhaust = Sheet(SheetKind.Exhaust, ComponentKind.Engine);
        (await Visitor.ParseAsync(
            await ines.PostAsync($"{exhaust}?handler=Look", ("post", $"{Guid.NewGuid()}"), ("key", "can"), ("state", "Found"))))
                .QuerySelector("#look-can .field-problem")!.TextContent.ShouldContain("Say what you found");
        (await ines.SendAsync($"{exhaust}?handler=Look", "sound", [("tap.wav", [.. "RIFF"u8, 0, 0, 0, 0, .. "WAVEfmt "u8])],
            ("post", $"{Guid.NewGuid()}"), ("key", "can"), ("state", "Found"),
            ("words", "Dull at the rear"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var can = (await ines.ReadAsync(exhaust)).QuerySelector("#look-can")!;
        can.QuerySelector("audio").ShouldNotBeNull();
        can.QuerySelector(".to-list a")!.GetAttribute("href")!.ShouldEndWith("/Exhaust/can");
        (await Visitor.ParseAsync(
            await ines.SendAsync($"{exhaust}?handler=Look", "photo", [("x.jpg", Encoding.UTF8.GetBytes("no picture"))],
                ("post", $"{Guid.NewGuid()}"), ("key", "slip-joint"), ("state", "Good"))))
                    .QuerySelector("#look-slip-joint .field-problem")!.TextContent.ShouldContain("is not a JPEG");
    }

    [Fact]
    public async Task A_filter_is_judged_beside_last_time_and_a_laboratorys_table_comes_in_once()
    {
        var ines = await server.EnterAsync("ines");
        var oil = Sheet(SheetKind.Oil, ComponentKind.Engine);
        (await ines.PostAsync($"{oil}?handler=Cut", ("post", $"{Guid.NewGuid()}"), ("place", "Filter"), ("metal", "Ferrous"),
            ("amount", "Flakes"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync(oil)).QuerySelector(".cut-said")!.TextContent.ShouldContain("Don't fly it");
        var table = Encoding.UTF8.GetBytes("date;hours;oil hours;Fe;Cu\n2024-05-02;420,0;25;20;4\n2025-01-10;470,0;25;22;4\n");
        for (var time = 0; time < 2; time++)
            (await ines.SendAsync($"{oil}?handler=Lab", "file", [("lab.csv", table)], ("post", $"{Guid.NewGuid()}"))).StatusCode.ShouldBe(
                HttpStatusCode.Redirect);
        server.With(db => db.Readings.AsNoTracking().Where(reading => reading.Kind == "oil-iron").AsEnumerable()
            .Count(reading => oil.EndsWith(reading.ComponentId.ToString()!, StringComparison.Ordinal))).ShouldBe(2);
        (await Visitor.ParseAsync(
            await ines.SendAsync($"{oil}?handler=Lab", "file",
                [("lab.csv", Encoding.UTF8.GetBytes("date,hours,iron\n2026-01-01,99999,20\n"))],
                ("post", $"{Guid.NewGuid()}")))).Body!.TextContent.ShouldContain("still to come");
    }

    // 43.15(c)(2), from memory: what the engine run has to have is flagged while it is missing.
    [Fact]
    public async Task What_the_run_lacks_is_flagged()
    {
        var ines = await server.EnterAsync("ines");
        var run = Sheet(SheetKind.Run, ComponentKind.Engine);
        (await ines.ReadAsync(run)).QuerySelector("#sheet-aside")!.TextContent.ShouldContain("Missing:");
        foreach (var (of, value) in new[] { ("mag-drop-left", "90"), ("mag-drop-right", "145") })
            (await ines.PostAsync($"{run}?handler=Value", ("post", $"{Guid.NewGuid()}"), ("reading", $"{Guid.NewGuid()}"), ("of", of),
                ("position", "before"), ("value", value))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await ines.ReadAsync(run)).QuerySelector("#sheet-aside")!.TextContent.ShouldContain("more than 50 rpm apart");
    }

    private string EngineOf(string registration) =>
        server.With(
            db => $"{db.Aircraft.AsNoTracking().WithParts().Single(row => row.Registration == registration).Engines.First().ComponentId}");

    // Both shapes of the logs that ship with the product: taken in with the columns as they were guessed.
    [Theory]
    [InlineData("engine-log-four.csv", 1, "2, ")]
    [InlineData("engine-log-six.csv", 2, "4, ")]
    public async Task A_log_is_taken_in_drawn_and_passed_on_to_the_run_sheet(string sample, int flights, string hottest)
    {
        var wim = await server.EnterAsync("wim");
        var looked = await wim.PostAsync($"{Walk}/engine-logs?handler=Upload", ("sample", sample));
        looked.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var form = (await wim.ReadAsync(looked.Headers.Location!.OriginalString)).QuerySelector("form[action$='handler=Take']")!;
        var fields = form.QuerySelectorAll("input").OfType<AngleSharp.Html.Dom.IHtmlInputElement>()
            .Where(input => input.Type == "hidden" || input.IsChecked).Where(input => input.Name != "__RequestVerificationToken")
            .Select(input => (input.Name!, input.Value))
            .Concat(form.QuerySelectorAll("select").OfType<AngleSharp.Html.Dom.IHtmlSelectElement>()
                .Select(select => ("holds", select.Value ?? ""))).ToArray();
        var taken = await wim.PostAsync($"{Walk}/engine-logs?handler=Take", fields);
        taken.StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var page = await wim.ReadAsync(taken.Headers.Location!.OriginalString);
        page.QuerySelectorAll(".flight").Length.ShouldBeGreaterThan(4);
        page.QuerySelectorAll(".patterns a").Length.ShouldBe(flights > 1 ? flights : 0);
        page.QuerySelector(".facts dd")!.TextContent.ShouldStartWith(hottest);
        var log = page.QuerySelector("input[name=log]")!.GetAttribute("value")!;
        (await wim.PostAsync($"{Walk}/engine-logs?handler=Fill", ("post", $"{Guid.NewGuid()}"), ("log", log), ("flight", "1"),
            ("when", "after"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await wim.ReadAsync(Sheet(SheetKind.Run, ComponentKind.Engine)))
            .QuerySelector("#value-static-rpm-after")!.GetAttribute("value")!.ShouldStartWith("2");
    }

    [Fact]
    public async Task A_file_that_is_no_log_and_columns_that_are_none_are_refused_with_words()
    {
        var wim = await server.EnterAsync("wim");
        (await Visitor.ParseAsync(
            await wim.SendAsync($"{Walk}/engine-logs?handler=Upload", "file",
                [("x.csv", Encoding.UTF8.GetBytes("1,2,3\n4,5,6\n"))]))).Body!.TextContent.ShouldContain("titles");
        var looked = await wim.PostAsync($"{Walk}/engine-logs?handler=Upload", ("sample", "engine-log-four.csv"));
        var sha = looked.Headers.Location!.OriginalString.Split("file=")[1].Split('&')[0];
        (await Visitor.ParseAsync(
            await wim.PostAsync($"{Walk}/engine-logs?handler=Take", ("post", $"{Guid.NewGuid()}"), ("file", sha),
                ("holds", "Rpm")))).Body!.TextContent.ShouldContain("which one column is the time");
        (await Visitor.ParseAsync(
            await wim.PostAsync($"{Walk}/engine-logs?handler=Take", ("post", $"{Guid.NewGuid()}"), ("file", "../../rivet.db"),
                ("holds", "time")))).Body!.TextContent.ShouldContain("here any more");
    }

    [Fact]
    public async Task Pressures_at_altitude_give_two_lines_and_the_gain()
    {
        var ines = await server.EnterAsync("ines");
        foreach (var (when, points) in new[]
            { ("before", "0 66.2\n4000 60.4\n8000 54.1\n10000 50.9"), ("after", "0 67\n4000 63,0\n8000 58.7\n10000 57.1") })
            (await ines.PostAsync($"{Walk}/pressure-altitude", ("post", $"{Guid.NewGuid()}"), ("when", when),
                ("points", points))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        var page = await ines.ReadAsync($"{Walk}/pressure-altitude");
        page.QuerySelectorAll(".altitude .line").Length.ShouldBe(2);
        page.QuerySelector(".torques")!.TextContent.ShouldContain("±");
        var refused = await Visitor.ParseAsync(
            await ines.PostAsync($"{Walk}/pressure-altitude", ("post", $"{Guid.NewGuid()}"), ("when", "after"),
                ("points", "0 67\nhigh low")));
        refused.Body!.TextContent.ShouldContain("such as 6000 54");
        refused.Body.TextContent.ShouldContain("high low", Case.Sensitive, "what was typed stays");
    }

    [Fact]
    public async Task The_case_file_of_the_trainers_weak_cylinder_suspects_its_exhaust_valve_first()
    {
        var page = await (await server.EnterAsync("orla")).ReadAsync($"{server.Walk("N04QF")}/cylinder/{EngineOf("N04QF")}/2");
        page.QuerySelector(".causes h3")!.TextContent.ShouldStartWith("Exhaust valve");
        page.QuerySelector(".causes")!.TextContent.ShouldContain("wet with oil");
        page.QuerySelector(".next-step")!.TextContent.ShouldContain("Borescope");
        (await (await server.EnterAsync("orla"))
            .GetAsync($"{server.Walk("N04QF")}/cylinder/{EngineOf("N04QF")}/9")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Every_series_leaves_as_csv_and_json_and_stands_beside_another_engine()
    {
        var orla = await server.EnterAsync("orla");
        var file = server.FileOf("N04QF");
        var page = await orla.ReadAsync($"{file}/trends");
        page.QuerySelector(".unusual-now")!.TextContent.ShouldContain("Compression, as leak area 2");
        page.QuerySelector(".series-group h2")!.TextContent.ShouldContain("Compression", Case.Sensitive, "what is unusual stands first");
        (await (await orla.GetAsync($"{file}/trends.csv")).Content.ReadAsStringAsync()).ShouldContain("compression,");
        // The links of the page that runs on the aircraft's hours.
        foreach (var link in (await orla.ReadAsync($"{file}/trends?hours=aircraft")).QuerySelectorAll("a[href*='trends.']"))
            (await orla.GetAsync(link.GetAttribute("href")!)).StatusCode.ShouldBe(HttpStatusCode.OK, link.GetAttribute("href"));
        (await orla.GetAsync($"{file}/trends.csv?hours=moon")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var json = System.Text.Json.Nodes.JsonNode.Parse(await (await orla.GetAsync($"{file}/trends.json")).Content.ReadAsStringAsync())!;
        json["series"]!.AsArray()
            .Single(series => series!["kind"]!.ToString() == "compression"
                && series["place"]!.ToString() == "2")!["lastIsUnusual"]!.GetValue<bool>().ShouldBeTrue();
        // The twin's two engines have one layout: each stands beside the other's place on the same axes.
        var twin = await orla.ReadAsync($"{server.FileOf("N0TWQ")}/trends?show=compression");
        twin.QuerySelectorAll("#group-compression .small-plot").Length.ShouldBe(12);
    }

    [Fact]
    public async Task A_case_is_practised_without_keeping_anything()
    {
        var piet = await server.EnterAsync("piet");
        var page = await piet.ReadAsync("/bench/practice/cold-engine?take=compression&cylinder=1&warmth=cold&crank=0");
        page.QuerySelectorAll(".gauge").Length.ShouldBe(2);
        page.QuerySelector(".taken")!.TextContent.ShouldContain("54/80");
        var said = await piet.ReadAsync("/bench/practice/cold-engine?r=c-1-cold-0-still&answer=retest");
        said.QuerySelector("#said")!.TextContent.ShouldContain("So do the rules");
        said.QuerySelector("#said")!.TextContent.ShouldContain("Said too soon");
        (await piet.ReadAsync("/bench/practice/burnt-valve?answer=good"))
            .QuerySelector("#said")!.TextContent.ShouldContain("The rules say otherwise");
        (await piet.ReadAsync("/bench/practice/free?seed=12")).QuerySelectorAll(".instrument").Length.ShouldBe(4);
        (await piet.GetAsync("/bench/practice/nothing")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await piet.GetAsync("/bench/practice?handler=Log&seed=5")).Content.ReadAsStringAsync()).ShouldStartWith("Time,RPM");
    }
}
