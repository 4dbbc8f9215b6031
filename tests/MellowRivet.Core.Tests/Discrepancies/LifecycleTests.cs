using FsCheck;
using FsCheck.Fluent;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Tests.Discrepancies;

/// <summary>From found to put right: which steps there are, who takes them, and that nothing is lost on the way.</summary>
public class LifecycleTests
{
    private static readonly Terms Free = new(new(), 0);
    private static readonly Person Inspector = new(Guid.NewGuid(), "Second Person", "SP", [Role.Inspector], []);

    private static Discrepancy Found(DiscrepancyClass @class = DiscrepancyClass.Recommended) => DeferralTests.Found(@class);

    // The order of the trade (shared/domain.md, section 9): open → asked → approved or declined → parts
    // awaited → in work → done → inspected.
    [Fact]
    public void The_whole_way_is_kept_step_by_step_with_who_and_when()
    {
        var found = Found();
        foreach (var to in new[] { Disposition.Asked, Disposition.Approved, Disposition.PartsAwaited, Disposition.InWork })
            found.Move(to, null, Free, to == Disposition.Approved ? null : Fixture.Ines, Fixture.Now).ShouldBeNull();
        found.Correct(new("Replaced"), Free, Fixture.Ines, Fixture.Now).ShouldBeNull();
        found.Inspect(Inspector, Fixture.Now.AddHours(1)).ShouldBeNull();
        found.Steps.Select(step => step.To)
            .ShouldBe([Disposition.Asked, Disposition.Approved, Disposition.PartsAwaited, Disposition.InWork, Disposition.Done,
                Disposition.Inspected]);
        found.Steps[1].By.ShouldBeNull("the owner said so");
        found.Steps[^1].ShouldBe(new(Disposition.Inspected, Inspector.Id, Fixture.Now.AddHours(1)));
    }

    // Whatever is asked of it in whatever order: no step that the table doesn't have, each one kept, and what was done never without words.
    [Fact]
    public void No_order_of_steps_leads_where_none_leads() => Prop.ForAll(
        Gen.Choose(0, Enum.GetValues<Disposition>().Length - 1).ListOf().ToArbitrary(), wanted =>
        {
            var found = Found();
            foreach (var to in wanted.Select(number => (Disposition)(number + 1)))
            {
                var (before, steps) = (found.Disposition, found.Steps.Count);
                var refusal = to switch
                {
                    Disposition.Done => found.Correct(new("done"), Free, Fixture.Ines, Fixture.Now),
                    Disposition.Inspected => found.Inspect(Inspector, Fixture.Now),
                    _ => found.Move(to, "why", Free, Fixture.Ines, Fixture.Now),
                };
                if (refusal is null != Lifecycle.Allows(before, to))
                    return false;
                if (found.Disposition != (refusal is null ? to : before) || found.Steps.Count != steps + (refusal is null ? 1 : 0))
                    return false;
                if ((found.Correction is not null) != found.Disposition is Disposition.Done or Disposition.Inspected
                    || (found.InspectedBy is not null && found.Disposition != Disposition.Inspected))
                    return false;
            }
            return true;
        }).QuickCheckThrowOnFailure();

    [Fact]
    public void Every_state_can_be_reached_and_left()
    {
        var reached = new HashSet<Disposition> { Disposition.Open };
        for (var round = 0; round < 9; round++)
            reached.UnionWith(reached.SelectMany(Lifecycle.From).ToList());
        reached.Count.ShouldBe(Enum.GetValues<Disposition>().Length);
        Enum.GetValues<Disposition>().ShouldAllBe(state => Lifecycle.From(state).Count > 0);
    }

