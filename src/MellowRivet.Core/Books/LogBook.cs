using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Measures;

namespace MellowRivet.Core.Books;

public enum BookKind { Airframe = 1, Engine, Propeller, EquipmentList, Drawings, WeightSheet, Manual, Other }

/// <summary>A logbook or paper of an aircraft that exists, or is known to have existed.</summary>
public sealed class LogBook
{
    private LogBook() { }

    public LogBook(Guid id, Guid aircraftId, BookKind kind, string title, DateOnly? firstOn, DateOnly? lastOn, bool isLost)
    {
        Id = id;
        AircraftId = aircraftId;
        Kind = kind;
        Title = title;
        FirstOn = firstOn;
        LastOn = lastOn;
        IsLost = isLost;
    }

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }
    public BookKind Kind { get; private set; }
    public string Title { get; private set; } = "";

    /// <summary>The day of its first entry; of a sheet, its day.</summary>
    public DateOnly? FirstOn { get; private set; }

    /// <summary>The day of its last entry; null while it is being written in.</summary>
    public DateOnly? LastOn { get; private set; }

    /// <summary>Known to have existed, and not to be found.</summary>
    public bool IsLost { get; private set; }

    /// <summary>What is wrong with a book as typed; empty where it can go on file.</summary>
    public static IEnumerable<Refusal> Check(BookKind kind, string? title, DateOnly? firstOn, DateOnly? lastOn, DateOnly today)
    {
        if (!Enum.IsDefined(kind))
            yield return new("title", "Choose a kind.");
        if (string.IsNullOrWhiteSpace(title) || title.Trim().Length > 80)
            yield return new("title", "What stands on its cover, in up to 80 characters.");
        if (firstOn > lastOn)
            yield return new("lastOn", "Its last entry can’t be before its first.");
        if (firstOn > today || lastOn > today)
            yield return new("lastOn", "That day is still to come.");
    }

    public void Change(BookKind kind, string title, DateOnly? firstOn, DateOnly? lastOn, bool isLost) =>
        (Kind, Title, FirstOn, LastOn, IsLost) = (kind, title, firstOn, lastOn, isLost);
}

/// <summary>
/// One entry of a book, typed or photographed and transcribed. It is history taken over, not a signed record of this shop.
/// </summary>
public sealed class BookEntry
{
    /// <summary>Longest text taken, in characters.</summary>
    public const int LongestText = 4_000;

    private BookEntry() { }

    public BookEntry(Guid id, Guid aircraftId, Guid bookId, DateOnly? on, Hours? hours, string text, string page, Photo? photo, Guid by,
        DateTimeOffset at)
    {
        Id = id;
        AircraftId = aircraftId;
        BookId = bookId;
        Photo = photo;
        Transcribe(on, hours, text, page, by, at);
    }

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }
    public Guid BookId { get; private set; }

    /// <summary>The day of the entry; null while its page is only photographed.</summary>
    public DateOnly? On { get; private set; }

    /// <summary>The time in service it gives; null where it gives none.</summary>
    public Hours? Hours { get; private set; }
    public string Text { get; private set; } = "";
    public string Page { get; private set; } = "";

    /// <summary>The photographed page; null where it was typed from the book.</summary>
    public Photo? Photo { get; private set; }
    public Guid By { get; private set; }
    public DateTimeOffset At { get; private set; }

    /// <summary>A picture of a page that nobody has read into words yet.</summary>
    public bool WaitsForWords => On is null;

    /// <summary>What is wrong with an entry as typed; empty where it can go on file.</summary>
    public static IEnumerable<Refusal> Check(DateOnly? on, bool hoursTyped, Hours? hours, string? text, string? page, DateOnly today)
    {
        if (on is null || on > today)
            yield return new("on", "The day of the entry, not one to come: 2009-06-14.");
        if (hoursTyped && hours is null)
            yield return new("hours", "Time in service in hours: 812.4. Leave it empty where the entry gives none.");
        if (string.IsNullOrWhiteSpace(text) || text.Trim().Length > LongestText)
            yield return new("text", $"The words of the entry, up to {LongestText} characters.");
        if (page?.Trim().Length > 20)
            yield return new("page", "A page of up to 20 characters.");
    }

    public void Transcribe(DateOnly? on, Hours? hours, string text, string page, Guid by, DateTimeOffset at) =>
        (On, Hours, Text, Page, By, At) = (on, hours, text, page, by, at);
}

public static class BookWords
{
    public static string InWords(this BookKind kind) => kind switch
    {
        BookKind.EquipmentList => "equipment list",
        BookKind.WeightSheet => "weight sheet",
        BookKind.Manual => "manual",
        BookKind.Other => "other paper",
        _ => kind.ToString().ToLowerInvariant() + (kind is BookKind.Drawings ? "" : " logbook"),
    };

    /// <summary>Whether it is written in over the years, so that a hole in it means something.</summary>
    public static bool IsLogbook(this BookKind kind) => kind is BookKind.Airframe or BookKind.Engine or BookKind.Propeller;
}
