using System.Globalization;
using System.Text.RegularExpressions;

namespace MellowRivet.Core.Measures;

/// <summary>What was typed for a measure, understood.</summary>
/// <param name="Value">The value in the unit that was wanted; null where the text is empty or can't be understood.</param>
/// <param name="Understood">The value in words, where anything but a plain number stood there; null where nothing has to be said.</param>
/// <param name="Problem">What is wrong with the text; null where it was understood, and where there is none.</param>
public sealed record MeasureRead(double? Value, string? Understood = null, string? Problem = null);

/// <summary>
/// Reads a measure as hands write it: 4.7k, 1M, open, 35 ft-lb, 0.018", 18 thou, 1 1/2, a comma for a point. What could mean two
/// things is asked about and never guessed.
/// </summary>
public static partial class MeasureText
{
    /// <summary>What a circuit that is open stands in the records as, Ω: more than any meter here reads.</summary>
    public const double OpenCircuit = 1e9;

    /// <summary>More than this is no measure here.</summary>
    internal const double Most = 1e9;

    /// <summary>Reads the text.</summary>
    /// <param name="text">As typed.</param>
    /// <param name="wanted">The unit of a number without one, and of the answer.</param>
    public static MeasureRead Read(string? text, Unit wanted)
    {
        if (string.IsNullOrWhiteSpace(text))
            return new(null);
        var typed = text.Trim();
        if (wanted.Dimension == Dimension.Resistance && Open().IsMatch(typed))
            return new(OpenCircuit, "open circuit");
        if (wanted.Dimension == Dimension.Time && Clock().Match(typed) is { Success: true } clock)
            return Said(Unit.Hour.To(wanted, int.Parse(clock.Groups[1].Value, CultureInfo.InvariantCulture)
                + int.Parse(clock.Groups[2].Value, CultureInfo.InvariantCulture) / 60.0), wanted);
        var (number, rest, problem) = TypedNumber.Begin(typed);
        if (problem is not null)
            return new(null, Problem: problem);
        if (number is not { } value)
            return Asked(MeasureGrammar.NoNumber, typed, wanted);
        if (wanted.Dimension == Dimension.Pressure && Fraction().IsMatch(typed))
            return Asked(MeasureGrammar.OnePressure, typed, wanted);
        if (rest.Length == 0)
            return Math.Abs(value) > Most ? Asked(MeasureGrammar.TooMuch, typed, wanted)
                : Plain().IsMatch(typed) ? new(value) : Said(value, wanted);
        if (rest == "m" && wanted.Dimension == Dimension.Resistance)
            return Asked(MeasureGrammar.MegaOrMilli, typed, wanted, ("number", value.ToString("0.###", CultureInfo.InvariantCulture)));
        if (UnitNames.Find(rest, wanted.Dimension) is { } unit)
            return unit.To(wanted, value) is var converted && Math.Abs(converted) > Most
                ? Asked(MeasureGrammar.TooMuch, typed, wanted)
                : Said(converted, wanted);
        if (rest is "k" or "K" && wanted.Dimension is not (Dimension.Temperature or Dimension.Angle))
            return Math.Abs(value) > Most / 1_000 ? Asked(MeasureGrammar.TooMuch, typed, wanted) : Said(value * 1_000, wanted);
        return UnitNames.Of(rest) is { } other
            ? Asked(MeasureGrammar.OtherDimension, typed, wanted, ("other", MeasureGrammar.InWords(other)),
                ("wanted", MeasureGrammar.InWords(wanted.Dimension)))
            : Asked(MeasureGrammar.Unreadable, typed, wanted);
    }

    /// <summary>The value alone; null where the text is empty or can't be understood.</summary>
    public static double? Value(string? text, Unit wanted) => Read(text, wanted).Value;

    /// <summary>A value as a field shows it, to be read again as the same: "open" for an open circuit, else the plain number.</summary>
    public static string Typed(double value, Unit unit) => IsOpen(value, unit)
        ? "open"
        : value.ToString(Math.Abs(value) < 1 ? "0.######" : "0.####", CultureInfo.InvariantCulture);

    /// <summary>A value in words: "4700 Ω", "open circuit".</summary>
    public static string InWords(double value, Unit unit) => IsOpen(value, unit)
        ? "open circuit"
        : unit.After(value, Math.Abs(value) < 1 ? "0.#####" : "0.####");

    private static bool IsOpen(double value, Unit unit) =>
        unit.Dimension == Dimension.Resistance && unit.To(Unit.Ohm, value) >= OpenCircuit;

    private static MeasureRead Said(double value, Unit unit) => new(value, InWords(value, unit));

    private static MeasureRead Asked(string words, string typed, Unit wanted, params (string, object?)[] about) =>
        new(null, Problem: MeasureGrammar.Say(words, [("unit", wanted), .. about, ("typed", Short(typed))]));

    private static string Short(string typed) => typed.Length <= 24 ? typed : typed[..24] + "…";

    [GeneratedRegex(MeasureGrammar.Open, RegexOptions.CultureInvariant)]
    private static partial Regex Open();

    [GeneratedRegex(MeasureGrammar.Clock, RegexOptions.CultureInvariant)]
    private static partial Regex Clock();

    [GeneratedRegex(MeasureGrammar.Fraction, RegexOptions.CultureInvariant)]
    private static partial Regex Fraction();

    [GeneratedRegex(MeasureGrammar.Plain, RegexOptions.CultureInvariant)]
    private static partial Regex Plain();
}
