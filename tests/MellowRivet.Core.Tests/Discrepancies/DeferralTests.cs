using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.Tests.Discrepancies;

/// <summary>The deferral test of 14 CFR 91.213(d), from memory: every path through its eight questions.</summary>
public class DeferralTests
{
    private static readonly IReadOnlyList<DeferralQuestion> Questions = DeferralWalk.Questions;

    // Three answers to eight questions: a path ends at the first answer that stops it.
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

    private static DeferralWalk Walk(params DeferralSays[] says) => says.Select((say, at) => (say, at))
        .Aggregate(new DeferralWalk([]), (walk, next) =>
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
        var walk = Walk(DeferralSays.Yes, DeferralSays.No, DeferralSays.No, DeferralSays.No);
        walk.With(Answer(6, DeferralSays.Yes)).Refusal!.Message.ShouldContain("in order");
        walk.With(new("nonsense", DeferralSays.Yes, "", Fixture.Ines, Fixture.Now)).Refusal!.Message.ShouldContain("no such question");
        var again = new DeferralWalk(walk.With(Answer(2, DeferralSays.CannotTell)).Answers);
        again.Answers.Count.ShouldBe(3);
        again.InWords.ShouldContain("look it up");
        walk.Next!.Key.ShouldBe("operatingRule");
    }

    [Fact]
    public void Each_question_says_which_paragraph_it_comes_from() =>
        Questions.ShouldAllBe(question => question.Source.Text.StartsWith("14 CFR 91.213(")
            && question.Source.Text.EndsWith("from memory"));

    [Fact]
    public void A_deferrable_item_is_closed_by_the_test_or_by_fixing_it()
    {
        var item = Found(DiscrepancyClass.Deferrable);
        Correction placarded = new("Breaker pulled and collared, placarded", CorrectionKind.Deferred);
        item.Correct(placarded, new(new(), 0), Fixture.Ines, Fixture.Now)!.Message.ShouldContain("deferral test");
        foreach (var question in Questions)
            item.Answer(question.Key, question.GoesOn, "handbook p. 6-4", Fixture.Classes, Fixture.Ines, Fixture.Now).ShouldBeNull();
        item.Correct(placarded, new(new(), 0), Fixture.Ines, Fixture.Now).ShouldBeNull();
        item.IsOpen.ShouldBeFalse();

        Found(DiscrepancyClass.Deferrable).Correct(new("Lamp replaced", CorrectionKind.Replaced), new(new(), 0), Fixture.Ines, Fixture.Now)
            .ShouldBeNull();
        Found(DiscrepancyClass.Airworthiness)
            .Correct(placarded, new(new(), 0), Fixture.Ines, Fixture.Now)!.Message.ShouldContain("Only a deferrable item");
        Found(DiscrepancyClass.Airworthiness)
            .Answer("mel", DeferralSays.No, "", Fixture.Classes, Fixture.Ines, Fixture.Now)!.Field.ShouldBe("deferral");
    }

    // 14 CFR 91.213(d) speaks of instruments and equipment: what is none never enters the test, by its words or by hand.
    [Theory]
    [InlineData("Exhaust leak in the can under the cabin heat shroud", true)]
    [InlineData("Left fuel bladder seeps at the nipple", true)]
    [InlineData("Crack in the alternator bracket", true)]
    [InlineData("Two screws missing from the wing root fairing", true)]
    [InlineData("Brake line chafed on the leg", true)]
    [InlineData("Elevator hinge loose", true)]
    [InlineData("Right magneto dead at run-up", true)]
    [InlineData("Cylinder 2 weak, 15/80", true)]
    [InlineData("Nose wheel tyre worn to the cord", true)]
    [InlineData("Map light dead", false)]
    [InlineData("Cylinder head temperature gauge inoperative", false)]
    [InlineData("De-ice boots do not inflate", false)]
    [InlineData("Second radio dead, no crack in its tray", false)]
    public void What_is_no_equipment_never_enters_the_test(string what, bool never)
    {
        (Fixture.Classes.MayDefer(what) is not null).ShouldBe(never);
        var found = Found(DiscrepancyClass.Airworthiness, what);
        var refusal = found.Classify(new(DiscrepancyClass.Deferrable, false, Fixture.Ines, Fixture.Now, "it can wait"),
            Fixture.Classes, null);
        (refusal?.Message.StartsWith("Not deferrable", StringComparison.Ordinal) ?? false).ShouldBe(never);
        // One that came to its class by older rules doesn't get into the test either.
        Found(DiscrepancyClass.Deferrable, what).Answer("equipment", DeferralSays.Yes, "", Fixture.Classes, Fixture.Ines, Fixture.Now)
            .ShouldBe(never ? Fixture.Classes.MayDefer(what)! with { Field = "deferral" } : null);
    }

    [Fact]
    public void The_placard_is_there_before_anybody_is_asked_whether_it_is_on()
    {
        var upTo = Questions.ToList().FindIndex(question => question.Key == "deactivated");
        Walk([.. Questions.Take(upTo - 1).Select(question => question.GoesOn)]).WantsPlacard.ShouldBeFalse();
        Walk([.. Questions.Take(upTo).Select(question => question.GoesOn)]).WantsPlacard.ShouldBeTrue();
        Walk([.. Questions.Take(upTo).Select(question => question.GoesOn), DeferralSays.No]).WantsPlacard.ShouldBeFalse();
    }

    internal static Discrepancy Found(DiscrepancyClass @class, string what = "Map light dead", string zone = "cabin", string where = "",
        Pin? pin = null, string? task = null, Guid? part = null, int number = 1) =>
        new(Guid.NewGuid(), number, what, new(zone, where, task, part, pin), @class, false, null, Fixture.Ines, Fixture.Now);
}
