using FsCheck;
using FsCheck.Fluent;
using MathNet.Numerics.Distributions;
using MathNet.Numerics.LinearRegression;
using MellowRivet.Core.Trends;

namespace MellowRivet.Core.Tests.Trends;

public class TrendTests
{
    private static List<TrendPoint> Series(params (double Hours, double Value)[] points) =>
        [.. points.Select(point => new TrendPoint(point.Hours, point.Value))];

    // By hand: pairwise slopes of (0,0) (1,1) (2,2) (3,30) are 1, 1, 10, 1, 14.5, 28; their median is (1 + 10) / 2 = 5.5.
    // Residuals of y − 5.5x: 0, −4.5, −9, 13.5; median −2.25. Deviations from it: 2.25, 2.25, 6.75, 15.75; median 4.5, × 1.4826 = 6.6717.
    [Fact]
    public void The_robust_line_agrees_with_the_hand_calculation()
    {
        var line = new RobustFit(Series((0, 0), (1, 1), (2, 2), (3, 30)));
        line.Slope.ShouldBe(5.5, 1e-12);
        line.Intercept.ShouldBe(-2.25, 1e-12);
        line.Noise.ShouldBe(6.6717, 1e-9);
    }

    [Fact]
    public void One_wild_reading_bends_least_squares_and_not_the_robust_line()
    {
        var points = Enumerable.Range(0, 12).Select(i => new TrendPoint(i * 100, 78 - 0.5 * i + (i == 6 ? -40 : 0))).ToList();
        var (_, leastSquares) = SimpleRegression.Fit([.. points.Select(point => point.Hours)], [.. points.Select(point => point.Value)]);
        new RobustFit(points).Slope.ShouldBe(-0.005, 1e-12);
        Math.Abs(leastSquares - -0.005).ShouldBeGreaterThan(0.0005);
    }

    // On normal noise the robust noise estimates the standard deviation (that is what 1.4826 is for). MathNet draws the noise, seeded.
    [Fact]
    public void The_noise_estimates_the_standard_deviation_of_normal_scatter()
    {
        var noise = new Normal(0, 2, new Random(7)).Samples().Take(400).ToList();
        new RobustFit([.. noise.Select((value, i) => new TrendPoint(i, 0.3 * i + value))]).Noise.ShouldBe(2, 0.3);
    }

