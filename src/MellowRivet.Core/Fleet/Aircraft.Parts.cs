using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Fleet;

public sealed partial class Aircraft
{
    public IEnumerable<Installation> Engines => Fitted(ComponentKind.Engine);
    public IEnumerable<Installation> Propellers => Fitted(ComponentKind.Propeller);

    /// <summary>The parts of a kind that are on the aircraft now, by position.</summary>
    public IEnumerable<Installation> Fitted(ComponentKind kind) => Installations
        .Where(fitted => fitted.Component.Kind == kind && fitted.IsOn)
        .OrderBy(fitted => fitted.Position, StringComparer.Ordinal);

    /// <summary>The cylinder in a numbered place of an engine now.</summary>
    public Component? Cylinder(Component engine, int number) => Installations.FirstOrDefault(fitted =>
        fitted.Component.Kind == ComponentKind.Cylinder && fitted.ParentId == engine.Id
        && fitted.Position == number.ToString() && fitted.IsOn)?.Component;

    /// <summary>
    /// The part whose book a reading belongs to, so that a new engine begins new series: the one engine or propeller; null for the
    /// airframe, and where there are two.
    /// </summary>
    public Component? CarrierOf(Book book)
    {
        var fitted = book switch { Book.Engine => Engines, Book.Propeller => Propellers, _ => [] };
        return fitted.Take(2).ToList() is [var only] ? only.Component : null;
    }

    /// <summary>Puts a part on the aircraft.</summary>
    /// <param name="part">The part.</param>
    /// <param name="position">Where it sits; "" where there is one place.</param>
    /// <param name="at">The aircraft's time in service then.</param>
    /// <param name="ownTime">The part's own time then; null where nobody knows.</param>
    /// <param name="parent">The part it sits on; null for the airframe.</param>
    /// <param name="on">The day; null where the papers don't say.</param>
    /// <param name="by">Who puts it on; null for what is only put on file.</param>
    public Installation Install(Component part, string position, Hours at, Hours? ownTime, Guid? parent = null, DateOnly? on = null,
        Guid? by = null)
    {
        var fitted = new Installation(Id, part, parent, position, on, at, ownTime, by);
        Loaded.List(installations).Add(fitted);
        return fitted;
    }

    /// <summary>Puts on an engine with a cylinder in every place of its layout.</summary>
    public Installation InstallEngine(Component engine, string position, Hours at, Hours? ownTime, DateOnly? on = null, Guid? by = null)
    {
        var fitted = Install(engine, position, at, ownTime, null, on, by);
        foreach (var place in engine.Layout.Cylinders)
            Install(new Component(Guid.CreateVersion7(), ComponentKind.Cylinder, "", $"{engine.SerialNumber}-{place.Number}"),
                place.Number.ToString(), at, ownTime, engine.Id, on, by);
        return fitted;
    }

    /// <summary>
    /// Puts on what fires an engine's plugs: a left and a right one of a kind, or one for each row where the rows differ.
    /// </summary>
    /// <param name="engine">The engine, as fitted, with its ignition said.</param>
    /// <param name="serialPrefix">What their serial numbers begin with; null where they aren't known.</param>
    public void InstallIgnition(Installation engine, string? serialPrefix = null)
    {
        if (engine.Component.Ignition is not { } ignition)
            return;
        var (one, other) = ignition.IsMixed ? ("top row", "bottom row") : ("left", "right");
        foreach (var (position, kind) in new[] { (one, ignition.Top), (other, ignition.Bottom) })
            Install(new(Guid.CreateVersion7(), kind == IgnitionKind.Magneto
                ? ComponentKind.Magneto
                : ComponentKind.ElectronicIgnition, "", serialPrefix is null ? "" : $"{serialPrefix}-{position[0]}"),
                position, engine.InstalledAt, serialPrefix is null ? null : engine.OwnTimeThen, engine.ComponentId, engine.InstalledOn);
    }

