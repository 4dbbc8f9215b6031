using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using static MellowRivet.Core.Discrepancies.Disposition;

namespace MellowRivet.Core.Tests.Estimates;

/// <summary>A price that was agreed stays; another one is asked for.</summary>
public class AgreedPriceTests
{
    private readonly Inspection inspection = Fixture.Inspection(Fixture.Aircraft());

    private void Works(bool ask = true, decimal unasked = 500, decimal rate = 100, decimal tax = 8, bool airworthiness = false) =>
        inspection.Work(new(AskFirst: ask, PreAuthorised: unasked, AirworthinessUnasked: airworthiness, LabourRate: rate, Tax: tax));

    private Discrepancy Find(decimal hours, decimal? parts = null, DiscrepancyClass of = DiscrepancyClass.Recommended)
    {
        var found = inspection.Find(Guid.NewGuid(), "a line", "gear", "", of, false, null, Fixture.Ines, Fixture.Now);
        Put(found, hours, parts).ShouldBeNull();
        return found;
    }

    private Refusal? Put(Discrepancy found, decimal hours, decimal? parts = null) =>
        found.Expect(Estimate.Of(hours, parts), inspection.Terms, Fixture.Ines, Fixture.Now);

    private void Go(Discrepancy found, params Disposition[] steps)
    {
        foreach (var to in steps)
            found.Move(to, null, inspection.Terms, to is Approved or Declined ? null : Fixture.Ines, Fixture.Now).ShouldBeNull($"{to}");
    }

    private decimal? PriceOf(Discrepancy found) => found.Price(inspection.House)?.Likely;

    // At 100 an hour 3 h and 50 of parts are 350; at 150 they would be 500.
    [Theory]
    [InlineData(new[] { Open }, 500)]
    [InlineData(new[] { Asked }, 500)]
    [InlineData(new[] { Asked, Approved }, 350)]
    [InlineData(new[] { Asked, Approved, PartsAwaited }, 350)]
    [InlineData(new[] { Asked, Approved, InWork }, 350)]
    [InlineData(new[] { Asked, Declined }, 500)]
    [InlineData(new[] { InWork }, 350)]
    public void A_rate_that_rises_reprices_only_what_nobody_agreed_to(Disposition[] steps, int then)
    {
        Works();
        var found = Find(3, 50);
        Go(found, [.. steps.Where(step => step != Open)]);
        PriceOf(found).ShouldBe(350);
        Works(rate: 150, tax: 20);
        PriceOf(found).ShouldBe(then);
        found.Tax(inspection.House).ShouldBe(then == 350 ? 8 : 20);
    }

