using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Inspections;

namespace MellowRivet.Core.Judgements;

/// <summary>
/// The states that have a shape of their own, from least to most in need of a hand: the order decides which one a group shows.
/// </summary>
public enum State { NotHere = 1, Good, KnownMark, NotYet, CannotTell, Watch, Recommended, Deferrable, Airworthiness, Grounded }

public static class States
{
    /// <summary>The word that goes with the shape, everywhere.</summary>
    public static string Word(this State state) => state switch
    {
        State.NotHere => "not on this aircraft",
        State.Good => "good",
        State.KnownMark => "known mark",
        State.NotYet => "not yet",
        State.CannotTell => "can't tell yet",
        State.Watch => "watch",
        State.Recommended => "recommended",
        State.Deferrable => "deferrable",
        State.Airworthiness => "airworthiness",
        _ => "grounded",
    };

    public static State Of(Discrepancy found) => !found.IsOpen
        ? State.Good
        : found.Grounded ? State.Grounded : Of(found.Class);

    public static State Of(DiscrepancyClass @class) => @class switch
    {
        DiscrepancyClass.Airworthiness => State.Airworthiness,
        DiscrepancyClass.Deferrable => State.Deferrable,
        DiscrepancyClass.Recommended => State.Recommended,
        DiscrepancyClass.Watch => State.Watch,
        _ => State.KnownMark,
    };

    /// <summary>A task shows what was found at it while that is open.</summary>
    public static State Of(InspectionTask task, Inspection inspection) => task.Verdict switch
    {
        TaskVerdict.NotYet => State.NotYet,
        TaskVerdict.NotApplicable => State.NotHere,
        TaskVerdict.Good => State.Good,
        _ => inspection.Discrepancies.Where(found => found.TaskId == task.Id).Select(Of).DefaultIfEmpty(State.Recommended).Max(),
    };

    /// <summary>A bulletin on an aircraft: what binds or was adopted shows what it is, what is advisory waits for a decision.</summary>
    public static State Of(BulletinLine line) => line.State switch
    {
        BulletinState.DoesNotApply or BulletinState.Superseded => State.NotHere,
        BulletinState.Declined => State.KnownMark,
        BulletinState.Done or BulletinState.Ahead => State.Good,
        BulletinState.Advisory => State.Recommended,
        BulletinState.Soon => State.Watch,
        BulletinState.CannotTell => State.CannotTell,
        BulletinState.Overdue => State.Airworthiness,
        _ => State.Grounded,
    };

    /// <summary>The same in an inspection that may have taken it in: then its steps say how far it is.</summary>
    public static State Of(BulletinLine line, Inspection inspection) => inspection.WorkOf(line) is not { } work ? Of(line)
        : work.Complied is not null ? State.Good
        : inspection.Tasks.Where(task => task.ZoneKey == work.ZoneKey).Select(task => Of(task, inspection)).Append(State.NotYet).Max();

    public static State Of(Verdict verdict) => verdict switch
    {
        Verdict.Good => State.Good,
        Verdict.Watch => State.Watch,
        Verdict.Reject => State.Airworthiness,
        Verdict.Retest => State.Recommended,
        _ => State.CannotTell,
    };

    public static State Of(DueState state) => state switch
    {
        DueState.Ok => State.Good,
        DueState.Soon => State.Watch,
        DueState.Grace => State.Recommended,
        DueState.Overdue => State.Airworthiness,
        _ => State.CannotTell,
    };
}
