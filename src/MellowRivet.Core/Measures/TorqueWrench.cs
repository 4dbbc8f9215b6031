namespace MellowRivet.Core.Measures;

/// <summary>What a torque wrench is set to when something lengthens it.</summary>
public static class TorqueWrench
{
    /// <summary>
    /// The setting with an extension in line with the wrench: set = wanted × L ÷ (L + E). An extension at a right angle to the
    /// wrench changes nothing.
    /// </summary>
    /// <param name="wanted">The torque at the fastener, in any unit of torque; the setting comes in the same.</param>
    /// <param name="length">L, from the middle of the handle to the middle of the square drive, above zero.</param>
    /// <param name="extension">E, from the square drive to the fastener, zero or more, in the unit of L.</param>
    /// <exception cref="ArgumentOutOfRangeException">A length that no wrench has.</exception>
    /// <remarks>AC 43.13-1B figure 7-2, from memory.</remarks>
    public static double Setting(double wanted, double length, double extension)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(length);
        ArgumentOutOfRangeException.ThrowIfNegative(extension);
        return wanted * length / (length + extension);
    }
}
