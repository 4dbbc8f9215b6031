using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Tests.Estimates;

/// <summary>Ways side by side: the owner chooses, and what was chosen stays.</summary>
public class ChoiceTests
{
    private readonly Inspection inspection = Fixture.Inspection(Fixture.Aircraft());
    private readonly Discrepancy cylinder, mount;

    public ChoiceTests()
    {
        inspection.Work(new(AskFirst: true, LabourRate: 100));
        Discrepancy Find(string what) => inspection.Find(Guid.NewGuid(), what, "engine", "", DiscrepancyClass.Airworthiness, false, null,
            Fixture.Ines, Fixture.Now);
        (cylinder, mount) = (Find("cylinder 2 leaks"), Find("mount bushing sagged"));
        mount.Expect(Estimate.Of(5, 300), inspection.Terms, Fixture.Ines, Fixture.Now);
    }

    private static TypedAlternative Way(string? name, AlternativeKind kind = AlternativeKind.Repair, string? hours = "8",
        string? parts = null,
        string? buys = "500", string? days = "10", string? away = null) => new(name, kind, hours, parts, null, buys, days, away);

    private Choice Offer(int? number, params TypedAlternative[] ways)
    {
        var choice = new Choice(Guid.NewGuid(), "Cylinder 2", number, [.. ways.Select(way => way.Read([1, 2]).Alternative!)]);
        inspection.Offer(choice).ShouldBeNull();
        return choice;
    }

    private Refusal? Choose(Choice choice, int index, string? seen = null, Guid? by = null) =>
        inspection.Choose(choice.Id, index, seen ?? choice.AsItStands(inspection.House), by, Fixture.Now);

    private Choice Now => inspection.Choices[0];

    // By hand: 46 h at 100 and 39,900 are 44,500; over 2,000 h that is 22.25 an hour.
    [Fact]
    public void A_way_says_what_an_hour_of_it_costs()
    {
        var unit = Way("A new power unit", AlternativeKind.Replace, "46", "39900", "2000").Read([]).Alternative!;
        unit.PriceOfHour(inspection.House).ShouldBe(22.25m);
        Way("Leave it", AlternativeKind.Leave, null, null, null).Read([]).Alternative!.PriceOfHour(inspection.House).ShouldBeNull();
    }

    [Theory]
    [InlineData("", "8", "500", "10", "", "Say what each way is")]
    [InlineData("Repair", "-8", "500", "10", "", "Repair: Hours from 0 up")]
    [InlineData("Repair", "9..8..7", "500", "10", "", "rise from one to the next")]
    [InlineData("Repair", "8", "many", "10", "", "hours it buys")]
    [InlineData("Repair", "8", "500", "1.5", "", "whole number")]
    [InlineData("Repair", "8", "500", "10", "2 77", "“77” is no number of this list")]
    public void Bad_input_is_told_by_the_way(string name, string hours, string buys, string days, string away, string says) =>
        Way(name, AlternativeKind.Repair, hours, null, buys, days, away).Read([1, 2]).Refusal!.Message.ShouldContain(says);

    [Fact]
    public void Ways_are_two_to_four_each_named_once_and_about_an_open_line()
    {
        Refusal? Try(int? number, params string[] names) => inspection.Offer(new(Guid.NewGuid(), "Cylinder 2", number,
            [.. names.Select(name => Way(name, away: name == "Self" ? "01" : null).Read([1, 2]).Alternative!)]));
        Try(1, "One")!.Message.ShouldContain("From 2 to 4");
        Try(1, "One", "one")!.Message.ShouldContain("same name");
        Try(1, "One", "Self")!.Message.ShouldContain("fall away with itself");
        Try(9, "One", "Two")!.Message.ShouldContain("no open line");
        Try(1, "One", "Two").ShouldBeNull();
        Try(1, "One", "Two")!.Message.ShouldContain("already");
    }

