using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Tests.Signing;

/// <summary>Whose look counts: 14 CFR 43.3(d), 65.81, 65.95, from memory (domain.md section 14).</summary>
public class WhoseLookTests
{
    private static readonly Person Helper = new(Guid.NewGuid(), "Helper", "HH", [Role.Assistant], []);
    private static readonly Person Mechanic = new(Guid.NewGuid(), "Mechanic", "MM", [Role.Mechanic], [new(CertificateKind.Mechanic, "5")]);
    private static readonly ShopRules Shop = Fixture.Among(Fixture.Inspector, Helper, Mechanic);

    private readonly Aircraft aircraft = Fixture.Aircraft();

    private Inspection Begin(InspectionKind kind, LookSchool? house = null) =>
        new(Guid.NewGuid(), aircraft, kind, "26-1", [Fixture.Small], Fixture.Today, null, new(SignersLook: house));

    private ZoneState Gear(Inspection inspection) => WhoseLook.Of(inspection, aircraft, Shop).Single(zone => zone.ZoneKey == "gear");

    private static void Answer(Inspection inspection, Person by, int minute = 0, TaskVerdict verdict = TaskVerdict.Good, string? key = null)
    {
        foreach (var task in inspection.Tasks.Where(task => task.ZoneKey == "gear" && (key is null || task.Key == key)))
            inspection.Answer(task, verdict, "not fitted", null, by.Id, Fixture.Now.AddMinutes(minute)).ShouldBeNull();
    }

    private Refusal? Look(Inspection inspection, Person by, int minute, params Guid[] except) =>
        inspection.LookAtZone("gear", except, by, Shop.SignsBy(by.Id, inspection, aircraft), Fixture.Now.AddMinutes(minute));

    // Who did it, by which kind and school, and how many of the zone's two tasks wait for the look of somebody who may sign.
    [Theory]
    [InlineData(InspectionKind.Annual, null, "helper", 2)]
    [InlineData(InspectionKind.Annual, null, "mechanic", 2)]
    [InlineData(InspectionKind.Annual, null, "inspector", 0)]
    [InlineData(InspectionKind.Annual, LookSchool.WhatCounts, "helper", 2)]
    [InlineData(InspectionKind.Annual, LookSchool.WhatCounts, "mechanic", 0)]
    [InlineData(InspectionKind.HundredHour, null, "helper", 2)]
    [InlineData(InspectionKind.HundredHour, null, "mechanic", 0)]
    [InlineData(InspectionKind.HundredHour, LookSchool.EveryZone, "helper", 2)]
    public void A_tick_counts_by_who_made_it(InspectionKind kind, LookSchool? house, string who, int waits)
    {
        var inspection = Begin(kind, house);
        Answer(inspection, who switch { "helper" => Helper, "mechanic" => Mechanic, _ => Fixture.Inspector });
        Gear(inspection).Waiting.Count.ShouldBe(waits);
        Readiness.Of(inspection, aircraft, Shop).Blockers.Any(blocker => blocker.By == HeldUpBy.ZoneLook && blocker.What.StartsWith("Gear"))
            .ShouldBe(waits > 0);
    }

    [Fact]
    public void One_look_takes_in_a_zone_but_for_its_exceptions_and_what_somebody_changes_afterwards()
    {
        var inspection = Begin(InspectionKind.Annual);
        Look(inspection, Fixture.Inspector, 1)!.Message.ShouldContain("not answered yet");
        Answer(inspection, Helper);
        Look(inspection, Mechanic, 5)!.Message.ShouldContain("Mechanic may not");
        Look(inspection, Helper, 5)!.Field.ShouldBe("zone-look");
        var nose = inspection.Tasks.Single(task => task.Key == "nose");
        Look(inspection, Fixture.Inspector, 5, nose.Id).ShouldBeNull();
        Gear(inspection).Waiting.ShouldBe(["Nose leg"]);
        Look(inspection, Fixture.Inspector, 6).ShouldBeNull();
        (Gear(inspection).Waiting.Count, Gear(inspection).Look!.By,
            Gear(inspection).DoneBy.Single()).ShouldBe((0, Fixture.Ines, Helper.Id));
        Answer(inspection, Helper, 9, key: "tyres");
        Gear(inspection).Waiting.ShouldBe(["Tyres"], "changed by somebody else, it wants a new look");
        Answer(inspection, Fixture.Inspector, 10, key: "tyres");
        Gear(inspection).Waiting.ShouldBeEmpty("the signer's own answer is a look");
        inspection.LookAtZoneAgain("gear");
        Gear(inspection).Waiting.ShouldBe(["Nose leg"]);
    }

    [Fact]
    public void Airworthiness_items_want_the_look_even_from_a_mechanic()
    {
        var inspection = Begin(InspectionKind.Annual, LookSchool.WhatCounts);
        Answer(inspection, Mechanic);
        var tyres = inspection.Tasks.Single(task => task.Key == "tyres");
        inspection.Find(Guid.NewGuid(), "cord showing", "gear", "", DiscrepancyClass.Airworthiness, false, tyres, Mechanic.Id,
            Fixture.Now.AddMinutes(1))
            .Correct(new("tyre changed", CorrectionKind.Replaced, "32-40"), inspection.Terms, Mechanic.Id, Fixture.Now.AddMinutes(30))
            .ShouldBeNull();
        Gear(inspection).Waiting.Count.ShouldBe(2, "the task, and what was done about it");
        Look(inspection, Fixture.Inspector, 40).ShouldBeNull();
        Gear(inspection).Waiting.ShouldBeEmpty();
    }

