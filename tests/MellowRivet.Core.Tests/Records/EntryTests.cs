using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Records;

/// <summary>
/// The entries of five aircraft, beside texts that were written by hand from what domain.md section 15 wants in an entry (14 CFR 43.9,
/// 43.11 and AC 43-9C, from memory).
/// </summary>
public class EntryTests
{
    private static readonly Worksheet Sheet = Worksheet.Parse("""
        { "key": "hand", "title": "Hand list", "version": 2, "basis": "test", "zones": [
          { "key": "engine", "title": "Engine", "station": "engine", "book": "engine", "looks": false, "perEngine": true, "tasks": [
            { "key": "air", "text": "Air filter: cleaned, oiled", "reference": "(d)", "kind": "service", "with": "filter oil" },
            { "key": "drop", "text": "Ignition drop", "reference": "(d)", "kind": "measure", "measure": { "kind": "ignition-drop",
            "unit": "rpm", "low": null, "high": 300, "standing": "practice", "source": "common practice" } } ] },
          { "key": "wing", "title": "Left wing", "station": "airframe", "book": "airframe", "looks": false, "tasks": [
            { "key": "up", "text": "Aileron travel up", "reference": "(f)", "kind": "measure", "measure": { "kind": "aileron-up",
            "unit": "°", "low": 18, "high": 22, "standing": "manual", "source": "manual 27" } },
            { "key": "cable", "text": "Cable", "reference": "(f)", "kind": "measure", "measure": { "kind": "aileron-cable", "unit": "lb",
            "low": 35, "high": 41, "standing": "manual", "source": "manual 27" } },
            { "key": "controls", "text": "Aileron: free, full, right way, safetied", "reference": "(c)(5)", "kind": "functional" },
            { "key": "hinges", "text": "Aileron hinges", "reference": "(f)", "kind": "lubricate", "with": "light machine oil" } ] },
          { "key": "gear", "title": "Landing gear", "station": "airframe", "book": "airframe", "looks": false, "tasks": [
            { "key": "tyres", "text": "Tyres", "reference": "(e)(8)" } ] } ] }
        """);

    private static Aircraft Made(Category category, int engines = 1)
    {
        var aircraft = new Aircraft(Guid.NewGuid(), "N0TST", "Test type", "T-1", category, new(Wing.Low, Gear.NoseWheel, engines, 2));
        aircraft.ReadTime(new DateOnly(2026, 11, 20), new Hours(1000.5m));
        return aircraft;
    }

    private static string Hand(string name) =>
        File.ReadAllText(Path.Combine(AppContext.BaseDirectory, "Data", $"entry-{name}.txt")).TrimEnd().ReplaceLineEndings("\n");

