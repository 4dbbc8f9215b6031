using System.Text.RegularExpressions;

namespace MellowRivet.Core.Bulletins;

/// <summary>Whether a serial number is on a list. In doubt where the list or the plate seems to leave a prefix out.</summary>
public enum SerialMatch { Out = 1, Doubtful, In }

/// <summary>One stretch of serial numbers.</summary>
/// <param name="From">The first; null for an open beginning.</param>
/// <param name="To">The last; null for an open end.</param>
/// <param name="Series">The series it keeps to, where an end is open; null for all numbers.</param>
public sealed record SerialSpan(SerialNumber? From, SerialNumber? To, SerialNumber? Series = null)
{
    public bool Has(SerialNumber serial) =>
        (From is null || serial >= From) && (To is null || serial <= To) && (Series is null || serial.IsOf(Series));

    public string InWords => (From, To) switch
    {
        (null, null) => Series is null ? "all" : $"{Series.Text}-series all",
        ({ } only, { } last) when only == last => only.Text,
        ({ } first, { } last) => $"{first.Text} to {last.Text}",
        ({ } first, null) => $"{first.Text} and up",
        (null, { } last) => $"up to {last.Text}",
    };
}

/// <summary>Stretches with the gaps in them: what follows "except".</summary>
public sealed record SerialGroup(IReadOnlyList<SerialSpan> Spans, IReadOnlyList<SerialSpan> Except)
{
    public bool Has(SerialNumber serial) => Spans.Any(span => span.Has(serial)) && !Except.Any(span => span.Has(serial));

    public string InWords =>
        string.Join(", ", Spans.Select(span => span.InWords))
            + (Except.Count == 0 ? "" : $" except {string.Join(", ", Except.Select(span => span.InWords))}");
}

/// <summary>
/// A list of serial numbers as bulletins print them: "E-10021 to E-10488, and E-10502; B-series all". Stretches are parted by
/// commas or "and", groups by semicolons; "and up" and "up to" leave an end open within the series, "except" opens the gaps of
/// its group, "all" is every number there is.
/// </summary>
public sealed partial class SerialRanges
{
    /// <summary>Longest list taken, in characters.</summary>
    public const int Longest = 4_000;

    private SerialRanges(IReadOnlyList<SerialGroup> groups) =>
        (Groups, InWords) = (groups, string.Join("; ", groups.Select(group => group.InWords)));

    public IReadOnlyList<SerialGroup> Groups { get; }

    /// <summary>The list as it is read, in one spelling.</summary>
    public string InWords { get; }

