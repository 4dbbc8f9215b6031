using Microsoft.Extensions.Time.Testing;
using NodaTime;
using NodaTime.TimeZones;

namespace MellowRivet.Core.Tests;

public class ShopTimeTests
{
    // The clock changes of 2027 in most of the United States: 14 March and 7 November, at two in the morning (15 U.S.C. 260a, from memory).
    internal static readonly TimeZoneInfo Central = TimeZoneInfo.CreateCustomTimeZone("test-central", TimeSpan.FromHours(-6), "Central",
        "standard", "daylight",
        [TimeZoneInfo.AdjustmentRule.CreateAdjustmentRule(DateTime.MinValue.Date, DateTime.MaxValue.Date, TimeSpan.FromHours(1),
            TimeZoneInfo.TransitionTime.CreateFloatingDateRule(new(1, 1, 1, 2, 0, 0), 3, 2, DayOfWeek.Sunday),
            TimeZoneInfo.TransitionTime.CreateFloatingDateRule(new(1, 1, 1, 2, 0, 0), 11, 1, DayOfWeek.Sunday))]);

    private static FakeTimeProvider At(DateTimeOffset instant, TimeZoneInfo zone)
    {
        var clock = new FakeTimeProvider(instant);
        clock.SetLocalTimeZone(zone);
        return clock;
    }

    [Theory]
    [InlineData("2026-11-24T04:30:00Z", -6, "2026-11-23")] // Late in the evening, when it is tomorrow in Greenwich.
    [InlineData("2026-11-23T18:30:00Z", 14, "2026-11-24")]
    [InlineData("2027-01-01T10:59:59Z", -11, "2026-12-31")]
    [InlineData("2027-01-01T11:00:00Z", -11, "2027-01-01")]
    [InlineData("2028-02-28T10:00:00Z", 14, "2028-02-29")]
    [InlineData("2027-02-28T09:59:59Z", 14, "2027-02-28")]
    [InlineData("2027-02-28T10:00:00Z", 14, "2027-03-01")]
    public void The_day_is_the_shops_own(string instant, int hours, string day) =>
        At(DateTimeOffset.Parse(instant), TimeZoneInfo.CreateCustomTimeZone("test", TimeSpan.FromHours(hours), "test", "test")).Today()
            .ToString("yyyy-MM-dd").ShouldBe(day);

    // Against NodaTime, for every hour of a year with both changes: a gap is left forwards, of an hour that comes twice the first is taken.
    [Fact]
    public void An_hour_of_a_day_is_the_same_instant_as_in_another_library()
    {
        var clock = At(new(2027, 1, 1, 0, 0, 0, TimeSpan.Zero), Central);
        var zone = BclDateTimeZone.FromTimeZoneInfo(Central);
        for (var hour = new DateTime(2027, 1, 1); hour.Year == 2027; hour = hour.AddMinutes(30))
        {
            var (day, time) = (new DateOnly(hour.Year, hour.Month, hour.Day), TimeOnly.FromDateTime(hour));
            var ours = clock.At(day, time);
            ours.UtcDateTime.ShouldBe(zone.ResolveLocal(LocalDateTime.FromDateTime(hour), Resolvers.LenientResolver)
                .ToDateTimeUtc(), hour.ToString("O"));
            clock.DayOf(ours).ShouldBe(day, hour.ToString("O"));
        }
    }
}
