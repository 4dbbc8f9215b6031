using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Tests.Discrepancies;

/// <summary>What a picture, a sound or a video alone tells of: on the list at once, in words before anything is signed.</summary>
public sealed class UnwordedTests
{
    private static readonly Photo Picture = new(new('a', 64), 800, 600, null, Fixture.Now);
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Inspection inspection;

    public UnwordedTests()
    {
        inspection = Fixture.Inspection(aircraft);
        Fixture.Finish(inspection, aircraft);
    }

    private static Classing As(DiscrepancyClass to, string? why = null) => new(to, false, Fixture.Ines, Fixture.Now, why);

    private (Discrepancy? Found, Refusal? Refusal) Put(string? what, bool attached, Func<Discrepancy, Refusal?> attach)
    {
        TypedFind typed = new(what, "engine", "", DiscrepancyClass.Watch, false, null, null, FoundHow.Visual, null, null, false, null, null,
            null, attached);
        return inspection.Check(typed).FirstOrDefault() is { } wrong ? (null, wrong)
            : inspection.PutOnList(Guid.NewGuid(), typed, aircraft, Fixture.Bare, attach, null, Fixture.Ines, Fixture.Now);
    }

    [Theory]
    [InlineData("  ")]
    [InlineData(null)]
    public void Without_words_something_else_has_to_tell_of_it(string? what)
    {
        Put(what, false, _ => null).Refusal!.Field.ShouldBe("what");
        Put(what, true, _ => null).Refusal!.Message.ShouldContain("let a picture, a sound or a video say it",
            Case.Sensitive, "nothing came along after all");
        foreach (var attach in new Func<Discrepancy, Refusal?>[] { found => found.Add(Picture),
            found => found.Add(new Sound(new('b', 64), "audio/wav", Fixture.Now)),
            found => found.Add(new Video(new('c', 64), "video/mp4", 4, Fixture.Now)) })
            Put(what, true, attach).Found!.IsUnworded.ShouldBeTrue();
    }

    [Fact]
    public void It_holds_the_signature_until_it_is_put_in_words_or_withdrawn()
    {
        Readiness.Of(inspection, aircraft, Fixture.Bare).MaySign.ShouldBeTrue();
        var (first, second) = (Put(null, true, found => found.Add(Picture)).Found!, Put("", true, found => found.Add(Picture)).Found!);
        var blockers = Readiness.Of(inspection, aircraft, Fixture.Bare).Blockers;
        blockers.Select(blocker => blocker.Found).ShouldBe([first, second]);
        blockers[0].What.ShouldContain("to be put in words");

        first.PutInWords("Oil seep at the sump", As(DiscrepancyClass.Watch), Fixture.Classes, null).ShouldBeNull();
        (first.What, first.Class, first.Notes.Count).ShouldBe(("Oil seep at the sump", DiscrepancyClass.Watch, 0));
        second.Move(Disposition.Withdrawn, "a shadow", inspection.Terms, Fixture.Ines, Fixture.Now).ShouldBeNull();
        Readiness.Of(inspection, aircraft, Fixture.Bare).MaySign.ShouldBeTrue();
    }

    [Fact]
    public void Its_words_choose_the_class_and_no_lower_one_without_a_reason()
    {
        var found = Put(null, true, one => one.Add(Picture)).Found!;
        found.PutInWords("Crack in the wing spar", As(DiscrepancyClass.Watch), Fixture.Classes, null)!.Field.ShouldBe("why");
        found.IsUnworded.ShouldBeTrue("what was refused changes nothing");
        found.PutInWords(Discrepancy.Unworded, As(DiscrepancyClass.Watch), Fixture.Classes, null)!.Field.ShouldBe("what");
        found.PutInWords("Crack in the wing spar", As(DiscrepancyClass.Airworthiness), Fixture.Classes, null).ShouldBeNull();
        found.PutInWords("Nothing", As(DiscrepancyClass.Watch), Fixture.Classes, null)!.Message.ShouldContain("in words already");
    }

    [Fact]
    public void What_its_finder_called_grave_nobody_else_makes_less_without_a_word()
    {
        TypedFind grave = new(null, "engine", "", DiscrepancyClass.Airworthiness, true, null, null, FoundHow.Visual, null, null, false,
            null, null, null, true);
        Discrepancy Find(bool grounded) => inspection.PutOnList(Guid.NewGuid(), grave with { Grounded = grounded }, aircraft, Fixture.Bare,
            found => found.Add(Picture), null, Fixture.Ines, Fixture.Now).Found!;
        var other = As(DiscrepancyClass.Watch) with { By = Guid.NewGuid() };
        var (found, grounded) = (Find(false), Find(true));
        found.PutInWords("Paint scratched", other, Fixture.Classes, null)!.Field.ShouldBe("why");
        found.PutInWords("Paint scratched", other with { Why = "polished out, no metal taken" }, Fixture.Classes, null).ShouldBeNull();
        found.Lowered.ShouldHaveSingleItem().Reason.ShouldContain("polished out");
        grounded.PutInWords("Paint scratched", other with { Why = "polished out" }, Fixture.Classes, null).ShouldBeNull();
        (grounded.Class, grounded.Grounded).ShouldBe((DiscrepancyClass.Airworthiness, true), "its class is set by itself, by who may");
    }

    [Fact]
    public void Nobody_is_asked_about_what_they_cannot_read_and_its_place_is_put_right_without_words()
    {
        var found = Put(null, true, one => one.Add(Picture)).Found!;
        inspection.AskAll(Fixture.Ines, Fixture.Now);
        found.Disposition.ShouldBe(Disposition.Open);
        found.Describe("", null, found.Place with { Where = "left side" }, FoundHow.Mirror, null, Fixture.Ines, Fixture.Now).ShouldBeNull();
        (found.IsUnworded, found.Where).ShouldBe((true, "left side"));
        found.Describe("Hose chafed", null, found.Place, FoundHow.Mirror, null, Fixture.Ines, Fixture.Now).ShouldBeNull();
        (found.IsUnworded, found.Notes.Count).ShouldBe((false, 0));
        found.Describe(" ", null, found.Place, FoundHow.Mirror, null, Fixture.Ines, Fixture.Now)!.Field.ShouldBe("what");
    }
}