    /// <summary>Puts a plug of a kind into every hole of an engine that has none.</summary>
    /// <param name="engine">The engine.</param>
    /// <param name="type">The plugs' type, as printed on them.</param>
    /// <param name="numberFrom">The first plug's number; each further one counts on.</param>
    /// <param name="at">The aircraft's time in service.</param>
    /// <param name="ownTime">Their own time then; null where nobody knows.</param>
    /// <param name="row">Only this row; null for both.</param>
    /// <param name="on">The day.</param>
    public void InstallPlugs(Component engine, string type, int numberFrom, Hours at, Hours? ownTime, PlugRow? row = null,
        DateOnly? on = null)
    {
        foreach (var hole in PlugTray.Holes(engine).Where(hole => row is null || hole.Row == row))
            if (!SittingOn(engine.Id, ComponentKind.Plug).Any(stay => stay.Position == hole.ToString()))
                Install(new(Guid.CreateVersion7(), ComponentKind.Plug, type, $"{numberFrom++}")
                    { Suits = hole.Row == PlugRow.Top ? engine.Ignition?.Top : engine.Ignition?.Bottom },
                    hole.ToString(), at, ownTime, engine.Id, on);
    }

    /// <summary>The stay of a part that is on the aircraft now; null where it isn't.</summary>
    public Installation? Fitting(Guid componentId) =>
        Installations.FirstOrDefault(fitted => fitted.ComponentId == componentId && fitted.IsOn);

    /// <summary>
    /// The engine or propeller that a part is, or sits on, or sat on when it came off; null where it hangs on the airframe.
    /// </summary>
    public Installation? CarriedBy(Guid? componentId)
    {
        if ((componentId is { } part ? LastStay(part) : null) is not { } stay)
            return null;
        return stay.Component.Kind is ComponentKind.Engine or ComponentKind.Propeller ? stay : CarriedBy(stay.ParentId);
    }

    /// <summary>What sits now where a part sat that came off; null where nothing does, or where it is on itself.</summary>
    public Component? InPlaceOf(Guid componentId) => Fitting(componentId) is null && LastStay(componentId) is { } was
        ? Installations.FirstOrDefault(stay => stay.IsOn && stay.Component.Kind == was.Component.Kind && stay.ParentId == was.ParentId
            && stay.Position == was.Position)?.Component
        : null;

    /// <summary>Where a part is, or was last; null where it never was on this aircraft.</summary>
    public Installation? LastStay(Guid componentId) =>
        Fitting(componentId) ?? Installations.Where(stay => stay.ComponentId == componentId).MaxBy(stay => stay.InstalledAt.Value);

    /// <summary>Where a part sits, in words, with the engine it sits on where there are two: "left, right engine".</summary>
    public string PlaceOf(Installation stay)
    {
        var under = Installations.FirstOrDefault(other => other.IsOn && other.ComponentId == stay.ParentId);
        return string.Join(", ",
            new[] { stay.Position, under is { Position.Length: > 0 } ? $"{under.Position} {under.Component.Title}" : "" }
                .Where(words => words.Length > 0));
    }

    /// <summary>What sits on a part now, directly.</summary>
    public IEnumerable<Installation> SittingOn(Guid? componentId) => Installations
        .Where(fitted => fitted.IsOn && fitted.ParentId == componentId)
        .OrderBy(fitted => fitted.Component.Kind).ThenBy(fitted => fitted.Position, StringComparer.Ordinal);

    /// <summary>Parts of one kind that sit on a part, or sat there before.</summary>
    public IReadOnlySet<Guid> EverOn(Guid componentId, ComponentKind kind) => Installations
        .Where(stay => stay.Component.Kind == kind && stay.ParentId == componentId).Select(stay => stay.ComponentId).ToHashSet();

    /// <summary>Whether a part sat on another one, and came off it at some hours or later.</summary>
    public bool WasOn(Guid parent, Guid part, Hours since) => Installations.Any(stay => stay.ComponentId == part && stay.ParentId == parent
        && !stay.IsOn && stay.RemovedAt >= since);

    /// <summary>Those of one kind.</summary>
    public IEnumerable<Installation> SittingOn(Guid? componentId, ComponentKind kind) =>
        SittingOn(componentId).Where(fitted => fitted.Component.Kind == kind);

    /// <summary>What came off together with a part at the end of a stay here: all that sat on it, and on that in turn.</summary>
    public IReadOnlyList<Installation> CameOffWith(Installation ended) => [.. Installations
        .Where(stay => stay.ParentId == ended.ComponentId && stay.RemovedAt == ended.RemovedAt && stay.RemovedWhy == ended.RemovedWhy
            && !stay.IsOn)
        .SelectMany(stay => CameOffWith(stay).Prepend(stay))];
}