    [Fact]
    public void The_line_follows_any_shift_and_scale_of_its_series() => Prop.ForAll(Gen.Choose(-50, 50).ToArbitrary(), Gen.Choose(1, 20)
        .ToArbitrary(), (shift, scale) =>
    {
        var points = Series((0, 3), (100, 5), (230, 4), (310, 9), (420, 8));
        var moved = points.Select(point => new TrendPoint(point.Hours, point.Value * scale + shift)).ToList();
        return Math.Abs(new RobustFit(moved).Slope - new RobustFit(points).Slope * scale) < 1e-9;
    }).QuickCheckThrowOnFailure();

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(3)]
    public void Under_four_readings_there_is_no_forecast_and_it_says_so(int count)
    {
        var trend = Trend.Read(Enumerable.Range(0, count).Select(i => new TrendPoint(i * 100, 70 - i)), limit: 60);
        (trend.Line, trend.Next, trend.Crossing, trend.LastIsUnusual).ShouldBe((null, null, null, null));
        trend.N.ShouldBe(count);
        trend.Why.ShouldContain("a forecast needs 4");
    }

    [Fact]
    public void An_event_that_restarts_leaves_the_readings_before_it_out()
    {
        var points = Series((100, 70), (200, 65), (300, 60), (400, 78), (500, 77), (600, 76), (700, 75));
        Trend.Read(points).N.ShouldBe(7);
        Trend.Read(points, [new(350, Restarts: false)]).N.ShouldBe(7);
        var after = Trend.Read(points, [new(350, Restarts: true)], limit: 60);
        after.N.ShouldBe(4);
        after.Line!.Slope.ShouldBe(-0.01, 1e-12);
        after.Crossing!.Hours.ShouldBe(2200, 1e-6);
        Trend.Read(points, [new(350, true), new(450, true)]).Why.ShouldContain("3 readings since the restart at 450 h");
    }

    [Fact]
    public void The_band_covers_what_the_noise_does_and_no_more()
    {
        // Student's t at 97.5 % with 4 degrees of freedom is 2.776 (any table); six points, mean 250, S = 175 000.
        var points = Series((0, 10), (100, 12), (200, 9), (300, 11), (400, 10), (500, 11));
        var line = new RobustFit(points);
        var band = line.Expect(600);
        (band.High - band.Expected).ShouldBe(2.776 * line.Noise * Math.Sqrt(1 + 1 / 6.0 + 350.0 * 350 / 175_000), 0.001 * line.Noise);
        (band.Expected - band.Low).ShouldBe(band.High - band.Expected, 1e-9);
    }

    [Fact]
    public void The_band_edges_meet_the_limit_at_the_ends_of_the_crossing()
    {
        var points = Series((0, 78.2), (100, 77.1), (200, 76.3), (300, 74.8), (400, 74.1), (500, 73));
        var crossing = Trend.Read(points, limit: 60).Crossing.ShouldNotBeNull();
        var line = new RobustFit(points);
        line.At(crossing.Hours).ShouldBe(60, 1e-9);
        line.Expect(crossing.Earliest!.Value).Low.ShouldBe(60, 1e-6);
        line.Expect(crossing.Latest!.Value).High.ShouldBe(60, 1e-6);
        crossing.Earliest.Value.ShouldBeLessThan(crossing.Hours);
        crossing.Latest.Value.ShouldBeGreaterThan(crossing.Hours);
    }

    [Fact]
    public void A_line_that_does_not_get_worse_never_meets_its_limit()
    {
        var rising = Series((0, 70), (100, 71), (200, 72), (300, 73));
        Trend.Read(rising, limit: 60, direction: Direction.Falling).Crossing.ShouldBeNull();
        Trend.Read(rising, limit: 80, direction: Direction.Rising).Crossing!.Hours.ShouldBe(1000, 1e-6);
    }

    // What is said of a limit agrees with itself: past it already and met later can't both be.
    [Fact]
    public void A_last_reading_past_the_limit_needs_no_forecast()
    {
        var slow = Series((0, 78), (100, 77), (200, 76), (300, 75), (400, 15));
        Trend.Read(slow, limit: 60)
            .ShouldSatisfyAllConditions(trend => trend.Crossing.ShouldBeNull(), trend => trend.IsPast.ShouldBeTrue(),
                trend => trend.Why.ShouldStartWith("The last reading is past the limit already, sooner than the line"));
        Trend.Read(Series((0, 78), (100, 40)), limit: 60).IsPast.ShouldBeTrue("two readings make no line, and one of them is past it");
        Trend.Read(Series((0, 78), (100, 60)), limit: 60).IsPast.ShouldBeFalse();
        var steady = Series((0, 78), (100, 72), (200, 66), (300, 60), (400, 54));
        Trend.Read(steady, limit: 60)
            .ShouldSatisfyAllConditions(trend => trend.Crossing!.Hours.ShouldBe(300, 1e-6),
                trend => trend.Why.ShouldStartWith("The line has already met the limit, and the last reading is past it."));
        var recovered = Series((0, 78), (100, 72), (200, 66), (300, 59), (400, 61));
        Trend.Read(recovered, limit: 64).Why.ShouldContain("past it");
        Trend.Read(Series((0, 78), (100, 72), (200, 66), (300, 60), (400, 65)),
            limit: 62).Why.ShouldContain("the last reading still holds");
    }

    [Fact]
    public void A_slope_lost_in_the_noise_has_no_latest_crossing()
    {
        var trend = Trend.Read(Series((0, 70), (100, 76), (200, 66), (300, 75), (400, 65), (500, 72)), limit: 60);
        trend.Crossing.ShouldNotBeNull().Latest.ShouldBeNull();
        trend.Why.ShouldContain("scatter too much");
    }

    [Theory]
    [InlineData(75.6, false)]
    [InlineData(66, true)]
    public void The_last_reading_is_held_against_the_history_before_it(double last, bool unusual)
    {
        var before = Series((0, 78), (100, 77.4), (200, 77.1), (300, 76.4), (400, 76.1));
        Trend.Read([.. before, new(500, last)]).LastIsUnusual.ShouldBe(unusual);
    }

    [Fact]
    public void With_too_little_history_the_last_reading_is_neither_usual_nor_unusual() =>
        Trend.Read(Series((0, 78), (100, 77), (200, 76), (300, 40))).LastIsUnusual.ShouldBeNull();

    [Fact]
    public void Readings_all_at_one_time_give_no_line() =>
        Trend.Read(Series((100, 70), (100, 71), (100, 72), (100, 73))).Line.ShouldBeNull();
}
