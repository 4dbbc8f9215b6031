using MellowRivet.Core.Estimates;
using MellowRivet.Core.Schedule;

namespace MellowRivet.Core.Tests.Schedule;

// The spread is drawn; closed forms say what it has to come to. Everybody works round the clock here, so that hours are dates, and the
// share of runs that are ready by a day is the law at that day's midnight.
public sealed class SpreadOfThePlanTests
{
    private const int Runs = 20_000;
    private static readonly DateOnly Monday = RandomShop.Monday;

    private static readonly WorkWeek Always = new(new(0, 0), 24, Enum.GetValues<DayOfWeek>(), []);

    // With 20,000 runs a share p is known to within three times sqrt(p (1 - p) / 20,000), at most 1.1 of a hundred.
    private static readonly double Close = 3 * Math.Sqrt(0.25 / Runs);

    private static double ShareReadyAfter(int days, params (string Hand, Spread Hours, string[] After)[] jobs) => Planner.Plan(
        new(Monday, [.. jobs.Select(job => job.Hand).Distinct().Select(hand => new Hand(hand, hand, [hand], Always))],
            [.. jobs.Select((job, index) => new PlanJob($"{index}", "N0A") { Skill = job.Hand, Hours = job.Hours, After = job.After })],
            new Dictionary<string, int>(), new Dictionary<string, DateOnly> { ["N0A"] = Monday.AddDays(days - 1) }),
        7, new(0, TimeSpan.FromMinutes(1), Runs)).Aircraft[0].InTime;

    // SumOfSpreads has the sum of two triangles exactly, held against Irwin-Hall in its own tests: hours chosen so that its tenth and its
    // nine tenths, 129.5 and 177.4 times a factor, fall on midnights.
    [Fact]
    public void Two_jobs_one_after_the_other_take_the_sum_of_two_triangles()
    {
        Spread[] both = [new(20, 30, 70), new(100, 140, 150)];
        foreach (var (share, days) in new[] { (0.1, 7), (0.9, 10) })
        {
            var sum = SumOfSpreads.Of(both);
            var factor = (decimal)(days * 24 / (share < 0.5 ? sum.P10 : sum.P90));
            var (one, two) = (both[0].Times(factor), both[1].Times(factor));
            ShareReadyAfter(days, ("Ines", one, []), ("Ines", two, ["0"])).ShouldBe(share, Close);
        }
    }

    // The longer of two independent jobs is under a value when both are: the product of their laws, from the triangle's own formula.
    [Fact]
    public void Two_jobs_beside_each_other_take_the_longer_of_two_triangles()
    {
        static double Under(double x, double a, double c, double b) =>
            x <= a ? 0 : x >= b ? 1 : x <= c ? (x - a) * (x - a) / ((b - a) * (c - a)) : 1 - ((b - x) * (b - x) / ((b - a) * (b - c)));
        foreach (var days in new[] { 7, 8, 9, 10, 11 })
            ShareReadyAfter(days, ("Ines", new(96, 144, 288), []), ("Wim", new(120, 192, 216), []))
                .ShouldBe(Under(days * 24, 96, 144, 288) * Under(days * 24, 120, 192, 216), Close);
    }

    [Theory]
    [InlineData(0.5, 5)]
    [InlineData(0.9, 9)]
    [InlineData(1, 10)]
    [InlineData(0.01, 1)]
    public void A_share_is_the_run_that_so_many_are_at_or_under(double share, int value) =>
        HangarPlan.At([1, 2, 3, 4, 5, 6, 7, 8, 9, 10], share).ShouldBe(value);
}