    [Fact]
    public void Withdrawing_and_opening_again_say_why_and_what_was_done_stays_on_file()
    {
        var found = Found();
        found.Move(Disposition.Withdrawn, " ", Free, Fixture.Ines, Fixture.Now)!.Message.ShouldContain("Say why");
        found.Correct(new("Clamp tightened", CorrectionKind.Repaired, "manual 71-20"), Free, Fixture.Ines, Fixture.Now);
        found.Classify(new(DiscrepancyClass.Watch, false, Fixture.Ines, Fixture.Now), Fixture.Classes,
            null)!.Message.ShouldContain("Open it again first");
        found.Move(Disposition.Open, null, Free, Fixture.Ines, Fixture.Now)!.Message.ShouldContain("Say why");
        found.Move(Disposition.Open, "leaks again after the run", Free, Fixture.Ines, Fixture.Now).ShouldBeNull();
        found.Correction.ShouldBeNull();
        found.Classify(new(DiscrepancyClass.Watch, false, Fixture.Ines, Fixture.Now), Fixture.Classes, null)!.Field.ShouldBe("why",
            "its words say more");
        found.Classify(new(DiscrepancyClass.Watch, false, Fixture.Ines, Fixture.Now, "only when cold"), Fixture.Classes, null)
            .ShouldBeNull();
        found.Lowered.ShouldHaveSingleItem().InWords.ShouldBe("lowered from deferrable to watch: only when cold");
        found.Steps[^1].Words.ShouldBe("leaks again after the run · Done before: Clamp tightened Ref. manual 71-20.");
    }

    [Fact]
    public void Who_did_it_can_not_inspect_it()
    {
        var found = Found();
        found.Correct(new("Done"), Free, Inspector.Id, Fixture.Now);
        found.Inspect(Inspector, Fixture.Now)!.Message.ShouldContain("somebody else");
    }

    [Theory]
    [InlineData(DiscrepancyClass.Recommended, null, false)]
    [InlineData(DiscrepancyClass.Recommended, 1.0, true)] // 1 h at 80 and 20 of parts: just what is authorised
    [InlineData(DiscrepancyClass.Recommended, 1.1, false)]
    [InlineData(DiscrepancyClass.Airworthiness, null, true)]
    public void A_shop_that_asks_first_begins_only_what_it_may(DiscrepancyClass @class, double? hours, bool may)
    {
        Terms asks = new(new(AskFirst: true, PreAuthorised: 100, AirworthinessUnasked: true, LabourRate: 80), 100);
        var found = Found(@class);
        if (hours is { } labour)
            found.Expect(Estimate.Of((decimal)labour, 20), asks, Fixture.Ines, Fixture.Now).ShouldBeNull();
        (found.Move(Disposition.InWork, null, asks, Fixture.Ines, Fixture.Now) is null).ShouldBe(may);
        if (!may)
        {
            found.Correct(new("Done"), asks, Fixture.Ines, Fixture.Now).ShouldNotBeNull();
            found.Move(Disposition.Asked, null, asks, Fixture.Ines, Fixture.Now).ShouldBeNull();
            found.Move(Disposition.Approved, null, asks, null, Fixture.Now).ShouldBeNull();
            found.Move(Disposition.InWork, null, asks, Fixture.Ines, Fixture.Now).ShouldBeNull("the owner said yes");
        }
    }

