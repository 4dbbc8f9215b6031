using MellowRivet.Core.Judgements;
using MellowRivet.Core.Magnetos;

namespace MellowRivet.Core.Tests.Magnetos;

public class MagnetoSheetTests
{
    // domain.md section 6, common practice as of a usual type; ends included: 0.2–0.6 Ω, 12–16 kΩ, at least 0.30 µF, 10 ± 4°,
    // 0.018 ± 0.006 in, 30 ± 2°.
    [Theory]
    [InlineData("magneto-primary", 0.19, false)]
    [InlineData("magneto-primary", 0.2, true)]
    [InlineData("magneto-primary", 0.6, true)]
    [InlineData("magneto-primary", 0.61, false)]
    [InlineData("magneto-secondary", 11_999, false)]
    [InlineData("magneto-secondary", 12_000, true)]
    [InlineData("magneto-secondary", 16_000, true)]
    [InlineData("magneto-secondary", 16_001, false)]
    [InlineData("magneto-capacitor", 0.29, false)]
    [InlineData("magneto-capacitor", 0.30, true)]
    [InlineData("magneto-e-gap", 5.9, false)]
    [InlineData("magneto-e-gap", 6, true)]
    [InlineData("magneto-e-gap", 14, true)]
    [InlineData("magneto-e-gap", 14.1, false)]
    [InlineData("magneto-points-gap", 0.0119, false)]
    [InlineData("magneto-points-gap", 0.012, true)]
    [InlineData("magneto-points-gap", 0.024, true)]
    [InlineData("magneto-points-gap", 0.0241, false)]
    [InlineData("magneto-retard", 27.9, false)]
    [InlineData("magneto-retard", 28, true)]
    [InlineData("magneto-retard", 32, true)]
    [InlineData("magneto-retard", 32.1, false)]
    public void Every_value_on_both_sides_of_its_limits(string kind, double value, bool good) =>
        MagnetoSheet.Values.Single(of => of.Kind == kind).Band.Judge(value).Verdict.ShouldBe(good ? Verdict.Good : Verdict.Reject);

    // domain.md section 6, common practice: the two drops within 50 rpm of each other.
    [Theory]
    [InlineData(100, 150, Verdict.Good)]
    [InlineData(100, 151, Verdict.Reject)]
    [InlineData(160, 100, Verdict.Reject)]
    public void The_two_drops_beside_each_other(double left, double right, Verdict verdict)
    {
        var judgement = MagnetoDrop.Between(left, right);
        judgement.Verdict.ShouldBe(verdict);
        if (verdict == Verdict.Reject)
            judgement.Next.ShouldContain(left > right ? "left" : "right");
    }

    // No drop at all says that the other magneto isn't grounded: a hot magneto, and a hand on the propeller.
    [Theory]
    [InlineData(0, Verdict.Reject)]
    [InlineData(175, Verdict.Good)]
    [InlineData(176, Verdict.Reject)]
    public void One_drop_has_a_most_and_is_never_nothing(double rpm, Verdict verdict) =>
        MagnetoDrop.Band.Judge(rpm).Verdict.ShouldBe(verdict);
}
