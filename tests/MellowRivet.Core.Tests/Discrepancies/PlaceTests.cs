using MellowRivet.Core.Discrepancies;

namespace MellowRivet.Core.Tests.Discrepancies;

/// <summary>
/// The same place at another inspection: what is new, what is there again, what was known and what was repaired. Expected answers are an
/// inspector's, by common practice.
/// </summary>
public class PlaceTests
{
    private static readonly Guid Part = Guid.NewGuid();

    private static Place At(string zone, string where = "", string? task = null, Pin? pin = null, Guid? part = null) =>
        new(zone, where, task, part, pin);

    public static TheoryData<Place, Place, Nearness> Pairs => new()
    {
        { At("gear"), At("cabin"), Nearness.Elsewhere },
        { At("gear", "left main, outside"), At("gear", "outside of the left main"), Nearness.Same },
        { At("gear", "left main"), At("gear", "nose"), Nearness.SameZone },
        { At("gear", "", "app-d/tyres"), At("gear", "left main", "app-d/tyres"), Nearness.Same },
        { At("gear", "right main", "app-d/tyres"), At("gear", "left leg", "app-d/tyres"), Nearness.SameZone },
        { At("wing", pin: new(60, 130)), At("wing", pin: new(60, 142)), Nearness.Same },
        // two pins decide, whatever the words say
        { At("wing", "rib 6", pin: new(60, 130)), At("wing", "rib 6", pin: new(60, 142.1)), Nearness.SameZone },
        // the engine moved to a twin
        { At("engine", "cylinder 2", part: Part), At("engine-left", "cylinder 2", part: Part), Nearness.Same },
        { At("engine", part: Part), At("engine-left", part: Part), Nearness.SameZone },
    };

    [Theory]
    [MemberData(nameof(Pairs))]
    public void Places_are_told_apart_as_a_person_would(Place one, Place other, Nearness nearness)
    {
        one.To(other).ShouldBe(nearness);
        other.To(one).ShouldBe(nearness);
    }

    private static Discrepancy Find(int number, string what, string zone, string where = "") =>
        DeferralTests.Found(DiscrepancyClass.Recommended, what, zone, where, number: number);

    [Fact]
    public void New_again_and_gone()
    {
        var (seal, mount, dent) = (Find(1, "Door seal parted over the latch", "cabin", "right door"),
            Find(2, "Engine mount bushing sagged", "engine", "upper right"), Find(3, "Dent in the skin", "wing", "rib 9"));
        var now = new[] { Find(1, "Tyre worn", "gear"), Find(2, "seal of the door hangs down", "cabin", "door, right"),
            Find(3, "Mount bushing sagged further", "engine", "right upper") };
        var compared = Recurrence.Of(now, [seal, mount, dent]);
        compared.With(now[0]).ShouldBe(Compared.New);
        compared.Again[now[1].Id].ShouldBe(seal);
        compared.Again[now[2].Id].ShouldBe(mount);
        compared.Gone.ShouldBe([dent]);
    }

    [Fact]
    public void What_a_person_says_goes_first_and_each_is_paired_once()
    {
        var (one, two) = (Find(1, "Oil seep at the sump", "engine", "rear"), Find(2, "Oil seep at the sump gasket", "engine", "rear"));
        var (same, other) = (Find(1, "Oil seep at the sump", "engine", "rear"), Find(2, "Oil seep at the sump", "engine", "rear"));
        same.IsAgain(two.Id);
        var compared = Recurrence.Of([same, other], [one, two]);
        (compared.Again[same.Id], compared.Again[other.Id]).ShouldBe((two, one));
        other.IsAgain(Guid.Empty);
        Recurrence.Of([same, other], [one, two]).Gone.ShouldBe([one]);
    }

    [Fact]
    public void A_second_repair_at_one_place_says_that_the_part_nears_its_end()
    {
        var weld = Find(4, "Muffler cracked at the seam", "engine", "left can");
        var earlier = new EarlierFind(weld, "25-031", Guid.NewGuid(), new(2025, 11, 3), 4100);
        var here = At("engine", "can, left");
        PlaceHistory.Of(here, [earlier]).RepairWarning.ShouldBeNull("found, not repaired");
        weld.Correct(new("Welded", CorrectionKind.Repaired), new(new(), 0), Fixture.Ines, Fixture.Now);
        PlaceHistory.Of(here, [earlier]).RepairWarning!.ShouldContain("25-031-04");
        PlaceHistory.Of(At("engine", "right can"), [earlier]).Same.Count.ShouldBe(1, "half the words agree: a person looks");
        PlaceHistory.Of(At("cabin", "left can"), [earlier]).RepairWarning.ShouldBeNull();
    }

