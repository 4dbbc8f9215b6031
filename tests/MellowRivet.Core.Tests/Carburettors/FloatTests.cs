using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Tests.Carburettors;

public class FloatTests
{
    // domain.md section 7, common practice: a pair at most 7.0 g; 3.4 + 4.2 g is over and uneven, 5.5 g is fine.
    [Theory]
    [InlineData(3.4, 4.2, Verdict.Reject)]
    [InlineData(2.7, 2.8, Verdict.Good)]
    [InlineData(3.5, 3.5, Verdict.Good)]
    [InlineData(3.5, 3.6, Verdict.Reject)]
    [InlineData(3.2, 3.7, Verdict.Watch)]
    public void A_pair_by_its_weight(double one, double other, Verdict verdict) =>
        FloatJudge.Judge(new(one, other)).Verdict.ShouldBe(verdict);

    [Fact]
    public void An_uneven_pair_is_called_so() => FloatJudge.Judge(new(3.4, 4.2)).Rule.ShouldContain("uneven");

    // By hand: three weighings on a scale of 0.1 g, each off by at most half a step, explain 0.15 g and no more.
    [Theory]
    [InlineData(7.0, Verdict.Good)]
    [InlineData(6.85, Verdict.Good)]
    [InlineData(6.8, Verdict.Retest)]
    [InlineData(7.2, Verdict.Retest)]
    public void A_scale_that_contradicts_itself_is_asked_again(double together, Verdict verdict) =>
        FloatJudge.Judge(new(3.5, 3.5, together)).Verdict.ShouldBe(verdict);

    [Fact]
    public void A_finer_scale_explains_less() =>
        FloatJudge.Judge(new(3.5, 3.4, 6.8), resolutionGrams: 0.01).Verdict.ShouldBe(Verdict.Retest);

    [Fact]
    public void What_was_weighed_together_counts()
    {
        // 3.5 + 3.5 rounded from 3.54 each: together 7.1, which the sum hides.
        FloatJudge.Judge(new(3.5, 3.5, 7.1)).Verdict.ShouldBe(Verdict.Reject);
        new FloatPair(3.5, 3.5, 7.1).TotalGrams.ShouldBe(7.1);
    }
}
