using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Tests.Signing;

/// <summary>A class has a floor: it comes from the judgement, never from words (domain.md section 14).</summary>
public class FloorTests
{
    private static Origin From(Standing standing) =>
        new("compression/2", "Compression, cylinder 2: 15/80. Below 60/80", Verdict.Reject, new(standing, "the rule"));

    private static Classing To(DiscrepancyClass @class, bool signs = true, string? why = "seals weep, no drip",
        string? reference = "manual 72-30") =>
        new(@class, false, Fixture.Ines, Fixture.Now, why, reference, signs ? Fixture.Inspector.Certificates[0] : null);

    public static TheoryData<Standing, DiscrepancyClass> Everything
    {
        get
        {
            var all = new TheoryData<Standing, DiscrepancyClass>();
            foreach (var standing in Enum.GetValues<Standing>())
                foreach (var @class in Enum.GetValues<DiscrepancyClass>().Where(one => one != DiscrepancyClass.Airworthiness))
                    all.Add(standing, @class);
            return all;
        }
    }

    [Theory]
    [MemberData(nameof(Everything))]
    public void By_law_reference_or_manual_nobody_lowers_it_and_by_practice_a_signer_does_with_reason_and_reference(Standing standing,
        DiscrepancyClass @class)
    {
        Refusal? Decide(Classing to) =>
            Fixture.Classes.Decide("Paint chipped, oil leak at the filler", null, From(standing), DiscrepancyClass.Airworthiness,
                to).Refusal;
        if (@class == DiscrepancyClass.Deferrable)
        {
            Decide(To(@class))!.Message.ShouldStartWith("Not deferrable");
            return;
        }
        if (standing != Standing.Practice)
        {
            Decide(To(@class))!.Message.ShouldContain("nobody makes it less");
            return;
        }
        Decide(To(@class, signs: false))!.Message.ShouldContain("Only somebody who may sign");
        Decide(To(@class, why: ""))!.Message.ShouldContain("takes the reason");
        Decide(To(@class, reference: null))!.Message.ShouldContain("the reference");
        Decide(To(@class)).ShouldBeNull();
        Fixture.Classes.Decide("x", null, From(standing), DiscrepancyClass.Airworthiness, To(@class)).Lowered!.InWords
            .ShouldBe(
                $"lowered from airworthiness to {@class.InWords()}: seals weep, no drip Ref. manual 72-30 (mechanic with "
                + $"inspection authorization, 77)");
    }

    [Fact]
    public void What_is_born_from_a_judgement_is_an_airworthiness_item_whatever_its_words_suggest()
    {
        Fixture.Classes.Guess("Cylinder 2 reads 15/80, leak at the oil filler", null).Class.ShouldBe(DiscrepancyClass.Airworthiness,
            "the words say as much");
        Fixture.Classes.Decide("Cylinder 2 reads 15/80, leak at the oil filler", null, From(Standing.Law), null,
            To(DiscrepancyClass.Recommended)).Refusal.ShouldNotBeNull();
    }

    [Fact]
    public void Below_what_the_words_suggest_it_is_kept_with_who_and_why()
    {
        (Lowered? Lowered, Refusal? Refusal) Decide(string? why) =>
            Fixture.Classes.Decide("Fuel drips at the selector", null, null, null,
                To(DiscrepancyClass.Watch, signs: false, why: why, reference: null));
        Decide(" ").Refusal!.Field.ShouldBe("why");
        var kept = Decide("a drop an hour").Lowered!;
        (kept.From, kept.To, kept.By, kept.Reason,
            kept.Certificate).ShouldBe((DiscrepancyClass.Airworthiness, DiscrepancyClass.Watch, Fixture.Ines, "a drop an hour", ""));
        Fixture.Classes.Decide("Something odd", null, null, null, To(DiscrepancyClass.Watch, why: null))
            .ShouldBe((null, null), "words that suggest nothing ask for no reason");
        Fixture.Classes.Decide("Paint faded", null, null, DiscrepancyClass.Recommended, To(DiscrepancyClass.Airworthiness, why: null))
            .ShouldBe((null, null), "setting it higher never does");
    }

