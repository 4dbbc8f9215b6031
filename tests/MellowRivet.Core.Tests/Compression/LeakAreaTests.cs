using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Compression;

public class LeakAreaTests
{
    private static readonly Psi Supply = new(80);
    private static readonly Psi SeaLevel = new(14.7);

    // Worked by hand from the isentropic relations (NASA Glenn's compressible mass-flow page, from memory), two decimals.
    // 60/80: p_c/p_s = 74.7/94.7 = 0.7888, ψ = 0.5668; p_a/p_c = 0.1968 is choked, ψ = 0.6847; 94.7·0.5668/(74.7·0.6847) = 1.05.
    [Theory]
    [InlineData(78, 0.30)]
    [InlineData(75, 0.49)]
    [InlineData(60, 1.06)]
    [InlineData(15, 3.19)]
    public void The_leak_area_agrees_with_the_hand_calculation(double held, double area) =>
        LeakArea.MultipleOfMaster(new Psi(held), Supply, SeaLevel).ShouldBe(area, 0.006);

    [Fact]
    public void A_cylinder_that_holds_all_of_it_leaks_nothing() => LeakArea.MultipleOfMaster(Supply, Supply, SeaLevel).ShouldBe(0);

    [Fact]
    public void A_cylinder_that_holds_nothing_leaks_without_bound() =>
        LeakArea.MultipleOfMaster(new Psi(0), Supply, SeaLevel).ShouldBe(double.PositiveInfinity);

    [Fact]
    public void A_reading_above_the_supply_is_refused() =>
        Should.Throw<ArgumentOutOfRangeException>(() => LeakArea.MultipleOfMaster(new Psi(80.1), Supply, SeaLevel));

    [Fact]
    public void The_area_rises_as_the_reading_falls() => Prop.ForAll(Readings(), Readings(), (one, other) =>
    {
        var (high, low) = (Math.Max(one, other), Math.Min(one, other));
        return high - low < 1e-6
            || LeakArea.MultipleOfMaster(new Psi(low), Supply, SeaLevel) > LeakArea.MultipleOfMaster(new Psi(high), Supply, SeaLevel);
    }).QuickCheckThrowOnFailure();

    [Fact]
    public void The_reading_for_an_area_is_the_way_back() => Prop.ForAll(Readings(), held =>
        Math.Abs(LeakArea.ReadingFor(LeakArea.MultipleOfMaster(new Psi(held), Supply, SeaLevel), Supply, SeaLevel).Value - held) < 1e-6)
        .QuickCheckThrowOnFailure();

    private static Arbitrary<double> Readings() => Gen.Choose(1, 79_999).Select(thousandths => thousandths / 1000.0).ToArbitrary();
}
