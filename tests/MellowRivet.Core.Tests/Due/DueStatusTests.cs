using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Due;

namespace MellowRivet.Core.Tests.Due;

public class DueStatusTests
{
    private static readonly DateOnly Today = new(2026, 11, 23);

    private static Counted Flown(double hours, double? perDay = 0.5) =>
        new((decimal)hours, Today, perDay is { } rate ? new Utilisation(rate, rate * 0.8, rate * 1.25, 12) : null);

    private static DueStatus Hundred(double now, double done = 1100, double? perDay = 0.5) =>
        DueStatus.Of(new(100, GraceHours: 10), new(new DateOnly(2026, 6, 1), (decimal)done), new(Today, Flown(now, perDay)));

    // Both edges of each state; ten hours and thirty days are the product's own "soon", common practice.
    [Theory]
    [InlineData(1150.0, 0.1, DueState.Ok)]
    [InlineData(1189.9, 0.1, DueState.Ok)]
    [InlineData(1190.0, 0.1, DueState.Soon)]
    [InlineData(1200.0, 0.1, DueState.Soon)]
    [InlineData(1200.1, 0.1, DueState.Grace)]
    [InlineData(1210.0, 0.1, DueState.Grace)]
    [InlineData(1210.1, 0.1, DueState.Overdue)]
    [InlineData(1185.0, 0.5, DueState.Soon)]
    [InlineData(1184.0, 0.5, DueState.Ok)]
    public void A_hundred_hours_stands_where_the_tach_says(double now, double perDay, DueState state) =>
        Hundred(now, perDay: perDay).State.ShouldBe(state);

    [Theory]
    [InlineData("2026-11-22", DueState.Overdue)]
    [InlineData("2026-11-23", DueState.Soon)]
    [InlineData("2026-12-23", DueState.Soon)]
    [InlineData("2026-12-24", DueState.Ok)]
    public void A_date_is_good_through_its_day(string notAfter, DueState state) =>
        DueStatus.Of(new(NotAfter: DateOnly.Parse(notAfter)), null, new(Today, Counted.Unknown)).State.ShouldBe(state);

    // 50 h left at half an hour a day: a hundred days.
    [Fact]
    public void The_forecast_is_the_aircrafts_own_use()
    {
        var status = Hundred(1150);
        status.Forecast.ShouldBe(Today.AddDays(100));
        status.Governing!.Earliest.ShouldBe(Today.AddDays(80));
        status.Governing.Latest.ShouldBe(Today.AddDays(125));
        status.Limb(LimbKind.Hours)!.Remaining.ShouldBe(50);
    }

    [Fact]
    public void A_tach_read_a_while_ago_has_flown_on_since() =>
        DueStatus.Of(new(100), new(null, 1100),
            new(Today, new(1150, Today.AddDays(-40), new(0.5, null, null, 2)))).Forecast.ShouldBe(Today.AddDays(60));

    [Fact]
    public void Whichever_limb_is_forecast_first_governs() => Prop.ForAll(Gen.Choose(1, 400).ToArbitrary(), Gen.Choose(1, 30)
        .ToArbitrary(), Gen.Choose(1, 40).ToArbitrary(), (left, months, tenthsPerDay) =>
    {
        var status = DueStatus.Of(new(1000, months), new(Today, 500), new(Today, Flown(1500 - left, tenthsPerDay / 10.0)));
        var first = status.Limbs.Min(limb => limb.Forecast);
        return status.Governing!.Forecast == first && status.Limbs.All(limb => limb.Forecast >= status.Forecast);
    }).QuickCheckThrowOnFailure();

    [Fact]
    public void A_missing_history_is_never_fine()
    {
        DueStatus.Of(new(100, 12), null, new(Today, Flown(1150))).State.ShouldBe(DueState.Unknown);
        DueStatus.Of(new(100), new(Today, null), new(Today, Flown(1150))).Why.ShouldContain("hours when it was last done");
        DueStatus.Of(new(EveryMonths: 12), new(null, 1100), new(Today, Flown(1150))).Why.ShouldContain("the day it was last done");
        DueStatus.Of(new(100), new(Today, 1100), new(Today, Counted.Unknown)).State.ShouldBe(DueState.Unknown);
        DueStatus.Of(new(), new(Today, 1100), new(Today, Flown(1150))).State.ShouldBe(DueState.Unknown);
    }

