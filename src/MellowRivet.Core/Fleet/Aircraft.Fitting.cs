using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Fleet;

// Parts fitted, taken off, moved and put right.
public sealed partial class Aircraft
{
    /// <summary>Puts a part on, or says why it can't be.</summary>
    /// <param name="part">The part.</param>
    /// <param name="position">Its place.</param>
    /// <param name="on">The day; null where the papers don't say.</param>
    /// <param name="at">The aircraft's time in service then.</param>
    /// <param name="ownTime">The part's own time then; null where nobody knows.</param>
    /// <param name="parent">The part it sits on; null for the airframe.</param>
    /// <param name="cameOff">What came off with it where it was before: it goes on with it again. A new engine gets
    /// its cylinders instead.</param>
    /// <param name="by">Who fitted it.</param>
    public Refusal? Fit(Component part, string position, DateOnly? on, Hours at, Hours? ownTime, Guid? parent,
        IReadOnlyList<Installation>? cameOff = null, Guid? by = null)
    {
        if (at > TimeInService)
            return new("at", $"The aircraft has {TimeInService} h: nothing can have been fitted at {at} h.");
        if (parent is { } under && Fitting(under) is null)
            return new("parent", "What it would sit on is not on this aircraft.");
        if (part.Kind != ComponentKind.Other && Installations.FirstOrDefault(fitted => fitted.IsOn && fitted.Component.Kind == part.Kind
            && fitted.ParentId == parent && fitted.Position == position) is { } there)
            return new("position",
                $"{part.Kind.InWords()} {position} s/n {there.Component.SerialNumber} sits there. ".TrimStart()
                + "Take it off first, or name another place.");
        if (IsTypedAnew(part, position, parent))
            return new("serial",
                $"S/n {part.SerialNumber.Trim()} is the one that came off there. Choose it from what lies in the shop: "
                + $"its history goes on with it.");
        if (part.Kind == ComponentKind.Engine && cameOff is null)
            InstallEngine(part, position, at, ownTime, on, by);
        else
            Install(part, position, at, ownTime, parent, on, by);
        foreach (var stay in cameOff ?? [])
            Install(stay.Component, stay.Position, at, stay.TimeInService(stay.RemovedAt!.Value), stay.ParentId, on, by);
        return null;
    }

    /// <summary>The same as it is typed: the aircraft's hours then, and a day that is not to come.</summary>
    public Refusal? TakeOff(Guid componentId, DateOnly? on, string? at, string? why, DateOnly today, Guid? by = null) =>
        TypedNumber.ParseHours(at) is not { } then ? new("at", "The aircraft’s time in service when it came off: 4318.6.")
        : on > today ? new("on", "That day is still to come.")
        : TakeOff(componentId, on, then, why, by);

    /// <summary>Takes a part off, with everything that sits on it.</summary>
    /// <returns>Why it can't be, or null.</returns>
    public Refusal? TakeOff(Guid componentId, DateOnly? on, Hours at, string? why, Guid? by = null)
    {
        if (Fitting(componentId) is not { } fitted)
            return new("part", "It is not on this aircraft any more.");
        if (string.IsNullOrWhiteSpace(why))
            return new("why", "Say why it comes off: the trend and the next owner ask.");
        var all = WithWhatSitsOnIt(fitted).ToList();
        if (all.Max(part => part.InstalledAt) is var latest && at < latest)
            return new("at", $"It was fitted at {latest} h and can't have come off at {at} h.");
        if (at > TimeInService)
            return new("at", $"The aircraft has {TimeInService} h: nothing can have come off at {at} h.");
        foreach (var part in all)
            part.End(on, at, why.Trim(), by);
        return null;
    }

