using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Tests.Inspections;

/// <summary>Issue 27, line 4: a finding made twice is offered to be tied, and nobody's work is dropped.</summary>
public class TwinsTests
{
    private static readonly Guid Wim = Guid.NewGuid();
    private static readonly Photo Picture = new(new('a', 64), 800, 600, null, Fixture.Now);
    private readonly Aircraft aircraft = Fixture.Aircraft();
    private readonly Inspection inspection;

    public TwinsTests() => inspection = Fixture.Inspection(aircraft);

    private Discrepancy Find(string what, string where, Guid by, DiscrepancyClass @class = DiscrepancyClass.Recommended,
        Origin? origin = null) =>
        inspection.Find(Guid.NewGuid(), what, "gear", where, @class, false, null, by, Fixture.Now, null, origin);

    [Theory]
    [InlineData("Tyre worn to the cord", "left", true)]
    [InlineData("left main tyre worn, cord shows", "left wheel", true)]
    [InlineData("Tyre worn to the cord", "right", false)]
    [InlineData("Tyre worn to the cord", "", true)]
    [InlineData("Brake line chafed", "left", false)]
    public void What_somebody_else_found_at_one_place_in_much_the_same_words_is_offered(string what, string where, bool offered)
    {
        var first = Find("Tyre worn to the cord", "left", Fixture.Ines);
        var second = Find(what, where, Wim);
        inspection.PerhapsTwins.GetValueOrDefault(second.Id).ShouldBe(offered ? first : null);
        inspection.PerhapsTwinOf(second).ShouldBe(offered ? first : null);
        inspection.PerhapsTwins.ShouldNotContainKey(first.Id, "the earlier number is kept");
        var again = Find("Tyre worn to the cord", "left", Fixture.Ines);
        inspection.PerhapsTwins.GetValueOrDefault(again.Id)?.FoundBy.ShouldNotBe(Fixture.Ines, "one person knows what they found twice");
    }

    [Fact]
    public void Tied_the_words_pictures_and_the_worse_class_stand_at_the_one_that_is_kept()
    {
        var first = Find("Tyre worn to the cord", "left", Fixture.Ines);
        var second = Find("Left tyre worn, cord shows", "left", Wim, DiscrepancyClass.Airworthiness);
        second.Add(Picture).ShouldBeNull();
        second.Add(Guid.NewGuid(), "rubs at the fork", Wim, Fixture.Now).ShouldBeNull();
        inspection.SayTwins(second, first.Id, Fixture.Ines, Fixture.Now).ShouldBeNull();
        first.Class.ShouldBe(DiscrepancyClass.Airworthiness);
        first.Photos.ShouldHaveSingleItem().ShouldBe(Picture);
        first.Notes.Select(note => (note.By, note.Words)).ShouldBe([(Wim, "Left tyre worn, cord shows, left"), (Wim, "rubs at the fork")]);
        second.Disposition.ShouldBe(Disposition.Withdrawn);
        second.Steps[^1].Words.ShouldBe("The same as 26-1-01: Tyre worn to the cord");
        second.Twin.ShouldBe(first.Id);
        inspection.OpenAirworthiness.ShouldHaveSingleItem().ShouldBe(first);
        inspection.SayTwins(second, first.Id, Fixture.Ines, Fixture.Now)!.Field.ShouldBe("twin");
    }

    [Fact]
    public void Said_to_be_two_they_are_two_and_nothing_is_tied_to_itself()
    {
        var first = Find("Tyre worn to the cord", "left", Fixture.Ines);
        var second = Find("Tyre worn to the cord", "left", Wim);
        inspection.SayTwins(second, second.Id, Wim, Fixture.Now)!.Field.ShouldBe("twin");
        inspection.SayTwins(second, Guid.Empty, Wim, Fixture.Now).ShouldBeNull();
        inspection.PerhapsTwins.ShouldBeEmpty();
        (first.IsOpen, second.IsOpen).ShouldBe((true, true));
    }

    [Fact]
    public void What_answers_a_judgement_is_the_one_that_is_kept()
    {
        var first = Find("Oil pressure low", "", Fixture.Ines);
        Origin origin = new("task/x", "Oil pressure, 40 psi: out of limits", Verdict.Reject, new(Standing.Manual, "manual"));
        Discrepancy Born() => Find("Oil pressure low", "", Wim, DiscrepancyClass.Airworthiness, origin);
        var born = Born();
        inspection.SayTwins(born, first.Id, Wim, Fixture.Now).ShouldBeNull();
        (first.Disposition, born.IsOpen).ShouldBe((Disposition.Withdrawn, true));
        inspection.SayTwins(Born(), born.Id, Wim, Fixture.Now)!.Message.ShouldContain("of its own");
    }
}
