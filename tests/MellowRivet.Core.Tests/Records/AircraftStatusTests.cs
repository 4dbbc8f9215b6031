using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Tests.Records;

/// <summary>The status of an aircraft, as 14 CFR 91.417(a)(2) lists it, from memory.</summary>
public class AircraftStatusTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();

    private static DueItem Item(string what, DueKind kind, Guid aircraftId) => new(Guid.NewGuid(), aircraftId, null, what, kind,
        new(100), new(Standing.Practice, "test"));

    [Fact]
    public void Each_line_of_the_rule_has_its_place_and_what_nobody_knows_is_left_empty()
    {
        var engine = aircraft.Engines.Single();
        engine.Component.WasOverhauled(new(new(2020, 5, 1), new Hours(700), "release 9"));
        aircraft.Install(new(Guid.NewGuid(), ComponentKind.Propeller, "", "P-2"), "spare", new Hours(900), null);
        aircraft.Keep(MajorWork.Read(Guid.NewGuid(), MajorKind.Alteration, null, "Second radio", "form in the folder",
            Fixture.Today).Work!);
        var items = new[] { Item("Belts", DueKind.LifeLimit, aircraft.Id), Item("Overhaul", DueKind.Overhaul, aircraft.Id),
            Item("Annual", DueKind.Inspection, aircraft.Id), Item("Transponder", DueKind.Instrument, aircraft.Id),
            Item("Oil", DueKind.Service, aircraft.Id) };
        var status = AircraftStatus.Of(DueLine.Of(aircraft, items, [], Fixture.Today), BulletinResearch.None, []);
        status.Times.Select(time => (time.What, time.Serial, time.Total?.ToString(), time.SinceOverhaul?.ToString())).ShouldBe(
        [
            ("Airframe", "T-1", "1000.5", null), ("Engine", "E-1", "1120.5", "420.5"), ("Propeller", "P-1", "100.5", null),
            ("Propeller, spare", "P-2", null, null),
        ]);
        status.LifeLimited.Select(entry => entry.Title).ShouldBe(["Belts"]);
        status.Overhauls.Select(entry => entry.Title).ShouldBe(["Overhaul"]);
        status.Inspections.Select(entry => entry.Title).ShouldBe(["Annual", "Transponder"]);
        status.Major.ShouldHaveSingleItem().On.ShouldBeNull("the papers don't say, and nothing is made up");
        status.Bulletins.ShouldBeEmpty();
    }

    [Theory]
    [InlineData((MajorKind)9, "what", "form", "kind")]
    [InlineData(MajorKind.Repair, "", "form", "what")]
    [InlineData(MajorKind.Repair, "what", " ", "papers")]
    public void A_major_repair_goes_on_file_with_its_form(MajorKind kind, string what, string form, string field) =>
        MajorWork.Read(Guid.NewGuid(), kind, null, what, form, Fixture.Today).Refusal!.Field.ShouldBe(field);

    [Fact]
    public void Major_work_goes_along_in_the_aircrafts_file()
    {
        aircraft.Keep(new(Guid.NewGuid(), MajorKind.Repair, new(2016, 5, 12), "Spar splice", "form of 2016"));
        var file = AircraftFile.Of(aircraft, [], [], [], [], [], Fixture.Clock);
        AircraftFile.Read(file.ToJson(), Fixture.Today).File!.Make(Fixture.Ines, Fixture.Clock).Aircraft.MajorWork
            .ShouldHaveSingleItem().What.ShouldBe("Spar splice");
    }
}
