using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Trends;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Inspections;

public class WalkTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Inspection inspection;

    public WalkTests() => inspection = Fixture.Inspection(aircraft);

    private InspectionTask Task(string key) => inspection.Tasks.Single(task => task.Key == key);

    private Refusal? Set(string key, TaskVerdict verdict, string? reason = null) =>
        Task(key).Set(verdict, reason, inspection.JudgementAt(Task(key), aircraft), Fixture.Ines, Fixture.Now);

    private void Read(string key, double value) =>
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, null, "oil-pressure", "engine", value, Unit.Psi, new(),
        aircraft.TimeInService, Fixture.Now, Fixture.Ines)
    { InspectionId = inspection.Id, TaskId = Task(key).Id });

    [Fact]
    public void Only_tasks_that_fit_the_aircraft_are_on_the_walk() =>
        inspection.Tasks.Select(task => task.Key).ShouldBe(["comp", "oil", "tyres", "nose"]);

    [Fact]
    public void Not_on_this_aircraft_needs_its_reason()
    {
        Set("tyres", TaskVerdict.NotApplicable, "  ")!.Field.ShouldBe("reason");
        Task("tyres").Verdict.ShouldBe(TaskVerdict.NotYet);
        Set("tyres", TaskVerdict.NotApplicable, "on skis").ShouldBeNull();
        Task("tyres").Reason.ShouldBe("on skis");
    }

    [Fact]
    public void A_measured_task_is_good_only_with_a_reading_within_limits()
    {
        Set("oil", TaskVerdict.Good)!.Field.ShouldBe("value");
        Read("oil", 54.9);
        Set("oil", TaskVerdict.Good)!.Message.ShouldContain("0.1 psi under");
        Task("oil").Verdict.ShouldBe(TaskVerdict.NotYet);
    }

    [Fact]
    public void A_limit_of_the_manual_stands_before_the_worksheets()
    {
        aircraft.SetLimit(new("oil-pressure", "psi", 50, 90, "manual 79-00"));
        Read("oil", 52);
        inspection.JudgementAt(Task("oil"), aircraft)!.Source.ShouldBe(new(Standing.Manual, "manual 79-00"));
        Set("oil", TaskVerdict.Good).ShouldBeNull();
    }

    [Fact]
    public void The_compression_task_waits_for_every_cylinder_and_for_second_tries()
    {
        Fixture.Compress(inspection, aircraft, 1, 76);
        Set("comp", TaskVerdict.Good)!.Message.ShouldContain("Every cylinder");
        Fixture.Compress(inspection, aircraft, 2, 58);
        Fixture.Compress(inspection, aircraft, 3, 75);
        Fixture.Compress(inspection, aircraft, 4, 77);
        Set("comp", TaskVerdict.Good).ShouldNotBeNull();
        Fixture.Compress(inspection, aircraft, 2, 64, again: true, minute: 9);
        Set("comp", TaskVerdict.Good).ShouldBeNull();
    }

    [Fact]
    public void The_sheet_follows_the_latest_try_and_names_the_next_cylinder()
    {
        var engine = aircraft.Engines.First().Component;
        Fixture.Compress(inspection, aircraft, 1, 58);
        CompressionSheet.Of(aircraft, engine, inspection).Next!.Place.Number.ShouldBe(2);
        foreach (var number in new[] { 2, 3, 4 })
            Fixture.Compress(inspection, aircraft, number, 77, minute: number);
        var sheet = CompressionSheet.Of(aircraft, engine, inspection);
        sheet.IsComplete.ShouldBeFalse();
        sheet.Next!.Place.Number.ShouldBe(1);
        Fixture.Compress(inspection, aircraft, 1, 57, again: true, minute: 9);
        var done = CompressionSheet.Of(aircraft, engine, inspection);
        done.IsComplete.ShouldBeTrue();
        done.Assessment!.Overall.Verdict.ShouldBe(Verdict.Reject);
        done.Assessment.SpreadPsi.ShouldBe(20);
    }

    [Fact]
    public void A_correction_keeps_the_order_of_the_tries()
    {
        var first = Fixture.Compress(inspection, aircraft, 1, 8);
        Fixture.Compress(inspection, aircraft, 1, 71, again: true, minute: 5);
        first.Correct(58, null, Fixture.Ines, Fixture.Now);
        CompressionSheet.Of(aircraft, aircraft.Engines.First().Component, inspection).Cylinders[0].Tries.Select(reading => reading.Value)
            .ShouldBe([58, 71]);
    }

    [Fact]
    public void A_new_cylinder_begins_a_new_series()
    {
        var engine = aircraft.Engines.First().Component;
        var old = aircraft.Cylinder(engine, 2)!;
        var readings = new[] { (100m, 70), (300m, 66), (500m, 62) }.Select(pair => At(old, pair.Item1, pair.Item2)).ToList();
        aircraft.TakeOff(old.Id, null, new Hours(600), "weak").ShouldBeNull();
        var fresh = aircraft.Install(new(Guid.NewGuid(), ComponentKind.Cylinder, "", "new"), "2", new Hours(600), new Hours(0),
            engine.Id).Component;
        readings.AddRange(new[] { (610m, 78), (700m, 78), (800m, 77), (900m, 77) }.Select(pair => At(fresh, pair.Item1, pair.Item2)));

        var history = CylinderHistory.Of(aircraft, engine, 2, readings, null, HoursAxis.Aircraft);
        history.Readings.Count.ShouldBe(7, "the place has what every cylinder in it had");
        history.Trend.N.ShouldBe(4);
        history.Events.ShouldHaveSingleItem().ShouldBe(new(600, Restarts: true, "new cylinder", "weak"));
        history.LimitArea!.Value.ShouldBe(1.06, 0.006);
        CylinderHistory.Of(aircraft, engine, 1, readings, null, HoursAxis.Aircraft).Readings.ShouldBeEmpty();

        // On its own hours the new cylinder has its own readings, the first at 10 h.
        foreach (var reading in readings)
            reading.CountOn(new(aircraft.Installations.Where(stay => stay.ComponentId == reading.ComponentId)));
        var own = CylinderHistory.Of(aircraft, engine, 2, readings, null);
        own.Readings.Select(own.At).ShouldBe([10, 100, 200, 300]);
        (own.Events.Count, own.ToAircraft).ShouldBe((0, 600));

        Reading At(Component cylinder, decimal hours, double psi) =>
            new(Guid.NewGuid(), aircraft.Id, cylinder.Id, Reading.CompressionKind, "2", psi, Unit.Psi,
            new(true, 80, 14.7), new Hours(hours), Fixture.Now.AddHours((double)hours), Fixture.Ines);
    }

    [Fact]
    public void Something_found_at_a_task_answers_the_task_and_gets_the_next_number()
    {
        var one = inspection.Find(Guid.NewGuid(), "cord showing", "gear", "left", DiscrepancyClass.Airworthiness, false, Task("tyres"),
            Fixture.Ines, Fixture.Now);
        var two = inspection.Find(Guid.NewGuid(), "dirt", "gear", "", DiscrepancyClass.Recommended, grounded: true, null, Fixture.Ines,
            Fixture.Now);
        (one.Number, two.Number).ShouldBe((1, 2));
        Task("tyres").Verdict.ShouldBe(TaskVerdict.Discrepancy);
        two.Grounded.ShouldBeFalse("only an airworthiness item grounds an aircraft");
    }

    [Fact]
    public void What_stands_in_the_way_is_listed_and_airworthiness_items_are_not_in_the_way()
    {
        Readiness.Of(inspection, aircraft, Fixture.Bare).Blockers.Count.ShouldBe(4 + 1, "four tasks and the compressions");
        Fixture.Finish(inspection, aircraft);
        inspection.Find(Guid.NewGuid(), "cracked", "gear", "", DiscrepancyClass.Airworthiness, true, null, Fixture.Ines, Fixture.Now);
        var ready = Readiness.Of(inspection, aircraft, Fixture.Bare);
        ready.MaySign.ShouldBeTrue();
        ready.Unairworthy.Count.ShouldBe(1);
    }

    [Fact]
    public void A_deferrable_item_waits_for_its_placard_or_to_be_fixed()
    {
        Fixture.Finish(inspection, aircraft);
        var light = inspection.Find(Guid.NewGuid(), "map light out", "gear", "", DiscrepancyClass.Deferrable, false, null, Fixture.Ines,
            Fixture.Now);
        Readiness.Of(inspection, aircraft, Fixture.Bare).Blockers.ShouldHaveSingleItem().Found.ShouldBe(light);
        light.Correct(new(""), new(new(), 0), Fixture.Ines, Fixture.Now)!.Field.ShouldBe("action");
        light.Correct(new("Lamp replaced.", CorrectionKind.Replaced), new(new(), 0), Fixture.Ines, Fixture.Now).ShouldBeNull();
        Readiness.Of(inspection, aircraft, Fixture.Bare).MaySign.ShouldBeTrue();
        light.Correct(new("again"), new(new(), 0), Fixture.Ines, Fixture.Now).ShouldNotBeNull();
    }

    [Fact]
    public void A_rejected_cylinder_has_to_stand_on_the_fix_list()
    {
        Fixture.Finish(inspection, aircraft);
        Fixture.Compress(inspection, aircraft, 3, 50, again: true, minute: 30);
        Readiness.Of(inspection, aircraft,
            Fixture.Bare).Blockers.ShouldHaveSingleItem().What.ShouldStartWith(
                "Compression, cylinder 3: 50/80. Below 60/80 after a second hot try: reject.");
        inspection.Find(Guid.NewGuid(), "oil at the filler cap", "engine", "", DiscrepancyClass.Recommended, false, Task("comp"),
            Fixture.Ines, Fixture.Now);
        Readiness.Of(inspection, aircraft, Fixture.Bare).MaySign.ShouldBeFalse("a line for the same task is about something else");
        var judged = InspectionJudgements.Of(inspection, aircraft).Single(one => one.WantsAnswer);
        inspection.PutOnList(Guid.NewGuid(), "cylinder 3 low", "engine", "",
            new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), Task("comp"), judged,
            Fixture.Classes).Refusal.ShouldBeNull();
        Readiness.Of(inspection, aircraft, Fixture.Bare).MaySign.ShouldBeTrue();
    }

    [Fact]
    public void A_tach_that_runs_backwards_is_refused()
    {
        Should.Throw<ArgumentException>(() => aircraft.ReadTime(new DateOnly(2026, 11, 21), new Hours(999))).Message.ShouldContain(
            "runs backwards");
        Should.Throw<ArgumentException>(() => aircraft.ReadTime(new DateOnly(2026, 11, 19), new Hours(1001)));
        aircraft.TimeInService.ShouldBe(new Hours(1000.5m));
    }

    [Theory]
    [InlineData(null, null, "what")]
    [InlineData("  ", "", "what")]
    public void A_discrepancy_needs_words(string? what, string? where, string field) =>
        Discrepancy.Check(what, where).ShouldHaveSingleItem().Field.ShouldBe(field);

    [Fact]
    public void Words_have_an_end()
    {
        Discrepancy.Check(new string('x', Discrepancy.LongestWords), new string('y', Discrepancy.LongestWhere)).ShouldBeEmpty();
        Discrepancy.Check(new string('x', Discrepancy.LongestWords + 1), new string('y', Discrepancy.LongestWhere + 1)).Count().ShouldBe(2);
    }

    [Fact]
    public void A_firing_order_fires_every_cylinder_once() =>
        EngineLayout.All.ShouldAllBe(layout => layout.FiringOrder.Order()
            .SequenceEqual(layout.Cylinders.Select(cylinder => cylinder.Number).Order()));

    [Fact]
    public void No_two_cylinders_stand_in_one_place() =>
        EngineLayout.All.All(layout => layout.Cylinders.Select(cylinder => (cylinder.Bank, cylinder.Row)).Distinct()
            .Count() == layout.Cylinders.Count).ShouldBeTrue();

    // 14 CFR 43 Appendix D, from memory: groups (a) to (j); what an aircraft with wheels has no use for, (b)(3) and (e)(10), is left out.
    [Theory]
    [InlineData('b', new[] { 1, 2 })]
    [InlineData('c', new[] { 1, 2, 3, 4, 5, 6, 7 })]
    [InlineData('d', new[] { 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11 })]
    [InlineData('e', new[] { 1, 2, 3, 4, 5, 6, 7, 8, 9 })]
    [InlineData('h', new[] { 1, 2, 3, 4 })]
    [InlineData('i', new[] { 1, 2, 3, 4 })]
    public void The_shipped_worksheet_covers_appendix_d_paragraph_by_paragraph(char group, int[] paragraphs)
    {
        var references = Fixture.AppendixD.Zones.SelectMany(zone => zone.Tasks).Select(task => task.Reference).ToList();
        foreach (var paragraph in paragraphs)
            references.ShouldContain($"43 App. D ({group})({paragraph})");
        foreach (var whole in "afgj")
            references.ShouldContain(reference => reference.StartsWith($"43 App. D ({whole})", StringComparison.Ordinal));
    }

    // 14 CFR 43.15(c)(2), from memory: static and idle rpm, magnetos, fuel and oil pressure, cylinder and oil temperature.
    [Fact]
    public void The_shipped_worksheet_has_the_engine_run_of_43_15()
    {
        var run = Fixture.AppendixD.Zones.Single(zone => zone.Key == "run").Tasks;
        foreach (var paragraph in new[] { "(i)", "(ii)", "(iii)", "(iv)" })
            run.ShouldContain(task => task.Reference == $"14 CFR 43.15(c)(2){paragraph}");
    }

    [Theory]
    [InlineData("not json", "can't be read")]
    [InlineData("{}", "can't be read")]
    [InlineData("""{ "key": "x", "title": "x", "version": 1, "basis": "x", "zones": [] }""", "needs zones")]
    [InlineData("""
        { "key": "x", "title": "x", "version": 1, "basis": "x", "zones": [{ "key": "z", "title": "z", "station": "close",
        "book": "airframe", "tasks": [{ "key": "a", "text": "a", "reference": "a" }] }] }
        """, "engine or airframe")]
    [InlineData("""
        { "key": "x", "title": "x", "version": 1, "basis": "x", "zones": [{ "key": "z", "title": "z", "station": "engine",
        "book": "airframe", "tasks": [{ "key": "a", "text": "a", "reference": "a" }, { "key": "a", "text": "a", "reference": "a" }] }] }
        """, "twice: a")]
    [InlineData("""
        { "key": "x", "title": "x", "version": 1, "basis": "x", "zones": [{ "key": "z", "title": "z", "station": "engine",
        "book": "airframe", "tasks": [{ "key": "a", "text": "a", "reference": "a", "measure": { "kind": "k", "unit": "furlong", "low": 1,
        "high": 2, "standing": "manual", "source": "s" } }] }] }
        """, "furlong")]
    public void A_worksheet_that_does_not_hold_together_is_refused_whole(string json, string says) =>
        Should.Throw<FormatException>(() => Worksheet.Parse(json)).Message.ShouldContain(says);
}
