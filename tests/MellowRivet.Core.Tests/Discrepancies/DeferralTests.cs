using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.Tests.Discrepancies;

/// <summary>The deferral test of 14 CFR 91.213(d), from memory: every path through its seven questions.</summary>
public class DeferralTests
{
    private static readonly IReadOnlyList<DeferralQuestion> Questions = DeferralWalk.Questions;

    // Three answers to seven questions: a path ends at the first answer that stops it.
    public static TheoryData<DeferralSays[]> Paths
    {
        get
        {
            var paths = new TheoryData<DeferralSays[]>();
            for (var stop = 0; stop < Questions.Count; stop++)
                foreach (var says in Enum.GetValues<DeferralSays>().Where(says => says != Questions[stop].GoesOn))
                    paths.Add([.. Questions.Take(stop).Select(question => question.GoesOn), says]);
            paths.Add([.. Questions.Select(question => question.GoesOn)]);
            return paths;
        }
    }

    private static DeferralAnswer Answer(int at, DeferralSays says) => new(Questions[at].Key, says, "", Fixture.Ines, Fixture.Now);

    private static DeferralWalk Walk(params DeferralSays[] says) => says.Select((say, at) => (say, at)).Aggregate(new DeferralWalk([]), (walk, next) =>
    {
        var (answers, refusal) = walk.With(Answer(next.at, next.say));
        refusal.ShouldBeNull();
        return new(answers);
    });

    [Theory]
    [MemberData(nameof(Paths))]
    public void Only_the_whole_way_with_every_answer_right_may_be_deferred(DeferralSays[] says)
    {
        var walk = Walk(says);
        var last = says[^1];
        walk.Next.ShouldBeNull("the test is at its end");
        walk.Outcome.ShouldBe(says.Length == Questions.Count && last == Questions[^1].GoesOn ? DeferralOutcome.MayBeDeferred
            : last == DeferralSays.CannotTell ? DeferralOutcome.NotYet : DeferralOutcome.MayNotBeDeferred);
        if (walk.Outcome == DeferralOutcome.MayNotBeDeferred)
            walk.InWords.ShouldContain(Questions[says.Length - 1].Stops);
    }

    [Fact]
    public void Questions_go_in_order_and_an_answer_put_right_asks_the_rest_anew()
    {
        var walk = Walk(DeferralSays.No, DeferralSays.No, DeferralSays.No);
        walk.With(Answer(5, DeferralSays.Yes)).Refusal!.Message.ShouldContain("in order");
        walk.With(new("nonsense", DeferralSays.Yes, "", Fixture.Ines, Fixture.Now)).Refusal!.Message.ShouldContain("no such question");
        var again = new DeferralWalk(walk.With(Answer(1, DeferralSays.CannotTell)).Answers);
        again.Answers.Count.ShouldBe(2);
        again.InWords.ShouldContain("look it up");
        walk.Next!.Key.ShouldBe("operatingRule");
    }

    [Fact]
    public void Each_question_says_which_paragraph_it_comes_from() =>
        Questions.ShouldAllBe(question => question.Source.Text.StartsWith("14 CFR 91.213(") && question.Source.Text.EndsWith("from memory"));

    [Fact]
    public void A_deferrable_item_is_closed_by_the_test_or_by_fixing_it()
    {
        var item = Found(DiscrepancyClass.Deferrable);
        Correction placarded = new("Breaker pulled and collared, placarded", CorrectionKind.Deferred);
        item.Correct(placarded, new(), Fixture.Ines, Fixture.Now)!.Message.ShouldContain("deferral test");
        foreach (var question in Questions)
            item.Answer(question.Key, question.GoesOn, "handbook p. 6-4", Fixture.Ines, Fixture.Now).ShouldBeNull();
        item.Correct(placarded, new(), Fixture.Ines, Fixture.Now).ShouldBeNull();
        item.IsOpen.ShouldBeFalse();

        Found(DiscrepancyClass.Deferrable).Correct(new("Lamp replaced", CorrectionKind.Replaced), new(), Fixture.Ines, Fixture.Now).ShouldBeNull();
        Found(DiscrepancyClass.Airworthiness).Correct(placarded, new(), Fixture.Ines, Fixture.Now)!.Message.ShouldContain("Only a deferrable item");
        Found(DiscrepancyClass.Airworthiness).Answer("mel", DeferralSays.No, "", Fixture.Ines, Fixture.Now)!.Field.ShouldBe("deferral");
    }

    internal static Discrepancy Found(DiscrepancyClass @class, string what = "Map light dead", string zone = "cabin", string where = "", Pin? pin = null, string? task = null, Guid? part = null, int number = 1) =>
        new(Guid.NewGuid(), number, what, new(zone, where, task, part, pin), @class, false, null, Fixture.Ines, Fixture.Now);
}
