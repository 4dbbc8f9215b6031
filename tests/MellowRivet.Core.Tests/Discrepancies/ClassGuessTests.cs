using MellowRivet.Core.Discrepancies;
using static MellowRivet.Core.Discrepancies.DiscrepancyClass;

namespace MellowRivet.Core.Tests.Discrepancies;

/// <summary>
/// Guesses of the class from words as people type them. What is expected stands in shared/domain.md,
/// sections 8 and 9, or is common practice.
/// </summary>
public class ClassGuessTests
{
    private static readonly IReadOnlyList<UsualFinding> Usual =
        UsualFinding.Parse(File.ReadAllText(Path.Combine(Fixture.Shelf, "findings", "usual.json")));

    [Theory]
    [InlineData("white streaks at the muffler joint under the cabin heat shroud", "exhaust-heat", Airworthiness)]
    [InlineData("exhaust gasket leaks, cylinder 3", "exhaust", Airworthiness)]
    [InlineData("no cotter pin in the left rod end", "no-safetying", Airworthiness)]
    [InlineData("Safety wire missing at the oil filter", "safetying", Airworthiness)]
    [InlineData("no thread showing through the locknut", "locknut", Airworthiness)]
    [InlineData("metal flakes in the oil filter", "metal", Airworthiness)]
    [InlineData("pads worn to the rivets", "pads", Airworthiness)]
    [InlineData("brake disc grooved and thin", "disc", Airworthiness)]
    [InlineData("pulley clicks when turned", "pulley", Airworthiness)]
    [InlineData("pulley grooved by its cable", "pulley", Airworthiness)]
    [InlineData("blue fuel stain under the left tank", "fuel-stain", Airworthiness)]
    [InlineData("fuel drips from the sump drain", "fuel-leak", Airworthiness)]
    [InlineData("hose 1 cm from the exhaust stack", "hose-exhaust", Airworthiness)]
    [InlineData("surface corrosion on the battery box", "corrosion", Recommended)]
    [InlineData("pitting corrosion in the spar cap", "corrosion-deep", Airworthiness)]
    [InlineData("exfoliation corrosion, wing attach fitting", "corrosion-deep", Airworthiness)]
    [InlineData("Alternator bracket cracked at the lower ear", "crack", Airworthiness)]
    [InlineData("cord showing on the left tyre", "tyre", Airworthiness)]
    [InlineData("Fuel selector placard faded, off position unreadable", "required-placard", Airworthiness)]
    [InlineData("map light inop", "optional-inop", Deferrable)]
    [InlineData("second radio doesn't work", "optional-inop", Deferrable)]
    [InlineData("oil seep at rocker cover 2", "oil-seep", Watch)]
    [InlineData("oil drips from the sump plug", "oil-leak", Airworthiness)]
    [InlineData("windshield crazed lower right", "craze", Watch)]
    [InlineData("paint chipped on the fairing", "cosmetic", Recommended)]
    [InlineData("belly drain hole blocked", "drain", Recommended)]
    [InlineData("bird nest in the tail cone", "nest", Recommended)]
    [InlineData("scratch, dye penetrant shows no crack in the bracket", "examined", DiscrepancyClass.KnownMark)]
    public void The_usual_words_lead_to_the_usual_class(string words, string finding, DiscrepancyClass @class)
    {
        var guess = Fixture.Classes.Guess(words, null);
        guess.Finding.ShouldNotBeNull(words);
        (guess.Finding.Key, guess.Class).ShouldBe((finding, @class));
    }

    [Theory]
    [InlineData("")]
    [InlineData("looks odd")]
    [InlineData("no crack in the bracket")]
    [InlineData("not cracked, bracket fine")]
    public void Where_the_words_say_nothing_it_is_airworthiness_until_a_person_says_less(string words)
    {
        var guess = Fixture.Classes.Guess(words, null);
        (guess.Class, guess.Finding).ShouldBe((Airworthiness, null));
    }

    [Fact]
    public void Each_usual_finding_says_what_it_means_what_to_check_and_where_that_comes_from()
    {
        Usual.Select(finding => finding.Key).ShouldBeUnique();
        Usual.ShouldAllBe(finding => finding.Means.Length > 20 && finding.Next.Count > 0 && finding.Source.Text.Length > 8);
        Usual.Where(finding => finding.Source.Standing is Core.Judgements.Standing.Law or Core.Judgements.Standing.Reference)
            .ShouldAllBe(finding => finding.Source.Text.Contains("from memory"));
    }

    [Theory]
    [InlineData("[]", 0)]
    [InlineData("""
        [{"key":"a","title":"A","words":[],"class":"watch","ground":false,"means":"m","next":[],"source":{"standing":"practice",
        "text":"t"}}]
        """, null)]
    [InlineData("""
        [{"key":"a","title":"A","words":[[]],"class":"watch","ground":false,"means":"m","next":[],"source":{"standing":"practice",
        "text":"t"}}]
        """, null)]
    [InlineData("""[{"key":"a"}]""", null)]
    [InlineData("nonsense", null)]
    public void A_shelf_file_that_does_not_hold_together_is_refused(string json, int? count)
    {
        if (count is { } found)
            UsualFinding.Parse(json).Count.ShouldBe(found);
        else
            Should.Throw<FormatException>(() => UsualFinding.Parse(json));
    }
}