    [Fact]
    public void What_is_known_to_be_overdue_is_overdue_whatever_else_is_missing() =>
        DueStatus.Of(new(100, 12), new(new DateOnly(2024, 1, 1)), new(Today, Flown(1150))).State.ShouldBe(DueState.Overdue);

    [Fact]
    public void Fewer_than_two_readings_give_no_forecast_and_say_so()
    {
        var status = Hundred(1150, perDay: null);
        (status.Forecast, status.Governing!.Kind, status.State).ShouldBe((null, LimbKind.Hours, DueState.Ok));
        status.Why.ShouldContain("two readings");
    }

    [Fact]
    public void An_overrun_beyond_what_is_allowed_is_named()
    {
        var status = DueStatus.Of(new(100, GraceHours: 10), new(Today, 1212, 1200), new(Today, Flown(1220)));
        status.Limb(LimbKind.Hours)!.DueAt.ShouldBe(1300);
        status.Why.ShouldContain("overflown by 12 h");
    }

    [Fact]
    public void Landings_and_cycles_count_as_hours_do()
    {
        var counts = new DueNow(Today, Counted.Unknown, new(13_900, Today, new(4, null, null, 9)), new(50, Today, null));
        DueStatus.Of(new(EveryLandings: 4000), new(Landings: 9_880), counts).State.ShouldBe(DueState.Overdue);
        DueStatus.Of(new(EveryLandings: 4000), new(Landings: 9_900), counts).State.ShouldBe(DueState.Soon);
        DueStatus.Of(new(EveryCycles: 500), new(Cycles: 10), counts).Limb(LimbKind.Cycles)!.Remaining.ShouldBe(460);
    }
}

public class UtilisationTests
{
    private static readonly DateOnly Start = new(2025, 1, 1);

    [Fact]
    public void A_steady_use_is_read_as_it_is()
    {
        var use = Utilisation.Of(Enumerable.Range(0, 20).Select(month => new Count(Start.AddDays(month * 30), 100 + month * 12)))!;
        use.PerDay.ShouldBe(0.4, 1e-9);
        (use.SlowPerDay, use.BusyPerDay).ShouldBe((0.4, 0.4));
    }

    // By hand: pairs (0,10) 0.1; (0,40) 0.4; (10,40)/20 days... three readings at days 0, 10, 30 with totals 0, 1, 16:
    // slopes 0.1, 16/30 = 0.533, 15/20 = 0.75; the median is 0.533.
    [Fact]
    public void The_rate_is_the_median_of_all_pairwise_slopes() =>
        Utilisation.Of([new(Start, 0), new(Start.AddDays(10), 1), new(Start.AddDays(30), 16)])!.PerDay.ShouldBe(16.0 / 30, 1e-9);

    [Fact]
    public void Seasons_show_as_a_range_around_it()
    {
        var total = 0m;
        var use = Utilisation.Of(Enumerable.Range(0, 24)
            .Select(month => new Count(Start.AddMonths(month), total += month % 12 is > 3 and < 9 ? 30 : 5)))!;
        use.SlowPerDay!.Value.ShouldBeLessThan(use.PerDay);
        use.BusyPerDay!.Value.ShouldBeGreaterThan(use.PerDay);
    }

    [Fact]
    public void What_was_long_ago_does_not_say_how_it_flies_now()
    {
        var busyOnce = Enumerable.Range(0, 40).Select(week => new Count(new DateOnly(2015, 1, 1).AddDays(week * 7), week * 20));
        var now = Enumerable.Range(0, 10).Select(month => new Count(Start.AddMonths(month), 1000 + month * 3));
        Utilisation.Of(busyOnce.Concat(now))!.PerDay.ShouldBe(0.1, 0.01);
    }

    [Fact]
    public void One_day_of_readings_is_no_use_at_all()
    {
        Utilisation.Of([]).ShouldBeNull();
        Utilisation.Of([new(Start, 10), new(Start, 12)]).ShouldBeNull();
    }
}
