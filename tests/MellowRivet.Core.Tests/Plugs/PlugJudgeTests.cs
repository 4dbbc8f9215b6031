using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Core.Tests.Plugs;

public class PlugJudgeTests
{
    private static JudgedPlug Judge(double? ohms = 1_000, double? gap = 0.018, IgnitionKind ignition = IgnitionKind.Magneto,
        bool dropped = false, bool cracked = false, ElectrodeWear wear = ElectrodeWear.None) =>
        PlugJudge.Judge(PlugLimits.Of(ignition), new(ohms, gap, dropped, cracked, wear));

    // Common practice: good below 3000 Ω, watched from 3000 to 5000, rejected above; 30 kΩ and 1 MΩ do occur.
    [Theory]
    [InlineData(0, Verdict.Good)]
    [InlineData(2_999, Verdict.Good)]
    [InlineData(3_000, Verdict.Watch)]
    [InlineData(5_000, Verdict.Watch)]
    [InlineData(5_001, Verdict.Reject)]
    [InlineData(30_000, Verdict.Reject)]
    [InlineData(double.PositiveInfinity, Verdict.Reject)]
    public void Resistance_on_both_sides_of_its_limits(double ohms, Verdict verdict) =>
        Judge(ohms: ohms).Resistance.Verdict.ShouldBe(verdict);

    // Common practice: 0.016 to 0.021 in for a magneto's plug; above, it is closed; below, it can't be opened.
    [Theory]
    [InlineData(0.0159, Verdict.Reject)]
    [InlineData(0.016, Verdict.Good)]
    [InlineData(0.021, Verdict.Good)]
    [InlineData(0.0211, Verdict.Watch)]
    [InlineData(0.039, Verdict.Watch)]
    public void The_gap_of_a_magnetos_plug(double inches, Verdict verdict) => Judge(gap: inches).Gap.Verdict.ShouldBe(verdict);

    // Common practice: about 0.028 to 0.040 in where a high-energy ignition fires.
    [Theory]
    [InlineData(0.0279, Verdict.Reject)]
    [InlineData(0.028, Verdict.Good)]
    [InlineData(0.040, Verdict.Good)]
    [InlineData(0.0401, Verdict.Watch)]
    public void The_gap_of_an_electronic_plug(double inches, Verdict verdict) =>
        Judge(gap: inches, ignition: IgnitionKind.HighEnergy).Gap.Verdict.ShouldBe(verdict);

    [Fact]
    public void A_gap_of_the_other_row_is_told_as_such()
    {
        Judge(gap: 0.039).Gap.Next.ShouldContain("electronic row");
        Judge(gap: 0.016, ignition: IgnitionKind.HighEnergy).Gap.Next.ShouldContain("magneto's plug");
        Judge(gap: 0.023).Gap.Next.ShouldNotContain("electronic row");
    }

    [Fact]
    public void A_dropped_plug_is_scrap_however_it_measures()
    {
        Judge(dropped: true).Overall.Verdict.ShouldBe(Verdict.Reject);
        Judge(cracked: true).Overall.Verdict.ShouldBe(Verdict.Reject);
        Judge(wear: ElectrodeWear.Half).Overall.Verdict.ShouldBe(Verdict.Reject);
        Judge(wear: ElectrodeWear.Oval).Overall.Verdict.ShouldBe(Verdict.Watch);
        Judge().Overall.Verdict.ShouldBe(Verdict.Good);
    }

    [Fact]
    public void What_was_not_measured_is_not_good()
    {
        Judge(ohms: null).Overall.Verdict.ShouldBe(Verdict.Unknown);
        Judge(gap: null).Overall.Verdict.ShouldBe(Verdict.Unknown);
    }

    [Fact]
    public void The_shops_own_limits_stand_before_the_usual_ones()
    {
        var own = PlugLimits.Magneto.With(null, 1_000, 0.015, 0.018);
        PlugJudge.Resistance(own, 1_001)
            .ShouldBe(new(Verdict.Reject, "Above 1000 Ω", new(Standing.Manual, "limits as given"), -1,
                PlugJudge.Resistance(own, 1_001).Next));
        PlugJudge.Gap(own, 0.019).Verdict.ShouldBe(Verdict.Watch);
        PlugLimits.Magneto.With(null, null, null, null).Source.Standing.ShouldBe(Standing.Practice);
    }

    [Theory]
    [InlineData("2B", 2, PlugRow.Bottom)]
    [InlineData(" 12t ", 12, PlugRow.Top)]
    public void A_hole_is_read_as_it_is_written(string text, int cylinder, PlugRow row) =>
        PlugHole.Parse(text).ShouldBe(new PlugHole(cylinder, row));

    [Theory]
    [InlineData(null)]
    [InlineData("")]
    [InlineData("B")]
    [InlineData("2C")]
    [InlineData("0T")]
    [InlineData("123T")]
    public void Anything_else_is_no_hole(string? text) => PlugHole.Parse(text).ShouldBeNull();
}
