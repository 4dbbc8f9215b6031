using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Fleet;

/// <summary>A part's stay on an aircraft: at a place, from one time in service to another. Hours follow from it.</summary>
public sealed class Installation
{
    private Installation() { }

    internal Installation(Guid aircraftId, Component component, Guid? parentId, string position, DateOnly? installedOn, Hours installedAt,
        Hours? ownTimeThen, Guid? by)
    {
        Id = Guid.CreateVersion7();
        AircraftId = aircraftId;
        Component = component;
        ComponentId = component.Id;
        ParentId = parentId;
        Position = position;
        InstalledOn = installedOn;
        InstalledAt = installedAt;
        OwnTimeThen = ownTimeThen;
        FittedBy = by;
    }

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }
    public Guid ComponentId { get; private set; }
    public Component Component { get; private set; } = null!;

    /// <summary>The part it sits on; null for one that sits on the airframe.</summary>
    public Guid? ParentId { get; private set; }

    /// <summary>Where it sits: a cylinder's number, "left" or "right" for a twin's engines, "" where there is one place.</summary>
    public string Position { get; private set; } = "";
    public DateOnly? InstalledOn { get; private set; }

    /// <summary>The aircraft's time in service when it was fitted.</summary>
    public Hours InstalledAt { get; private set; }

    /// <summary>The part's own time when it was fitted; null where nobody knows.</summary>
    public Hours? OwnTimeThen { get; private set; }
    public DateOnly? RemovedOn { get; private set; }

    /// <summary>The aircraft's time in service when it was taken off; null while it is on.</summary>
    public Hours? RemovedAt { get; private set; }
    public string? RemovedWhy { get; private set; }

    /// <summary>Who fitted it; null where nobody here did, or the file is older than that.</summary>
    public Guid? FittedBy { get; private set; }

    /// <summary>Who took it off; null while it is on, or where nobody here did.</summary>
    public Guid? TakenOffBy { get; private set; }

    public bool IsOn => RemovedAt is null;

    /// <summary>"on at 4210.5 h with 120 h of its own, off at 4318.6 h".</summary>
    public string InWords => $"on at {InstalledAt} h with {(OwnTimeThen is { } own ? $"{own} h of its own" : "own hours not known")}"
        + (RemovedAt is { } off ? $", off at {off} h" : "");

    /// <summary>Hours on this aircraft, since fitted until taken off or now.</summary>
    /// <param name="aircraftTime">The aircraft's time in service now.</param>
    public Hours SinceInstalled(Hours aircraftTime)
    {
        var until = RemovedAt is { } removed && removed < aircraftTime ? removed : aircraftTime;
        return new(Math.Max(0, until.Value - InstalledAt.Value));
    }

    /// <summary>Own time = hours since fitted + own time when fitted; null where that isn't known.</summary>
    public Hours? TimeInService(Hours aircraftTime) =>
        OwnTimeThen is { } then ? new(SinceInstalled(aircraftTime).Value + then.Value) : null;

    /// <summary>Own time since the last overhaul; null where it was never overhauled or either time isn't known.</summary>
    public Hours? SinceOverhaul(Hours aircraftTime) =>
        Component.LastOverhaul is { OwnTime: { } then } && TimeInService(aircraftTime) is { } now && now >= then
            ? new(now.Value - then.Value)
            : null;

    /// <summary>Puts down its own time now, where nobody knew; false where it has flown more than that here alone.</summary>
    internal bool KnowTime(decimal ownNow, Hours aircraftTime)
    {
        if (ownNow < SinceInstalled(aircraftTime).Value)
            return false;
        OwnTimeThen = new(ownNow - SinceInstalled(aircraftTime).Value);
        return true;
    }

    /// <summary>Puts its hours right, as the papers have them.</summary>
    internal void PutRight(Hours at, Hours? ownTime, Hours? removedAt) => (InstalledAt, OwnTimeThen, RemovedAt) = (at, ownTime, removedAt);

    /// <summary>Puts it elsewhere before any hour has passed.</summary>
    internal void StandAt(string position) => Position = position;

    internal void End(DateOnly? on, Hours at, string why, Guid? by)
    {
        TakenOffBy = by;
        RemovedOn = on;
        RemovedAt = at;
        RemovedWhy = why;
    }
}
