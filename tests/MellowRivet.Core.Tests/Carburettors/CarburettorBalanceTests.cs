using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Tests.Carburettors;

public class CarburettorBalanceTests
{
    // There is no usual limit: what the manual hasn't said is unknown, never good.
    [Fact]
    public void Without_the_manuals_limit_nothing_is_judged() =>
        CarburettorBalance.Judge(0.1, Fixture.Aircraft()).Verdict.ShouldBe(Verdict.Unknown);

    // By hand: 1 inHg is 33.864 mbar (NIST SP 811), so 20 mbar are 0.59 inHg and the limit of 2 kPa lies between 0.5 and 0.6.
    [Theory]
    [InlineData(0.5, Verdict.Good)]
    [InlineData(0.6, Verdict.Reject)]
    public void The_manuals_limit_holds_in_its_own_unit(double inchesOfMercury, Verdict verdict)
    {
        var aircraft = Fixture.Aircraft();
        aircraft.SetLimit(new(CarburettorBalance.Kind, "kPa", null, 2, "manual 73-10"));
        var said = CarburettorBalance.Judge(inchesOfMercury, aircraft);
        (said.Verdict, said.Source.Standing).ShouldBe((verdict, Standing.Manual));
    }
}
