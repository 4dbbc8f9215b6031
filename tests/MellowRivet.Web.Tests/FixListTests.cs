using System.Net;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Worksheets;
using MellowRivet.Web.Drawings;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Tests;

/// <summary>
/// What happens to a discrepancy after it was found, and to the limits that readings are judged by. On the amateur-built's walk.
/// </summary>
public class FixListTests(DemoServer server) : IClassFixture<DemoServer>
{
    private string Walk => server.Walk("N0BRM");

    private Inspection Inspection
    {
        get
        {
            var id = Guid.Parse(Walk["/walk/".Length..]);
            return server.With(db => db.Inspections.AsNoTracking().Include(row => row.Tasks).Include(row => row.Discrepancies)
                .Single(row => row.Id == id));
        }
    }

    private async Task<Discrepancy> FoundAsync(string what, string @class)
    {
        await (await server.EnterAsync("tamsin"))
            .PostAsync($"{Walk}/find", ("post", $"{Guid.NewGuid()}"), ("what", what), ("zone", "gear"), ("class", @class),
                ("why", "for the test"));
        return Inspection.Discrepancies.Single(found => found.What == what);
    }

    [Fact]
    public async Task What_was_done_needs_words_and_closes_the_item()
    {
        var ines = await server.EnterAsync("ines");
        var found = await FoundAsync("Wheel pant screw lost", "Recommended");
        var path = $"{Walk}/fix-list/{found.Number}?handler=Correct";
        (await Visitor.ParseAsync(await ines.PostAsync(path, ("post", $"{Guid.NewGuid()}"), ("action", "  "), ("kind", "Adjusted"))))
            .QuerySelector(".field-problem")!.TextContent.ShouldContain("Say what was done");
        (await Visitor.ParseAsync(
            await ines.PostAsync(path, ("post", $"{Guid.NewGuid()}"), ("action", new string('x', 2001)), ("kind", "Adjusted"))))
                .QuerySelector("textarea[name=action]")!
            .TextContent.Length.ShouldBe(2001, "what was typed stays");

        (await ines.PostAsync(path, ("post", $"{Guid.NewGuid()}"), ("action", "Screw fitted, manual 32-40"),
            ("kind", "Replaced"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Inspection.Discrepancies.Single(row => row.Id == found.Id).IsOpen.ShouldBeFalse();
        (await ines.ReadAsync($"{Walk}/fix-list/{found.Number}"))
            .QuerySelector(".judged-good")!.TextContent.ShouldContain("Screw fitted, manual 32-40");
        (await ines.ReadAsync($"{Walk}/fix-list/{found.Number}")).QuerySelectorAll("form.correction").ShouldBeEmpty();
    }

    [Fact]
    public async Task A_class_set_on_an_old_page_overwrites_nobody()
    {
        var found = await FoundAsync("Tail spring leaf rusty", "Watch");
        var path = $"{Walk}/fix-list/{found.Number}?handler=Classify";
        (string, string)[] Form(string version, string @class) =>
            [("post", $"{Guid.NewGuid()}"), ("seen", version), ("class", @class), ("grounded", "true"), ("why", "for the test")];
        await (await server.EnterAsync("ines")).PostAsync(path, Form("0", "Airworthiness"));
        var late = await Visitor.ParseAsync(await (await server.EnterAsync("wim")).PostAsync(path, Form("0", "Recommended")));
        late.QuerySelector(".classify .field-problem")!.TextContent.ShouldContain("it is now airworthiness");
        var kept = Inspection.Discrepancies.Single(row => row.Id == found.Id);
        (kept.Class, kept.Grounded).ShouldBe((DiscrepancyClass.Airworthiness, true));
        (await (await server.EnterAsync("ines")).ReadAsync("/")).QuerySelector(".what-now")!.TextContent.ShouldContain("N0BRM is grounded");
        await (await server.EnterAsync("ines")).PostAsync(path, Form("1", "KnownMark"));
        Inspection.Discrepancies.Single(row => row.Id == found.Id).Grounded.ShouldBeFalse("only an airworthiness item grounds");
    }

    [Fact]
    public async Task Words_set_on_an_old_page_wait_until_the_others_were_seen_and_are_then_taken()
    {
        var found = await FoundAsync("Tail wheel fork scratched", "Watch");
        var path = $"{Walk}/fix-list/{found.Number}?handler=Describe";
        (string, string)[] Form(string? seen, string what) =>
            [("post", $"{Guid.NewGuid()}"), ("seen", seen ?? ""), ("what", what), ("zone", found.ZoneKey), ("how", $"{found.How}")];
        var ines = await server.EnterAsync("ines");
        await ines.PostAsync(path, Form($"{found.Changes}", "Fork scratched, 2 mm deep"));
        var wim = await server.EnterAsync("wim");
        var late = await Visitor.ParseAsync(await wim.PostAsync(path, Form($"{found.Changes}", "Fork scratched, 1 mm deep")));
        late.QuerySelector("[name=what]")!.TextContent.ShouldBe("Fork scratched, 1 mm deep", "what was typed stays");
        late.QuerySelector("h1")!.TextContent.ShouldContain("2 mm deep", Case.Sensitive, "what the other wrote is shown");
        var seen = late.QuerySelector("[name=what]")!.Closest("form")!.QuerySelector("[name=seen]")!.GetAttribute("value");
        (await wim.PostAsync(path, Form(seen, "Fork scratched, 1 mm deep"))).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        Inspection.Discrepancies.Single(row => row.Id == found.Id).What.ShouldBe("Fork scratched, 1 mm deep");
    }

    [Fact]
    public async Task Too_many_and_too_large_pictures_are_refused_and_nothing_is_half_saved()
    {
        var before = Inspection.Discrepancies.Count;
        var tamsin = await server.EnterAsync("tamsin");
        (string, string)[] form = [("post", $"{Guid.NewGuid()}"), ("what", "Too much of it"), ("zone", "gear"), ("class", "Watch")];
        var large = await tamsin.SendAsync($"{Walk}/find", [("huge.jpg", new byte[60 * 1024 * 1024])], form);
        (await large.Content.ReadAsStringAsync()).ShouldContain("larger than 25 MB");
        var many = await tamsin.SendAsync($"{Walk}/find", [.. Enumerable.Range(0, 13).Select(i => ($"{i}.jpg", new byte[] { 1 }))], form);
        (await many.Content.ReadAsStringAsync()).ShouldContain("12 at a time is the most");
        Inspection.Discrepancies.Count.ShouldBe(before);
    }

    [Theory]
    [InlineData("", "", "manual 5", "At least one limit")]
    [InlineData("abc", "", "manual 5", "At least one limit")]
    [InlineData("5", "4", "manual 5", "above the upper")]
    [InlineData("4", "5", " ", "reference")]
    public async Task A_manual_limit_that_makes_no_sense_is_refused_beside_its_fields(string low, string high, string reference,
        string says)
    {
        var task = Inspection.Tasks.Single(task => task.Key == "gear-tyres");
        var page = await Visitor.ParseAsync(await (await server.EnterAsync("ines")).PostAsync($"{Walk}/airframe/gear?handler=Limit",
            ("post", $"{Guid.NewGuid()}"), ("task", $"{task.Id}"), ("low", low), ("high", high), ("reference", reference)));
        page.QuerySelector(".limit .field-problem")!.TextContent.ShouldContain(says);
        (page.QuerySelector("input[name=low]")!.GetAttribute("value") ?? "").ShouldBe(low);
    }

    [Fact]
    public async Task A_manual_limit_on_file_judges_from_then_on()
    {
        var ines = await server.EnterAsync("ines");
        var task = Inspection.Tasks.Single(task => task.Key == "prop-track");
        var judge = $"{Walk}/engine/propeller?handler=Judge&task={task.Id}&value=0.05&unit=in";
        (await ines.ReadAsync(judge)).Body!.TextContent.ShouldContain("common practice");
        await ines.PostAsync($"{Walk}/engine/propeller?handler=Limit", ("post", $"{Guid.NewGuid()}"), ("task", $"{task.Id}"),
            ("high", "0.04"), ("reference", "own build notes, p. 12"));
        var judged = (await ines.ReadAsync(judge)).Body!.TextContent;
        judged.ShouldContain("0.01 in over");
        judged.ShouldContain("your manual: own build notes, p. 12");
    }

    [Fact]
    public async Task An_engines_own_floor_needs_its_reference()
    {
        var ines = await server.EnterAsync("ines");
        var path = $"{Walk}/compressions?handler=JudgedBy";
        var page = await Visitor.ParseAsync(
            await ines.PostAsync(path, ("post", $"{Guid.NewGuid()}"), ("school", "SixtyOfEighty"), ("floor", "64"), ("reference", "")));
        page.QuerySelector(".limit .field-problem")!.TextContent.ShouldContain("needs its reference");
        page.QuerySelector("input[name=floor]")!.GetAttribute("value").ShouldBe("64");
        await ines.PostAsync(path, ("post", $"{Guid.NewGuid()}"), ("school", "SixtyOfEighty"), ("floor", "64"),
            ("reference", "TF4 manual, p. 9"));
        (await ines.ReadAsync($"{Walk}/compressions")).Body!.TextContent.ShouldContain("your manual: TF4 manual, p. 9");
        await ines.PostAsync(path, ("post", $"{Guid.NewGuid()}"), ("school", "QuarterDrop"), ("floor", ""),
            ("reference", "TF4 manual, p. 9"));
        (await ines.ReadAsync($"{Walk}/compressions")).QuerySelector(".limit-name")!.TextContent.ShouldContain("60/80");
    }

    [Fact]
    public async Task A_person_added_by_the_shop_admin_can_enter_and_a_taken_name_is_refused()
    {
        var orla = await server.EnterAsync("orla");
        (string, string)[] form = [("Form.Name", "Jorun Vale"), ("Form.Initials", "jv"), ("Form.SignInName", "jorun"),
            ("Form.Password", "otters mend clocks"), ("Form.Roles", "Assistant")];
        (await orla.PostAsync("/people", form)).StatusCode.ShouldBe(HttpStatusCode.Redirect);
        (await (await server.EnterAsync("jorun")).ReadAsync("/")).Body!.TextContent.ShouldContain("N04QF");
        form[1] = ("Form.Initials", "jw");
        var twice = await Visitor.ParseAsync(await orla.PostAsync("/people", form));
        twice.QuerySelector(".field-problem")!.TextContent.ShouldContain("already taken");
        server.With(db => db.People.Count(person => person.Name == "Jorun Vale")).ShouldBe(1);
    }

    [Fact]
    public async Task The_shelf_hands_out_its_files_as_they_lie_there()
    {
        var answer = await (await server.EnterAsync("piet")).GetAsync("/shelf?handler=File&folder=rule-packs&key=us");
        (await answer.Content.ReadAsStringAsync())
            .ShouldBe(await File.ReadAllTextAsync(Path.Combine(server.Data.Shelf, "rule-packs", "us.json")));
    }
}

public class SeamTests
{
    private readonly Aircraft aircraft = new(Guid.NewGuid(), "N0TST", "Test", "T-1", Category.Standard,
        new(Wing.High, Gear.NoseWheel, 1, 2));
    private readonly Inspection inspection;

    public SeamTests() => inspection = new(Guid.NewGuid(), aircraft, InspectionKind.Annual, "26-1",
        [Worksheet.Parse("""
            { "key": "s", "title": "s", "version": 1, "basis": "s", "zones": [ { "key": "gear", "title": "Gear", "station": "airframe",
            "book": "airframe", "tasks": [
              { "key": "a", "text": "A", "reference": "r" }, { "key": "b", "text": "B", "reference": "r" } ] } ] }
            """)], new DateOnly(2026, 11, 23));

    private Discrepancy Find(DiscrepancyClass @class, bool grounded = false) =>
        inspection.Find(Guid.NewGuid(), "found", "gear", "", @class, grounded, null, Guid.NewGuid(), DemoServer.Now);

    private State Worst => Seam.Of(Station.Airframe, inspection, false).Single().State;

    [Fact]
    public void A_group_shows_its_worst_state()
    {
        Worst.ShouldBe(State.NotYet);
        inspection.Tasks[0].Set(TaskVerdict.Good, null, null, Guid.NewGuid(), DemoServer.Now);
        Worst.ShouldBe(State.NotYet, "one task is still open");
        var watch = Find(DiscrepancyClass.Watch);
        Worst.ShouldBe(State.Watch);
        Find(DiscrepancyClass.Airworthiness, grounded: true);
        Worst.ShouldBe(State.Grounded);
        States.Of(watch).ShouldBe(State.Watch);
        watch.Correct(new("done"), new(new(), 0), Guid.NewGuid(), DemoServer.Now);
        States.Of(watch).ShouldBe(State.Good);
    }

    [Fact]
    public void A_long_fix_list_is_grouped_by_zone_so_that_its_tab_stays_one_row()
    {
        for (var i = 0; i < Seam.Most; i++)
            Find(DiscrepancyClass.Recommended);
        Seam.Of(Station.FixList, inspection, false).Count.ShouldBe(Seam.Most);
        Find(DiscrepancyClass.Airworthiness);
        Seam.Of(Station.FixList, inspection, false).ShouldHaveSingleItem()
            .ShouldBe(new(State.Airworthiness, $"Gear: {Seam.Most + 1} open", $"/walk/{inspection.Id}/fix-list#zone-gear"));
    }

    [Theory]
    [InlineData(Wing.Low, Gear.TailWheel, 1)]
    [InlineData(Wing.High, Gear.NoseWheel, 1)]
    [InlineData(Wing.Low, Gear.NoseWheel, 2)]
    public void Every_drawn_zone_is_a_zone_of_the_shipped_worksheet(Wing wing, Gear gear, int engines)
    {
        var shipped = Worksheet.Parse(File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "shelf", "worksheets", "app-d.json"))).Zones
            .SelectMany(zone => engines > 1 && zone.PerEngine ? new[] { $"{zone.Key}-left", $"{zone.Key}-right" } : [zone.Key]).ToHashSet();
        AircraftDrawing.Zones(new(wing, gear, engines, 4)).ShouldAllBe(shape => shipped.Contains(shape.ZoneKey));
    }

    [Fact]
    public void A_small_plot_keeps_readings_and_limits_inside_its_frame()
    {
        var band = new ToleranceBand(Unit.Inch, 0.1, null, new(Core.Judgements.Standing.Practice, "test"));
        foreach (var series in new[] { new[] { (1000.0, 0.3), (1300, 0.24) }, [(1000, 0.05), (1000, 0.4), (5000, 0.1)],
            [(0, 0.0), (0, 0.0)] })
        {
            var plot = new ReadingPlot([.. series.Select(point => new Core.Trends.TrendPoint(point.Item1, point.Item2))], band);
            plot.Points.ShouldAllBe(point => point.X >= ReadingPlot.Left && point.X <= ReadingPlot.Width - ReadingPlot.Right
                && point.Y >= ReadingPlot.Top - 0.01 && point.Y <= ReadingPlot.Height - ReadingPlot.Bottom + 0.01);
            plot.Limits.ShouldHaveSingleItem().At.ShouldBeInRange(ReadingPlot.Top, ReadingPlot.Height - ReadingPlot.Bottom);
            plot.ValueTicks.Count.ShouldBeInRange(1, 8);
        }
    }

    [Fact]
    public void The_station_of_looks_shows_each_zone_the_tags_and_the_tools()
    {
        Seam.Of(Station.LookAndOpen, inspection, false).Select(rivet => rivet.State).ShouldBe([State.NotYet, State.Good, State.Good]);
        inspection.Open("gear", TagKind.Panel, "Cover", "", Guid.NewGuid(), DemoServer.Now);
        foreach (var look in Enum.GetValues<LookStep>())
            inspection.Looked("gear", look, Guid.NewGuid(), DemoServer.Now).ShouldBeNull();
        var seam = Seam.Of(Station.LookAndOpen, inspection, false);
        seam.Select(rivet => rivet.State).ShouldBe([State.Good, State.NotYet, State.Good]);
        seam[1].Title.ShouldBe("Panels and parts: 1 still open or off");
    }

    [Fact]
    public void A_plot_keeps_every_point_inside_its_frame_and_names_its_limit()
    {
        var engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "", "E") { LayoutKey = EngineLayout.FlatFour.Key };
        engine.JudgeCompressionBy(new(Core.Compression.CompressionSchool.SixtyOfEighty));
        aircraft.InstallEngine(engine, "", default, new Hours(0));
        var cylinder = aircraft.Cylinder(engine, 1)!;
        var readings = new[] { 78, 5, 77, 76, 12, 75 }
            .Select((psi, i) => new Reading(Guid.NewGuid(), aircraft.Id, cylinder.Id, Reading.CompressionKind, "1", psi, Unit.Psi,
            new(true, 80, 14.7), new Hours(100 * i), DemoServer.Now.AddDays(i), Guid.NewGuid()));
        var plot = new TrendPlot(CylinderHistory.Of(aircraft, engine, 1, readings, null), null);
        plot.Points.Count.ShouldBe(6);
        plot.Points.ShouldAllBe(point => point.X >= TrendPlot.Left && point.X <= TrendPlot.Width - TrendPlot.Right && point.Y >= 0
            && point.Y <= TrendPlot.Height - TrendPlot.Bottom);
        plot.LimitText.ShouldBe("limit 60/80 = 1.06");
        plot.PsiTicks.Zip(plot.PsiTicks.Skip(1)).ShouldAllBe(pair => pair.First.At - pair.Second.At >= 17);
    }
}
