using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Surveys;

namespace MellowRivet.Core.Tests.Surveys;

/// <summary>How a survey stands: what its money is made of, when it says to stop, and that nothing of it is signed.</summary>
public class SurveyStandTests
{
    private static readonly SurveyTerms Terms = new("Test Buyer", "touring", 40_000, 5_000, 4, "cowls", new(50_000, "three adverts"), 900);
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Inspection survey;
    private readonly List<DueItem> items = [];

    public SurveyStandTests() => survey = Begin(aircraft);

    private static Inspection Begin(Aircraft of, HouseRules? house = null) => new(Guid.NewGuid(), of, "26-1",
        [Fixture.Shipped("survey"), Fixture.Shipped("survey-metal")], new Survey(Terms, SurveyRules.Usual), Fixture.Today,
        house ?? new(LabourRate: 100));

    private SurveyStand Stand => new(survey, aircraft, DueLine.Of(aircraft, items, [], Fixture.Today));
    private Component Engine => aircraft.Engines.Single().Component;

    private Discrepancy Find(string what, Estimate? estimate, DiscrepancyClass @class = DiscrepancyClass.Airworthiness)
    {
        var found = survey.Find(Guid.NewGuid(), what, "engine", "", @class, false, null, Fixture.Ines, Fixture.Now);
        found.Expect(estimate, survey.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        return found;
    }

    // The estimate's own sum, by its own way: 5 h at 100 and 300, 2..3..5 h at 100.
    [Fact]
    public void The_work_is_what_the_estimate_says()
    {
        Find("tank leaks", Estimate.Of(5, 300));
        Find("post cracked", new([new(Skill.Mechanic, new(2, 3, 5))], []));
        Stand.Money.Work.ShouldBe(new Spread(1_000, 1_100, 1_300));
        Stand.Money.Work.ShouldBe(JobEstimate.Of(survey).Total.Net.Sum);
        survey.Work(survey.House with { Tax = 20 });
        Stand.Money.Work.Likely.ShouldBe(JobEstimate.Of(survey).Total.Gross, "the buyer pays the tax, too");
    }

    // What is spent is gone either way: a deposit, hours booked on looking, and what was withdrawn change no sum.
    [Fact]
    public void Money_that_is_spent_already_never_counts()
    {
        var found = Find("tank leaks", Estimate.Of(5, 300));
        var before = Stand.Money.Fair;
        survey.Agree(Terms with { Spent = 12_000 });
        Stand.Money.Fair.ShouldBe(before);
        Stand.Money.By.ShouldBe(new SurveyMoney(Stand.Money.Question).By);
        found.Move(Disposition.Withdrawn, "it was dew", survey.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        (Stand.Findings.Count, Stand.Money.Work.Likely).ShouldBe((0, 0));
    }

    [Fact]
    public void It_stops_once_the_limit_is_passed_and_again_when_more_is_found()
    {
        Find("cylinder cracked", Estimate.Of(null, 5_000));
        Stand.Stop.ShouldBeNull();
        Find("cable rusted", Estimate.Of(null, 1));
        var stop = Stand.Stop.ShouldNotBeNull();
        stop.Words.ShouldBe("the work likely comes to $5,001, above the buyer’s limit of $5,000");
        survey.GoOn(stop, Fixture.Ines, Fixture.Now);
        Stand.Stop.ShouldBeNull("the buyer wants it looked at further");
        Stand.Why.ShouldNotBeNull();
        Find("tank leaks", Estimate.Of(null, 400));
        Stand.Stop.ShouldNotBeNull().Work.ShouldBe(5_401);
        survey.GoOn(Stand.Stop!, Fixture.Ines, Fixture.Now);
        var spar = Find("spar cracked", null);
        survey.Mark(new(spar.Number, false, true, true)).ShouldBeNull();
        Stand.Stop.ShouldNotBeNull().Words.ShouldStartWith("04, spar cracked: ends the deal at any price");
        survey.EndSurvey(aircraft, "found a cracked spar", Fixture.Ines, Fixture.Now).ShouldBeNull();
        Stand.Stop.ShouldBeNull("it has ended");
    }

    // While something is to be looked at the verdict is one so far; ended, what wasn't looked at is held in reserve.
    [Fact]
    public void What_was_not_looked_at_is_held_in_reserve_once_it_ends()
    {
        (Stand.IsSoFar, Stand.Money.Reserve, Stand.Shape, Stand.Verdict).ShouldBe((true, 0, State.NotYet,
            "so far nothing against the price"));
        var worth = survey.Walk.Sum(task => task.Sampling!.Worth);
        Stand.IfEnded.Reserve.ShouldBe(worth);
        var cables = survey.Tasks.Single(task => task.Key == "sy-cables");
        survey.Hold($"{cables.Id:N}", null, 75).ShouldBeNull();
        survey.Hold("own", "behind the panel", 25).ShouldBeNull();
        Stand.Money.Reserve.ShouldBe(100, "a figure of one's own counts at once");
        survey.Hold("own2", "", 25)!.Field.ShouldBe("reserve");
        survey.Hold("own2", "less than nothing", -1)!.Field.ShouldBe("reserve");
        survey.EndSurvey(aircraft, "", Fixture.Ines, Fixture.Now)!.Message.ShouldContain("not looked at yet. Say why");
        survey.EndSurvey(aircraft, "rain", Fixture.Ines, Fixture.Now).ShouldBeNull();
        Stand.Money.Reserve.ShouldBe(worth - cables.Sampling!.Worth + 100);
        (survey.Survey!.End!.Early, survey.InWork).ShouldBe((true, false));
    }

    [Fact]
    public void It_can_be_taken_up_again_until_somebody_says_what_came_of_it()
    {
        survey.Came(new(true, Fixture.Ines, Fixture.Now))!.Message.ShouldContain("End the looking first");
        survey.EndSurvey(aircraft, "rain", Fixture.Ines, Fixture.Now).ShouldBeNull();
        survey.TakeUpSurvey().ShouldBeNull();
        (survey.InWork, survey.Survey!.End).ShouldBe((true, null));
        survey.EndSurvey(aircraft, "rain", Fixture.Ines, Fixture.Now).ShouldBeNull();
        survey.Came(new(false, Fixture.Ines, Fixture.Now)).ShouldBeNull();
        survey.TakeUpSurvey()!.Message.ShouldContain("begin a survey of its own");
        survey.Came(new(true, Fixture.Ines, Fixture.Now)).ShouldNotBeNull();
    }

    // Half of its years are 6 of 12; 1,120.5 of 2,000 h are more: what is used up more counts.
    [Fact]
    public void Hours_or_years_whichever_has_used_up_more()
    {
        var overhaul = new DueItem(Guid.NewGuid(), null, Engine.Id, "Overhaul", DueKind.Overhaul, new(2_000, 144),
            new(Standing.Manual, "test"));
        overhaul.SetDone(new(Fixture.Today.AddYears(-6), 0m, null, null, null, "test"), Fixture.Today).ShouldBeNull();
        items.Add(overhaul);
        var power = Stand.Power.Single(one => one.Stay.ComponentId == Engine.Id);
        (power.Use, power.Missing).ShouldBe((null, "what an overhaul costs not said"));
        survey.Say(new PowerSaid(Engine.Id, null, null, Spread.Of(20_000), null));
        power = Stand.Power.Single(one => one.Stay.ComponentId == Engine.Id);
        (power.Hours, power.Interval).ShouldBe((1_120.5m, 2_000m));
        power.ByCalendar!.Value.ShouldBe(0.5m, 0.01m);
        power.Use!.UsedUp.ShouldBe(11_205);
        survey.Say(new PowerSaid(Engine.Id, 400, null, Spread.Of(20_000), null));
        Stand.Money.UsedUp!.Value.ShouldBe(10_000, 60, "half of its years");
        Stand.Due.Where(one => one.Entry.Item == overhaul).ShouldAllBe(one => one.WithPower, "it is counted once");
    }

    // By hand: overhauled for 20,000 the engine begins anew. Half of 20,000, which the price supposes run, comes on top.
    [Fact]
    public void Ways_side_by_side_say_what_each_does_to_the_fair_price()
    {
        var choice = new Choice(Guid.NewGuid(), "Engine", null,
        [
            new("Overhaul", AlternativeKind.Overhaul, Estimate.Of(null, 20_000), 2_000, 60, []),
            new("As it is", AlternativeKind.Leave, Estimate.Nothing, null, 0, []),
        ]);
        survey.Offer(choice).ShouldBeNull();
        survey.Say(new PowerSaid(Engine.Id, 1_500, 2_000, Spread.Of(20_000), null, choice.Id));
        Stand.Money.Fair!.Value.Likely.ShouldBe(45_000);
        Stand.If(choice, choice.Alternatives[1]).Fair!.Value.Likely.ShouldBe(45_000);
        var overhauled = Stand.If(choice, choice.Alternatives[0]);
        overhauled.Fair!.Value.Likely.ShouldBe(40_000);
        survey.Choose(choice.Id, 0, choice.AsItStands(survey.House), Fixture.Ines, Fixture.Now).ShouldBeNull();
        Stand.Money.Fair.ShouldBe(overhauled.Fair, "chosen, it is what it was said to be");
        Stand.Money.Question.Power[0].Used.ShouldBe(0);
    }

    [Fact]
    public void Nothing_is_put_right_or_asked_at_a_survey_and_nothing_of_it_is_signed()
    {
        var found = Find("tank leaks", Estimate.Of(5, 300));
        foreach (var to in new[] { Disposition.Asked, Disposition.Approved, Disposition.InWork, Disposition.PartsAwaited })
            found.Move(to, null, survey.Terms, Fixture.Ines, Fixture.Now)!.Message.ShouldContain("nothing is put right");
        found.Correct(new("sealed", CorrectionKind.Repaired, "manual 28"), survey.Terms, Fixture.Ines, Fixture.Now)!.Field
            .ShouldBe("action");
        Should.Throw<InvalidOperationException>(survey.Sign);
        // A shop that writes words for it into its own rules signs nothing with them, either.
        var rules = Fixture.Rules with
        {
            Signing = [.. Fixture.Rules.Signing.Select(rule => rule with { Inspections = [.. rule.Inspections, InspectionKind.Survey] })],
            Statements = [.. Fixture.Rules.Statements.Select(rule => rule with
                { Inspections = [.. rule.Inspections, InspectionKind.Survey] })],
        };
        rules.HasStatement(InspectionKind.Survey, Category.Standard).ShouldBeFalse();
        rules.KindsFor(Category.Standard).ShouldNotContain(InspectionKind.Survey);
        rules.MaySign(Fixture.Inspector, InspectionKind.Survey, aircraft, Fixture.Today).By.ShouldBeNull();
    }

    // A dead cylinder that nobody put on the list would be in no sum and in no report.
    [Fact]
    public void A_survey_does_not_end_over_what_was_judged_bad_and_is_not_on_the_list()
    {
        Fixture.Compress(survey, aircraft, 3, 15);
        Stand.Unanswered.ShouldHaveSingleItem().What.ShouldBe("Compression, cylinder 3");
        Stand.CannotSay.ShouldContain(words => words.StartsWith("compression, cylinder 3, ", StringComparison.Ordinal));
        survey.EndSurvey(aircraft, "rain", Fixture.Ines, Fixture.Now)!.Message.ShouldContain("judged bad and not on the list");
        var judged = survey.OpenJudgement(aircraft, Stand.Unanswered[0].Key).ShouldNotBeNull();
        survey.Find(Guid.NewGuid(), "cylinder 3 dead", "engine", "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines,
            Fixture.Now, origin: judged.Origin);
        Stand.Unanswered.ShouldBeEmpty();
        survey.EndSurvey(aircraft, "rain", Fixture.Ines, Fixture.Now).ShouldBeNull();
    }

    // An airworthiness item ends by an entry that somebody signs (14 CFR 43.11(b), from memory); nobody signs a survey.
    [Fact]
    public void Bought_a_survey_adds_what_it_found_and_ends_nothing_and_makes_nothing_milder()
    {
        var annual = Fixture.Inspection(aircraft);
        annual.Find(Guid.NewGuid(), "leak", "engine", "", DiscrepancyClass.Airworthiness, true, null, Fixture.Ines, Fixture.Now);
        annual.Find(Guid.NewGuid(), "crack", "engine", "", DiscrepancyClass.Recommended, false, null, Fixture.Ines, Fixture.Now);
        annual.Find(Guid.NewGuid(), "chafed", "engine", "", DiscrepancyClass.Recommended, false, null, Fixture.Ines, Fixture.Now);
        var items = OpenItemsAfter.Signing(annual, [], Fixture.Ines, Fixture.Today).ToList();
        survey.CarryIn(items);
        Discrepancy Carried(string what) => survey.Discrepancies.Single(found => found.What == what);
        Carried("leak").Move(Disposition.Withdrawn, "dry today", survey.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Carried("crack").Classify(new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now), Fixture.Classes, null)
            .ShouldBeNull();
        Carried("chafed").Classify(new(DiscrepancyClass.Watch, false, Fixture.Ines, Fixture.Now), Fixture.Classes, null)
            .ShouldBeNull();
        Find("tank leaks", Estimate.Of(5, 300), DiscrepancyClass.Recommended);
        OpenItemsAfter.Buying(survey, items, Fixture.Today).ShouldHaveSingleItem().What.ShouldBe("tank leaks");
        items.Select(item => (item.What, item.IsOpen, item.Class)).ShouldBe([("leak", true, DiscrepancyClass.Airworthiness),
            ("crack", true, DiscrepancyClass.Airworthiness), ("chafed", true, DiscrepancyClass.Recommended)]);
    }

    [Fact]
    public void A_survey_does_not_end_over_a_tool_or_an_open_panel()
    {
        survey.Open("tail-cone", TagKind.Panel, "belly panel", "", Fixture.Ines, Fixture.Now).Refusal.ShouldBeNull();
        survey.EndSurvey(aircraft, "rain", Fixture.Ines, Fixture.Now)!.Message.ShouldContain("belly panel, is still open");
    }

    [Fact]
    public void What_the_seller_puts_right_does_not_end_the_deal()
    {
        var found = Find("tank leaks", Estimate.Of(5, 300));
        survey.Mark(new(found.Number, true, false, true))!.Field.ShouldBe("mark");
        survey.Mark(new(99, false, false, true))!.Field.ShouldBe("mark");
        survey.Mark(new(found.Number, true, true, false)).ShouldBeNull();
        (Stand.Money.Work.Likely, Stand.Money.SellersPart.Likely).ShouldBe((0, 800));
    }
}