    private static EntryCase Single()
    {
        var aircraft = Made(Category.Standard);
        var engine = EntryCase.Fit(aircraft, EngineLayout.FlatFour.Key, "E-1", "", CompressionSchool.SixtyOfEighty, 900);
        engine.WasOverhauled(new(new(2020, 5, 1), new Hours(1500), "release 9"));
        aircraft.InstallPlugs(engine, "P", 1, default, null);
        foreach (var side in new[] { "left", "right" })
            aircraft.Install(new(Guid.NewGuid(), ComponentKind.Magneto, "", $"M-{side}"), side, default, new Hours(100), engine.Id);
        var pump = new Component(Guid.NewGuid(), ComponentKind.Pump, "VP-1", "11", "suction pump");
        aircraft.Install(pump, "", new Hours(200), new Hours(0), engine.Id);
        var one = new EntryCase(aircraft, InspectionKind.Annual, Sheet);
        one.Run(engine, ("static-rpm", 2340), ("idle-rpm", 680), ("mag-drop-left", 90), ("mag-drop-right", 110), ("oil-pressure", 70),
            ("oil-temperature", 82), ("fuel-pressure", 4.5), ("cylinder-temperature", 180));
        one.Compress(engine, 80, hot: true, null, (76, Leaks.None), (69, LeakPath.ExhaustValve), (77, Leaks.None), (76, LeakPath.Rings));
        one.Plugs(engine, 0.016);
        one.Inspection.MovePlugs(aircraft, engine,
            PlugRotation.Plan(engine.FiringOrder, RotationPattern.NextInFiringOrder, engine.Ignition).Plan!.Moves, EntryCase.Mechanic.Id,
            Fixture.Now, Fixture.Today).ShouldBeNull();
        var magneto = MagnetoSheet.Of(aircraft.SittingOn(engine.Id, ComponentKind.Magneto)
            .First(stay => stay.Position == "left").Component);
        one.Values(magneto, "", ("magneto-primary", 0.4), ("magneto-secondary", 13_500), ("magneto-capacitor", 0.34),
            ("magneto-e-gap", 10), ("magneto-points-gap", 0.018), ("magneto-retard", 30), ("magneto-timing", 25));
        one.LooksGood(magneto);
        one.Inspection.Bench(Core.EngineStation.SheetWork.Of(magneto, aircraft, one.Inspection), true).ShouldBeNull();
        one.Oil(engine, "SAE 50, ashless dispersant", 8, "qt", "QF-48");
        var exhaust = ExhaustSheet.Of(aircraft, engine);
        one.Values(exhaust, "before", ("exhaust-pressure", 2));
        one.LooksGood(exhaust, "bubbles-after");
        one.Task("up", 19.5);
        one.Task("cable", 38, celsius: 15);
        one.Good("controls", second: true);
        one.Good("hinges");
        one.Good("air");
        one.Done("Tyre cut to the cord", "gear", new("Tyre and tube changed.", CorrectionKind.Replaced, "manual 32-40, rev. 7",
            [new("TY-600", "old 3", "new 4")], new(220, "in-lb", EntryCase.Wrench)), "left", inspected: true);
        one.Done("Suction pump worn", "engine", new("Pump replaced", CorrectionKind.Replaced, "manual 37-10",
            [new("VP-1", "11", "22", pump.Id)]));
        one.Inspection.AddLine(Guid.NewGuid(), null, false, "Aircraft washed", EntryCase.Mechanic.Id, Fixture.Now).ShouldBeNull();
        one.Due.Add(new(Guid.NewGuid(), aircraft.Id, null, "Annual inspection", DueKind.Inspection, new(EveryMonths: 12),
            new(Standing.Law, "test"), [InspectionKind.Annual]));
        one.Due.Add(new(Guid.NewGuid(), null, magneto.Carrier.Id, "Bench inspection", DueKind.Service, new(500),
            new(Standing.Practice, "test")));
        DueItem transponder = new(Guid.NewGuid(), aircraft.Id, null, "Transponder test", DueKind.Instrument, new(EveryMonths: 24),
            new(Standing.Law, "test"));
        transponder.SetDone(new(new(2026, 11, 22), 1000.5m, Reference: "avionics shop, sheet 8"), Fixture.Today).ShouldBeNull();
        one.Due.Add(transponder);
        return one;
    }

    [Fact]
    public void A_single_after_its_annual() => Single().Text.ShouldBe(Hand("single"));

    [Fact]
    public void The_same_in_short()
    {
        var one = Single();
        one.Inspection.Write(EntryLength.Short).ShouldBeNull();
        one.Text.ShouldBe(Hand("single-short"));
        (one.Text.Length * 1.25).ShouldBeLessThan(Hand("single").Length);
    }

    [Fact]
    public void A_twin_after_its_hundred_hour_with_each_engines_own_work()
    {
        var aircraft = Made(Category.Standard, engines: 2);
        var left = EntryCase.Fit(aircraft, EngineLayout.FlatFour.Key, "E-L", "left", CompressionSchool.OrificeOfTheDay, 100);
        var right = EntryCase.Fit(aircraft, EngineLayout.FlatFour.Key, "E-R", "right", CompressionSchool.OrificeOfTheDay, 250);
        var twin = new EntryCase(aircraft, InspectionKind.HundredHour, Sheet);
        twin.Compress(left, 80, hot: true, 52, (74, Leaks.None), (75, Leaks.None), (76, Leaks.None), (74, Leaks.None));
        twin.Compress(right, 80, hot: false, 52, (70, Leaks.None), (71, Leaks.None), (72, Leaks.None), (68, LeakPath.IntakeValve));
        twin.Oil(right, "15W-50", 11, "qt", "", Core.Oil.FilterMetal.Ferrous, Core.Oil.FilterAmount.FewSpecks);
        twin.Done("Alternator belt cracked", "engine-left", new("Belt replaced and tensioned"));
        twin.Text.ShouldBe(Hand("twin"));
    }

