using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Hangar;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.OpenItems;

namespace MellowRivet.Core.Tests.Hangar;

/// <summary>What holds an aircraft up and what about it calls for a person.</summary>
public class HeldUpTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();

    private HangarLine Line(Inspection? inspection, params OpenItem[] items) =>
        HeldUp.Line(aircraft, DueLine.Of(aircraft, [], [], Fixture.Today), inspection, items, Fixture.Bare);

    private static Discrepancy Find(Inspection inspection, DiscrepancyClass @class, bool grounded = false) =>
        inspection.Find(Guid.NewGuid(), "spar cracked", "gear", "", @class, grounded, null, Fixture.Ines, Fixture.Now);

    [Fact]
    public void One_that_was_never_here_for_work_is_held_up_by_nothing()
    {
        var line = Line(null);
        (line.Work, line.Holds.Count, line.Calls.Count, line.Next, line.IsGrounded, line.Rank).ShouldBe((null, 0, 0, null, false, 3));
    }

    [Fact]
    public void One_in_work_is_held_up_by_what_stands_before_its_signature_and_calls_to_be_begun()
    {
        var inspection = Fixture.Inspection(aircraft);
        var line = Line(inspection);
        line.Holds.ShouldContain(new Hold(State.NotYet, $"{inspection.Walk.Count()} to look at", GoTo.Walk));
        line.Calls.Single().ShouldBe(new(State.NotYet, "N0TST waits to be begun.", $"{inspection.Walk.Count()} tasks, annual.", GoTo.Walk));
        (line.Rank, line.Work!.WorkOrder).ShouldBe((0, "26-1"));
        line.Work.Zones.Select(zone => (zone.Key, zone.Done, zone.Worst))
            .ShouldBe([("engine", 0, State.NotYet), ("gear", 0, State.NotYet)]);
    }

    [Fact]
    public void What_grounds_it_is_called_out_and_what_is_ready_as_well()
    {
        var inspection = Fixture.Inspection(aircraft);
        Fixture.Finish(inspection, aircraft);
        Line(inspection).Calls.Single().At.ShouldBe(GoTo.Close);
        var found = Find(inspection, DiscrepancyClass.Airworthiness, grounded: true);
        var line = Line(inspection);
        line.IsGrounded.ShouldBeTrue();
        line.Calls[0]
            .ShouldBe(new(State.Grounded, "N0TST is grounded.", "spar cracked. Tell the owner today.", GoTo.Found, $"{found.Number}"));
        line.Holds[0].ShouldBe(new(State.Grounded, "1 airworthiness open", GoTo.FixList));
    }

    [Fact]
    public void A_weak_cylinder_calls_for_another_try()
    {
        var inspection = Fixture.Inspection(aircraft);
        Fixture.Compress(inspection, aircraft, 2, 41);
        Line(inspection).Calls.ShouldContain(call => call.At == GoTo.Compressions && call.Key == "2" && call.Text.Contains("41"));
    }

    [Theory]
    [InlineData(DiscrepancyClass.Airworthiness, State.Airworthiness, "1 airworthiness open since 2026-11-23")]
    [InlineData(DiscrepancyClass.Watch, State.Watch, "1 more open")]
    public void What_a_signed_one_left_open_holds_the_aircraft_up(DiscrepancyClass @class, State state, string words)
    {
        var inspection = Fixture.Inspection(aircraft);
        var item = new OpenItem(aircraft.Id, inspection, Find(inspection, @class), Fixture.Today);
        Line(inspection, item).Holds.ShouldNotContain(hold => hold.At == GoTo.OpenItems, "in work they stand on its fix list");
        inspection.Sign();
        Line(inspection, item).Holds.Single().ShouldBe(new(state, words, GoTo.OpenItems));
        item.Close(new("put right", Fixture.Today, Fixture.Ines, "record 9"));
        Line(inspection, item).Holds.Select(hold => hold.Text)
            .ShouldBe(@class == DiscrepancyClass.Airworthiness ? ["unairworthy list of 26-1 cleared 2026-11-23"] : []);
    }
}
