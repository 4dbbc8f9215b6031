namespace MellowRivet.Core.Measures;

/// <summary>Time in service in hours, to the tenth that a recording tach shows or finer. Never negative, below a million.</summary>
public readonly record struct Hours : IComparable<Hours>
{
    public decimal Value { get; }

    /// <exception cref="ArgumentOutOfRangeException">Negative, or a million and more.</exception>
    public Hours(decimal value) =>
        Value = value is >= 0 and < 1_000_000
            ? value
            : throw new ArgumentOutOfRangeException(nameof(value), value, "Time in service is zero or more, and below a million hours.");

    public int CompareTo(Hours other) => Value.CompareTo(other.Value);

    public static bool operator <(Hours left, Hours right) => left.Value < right.Value;
    public static bool operator >(Hours left, Hours right) => left.Value > right.Value;
    public static bool operator <=(Hours left, Hours right) => left.Value <= right.Value;
    public static bool operator >=(Hours left, Hours right) => left.Value >= right.Value;

    /// <summary>One decimal, no thousands separator, no unit: "4318.6".</summary>
    public override string ToString() => Value.ToString("0.0");
}
