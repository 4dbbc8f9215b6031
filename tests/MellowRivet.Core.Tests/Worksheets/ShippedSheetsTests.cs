using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Worksheets;

/// <summary>What holds for the worksheets that ship, in any company and on any build of aircraft.</summary>
public class ShippedSheetsTests
{
    private static readonly DateOnly Today = new(2026, 11, 23);

    private static readonly IReadOnlyList<Worksheet> All =
        [.. Directory.EnumerateFiles(Path.Combine(Fixture.Shelf, "worksheets"), "*.json").Order(StringComparer.Ordinal)
            .Select(file => Worksheet.Parse(File.ReadAllText(file)))];

    private static Aircraft Build(string layout, Configuration build, Category category = Category.Standard)
    {
        var aircraft = new Aircraft(Guid.NewGuid(), "N0TST", "Test", "T-1", category, build);
        foreach (var side in build.Engines > 1 ? new[] { "left", "right" } : [""])
        {
            var engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "", $"E{side}") { LayoutKey = layout };
            engine.JudgeCompressionBy(new(CompressionSchool.QuarterDrop));
            aircraft.InstallEngine(engine, side, default, new Hours(0));
            aircraft.Install(new(Guid.NewGuid(), ComponentKind.Propeller, "", $"P{side}"), side, default, default(Hours));
        }
        aircraft.ReadTime(Today, new Hours(1000));
        return aircraft;
    }

    // A limit that a list repeats from the engine's run is the run's own: whoever changes one is told of the other. A drop of nothing is
    // a magneto that doesn't ground, whichever of them it is typed into.
    [Fact]
    public void A_limit_that_stands_on_a_list_and_in_the_run_is_one()
    {
        var twice = All.SelectMany(sheet => sheet.Tasks).Select(task => task.Measure).OfType<WorksheetMeasure>()
            .Join(RunValues.All, measure => measure.Kind, value => value.Kind, (measure, value) => (measure, value)).ToList();
        twice.Count.ShouldBeGreaterThan(3);
        foreach (var (measure, value) in twice.Where(pair => pair.value.Band.High is not null))
            (measure.Low, measure.High).ShouldBe((value.Band.Low, value.Band.High), measure.Kind);
    }

    public static TheoryData<string, int, bool, bool, Gear> Builds => new()
    {
        { "flat-four", 1, false, false, Gear.NoseWheel },
        { "flat-four-rear", 1, false, true, Gear.TailWheel },
        { "flat-six", 2, true, false, Gear.NoseWheel },
        { "geared-flat-four", 1, false, false, Gear.NoseWheel },
        { "inline-two-stroke", 1, false, true, Gear.TailWheel },
    };

    [Theory]
    [MemberData(nameof(Builds))]
    public void However_many_lists_are_merged_each_task_stands_once_and_every_tie_leads_somewhere(string layout, int engines,
        bool retractable, bool fabric, Gear gear)
    {
        var aircraft = Build(layout, new(Wing.Low, gear, engines, 2, retractable, Fabric: fabric));
        // Every choice of two, three or four of the nine lists.
        foreach (var chosen in Enumerable.Range(1, (1 << All.Count) - 1).Where(bits => int.PopCount(bits) is >= 2 and <= 4))
        {
            var sheets = All.Where((_, index) => (chosen >> index & 1) == 1).ToList();
            var walk = WalkList.Merge(sheets, aircraft, InspectionKind.Annual, [], Today);
            walk.Select(line => line.Order).ShouldBe(Enumerable.Range(0, walk.Count));
            walk.Select(line => (line.Worksheet.Key, line.Zone.Key, line.Task.Key)).Distinct().Count().ShouldBe(walk.Count);
            foreach (var tied in walk.Where(line => line.TiedTo is not null))
            {
                var lead = walk[tied.TiedTo!.Value];
                lead.TiedTo.ShouldBeNull();
                (lead.Zone.Key, lead.ComponentId, lead.Pick.IsDue).ShouldBe((tied.Zone.Key, tied.ComponentId, tied.Pick.IsDue));
                lead.Worksheet.Key.ShouldNotBe(tied.Worksheet.Key);
                WalkList.Answers(lead.Task, tied.Task).ShouldBeTrue();
            }
            // A zone is walked through once: nobody is sent back to it.
            var zones = walk.Select(line => line.Zone.Key).ToList();
            zones.Where((zone, index) => index == 0 || zones[index - 1] != zone).Count().ShouldBe(zones.Distinct().Count());
        }
    }

    [Theory]
    [MemberData(nameof(Builds))]
    public void What_is_offered_for_an_annual_has_an_engine_run_and_every_part_of_the_aircraft(string layout, int engines, bool retractable,
        bool fabric, Gear gear)
    {
        var aircraft = Build(layout, new(Wing.Low, gear, engines, 2, retractable, Fabric: fabric));
        var offered = All.Where(sheet => sheet.IsOfferedFor(aircraft, InspectionKind.Annual)).ToList();
        offered.ShouldContain(sheet => sheet.Key == "app-d");
        offered.Any(sheet => sheet.Key == "retractable").ShouldBe(retractable);
        offered.Any(sheet => sheet.Key == "twin").ShouldBe(engines == 2);
        offered.Any(sheet => sheet.Key == "fabric").ShouldBe(fabric);
        offered.Any(sheet => sheet.Key == "geared-four").ShouldBe(layout == "geared-flat-four");
        offered.Any(sheet => sheet.Key == "two-stroke").ShouldBe(layout == "inline-two-stroke");
        offered.ShouldNotContain(sheet => sheet.Key == "service");
        var inspection = Fixture.Inspect(aircraft, offered);
        inspection.Walk.Select(task => task.ZoneKey.Split("-left")[0].Split("-right")[0]).Distinct()
            .ShouldBe(["run", "engine", "propeller", "cabin", "left-wing", "right-wing", "tail-cone", "tail", "gear", "general"],
                ignoreOrder: true);
        inspection.Looks.ShouldNotContain(zone => zone.ZoneKey.StartsWith("run")
            || zone.ZoneKey == "general", "a run and the papers are no place to clean");
        inspection.Walk.Count(task => task.IsCompression).ShouldBe(engines);
    }

    [Fact]
    public void A_light_sport_gets_its_own_lists_and_not_appendix_d()
    {
        var tug = Build("geared-flat-four", new(Wing.High, Gear.NoseWheel, 1, 2), Category.SpecialLightSport);
        All.Where(sheet => sheet.IsOfferedFor(tug, InspectionKind.HundredHour)).Select(sheet => sheet.Key)
            .ShouldBe(["geared-four", "light-sport", "lubrication"]);
        // 14 CFR 43.15(c)(2), from memory: its engine list has the run, too.
        foreach (var paragraph in new[] { "(i)", "(ii)", "(iii)", "(iv)" })
            Fixture.Shipped("geared-four").Tasks.ShouldContain(task => task.Reference == $"14 CFR 43.15(c)(2){paragraph}");
    }

    [Fact]
    public void A_worksheet_that_says_nothing_is_ticked_for_none() =>
        Worksheet.Begin("ski-change", "Ski change", "our own")
            .IsOfferedFor(Build("flat-four", new(Wing.Low, Gear.NoseWheel, 1, 2)), InspectionKind.Annual).ShouldBeFalse();

    [Fact]
    public void A_service_takes_the_service_list() =>
        All.Where(sheet => sheet.IsOfferedFor(Build("flat-four", new(Wing.Low, Gear.NoseWheel, 1, 2)), InspectionKind.Service50))
            .Select(sheet => sheet.Key).ShouldBe(["service"]);

    [Fact]
    public void Where_the_work_can_hurt_the_caution_stands_at_the_task()
    {
        foreach (var task in All.SelectMany(sheet => sheet.Tasks))
        {
            var words = task.Text.ToLowerInvariant();
            if (task.Compression || words.Contains("brakes held") || words.Contains("swung up") || words.Contains("jacks"))
                task.Caution.ShouldNotBeNullOrWhiteSpace(task.Key);
        }
        All.SelectMany(sheet => sheet.Tasks).Where(task => task.Same == "wheel-bearings")
            .ShouldAllBe(task => task.Caution!.Contains("Deflate"));
    }

    [Fact]
    public void Every_limit_says_where_it_comes_from_and_none_is_called_law() =>
        All.SelectMany(sheet => sheet.Tasks).Where(task => task.Measure is not null).ShouldAllBe(task =>
            task.Measure!.Source.Length > 0
                && (task.Measure.Low == null && task.Measure.High == null) == (task.Measure.Standing == Judgements.Standing.Manual));

    [Theory]
    [InlineData("\"kind\": \"lubricate\"", "say with what")]
    [InlineData("\"kind\": \"measure\"", "say what, in which unit")]
    [InlineData("\"at\": [\"now and then\"]", "is no interval")]
    [InlineData("\"at\": [25]", "is no interval")]
    [InlineData("\"needs\": [\"tea\"]", "can't be read")]
    [InlineData("\"colour\": \"red\"", "can't be read")]
    [InlineData("\"measure\": { \"kind\": \"k\", \"unit\": \"psi\", \"low\": 3, \"high\": 2, \"standing\": \"manual\", \"source\": \"s\" }",
        "lower limit is above")]
    [InlineData("\"measure\": { \"kind\": \"K !\", \"unit\": \"psi\", \"low\": 1, \"high\": 2, \"standing\": "
        + "\"manual\", \"source\": \"s\" }", "needs a name")]
    [InlineData("\"measure\": { \"kind\": \"k\", \"unit\": \"psi\", \"low\": 1, \"high\": 2, \"standing\": \"manual\", \"source\": \"\" }",
        "where its limits come from")]
    public void A_task_that_does_not_hold_together_refuses_its_worksheet(string member, string says) =>
        Should.Throw<FormatException>(() => Worksheet.Parse($$"""
            { "key": "x", "title": "X", "version": 1, "basis": "b", "zones": [ { "key": "z", "title": "Z", "station": "airframe",
            "book": "airframe", "tasks": [ { "key": "a", "text": "A", "reference": "r", {{member}} } ] } ] }
            """)).Message.ShouldContain(says);

    [Fact]
    public void A_worksheet_nested_or_grown_beyond_reason_is_refused()
    {
        Should.Throw<FormatException>(() => Worksheet.Parse(new string('[', 10_000) + new string(']', 10_000))).Message.ShouldContain(
            "can't be read");
        var tasks = Enumerable.Range(0, Worksheet.MostTasks + 1).Select(number => new WorksheetTask($"t-{number}", "T", "r")).ToList();
        (Fixture.Small with { Zones = [Fixture.Small.Zones[0] with { Tasks = tasks }] }).Fault()!.ShouldContain("1000 is the most");
    }
}