    /// <summary>Reads a list, or says which part can't be read and why.</summary>
    public static (SerialRanges? Ranges, string? Fault) Read(string? text)
    {
        if (string.IsNullOrWhiteSpace(text) || text.Length > Longest)
            return (null, $"A list of serial numbers, in up to {Longest} characters: E-10021 to E-10488, and E-10502; B-series all.");
        List<SerialGroup> groups = [];
        foreach (var part in text.Split(';', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            var halves = ExceptWord().Split(part);
            if (halves.Length > 2)
                return (null, $"“{part}” says except twice: begin a new group behind a semicolon.");
            List<SerialSpan>[] lists = [[], []];
            for (var half = 0; half < halves.Length; half++)
                foreach (var item in Commas().Split(halves[half]).Select(item => item.Trim()).Where(item => item.Length > 0))
                {
                    var (span, fault) = Span(item);
                    if (span is null)
                        return (null, fault);
                    lists[half].Add(span);
                }
            if (lists[0].Count == 0 || (halves.Length == 2 && lists[1].Count == 0))
                return (null, $"“{part}”: a list stands before except, and one behind it.");
            groups.Add(new(lists[0], lists[1]));
        }
        return groups.Count == 0 ? (null, "The list names no serial number.") : (new(groups), null);
    }

    /// <summary>
    /// Whether a serial number is on the list. One that is out only because the list gives figures where the plate has letters
    /// before them, or the other way round, is in doubt: somebody has to read both again.
    /// </summary>
    public SerialMatch Match(SerialNumber serial)
    {
        if (Groups.Any(group => group.Has(serial)))
            return SerialMatch.In;
        var spans = Groups.SelectMany(group => group.Spans).Where(span => span.From is not null || span.To is not null);
        return spans.Any(span => (span.From ?? span.To)!.IsBare != serial.IsBare && BareOf(span).Has(serial.Bare))
            ? SerialMatch.Doubtful
            : SerialMatch.Out;
    }

    private static SerialSpan BareOf(SerialSpan span) => new(span.From?.Bare, span.To?.Bare);

    private static (SerialSpan? Span, string? Fault) Span(string item)
    {
        if (item.Equals("all", StringComparison.OrdinalIgnoreCase))
            return (new(null, null), null);
        if (AllOfSeries().Match(item) is { Success: true } all)
            return SerialNumber.Read(all.Groups["series"].Value) is { } series && Whole(all.Groups["series"].Value)
                ? (new(null, null, series), null)
                : (null, No(item));
        if (AndUp().Match(item) is { Success: true } up)
            return One(up.Groups["serial"].Value) is { } from ? (new(from, null, from.Series), null) : (null, No(item));
        if (UpTo().Match(item) is { Success: true } down)
            return One(down.Groups["serial"].Value) is { } to ? (new(null, to, to.Series), null) : (null, No(item));
        var ends = To().Split(item);
        if (ends.Length == 2)
        {
            if (One(ends[0]) is not { } first || One(ends[1]) is not { } last)
                return (null, No(item));
            if (first > last)
                return (null, $"“{item}” runs backwards: {first.Text} comes after {last.Text}.");
            return first.Series == last.Series
                ? (new(first, last), null)
                : (null, $"“{item}” runs from one series into another: give each series its own stretch.");
        }
        return ends.Length == 1 && One(item) is { } only ? (new(only, only), null) : (null, No(item));
    }

    private static SerialNumber? One(string text) => Whole(text.Trim()) ? SerialNumber.Read(text) : null;

    // A serial number has no word in it that a list uses, and no spaces but between its runs.
    private static bool Whole(string text) => SerialShape().IsMatch(text);

    private static string No(string item) =>
        $"“{item}” can’t be read as serial numbers. Write A-1 to A-20, A-30 and up, up to A-9, A-series all, or one number.";

    [GeneratedRegex(@"\b(?:except|but not|excluding)\b", RegexOptions.IgnoreCase)]
    private static partial Regex ExceptWord();

    [GeneratedRegex(@",(?:\s*and\b(?!\s*(?:up|later|on|onwards|above|earlier|below)\b))?"
        + @"|\band\b(?!\s*(?:up|later|on|onwards|above|earlier|below)\b)", RegexOptions.IgnoreCase)]
    private static partial Regex Commas();

    [GeneratedRegex(@"^(?:all(?:\s+of)?(?:\s+the)?\s+(?<series>[A-Z0-9./-]+?)(?:[\s-]*series)?"
        + @"|(?<series>[A-Z0-9./-]+?)[\s-]*series(?:\s*,?\s*all)?)$", RegexOptions.IgnoreCase)]
    private static partial Regex AllOfSeries();

    [GeneratedRegex(@"^(?:from\s+)?(?<serial>.+?)\s+(?:and\s+)?(?:up|later|on|onwards|above)$", RegexOptions.IgnoreCase)]
    private static partial Regex AndUp();

    [GeneratedRegex(@"^(?:(?:up to|through|to)\s+(?<serial>.+)|(?<serial>.+?)\s+(?:and\s+)?(?:earlier|below))$", RegexOptions.IgnoreCase)]
    private static partial Regex UpTo();

    [GeneratedRegex(@"\s+(?:to|through|thru)\s+|\s*–\s*|\s+-\s+", RegexOptions.IgnoreCase)]
    private static partial Regex To();

    [GeneratedRegex(@"^[A-Z0-9]+(?:[./-]?[A-Z0-9]+)*(?: [0-9]+)?$", RegexOptions.IgnoreCase)]
    private static partial Regex SerialShape();
}