    [Fact]
    public void What_stood_as_an_airworthiness_item_is_not_made_less_without_a_word()
    {
        (Lowered? Lowered, Refusal? Refusal) Decide(DiscrepancyClass? now, string? why) =>
            Fixture.Classes.Decide("Something odd", null, null, now, To(DiscrepancyClass.Watch, signs: false, why: why, reference: null));
        Decide(DiscrepancyClass.Airworthiness,
            null).Refusal!.Message.ShouldStartWith("It stands as an airworthiness item: say why it is only watch");
        Decide(DiscrepancyClass.Airworthiness,
            "paint, not a crack").Lowered!.InWords.ShouldBe("lowered from airworthiness to watch: paint, not a crack");
        Decide(DiscrepancyClass.Recommended, null).ShouldBe((null, null));
    }

    [Fact]
    public void Other_words_do_not_slip_under_the_class_that_was_set_for_the_first_ones()
    {
        var found = Discrepancies.DeferralTests.Found(DiscrepancyClass.Watch, "Something rattles");
        found.Describe("Exhaust leak under the heat shroud", null, found.Place, FoundHow.Visual, null, Fixture.Ines, Fixture.Now,
            Fixture.Classes)!.Message.ShouldContain("Set its class first");
        found.What.ShouldBe("Something rattles");
        found.Describe("Something rattles behind the panel", null, found.Place, FoundHow.Visual, null, Fixture.Ines, Fixture.Now,
            Fixture.Classes).ShouldBeNull();
    }

    [Fact]
    public void The_owner_is_never_told_that_the_aircraft_may_fly_without_it()
    {
        var plain = Discrepancies.DeferralTests.Found(DiscrepancyClass.Recommended, "Door seal parted");
        plain.MeansToTheOwner().ShouldContain("may fly without it");
        foreach (var @class in Enum.GetValues<DiscrepancyClass>())
        {
            var floored = new Discrepancy(Guid.NewGuid(), 1, "Oil at the pushrod tube", new("engine", "", null, null, null),
                DiscrepancyClass.Airworthiness, false, null, Fixture.Ines, Fixture.Now, From(Standing.Practice));
            if (@class != DiscrepancyClass.Deferrable)
                floored.Classify(To(@class), Fixture.Classes, null).ShouldBeNull();
            floored.MeansToTheOwner().ShouldNotContain("fly without");
            floored.MeansToTheOwner().ShouldNotContain("harmless");
            floored.MeansToTheOwner().ShouldNotContain("Fit to fly");
        }
    }

    [Fact]
    public void A_test_that_finds_it_benign_lowers_a_judged_one_only_by_somebody_who_may_sign()
    {
        Discrepancy Floored(Standing standing) =>
            new(Guid.NewGuid(), 1, "Line at the lug", new("gear", "", null, null, null), DiscrepancyClass.Airworthiness, false, null,
                Fixture.Ines, Fixture.Now, From(standing));
        var test = new Examination(FoundHow.EddyCurrent, "no indication", Fixture.Ines, Fixture.Today, null);
        Floored(Standing.Law).Examine(test, Fixture.Today, To(DiscrepancyClass.KnownMark), Fixture.Classes)!.Field.ShouldBe("examination");
        Floored(Standing.Practice)
            .Examine(test, Fixture.Today, To(DiscrepancyClass.KnownMark, signs: false),
                Fixture.Classes)!.Message.ShouldContain("Only somebody who may sign");
        var benign = Floored(Standing.Practice);
        benign.Examine(test, Fixture.Today, To(DiscrepancyClass.KnownMark), Fixture.Classes).ShouldBeNull();
        (benign.Class, benign.Lowered.Count).ShouldBe((DiscrepancyClass.KnownMark, 1));
    }
}
