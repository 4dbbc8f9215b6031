using System.Globalization;
using MellowRivet.Core;

namespace MellowRivet.Web.Hosting;

/// <summary>A clock that was set to another day and runs on from there.</summary>
public sealed class SetClock : TimeProvider
{
    private readonly TimeSpan ahead;

    /// <param name="to">What it shows now.</param>
    public SetClock(DateTimeOffset to) => ahead = to - System.GetUtcNow();

    public override DateTimeOffset GetUtcNow() => System.GetUtcNow() + ahead;

    /// <summary>
    /// Set to a day as 2028-02-29, at the time of day it is now, or to a moment of it as 2028-02-29T10:00; null where the words
    /// are neither, or lie outside the years 2000 to 2099, between which the invented shop has a past and a future.
    /// </summary>
    public static SetClock? Read(string words)
    {
        string[] forms = ["yyyy-MM-dd", "yyyy-MM-dd'T'HH:mm"];
        if (!DateTime.TryParseExact(words, forms, CultureInfo.InvariantCulture, DateTimeStyles.None, out var shown)
            || shown.Year is < 2000 or > 2099)
            return null;
        var day = new DateOnly(shown.Year, shown.Month, shown.Day);
        var time = words.Contains('T')
            ? TimeOnly.FromTimeSpan(shown.TimeOfDay)
            : TimeOnly.FromTimeSpan(System.Here(System.GetUtcNow()).TimeOfDay);
        return new(System.At(day, time));
    }
}
