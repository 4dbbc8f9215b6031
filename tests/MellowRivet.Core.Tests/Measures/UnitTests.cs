using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Measures;

public class UnitTests
{
    // NIST SP 811, appendix B, from memory.
    [Theory]
    [InlineData("in", "mm", 1, 25.4)]
    [InlineData("ft-lb", "N·m", 1, 1.3558179483)]
    [InlineData("in-lb", "N·m", 1, 0.1129848290)]
    [InlineData("ft-lb", "in-lb", 35, 420)]
    [InlineData("psi", "kPa", 1, 6.894757)]
    [InlineData("bar", "psi", 1, 14.503774)]
    [InlineData("°F", "°C", 212, 100)]
    [InlineData("°C", "°F", -40, -40)]
    [InlineData("lb", "N", 1, 4.4482216152605)]
    public void Conversions_are_the_published_ones(string from, string to, double value, double expected) =>
        Unit.Find(from)!.To(Unit.Find(to)!, value).ShouldBe(expected, Math.Abs(expected) * 1e-6);

    // Torque pairs that bulletins print (common practice): 17 N·m = 150 in-lb, 200 N·m = 147.5 ft-lb.
    [Theory]
    [InlineData(17, "in-lb", 150, 0.5)]
    [InlineData(200, "ft-lb", 147.5, 0.05)]
    public void Printed_torque_pairs_agree(double newtonMetres, string unit, double expected, double within) =>
        Unit.NewtonMetre.To(Unit.Find(unit)!, newtonMetres).ShouldBe(expected, within);

    [Fact]
    public void Every_conversion_goes_there_and_back()
    {
        var pairs = Unit.All.SelectMany(one => one.Alternatives, (one, other) => (one, other)).ToArray();
        Prop.ForAll(Gen.Elements(pairs).ToArbitrary(), Gen.Choose(-100_000, 100_000).ToArbitrary(), (pair, value) =>
            Math.Abs(pair.other.To(pair.one, pair.one.To(pair.other, value)) - value) < 1e-6).QuickCheckThrowOnFailure();
    }

    [Fact]
    public void Units_of_different_things_do_not_convert() => Should.Throw<ArgumentException>(() => Unit.Psi.To(Unit.Inch, 1));

    [Theory]
    [InlineData("31", 31.0)]
    [InlineData("0,018", 0.018)]
    [InlineData(" -4.5 ", -4.5)]
    [InlineData("abc", null)]
    [InlineData("1e9", null)]
    [InlineData("1.2.3", null)]
    [InlineData("∞", null)]
    [InlineData("NaN", null)]
    [InlineData("", null)]
    public void A_number_is_read_as_hands_type_it(string text, double? expected) => TypedNumber.Parse(text).ShouldBe(expected);

    [Theory]
    [InlineData(double.NaN)]
    [InlineData(double.PositiveInfinity)]
    [InlineData(-0.1)]
    public void A_pressure_refuses_nonsense(double value) => Should.Throw<ArgumentOutOfRangeException>(() => new Psi(value));

    [Theory]
    [InlineData(34.999, Verdict.Reject)]
    [InlineData(35, Verdict.Good)]
    [InlineData(41, Verdict.Good)]
    [InlineData(41.001, Verdict.Reject)]
    public void A_band_is_good_up_to_and_with_its_limits(double value, Verdict verdict) =>
        Band(35, 41).Judge(value).Verdict.ShouldBe(verdict);

    [Theory]
    [InlineData(null, 5000.0, 5000, Verdict.Good)]
    [InlineData(null, 5000.0, 5001, Verdict.Reject)]
    [InlineData(12.4, null, 12.3, Verdict.Reject)]
    [InlineData(12.4, null, 12.4, Verdict.Good)]
    [InlineData(null, null, 12.4, Verdict.Unknown)]
    public void A_missing_limit_bounds_nothing_and_no_limit_at_all_can_not_tell(double? low, double? high, double value, Verdict verdict) =>
        Band(low, high).Judge(value).Verdict.ShouldBe(verdict);

    private static ToleranceBand Band(double? low, double? high) => new(Unit.Pound, low, high, new(Standing.Manual, "test"));
}
