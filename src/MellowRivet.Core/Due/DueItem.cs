using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;

namespace MellowRivet.Core.Due;

/// <summary>What kind of thing falls due.</summary>
public enum DueKind { Inspection = 1, Instrument, Locator, Overhaul, LifeLimit, Replacement, Service, Watch, Bulletin }

/// <summary>
/// Something that falls due on an aircraft, or on a part: what hangs on a part counts the part's own hours, and goes with it
/// when it moves.
/// </summary>
public sealed class DueItem
{
    /// <summary>Longest text taken for what is due, in characters.</summary>
    public const int LongestWhat = 120;

    private List<LastDone> done = [];
    private List<InspectionKind> doneBy = [];

    private DueItem() { }

    /// <param name="id">Its id.</param>
    /// <param name="aircraftId">The aircraft; null where it hangs on a part.</param>
    /// <param name="componentId">The part it hangs on; null for the aircraft.</param>
    /// <param name="what">What is due, in a few words.</param>
    /// <param name="kind">What kind of thing it is.</param>
    /// <param name="interval">How often.</param>
    /// <param name="source">Where the interval comes from.</param>
    /// <param name="doneBy">The inspections that count as having done it, once signed.</param>
    public DueItem(Guid id, Guid? aircraftId, Guid? componentId, string what, DueKind kind, Interval interval, RuleSource source,
        IEnumerable<InspectionKind>? doneBy = null)
    {
        Id = id;
        AircraftId = aircraftId;
        ComponentId = componentId;
        What = what;
        Kind = kind;
        Interval = interval;
        Source = source;
        this.doneBy = [.. doneBy ?? []];
    }

    public Guid Id { get; private set; }
    public Guid? AircraftId { get; private set; }
    public Guid? ComponentId { get; private set; }
    public string What { get; private set; } = "";
    public DueKind Kind { get; private set; }
    public Interval Interval { get; private set; } = new();
    public RuleSource Source { get; private set; } = new(Standing.Practice, "");

    /// <summary>The inspections that count as having done it, once signed.</summary>
    public IReadOnlyList<InspectionKind> DoneBy => doneBy;

    /// <summary>The discrepancy that is watched by it.</summary>
    public Guid? DiscrepancyId { get; init; }

    /// <summary>Hours one person is expected to take; null where nobody has said.</summary>
    public decimal? LabourHours { get; private set; }

    /// <summary>Every time it was done, earliest first.</summary>
    public IReadOnlyList<LastDone> Done => done;

    public LastDone? Last => done.Count == 0 ? null : done[^1];

    /// <summary>Why it isn't followed any more; null while it is.</summary>
    public string? RetiredWhy { get; private set; }

    /// <summary>An item of the aircraft's or another owner's words, as typed.</summary>
    public static IEnumerable<Refusal> Check(string? what, Interval interval, string? source)
    {
        if (string.IsNullOrWhiteSpace(what) || what.Trim().Length > LongestWhat)
            yield return new("what", $"Say what falls due, in up to {LongestWhat} characters.");
        if (string.IsNullOrWhiteSpace(source))
            yield return new("source", "Say where the interval comes from: the manual and its page, a rule, common practice.");
        foreach (var wrong in interval.Check())
            yield return wrong;
    }

    public void Change(string what, Interval interval, RuleSource source, decimal? labourHours)
    {
        LabourHours = labourHours;
        What = what;
        Interval = interval;
        Source = source;
    }

    /// <summary>A time it was done as it is noted: with when it was due until then, where an overrun counts.</summary>
    public LastDone AsNoted(LastDone when) => Interval.GraceHours > 0 && Interval.NextHours(Last?.Hours, Last?.WasDueHours) is { } due
        ? when with { WasDueHours = due }
        : when;

    /// <summary>Why it can't have been done so; null where it can.</summary>
    public Refusal? CheckDone(LastDone when, DateOnly today)
    {
        if (when.On > today)
            return new("on", "That day is still to come.");
        if (Last?.On is { } before && when.On < before)
            return new("on", $"It was done on {before:yyyy-MM-dd} after that. An older entry goes into the books.");
        if (Interval is { EveryMonths: not null } && when.On is null)
            return new("on", "It is counted by the calendar: the day it was done is wanted.");
        if (Interval is { EveryHours: not null } && when.Hours is null)
            return new("hours", "It is counted by hours: the hours when it was done are wanted.");
        if (Last?.Hours is { } earlier && when.Hours < earlier && when.CountedOn == Last.CountedOn)
            return new("hours", $"It was done at {earlier:0.0} h before: fewer hours can't follow.");
        return null;
    }

    /// <summary>Records that it was done. When it was due until then is kept, where an overrun counts.</summary>
    /// <returns>Why it can't be so, or null.</returns>
    public Refusal? SetDone(LastDone when, DateOnly today)
    {
        if (CheckDone(when, today) is { } refusal)
            return refusal;
        done = [.. done, AsNoted(when)];
        return null;
    }

    /// <summary>Puts a time it was done right, or strikes it.</summary>
    /// <param name="index">Which, from the earliest at 0.</param>
    /// <param name="now">What takes its place; null for nothing.</param>
    /// <param name="today">The day.</param>
    /// <returns>What stood there, or why it can't be so.</returns>
    public (LastDone? Was, Refusal? Refusal) PutRight(int index, LastDone? now, DateOnly today)
    {
        if (index < 0 || index >= done.Count)
            return (null, new("amendOn", "That time is not on file any more."));
        var (whole, was) = (done, done[index]);
        done = [.. whole[..index]];
        foreach (var when in (now is null ? [] : new[] { now with { CountedOn = was.CountedOn } }).Concat(whole[(index + 1)..]))
        {
            if (CheckDone(when, today) is { } refusal)
            {
                done = whole;
                return (null, refusal with { Field = refusal.Field == "on" ? "amendOn" : "amendHours" });
            }
            done = [.. done, when];
        }
        return (was, null);
    }

    /// <summary>Times that were noted at hours which were put right on a meter.</summary>
    /// <returns>How many.</returns>
    public int Reckon(decimal was, decimal now, Guid aircraftId)
    {
        bool Rests(LastDone when) => when.Hours == was && (AircraftId == aircraftId || when.CountedOn == aircraftId);
        var resting = done.Count(Rests);
        if (resting > 0)
            done = [.. done.Select(when => Rests(when) ? when with { Hours = now } : when)];
        return resting;
    }

    /// <summary>Puts back a history as a file has it.</summary>
    internal void Restore(IEnumerable<LastDone> history, string? retiredWhy) => (done, RetiredWhy) = ([.. history], retiredWhy);

    public void Retire(string why) => RetiredWhy = why;
}

public static class DueKindWords
{
    public static string InWords(this DueKind kind) => kind switch
    {
        DueKind.Inspection => "inspection",
        DueKind.Instrument => "instrument test",
        DueKind.Locator => "locator transmitter",
        DueKind.Overhaul => "overhaul",
        DueKind.LifeLimit => "life limit",
        DueKind.Replacement => "replacement",
        DueKind.Service => "service",
        DueKind.Bulletin => "bulletin",
        _ => "watch",
    };
}