    /// <summary>Puts a part in the place of another: what sat on the old one goes on with the new one.</summary>
    /// <param name="componentId">The part that comes off.</param>
    /// <param name="partNumber">The new one's part number.</param>
    /// <param name="serialNumber">Its serial number.</param>
    /// <param name="on">The day.</param>
    /// <param name="why">Why.</param>
    /// <param name="by">Who replaces it.</param>
    public Refusal? Replace(Guid componentId, string partNumber, string serialNumber, DateOnly on, string why, Guid? by = null)
    {
        if (Fitting(componentId) is not { } old)
            return new("parts", "What it would take the place of is not on this aircraft.");
        if (old.Component.Kind == ComponentKind.Engine)
            return new("parts", "An engine is changed in the aircraft's file, under Parts: its cylinders and times go with it.");
        if (IsSerial(serialNumber, old.Component.SerialNumber))
            return new("parts", $"S/n {serialNumber} is the one that comes off.");
        var (kind, name, position, parent) = (old.Component.Kind, old.Component.Name, old.Position, old.ParentId);
        if (TakeOff(componentId, on, TimeInService, why, by) is { } refusal)
            return refusal with { Field = "parts" };
        var part = new Component(Guid.CreateVersion7(), kind, partNumber, serialNumber, name) { Suits = old.Component.Suits };
        Install(part, position, TimeInService, null, parent, on, by);
        foreach (var stay in CameOffWith(old).ToList())
            Install(stay.Component, stay.Position, TimeInService, stay.TimeInService(TimeInService), stay.ParentId == componentId
                ? part.Id
                : stay.ParentId, on, by);
        return null;
    }

    /// <summary>
    /// Puts the hours of a stay right where they went on file wrong, and with it those of what went on and came off together with
    /// it at the same hours. Where the part's time was carried over to its next stay, that is put right with it; whoever keeps readings
    /// counts them anew.
    /// </summary>
    /// <param name="stayId">The stay.</param>
    /// <param name="elsewhere">Every stay, on any aircraft, of this part and of those that sit on it.</param>
    /// <param name="at">The aircraft's time in service when it was fitted.</param>
    /// <param name="ownTime">The part's own time then; null where nobody knows.</param>
    /// <param name="removedAt">The aircraft's time in service when it came off; null while it is on.</param>
    public Refusal? PutRight(Guid stayId, IReadOnlyCollection<Installation> elsewhere, Hours at, Hours? ownTime, Hours? removedAt)
    {
        if (Installations.FirstOrDefault(stay => stay.Id == stayId) is not { } wrong)
            return new("stayAt", "That stay is not on this aircraft’s file.");
        if (wrong.IsOn != removedAt is null)
            return new("stayOff", wrong.IsOn
                ? "It is on: take it off with its own form."
                : "The aircraft’s time in service when it came off: 4318.6.");
        if (at > (removedAt ?? TimeInService) || removedAt > TimeInService)
            return new("stayAt", $"It comes off after it goes on, and not beyond the aircraft’s {TimeInService} h.");
        var had = ownTime is { } came ? new Hours(came.Value + Math.Max(0, (removedAt ?? TimeInService).Value - at.Value)) : (Hours?)null;
        if (had is { } hours && wrong.Component.Overhauls.Where(done => done.OwnTime > hours).MaxBy(done => done.On) is { } overhaul
            && !elsewhere.Any(stay => stay.ComponentId == wrong.ComponentId && stay.Id != wrong.Id))
            return new("stayOwn",
                $"It would have {hours} h of its own, and was overhauled at {overhaul.OwnTime} h on {overhaul.On:yyyy-MM-dd}.");
        var own = wrong.OwnTimeThen;
        var along = GoesAlong(wrong).Prepend(wrong).ToList();
        if (along.Any(stay => Installations.Any(other => other != stay && other.ComponentId == stay.ComponentId && !along.Contains(other)
            && at < (other.RemovedAt ?? TimeInService) && other.InstalledAt < (removedAt ?? TimeInService))))
            return new("stayAt", "It was here at another time too, and that would overlap. Put that one right first.");
        foreach (var stay in along)
        {
            var before = stay.TimeInService(TimeInService);
            stay.PutRight(at, stay == wrong || stay.OwnTimeThen == own ? ownTime : stay.OwnTimeThen, removedAt);
            CarryOver(stay, before, stay.TimeInService(TimeInService),
                PartHours.InTurn(elsewhere.Where(other => other.ComponentId == stay.ComponentId)));
        }
        return null;
    }