    [Fact]
    public void An_amateur_built_that_is_not_in_a_condition_for_safe_operation()
    {
        var aircraft = Made(Category.ExperimentalAmateurBuilt);
        var engine = EntryCase.Fit(aircraft, EngineLayout.FlatFour.Key, "E-1", "", CompressionSchool.QuarterDrop, 20);
        var one = new EntryCase(aircraft, InspectionKind.Condition, Sheet);
        one.Compress(engine, 80, hot: true, null, (74, Leaks.None), (75, Leaks.None), (58, LeakPath.ExhaustValve), (74, Leaks.None));
        one.Find("Exhaust valve of cylinder 3 leaks", "engine", DiscrepancyClass.Airworthiness);
        var light = one.Find("Map light inoperative", "gear", DiscrepancyClass.Deferrable);
        foreach (var question in DeferralWalk.Questions)
            light.Answer(question.Key, question.GoesOn, "checked", Fixture.Classes,
                EntryCase.Inspector.Id, Fixture.Now).ShouldBeNull();
        light.Correct(new("Breaker collared, placarded INOP", CorrectionKind.Deferred), one.Inspection.Terms, EntryCase.Mechanic.Id,
            Fixture.Now).ShouldBeNull();
        one.Text.ShouldBe(Hand("amateur-built"));
    }

    [Fact]
    public void A_light_sport_by_its_makers_procedures()
    {
        var aircraft = Made(Category.SpecialLightSport);
        var engine = EntryCase.Fit(aircraft, EngineLayout.GearedFlatFour.Key, "L-1", "", CompressionSchool.SixtyOfEighty, 0,
            IgnitionKind.HighEnergy);
        foreach (var side in new[] { "left", "right" })
            aircraft.Install(new(Guid.NewGuid(), ComponentKind.Carburettor, "", $"C-{side}"), side, default, null, engine.Id);
        var one = new EntryCase(aircraft, InspectionKind.HundredHour, Sheet);
        foreach (var side in new[] { "left", "right" })
        {
            var sheet = CarburettorSheet.Of(aircraft.SittingOn(engine.Id, ComponentKind.Carburettor)
                .First(stay => stay.Position == side).Component);
            one.Values(sheet, "one", ("float", 3.4));
            one.Values(sheet, "other", ("float", 3.5));
            one.Values(sheet, "idle", ("carburettor-vacuum", side == "left" ? 9.8 : 10));
            one.LooksGood(sheet, "idle-stop", "full-stop");
        }
        one.Task("drop", 160);
        one.Inspection.GoBy("Type maintenance manual, chapter 5", "revision 7", EntryCase.Inspector, EntryCase.Inspector.Certificates[0],
            Fixture.Now).ShouldBeNull();
        one.Text.ShouldBe(Hand("light-sport"));
    }

    [Fact]
    public void A_permit_aircraft_after_a_service_which_is_nothing_but_its_tasks()
    {
        var aircraft = Made(Category.Permit);
        EntryCase.Fit(aircraft, EngineLayout.InlineTwoStroke.Key, "S-1", "", CompressionSchool.QuarterDrop, 0);
        var one = new EntryCase(aircraft, InspectionKind.Service50, Sheet, "permit-scheme");
        foreach (var key in new[] { "air", "controls", "hinges", "tyres" })
            one.Good(key);
        one.Text.ShouldBe(Hand("permit"));
    }

