using MellowRivet.Core.Due;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Books;

/// <summary>A hole in the books that somebody explained: laid up, in a museum, abroad.</summary>
public sealed record GapNote(BookKind Kind, DateOnly From, DateOnly To, string Words, Guid By)
{
    private const int LongestWords = 300;

    /// <summary>The note as it is typed, or what is wrong with it.</summary>
    public static (GapNote? Note, Refusal? Refusal) Read(BookKind kind, DateOnly from, DateOnly to, string? words, Guid by) =>
        string.IsNullOrWhiteSpace(words) || words.Trim().Length > LongestWords
            ? (null, new("explain", $"Say why, in up to {LongestWords} characters: laid up, abroad, in a museum."))
            : (new(kind, from, to, words.Trim(), by), null);
}

/// <summary>An entry as the search for gaps sees it.</summary>
/// <param name="On">Its day.</param>
/// <param name="Hours">The time in service it gives; null where it gives none.</param>
public readonly record struct DatedHours(DateOnly On, Hours? Hours);

/// <summary>Something in the books that doesn't hold together.</summary>
/// <param name="Kind">The kind of book.</param>
/// <param name="From">The last day before it.</param>
/// <param name="To">The first day after it.</param>
/// <param name="Words">What is wrong.</param>
/// <param name="Explained">Why, where somebody said; null while it is unexplained.</param>
/// <param name="IsOfTotals">The totals don't add up; false for a hole in time.</param>
public sealed record BookGap(BookKind Kind, DateOnly From, DateOnly To, string Words, string? Explained, bool IsOfTotals = false);

/// <summary>Looks through the books for holes in time and for totals that don't add up.</summary>
public static class BookGaps
{
    /// <summary>A hole longer than this is shown; common practice, since no year should pass without an inspection.</summary>
    public const int HoleMonths = 18;

    /// <param name="books">The aircraft's books, by id.</param>
    /// <param name="entries">Their entries; one without a day doesn't count.</param>
    /// <param name="signed">Days and hours of records signed in this shop, by kind of book.</param>
    /// <param name="notes">Holes that were explained.</param>
    /// <param name="today">Today: an aircraft with no entry since long has a hole up to now.</param>
    public static IReadOnlyList<BookGap> Find(IReadOnlyCollection<LogBook> books, IReadOnlyCollection<BookEntry> entries,
        ILookup<BookKind, DatedHours> signed, IReadOnlyCollection<GapNote> notes, DateOnly today)
    {
        List<BookGap> gaps = [];
        foreach (var ofKind in books.Where(book => book.Kind.IsLogbook()).GroupBy(book => book.Kind).OrderBy(group => group.Key))
        {
            var ids = ofKind.Select(book => book.Id).ToHashSet();
            var dated = entries.Where(entry => ids.Contains(entry.BookId) && entry.On is not null)
                .Select(entry => new DatedHours(entry.On!.Value, entry.Hours))
                .Concat(signed[ofKind.Key]).OrderBy(entry => entry.On).ThenBy(entry => entry.Hours?.Value ?? 0).ToList();
            gaps.AddRange(Holes(ofKind.Key, Covered(ofKind, dated), notes, today));
            gaps.AddRange(Totals(ofKind.Key, [.. dated.Where(entry => entry.Hours is not null)], notes));
        }
        return [.. gaps.OrderBy(gap => gap.Kind).ThenBy(gap => gap.From)];
    }

    // A book that isn't transcribed covers the time from its first to its last day; a transcribed one only its entries' days.
    private static IEnumerable<(DateOnly From, DateOnly To)> Covered(IEnumerable<LogBook> books, List<DatedHours> dated) =>
        dated.Select(entry => (entry.On, entry.On)).Concat(books.Where(book => !book.IsLost && book.FirstOn is not null).SelectMany(book =>
        {
            var (first, last) = (book.FirstOn!.Value, book.LastOn ?? book.FirstOn!.Value);
            return dated.Any(entry => entry.On > first && entry.On < last)
                ? new[] { (first, first), (last, last) }
                : [(first, last)];
        }));

    private static IEnumerable<BookGap> Holes(BookKind kind, IEnumerable<(DateOnly From, DateOnly To)> covered,
        IReadOnlyCollection<GapNote> notes, DateOnly today)
    {
        DateOnly? until = null;
        foreach (var (from, to) in covered.Append((today, today)).OrderBy(span => span.Item1))
        {
            if (until is { } last && last.AddMonths(HoleMonths) < from)
                yield return new(kind, last, from,
                    $"{(from == today ? "Nothing since" : "A hole from")} {last:yyyy-MM-dd}"
                    + $"{(from == today ? "" : $" to {from:yyyy-MM-dd}")}: {Spans.OfMonths(Months(last, from))} without an entry.",
                    Explained(notes, kind, last, from));
            if (until is null || to > until)
                until = to;
        }
    }

    private static IEnumerable<BookGap> Totals(BookKind kind, List<DatedHours> dated, IReadOnlyCollection<GapNote> notes)
    {
        foreach (var (one, next) in dated.Zip(dated.Skip(1)))
        {
            var (before, after) = (one.Hours!.Value, next.Hours!.Value);
            if (after < before)
                yield return new(kind, one.On, next.On,
                    $"The total falls: {before} h on {one.On:yyyy-MM-dd}, {after} h on {next.On:yyyy-MM-dd}.",
                    Explained(notes, kind, one.On, next.On), IsOfTotals: true);
            else if (after.Value - before.Value > 24 * (next.On.DayNumber - one.On.DayNumber + 1))
                yield return new(kind, one.On, next.On,
                    $"The total jumps: {before} h on {one.On:yyyy-MM-dd}, {after} h on {next.On:yyyy-MM-dd}, more than the days hold.",
                    Explained(notes, kind, one.On, next.On), IsOfTotals: true);
        }
    }

    private static string? Explained(IEnumerable<GapNote> notes, BookKind kind, DateOnly from, DateOnly to) =>
        notes.FirstOrDefault(note => note.Kind == kind && note.From == from && note.To == to)?.Words;

    private static int Months(DateOnly from, DateOnly to) => (to.Year - from.Year) * 12 + to.Month - from.Month;
}
