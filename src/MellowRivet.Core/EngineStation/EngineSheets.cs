using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Magnetos;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;

namespace MellowRivet.Core.EngineStation;

/// <summary>The sheets that an engine has, from what it is built of; each stands in the folder of what it is about.</summary>
public static class EngineSheets
{
    /// <summary>Every sheet of an engine: one for each magneto and carburettor, then oil, exhaust and the run.</summary>
    public static IEnumerable<EngineSheet> Of(Aircraft aircraft, Component engine) =>
    [
        .. aircraft.SittingOn(engine.Id, ComponentKind.Magneto).Select(stay => MagnetoSheet.Of(stay.Component)),
        .. aircraft.SittingOn(engine.Id, ComponentKind.Carburettor).Select(stay => CarburettorSheet.Of(stay.Component)),
        OilSheet.Of(engine), ExhaustSheet.Of(aircraft, engine), RunSheet.Of(engine),
    ];

    /// <summary>A sheet of an engine by the part it is about: those in the list, and a cylinder's looks through the borescope.</summary>
    public static EngineSheet? Find(Aircraft aircraft, Component engine, SheetKind kind, Guid carrier) => Of(aircraft, engine)
        .Concat(aircraft.SittingOn(engine.Id, ComponentKind.Cylinder).Select(stay => BorescopeSheet.Of(stay.Component)))
        .FirstOrDefault(sheet => sheet.Kind == kind && sheet.Carrier.Id == carrier);

    /// <summary>
    /// A sheet of a part that came off an aircraft, at some hours or later: what was read on it before is still its own. Null for none.
    /// </summary>
    public static EngineSheet? FindGone(Aircraft aircraft, SheetKind kind, Guid carrier, Hours since) => aircraft.Installations
        .Where(stay => stay.ComponentId == carrier && !stay.IsOn && stay.RemovedAt >= since)
        .Select(stay => (kind, stay.Component.Kind) switch
        {
            (SheetKind.Magneto, ComponentKind.Magneto) => MagnetoSheet.Of(stay.Component),
            (SheetKind.Carburettor, ComponentKind.Carburettor) => CarburettorSheet.Of(stay.Component),
            (SheetKind.Borescope, ComponentKind.Cylinder) => BorescopeSheet.Of(stay.Component),
            (_, ComponentKind.Engine) => Of(aircraft, stay.Component).FirstOrDefault(sheet => sheet.Kind == kind),
            _ => null,
        }).FirstOrDefault(sheet => sheet is not null);
}
