using MellowRivet.Core;
using MellowRivet.Core.Exchange;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>Saves an aircraft's file as JSON, and takes one in.</summary>
public static class AircraftExchange
{
    /// <summary>The file of an aircraft; null where there is no such aircraft.</summary>
    public static async Task<AircraftFile?> FileOfAsync(this RivetDb db, Guid aircraftId, TimeProvider clock, CancellationToken stop)
    {
        if (await db.Aircraft.AsNoTracking().WithParts().Include(row => row.MeterReadings)
            .FirstOrDefaultAsync(row => row.Id == aircraftId, stop) is not { } aircraft)
            return null;
        var due = await db.DueOn(aircraftId).AsNoTracking().ToListAsync(stop);
        var books = await db.LogBooks.AsNoTracking().Where(book => book.AircraftId == aircraftId).ToListAsync(stop);
        var entries = await db.BookEntries.AsNoTracking().Where(entry => entry.AircraftId == aircraftId).ToListAsync(stop);
        var (followUps, stated) = await db.FollowUpsAsync([aircraftId],
            [.. aircraft.Installations.Select(stay => stay.ComponentId).Distinct()], stop);
        return AircraftFile.Of(aircraft, due, books, entries, followUps, stated, clock);
    }

    /// <summary>Adds the aircraft of a checked file; saving is the caller's. An aircraft or part that is here already is refused.</summary>
    public static async Task<Refusal?> TakeInAsync(this RivetDb db, AircraftFile file, Guid by, TimeProvider clock, CancellationToken stop)
    {
        if (await db.Aircraft.AnyAsync(row => row.Id == file.Id || row.Registration == file.Registration, stop))
            return new("file", $"{file.Registration} has a file here already. Nothing was taken in.");
        var parts = file.Parts.Select(part => part.Id).ToList();
        var items = file.Due.Select(item => item.Id).ToList();
        var books = file.Books.Select(book => book.Id).ToList();
        var entries = file.Books.SelectMany(book => book.Entries.Select(entry => entry.Id)).ToList();
        if (await db.Components.AnyAsync(row => parts.Contains(row.Id), stop)
            || await db.DueItems.AnyAsync(row => items.Contains(row.Id), stop)
            || await db.LogBooks.AnyAsync(row => books.Contains(row.Id), stop)
            || await db.BookEntries.AnyAsync(row => entries.Contains(row.Id), stop))
            return new("file", "A part, a due item or a book of the file is here already, on another aircraft. Nothing was taken in.");
        var made = file.Make(by, clock);
        db.Aircraft.Add(made.Aircraft);
        db.DueItems.AddRange(made.Due);
        db.LogBooks.AddRange(made.Books);
        db.BookEntries.AddRange(made.Entries);
        db.BulletinFollowUps.AddRange(made.FollowUps);
        db.Tell(Core.People.Deed.TakenIn, made.Aircraft.Registration);
        db.StatedFacts.AddRange(made.Facts);
        return null;
    }
}
