using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Tests.Discrepancies;

/// <summary>The order of a fix list, what a search holds, and the shop's rules of asking and money. Common practice: worst first.</summary>
public class FixListTests
{
    private static readonly Terms Free = new(new(), 0);

    private static Discrepancy Found(int number, DiscrepancyClass @class, bool grounded = false, string what = "found")
    {
        var found = DeferralTests.Found(@class, what, number: number);
        if (grounded)
            found.Classify(new(@class, true, Fixture.Ines, Fixture.Now), Fixture.Classes, null).ShouldBeNull();
        return found;
    }

    [Fact]
    public void Worst_first_and_what_is_settled_last()
    {
        var done = Found(1, DiscrepancyClass.Airworthiness);
        done.Correct(new("done"), Free, Fixture.Ines, Fixture.Now);
        Discrepancy[] list = [done, Found(2, DiscrepancyClass.Watch), Found(3, DiscrepancyClass.Recommended),
            Found(4, DiscrepancyClass.Airworthiness), Found(5, DiscrepancyClass.Airworthiness, grounded: true),
            Found(6, DiscrepancyClass.Deferrable)];
        FixListRules.WorstFirst(list).Select(found => found.Number).ShouldBe([5, 4, 6, 3, 2, 1]);
    }

    [Theory]
    [InlineData("", true)]
    [InlineData("tyre cord", true)]
    [InlineData("CORD left", true)]
    [InlineData("26-1-07", true)]
    [InlineData("gear heard", true)]
    [InlineData("manual 32-40", true)]
    [InlineData("tyre propeller", false)]
    public void A_search_holds_every_word_wherever_it_stands(string sought, bool holds)
    {
        var found = DeferralTests.Found(DiscrepancyClass.Recommended, "Tyre shows cord", "gear", "left main", number: 7);
        found.Add(Guid.NewGuid(), "heard it slap", Fixture.Ines, Fixture.Now).ShouldBeNull();
        found.Correct(new("Changed", CorrectionKind.Replaced, "manual 32-40"), Free, Fixture.Ines, Fixture.Now);
        FixListRules.Holds(found, "26-1-07", "Landing gear", sought).ShouldBe(holds);
    }

    [Fact]
    public void What_is_shown_belongs_there()
    {
        var (mine, other) = (Found(1, DiscrepancyClass.Watch), Found(2, DiscrepancyClass.Watch, what: "seal gone"));
        var nobody = Guid.NewGuid();
        Recurrence none = new(new Dictionary<Guid, Discrepancy> { [other.Id] = mine }, []);
        other.Move(Disposition.Asked, null, Free, Fixture.Ines, Fixture.Now);
        other.Add(Guid.NewGuid(), "How long will it hold?", null, Fixture.Now);
        bool Belongs(Discrepancy found, FixListShow show, Guid? me = null) => FixListRules.Belongs(found, show, me ?? Fixture.Ines, none);
        Belongs(mine, FixListShow.Mine).ShouldBeTrue();
        Belongs(mine, FixListShow.Mine, nobody).ShouldBeFalse();
        (Belongs(mine, FixListShow.OwnerWaits), Belongs(other, FixListShow.OwnerWaits)).ShouldBe((false, true));
        (Belongs(mine, FixListShow.New), Belongs(other, FixListShow.Again)).ShouldBe((true, true));
        other.Add(Guid.NewGuid(), "A year", Fixture.Ines, Fixture.Now);
        Belongs(other, FixListShow.OwnerWaits).ShouldBeFalse("somebody answered");
    }

    [Theory]
    [InlineData("$", 477.5, "$477.50")]
    [InlineData("$", 1078, "$1,078")]
    [InlineData("EUR", 0, "EUR 0")]
    public void A_sum_is_said_in_the_shops_money(string money, double sum, string words) =>
        new HouseRules(Money: money).Sum((decimal)sum).ShouldBe(words);

    [Theory]
    [InlineData(-1, 95, "$", false)]
    [InlineData(0, -1, "$", false)]
    [InlineData(0, 95, "", false)]
    [InlineData(0, 95, "money", false)]
    [InlineData(1_000_000, 10_000, "EUR", true)]
    public void Rules_of_money_are_checked(double unasked, double rate, string money, bool hold) =>
        (new HouseRules(AskFirst: true, PreAuthorised: (decimal)unasked, LabourRate: (decimal)rate, Money: money).Check() is null)
            .ShouldBe(hold);

    [Fact]
    public void What_nobody_priced_has_no_price()
    {
        var rates = new HouseRules(LabourRate: 95).HourlyRates();
        Estimate.Of(null, null).Price(rates).ShouldBeNull();
        Estimate.Of(1.5m, null).Price(rates).ShouldBe(Spread.Of(142.5m));
        var found = Found(1, DiscrepancyClass.Watch);
        found.Expect(Estimate.Of(-1, null), Free, Fixture.Ines, Fixture.Now)!.Field.ShouldBe("estimate");
        found.Expect(Estimate.Of(null, null), Free, Fixture.Ines, Fixture.Now).ShouldBeNull();
        found.Estimate.ShouldBeNull();
    }
}
