using MathNet.Numerics;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Tests.EngineRun;

public class PressureAltitudeTests
{
    private static readonly double[] Feet = [0, 2_000, 4_000, 6_000, 8_000, 10_000];
    private static readonly double[] Before = [66.2, 62.9, 60.4, 56.8, 54.1, 50.9];
    private static readonly double[] After = [67.0, 65.1, 63.0, 61.2, 58.7, 57.1];

    private static AltitudeFit Line(double[] psi) => AltitudeFit.Fit([.. Feet.Zip(psi, (feet, held) => new AltitudePoint(feet, held))])!;

    // Reference: scipy.stats.linregress of SciPy 1.10.1 (Debian python3-scipy) on the same data, and MathNet.Numerics.
    [Fact]
    public void The_line_is_that_of_two_reference_libraries()
    {
        var line = Line(Before);
        (line.PsiPerFoot, line.AtSeaLevel, line.Residual).ShouldBe((-0.0015214285714285716, 66.15714285714286, 0.23603873774083375),
            new Close());
        var (intercept, slope) = Fit.Line(Feet, Before);
        (line.PsiPerFoot, line.AtSeaLevel).ShouldBe((slope, intercept), new Close2());
    }

    // Reference: the two lines' standard errors and Student's t at 97.5 % and 4 degrees of freedom, by SciPy 1.10.1.
    [Theory]
    [InlineData(0, 0.8952380952380992, 0.6091788174948185)]
    [InlineData(8_000, 5.00952380952382, 0.4573453793800587)]
    public void The_gain_has_the_uncertainty_of_both_lines(double feet, double gain, double half)
    {
        var said = AltitudeFit.Gain(Line(Before), Line(After), feet);
        said.Value.ShouldBe(gain, 1e-9);
        said.Half.ShouldBe(half, 1e-9);
    }

    // Reference: scipy.stats.theilslopes of SciPy 1.10.1 on the same data; intercept and noise as the medians of what remains.
    [Fact]
    public void The_robust_line_is_that_of_a_reference_library()
    {
        double[] hours = [2010.4, 2120, 2236.6, 2340.2, 2455.8, 2561.4, 2671, 2787.6], areas = [.30, .34, .33, .41, .44, .43, .52, .95];
        var line = new RobustFit([.. hours.Zip(areas, (at, value) => new TrendPoint(at, value))]);
        line.Slope.ShouldBe(0.00033328302715413736, 1e-12);
        line.Intercept.ShouldBe(-0.3701155816596894, 1e-9);
        line.Noise.ShouldBe(0.00883365735625981, 1e-9);
    }

    [Fact]
    public void Two_points_or_one_altitude_make_no_line()
    {
        AltitudeFit.Fit([new(0, 60), new(1_000, 58)]).ShouldBeNull();
        AltitudeFit.Fit([new(1_000, 60), new(1_000, 58), new(1_000, 59)]).ShouldBeNull();
    }

    [Theory]
    [InlineData("2000 61,5\n4000;60", 2, null)]
    [InlineData("2000", 0, "such as 6000 54")]
    [InlineData("2000 600", 0, "such as 6000 54")]
    [InlineData("", 0, null)]
    public void Points_are_read_as_hands_type_them(string typed, int points, string? problem)
    {
        var read = AltitudeFit.Read(typed);
        read.Points.Count.ShouldBe(points);
        (read.Refusal is null).ShouldBe(problem is null);
        read.Refusal?.Message.ShouldContain(problem!);
    }

    private sealed class Close : IEqualityComparer<(double, double, double)>
    {
        public bool Equals((double, double, double) one, (double, double, double) other) =>
            Math.Abs(one.Item1 - other.Item1) < 1e-12 && Math.Abs(one.Item2 - other.Item2) < 1e-9
                && Math.Abs(one.Item3 - other.Item3) < 1e-9;

        public int GetHashCode((double, double, double) values) => 0;
    }

    private sealed class Close2 : IEqualityComparer<(double, double)>
    {
        public bool Equals((double, double) one, (double, double) other) =>
            Math.Abs(one.Item1 - other.Item1) < 1e-12 && Math.Abs(one.Item2 - other.Item2) < 1e-9;

        public int GetHashCode((double, double) pair) => 0;
    }
}

public class AltitudeComparisonTests
{
    private static readonly AltitudePoint[] Three = [new(2_000, 74), new(6_000, 70), new(10_000, 66)];

    // By hand: after falls 1 psi in 1000 ft from 76 at sea level, so 70 at 6000 ft; 54 was read there before.
    [Fact]
    public void One_reading_before_against_a_line_after_is_an_answer_without_certainty()
    {
        var said = AltitudeComparison.Of([new(6_000, 54)], Three);
        said.InWords.ShouldBe("16 psi more at 6000 ft, from one reading before: no certainty given.");
        said.Half.ShouldBeNull();
    }

    [Fact]
    public void It_goes_the_other_way_round_too() =>
        AltitudeComparison.Of(Three, [new(6_000, 54)]).InWords
            .ShouldBe("16 psi less at 6000 ft, from one reading after: no certainty given.");

    [Theory]
    [InlineData(6_000, 6_400, 10.0)]
    [InlineData(6_000, 6_500, 10.0)]
    [InlineData(6_000, 6_501, null)]
    public void Two_readings_are_compared_at_one_altitude_alone(double before, double after, double? gain) =>
        AltitudeComparison.Of([new(before, 54)], [new(after, 64)]).Psi.ShouldBe(gain);

    [Fact]
    public void Nothing_on_a_side_says_which()
    {
        AltitudeComparison.Of([], Three).InWords.ShouldContain("before");
        AltitudeComparison.Of(Three, []).InWords.ShouldContain("after");
    }

    [Fact]
    public void Three_on_each_side_have_a_band()
    {
        AltitudePoint[] before = [new(2_000, 61), new(6_000, 58), new(10_000, 52)];
        var said = AltitudeComparison.Of(before, [new(2_000, 74), new(6_000, 71), new(10_000, 66)], 6_000);
        said.Half.ShouldNotBeNull().ShouldBeGreaterThan(0);
        said.Feet.ShouldBe(6_000);
    }
}
