using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Parts;

namespace MellowRivet.Core.Tests.Parts;

/// <summary>A part from needed to fitted: nothing twice, nothing over its life, nothing without a trace.</summary>
public class OrderedPartTests
{
    private static readonly DateOnly Today = Fixture.Today;
    private readonly OrderedPart part = new(Guid.NewGuid(), "seal kit", "HS-211", 4, "", PartFor.Shelf);

    private static Receipt Came(decimal quantity, string trace = "CL-1", DateOnly? until = null,
        PartCondition condition = PartCondition.New,
        Guid? id = null) => new(id ?? Guid.NewGuid(), quantity, condition, trace, "L 7", until, Fixture.Ines, Fixture.Now);

    private static TakenOut Out(Receipt of, decimal quantity, string words = "", string serial = "") =>
        new(of.Id, quantity, serial, "", null, words, Fixture.Ines, Fixture.Now);

    [Fact]
    public void It_goes_from_needed_to_fitted_and_owes_its_core_until_that_is_gone()
    {
        part.State.ShouldBe(PartState.Needed);
        part.From(false, "Corrin Parts", 480, null, false, Today).ShouldBeNull();
        part.State.ShouldBe(PartState.Asked);
        part.From(true, "Corrin Parts", null, Today.AddDays(49), true, Today).ShouldBeNull();
        (part.State, part.Price, part.Standing(Today)).ShouldBe((PartState.Ordered, 480m,
            $"ordered from Corrin Parts {Today:yyyy-MM-dd}, expected {Today.AddDays(49):yyyy-MM-dd}"));
        part.CoreIsOwed.ShouldBeFalse("nothing has come");
        var (first, rest) = (Came(1), Came(3));
        part.Receive(first).ShouldBeNull();
        part.Standing(Today).ShouldBe("1 of 4 here");
        part.Receive(rest).ShouldBeNull();
        (part.State, part.CoreIsOwed).ShouldBe((PartState.Received, true));
        part.Fit(Out(first, 1), Today).ShouldBeNull();
        part.Fit(Out(rest, 2), Today).ShouldBeNull();
        part.GiveBack(Out(rest, 1, "one too many")).ShouldBeNull();
        (part.State, part.IsThrough).ShouldBe((PartState.Fitted, false), "the core is owed");
        part.SendCore(Today.AddDays(1), Today)!.Message.ShouldContain("still to come");
        part.SendCore(Today, Today).ShouldBeNull();
        part.IsThrough.ShouldBeTrue();
    }

    [Theory]
    [InlineData(0, false)]
    [InlineData(1, true)]
    public void It_is_late_from_the_day_after_it_was_expected(int daysAfter, bool late)
    {
        part.From(true, "Corrin Parts", null, Today, false, Today).ShouldBeNull();
        part.IsLate(Today.AddDays(daysAfter)).ShouldBe(late);
        part.Receive(Came(4));
        part.IsLate(Today.AddDays(daysAfter)).ShouldBeFalse();
    }

    [Fact]
    public void Nothing_comes_twice_and_no_more_goes_in_than_came()
    {
        var receipt = Came(4);
        part.Receive(Came(5))!.Message.ShouldContain("too many");
        part.Receive(Came(0))!.Message.ShouldContain("above 0");
        part.Receive(Came(-1))!.Message.ShouldContain("above 0");
        part.Receive(receipt).ShouldBeNull();
        part.Receive(receipt).ShouldBeNull();
        part.Came.ShouldBe(4, "the same post twice is one");
        part.Receive(Came(1))!.Message.ShouldBe("All 4 have come already: received twice?");
        part.Fit(Out(receipt, 5), Today)!.Message.ShouldBe("4 of it are here: 5 can’t be fitted.");
        part.Fit(Out(receipt, 3), Today).ShouldBeNull();
        part.GiveBack(Out(receipt, 2, "wrong"))!.Message.ShouldBe("1 of it are here: 2 can’t be sent back.");
        part.GiveBack(Out(receipt, 1))!.Message.ShouldContain("why");
        part.Fit(Out(Came(1), 1), Today)!.Message.ShouldContain("nothing like that has come");
    }

