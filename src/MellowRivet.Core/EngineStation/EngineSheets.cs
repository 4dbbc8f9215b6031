using MellowRivet.Core.Carburettors;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Exhaust;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Magnetos;
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
}
