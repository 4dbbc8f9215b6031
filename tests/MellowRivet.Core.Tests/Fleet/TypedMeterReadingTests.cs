using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Tests.Fleet;

/// <summary>A meter's reading as it is typed, and a part that is typed off.</summary>
public sealed class TypedMeterReadingTests
{
    private readonly Aircraft aircraft = Fixture.Aircraft();

    private Refusal? Take(string? shown, DateOnly? on = null, TypedReplacement? replaced = null) =>
        new TypedMeterReading(aircraft.TimeBasis, on ?? Fixture.Today, shown, replaced).Take(aircraft, Fixture.Today, "IT");

    [Fact]
    public void A_reading_counts()
    {
        var more = aircraft.TimeInService.Value + 12.5m;
        Take($"{more}").ShouldBeNull();
        aircraft.TimeInService.Value.ShouldBe(more);
    }

    [Fact]
    public void What_is_typed_wrongly_is_named_and_nothing_counts()
    {
        var before = aircraft.MeterReadings.Count;
        Take("many")!.Field.ShouldBe("shown");
        Take("2000", Fixture.Today.AddDays(1))!.Field.ShouldBe("on");
        Take("12", replaced: new("", "0"))!.Field.ShouldBe("lastShown");
        Take("12", replaced: new("4000", "x"))!.Field.ShouldBe("firstShown");
        aircraft.MeterReadings.Count.ShouldBe(before);
    }

    [Fact]
    public void A_part_comes_off_at_hours_that_can_be_read_on_a_day_that_was()
    {
        var part = aircraft.Engines.First().ComponentId;
        aircraft.TakeOff(part, Fixture.Today, "soon", "worn", Fixture.Today)!.Field.ShouldBe("at");
        aircraft.TakeOff(part, Fixture.Today.AddDays(1), $"{aircraft.TimeInService}", "worn", Fixture.Today)!.Field.ShouldBe("on");
        aircraft.TakeOff(part, Fixture.Today, $"{aircraft.TimeInService}", "worn", Fixture.Today).ShouldBeNull();
        aircraft.LastStay(part)!.IsOn.ShouldBeFalse();
    }
}
