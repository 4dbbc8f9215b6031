namespace MellowRivet.Store;

/// <summary>
/// The clock of work that is said: now, or when it was said on a device that was out of the shop's reach. Whatever is signed, asked or
/// paid goes by the shop's own.
/// </summary>
/// <param name="shop">The shop's clock.</param>
/// <param name="late">Who said it away from the shop, and when; null where it is said now.</param>
public sealed class WorkClock(TimeProvider shop, Core.Inspections.Stamp? late = null) : TimeProvider
{
    /// <summary>Who said it away from the shop, and when; null where it is said now.</summary>
    public Core.Inspections.Stamp? Late => late;

    public override TimeZoneInfo LocalTimeZone => shop.LocalTimeZone;

    public override DateTimeOffset GetUtcNow() => late?.At ?? shop.GetUtcNow();
}