    [Fact]
    public void What_was_agreed_says_when_by_whom_and_at_which_rate()
    {
        Works();
        var found = Find(3, 50);
        Go(found, Asked, Approved);
        (found.Agreed!.Price, found.Agreed.Rates.Mechanic, found.Agreed.By, found.Agreed.At, found.Agreed.How)
            .ShouldBe((Spread.Of(350), 100m, null, Fixture.Now, AgreedHow.Owner));
        found.Steps[^1].Words.ShouldBe("at $350");
        Go(found, InWork);
        found.Correct(new("done"), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Put(found, 9)!.Message.ShouldContain("its price stays");
        PriceOf(found).ShouldBe(350);
        found.Move(Open, "leaks again", inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        found.Agreed.ShouldBeNull("what is done anew is agreed anew");
    }

    [Theory]
    [InlineData(new[] { Asked, Approved })]
    [InlineData(new[] { Asked, Approved, PartsAwaited })]
    [InlineData(new[] { Asked, Approved, InWork })]
    public void Another_price_asks_the_owner_again_and_the_same_one_does_not(Disposition[] steps)
    {
        Works();
        var found = Find(3, 50);
        Go(found, steps);
        Works(rate: 150);
        found.Expect(new([new(Skill.Mechanic, Spread.Of(3))], [new("seal", "S-1", 2, "", Spread.Of(25), 4, false)]), inspection.Terms,
            Fixture.Ines, Fixture.Now).ShouldBeNull();
        found.Disposition.ShouldBe(steps[^1], "the same sum, said in more detail");
        Put(found, 4, 50).ShouldBeNull();
        found.Disposition.ShouldBe(Asked);
        found.Steps[^1].Words.ShouldBe("was agreed at $350, now $650: asked again");
        found.Correct(new("done all the same"), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldNotBeNull("nobody has agreed to it");
        Go(found, Approved);
        PriceOf(found).ShouldBe(650);
    }

    [Fact]
    public void A_yes_without_a_price_is_no_yes_to_any_price()
    {
        Works();
        var found = inspection.Find(Guid.NewGuid(), "a line", "gear", "", DiscrepancyClass.Recommended, false, null, Fixture.Ines,
            Fixture.Now);
        Go(found, Asked, Approved);
        Put(found, 40).ShouldBeNull();
        (found.Disposition, found.Steps[^1].Words).ShouldBe((Asked, "was agreed without a price, now $4,000: asked again"));
    }

    // 500 may be spent unasked: 300 and 200 fit, a cent more doesn't; ranges count at the most they may come to.
    [Fact]
    public void What_is_begun_unasked_draws_on_one_amount_for_the_whole_inspection()
    {
        Works();
        var (first, second, third) = (Find(3), Find(2), Find(0.01m));
        Go(first, InWork);
        (inspection.DrawnDown, inspection.Terms.LeftUnasked, first.Agreed!.How).ShouldBe((300, 200, AgreedHow.Unasked));
        Go(second, InWork);
        inspection.Terms.LeftUnasked.ShouldBe(0);
        third.Move(InWork, null, inspection.Terms, Fixture.Ines, Fixture.Now)!.Message
            .ShouldBe("$1 is more than the $0 left of $500 this shop may spend unasked: ask the owner first.");
        third.Correct(new("done"), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldNotBeNull();
        second.Move(Withdrawn, "wrong aircraft", inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.Terms.LeftUnasked.ShouldBe(200);
        Put(first, 4).ShouldBeNull();
        (first.Disposition, inspection.Terms.LeftUnasked).ShouldBe((InWork, 100), "it fits what is left and its own share");
        Put(first, 6).ShouldBeNull();
        first.Disposition.ShouldBe(Asked, "600 is more than there is");
    }

    [Fact]
    public void A_range_draws_at_its_most_and_what_has_no_price_is_asked()
    {
        Works();
        var wide = inspection.Find(Guid.NewGuid(), "wide", "gear", "", DiscrepancyClass.Recommended, false, null, Fixture.Ines,
            Fixture.Now);
        wide.Expect(new([new(Skill.Mechanic, new(1, 2, 6))], []), inspection.Terms, Fixture.Ines, Fixture.Now);
        wide.Move(InWork, null, inspection.Terms, Fixture.Ines, Fixture.Now)!.Message.ShouldContain("$600 is more than the $500");
        wide.Expect(new([new(Skill.Mechanic, Spread.Of(1))], [new("seal", "", 1, "", null, null, false)]), inspection.Terms, Fixture.Ines,
            Fixture.Now);
        wide.Move(InWork, null, inspection.Terms, Fixture.Ines, Fixture.Now)!.Message.ShouldContain("Not all of it has a price");
        Works(airworthiness: true);
        var cord = Find(90, of: DiscrepancyClass.Airworthiness);
        Go(cord, InWork);
        (cord.Agreed!.How, inspection.DrawnDown).ShouldBe((AgreedHow.AirworthinessUnasked, 0));
        Works(ask: false);
        Go(wide, InWork);
        wide.Agreed.ShouldBeNull("a shop with a free hand agrees to nothing with itself");
    }

    [Fact]
    public void What_was_agreed_goes_with_a_line_that_is_left_open_to_the_next_inspection()
    {
        Works(ask: false);
        var (kit, aircraft) = (new PartNeeded("seal kit", "HS-2", 1, "", Spread.Of(480), 49, false), Fixture.Aircraft());
        var found = inspection.Find(Guid.NewGuid(), "seals weep", "gear", "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines,
            Fixture.Now);
        found.Expect(new([new(Skill.Mechanic, Spread.Of(7))], [kit]), inspection.Terms, Fixture.Ines, Fixture.Now);
        Go(found, Asked, Approved, PartsAwaited);
        var declined = Find(1);
        Go(declined, Asked, Approved, Declined);
        var items = OpenItems.OpenItemsAfter.Signing(inspection, [], Fixture.Ines, Fixture.Today);
        var next = new Inspection(Guid.NewGuid(), aircraft, InspectionKind.Annual, "27-1", [Fixture.Small], Fixture.Today,
            house: new(AskFirst: true, LabourRate: 300), openItems: items);
        var carried = next.Discrepancies.Single(other => other.Class == DiscrepancyClass.Airworthiness);
        (carried.Disposition, carried.Price(next.House), carried.Agreed!.At).ShouldBe((Approved, Spread.Of(1_180), Fixture.Now));
        (carried.Steps.Single().Words, carried.HasMoved, carried.WaitsForALook).ShouldBe(("carried over from 26-1-01", false, true));
        next.Discrepancies.Single(other => other != carried).Disposition.ShouldBe(Open, "a no is asked again");
        var ordered = new Core.Parts.OrderedPart(Guid.NewGuid(), "seal kit", "HS-2", 1, "", new(next.AircraftId, inspection.Id, "01"));
        Core.Parts.PartsList.Needed([next], [ordered]).ShouldBeEmpty("it is on its way since it was left open");
        Core.Parts.PartsList.Needed([next], []).ShouldHaveSingleItem();
        carried.Correct(new("Seals replaced"), next.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull("the owner had said yes");
    }

    [Theory]
    [InlineData(-1, 0)]
    [InlineData(1000, 0)]
    [InlineData(1, -5)]
    [InlineData(1, 10_000_000)]
    public void An_estimate_out_of_bounds_is_refused(double hours, double parts)
    {
        Works();
        var found = Find(1);
        Put(found, (decimal)hours, (decimal)parts)!.Field.ShouldBe("estimate");
        PriceOf(found).ShouldBe(100);
    }

    [Fact]
    public void Other_work_has_a_price_the_owner_answers_and_it_stays()
    {
        Works();
        var due = new DueWork(Guid.NewGuid(), "Magneto inspection", 5);
        var offered = inspection.Unpriced([due]).ToList();
        offered.Select(work => (work.Key, work.Estimate?.Hours?.Likely))
            .ShouldBe([("inspection", null), ($"due-{due.Id:N}", 5m)], "the worksheet of this test says no hours");
        inspection.Expect("inspection", _ => (Estimate.Of(20, null), null), offered, Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.Expect($"due-{due.Id:N}", was => (was, null), offered, Fixture.Ines, Fixture.Now).ShouldBeNull();
        var owner = OwnerList.Of(inspection);
        owner.AnswerWork("inspection", OwnerAnswer.Approve, null, Fixture.Now)!.Message.ShouldContain("no such line", Case.Insensitive,
            "nobody has asked");
        inspection.AskAll(Fixture.Ines, Fixture.Now);
        owner = OwnerList.Of(inspection);
        owner.Waiting.Net.Sum.Likely.ShouldBe(2_500);
        owner.Waiting.Gross.ShouldBe(2_700, "8 % on top");
        owner.AnswerWork("inspection", OwnerAnswer.Approve, "another price", Fixture.Now)!.Message.ShouldContain("has changed");
        owner.AnswerWork("inspection", OwnerAnswer.Approve, owner.Reads(owner.Work[0]), Fixture.Now).ShouldBeNull();
        owner.AnswerWork($"due-{due.Id:N}", OwnerAnswer.Decline, owner.Reads(owner.Work[1]), Fixture.Now).ShouldBeNull();
        inspection.LeftOut.ShouldBe([due.Id], "what the owner declines isn't planned, and stays due");
        Works(rate: 150);
        OwnerList.Of(inspection).Agreed.Net.Sum.Likely.ShouldBe(2_000);
        inspection.Expect("inspection", _ => (Estimate.Of(25, null), null), [], Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.PricedWork[0].Disposition.ShouldBe(Asked);
    }
}
