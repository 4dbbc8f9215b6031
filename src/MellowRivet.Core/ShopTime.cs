namespace MellowRivet.Core;

/// <summary>
/// The shop's time, worked out here and nowhere else: which day its calendar shows, and what the clock on its wall. Instants are
/// kept without a zone; whoever needs a day or an hour for people asks here.
/// </summary>
public static class ShopTime
{
    /// <summary>The day it is in the shop now.</summary>
    public static DateOnly Today(this TimeProvider clock) => clock.DayOf(clock.GetUtcNow());

    /// <summary>The day it was in the shop at an instant.</summary>
    public static DateOnly DayOf(this TimeProvider clock, DateTimeOffset instant)
    {
        var here = clock.Here(instant);
        return new(here.Year, here.Month, here.Day);
    }

    /// <summary>An instant as the shop's clock shows it.</summary>
    public static DateTimeOffset Here(this TimeProvider clock, DateTimeOffset instant) =>
        TimeZoneInfo.ConvertTime(instant, clock.LocalTimeZone);

    /// <inheritdoc cref="Here(TimeProvider, DateTimeOffset)"/>
    public static DateTimeOffset? Here(this TimeProvider clock, DateTimeOffset? instant) => instant is { } known ? clock.Here(known) : null;

    /// <summary>
    /// The instant at which the shop's clock shows a time of a day. Where the clocks go forward over it, that much later; where
    /// they go back and it comes twice, the first.
    /// </summary>
    public static DateTimeOffset At(this TimeProvider clock, DateOnly day, TimeOnly time)
    {
        var (zone, shown) = (clock.LocalTimeZone, day.ToDateTime(time));
        var offset = zone.IsInvalidTime(shown) ? zone.GetUtcOffset(shown.AddDays(-1))
            : zone.IsAmbiguousTime(shown) ? zone.GetAmbiguousTimeOffsets(shown).Max()
            : zone.GetUtcOffset(shown);
        return clock.Here(new(shown, offset));
    }
}
