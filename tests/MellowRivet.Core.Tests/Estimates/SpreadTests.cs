using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Tests.Estimates;

public class SpreadTests
{
    // The triangular law by hand: mean (a + b + c) / 3, variance (a² + b² + c² − ab − ac − bc) / 18.
    [Theory]
    [InlineData(2, 3, 5, 10.0 / 3, 7.0 / 18)]
    [InlineData(0, 0, 6, 2, 2)]
    [InlineData(0, 6, 6, 4, 2)]
    [InlineData(4, 4, 4, 4, 0)]
    public void Mean_and_variance_are_those_of_the_triangle(double low, double likely, double high, double mean, double variance)
    {
        var spread = new Spread((decimal)low, (decimal)likely, (decimal)high);
        ((double)spread.Mean).ShouldBe(mean, 1e-12);
        spread.Variance.ShouldBe(variance, 1e-12);
    }

    // One triangle by hand. F(x) = (x − a)² / ((c − a)(b − a)) below b: for 0..2..4 a tenth lies below √(0.1 · 4 · 2) = 0.894, and by
    // symmetry nine tenths below 4 − 0.894. For 0..0..6 F(x) = 1 − (6 − x)² / 36: nine tenths below 6 − 6√0.1.
    [Theory]
    [InlineData(0, 2, 4, 0.8944271909999159, 3.105572809000084)]
    [InlineData(0, 0, 6, 0.3079002116969172, 4.102633403898972)]
    public void A_tenth_and_nine_tenths_of_one_triangle(double low, double likely, double high, double p10, double p90)
    {
        var sum = SumOfSpreads.Of([new((decimal)low, (decimal)likely, (decimal)high), Spread.Of(100)]);
        sum.P10.ShouldBe(100 + p10, 1e-9);
        sum.P90.ShouldBe(100 + p90, 1e-9);
    }

    // Two symmetric triangles 0..1..2 together are the fourth-order B-spline on 0 to 4 (four uniform hours on 0 to 1, the Irwin–Hall
    // law): F(x) = x⁴ / 24 up to 1, so a tenth lies below the root of (x⁴ − 4(x − 1)⁴) / 24 = 0.1, which is 1.245… since F(1) = 1/24.
    [Fact]
    public void Two_triangles_together_are_convolved_exactly()
    {
        var sum = SumOfSpreads.Of([new(0, 1, 2), new(0, 1, 2)]);
        static double IrwinHall(double x) => (Math.Pow(x, 4) - (4 * Math.Pow(Math.Max(0, x - 1), 4)) + (6 * Math.Pow(Math.Max(0, x - 2), 4))
            - (4 * Math.Pow(Math.Max(0, x - 3), 4))) / 24;
        IrwinHall(sum.P10).ShouldBe(0.1, 1e-10);
        IrwinHall(sum.P90).ShouldBe(0.9, 1e-10);
        (sum.P10 + sum.P90).ShouldBe(4, 1e-9, "it is symmetric");
    }

    // Two that lean, against their sum counted on a grid of 400 by 400 cells.
    [Theory]
    [InlineData(1, 1, 9, 2, 7, 7)]
    [InlineData(0, 3, 4, 100, 100, 900)]
    public void Two_leaning_triangles_agree_with_a_count(int a, int b, int c, int d, int e, int f)
    {
        Spread one = new(a, b, c), other = new(d, e, f);
        var sum = SumOfSpreads.Of([one, other]);
        static IEnumerable<double> Cells(Spread of) => Enumerable.Range(0, 400).Select(cell => of.Quantile((cell + 0.5) / 400));
        var all = Cells(one).SelectMany(_ => Cells(other), (x, y) => x + y).Order().ToList();
        sum.P10.ShouldBe(all[all.Count / 10], (f - d + c - a) * 0.002);
        sum.P90.ShouldBe(all[all.Count * 9 / 10], (f - d + c - a) * 0.002);
    }

    // From three on the normal law with the exact mean and variance: 1.28155 of a deviation (NIST/SEMATECH e-Handbook 1.3.6.7.1).
    [Fact]
    public void Three_and_more_go_by_the_normal_law()
    {
        var sum = SumOfSpreads.Of([new(0, 1, 2), new(0, 1, 2), new(0, 1, 2), Spread.Of(10)]);
        (sum.Sum, sum.Mean).ShouldBe((new(10, 13, 16), 13));
        sum.Variance.ShouldBe(0.5, 1e-12);
        sum.P90.ShouldBe(13 + (1.28155 * Math.Sqrt(0.5)), 1e-4);
        sum.P10.ShouldBe(13 - (1.28155 * Math.Sqrt(0.5)), 1e-4);
    }

    // 28 h at 110 an hour are 3,080 (domain.md section 12).
    [Fact]
    public void Hours_at_a_rate()
    {
        Estimate.Of(28, null).Price(new(110, 130, 70)).ShouldBe(Spread.Of(3_080));
        new Estimate([new(Skill.Inspector, Spread.Of(2)), new(Skill.Assistant, new(1, 2, 3))], [new("hose", "", 10, "in", new(1, 1.5m, 2),
            5, false)],
            new("", Spread.Of(40), 3)).Price(new(110, 130, 70)).ShouldBe(new(260 + 70 + 10 + 40, 260 + 140 + 15 + 40, 260 + 210 + 20 + 40));
    }

    [Theory]
    [InlineData("2.5", "2.5")]
    [InlineData("2..3..5", "2..3..5")]
    [InlineData("2 - 3 - 5", "2..3..5")]
    [InlineData("2 to 3 to 5", "2..3..5")]
    [InlineData("2,5; 3; 5", "2.5..3..5")]
    [InlineData("1:30..2 h..1/2", null)]
    [InlineData("1:30..2 h..2 1/2", "1.5..2..2.5")]
    [InlineData("-1", null)]
    [InlineData("2..5", null)]
    [InlineData("5..3..2", null)]
    [InlineData("2..9..5", null)]
    [InlineData("1e12", null)]
    [InlineData("1000000000000", null)]
    [InlineData("a lot", null)]
    public void Hours_are_read_as_one_figure_or_as_three(string typed, string? reads)
    {
        var (spread, problem) = Estimate.ReadHours(typed);
        spread?.AsTyped.ShouldBe(reads);
        (problem is null).ShouldBe(reads is not null);
    }

    [Fact]
    public void A_price_says_what_is_wrong_with_it()
    {
        Estimate.ReadPrice("4,300", "Parts").Problem.ShouldBe(
            "Parts as a number, 2.5, or as low..likely..high: 2..3..5. “4,300” is none: thousands without a comma.");
        Estimate.ReadPrice("-20", "Parts").Problem!.ShouldContain("from 0 up");
        Estimate.ReadPrice("1000000000000", "Parts").Problem.ShouldBe("Parts below 10,000,000.");
        Estimate.ReadPrice("30..20..40", "Parts").Problem!.ShouldContain("rise from one to the next");
    }
}
