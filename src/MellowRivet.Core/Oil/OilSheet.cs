using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Oil;

/// <summary>The sheet of an engine's oil: what was added, what the filter showed, what a laboratory read.</summary>
public static class OilSheet
{
    public static EngineSheet Of(Component engine) => new(SheetKind.Oil, engine,
    [
        new("Oil", [new("oil-added", "", "Added since the last time", SheetValue.NoLimit(Unit.Litre), StandsAlone: false),
            new("oil-hours", "", "Hours on this oil", SheetValue.NoLimit(Unit.Hour), StandsAlone: false)],
            [new("filter", "Filter cut open, or screen out: spread out and looked at in good light"),
                new("magnetic-plug", "Magnetic plug: looked at before it was wiped")],
            "Warm oil burns. Catch it; wear gloves: used oil harms the skin."),
        new("Laboratory",
            [.. OilMetals.All.Select(
                metal => new SheetValue(metal.Kind, "", metal.Name, SheetValue.NoLimit(Unit.PartsPerMillion), StandsAlone: false))], []),
    ]);
}