    [Fact]
    public void A_declined_airworthiness_item_leaves_only_the_unairworthy_statement()
    {
        var inspection = Fixture.Inspection(Fixture.Aircraft());
        var cord = inspection.Find(Guid.NewGuid(), "cord showing", "gear", "", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines,
            Fixture.Now);
        cord.Move(Disposition.Asked, null, Free, Fixture.Ines, Fixture.Now);
        cord.Move(Disposition.Declined, null, Free, null, Fixture.Now).ShouldBeNull();
        inspection.OpenAirworthiness.ShouldHaveSingleItem();
        cord.Move(Disposition.Withdrawn, "wrong aircraft", Free, Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.OpenAirworthiness.ShouldBeEmpty();
    }

    [Fact]
    public void The_owner_sees_what_was_asked_sums_it_and_answers_only_that()
    {
        var inspection = Fixture.Inspection(Fixture.Aircraft());
        inspection.Work(new(LabourRate: 80, Money: "EUR"));
        Discrepancy Find(string what, DiscrepancyClass @class) =>
            inspection.Find(Guid.NewGuid(), what, "gear", "", @class, false, null, Fixture.Ines, Fixture.Now);
        var (tyre, paint, secret) = (Find("tyre", DiscrepancyClass.Airworthiness), Find("paint", DiscrepancyClass.Recommended),
            Find("not asked yet", DiscrepancyClass.Recommended));
        tyre.Expect(Estimate.Of(1.5m, 180), inspection.Terms, Fixture.Ines, Fixture.Now);
        paint.Expect(Estimate.Of(2, null), inspection.Terms, Fixture.Ines, Fixture.Now);
        tyre.Add(Guid.NewGuid(), "for the shop alone", Fixture.Ines, Fixture.Now);
        foreach (var found in new[] { tyre, paint })
            found.Move(Disposition.Asked, null, inspection.Terms, Fixture.Ines, Fixture.Now);
        var owner = OwnerList.Of(inspection);
        owner.Lines.ShouldBe([tyre, paint]);
        owner.Waiting.Net.Sum.Likely.ShouldBe(1.5m * 80 + 180 + 160);
        owner.Answer(1, OwnerAnswer.Approve, null, Fixture.Now, "1:1:another price")!.Message.ShouldContain("has changed");
        owner.Answer(1, OwnerAnswer.Approve, null, Fixture.Now, owner.Reads(tyre)).ShouldBeNull();
        owner.Answer(2, OwnerAnswer.Decline, "next year", Fixture.Now, owner.Reads(paint)).ShouldBeNull();
        owner.Answer(1, OwnerAnswer.Ask, "  ", Fixture.Now)!.Message.ShouldContain("question");
        owner.Answer(1, OwnerAnswer.Ask, "Which brand?", Fixture.Now.AddMinutes(1)).ShouldBeNull();
        tyre.OwnerWaits.ShouldBeTrue();
        tyre.Notes.Where(OwnerList.IsForTheOwner(tyre)).ShouldHaveSingleItem().Words.ShouldBe("Which brand?");
        (owner.Agreed.Net.Sum.Likely, owner.Waiting.Net.Sum.Likely).ShouldBe((300m, 0m));
        owner.Agreed.InWords.ShouldBe("EUR 300");
        owner.Answer(3, OwnerAnswer.Approve, null, Fixture.Now)!.Message.ShouldContain("no such line");
        secret.Disposition.ShouldBe(Disposition.Open);
        owner.Answer(2, OwnerAnswer.Approve, null, Fixture.Now, owner.Reads(paint)).ShouldBeNull("an owner may think again");
        tyre.Correct(new("Changed"), inspection.Terms, Fixture.Ines, Fixture.Now);
        owner.Answer(1, OwnerAnswer.Decline, null, Fixture.Now)!.Message.ShouldContain("speak to the shop");
    }

    [Theory]
    [InlineData("a@b.c", 21, true)]
    [InlineData("a@b.c", 0, false)]
    [InlineData("a@b.c", 91, false)]
    [InlineData("nobody", 5, false)]
    [InlineData("two words@b.cd", 5, false)]
    [InlineData("", 5, false)]
    public void A_link_ends_by_itself_at_once_when_told_and_keeps_no_token(string to, int days, bool made)
    {
        var (link, token, refusal) = OwnerLink.Make(Guid.NewGuid(), Guid.NewGuid(), to, days, Fixture.Ines, Fixture.Now);
        (link is not null).ShouldBe(made, refusal?.Message);
        if (link is null)
            return;
        token.Length.ShouldBe(64);
        link.TokenHash.ShouldBe(OwnerLink.HashOf(token));
        link.TokenHash.ShouldNotBe(token);
        link.HoldsAt(Fixture.Now.AddDays(days).AddSeconds(-1)).ShouldBeTrue();
        link.HoldsAt(Fixture.Now.AddDays(days)).ShouldBeFalse();
        link.Revoke(Fixture.Now.AddHours(1));
        link.HoldsAt(Fixture.Now.AddHours(1)).ShouldBeFalse();
    }

    [Fact]
    public void A_part_that_was_used_takes_its_place_in_the_tree()
    {
        var aircraft = Fixture.Aircraft();
        var propeller = aircraft.Propellers.Single();
        aircraft.Replace(propeller.ComponentId, "P-77", "P-1", new(2026, 11, 23),
            "26-1-01: replaced")!.Message.ShouldContain("the one that comes off");
        aircraft.Replace(aircraft.Engines.Single().ComponentId, "E", "E-2", new(2026, 11, 23), "x")!.Message.ShouldContain("under Parts");
        aircraft.Replace(propeller.ComponentId, "P-77", "P-2", new(2026, 11, 23), "26-1-01: replaced").ShouldBeNull();
        var on = aircraft.Propellers.Single();
        (on.Component.PartNumber, on.Component.SerialNumber, on.InstalledAt).ShouldBe(("P-77", "P-2", aircraft.TimeInService));
        propeller.RemovedWhy.ShouldBe("26-1-01: replaced");
        on.TimeInService(aircraft.TimeInService).ShouldBeNull("nobody has said how old the new one is");
    }
}
