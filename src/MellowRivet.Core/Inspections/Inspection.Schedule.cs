using MellowRivet.Core.Estimates;

namespace MellowRivet.Core.Inspections;

/// <summary>The day that somebody was told the aircraft would be ready.</summary>
/// <param name="On">The day.</param>
/// <param name="By">Who said so.</param>
/// <param name="At">When.</param>
public sealed record Promise(DateOnly On, Guid By, DateTimeOffset At);

/// <summary>A job that somebody pinned to a day or a hand.</summary>
/// <param name="Key">The job, as the plan of the hangar calls it within this inspection.</param>
/// <param name="Hand">Whose it is; null for whoever can.</param>
/// <param name="Day">The day on which it begins; null for any.</param>
/// <param name="By">Who pinned it.</param>
/// <param name="At">When.</param>
public sealed record PinnedJob(string Key, Guid? Hand, DateOnly? Day, Guid By, DateTimeOffset At);

// What people decided about when it is done: what was promised, and what is pinned.
public sealed partial class Inspection
{
    private List<PinnedJob> pins = [];

    /// <summary>Jobs that somebody pinned.</summary>
    public IReadOnlyList<PinnedJob> Pins => pins;

    /// <summary>The day that was promised; null where none was.</summary>
    public Promise? Promised { get; private set; }

    /// <summary>Promises a day, or takes a promise back.</summary>
    /// <param name="on">The day; null to take it back.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <param name="today">The day it is.</param>
    public Refusal? Tell(DateOnly? on, Guid by, DateTimeOffset at, DateOnly today)
    {
        if (on < today || on is { Year: > 2199 })
            return new("promised", on < today ? $"{on:yyyy-MM-dd} is gone by." : "A day up to 2199.");
        Promised = on is { } day ? new(day, by, at) : null;
        return null;
    }

    /// <summary>Pins a job to a day, a hand or both; neither lets it go.</summary>
    /// <param name="key">The job.</param>
    /// <param name="hand">Whose it is; null for whoever can.</param>
    /// <param name="day">The day on which it begins; null for any.</param>
    /// <param name="by">Who.</param>
    /// <param name="at">When.</param>
    /// <param name="today">The day it is.</param>
    public Refusal? Pin(string? key, Guid? hand, DateOnly? day, Guid by, DateTimeOffset at, DateOnly today)
    {
        if (string.IsNullOrWhiteSpace(key) || key.Length > Estimate.LongestWords)
            return new("pin", "Which job?");
        if (day < today || day is { Year: > 2199 })
            return new("pin", day < today ? $"{day:yyyy-MM-dd} is gone by." : "A day up to 2199.");
        pins = [.. pins.Where(pin => pin.Key != key), .. hand is null && day is null ? [] : new[] { new PinnedJob(key, hand, day, by,
            at) }];
        return null;
    }
}
