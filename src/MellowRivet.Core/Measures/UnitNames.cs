using System.Collections.Frozen;

namespace MellowRivet.Core.Measures;

/// <summary>What hands write for a unit: signs that keyboards lack, long forms, and units that are read but never shown.</summary>
internal static class UnitNames
{
    // Units that people read off an instrument and the product keeps in another. Factors are exact (NIST SP 811, from memory).
    private static readonly Unit Foot = new("ft", Dimension.Length, 0.3048);
    private static readonly Unit Metre = new("m", Dimension.Length, 1);
    private static readonly Unit Centimetre = new("cm", Dimension.Length, 0.01);
    private static readonly Unit Micrometre = new("µm", Dimension.Length, 0.000_001);
    private static readonly Unit Kilohm = new("kΩ", Dimension.Resistance, 1_000);
    private static readonly Unit Megohm = new("MΩ", Dimension.Resistance, 1_000_000);
    private static readonly Unit Milliohm = new("mΩ", Dimension.Resistance, 0.001);
    private static readonly Unit Hectopascal = new("hPa", Dimension.Pressure, 100);
    private static readonly Unit Minute = new("min", Dimension.Time, 60);
    private static readonly Unit KilogramForce = new("kgf", Dimension.Force, 9.80665);
    private static readonly Unit Dekanewton = new("daN", Dimension.Force, 10);
    private static readonly Unit Nanofarad = new("nF", Dimension.Capacitance, 0.000_000_001);
    private static readonly Unit Millivolt = new("mV", Dimension.Voltage, 0.001);
    private static readonly Unit Kilogram = new("kg", Dimension.Mass, 1);
    private static readonly Unit Ounce = new("oz", Dimension.Mass, 0.028_349_523_125);
    private static readonly Unit Millilitre = new("ml", Dimension.Volume, 0.000_001);
    private static readonly Unit Gallon = new("gal", Dimension.Volume, 231 * 0.0254 * 0.0254 * 0.0254);
    private static readonly Unit Percent = new("%", Dimension.Share, 0.01);

    private static readonly (Unit Unit, string Names)[] Written =
    [
        (Unit.Psi, "psi psig psia lb/in2 lb/in²"), (Unit.Kilopascal, "kpa"), (Unit.Bar, "bar bars"), (Hectopascal, "hpa mbar"),
        (Unit.InchOfMercury, "inhg in-hg \"hg"),
        (Unit.Inch, "in inch inches \" ''"), (Unit.Millimetre, "mm"), (Unit.Thou, "thou thousandth thousandths mil mils"),
        (Foot, "ft foot feet"), (Metre, "m"), (Centimetre, "cm"), (Micrometre, "µm um"),
        (Unit.Ohm, "ω ohm ohms r"), (Kilohm, "kω kohm kohms k"), (Megohm, "Mω Mohm Mohms M meg megohm megohms megω"),
        (Milliohm, "mω mohm mohms"),
        (Unit.InchPound, "in-lb inlb in-lbs inlbs lb-in lbf-in in-lbf inch-pound inch-pounds"),
        (Unit.FootPound, "ft-lb ftlb ft-lbs ftlbs lb-ft lbft lbf-ft ft-lbf foot-pound foot-pounds"),
        (Unit.NewtonMetre, "nm n-m newton-metre newton-metres newton-meter newton-meters"),
        (Unit.Celsius, "°c c celsius degc deg-c"), (Unit.Fahrenheit, "°f f fahrenheit degf deg-f"),
        (Unit.Hour, "h hr hrs hour hours"), (Minute, "min mins minutes"), (Unit.Second, "s sec secs seconds"),
        (Unit.Pound, "lb lbs lbf pound pounds"), (Unit.Newton, "n newton newtons"), (KilogramForce, "kgf kp kg"), (Dekanewton, "dan"),
        (Unit.Rpm, "rpm r/min 1/min"), (Unit.Volt, "v volt volts"), (Millivolt, "mv"), (Unit.Degree, "° deg degs degree degrees"),
        (Unit.SquareMillimetre, "mm² mm2"), (Unit.SquareInch, "in² in2 sq-in"),
        (Unit.Microfarad, "µf uf mfd"), (Nanofarad, "nf"), (Unit.Gram, "g gram grams"), (Kilogram, "kg"), (Ounce, "oz ounce ounces"),
        (Unit.Litre, "l ltr litre litres liter liters"), (Millilitre, "ml cc cm3"), (Unit.Quart, "qt qts quart quarts"),
        (Gallon, "gal gallon gallons"), (Unit.PartsPerMillion, "ppm"), (Percent, "%"),
    ];

    /// <summary>Every unit that is read, with its names.</summary>
    public static IReadOnlyList<WrittenUnit> All { get; } = [.. Written
        .Select(one => new WrittenUnit(one.Unit.Symbol, one.Unit.Dimension, one.Unit.Factor, one.Unit.Offset, one.Names.Split(' ')))];

    // In front of an ohm, M and m are a factor of a thousand million apart: there the letter's size counts.
    private static readonly FrozenDictionary<string, Unit[]> ByName = Written
        .SelectMany(one => one.Names.Split(' ').Select(name => (name, one.Unit)))
        .GroupBy(one => one.name).ToFrozenDictionary(group => group.Key, group => group.Select(one => one.Unit).ToArray());

    /// <summary>The unit somebody means who wants this dimension; null where the name is none of it.</summary>
    public static Unit? Find(string written, Dimension dimension) =>
        Called(written).FirstOrDefault(unit => unit.Dimension == dimension);

    /// <summary>What the name measures; null where it is no unit's.</summary>
    public static Dimension? Of(string written) => Called(written).FirstOrDefault()?.Dimension;

    private static Unit[] Called(string written)
    {
        var name = string.Join('-', string.Concat(written
                .Select(letter => letter switch { 'μ' => 'µ', '·' or '*' or ' ' or '.' => '-', '”' or '″' => '"', _ => letter }))
            .Split('-', StringSplitOptions.RemoveEmptyEntries));
        // "M" stays large where it makes a megohm; everything else reads alike in either case.
        var folded = name.ToLowerInvariant();
        return (name.StartsWith('M') ? ByName.GetValueOrDefault('M' + folded[1..]) : null) ?? ByName.GetValueOrDefault(folded) ?? [];
    }
}