    [Fact]
    public void What_was_left_out_was_that_very_sentence_and_what_a_rule_wants_is_not_left_out()
    {
        var one = Single();
        EntrySentence Of(FactKind kind) => LogbookEntry.Of(one.Closing).SelectMany(entry => entry.Sentences)
            .First(sentence => sentence.Fact.Kind == kind);
        Refusal? Omit(FactKind kind, string reason = "on the work order") =>
            one.Inspection.Omit(Of(kind), reason, EntryCase.Inspector, EntryCase.Inspector.Certificates[0], Fixture.Now);
        Omit(FactKind.Compressions).ShouldBeNull();
        Of(FactKind.Compressions).Omitted!.Reason.ShouldBe("on the work order");
        LogbookEntry.Of(one.Closing)[1].Told.ShouldNotContain(line => line.StartsWith("Differential", StringComparison.Ordinal));
        one.Inspection.Write(EntryLength.Short);
        Of(FactKind.Compressions).Omitted.ShouldNotBeNull("in fewer words it is the same");
        var kept = RecordWriter.Draft(one.Closing, new(EntryCase.Inspector, EntryCase.Inspector.Certificates[0]))[1].Content["omitted"]!;
        kept[0]!.ToString()
            .ShouldEndWith("(exhaust valve), no. 3 77/80, no. 4 76/80 (rings). Limit 60/80 (published rule: AC 43.13-1B chapter 8, "
            + "from memory). Left out: on the work order. By Ida Quill (mechanic with inspection authorization, I 77)");
        // Read again, it is another fact, and stands there.
        one.Compress(one.Aircraft.Engines.Single().Component, 80, true, null, (76, LeakPath.None), (61, LeakPath.ExhaustValve));
        Of(FactKind.Compressions).Omitted.ShouldBeNull();
        foreach (var kind in new[] { FactKind.Correction, FactKind.Done })
            Omit(kind)!.Message.ShouldContain("43.9(a)");
        Omit(FactKind.Run, " ")!.Message.ShouldContain("Say why");
        one.Inspection.Omit(Of(FactKind.Run), "x", EntryCase.Mechanic, null,
            Fixture.Now)!.Message.ShouldContain("Only somebody who may sign");
    }

    // An annual that is signed with the old oil in, or with plugs that nobody took out, leaves them due.
    [Fact]
    public void Oil_that_nobody_changed_and_plugs_that_nobody_did_are_not_counted_from_the_signature()
    {
        var aircraft = Made(Category.Standard);
        var engine = EntryCase.Fit(aircraft, EngineLayout.FlatFour.Key, "E-1", "", CompressionSchool.SixtyOfEighty, 900);
        aircraft.InstallPlugs(engine, "P", 1, default, null);
        var one = new EntryCase(aircraft, InspectionKind.Annual, Sheet);
        string[] others = ["Drain plugs: washers", "Oil cooler: flush", "Reduction-gear oil: change"];
        string[] oil = ["Engine oil and filter", "Oil change"], plugs = ["Clean and gap plugs", "Plugs cleaned"];
        foreach (var what in (string[])[.. others, .. oil, .. plugs, "Change the oil; plugs cleaned"])
            foreach (var part in new Guid?[] { engine.Id, null })
                one.Due.Add(new(Guid.NewGuid(), part is null ? aircraft.Id : null, part, what, DueKind.Service, new(25),
                    new(Standing.Practice, "test"), [InspectionKind.Annual]));
        void Counted(params string[] wanted) => one.Closing.Next.Done.Select(done => done.Entry.Item.What)
            .ShouldBe(wanted.SelectMany(what => new[] { what, what }), ignoreOrder: true);
        Counted(others);
        one.Oil(engine, "SAE 50", 8, "qt", "QF-48");
        Counted([.. others, .. oil]);
        one.Plugs(engine, 0.016);
        Counted([.. others, .. oil, .. plugs, "Change the oil; plugs cleaned"]);
        one.Closing.Next.Done.Select(done => (done.Entry.On is not null, done.Status.WhenDue)).Distinct()
            .ShouldBe([(true, "at 1925.5 h"), (false, "at 1025.5 h")], ignoreOrder: true);
    }
}
