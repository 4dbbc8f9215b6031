using MellowRivet.Core.Compression;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Compression;

public class CompressionJudgeTests
{
    private static readonly TestConditions Hot = TestConditions.Usual;
    private static readonly TestConditions Cold = Hot with { Hot = false };

    private static Judgement Judge(CompressionLimits limits, TestConditions conditions, double psi, LeakPath leak = LeakPath.None,
        bool again = false) =>
        CompressionJudge.Judge(limits, conditions, new(1, new Psi(psi), leak, again)).Judgement;

    // AC 43.13-1B chapter 8, from memory: below 60/80 hot, after a second try, the cylinder comes off. 60 to 69 watched: common practice.
    [Theory]
    [InlineData(59.9, true, Verdict.Reject)]
    [InlineData(60, true, Verdict.Watch)]
    [InlineData(69.9, true, Verdict.Watch)]
    [InlineData(70, true, Verdict.Good)]
    [InlineData(59.9, false, Verdict.Retest)]
    [InlineData(60, false, Verdict.Watch)]
    [InlineData(78, false, Verdict.Good)]
    public void Sixty_of_eighty_on_both_sides_of_its_limits(double psi, bool again, Verdict verdict) =>
        Judge(CompressionLimits.SixtyOfEighty, Hot, psi, again: again).Verdict.ShouldBe(verdict);

    [Fact]
    public void The_rejection_rests_on_the_published_rule_and_the_watch_on_practice()
    {
        Judge(CompressionLimits.SixtyOfEighty, Hot, 59, again: true).Source.Standing.ShouldBe(Standing.Law);
        Judge(CompressionLimits.SixtyOfEighty, Hot, 65).Source.Standing.ShouldBe(Standing.Practice);
    }

    [Theory]
    [InlineData(CompressionSchool.SixtyOfEighty, 65)]
    [InlineData(CompressionSchool.SixtyOfEighty, 15)]
    [InlineData(CompressionSchool.QuarterDrop, 59)]
    [InlineData(CompressionSchool.OrificeOfTheDay, 40)]
    public void Low_on_a_cold_engine_is_no_verdict(CompressionSchool school, double psi) =>
        Judge(CompressionLimits.Of(school), Cold with { DayOrifice = new Psi(44) }, psi, again: true).Verdict.ShouldBe(Verdict.Retest);

    [Fact]
    public void A_cold_engine_that_holds_is_good() => Judge(CompressionLimits.SixtyOfEighty, Cold, 76).Verdict.ShouldBe(Verdict.Good);

    // Common practice: below the day's orifice is a rejection, up to 5 psi above is watched, a valve is judged harder than rings.
    [Theory]
    [InlineData(43.9, LeakPath.Rings, Verdict.Reject)]
    [InlineData(44, LeakPath.Rings, Verdict.Watch)]
    [InlineData(49, LeakPath.Rings, Verdict.Watch)]
    [InlineData(49.1, LeakPath.Rings, Verdict.Good)]
    [InlineData(49.1, LeakPath.ExhaustValve, Verdict.Watch)]
    [InlineData(54.1, LeakPath.ExhaustValve, Verdict.Good)]
    public void The_orifice_of_the_day_is_the_floor(double psi, LeakPath leak, Verdict verdict) =>
        Judge(CompressionLimits.OrificeOfTheDay, Hot with { DayOrifice = new Psi(44) }, psi, leak).Verdict.ShouldBe(verdict);

    [Fact]
    public void Without_an_orifice_reading_the_app_says_it_can_not_tell() =>
        Judge(CompressionLimits.OrificeOfTheDay, Hot, 78).Verdict.ShouldBe(Verdict.Unknown);

    // Common practice: a loss above 25 % of the supply rejects, above 15 % is watched. A quarter of 80 lost is 60, 15 % lost is 68.
    [Theory]
    [InlineData(80, 59.9, Verdict.Reject)]
    [InlineData(80, 60, Verdict.Watch)]
    [InlineData(80, 67.9, Verdict.Watch)]
    [InlineData(80, 68, Verdict.Good)]
    [InlineData(87, 65.2, Verdict.Reject)]
    [InlineData(87, 65.3, Verdict.Watch)]
    public void A_quarter_of_the_supply_lost_is_too_much(double supply, double psi, Verdict verdict) =>
        Judge(CompressionLimits.QuarterDrop, Hot with { Supply = new Psi(supply) }, psi).Verdict.ShouldBe(verdict);

