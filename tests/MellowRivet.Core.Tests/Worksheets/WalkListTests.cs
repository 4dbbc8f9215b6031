using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Worksheets;

public class WalkListTests
{
    private static readonly DateOnly Today = new(2026, 11, 23);
    private readonly Aircraft aircraft = Fixture.Aircraft();

    private static WorksheetTask Task(string key, string text = "", string? same = null, WorksheetMeasure? measure = null,
        params string[] at) =>
        new(key, text.Length > 0
            ? text
            : key, "ref", Measure: measure, Same: same, At: [.. at.Select(column => TaskInterval.Parse(column)!.Value)]);

    private static WorksheetZone Zone(string key, params WorksheetTask[] tasks) =>
        new(key, key, key == "engine" ? Station.Engine : Station.Airframe, key == "engine"
            ? Book.Engine
            : Book.Airframe, tasks, PerEngine: key == "engine");

    private static Worksheet Sheet(string key, params WorksheetZone[] zones) => new(key, key, 1, "test", zones);

    private static WorksheetMeasure Measures(string kind) => new(kind, "psi", 1, 2, Standing.Practice, "test");

    private IReadOnlyList<WalkLine> Merge(params Worksheet[] sheets) =>
        WalkList.Merge(sheets, aircraft, InspectionKind.HundredHour, [], Today);

    [Fact]
    public void Two_lists_are_one_walk_by_zone_and_each_task_keeps_its_origin()
    {
        var walk = Merge(Sheet("airframe", Zone("engine", Task("a1")), Zone("cabin", Task("a2")), Zone("gear", Task("a3"))),
            Sheet("maker", Zone("engine", Task("e1")), Zone("gear", Task("e2"))));
        walk.Select(line => $"{line.Zone.Key} {line.Worksheet.Key} {line.Task.Key}")
            .ShouldBe(["engine airframe a1", "engine maker e1", "cabin airframe a2", "gear airframe a3", "gear maker e2"]);
        walk.Select(line => line.Order).ShouldBe([0, 1, 2, 3, 4]);
    }

    [Fact]
    public void A_zone_only_a_later_list_knows_comes_behind_its_neighbour_there()
    {
        var walk = Merge(Sheet("one", Zone("engine", Task("a")), Zone("cabin", Task("b")), Zone("gear", Task("c"))),
            Sheet("two", Zone("cabin", Task("d")), Zone("baggage", Task("e"))), Sheet("three", Zone("engine", Task("f"))));
        walk.Select(line => line.Zone.Key).Distinct().ShouldBe(["engine", "cabin", "baggage", "gear"]);
        Merge(Sheet("one", Zone("gear", Task("a"))), Sheet("two", Zone("engine", Task("b")))).Select(line => line.Zone.Key)
            .ShouldBe(["engine", "gear"], "the engine station comes before the airframe's");
    }

    [Fact]
    public void Tasks_that_say_the_same_are_tied_and_the_one_that_measures_leads()
    {
        var walk = Merge(
            Sheet("one", Zone("gear", Task("a", same: "tyres"), Task("b", "Wheel bearings: greased"),
                Task("c", same: "pads", measure: Measures("pads")))),
            Sheet("two", Zone("gear", Task("d", same: "tyres", measure: Measures("tyre")), Task("e", "WHEEL BEARINGS, greased"),
                Task("f", same: "pads", measure: Measures("other")))));
        string Tie(string key) =>
            walk.Single(line => line.Task.Key == key).TiedTo is { } lead ? walk.Single(line => line.Order == lead).Task.Key : "-";
        Tie("a").ShouldBe("d", "the one that measures is answered");
        Tie("d").ShouldBe("-");
        Tie("e").ShouldBe("b", "the same words");
        Tie("f").ShouldBe("-", "it measures something else: each needs its own answer");
    }

    [Fact]
    public void What_is_tied_is_done_together_when_either_is_due()
    {
        var walk = WalkList.Merge([Sheet("one", Zone("gear", Task("a", same: "x", at: "500 h"))),
            Sheet("two", Zone("gear", Task("b", same: "x", at: "100 h")))], aircraft, InspectionKind.HundredHour,
            [new("one", "a", null, 990, new(2026, 11, 1))], Today);
        walk.ShouldAllBe(line => line.Pick.IsDue);
        Fixture.Inspect(aircraft, [walk[0].Worksheet, walk[1].Worksheet]).NotDue.ShouldBeEmpty();
    }