    [Fact]
    public void A_known_mark_is_accepted_while_its_test_holds_else_tested_again()
    {
        Examination Tested(DateOnly? until) =>
            new(FoundHow.DyePenetrant, "no indication, a scratch", Fixture.Ines, new(2025, 11, 3), until);
        KnownMark Mark(Examination? examination) =>
            new(Guid.NewGuid(), "25-031-07", "Line beside the third rivet", At("gear", "left leg"), examination, null);
        var (good, old, untold) = (Mark(Tested(null)), Mark(Tested(new(2026, 11, 22))), Mark(null));
        var aircraft = Fixture.Aircraft();
        var inspection = new Core.Inspections.Inspection(Guid.NewGuid(), aircraft, Core.Inspections.InspectionKind.Annual, "26-1",
            [Fixture.Small], new(2026, 11, 22), knownMarks: [good, old, untold]);
        Core.Signing.Readiness.Of(inspection, aircraft,
            Fixture.Bare).Blockers.Count(blocker => blocker.By == Core.Signing.HeldUpBy.KnownMark).ShouldBe(3);

        inspection.AcceptKnownMark(good.DiscrepancyId, Fixture.Ines, Fixture.Now, Fixture.Today).ShouldBeNull();
        inspection.AcceptKnownMark(good.DiscrepancyId, Fixture.Ines, Fixture.Now, Fixture.Today)!.Message.ShouldContain("answered");
        inspection.AcceptKnownMark(old.DiscrepancyId, Fixture.Ines, Fixture.Now,
            Fixture.Today)!.Message.ShouldContain("valid until 2026-11-22");
        inspection.AcceptKnownMark(untold.DiscrepancyId, Fixture.Ines, Fixture.Now,
            Fixture.Today)!.Message.ShouldContain("Nobody wrote down");
        var (again, _) = inspection.TestKnownMarkAgain(Guid.NewGuid(), old.DiscrepancyId, Fixture.Ines, Fixture.Now);
        (again!.Class, again.SameAs, again.Where).ShouldBe((DiscrepancyClass.Airworthiness, old.DiscrepancyId, "left leg"));
        inspection.TestKnownMarkAgain(Guid.NewGuid(), old.DiscrepancyId, Fixture.Ines, Fixture.Now).Refusal.ShouldNotBeNull();
        again.Move(Disposition.Withdrawn, "wrong mark", inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Core.Signing.Readiness.Of(inspection, aircraft,
            Fixture.Bare).Blockers.Count(blocker => blocker.By == Core.Signing.HeldUpBy.KnownMark)
                .ShouldBe(2, "a test that was withdrawn is none");
        again = inspection.TestKnownMarkAgain(Guid.NewGuid(), old.DiscrepancyId, Fixture.Ines, Fixture.Now).Found!;
        again.Examine(new(FoundHow.EddyCurrent, "", Fixture.Ines, new(2026, 11, 23), null), new(2026, 11, 23),
            new(DiscrepancyClass.KnownMark, false, Fixture.Ines, Fixture.Now),
            Fixture.Classes)!.Message.ShouldContain("what the test showed");
        again.Examine(new(FoundHow.EddyCurrent, "no indication", Fixture.Ines, new(2026, 11, 24), null), new(2026, 11, 23),
            new(DiscrepancyClass.KnownMark, false, Fixture.Ines, Fixture.Now), Fixture.Classes)!.Message.ShouldContain("still to come");
        again.Examine(new(FoundHow.EddyCurrent, "no indication", Fixture.Ines, new(2026, 11, 23), new(2028, 1, 1)), new(2026, 11, 23),
            new(DiscrepancyClass.KnownMark, false, Fixture.Ines, Fixture.Now), Fixture.Classes).ShouldBeNull();
        again.Class.ShouldBe(DiscrepancyClass.KnownMark);
        Core.Signing.Readiness.Of(inspection, aircraft,
            Fixture.Bare).Blockers.Count(blocker => blocker.By == Core.Signing.HeldUpBy.KnownMark).ShouldBe(1);
    }
}
