using MellowRivet.Core.Fleet;

namespace MellowRivet.Core.EngineStation;

/// <summary>What an engine takes when its top end is gone over, counted from its layout. Common practice; the parts book decides.</summary>
public sealed record GasketKit(int PlugGaskets, int IntakeGaskets, int ExhaustGaskets, double DrainBackHoseInches)
{
    // Two plugs and so two gaskets a cylinder; one gasket at each intake and exhaust flange; 2.5 in of drain-back hose a cylinder.
    public static GasketKit Of(EngineLayout layout)
    {
        var cylinders = layout.Cylinders.Count;
        return new(2 * cylinders, cylinders, cylinders, 2.5 * cylinders);
    }
}
