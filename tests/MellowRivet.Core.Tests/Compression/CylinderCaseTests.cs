using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Tests.Compression;

public class CylinderCaseTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Inspection inspection;

    public CylinderCaseTests() => inspection = Fixture.Inspection(aircraft);

    private Component Engine => aircraft.Engines.First().Component;

    private void Read(int number, double psi, Leaks leak = default, bool hot = true, bool again = false, int minute = 0) =>
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, aircraft.Cylinder(Engine, number)!.Id, Reading.CompressionKind, $"{number}", psi,
            Unit.Psi,
            new(hot, 80, 14.7, null, leak, again), aircraft.TimeInService, Fixture.Now.AddMinutes(minute), Fixture.Ines)
        { InspectionId = inspection.Id });

    private CaseFile Case(int number, params PlugLook[] looks) =>
        CaseFile.Of(CompressionSheet.Of(aircraft, Engine, inspection), number,
        CylinderHistory.Of(aircraft, Engine, number, inspection.Readings, null), new(looks, null, [], null));

    private void Mates()
    {
        foreach (var number in new[] { 1, 3, 4 })
            Read(number, 77);
    }

    // domain.md section 4, common practice: the exhaust pipe is the exhaust valve, the oil filler the rings.
    [Theory]
    [InlineData(LeakPath.ExhaustValve, WeakCause.ExhaustValve)]
    [InlineData(LeakPath.IntakeValve, WeakCause.IntakeValve)]
    [InlineData(LeakPath.Rings, WeakCause.Rings)]
    [InlineData(LeakPath.HeadGasket, WeakCause.HeadGasket)]
    [InlineData(LeakPath.Crack, WeakCause.Crack)]
    public void Where_it_leaks_speaks_loudest(LeakPath leak, WeakCause cause)
    {
        Mates();
        Read(2, 55, leak);
        Case(2, PlugLook.OilWet).Causes[0].Cause.ShouldBe(cause);
    }

    [Fact]
    public void Rings_that_seat_when_rocked_are_suspected_and_a_valve_less()
    {
        Mates();
        Read(2, 56);
        Read(2, 66, again: true, minute: 5);
        var said = Case(2, PlugLook.OilWet);
        said.Causes[0].Cause.ShouldBe(WeakCause.Rings);
        said.Causes.ShouldNotContain(cause => cause.Cause == WeakCause.ExhaustValve);
        said.Next.ShouldContain("Rock it");
    }

    [Fact]
    public void Where_all_are_low_the_test_itself_is_suspected()
    {
        foreach (var number in new[] { 1, 2, 3, 4 })
            Read(number, 62 + number, hot: false);
        var said = Case(2);
        said.Causes[0].Cause.ShouldBe(WeakCause.TestItself);
        said.Next.ShouldContain("orifice");
    }

    [Fact]
    public void Every_path_that_was_heard_speaks()
    {
        Mates();
        Read(2, 15, new Leaks([LeakPath.Rings, LeakPath.ExhaustValve, LeakPath.IntakeValve]));
        Case(2).Causes.Select(cause => cause.Cause)
            .ShouldBe([WeakCause.ExhaustValve, WeakCause.IntakeValve, WeakCause.Rings], ignoreOrder: true);
        Case(2).Facts.Count(fact => fact.Words.Contains("air at", StringComparison.Ordinal)).ShouldBe(3);
    }

    [Fact]
    public void A_cylinder_that_holds_has_nothing_to_be_explained()
    {
        Mates();
        Read(2, 78);
        Case(2, PlugLook.White, PlugLook.OilWet)
            .ShouldSatisfyAllConditions(said => said.Causes.ShouldBeEmpty(), said => said.IsHealthy.ShouldBeTrue(),
                said => said.Next.ShouldContain("nothing to look for"));
        Case(2, PlugLook.White).Facts.ShouldNotBeEmpty("what is on file stays in sight");
    }

    [Fact]
    public void Without_a_fact_nothing_is_likelier_than_the_rest()
    {
        Case(2).Causes.ShouldBeEmpty();
        Case(2).Next.ShouldContain("Listen");
    }
}
