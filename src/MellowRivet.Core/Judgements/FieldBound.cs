using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Judgements;

/// <summary>A value that a field doesn't take, whatever it would be judged.</summary>
/// <param name="Than">Which side of the limit isn't taken.</param>
/// <param name="Limit">The limit.</param>
/// <param name="Words">What is said: {typed} is what stands in the field, {value} the number, {unit} the unit it is wanted in.</param>
/// <param name="In">The unit of the limit; null for the unit in which it is typed.</param>
public sealed record FieldBound(Than Than, double Limit, string Words, Unit? In = null)
{
    /// <summary>What the first of these says that a value is refused by; null for one that is taken.</summary>
    /// <param name="bounds">The field's bounds, in the order in which they are asked.</param>
    /// <param name="field">The field.</param>
    /// <param name="typed">What stands in it.</param>
    /// <param name="value">The value, in the unit it is typed in.</param>
    /// <param name="unit">That unit.</param>
    /// <param name="wanted">The unit of the field's limits.</param>
    public static Refusal? First(IEnumerable<FieldBound> bounds, string field, string? typed, double value, Unit unit, Unit wanted) =>
        bounds.FirstOrDefault(bound => bound.Refuses(bound.In is { } other ? unit.To(other, value) : value)) is { } hit
            ? new(field, MeasureGrammar.Say(hit.Words, ("unit", wanted),
                ("value", value.ToString("0.##", System.Globalization.CultureInfo.InvariantCulture)), ("typed", typed?.Trim())))
            : null;

    private bool Refuses(double value) => Than switch
    {
        Than.Below => value < Limit,
        Than.AtMost => value <= Limit,
        Than.Above => value > Limit,
        _ => value >= Limit,
    };
}
