using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;

namespace MellowRivet.Core.Tests.Signing;

/// <summary>What was said before a signature and arrives after it stands on the aircraft with its story, whatever was said.</summary>
public class LateWordTests
{
    private static readonly DateTimeOffset Said = new(2026, 11, 20, 9, 12, 0, TimeSpan.Zero);

    private static LateWord Late(string words, string? zone = null) =>
        new(Guid.NewGuid(), words, zone, Fixture.Ines, "Ines Test", Said, Said.AddHours(5), Said.AddHours(7), []);

    private static OpenItem Item(LateWord late)
    {
        var aircraft = Fixture.Aircraft();
        var inspection = Fixture.Inspect(aircraft, [Fixture.Small]);
        return new(inspection, late, Fixture.Classes.Guess(late.Words, null), 2, Fixture.Today);
    }

    [Fact]
    public void The_story_says_who_and_when_and_what_was_signed_meanwhile()
    {
        Late("Cowl latch worn ").InWords.ShouldBe("Cowl latch worn (said by Ines Test 2026-11-20 09:12 without a network; "
            + "signed without it 2026-11-20 14:12, arrived 2026-11-20 16:12)");
        var item = Item(Late("Cowl latch worn"));
        item.FirstNumber.ShouldEndWith("-L2");
        item.OnFixList.ShouldBeNull("it stood on none");
        (item.FoundBy, item.FoundAt, item.IsOpen).ShouldBe((Fixture.Ines, Said, true));
    }

    [Fact]
    public void Long_words_give_way_and_the_story_stays()
    {
        var words = Late(new string('x', 5_000)).InWords;
        words.Length.ShouldBe(Discrepancy.LongestWords);
        words.ShouldEndWith("arrived 2026-11-20 16:12)");
        words.ShouldContain("x… (said by");
    }

    [Fact]
    public void Words_of_a_crack_are_an_airworthiness_item_and_a_zone_that_is_none_gives_way()
    {
        var cracked = Item(Late("Exhaust riser cracked", "no-such-zone"));
        (cracked.Class, cracked.Because).ShouldBe((DiscrepancyClass.Airworthiness, OpenBecause.Airworthiness));
        cracked.Floor!.InWords.ShouldContain("arrived after");
        cracked.ZoneTitle.ShouldNotBe("no-such-zone");
        var good = Item(Late("Pedals; Good") with { IsCalm = true });
        good.Because.ShouldBe(OpenBecause.Recommended, "somebody looks whether it matters");
        good.Origin.ShouldBeNull();
        Item(Late("Pedals; Good")).Because.ShouldBe(OpenBecause.Airworthiness, "of what was found nobody has said that it is less");
    }
}
