using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Tests.Inspections;

/// <summary>What was said of one reading stands in the next one’s field.</summary>
public sealed class SaidOnceTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();

    [Fact]
    public void The_temperature_at_a_cable_is_said_once_until_it_may_have_changed()
    {
        var inspection = Fixture.Inspect(aircraft, [Fixture.Small]);
        ReadingConditions? At(double hours) => inspection.TakenLast(MeasureMethod.CableTension, Fixture.Now.AddHours(hours));
        At(0).ShouldBeNull("nobody has said it yet");
        inspection.Record(new(Guid.NewGuid(), aircraft.Id, null, "cable", "", 38, Unit.Pound, new(Celsius: 18), new(1000), Fixture.Now,
            Fixture.Ines) { InspectionId = inspection.Id });
        At(1.9)!.Celsius.ShouldBe(18);
        At(2.1).ShouldBeNull();
        inspection.TakenLast(MeasureMethod.Torque, Fixture.Now).ShouldBeNull("a cable was pulled with no wrench");
    }
}
