namespace MellowRivet.Core.Measures;

/// <summary>Pressure in pounds per square inch, gauge unless a parameter says absolute. Never negative, never NaN.</summary>
public readonly record struct Psi : IComparable<Psi>
{
    public double Value { get; }

    /// <exception cref="ArgumentOutOfRangeException">Negative, infinite or not a number.</exception>
    public Psi(double value) =>
        Value = double.IsFinite(value) && value >= 0
            ? value
            : throw new ArgumentOutOfRangeException(nameof(value), value, "A pressure is zero or more.");

    /// <summary>Sea-level standard pressure, 14.696 psi absolute, as the trade rounds it.</summary>
    public static Psi StandardAmbient { get; } = new(14.7);

    public int CompareTo(Psi other) => Value.CompareTo(other.Value);

    public static bool operator <(Psi left, Psi right) => left.Value < right.Value;
    public static bool operator >(Psi left, Psi right) => left.Value > right.Value;
    public static bool operator <=(Psi left, Psi right) => left.Value <= right.Value;
    public static bool operator >=(Psi left, Psi right) => left.Value >= right.Value;

    public override string ToString() => Value.ToString("0.##");
}
