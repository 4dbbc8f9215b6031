using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.Compression;

/// <summary>A cylinder looked into through a plug hole. Common practice; the manual decides.</summary>
public static class BorescopeSheet
{
    public static EngineSheet Of(Component cylinder) => new(SheetKind.Borescope, cylinder,
    [
        new("Through the plug hole", [],
        [
            new("exhaust-valve", "Exhaust valve: even rings of colour; a green or red wedge at its edge is burning, a lost edge is burnt"),
            new("intake-valve", "Intake valve: edge, seat, deposits that keep it open"),
            new("barrel", "Barrel: cross-hatch, rust, scratches along the way of the rings"),
            new("crown", "Piston crown: oil wash, marks of a valve, a hole beginning"),
            new("head", "Head and plug holes: cracks between valve and plug"),
        ],
            "Switches off, P-leads grounded: the propeller is turned by hand while the tip is inside. Withdraw the "
            + "tip before the piston comes."),
    ]);
}