    [Theory]
    [InlineData(LeakPath.Crack)]
    [InlineData(LeakPath.HeadGasket)]
    public void A_crack_or_a_head_gasket_is_a_fault_whatever_the_number(LeakPath leak) =>
        Judge(CompressionLimits.SixtyOfEighty, Cold, 78, leak).Verdict.ShouldBe(Verdict.Reject);

    [Fact]
    public void At_another_supply_sixty_of_eighty_is_carried_over_by_leak_area_and_called_practice()
    {
        var geared = Hot with { Supply = new Psi(87) };
        var limit = LeakArea.ReadingFor(LeakArea.MultipleOfMaster(new Psi(60), new Psi(80), geared.Ambient), geared.Supply,
            geared.Ambient).Value;

        Judge(CompressionLimits.SixtyOfEighty, geared, limit - 0.01, again: true).Verdict.ShouldBe(Verdict.Reject);
        var above = Judge(CompressionLimits.SixtyOfEighty, geared, limit + 0.01);
        above.Verdict.ShouldBe(Verdict.Watch);
        Judge(CompressionLimits.SixtyOfEighty, geared, 85).Source.Standing.ShouldBe(Standing.Practice);
    }

    [Fact]
    public void The_manuals_floor_stands_before_the_schools()
    {
        var manual = CompressionLimits.SixtyOfEighty.WithManualFloor(new Psi(64), "TF4 manual 72-00, p. 9");
        var judged = Judge(manual, Hot, 63, again: true);
        judged.Verdict.ShouldBe(Verdict.Reject);
        judged.Source.ShouldBe(new(Standing.Manual, "TF4 manual 72-00, p. 9"));
        judged.Margin.ShouldBe(-1);
    }

    // Common practice: a spread of 10 psi is watched, of 15 investigated.
    [Theory]
    [InlineData(78, 68.5, null)]
    [InlineData(80, 70, "Watch the weakest")]
    [InlineData(80, 65.5, "Watch the weakest")]
    [InlineData(79, 64, "Investigate")]
    public void The_spread_between_best_and_worst_is_judged_with_the_whole_engine(double best, double worst, string? says)
    {
        var whole = CompressionJudge.Assess(CompressionLimits.SixtyOfEighty, Hot, [new(1, new Psi(best)), new(2, new Psi(worst))]);
        whole.SpreadPsi.ShouldBe(best - worst);
        var spread = whole.Overall.Rule.StartsWith("Spread", StringComparison.Ordinal) ? whole.Overall.Next : null;
        if (worst >= 70 && says is not null)
            spread.ShouldNotBeNull().ShouldStartWith(says);
        if (says is null)
            spread.ShouldBeNull();
        whole.Overall.Verdict.ShouldBe(says is null && worst >= 70 ? Verdict.Good : Verdict.Watch);
    }

    [Fact]
    public void The_worst_cylinder_decides_the_whole() =>
        CompressionJudge.Assess(CompressionLimits.SixtyOfEighty, Hot,
            [new(1, new Psi(78)), new(2, new Psi(55), LeakPath.Rings, SecondTry: true)])
            .Overall.Verdict.ShouldBe(Verdict.Reject);

    [Theory]
    [InlineData("76", 76.0)]
    [InlineData("76/80", 76.0)]
    [InlineData(" 75,5 ", 75.5)]
    [InlineData("75.5 / 80", 75.5)]
    [InlineData("0", 0.0)]
    [InlineData("80", 80.0)]
    public void A_reading_is_read_as_hands_type_it(string text, double psi) =>
        TypedReading.Parse(text, new Psi(80)).Held.ShouldBe(new Psi(psi));

    [Theory]
    [InlineData("abc", "is not a reading")]
    [InlineData("1e9", "is not a reading")]
    [InlineData("7 6", "is not a reading")]
    [InlineData("76/80/80", "is not a reading")]
    [InlineData("NaN", "is not a reading")]
    [InlineData("-3", "below zero")]
    [InlineData("81", "above the supply of 80")]
    [InlineData("1000000000", "above the supply")]
    [InlineData("76/87", "runs at 80 psi")]
    [InlineData("", "Type what the cylinder held")]
    public void A_text_that_is_no_reading_is_refused_in_words(string text, string says)
    {
        var typed = TypedReading.Parse(text, new Psi(80));
        typed.Held.ShouldBeNull();
        typed.Problem.ShouldNotBeNull().ShouldContain(says);
    }
}
