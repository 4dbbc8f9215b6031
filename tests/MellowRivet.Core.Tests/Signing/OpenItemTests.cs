using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Oil;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Tests.Signing;

/// <summary>
/// Open items belong to the aircraft, not to the inspection that found them (domain.md section 14; 43.11(b), 91.405(c), from memory).
/// </summary>
public class OpenItemTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly List<OpenItem> items = [];
    private int year;

    private IReadOnlyList<OpenItem> Open => [.. items.Where(item => item.IsOpen)];

    private Inspection Begin() =>
        new(Guid.NewGuid(), aircraft, InspectionKind.Annual, $"{26 + year}-1", [Fixture.Small], Fixture.Today.AddYears(year), null,
            new(FirstLook: false), null, Open);

    private void Sign(Inspection inspection)
    {
        items.AddRange(OpenItemsAfter.Signing(inspection, Open, Fixture.Ines, Fixture.Today.AddYears(year++)));
        inspection.Sign();
    }

    private static Discrepancy Find(Inspection inspection, string what, DiscrepancyClass @class) =>
        inspection.Find(Guid.NewGuid(), what, "gear", "left", @class, false, null, Fixture.Ines, Fixture.Now);

    private static void Defer(Discrepancy found)
    {
        foreach (var question in DeferralWalk.Questions)
            found.Answer(question.Key, question.GoesOn, "", Fixture.Classes, Fixture.Ines, Fixture.Now).ShouldBeNull();
        found.Correct(new("Breaker collared, placarded inoperative", CorrectionKind.Deferred), new(new(), 0), Fixture.Ines, Fixture.Now)
            .ShouldBeNull();
    }

    [Fact]
    public void What_was_deferred_is_paid_for_and_what_ends_as_a_known_mark_says_so()
    {
        var first = Begin();
        var (boots, line) = (Find(first, "De-ice boots do not inflate", DiscrepancyClass.Deferrable),
            Find(first, "Line in the paint", DiscrepancyClass.Recommended));
        foreach (var found in new[] { boots, line })
        {
            found.Expect(Estimate.Of(null, 90), first.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
            found.Move(Disposition.Asked, null, first.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
            found.Move(Disposition.Approved, null, first.Terms, null, Fixture.Now).ShouldBeNull();
        }
        Defer(boots);
        Sign(first);
        var second = Begin();
        var (carriedBoots, carriedLine) = (second.Discrepancies.Single(found => found.CarriedNumber == "26-1-01"),
            second.Discrepancies.Single(found => found.CarriedNumber == "26-1-02"));
        (carriedBoots.Disposition, carriedBoots.Estimate, carriedBoots.Agreed).ShouldBe((Disposition.Open, null, null));
        carriedLine.Disposition.ShouldBe(Disposition.Approved);
        carriedLine.Examine(new(FoundHow.DyePenetrant, "no indication", Fixture.Ines, Fixture.Today, null), Fixture.Today,
            new(DiscrepancyClass.KnownMark, false, Fixture.Ines, Fixture.Now), Fixture.Classes).ShouldBeNull();
        Sign(second);
        items.Single(item => item.FirstNumber == "26-1-02").End!.Words.ShouldBe("known mark");
    }

    [Fact]
    public void Over_three_inspections_what_is_left_open_is_carried_looked_at_and_settled()
    {
        var first = Begin();
        Find(first, "Left fuel bladder seeps", DiscrepancyClass.Airworthiness);
        Defer(Find(first, "De-ice boots do not inflate", DiscrepancyClass.Deferrable));
        Find(first, "Spinner hairline", DiscrepancyClass.Watch);
        Find(first, "Door seal parted", DiscrepancyClass.Recommended)
            .Move(Disposition.Declined, "next year", first.Terms, null, Fixture.Now)
            .ShouldBeNull();
        Find(first, "Lamp dead", DiscrepancyClass.Recommended)
            .Correct(new("Lamp replaced", CorrectionKind.Replaced), first.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Find(first, "Scratch", DiscrepancyClass.KnownMark);
        Sign(first);
        first.State.ShouldBe(InspectionState.SignedUnairworthy);
        Open.Select(item => (item.FirstNumber, item.Because))
            .ShouldBe([("26-1-01", OpenBecause.Airworthiness), ("26-1-02", OpenBecause.Deferred), ("26-1-03", OpenBecause.Watch),
                ("26-1-04", OpenBecause.Declined)]);

        // They stand on the second one's list from the start, worst first, and nobody signs before they were looked at.
        var second = Begin();
        second.Discrepancies.Select(found => (found.CarriedNumber, found.Class, found.WaitsForALook))
            .ShouldBe([("26-1-01", DiscrepancyClass.Airworthiness, true), ("26-1-02", DiscrepancyClass.Deferrable, true),
                ("26-1-04", DiscrepancyClass.Recommended, true), ("26-1-03", DiscrepancyClass.Watch, true)]);
        Readiness.Of(second, aircraft, Fixture.Bare).Blockers.Count(blocker => blocker.Found is { WaitsForALook: true }).ShouldBe(4);
        var (bladder, deIce, seal, spinner) = (second.Discrepancies[0], second.Discrepancies[1], second.Discrepancies[2],
            second.Discrepancies[3]);
        bladder.LookAgain("", Fixture.Ines, Fixture.Now).ShouldBeNull();
        bladder.LookAgain("", Fixture.Ines, Fixture.Now)!.Message.ShouldContain("already");
        deIce.LookAgain(Open.Single(item => item.Because == OpenBecause.Deferred).Placarded, Fixture.Ines, Fixture.Now).ShouldBeNull();
        deIce.IsDeferred.ShouldBeTrue("it stays off, with its placard");
        seal.Correct(new("Seal bonded", CorrectionKind.Repaired), second.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        spinner.Move(Disposition.Withdrawn, "a scratch in the paint", second.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Readiness.Of(second, aircraft, Fixture.Bare).Blockers.ShouldNotContain(blocker => blocker.Found != null);
        Sign(second);
        second.State.ShouldBe(InspectionState.SignedUnairworthy, "the bladder still seeps");
        Open.Select(item => (item.FirstNumber, item.Number, item.LookedOn))
            .ShouldBe([("26-1-01", "27-1-01", Fixture.Today.AddYears(1)), ("26-1-02", "27-1-02", Fixture.Today.AddYears(1))]);
        items.Single(item => item.FirstNumber == "26-1-03").End!.Words.ShouldBe("a scratch in the paint");
        items.Single(item => item.FirstNumber == "26-1-04").End!.Reference.ShouldBe("27-1");

        // The third puts both right: nothing is left.
        var third = Begin();
        foreach (var found in third.Discrepancies)
            found.Correct(new("put right", CorrectionKind.Repaired, "manual"), third.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Sign(third);
        (third.State, Open.Count).ShouldBe((InspectionState.SignedAirworthy, 0));
    }

    [Fact]
    public void What_was_judged_bad_and_left_open_keeps_its_floor_and_still_answers_for_its_part()
    {
        var first = Begin();
        Fixture.Compress(first, aircraft, 2, 15, again: true);
        first.PutOnList(Guid.NewGuid(), "cylinder 2", "engine", "", new(DiscrepancyClass.Airworthiness, false, Fixture.Ines, Fixture.Now),
            null, JudgedLines.Of(first, aircraft)[0].Judged, Fixture.Classes).Refusal.ShouldBeNull();
        Sign(first);
        var second = Begin();
        var carried = second.Discrepancies.Single();
        carried.Origin!.IsFixed.ShouldBeTrue();
        carried.Classify(new(DiscrepancyClass.Watch, false, Fixture.Ines, Fixture.Now, "x", "y", Fixture.Inspector.Certificates[0]),
            Fixture.Classes, null).ShouldNotBeNull();
    }

    // What a signer said of last year's chunks is no word on this year's.
    [Fact]
    public void What_was_set_lower_at_one_inspection_answers_for_nothing_at_the_next()
    {
        var engine = aircraft.Engines.Single().ComponentId;
        static Inspection Cut(Inspection inspection, Guid engine, int minute = 0)
        {
            inspection.Cut(new(Guid.NewGuid(), engine, FilterPlace.Filter, FilterMetal.Ferrous, FilterAmount.Chunks, "", null, Fixture.Ines,
                Fixture.Now.AddMinutes(minute))).ShouldBeNull();
            return inspection;
        }
        var first = Cut(Begin(), engine);
        Classing lower = new(DiscrepancyClass.Watch, false, Fixture.Ines, Fixture.Now, "left by the overhaul", "overhaul report 4",
            Fixture.Inspector.Certificates[0]);
        first.PutOnList(Guid.NewGuid(), "chunks in the filter", "engine", "", lower, null, JudgedLines.Of(first, aircraft)
            .Single().Judged, Fixture.Classes).Refusal.ShouldBeNull();
        JudgedLines.Of(first, aircraft).Single().By.ShouldBe(AnsweredBy.FixList);
        JudgedLines.Of(Cut(first, engine, minute: 10), aircraft)
            .Single().IsUnanswered.ShouldBeTrue("other chunks, after the next change of oil");
        Sign(first);

        var second = Cut(Begin(), engine);
        second.Discrepancies.Single().LookAgain("", Fixture.Ines, Fixture.Now).ShouldBeNull();
        var line = JudgedLines.Of(second, aircraft).Single();
        (line.IsUnanswered, line.Answer).ShouldBe((true, "27-1-01 was set lower for what was there before: judge this one for itself."));
        second.SetJudgementAside(aircraft, line.Judged.Key, line.Judged.Seen, "the last of it", "overhaul report 5", Fixture.Inspector,
            Fixture.Inspector.Certificates[0], Fixture.Now).ShouldBeNull();
    }

    // A signed list called it an airworthiness item: words that sound harmless and a wish don't make it less.
    [Fact]
    public void What_a_signed_list_named_is_lowered_by_a_signer_alone()
    {
        var first = Begin();
        Find(first, "Paint chipped at the lug", DiscrepancyClass.Airworthiness);
        Sign(first);
        var carried = Begin().Discrepancies.Single();
        Classing To(Certificate? signs) =>
            new(DiscrepancyClass.Recommended, false, Fixture.Ines, Fixture.Now, "only paint after all", "manual 51-10", signs);
        carried.Classify(To(null), Fixture.Classes,
            null)!.Message.ShouldBe(
                "On the signed list of 2026-11-23 as 26-1-01, an airworthiness item. Only somebody who may sign this inspection sets "
                + "that lower than airworthiness.");
        carried.Classify(To(Fixture.Inspector.Certificates[0]), Fixture.Classes, null).ShouldBeNull();
        carried.Lowered.Count.ShouldBe(1);
    }

    [Fact]
    public void One_in_a_zone_that_the_next_lists_do_not_walk_is_not_left_behind()
    {
        var first = new Inspection(Guid.NewGuid(), aircraft, InspectionKind.Annual, "26-1", [Fixture.AppendixD], Fixture.Today);
        first.Find(Guid.NewGuid(), "Cable frayed", "tail-cone", "station 120", DiscrepancyClass.Airworthiness, false, null, Fixture.Ines,
            Fixture.Now);
        Sign(first);
        var carried = Begin().Discrepancies.ShouldHaveSingleItem();
        (carried.ZoneKey, carried.Where).ShouldBe(("engine", "Fuselage and tail cone, station 120"));
    }

    [Fact]
    public void The_list_of_43_11_b_includes_what_is_deferred()
    {
        var inspection = Begin();
        Defer(Find(inspection, "De-ice boots do not inflate", DiscrepancyClass.Deferrable));
        Signer signer = new(Fixture.Inspector, Fixture.Inspector.Certificates[0]);
        var list = RecordWriter.Draft(Fixture.Close(inspection, aircraft), signer)
            .Single(draft => draft.Book == Book.DiscrepancyList).Content;
        list["title"]!.ToString().ShouldBe("Inoperative items, placarded and deferred");
        list["work"]!.AsArray().ShouldHaveSingleItem()!.ToString()
            .ShouldBe("26-1-01 Gear, left: De-ice boots do not inflate. Inoperative: Breaker collared, placarded inoperative");
        Find(inspection, "Cord showing", DiscrepancyClass.Airworthiness);
        RecordWriter.Draft(Fixture.Close(inspection, aircraft), signer)
            .Single(draft => draft.Book == Book.DiscrepancyList).Content["work"]!.AsArray().Count.ShouldBe(2);
    }

    [Theory]
    [InlineData(CertificateKind.Mechanic, null, Category.Standard, true)]
    [InlineData(CertificateKind.InspectionAuthorization, null, Category.Standard, true)]
    [InlineData(CertificateKind.RepairmanLightSportMaintenance, null, Category.Standard, false)]
    [InlineData(CertificateKind.RepairmanLightSportMaintenance, null, Category.SpecialLightSport, true)]
    [InlineData(CertificateKind.RepairmanExperimentalBuilder, "T-1", Category.ExperimentalAmateurBuilt, true)]
    [InlineData(CertificateKind.RepairmanExperimentalBuilder, "T-9", Category.ExperimentalAmateurBuilt, false)]
    public void Who_may_clear_a_line(CertificateKind held, string? serial, Category category, bool may) =>
        Fixture.Rules.MayClear(Fixture.Person(new Certificate(held, "1", serial)), Fixture.Aircraft(category), Fixture.Today).Allowed
            .ShouldBe(may);

    [Fact]
    public void An_entry_of_its_own_says_how_many_are_left_and_when_it_was_the_last()
    {
        var first = Begin();
        Find(first, "Bladder seeps", DiscrepancyClass.Airworthiness);
        Sign(first);
        Signer signer = new(Fixture.Inspector, Fixture.Inspector.Certificates[0]);
        string Statement(int left) =>
            RecordWriter.Clearing(items[0], aircraft, Fixture.Shop, new("Bladder replaced", CorrectionKind.Replaced, "28-10"), signer,
                Fixture.Today, left).Content["statement"]!.ToString();
        Statement(2).ShouldContain("2 airworthiness items stay open: the aircraft is not airworthy");
        Statement(0).ShouldContain("the last airworthiness item that was left open on this aircraft is cleared");
        RecordWriter.Clearing(items[0], aircraft, Fixture.Shop, new("Bladder replaced", CorrectionKind.Replaced, "28-10"), signer,
            Fixture.Today, 0).Content["work"]!.ToJsonString()
                .ShouldContain(
                    "26-1-01 Gear, left: Bladder seeps. Bladder replaced. Ref. 28-10. Done 2026-11-23 by Ines Test (mechanic with ");
    }
}
