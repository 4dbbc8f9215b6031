using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Tests.Inspections;

public class ArrivalTests
{
    private readonly Inspection inspection = Fixture.Inspection(Fixture.Aircraft());

    private static Photo Photo(string sha) => new(sha, 10, 10, null, Fixture.Now);

    [Fact]
    public void A_squawk_keeps_the_owners_words_and_its_number()
    {
        inspection.Hear(Guid.NewGuid(), "  pulls left  ", Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.Hear(Guid.NewGuid(), "smells of fuel", Fixture.Ines, Fixture.Now).ShouldBeNull();
        inspection.Squawks.Select(squawk => (squawk.Number, squawk.Words)).ShouldBe([(1, "pulls left"), (2, "smells of fuel")]);
        inspection.Hear(Guid.NewGuid(), " ", Fixture.Ines, Fixture.Now)!.Field.ShouldBe("words");
        inspection.Hear(Guid.NewGuid(), new string('x', Discrepancy.LongestWords + 1), Fixture.Ines, Fixture.Now)!.Field.ShouldBe("words");
    }

    [Fact]
    public void Every_squawk_is_answered_before_the_inspection_can_be_signed()
    {
        var aircraft = Fixture.Aircraft();
        var finished = Fixture.Inspection(aircraft);
        Fixture.Finish(finished, aircraft);
        Readiness.Of(finished, aircraft, Fixture.Bare).MaySign.ShouldBeTrue();
        var id = Guid.NewGuid();
        finished.Hear(id, "pulls left", Fixture.Ines, Fixture.Now);
        Readiness.Of(finished, aircraft, Fixture.Bare).Blockers.ShouldHaveSingleItem().Squawk!.Words.ShouldBe("pulls left");
        finished.Answer(id, "  ", Fixture.Ines, Fixture.Now)!.Field.ShouldBe("answer");
        finished.Answer(Guid.NewGuid(), "done", Fixture.Ines, Fixture.Now)!.Field.ShouldBe("answer");
        finished.Answer(id, "tyre replaced", Fixture.Ines, Fixture.Now).ShouldBeNull();
        Readiness.Of(finished, aircraft, Fixture.Bare).MaySign.ShouldBeTrue();
        finished.Answer(id, "tyre and brake line replaced", Fixture.Ines, Fixture.Now).ShouldBeNull();
        finished.Squawks.Single().Answer.ShouldBe("tyre and brake line replaced");
    }

    [Fact]
    public void Eight_viewpoints_are_counted_once_each()
    {
        foreach (var from in Enum.GetValues<Viewpoint>())
            inspection.Photograph(from, Photo($"{from}"), Fixture.Ines, Fixture.Now);
        inspection.Photograph(Viewpoint.Nose, Photo("Nose"), Fixture.Ines, Fixture.Now);
        inspection.Photograph(Viewpoint.Nose, Photo("another"), Fixture.Ines, Fixture.Now);
        inspection.Arrival.Seen.ShouldBe(8);
        inspection.Arrival.Round.Count.ShouldBe(9, "the same picture twice is one");
    }

    [Theory]
    [InlineData(0.0, 300.0, "dent", null)]
    [InlineData(-0.1, 10.0, "dent", "pin")]
    [InlineData(10.0, 300.1, "dent", "pin")]
    [InlineData(null, 10.0, "dent", "pin")]
    [InlineData(double.NaN, 10.0, "dent", "pin")]
    [InlineData(10.0, 10.0, " ", "damage")]
    public void A_pin_has_a_place_on_the_drawing_and_words(double? x, double? y, string what, string? field) =>
        inspection.Pin(Guid.NewGuid(), x, y, what, Fixture.Ines, Fixture.Now)?.Field.ShouldBe(field);
}