    // What a part had at the end of a stay is what it came with to the next, unless somebody said otherwise there.
    private static void CarryOver(Installation stay, Hours? before, Hours? after, IReadOnlyList<Installation> inTurn)
    {
        if (stay.IsOn || before is null || inTurn.SkipWhile(other => other.Id != stay.Id).Skip(1).FirstOrDefault() is not { } next
            || next.OwnTimeThen != before)
            return;
        var (then, now) = (next.RemovedAt is { } end ? next.TimeInService(end) : null, after);
        next.PutRight(next.InstalledAt, now, next.RemovedAt);
        CarryOver(next, then, next.RemovedAt is { } off ? next.TimeInService(off) : null, inTurn);
    }

    /// <summary>Stays that began and ended together with another, of what sat on its part.</summary>
    public IEnumerable<Installation> GoesAlong(Installation with) =>
        Installations.Where(stay => stay.InstalledAt == with.InstalledAt && stay.RemovedAt == with.RemovedAt && SatOn(stay, with));

    private bool SatOn(Installation stay, Installation under) =>
        stay.ParentId is { } parent
            && (parent == under.ComponentId || Installations.Any(between => between.ComponentId == parent && SatOn(between, under)));

    // The part that came off this place last, entered as a new one: its history would begin again, and what was judged
    // on it would count as replaced.
    private bool IsTypedAnew(Component part, string position, Guid? parent) => Installations
        .Where(stay => !stay.IsOn && stay.Component.Kind == part.Kind && stay.ParentId == parent && stay.Position == position)
        .MaxBy(stay => stay.RemovedAt!.Value.Value) is { } last
        && last.ComponentId != part.Id && IsSerial(part.SerialNumber, last.Component.SerialNumber);

    private static bool IsSerial(string typed, string plate) =>
        typed.Trim() is { Length: > 0 } serial && serial.Equals(plate.Trim(), StringComparison.OrdinalIgnoreCase);

    /// <summary>Moves a part to another aircraft, with everything that sits on it: its own time goes along.</summary>
    /// <param name="componentId">The part.</param>
    /// <param name="to">Where it goes.</param>
    /// <param name="position">Its place there.</param>
    /// <param name="on">The day.</param>
    /// <param name="why">Why it came off here.</param>
    /// <param name="by">Who moves it.</param>
    public Refusal? MoveTo(Guid componentId, Aircraft to, string position, DateOnly on, string? why, Guid? by = null)
    {
        if (Fitting(componentId) is not { } fitted)
            return new("part", "It is not on this aircraft any more.");
        if (to.Id == Id)
            return new("to", "It is on that aircraft already.");
        if (to.Installations.Any(there => there.IsOn && there.Component.Kind == fitted.Component.Kind && there.ParentId is null
            && there.Position == position && there.Component.Kind != ComponentKind.Other))
            return new("position", $"{to.Registration} has one there. Take it off first, or name another place.");
        var all = WithWhatSitsOnIt(fitted).ToList();
        if (TakeOff(componentId, on, TimeInService, why, by) is { } refusal)
            return refusal;
        foreach (var part in all)
            to.Install(part.Component, part == fitted
                ? position
                : part.Position, to.TimeInService, part.TimeInService(TimeInService), part == fitted ? null : part.ParentId, on, by);
        return null;
    }

    /// <summary>Puts back a part's stay as a file has it.</summary>
    internal void Restore(Component part, Exchange.FileStay stay)
    {
        var fitted = Install(part, stay.Position, new(stay.InstalledAt), stay.OwnTimeThen is { } own
            ? new Hours(own)
            : null, stay.On, stay.InstalledOn);
        if (stay.RemovedAt is { } off)
            fitted.End(stay.RemovedOn, new(off), stay.RemovedWhy ?? "", null);
    }

    private IEnumerable<Installation> WithWhatSitsOnIt(Installation fitted) =>
        [fitted, .. SittingOn(fitted.ComponentId).SelectMany(WithWhatSitsOnIt)];
}
