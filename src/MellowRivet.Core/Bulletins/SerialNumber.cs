using System.Diagnostics.CodeAnalysis;

namespace MellowRivet.Core.Bulletins;

/// <summary>
/// A serial number as makers stamp and bulletins print it: runs of letters and of figures. Figures compare by their number, so
/// that A-9 comes before A-10 and leading zeros make no difference; letters by the alphabet, whatever their case; what stands
/// between (dash, space, dot, slash) only parts them. Two that differ in nothing else are the same serial.
/// </summary>
public sealed class SerialNumber : IComparable<SerialNumber>, IEquatable<SerialNumber>
{
    /// <summary>Longest serial number taken, in characters.</summary>
    public const int Longest = 40;

    private readonly Run[] runs;

    private SerialNumber(string text, Run[] runs) => (Text, this.runs) = (text, runs);

    /// <summary>As it was written.</summary>
    public string Text { get; }

    /// <summary>All that stands before the last figures: the series. "E" of "E-10021", nothing of "10021".</summary>
    public SerialNumber Series => Cut(LastFigures < 0 ? runs.Length : LastFigures);

    /// <summary>It has no letters or figures before its last figures.</summary>
    public bool IsBare => LastFigures == 0;

    /// <summary>The last figures as a number, for drawing; null where there are none, or more than a drawing can tell apart.</summary>
    public double? Figure =>
        LastFigures >= 0 && runs[LastFigures].Text.Length <= 15
            ? double.Parse(runs[LastFigures].Text, System.Globalization.CultureInfo.InvariantCulture)
            : null;

    private int LastFigures => Array.FindLastIndex(runs, run => run.IsFigures);

    /// <summary>Reads a serial number; null where it has no letter and no figure, or is too long.</summary>
    public static SerialNumber? Read(string? text)
    {
        var trimmed = text?.Trim() ?? "";
        if (trimmed.Length is 0 or > Longest)
            return null;
        List<Run> runs = [];
        for (var at = 0; at < trimmed.Length;)
        {
            if (!char.IsAsciiLetterOrDigit(trimmed[at]))
            {
                at++;
                continue;
            }
            var figures = char.IsAsciiDigit(trimmed[at]);
            var end = at;
            while (end < trimmed.Length && (figures ? char.IsAsciiDigit(trimmed[end]) : char.IsAsciiLetter(trimmed[end])))
                end++;
            var run = trimmed[at..end];
            runs.Add(new(figures, figures ? run.TrimStart('0') is { Length: > 0 } number ? number : "0" : run.ToUpperInvariant()));
            at = end;
        }
        return runs.Count == 0 ? null : new(trimmed, [.. runs]);
    }

    /// <summary>Whether it belongs to a series: begins with it.</summary>
    public bool IsOf(SerialNumber series) => runs.AsSpan().StartsWith(series.runs);

    /// <summary>The same without what stands before its last figures.</summary>
    public SerialNumber Bare => LastFigures <= 0 ? this : new(Text, runs[LastFigures..]);

    public int CompareTo(SerialNumber? other)
    {
        if (other is null)
            return 1;
        for (var index = 0; index < Math.Min(runs.Length, other.runs.Length); index++)
            if (runs[index].CompareTo(other.runs[index]) is var order and not 0)
                return order;
        return runs.Length.CompareTo(other.runs.Length);
    }

    public bool Equals([NotNullWhen(true)] SerialNumber? other) => other is not null && runs.AsSpan().SequenceEqual(other.runs);

    public override bool Equals(object? obj) => obj is SerialNumber other && Equals(other);

    public override int GetHashCode() => runs.Aggregate(17, HashCode.Combine);

    public override string ToString() => Text;

    public static bool operator ==(SerialNumber? left, SerialNumber? right) => left is null ? right is null : left.Equals(right);

    public static bool operator !=(SerialNumber? left, SerialNumber? right) => !(left == right);

    public static bool operator <(SerialNumber left, SerialNumber right) => left.CompareTo(right) < 0;

    public static bool operator <=(SerialNumber left, SerialNumber right) => left.CompareTo(right) <= 0;

    public static bool operator >(SerialNumber left, SerialNumber right) => left.CompareTo(right) > 0;

    public static bool operator >=(SerialNumber left, SerialNumber right) => left.CompareTo(right) >= 0;

    private SerialNumber Cut(int length) => new(Text, runs[..length]);

    // Figures are kept without leading zeros: the longer is the larger, and of one length the text decides.
    private readonly record struct Run(bool IsFigures, string Text) : IComparable<Run>
    {
        public int CompareTo(Run other) => IsFigures != other.IsFigures
            ? IsFigures ? -1 : 1
            : IsFigures && Text.Length != other.Text.Length
            ? Text.Length.CompareTo(other.Text.Length)
            : string.CompareOrdinal(Text, other.Text);
    }
}