    [Fact]
    public void An_airworthiness_item_that_somebody_else_withdrew_wants_the_look()
    {
        var inspection = Begin(InspectionKind.HundredHour);
        Answer(inspection, Fixture.Inspector);
        var found = inspection.Find(Guid.NewGuid(), "crack at the lug", "gear", "", DiscrepancyClass.Airworthiness, false, null,
            Mechanic.Id, Fixture.Now.AddMinutes(1));
        found.Move(Disposition.Withdrawn, "a scratch", inspection.Terms, Helper.Id, Fixture.Now.AddMinutes(2)).ShouldBeNull();
        Gear(inspection).Waiting.ShouldHaveSingleItem().ShouldContain("withdrawn");
        Look(inspection, Fixture.Inspector, 5).ShouldBeNull();
        Gear(inspection).Waiting.ShouldBeEmpty();
    }

    [Fact]
    public void An_airworthiness_item_that_somebody_else_set_lower_wants_the_look()
    {
        var inspection = Begin(InspectionKind.HundredHour);
        Answer(inspection, Fixture.Inspector);
        var found = inspection.Find(Guid.NewGuid(), "something odd", "gear", "", DiscrepancyClass.Airworthiness, false, null,
            Fixture.Inspector.Id, Fixture.Now.AddMinutes(1));
        found.Classify(new(DiscrepancyClass.Watch, false, Helper.Id, Fixture.Now.AddMinutes(2), "paint"), Fixture.Classes, null)
            .ShouldBeNull();
        Gear(inspection).Waiting.ShouldHaveSingleItem().ShouldContain("something odd, set lower");
        found.Move(Disposition.Withdrawn, "no matter", inspection.Terms, Helper.Id, Fixture.Now.AddMinutes(3)).ShouldBeNull();
        Gear(inspection).Waiting.ShouldHaveSingleItem("withdrawing it afterwards doesn't hide it");
        Look(inspection, Fixture.Inspector, 5).ShouldBeNull();
        Gear(inspection).Waiting.ShouldBeEmpty();
    }

    [Fact]
    public void A_value_that_was_changed_after_the_look_is_not_the_one_that_was_looked_at()
    {
        var inspection = Begin(InspectionKind.Annual);
        var engine = aircraft.Engines.Single();
        ZoneState Zone() => WhoseLook.Of(inspection, aircraft, Shop).Single(zone => zone.ZoneKey == inspection.EngineZone(engine));
        var reading = Fixture.Compress(inspection, aircraft, 1, 77);
        reading.Correct(77, null, Helper.Id, Fixture.Now.AddMinutes(2));
        Zone().Waiting.ShouldContain(what => what.Contains("1 value or look"));
        foreach (var task in inspection.Tasks.Where(task => task.ZoneKey == Zone().ZoneKey))
            inspection.Answer(task, TaskVerdict.NotApplicable, "test", null, Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.LookAtZone(Zone().ZoneKey, [], Fixture.Inspector, Fixture.Inspector.Certificates[0], Fixture.Now.AddMinutes(10))
            .ShouldBeNull();
        Zone().Waiting.ShouldBeEmpty();
        reading.Correct(78, null, Helper.Id, Fixture.Now.AddMinutes(20));
        Zone().Waiting.ShouldNotBeEmpty();
        var sheet = ExhaustSheet.Of(aircraft, engine.Component);
        inspection.LookAtZone(Zone().ZoneKey, [], Fixture.Inspector, Fixture.Inspector.Certificates[0], Fixture.Now.AddMinutes(30))
            .ShouldBeNull();
        inspection.LookAtRest(sheet, "Intake", Helper.Id, Fixture.Now.AddMinutes(40)).ShouldBeNull();
        Zone().Waiting.ShouldHaveSingleItem().ShouldContain("values and looks");
    }

    // The loophole: one person tied two tasks, answered one, untied them, and the other was done by and inspected by nobody but them.
    [Fact]
    public void Tying_answering_and_untying_never_leaves_a_task_done_and_inspected_by_one_person()
    {
        var other = Fixture.Small with
            { Key = "other", Zones = [.. Fixture.Small.Zones.Where(zone => zone.Key == "gear")
                .Select(zone => zone with { Tasks = [new("legs", "Legs", "common practice", SecondPerson: true)] })] };
        var inspection = Fixture.Inspect(aircraft, [Fixture.Small, other], new(SeparateInspector.AirworthinessItems));
        var (legs, tyres) = (inspection.Tasks.Single(task => task.Key == "legs"), inspection.Tasks.Single(task => task.Key == "tyres"));
        inspection.Answer(legs, TaskVerdict.Good, null, null, Helper.Id, Fixture.Now).ShouldBeNull();
        legs.Inspect(Mechanic, Fixture.Now.AddMinutes(1)).ShouldBeNull();
        inspection.Answer(tyres, TaskVerdict.Good, null, null, Mechanic.Id, Fixture.Now.AddMinutes(2)).ShouldBeNull();
        inspection.Tie(legs.Id, tyres.Id).ShouldBeNull();
        inspection.Untie(legs.Id);
        (legs.By, legs.InspectedBy).ShouldBe((Mechanic.Id, null));
        SecondPerson.Wanted(inspection.House, inspection, legs).ShouldBeTrue();
    }

    [Fact]
    public void Nothing_changes_between_a_look_and_hours_of_a_reading()
    {
        var reading = new Reading(Guid.NewGuid(), aircraft.Id, null, "x", "", 1, Unit.Inch, new(), new Hours(1), Fixture.Now, Helper.Id);
        reading.LastAt.ShouldBe(Fixture.Now);
        reading.Reread(2, Unit.Inch, null, Helper.Id, Fixture.Now.AddHours(1));
        (reading.At, reading.LastAt).ShouldBe((Fixture.Now, Fixture.Now.AddHours(1)));
    }
}
