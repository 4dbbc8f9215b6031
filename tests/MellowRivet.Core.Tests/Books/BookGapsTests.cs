using MellowRivet.Core.Books;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Tests.Books;

public class BookGapsTests
{
    private static readonly DateOnly Today = new(2026, 11, 23);
    private readonly Guid aircraft = Guid.NewGuid();
    private readonly LogBook book;
    private readonly List<BookEntry> entries = [];

    public BookGapsTests() => book = new(Guid.NewGuid(), aircraft, BookKind.Airframe, "volume 1", new DateOnly(2020, 1, 1), null, false);

    private void Entry(string on, decimal? hours = null) =>
        entries.Add(new(Guid.NewGuid(), aircraft, book.Id, DateOnly.Parse(on), hours is { } known
            ? new Hours(known)
            : null, "x", "", null, Guid.Empty, default));

    private IReadOnlyList<BookGap> Find(IEnumerable<GapNote>? notes = null, (BookKind, DatedHours)[]? signed = null,
        params LogBook[] more) =>
        BookGaps.Find([book, .. more], entries, (signed ?? [])
            .ToLookup(record => record.Item1, record => record.Item2), [.. notes ?? []], Today);

    // Eighteen months to the day are still no hole; a day more is.
    [Theory]
    [InlineData("2021-07-01", false)]
    [InlineData("2021-07-02", true)]
    public void A_hole_is_longer_than_eighteen_months(string next, bool hole)
    {
        Entry("2020-06-01");
        entries.Clear();
        Entry("2020-01-01");
        Entry(next);
        foreach (var year in new[] { "2022-06-01", "2023-06-01", "2024-06-01", "2025-06-01", "2026-06-01" })
            Entry(year);
        Find().Any(gap => gap.From == new DateOnly(2020, 1, 1)).ShouldBe(hole);
    }

    [Fact]
    public void A_book_with_nothing_since_long_has_a_hole_up_to_today()
    {
        Entry("2020-01-01");
        Entry("2021-02-01");
        Find().ShouldHaveSingleItem().Words.ShouldStartWith("Nothing since 2021-02-01");
    }

    [Fact]
    public void A_later_volume_a_signed_record_and_an_explanation_close_it()
    {
        Entry("2020-01-01");
        Entry("2021-02-01");
        Find(null, null, new LogBook(Guid.NewGuid(), aircraft, BookKind.Airframe, "volume 2", new DateOnly(2021, 6, 1),
            new DateOnly(2026, 10, 1), false)).ShouldBeEmpty("a volume not transcribed covers its time");
        Find(null, null, new LogBook(Guid.NewGuid(), aircraft, BookKind.Airframe, "volume 2", new DateOnly(2021, 6, 1),
            new DateOnly(2026, 10, 1), true)).ShouldHaveSingleItem("a lost one covers nothing");
        Find(null, [(BookKind.Engine, new(new DateOnly(2026, 1, 1), null))])
            .ShouldHaveSingleItem("an engine's record says nothing of the airframe");
        Find([new(BookKind.Airframe, new DateOnly(2021, 2, 1), Today, "in a museum", Guid.Empty)])
            .ShouldHaveSingleItem().Explained.ShouldBe("in a museum");
        Entry("2022-06-01");
        Find(null, [(BookKind.Airframe, new(new DateOnly(2023, 6, 1), null)), (BookKind.Airframe, new(new DateOnly(2024, 10, 1), null)),
            (BookKind.Airframe, new(new DateOnly(2026, 1, 1), null))]).ShouldBeEmpty();
    }

    [Fact]
    public void Totals_that_fall_or_jump_are_found()
    {
        Entry("2025-06-01", 318.2m);
        Entry("2025-09-17", 309.4m);
        Entry("2025-09-18", 400m);
        Entry("2026-06-18", 401m);
        var found = Find().Where(gap => gap.Words.StartsWith("The total", StringComparison.Ordinal)).ToList();
        found.Select(gap => gap.Words.Split(':')[0]).ShouldBe(["The total falls", "The total jumps"]);
    }

    [Fact]
    public void A_page_that_waits_for_words_counts_for_nothing()
    {
        Entry("2026-01-01", 10);
        entries.Add(new(Guid.NewGuid(), aircraft, book.Id, null, null, "", "", null, Guid.Empty, default));
        entries[^1].WaitsForWords.ShouldBeTrue();
        Should.NotThrow(() => Find());
    }

    [Fact]
    public void What_is_typed_wrongly_is_named()
    {
        LogBook.Check(BookKind.Airframe, " ", new DateOnly(2020, 1, 2), new DateOnly(2020, 1, 1), Today).Select(wrong => wrong.Field)
            .ShouldBe(["title", "lastOn"]);
        BookEntry.Check(Today.AddDays(1), true, null, "", "", Today).Select(wrong => wrong.Field).ShouldBe(["on", "hours", "text"]);
        BookEntry.Check(Today, false, null, "words", "12", Today).ShouldBeEmpty();
    }
}
