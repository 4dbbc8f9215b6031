using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Compression;

/// <summary>Where the air was heard to leave the cylinder.</summary>
public enum LeakPath { None = 1, ExhaustValve, IntakeValve, Rings, HeadGasket, Crack }

/// <summary>What one cylinder held and where it leaked.</summary>
/// <param name="Cylinder">The cylinder's number on this engine.</param>
/// <param name="Held">What the second gauge showed, psi gauge.</param>
/// <param name="Leak">Where it leaked, everywhere that air was heard.</param>
/// <param name="SecondTry">True where this is a further try after a low hot one of the same test, with the propeller rocked.</param>
public sealed record CompressionReading(int Cylinder, Psi Held, Leaks Leak = default, bool SecondTry = false);

/// <summary>How a test was made.</summary>
/// <param name="Supply">Regulated supply, psi gauge.</param>
/// <param name="Ambient">Air pressure around, psi absolute.</param>
/// <param name="Hot">True within an hour of running with the oil at about 70 °C.</param>
/// <param name="DayOrifice">What the tester's master orifice read today, psi gauge; null where it wasn't taken.</param>
public sealed record TestConditions(Psi Supply, Psi Ambient, bool Hot, Psi? DayOrifice = null)
{
    /// <summary>80 psi, sea level, hot.</summary>
    public static TestConditions Usual { get; } = new(new Psi(80), Psi.StandardAmbient, Hot: true);
}

/// <summary>Words for where a leak is heard, for people and for judgements.</summary>
public static class LeakPaths
{
    /// <summary>Where to listen, and what it means: "exhaust pipe → exhaust valve". Common practice.</summary>
    public static string Heard(this LeakPath path) => path switch
    {
        LeakPath.None => "no leak heard",
        LeakPath.ExhaustValve => "exhaust pipe: exhaust valve",
        LeakPath.IntakeValve => "air filter: intake valve",
        LeakPath.Rings => "oil filler or breather: rings",
        LeakPath.HeadGasket => "bubbles in the coolant: head gasket",
        _ => "plug hole or head: crack",
    };

    /// <summary>The short name that fits on a cylinder.</summary>
    public static string Short(this LeakPath path) => path switch
    {
        LeakPath.None => "no leak heard",
        LeakPath.ExhaustValve => "exhaust valve",
        LeakPath.IntakeValve => "intake valve",
        LeakPath.Rings => "rings",
        LeakPath.HeadGasket => "head gasket",
        _ => "crack",
    };
}
