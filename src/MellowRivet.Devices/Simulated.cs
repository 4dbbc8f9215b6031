using System.Globalization;
using System.Text;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Plugs;

namespace MellowRivet.Devices;

/// <summary>A cylinder's hidden truth: how large its leak is, as multiples of the master orifice, and where.</summary>
/// <param name="HotArea">Leak of the hot engine.</param>
/// <param name="ColdArea">Leak of the cold one: rings and valves haven't taken their shape yet.</param>
/// <param name="Path">Where it leaks.</param>
/// <param name="RockedShare">What is left of the leak once the propeller was rocked: below 1 where rings seat.</param>
public sealed record HiddenCylinder(double HotArea, double ColdArea, LeakPath Path, double RockedShare = 1);

/// <summary>A compression tester on a hidden engine. The gauge's steady reading comes from Core's own flow through two orifices.</summary>
public sealed class SimulatedCompressionTester(IReadOnlyDictionary<int, HiddenCylinder> engine, Psi supply, Psi ambient)
    : ICompressionTester
{
    /// <summary>How fast the needle settles, s. The cylinder fills through the orifice; a choice of the simulation.</summary>
    private const double Settles = 0.9;

    // From here on a valve leaves its seat: each further degree opens as much of the master orifice. A choice of the simulation.
    private const double FreeDegrees = 12, AreaPerDegree = 0.09;

    // A leak smaller than this isn't heard over a hangar's noise.
    private const double Silent = 0.6;

    public Psi Supply => supply;

    public Psi Needle(int cylinder, CylinderSetUp setUp, double secondsOpen)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(secondsOpen);
        var steady = LeakArea.ReadingFor(AreaOf(cylinder, setUp), supply, ambient).Value;
        return new(steady * (1 - Math.Exp(-secondsOpen / Settles)));
    }

    public LeakPath Heard(int cylinder, CylinderSetUp setUp) =>
        Math.Abs(setUp.CrankDegrees) > FreeDegrees ? LeakPath.IntakeValve : AreaOf(cylinder, setUp) < Silent
            ? LeakPath.None
            : engine[cylinder].Path;

    public bool Swings(CylinderSetUp setUp) => Math.Abs(setUp.CrankDegrees) > 5;

    private double AreaOf(int cylinder, CylinderSetUp setUp)
    {
        if (!engine.TryGetValue(cylinder, out var hidden))
            throw new ArgumentOutOfRangeException(nameof(cylinder), cylinder, "This engine has no such cylinder.");
        return (setUp.Hot ? hidden.HotArea : hidden.ColdArea) * (setUp.Rocked ? hidden.RockedShare : 1)
            + Math.Max(0, Math.Abs(setUp.CrankDegrees) - FreeDegrees) * AreaPerDegree;
    }
}

/// <summary>A plug's hidden truth.</summary>
/// <param name="Ohms">Internal resistance, Ω; null for an open circuit.</param>
/// <param name="GapInches">Gap, in.</param>
public sealed record HiddenPlug(double? Ohms, double GapInches);

/// <summary>A resistance tester and a wire gauge on hidden plugs.</summary>
public sealed class SimulatedPlugTester(IReadOnlyDictionary<PlugHole, HiddenPlug> plugs) : IPlugTester
{
    // Such testers show tens of ohms, gauges half thousandths.
    public double? Ohms(PlugHole hole) => plugs[hole].Ohms is { } ohms ? Math.Round(ohms / 10) * 10 : null;

    public double GapInches(PlugHole hole) => Math.Round(plugs[hole].GapInches * 2_000) / 2_000;
}

/// <summary>A scale of 0.1 g steps with hidden floats.</summary>
public sealed class SimulatedFloatScale(IReadOnlyDictionary<string, double> weights) : IFloatScale
{
    public double ResolutionGrams => 0.1;

    public double Grams(params IReadOnlyList<string> floats) =>
        Math.Round(floats.Sum(name => weights[name]) / ResolutionGrams, MidpointRounding.AwayFromZero) * ResolutionGrams;
}

/// <summary>A tensiometer of whole pounds on hidden cables.</summary>
public sealed class SimulatedTensiometer(IReadOnlyDictionary<string, double> cables, double celsius) : ICableTensiometer
{
    public double Celsius => celsius;

    public double Pounds(string cable) => Math.Round(cables[cable]);
}

/// <summary>A monitor of four cylinders, one of them hidden hot. The same seed writes the same log.</summary>
public sealed class SimulatedEngineMonitor(int seed, int hotCylinder) : IEngineMonitor
{
    private const int StepSeconds = 2;

    public string Csv(int minutes)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(minutes, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(minutes, 600);
        var chance = new Random(seed);
        var text = new StringBuilder("Time,RPM,EGT1,EGT2,EGT3,EGT4,CHT1,CHT2,CHT3,CHT4,Oil temp,Oil press,Fuel flow\n");
        var rows = minutes * 60 / StepSeconds;
        for (var row = 0; row < rows; row++)
        {
            var (at, part) = (row * StepSeconds, (double)row / rows);
            var rpm = part < 0.08 || part > 0.94 ? 700 : part < 0.3 ? 2_380 : 2_250;
            var (load, warm) = (rpm / 2_400.0, 1 - Math.Exp(-at / 400.0));
            double Noise(double size) => (chance.NextDouble() * 2 - 1) * size;
            var cells = new List<double> { rpm + Noise(9) };
            cells.AddRange(Enumerable.Range(1, 4).Select(cylinder => 520 + load * 220 + cylinder * 8 + Noise(4)));
            cells.AddRange(Enumerable.Range(1, 4)
                .Select(cylinder => 40 + warm * (load * 148 + cylinder % 3 * 6 + (cylinder == hotCylinder ? 26 : 0)) + Noise(1)));
            cells.AddRange([20 + warm * 66 + Noise(0.5), 30 + load * 48 - warm * 6 + Noise(0.7), load * 38 + Noise(0.4)]);
            text.Append(TimeSpan.FromSeconds(at).ToString(@"h\:mm\:ss", CultureInfo.InvariantCulture)).Append(',')
                .AppendJoin(',', cells.Select(cell => cell.ToString("0.#", CultureInfo.InvariantCulture))).Append('\n');
        }
        return text.ToString();
    }
}