    [Fact]
    public void On_a_twin_the_engines_zones_stand_once_for_each_and_readings_belong_to_that_engine()
    {
        var twin = new Aircraft(Guid.NewGuid(), "N0TWN", "Twin", "T-2", Category.Standard, new(Wing.Low, Gear.NoseWheel, 2, 4));
        foreach (var side in new[] { "left", "right" })
        {
            var engine = new Component(Guid.NewGuid(), ComponentKind.Engine, "", side) { LayoutKey = EngineLayout.FlatSix.Key };
            engine.JudgeCompressionBy(new(CompressionSchool.QuarterDrop));
            twin.InstallEngine(engine, side, default, new Hours(0));
            twin.Install(new(Guid.NewGuid(), ComponentKind.Propeller, "", side), side, default, default(Hours));
        }
        var walk = WalkList.Merge([Fixture.AppendixD, Fixture.Shipped("twin")], twin, InspectionKind.Annual, [], Today);
        foreach (var engine in twin.Engines)
        {
            walk.Single(line => line.Task.Key == "engine-compression"
                && line.Zone.Key == $"engine-{engine.Position}").ComponentId.ShouldBe(engine.ComponentId);
            walk.Single(line => line.Task.Key == "tw-feather"
                && line.Zone.Key == $"run-{engine.Position}").ComponentId.ShouldBe(engine.ComponentId);
            walk.Single(line => line.Task.Key == "prop-track"
                && line.Zone.Key == $"propeller-{engine.Position}").ComponentId.ShouldBe(
                    twin.Propellers.Single(propeller => propeller.Position == engine.Position).ComponentId);
        }
        walk.Count(line => line.Task.Key == "cabin-controls").ShouldBe(1);
        walk.Where(line => line.Task.Key == "tw-levers").ShouldHaveSingleItem();
    }

    [Fact]
    public void A_task_done_on_another_engine_does_not_count_for_this_one()
    {
        var engine = aircraft.Engines.Single().ComponentId;
        var sheet = Sheet("maker", Zone("engine", Task("oil", at: "50 h")));
        bool Due(Guid? on) => WalkList.Merge([sheet], aircraft, InspectionKind.HundredHour, [new("maker", "oil", on, 999, Today)], Today)
            .Single().Pick.IsDue;
        Due(engine).ShouldBeFalse();
        Due(Guid.NewGuid()).ShouldBeTrue("that was the engine before");
    }

    [Fact]
    public void Of_several_times_done_the_last_counts()
    {
        var sheet = Sheet("maker", Zone("gear", Task("grease", at: "50 h")));
        WalkList.Merge([sheet], aircraft, InspectionKind.HundredHour,
            [new("maker", "grease", null, 600, new(2024, 1, 1)), new("maker", "grease", null, 990, new(2026, 11, 1)),
                new("maker", "grease", null, 700, new(2025, 1, 1))], Today)
            .Single().Pick.IsDue.ShouldBeFalse();
    }

    [Fact]
    public void Every_shipped_worksheet_is_sound_and_reads_back_as_it_was_written()
    {
        var keys = Directory.EnumerateFiles(Path.Combine(Fixture.Shelf, "worksheets"), "*.json").Select(Path.GetFileNameWithoutExtension)
            .Order().ToList();
        keys.ShouldBe(["app-d", "fabric", "geared-four", "light-sport", "lubrication", "retractable", "service", "survey", "survey-fabric",
            "survey-light-sport", "survey-metal", "survey-twin", "survey-two-stroke", "twin", "two-stroke"]);
        foreach (var sheet in keys.Select(key => Fixture.Shipped(key!)))
        {
            Worksheet.Parse(sheet.ToJson()).ToJson().ShouldBe(sheet.ToJson(), sheet.Key);
            WorksheetCsv.Read(System.Text.Encoding.UTF8.GetString(WorksheetCsv.Write(sheet))[1..], sheet with { Zones = [] }).ToJson()
                .ShouldBe(WithNulls(sheet).ToJson(), sheet.Key);
        }
        // A table has no difference between no list and an empty one.
        static Worksheet WithNulls(Worksheet sheet) =>
            sheet with
                { Zones =
                    [.. sheet.Zones.Select(zone => zone with
                        { Tasks =
                            [.. zone.Tasks.Select(task => task with
                                { At = task.At is { Count: > 0 } ? task.At : null, Needs = task.Needs is { Count: > 0 }
                                    ? task.Needs
                                    : null })] })] };
    }

    // The intervals of a light-sport engine list: 25, 50, 100 and 200 h, 2 and 5 years, and the first 25 h.
    [Fact]
    public void The_geared_four_has_its_columns() => Fixture.Shipped("geared-four").Columns.Select(column => column.ToString())
        .ShouldBe(["first 25 h", "25 h", "50 h", "100 h", "200 h", "500 h", "annual", "2 years", "5 years"]);

    [Fact]
    public void The_lubrication_sheet_says_with_what() =>
        Fixture.Shipped("lubrication").Tasks.ShouldAllBe(task => task.Kind == TaskKind.Lubricate && !string.IsNullOrWhiteSpace(task.With));
}
