using MellowRivet.Core.Compression;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Devices;

/// <summary>How the engine stands while a cylinder is tested.</summary>
/// <param name="Hot">Within an hour of running, oil at about 70 °C.</param>
/// <param name="CrankDegrees">How far the crank is past top dead centre on the compression stroke, ° of the crank; 0 at it.</param>
/// <param name="Rocked">The propeller was rocked through top dead centre to seat the rings.</param>
public sealed record CylinderSetUp(bool Hot, double CrankDegrees = 0, bool Rocked = false);

/// <summary>A differential compression tester: two gauges and a master orifice between them.</summary>
public interface ICompressionTester
{
    /// <summary>What the regulator is set to.</summary>
    Psi Supply { get; }

    /// <summary>What the second gauge shows some seconds after the valve was opened.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The engine has no such cylinder.</exception>
    Psi Needle(int cylinder, CylinderSetUp setUp, double secondsOpen);

    /// <summary>Where air is heard to leave.</summary>
    LeakPath Heard(int cylinder, CylinderSetUp setUp);

    /// <summary>The crank is far enough off that the air turns the propeller.</summary>
    bool Swings(CylinderSetUp setUp);
}

/// <summary>A resistance tester for plugs.</summary>
public interface IPlugTester
{
    /// <summary>The internal resistance, Ω; null for an open circuit.</summary>
    double? Ohms(PlugHole hole);

    /// <summary>The gap as a wire gauge goes in, in.</summary>
    double GapInches(PlugHole hole);
}

/// <summary>A scale for floats.</summary>
public interface IFloatScale
{
    /// <summary>Its step, g.</summary>
    double ResolutionGrams { get; }

    /// <summary>What it shows with these floats on it, g.</summary>
    double Grams(params IReadOnlyList<string> floats);
}

/// <summary>A cable tensiometer, read beside a thermometer.</summary>
public interface ICableTensiometer
{
    double Pounds(string cable);

    double Celsius { get; }
}

/// <summary>An engine monitor that writes a log.</summary>
public interface IEngineMonitor
{
    /// <summary>The log of one run as CSV, as such an instrument writes it.</summary>
    string Csv(int minutes);
}
