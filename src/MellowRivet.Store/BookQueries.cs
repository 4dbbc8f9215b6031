using System.Globalization;
using MellowRivet.Core.Books;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Records;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What the pages load of an aircraft's books.</summary>
public static class BookQueries
{
    /// <summary>The books and the gaps in them.</summary>
    public static async Task<(IReadOnlyList<LogBook> Books, IReadOnlyList<BookGap> Gaps)> BooksAsync(this RivetDb db, Aircraft aircraft,
        DateOnly today, CancellationToken stop)
    {
        var books = await db.LogBooks.AsNoTracking().Where(book => book.AircraftId == aircraft.Id).ToListAsync(stop);
        var entries = await db.BookEntries.AsNoTracking().Where(entry => entry.AircraftId == aircraft.Id).ToListAsync(stop);
        var signed = await db.SignedRecords.AsNoTracking().Where(record => record.AircraftId == aircraft.Id).ToListAsync(stop);
        return ([.. books.OrderBy(book => book.Kind).ThenBy(book => book.FirstOn)],
            BookGaps.Find(books, entries, signed.ToLookup(KindOf, Dated), aircraft.GapNotes, today));
    }

    private static BookKind KindOf(SignedRecord record) => record.Book switch
    {
        Book.Engine => BookKind.Engine,
        Book.Propeller => BookKind.Propeller,
        Book.Airframe => BookKind.Airframe,
        _ => BookKind.Other,
    };

    private static DatedHours Dated(SignedRecord record)
    {
        var text = record.Text();
        var time = text["timeInService"]?.ToString().Replace(" h", "", StringComparison.Ordinal);
        return new(DateOnly.ParseExact(text["date"]!.ToString(), "yyyy-MM-dd", CultureInfo.InvariantCulture), TypedNumber.ParseHours(time));
    }

    /// <summary>A book of an aircraft, within a write; null where it has no such book.</summary>
    public static Task<LogBook?> BookAsync(this RivetDb db, Guid aircraftId, Guid? id, CancellationToken stop) =>
        db.LogBooks.FirstOrDefaultAsync(row => row.Id == id && row.AircraftId == aircraftId, stop);

    /// <summary>An entry of an aircraft's books, within a write; null where there is none.</summary>
    public static Task<BookEntry?> EntryToChangeAsync(this RivetDb db, Guid aircraftId, Guid id, CancellationToken stop) =>
        db.BookEntries.FirstOrDefaultAsync(row => row.Id == id && row.AircraftId == aircraftId, stop);

    /// <summary>An entry of an aircraft's books, to look at; and how many pages wait to be typed.</summary>
    public static async Task<(BookEntry? Entry, int Waiting)> EntryAsync(this RivetDb db, Guid aircraftId, Guid? id,
        CancellationToken stop) => (
        await db.BookEntries.AsNoTracking().FirstOrDefaultAsync(entry => entry.AircraftId == aircraftId && entry.Id == id, stop),
        await db.BookEntries.CountAsync(entry => entry.AircraftId == aircraftId && entry.On == null, stop));

    /// <summary>
    /// Entries and signed records that hold every word, in any order; a record is searched in its text.
    /// </summary>
    /// <param name="db">The shop.</param>
    /// <param name="aircraftId">The aircraft.</param>
    /// <param name="words">The words.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<(IReadOnlyList<BookEntry> Entries, IReadOnlyList<SignedRecord> Records)> FoundInBooksAsync(this RivetDb db,
        Guid aircraftId, IEnumerable<string> words, CancellationToken stop)
    {
        var entries = db.BookEntries.AsNoTracking().Where(entry => entry.AircraftId == aircraftId);
        var records = db.SignedRecords.AsNoTracking().Where(record => record.AircraftId == aircraftId);
        foreach (var word in words)
        {
            var like = $"%{word.Replace("\\", "\\\\").Replace("%", "\\%").Replace("_", "\\_")}%";
            entries = entries.Where(entry => EF.Functions.Like(entry.Text, like, "\\"));
            records = records.Where(record => EF.Functions.Like(record.Json, like, "\\"));
        }
        return (await entries.ToListAsync(stop), await records.OrderByDescending(record => record.Id).ToListAsync(stop));
    }
}
