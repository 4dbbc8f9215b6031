using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Compression;

/// <summary>
/// The effective area through which a cylinder leaks, as a multiple of the tester's master orifice. The psi scale
/// is crooked (from 78 to 75 the hole grows by six tenths, from 60 to 57 by a tenth); this one is not, and it lets
/// readings at different supplies and altitudes stand beside each other.
/// </summary>
/// <remarks>
/// Steady compressible flow through two orifices in series: what the master orifice lets in (supply to cylinder)
/// leaves through the leak (cylinder to ambient), with one discharge coefficient for both and γ = 1.4. The flow is
/// choked at a pressure ratio of 0.5283 and below. Reference: isentropic mass-flow relations, as on NASA Glenn's
/// compressible mass-flow page, from memory.
/// </remarks>
public static class LeakArea
{
    private const double Gamma = 1.4;
    private static readonly double CriticalRatio = Math.Pow(2 / (Gamma + 1), Gamma / (Gamma - 1));

    /// <summary>The leak as a multiple of the master orifice: 0 where nothing leaks, infinite where nothing is held.</summary>
    /// <param name="held">What the cylinder holds, psi gauge, at most the supply.</param>
    /// <param name="supply">The regulated supply, psi gauge, above zero.</param>
    /// <param name="ambient">The air pressure around, psi absolute, above zero.</param>
    /// <exception cref="ArgumentOutOfRangeException">A reading above the supply, or no supply or ambient pressure.</exception>
    public static double MultipleOfMaster(Psi held, Psi supply, Psi ambient)
    {
        if (held > supply)
            throw new ArgumentOutOfRangeException(nameof(held), held.Value, $"A cylinder can't hold more than the supply of {supply} psi.");
        if (supply.Value == 0 || ambient.Value == 0)
            throw new ArgumentOutOfRangeException(nameof(supply), "Supply and ambient pressure are above zero.");
        if (held.Value == 0)
            return double.PositiveInfinity;

        var supplyAbsolute = supply.Value + ambient.Value;
        var cylinderAbsolute = held.Value + ambient.Value;
        return supplyAbsolute * FlowFunction(cylinderAbsolute / supplyAbsolute)
            / (cylinderAbsolute * FlowFunction(ambient.Value / cylinderAbsolute));
    }

    /// <summary>The reading at which a leak of this area would stand: the inverse of <see cref="MultipleOfMaster"/>.</summary>
    /// <param name="area">Leak area as a multiple of the master orifice, zero or more.</param>
    /// <param name="supply">The regulated supply, psi gauge.</param>
    /// <param name="ambient">The air pressure around, psi absolute.</param>
    public static Psi ReadingFor(double area, Psi supply, Psi ambient)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(area);
        // The area falls steadily as the reading rises, so halving the interval always closes in; 60 halvings exhaust a double.
        double low = 0, high = supply.Value;
        for (var halving = 0; halving < 60; halving++)
        {
            var middle = (low + high) / 2;
            if (MultipleOfMaster(new Psi(middle), supply, ambient) > area)
                low = middle;
            else
                high = middle;
        }
        return new Psi((low + high) / 2);
    }

    /// <summary>ψ(r), held at its choked value (0.6847) below the critical ratio.</summary>
    private static double FlowFunction(double ratio)
    {
        var r = Math.Max(ratio, CriticalRatio);
        return Math.Sqrt(2 * Gamma / (Gamma - 1) * (Math.Pow(r, 2 / Gamma) - Math.Pow(r, (Gamma + 1) / Gamma)));
    }
}
