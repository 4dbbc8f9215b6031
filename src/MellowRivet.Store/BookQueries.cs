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
    public static async Task<(IReadOnlyList<LogBook> Books, IReadOnlyList<BookGap> Gaps)> BooksAsync(this RivetDb db, Aircraft aircraft, DateOnly today, CancellationToken stop)
    {
        var books = await db.LogBooks.AsNoTracking().Where(book => book.AircraftId == aircraft.Id).ToListAsync(stop);
        var entries = await db.BookEntries.AsNoTracking().Where(entry => entry.AircraftId == aircraft.Id).ToListAsync(stop);
        var signed = await db.SignedRecords.AsNoTracking().Where(record => record.AircraftId == aircraft.Id).ToListAsync(stop);
        return ([.. books.OrderBy(book => book.Kind).ThenBy(book => book.FirstOn)], BookGaps.Find(books, entries, signed.ToLookup(KindOf, Dated), aircraft.GapNotes, today));
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
}
