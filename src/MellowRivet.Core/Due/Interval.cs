using System.Text.Json.Serialization;

namespace MellowRivet.Core.Due;

/// <summary>How calendar months are counted.</summary>
public enum CalendarRule
{
    /// <summary>Calendar months: good through the last day of the month (14 CFR 91.409(a), 91.411, 91.413, from memory).</summary>
    EndOfMonth = 1,

    /// <summary>Good through the same day of the month; the 31st rolls back to the last day of a shorter one.</summary>
    SameDay,
}

/// <summary>
/// How often something is due. Each limb that is set counts, and whichever comes first governs. With no limb set nobody has
/// said yet: that is never taken for fine.
/// </summary>
/// <param name="EveryHours">Time in service, hours; of the aircraft, or of the part the item hangs on.</param>
/// <param name="EveryMonths">Calendar months.</param>
/// <param name="Calendar">How the months are counted.</param>
/// <param name="GraceHours">Hours it may be overflown to reach the place of inspection; they come off the next period.</param>
/// <param name="EveryLandings">Landings.</param>
/// <param name="EveryCycles">Engine cycles.</param>
/// <param name="NotAfter">A fixed date, as marked on a battery.</param>
/// <param name="FirstAtHours">
/// Hours at which it falls due for the first time, where that is later than the interval: "first at 12,000 h, then every 1,000".
/// </param>
public sealed record Interval(
    decimal? EveryHours = null, int? EveryMonths = null, CalendarRule Calendar = CalendarRule.EndOfMonth, decimal GraceHours = 0,
    int? EveryLandings = null, int? EveryCycles = null, DateOnly? NotAfter = null, decimal? FirstAtHours = null)
{
    public bool HasNoLimb => EveryHours is null && EveryMonths is null && EveryLandings is null && EveryCycles is null && NotAfter is null;

    /// <summary>The day a calendar limb falls due.</summary>
    /// <param name="done">The day it was last done.</param>
    /// <param name="months">Calendar months.</param>
    /// <param name="rule">How they are counted.</param>
    public static DateOnly DueDate(DateOnly done, int months, CalendarRule rule)
    {
        var sameDay = done.AddMonths(months);
        return rule == CalendarRule.SameDay ? sameDay : new(sameDay.Year, sameDay.Month, DateTime.DaysInMonth(sameDay.Year, sameDay.Month));
    }

    /// <summary>
    /// The hours at which it falls due next. Done early, the period begins anew when it was done; done late, it begins when it
    /// was due, so that what was overflown comes off the next period (14 CFR 91.409(b), from memory).
    /// </summary>
    /// <param name="done">Hours when it was last done.</param>
    /// <param name="every">The period.</param>
    /// <param name="wasDue">Hours at which it was due then; null where that doesn't count or isn't known.</param>
    public static decimal DueHours(decimal done, decimal every, decimal? wasDue) => (wasDue is { } due && due < done ? due : done) + every;

    /// <summary>
    /// The hours at which it falls due next, from the first time on: null where nobody knows when it was done and it has begun long ago.
    /// </summary>
    /// <param name="done">Hours when it was last done; null where it never was, or nobody knows.</param>
    /// <param name="wasDue">Hours at which it was due then; null where that doesn't count.</param>
    public decimal? NextHours(decimal? done, decimal? wasDue) => EveryHours is not { } every ? null
        : done is { } then ? Math.Max(DueHours(then, every, wasDue), FirstAtHours ?? 0)
        : FirstAtHours;

    /// <summary>"every 100 h (10 h over to reach the place) or 12 calendar months".</summary>
    public string InWords()
    {
        var limbs = new[]
        {
            EveryHours is { } hours ? $"{hours:0.##} h{(FirstAtHours is { } first ? $" from {first:0.##} h on" : "")}"
                + $"{(GraceHours > 0 ? $" (up to {GraceHours:0.##} h over, off the next)" : "")}"
                : null,
            EveryMonths is { } months ? months % 12 == 0 && Calendar == CalendarRule.SameDay
                ? $"{months / 12} {(months == 12 ? "year" : "years")} to the day"
                : $"{months} {(Calendar == CalendarRule.EndOfMonth ? "calendar months" : "months to the day")}" : null,
            EveryLandings is { } landings ? $"{landings} landings" : null,
            EveryCycles is { } cycles ? $"{cycles} cycles" : null,
        }.OfType<string>().ToList();
        var every = limbs.Count > 0 ? "every " + string.Join(" or ", limbs) : null;
        var until = NotAfter is { } day ? $"not after {day:yyyy-MM-dd}" : null;
        return string.Join(", ", new[] { every, until }.OfType<string>().DefaultIfEmpty("no interval on file"));
    }

    /// <summary>What is wrong with an interval as typed; empty where it can go on file.</summary>
    public IEnumerable<Refusal> Check()
    {
        if (EveryHours is <= 0 or > 100_000)
            yield return new("everyHours", "Hours above 0, up to 100000.");
        if (FirstAtHours is not null && (FirstAtHours is <= 0 or > 1_000_000 || EveryHours is null))
            yield return new("firstAtHours", "The first time is at hours above 0, and goes with an interval in hours.");
        if (EveryMonths is <= 0 or > 600)
            yield return new("everyMonths", "Whole months from 1 to 600.");
        if (GraceHours is < 0 or > 100 || (GraceHours > 0 && (EveryHours is null || GraceHours >= EveryHours)))
            yield return new("graceHours", "Hours over are zero or more, at most 100, and less than the period in hours.");
        if (NotAfter is { Year: < 1950 or > 2199 })
            yield return new("notAfter", "A date from 1950 to 2199.");
        if (EveryLandings is <= 0 or > 1_000_000)
            yield return new("everyLandings", "Whole landings above 0.");
        if (EveryCycles is <= 0 or > 1_000_000)
            yield return new("everyCycles", "Whole cycles above 0.");
    }
}

/// <summary>When something was last done. What isn't known stays null.</summary>
/// <param name="On">The day.</param>
/// <param name="Hours">Time in service then, of the aircraft or of the part the item hangs on.</param>
/// <param name="WasDueHours">Hours at which it was due then, where an overrun counts.</param>
/// <param name="Landings">Landings then.</param>
/// <param name="Cycles">Engine cycles then.</param>
/// <param name="Reference">Where it is entered: a work order, a book and page.</param>
/// <param name="CountedOn">
/// The aircraft whose hours those are, where nobody knows the own hours of the part; null for the part's own, or the aircraft's item.
/// </param>
public sealed record LastDone(DateOnly? On = null, decimal? Hours = null, decimal? WasDueHours = null, decimal? Landings = null,
    decimal? Cycles = null, string Reference = "", Guid? CountedOn = null)
{
    /// <summary>"2026-03-14, 4210.5 h, 26-101".</summary>
    [JsonIgnore]
    public string InWords => string.Join(", ", new[]
    {
        On is { } day ? $"{day:yyyy-MM-dd}" : "", Hours is { } hours ? $"{hours:0.0##} h" : "",
        Landings is { } landings ? $"{landings:0} landings" : "", Cycles is { } cycles ? $"{cycles:0} cycles" : "", Reference,
    }.Where(words => words.Length > 0).DefaultIfEmpty("done, no day known"));
}
