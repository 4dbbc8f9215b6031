using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Tests.Estimates;

public class LearnedTests
{
    private static Learned Jobs(params double[] hours) => new("Lamp out",
        [.. hours.Select((taken, index) => new JobTook($"26-{index:00}", (decimal)taken, 2, Fixture.Today.AddDays(index)))]);

    // domain.md section 12: before there are five of a kind, there is no history.
    [Fact]
    public void Four_are_no_history_and_five_are()
    {
        var four = Jobs(1, 2, 3, 4);
        (four.Offer, four.TimesEstimate).ShouldBe((null, null));
        four.InWords.ShouldBe("4 of this kind were booked here: no history under 5.");
        var five = Jobs(1, 2, 3, 4, 10);
        five.Offer.ShouldBe(new Spread(1, 3, 10));
        five.TimesEstimate.ShouldBe(1.5m, "the middle took 3 h and was put at 2");
        five.InWords.ShouldBe("5 of this kind took 3 h in the middle, 1 to 10; the last 10 (26-04). "
            + "They took 1.5 times what they were put at.");
        Jobs().InWords.ShouldContain("None of this kind");
        Learned.Nothing.InWords.ShouldStartWith("Name its kind");
    }

    // 1, 2, … 50 h: by hand the middle is 25.5, the tenth of a hundred 1 + 0.1 · 49 = 5.9, the ninetieth 45.1.
    [Fact]
    public void Fifty_leave_the_fastest_and_the_slowest_tenth_out() =>
        Jobs([.. Enumerable.Range(1, 50).Select(hour => (double)hour)]).Offer.ShouldBe(new Spread(5.9m, 25.5m, 45.1m));

    [Theory]
    [InlineData(2.5, null, null, 2.5)]
    [InlineData(10, null, null, 10.0)]
    [InlineData(10.1, null, "has run 10.1 h", null)]
    [InlineData(19.3, "4", null, 4.0)]
    [InlineData(2.5, "3", "can't have been more", null)]
    [InlineData(2.5, "a while", "Hours above 0", null)]
    public void A_clock_counts_through_and_one_that_was_forgotten_asks(double ran, string? typed, string? refused, double? hours)
    {
        var clock = new BookedTime(Guid.NewGuid(), Guid.NewGuid(), "04", "Lamp out", Fixture.Ines, Skill.Mechanic, Fixture.Now);
        var refusal = clock.Stop(typed, Fixture.Now.AddHours(ran));
        if (refused is null)
            refusal.ShouldBeNull();
        else
            refusal!.Message.ShouldContain(refused);
        clock.Hours.ShouldBe((decimal?)hours);
        clock.IsRunning.ShouldBe(hours is null);
        clock.OnWhat.ShouldBe("04 Lamp out");
    }

    [Theory]
    [InlineData("1.5", 1.5)]
    [InlineData("1:30", 1.5)]
    [InlineData("0", null)]
    [InlineData("-2", null)]
    [InlineData("101", null)]
    [InlineData("", null)]
    public void Hours_are_booked_as_typed(string typed, double? hours)
    {
        var (read, refusal) = BookedTime.Read(typed);
        (refusal is null).ShouldBe(hours is not null);
        read.ShouldBe((decimal)(hours ?? 0));
    }

    [Fact]
    public void A_job_is_of_the_kind_somebody_named_else_of_what_its_words_speak_of()
    {
        var inspection = Fixture.Inspection(Fixture.Aircraft());
        var found = inspection.Find(Guid.NewGuid(), "Left main tyre: cord showing across the shoulder", "gear", "",
            DiscrepancyClass.Airworthiness, false, null, Fixture.Ines, Fixture.Now);
        JobKinds.Of(found, Fixture.Classes).ShouldBe(Fixture.Classes.Guess(found.What, null).Speaks);
        found.Call(" Main tyre and tube ").ShouldBeNull();
        JobKinds.Of(found, Fixture.Classes).ShouldBe("Main tyre and tube");
        found.Call(new('x', 61))!.Field.ShouldBe("kind");
        JobKinds.Of(inspection, "Dunlin 2").ShouldBe("annual inspection, Dunlin 2");
    }

    private static SisterFind On(int aircraft, string place, double hours, FoundHow how = FoundHow.Visual) => new(new Guid(aircraft, 0, 0,
        [0, 0, 0, 0, 0, 0, 0, 0]), place, $"words of {place}", $"found at {hours}", how, (decimal)hours);

    [Fact]
    public void What_a_type_usually_has_is_told_from_three_aircraft_on()
    {
        SisterFind[] finds =
        [
            On(1, "spar", 4_100, FoundHow.Borescope), On(1, "spar", 4_300, FoundHow.Borescope), On(2, "spar", 2_900, FoundHow.Mirror),
            On(3, "spar", 5_000, FoundHow.Borescope), On(1, "tyre", 100), On(2, "tyre", 900), On(3, "door", 10),
        ];
        TypeUsual.Of(finds, 2).ShouldBeEmpty("two aircraft say nothing");
        TypeUsual.Of(finds, 4).ShouldBe(
        [
            new("words of spar", 3, 4, 2_900, 5_000, FoundHow.Borescope, "found at 5000"),
            new("words of tyre", 2, 4, 100, 900, FoundHow.Visual, "found at 900"),
        ], "one aircraft alone makes nothing usual; an aircraft counts once, at the hours it first had it");
    }
}