    // The last day is a day on which it may be fitted.
    [Theory]
    [InlineData(1, true)]
    [InlineData(0, true)]
    [InlineData(-1, false)]
    public void Shelf_life_holds_to_its_last_day(int daysLeft, bool may)
    {
        var receipt = Came(4, until: Today.AddDays(daysLeft));
        part.Receive(receipt).ShouldBeNull();
        (part.Fit(Out(receipt, 1), Today) is null).ShouldBe(may);
        if (!may)
        {
            part.Waive("standard part", Fixture.Ines, Fixture.Now);
            part.Fit(Out(receipt, 1), Today)!.Message.ShouldContain("shelf life ended", Case.Insensitive,
                "no trace needed is no longer life");
        }
    }

    [Fact]
    public void What_needs_a_trace_is_not_fitted_without_one()
    {
        var (bare, core) = (Came(2, ""), Came(2, "CL-2", condition: PartCondition.AsRemoved));
        part.Receive(bare);
        part.Receive(core);
        part.Fit(Out(bare, 1), Today)!.Message.ShouldContain("without a tag");
        part.Waive(" ", Fixture.Ines, Fixture.Now)!.Message.ShouldContain("why");
        part.Waive("MS standard, marked", Fixture.Ines, Fixture.Now).ShouldBeNull();
        part.Fit(Out(bare, 1), Today).ShouldBeNull();
        part.Fit(Out(core, 1), Today)!.Message.ShouldContain("as it was removed");
    }

    [Fact]
    public void A_correction_can_not_name_what_may_not_be_fitted()
    {
        part.Receive(Came(1, ""));
        Correction done = new("Seals replaced", CorrectionKind.Replaced, "32-10", [new("hs-211", "", "")]);
        OrderedPart.FittedUnseen(done, [part], Today)!.Message.ShouldContain("without a tag");
        OrderedPart.FittedUnseen(done with { Parts = [new("HS-999", "", "")] }, [part], Today).ShouldBeNull();
        part.Receive(Came(1));
        OrderedPart.FittedUnseen(done, [part], Today).ShouldBeNull("one that may be fitted is here");
    }

    [Theory]
    [InlineData("", null, 0, "from whom")]
    [InlineData("Corrin Parts", -1.0, 0, "from 0 up")]
    [InlineData("Corrin Parts", 1e12, 0, "below 10,000,000")]
    [InlineData("Corrin Parts", 5.0, -1, "is gone by")]
    public void A_bad_order_is_told_at_the_part(string supplier, double? price, int days, string says) =>
        part.From(true, supplier, (decimal?)price, Today.AddDays(days), false, Today)!.Message.ShouldContain(says);

    [Fact]
    public void Needed_is_what_open_estimates_list_and_nobody_ordered()
    {
        var inspection = Fixture.Inspection(Fixture.Aircraft());
        Discrepancy Find(params PartNeeded[] parts)
        {
            var found = inspection.Find(Guid.NewGuid(), "leaks", "gear", "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines,
                Fixture.Now);
            found.Expect(new([], parts), inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
            return found;
        }
        PartNeeded kit = new("seal kit", "HS-211", 1, "", Spread.Of(480), 49, false), oil = new("oil", "", 2, "l", null, null, true);
        Find(kit, oil);
        Find(kit with { What = "tyre", Number = "TY-6", LeadDays = 60 });
        var declined = Find(kit with { What = "paint" });
        declined.Move(Disposition.Declined, null, inspection.Terms, Fixture.Ines, Fixture.Now);
        Find(kit with { What = "done" }).Correct(new("done"), inspection.Terms, Fixture.Ines, Fixture.Now);
        Find(Estimate.Of(null, 90).Parts[0]);
        PartsList.Needed([inspection], []).Select(one => one.Part.What).ShouldBe(["tyre", "seal kit", "oil"], "the slowest first");
        PartsList.Needed([inspection], [new(Guid.NewGuid(), "seal kit", "HS-211", 1, "", new(inspection.AircraftId, inspection.Id, "01"))])
            .Select(one => one.Part.What).ShouldBe(["tyre", "oil"]);
        OrderedPart wrong = new(Guid.NewGuid(), "seal kit", "HS-211", 1, "", new(inspection.AircraftId, inspection.Id, "01"));
        var receipt = Came(1);
        wrong.Receive(receipt);
        wrong.GiveBack(Out(receipt, 1, "the wrong one")).ShouldBeNull();
        PartsList.Needed([inspection], [wrong]).Select(one => one.Part.What).ShouldContain("seal kit", "it is needed again");
    }
}