    [Fact]
    public void The_owner_chooses_what_they_read_and_the_line_is_agreed_at_its_price()
    {
        var choice = Offer(1, Way("Repair"), Way("Exchange", AlternativeKind.Exchange, "7", "1560"));
        Choose(choice, 1)!.Message.ShouldContain("no such choice", Case.Insensitive, "the owner wasn't asked");
        inspection.AskAll(Fixture.Ines, Fixture.Now);
        OwnerList.Of(inspection).Choices.ShouldHaveSingleItem();
        Choose(choice, 1, "something else")!.Message.ShouldContain("has changed");
        Choose(choice, 7)!.Message.ShouldContain("no such choice");
        Choose(choice, 1).ShouldBeNull();
        Choose(choice, 1).ShouldBeNull("a second touch says nothing new");
        Choose(choice, 0)!.Message.ShouldContain("speak to the shop");
        (cylinder.Disposition, cylinder.Price(inspection.House)).ShouldBe((Disposition.Approved, Spread.Of(2_260)));
        inspection.Work(inspection.House with { LabourRate = 200 });
        cylinder.Price(inspection.House).ShouldBe(Spread.Of(2_260));
        inspection.Offer(choice with { Title = "Other" })!.Message.ShouldContain("was chosen");
        inspection.Drop(choice.Id)!.Message.ShouldContain("stays");
    }

    [Fact]
    public void What_falls_away_leaves_the_sum_and_not_the_list()
    {
        Offer(null, Way("Repair"), Way("A new power unit", AlternativeKind.Replace, "46", "39900", "2000", "34", "02"));
        inspection.AskChoice(Now.Id, Fixture.Ines, Fixture.Now).ShouldBeNull();
        var before = JobEstimate.Of(inspection).Total;
        before.Net.Sum.Likely.ShouldBe(800, "the bushing alone: nobody has chosen");
        Choose(Now, 1).ShouldBeNull();
        var estimate = JobEstimate.Of(inspection);
        estimate.Total.Net.Sum.Likely.ShouldBe(44_500);
        estimate.Lines.Single(line => line.Key == "02").FallsAwayWith.ShouldBe("Cylinder 2: A new power unit");
        inspection.OpenAirworthiness.ShouldContain(mount, "it stays on the list until it is put right");
        inspection.AskChoice(Now.Id, Fixture.Ines, Fixture.Now).ShouldBeNull("taken back, to be chosen anew");
        JobEstimate.Of(inspection).Total.Net.Sum.Likely.ShouldBe(800);
        Choose(Now, 1).ShouldBeNull();
        mount.Move(Disposition.Approved, null, inspection.Terms, null, Fixture.Now).ShouldBeNull();
        mount.Correct(new("Bushing changed all the same"), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        JobEstimate.Of(inspection).Total.Net.Sum.Likely.ShouldBe(45_300, "what was done falls away with nothing");
    }

    [Fact]
    public void To_leave_an_airworthiness_item_is_to_decline_it()
    {
        var choice = Offer(1, Way("Repair"), Way("Leave it", AlternativeKind.Leave, null, null, null, null));
        inspection.AskChoice(choice.Id, Fixture.Ines, Fixture.Now);
        Choose(choice, 1).ShouldBeNull();
        (cylinder.Disposition, cylinder.IsOpenAirworthiness).ShouldBe((Disposition.Declined, true));
        inspection.AskChoice(choice.Id, Fixture.Ines, Fixture.Now).ShouldBeNull();
        cylinder.Disposition.ShouldBe(Disposition.Asked);
        Choose(choice, 0, null, Fixture.Ines).ShouldBeNull();
        cylinder.Agreed!.How.ShouldBe(AgreedHow.OwnersWord);
        cylinder.Correct(new("Valve reseated"), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.AskChoice(choice.Id, Fixture.Ines, Fixture.Now)!.Message.ShouldContain("can't be chosen anew");
    }

    // By hand at 100 an hour: a range of 400 to 1,200 decides over one of 480 to 520.
    [Fact]
    public void The_sum_is_told_in_money_and_words_with_what_decides_it()
    {
        cylinder.Expect(new([new(Skill.Mechanic, new(4, 6, 12))], []), inspection.Terms, Fixture.Ines, Fixture.Now);
        mount.Expect(new([new(Skill.Mechanic, Spread.Of(2))], [new("bushing", "", 4, "", new(70, 75, 80), 21, false)]), inspection.Terms,
            Fixture.Ines, Fixture.Now);
        var total = JobEstimate.Of(inspection).Total;
        total.Net.Sum.ShouldBe(new(880, 1_100, 1_720));
        total.InWords.ShouldStartWith("likely $1,100, nine times in ten under $1,");
        total.InWords.ShouldEndWith("; cylinder 2 leaks decides");
        new PriceSum([PricedLine.Of(mount, null)], inspection.House).Deciding.ShouldHaveSingleItem().Title.ShouldBe("mount bushing sagged");
        JobEstimate.Of(inspection).ByClass.ShouldHaveSingleItem().Class.ShouldBe(DiscrepancyClass.Airworthiness.InWords());
    }
}
