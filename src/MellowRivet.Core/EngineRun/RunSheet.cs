using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.EngineRun;

/// <summary>The sheet of an engine's run before the work and after it.</summary>
public static class RunSheet
{
    public static EngineSheet Of(Component engine) => new(SheetKind.Run, engine,
        [.. new[] { "before", SheetValue.After }
            .Select(when => new SheetGroup($"{char.ToUpperInvariant(when[0])}{when[1..]} the work",
                [.. RunValues.All.Select(value => value with { Position = when })],
            when == "before" ? [new("warm", "Oil at about 70 °C before the compressions")]
                : [new("leak-check", "Leak check after the run, cowling off, engine stopped")],
            when == "before"
                ? "Chocks, brakes, nobody in front or in the propeller's arc, fire guard with an extinguisher, loose things off the apron."
                : null))]);
}
