namespace MellowRivet.Core.Measures;

/// <summary>What a unit measures. Values convert only within one dimension.</summary>
public enum Dimension { Pressure = 1, Length, Resistance, Torque, Temperature, Time, Force, RotationalSpeed, Voltage, Angle, Area,
Capacitance, Mass, Volume, Share }

/// <summary>
/// A unit of the bench, with its exact relation to the SI unit of its dimension:
/// SI value = (value + <see cref="Offset"/>) × <see cref="Factor"/>.
/// </summary>
/// <remarks>
/// Factors are exact definitions or products of them: 1 in = 0.0254 m, 1 lbf = 4.4482216152605 N
/// (NIST SP 811, from memory). Degrees Fahrenheit have their zero 459.67 below absolute.
/// </remarks>
public sealed record Unit(string Symbol, Dimension Dimension, double Factor, double Offset = 0)
{
    private const double MetresPerInch = 0.0254;
    private const double NewtonsPerPound = 4.4482216152605;

    public static readonly Unit Psi = new("psi", Dimension.Pressure, NewtonsPerPound / (MetresPerInch * MetresPerInch));
    public static readonly Unit Kilopascal = new("kPa", Dimension.Pressure, 1_000);
    public static readonly Unit Bar = new("bar", Dimension.Pressure, 100_000);
    public static readonly Unit Inch = new("in", Dimension.Length, MetresPerInch);
    public static readonly Unit Millimetre = new("mm", Dimension.Length, 0.001);
    public static readonly Unit Ohm = new("Ω", Dimension.Resistance, 1);
    public static readonly Unit InchPound = new("in-lb", Dimension.Torque, NewtonsPerPound * MetresPerInch);
    public static readonly Unit FootPound = new("ft-lb", Dimension.Torque, NewtonsPerPound * MetresPerInch * 12);
    public static readonly Unit NewtonMetre = new("N·m", Dimension.Torque, 1);
    public static readonly Unit Celsius = new("°C", Dimension.Temperature, 1, 273.15);
    public static readonly Unit Fahrenheit = new("°F", Dimension.Temperature, 5.0 / 9.0, 459.67);
    public static readonly Unit Hour = new("h", Dimension.Time, 3_600);
    public static readonly Unit Second = new("s", Dimension.Time, 1);
    public static readonly Unit Pound = new("lb", Dimension.Force, NewtonsPerPound);
    public static readonly Unit Newton = new("N", Dimension.Force, 1);
    public static readonly Unit Rpm = new("rpm", Dimension.RotationalSpeed, 1.0 / 60);
    public static readonly Unit Volt = new("V", Dimension.Voltage, 1);
    public static readonly Unit Degree = new("°", Dimension.Angle, Math.PI / 180);

    public static readonly Unit SquareMillimetre = new("mm²", Dimension.Area, 0.000_001);
    public static readonly Unit SquareInch = new("in²", Dimension.Area, MetresPerInch * MetresPerInch);

    /// <summary>An inch of mercury at 0 °C (NIST SP 811, from memory).</summary>
    public static readonly Unit InchOfMercury = new("inHg", Dimension.Pressure, 3_386.389);
    public static readonly Unit PartsPerMillion = new("ppm", Dimension.Share, 0.000_001);
    public static readonly Unit Microfarad = new("µF", Dimension.Capacitance, 0.000_001);
    public static readonly Unit Gram = new("g", Dimension.Mass, 0.001);

    public static readonly Unit Litre = new("l", Dimension.Volume, 0.001);

    /// <summary>A US liquid quart, 57.75 cubic inches.</summary>
    public static readonly Unit Quart = new("qt", Dimension.Volume, 57.75 * MetresPerInch * MetresPerInch * MetresPerInch);

    /// <summary>A thousandth of an inch, as play is spoken of.</summary>
    public static readonly Unit Thou = new("thou", Dimension.Length, MetresPerInch / 1_000);

    /// <summary>What it measures may be read below zero: a temperature, or an angle.</summary>
    public bool GoesBelowZero => Dimension is Dimension.Temperature or Dimension.Angle;

    /// <summary>Every unit the product knows.</summary>
    public static IReadOnlyList<Unit> All { get; } =
    [
        Psi, Kilopascal, Bar, Inch, Millimetre, Ohm, InchPound, FootPound, NewtonMetre,
        Celsius, Fahrenheit, Hour, Second, Pound, Newton, Rpm, Volt, Degree, Thou, SquareMillimetre, SquareInch, Microfarad, Gram, Litre,
        Quart, InchOfMercury, PartsPerMillion,
    ];

    /// <summary>A value with the unit behind it: "12.4 V", and "14°" without a space (SI brochure 5.4.3, from memory).</summary>
    public string After(double value, string format) => $"{value.ToString(format)}{(Symbol == "°" ? "" : " ")}{Symbol}";

    /// <summary>The unit with this symbol, or null. "Nm" and "ohm" are taken for N·m and Ω, as keyboards lack them.</summary>
    public static Unit? Find(string? symbol)
    {
        var wanted = symbol?.Trim() switch
        {
            "Nm" or "N.m" or "N m" => "N·m",
            "ohm" or "ohms" => "Ω",
            "uF" => "µF",
            "C" => "°C",
            "F" => "°F",
            var other => other,
        };
        return All.FirstOrDefault(unit => string.Equals(unit.Symbol, wanted, StringComparison.OrdinalIgnoreCase));
    }

    /// <summary>Converts a value of this unit to another of the same dimension; to itself it stays as it is, to the last bit.</summary>
    /// <exception cref="ArgumentException">The other unit measures something else.</exception>
    public double To(Unit other, double value) => other.Symbol == Symbol ? value : other.Dimension == Dimension
        ? (value + Offset) * Factor / other.Factor - other.Offset
        : throw new ArgumentException($"{Symbol} measures {Dimension}, {other.Symbol} measures {other.Dimension}.", nameof(other));

    /// <summary>The units a value of this unit can also be typed in, this one first.</summary>
    public IEnumerable<Unit> Alternatives => All.Where(unit => unit.Dimension == Dimension).OrderByDescending(unit => unit == this);

    public override string ToString() => Symbol;
}
