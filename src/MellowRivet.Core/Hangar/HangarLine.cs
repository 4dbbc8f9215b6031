using MellowRivet.Core.Due;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Hangar;

/// <summary>Where somebody goes about what holds an aircraft up or calls for a person.</summary>
public enum GoTo
{
    Bulletins = 1, OverdueBulletins, OpenItems, Walk, Squawks, Second, BulletinsAtWork, Tags, Judgements, Asked, ZoneLooks, Close, FixList,
    Found, Compressions, Apart,
}

/// <summary>Which aircraft of the hangar are shown.</summary>
public enum HangarFilter { All = 1, InTheShop, Grounded, DueThisMonth, WaitingForParts, Mine }

public static class HangarWords
{
    public static string InWords(this HangarFilter filter) => filter switch
    {
        HangarFilter.InTheShop => "in the shop",
        HangarFilter.DueThisMonth => "due this month",
        HangarFilter.WaitingForParts => "waiting for parts",
        var other => other.ToString().ToLowerInvariant(),
    };
}

/// <summary>Something that holds an aircraft up.</summary>
/// <param name="State">What it is, as it is shown.</param>
/// <param name="Text">In words.</param>
/// <param name="At">Where one goes about it.</param>
/// <param name="Key">Which one there: a bulletin, a discrepancy, a cylinder; null for none in particular.</param>
public sealed record Hold(State State, string Text, GoTo At, string? Key = null);

/// <summary>Something that calls for a person now.</summary>
/// <param name="State">What it is, as it is shown.</param>
/// <param name="Lead">First words.</param>
/// <param name="Text">The rest.</param>
/// <param name="At">Where one goes about it.</param>
/// <param name="Key">Which one there; null for none in particular.</param>
public sealed record Call(State State, string Lead, string Text, GoTo At, string? Key = null);

/// <summary>How far a zone of a walk is.</summary>
/// <param name="Key">Its key.</param>
/// <param name="Title">Its title.</param>
/// <param name="Station">Its station.</param>
/// <param name="Done">Tasks that are answered.</param>
/// <param name="Tasks">All of them.</param>
/// <param name="Worst">The worst of its tasks and of what is open in it.</param>
public sealed record ZoneProgress(string Key, string Title, Station Station, int Done, int Tasks, State Worst)
{
    public string InWords => $"{Done} of {Tasks}";

    /// <summary>The zones of a station, in walking order.</summary>
    public static IReadOnlyList<ZoneProgress> Of(Station station, Inspection inspection) =>
        [.. inspection.Walk.Where(task => task.Station == station).GroupBy(task => task.ZoneKey).Select(zone => new ZoneProgress(
            zone.Key, zone.First().ZoneTitle, station, zone.Count(task => task.Verdict != TaskVerdict.NotYet), zone.Count(),
            zone.Select(task => States.Of(task, inspection))
                .Concat(inspection.Discrepancies.Where(found => found.IsOpen && found.ZoneKey == zone.Key).Select(States.Of)).Max()))];
}

/// <summary>The inspection that an aircraft's line shows: the one in work, else the last one that was signed.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Kind">What kind it is.</param>
/// <param name="State">In work, or how it ended.</param>
/// <param name="WorkOrder">Its work order.</param>
/// <param name="Zones">How far the zones of engine and airframe are.</param>
/// <param name="IsGrounded">Something found at it grounds the aircraft.</param>
public sealed record WorkShown(Guid Id, InspectionKind Kind, InspectionState State, string WorkOrder, IReadOnlyList<ZoneProgress> Zones,
    bool IsGrounded)
{
    public bool InWork => State == InspectionState.InWork;
}

/// <summary>
/// One aircraft in the hangar: where its inspection stands, what holds it up, what calls for a person, what is due
/// next. Made once, then only read.
/// </summary>
/// <param name="AircraftId">The aircraft.</param>
/// <param name="Registration">Its registration.</param>
/// <param name="Type">Its type.</param>
/// <param name="TimeInService">Its hours.</param>
/// <param name="Work">Its inspection; null where there never was one.</param>
/// <param name="Holds">What holds it up.</param>
/// <param name="Calls">What calls for a person now.</param>
/// <param name="Next">What is due next; null where nothing is followed.</param>
/// <param name="IsGrounded">It stays on the ground: by what was found, or by a bulletin.</param>
/// <param name="WaitsForParts">Something on its fix list waits for parts.</param>
/// <param name="Hands">Who took a zone of its inspection in work, or has answered something of it.</param>
public sealed record HangarLine(Guid AircraftId, string Registration, string Type, Hours TimeInService, WorkShown? Work,
    IReadOnlyList<Hold> Holds, IReadOnlyList<Call> Calls, DueEntry? Next, bool IsGrounded, bool WaitsForParts, IReadOnlySet<Guid> Hands)
{
    /// <summary>Its inspection is in work: it stands in the shop.</summary>
    public bool IsInTheShop => Work is { InWork: true };

    /// <summary>What is due next is overdue, or falls due by the end of the month.</summary>
    public bool IsDueInMonthOf(DateOnly today) => Next is { } next && (next.Status.State is DueState.Overdue or DueState.Grace
        || (next.Status.Forecast is { } day && (day.Year, day.Month).CompareTo((today.Year, today.Month)) <= 0));

    /// <summary>Whether a filter shows it.</summary>
    /// <param name="filter">The filter.</param>
    /// <param name="who">Who looks.</param>
    /// <param name="today">The day.</param>
    public bool Passes(HangarFilter filter, Guid who, DateOnly today) => filter switch
    {
        HangarFilter.InTheShop => IsInTheShop,
        HangarFilter.Grounded => IsGrounded,
        HangarFilter.DueThisMonth => IsDueInMonthOf(today),
        HangarFilter.WaitingForParts => WaitsForParts,
        HangarFilter.Mine => Hands.Contains(who),
        _ => true,
    };

    /// <summary>How much it wants a hand, least first: in work, then called for, held up, and the rest.</summary>
    public int Rank => Work is { InWork: true } ? 0 : Calls.Count > 0 ? 1 : Holds.Count > 0 ? 2 : 3;
}
