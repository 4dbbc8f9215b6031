using MellowRivet.Core;
using MellowRivet.Core.Books;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Books;

/// <summary>A book as it is sent.</summary>
public sealed class BookForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public Guid? Book { get; set; }
    public BookKind Kind { get; set; }
    public string? Title { get; set; }
    public DateOnly? FirstOn { get; set; }
    public DateOnly? LastOn { get; set; }
    public bool IsLost { get; set; }
}

/// <summary>An entry as it is sent: typed, a page's picture, or the words of a picture.</summary>
public sealed class EntryForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public Guid? Entry { get; set; }
    public Guid? Book { get; set; }
    public DateOnly? On { get; set; }
    public string? Hours { get; set; }
    public string? Text { get; set; }
    public string? Page { get; set; }
    public List<IFormFile> Photos { get; set; } = [];
}

/// <summary>One line of the aircraft's history: an entry taken over from a book, or a record signed here.</summary>
public sealed record HistoryLine(DateOnly? On, string? Hours, string Text, string Book, BookEntry? Entry, SignedRecord? Record);

/// <summary>The aircraft's books: what there is, the gaps, and every entry to search.</summary>
public sealed class BooksModel(Desk desk, RivetDb db, Uploads uploads, TimeProvider clock) : FleetPage(desk, db, clock)
{
    private const int Most = 80, MostPages = 40;

    public override FileSheet At => FileSheet.Books;

    [FromQuery(Name = "find")]
    public string? Find { get; set; }

    [FromQuery(Name = "entry")]
    public Guid? EntryId { get; set; }

    [FromQuery(Name = "book")]
    public Guid? BookId { get; set; }

    [FromQuery(Name = "add")]
    public string? Adds { get; set; }

    public IReadOnlyList<LogBook> Books { get; private set; } = [];
    public IReadOnlyList<BookGap> Gaps { get; private set; } = [];
    public IReadOnlyList<HistoryLine> History { get; private set; } = [];
    public int Waiting { get; private set; }
    public BookEntry? Current { get; private set; }
    public BookForm TypedBook { get; private set; } = new();
    public EntryForm TypedEntry { get; private set; } = new();

    public bool MayRecord => User.May(Right.RecordWork);

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        if (Books.FirstOrDefault(book => book.Id == BookId) is { } book)
            TypedBook = new() { Book = book.Id, Kind = book.Kind, Title = book.Title, FirstOn = book.FirstOn, LastOn = book.LastOn,
                IsLost = book.IsLost };
        TypedEntry = Current is { } entry
            ? new() { Entry = entry.Id, Book = entry.BookId, On = entry.On, Hours = entry.Hours?.ToString(), Text = entry.Text,
                Page = entry.Page }
            : new() { Book = BookId ?? (Books.Count > 0 ? Books[0].Id : null) };
        return Page();
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostBookAsync(BookForm form, CancellationToken stop)
    {
        (BookId, Adds) = (form.Book, "book");
        var written = await Desk.WriteFileAsync(Id, form.Post, async _ =>
        {
            if (LogBook.Check(form.Title, form.FirstOn, form.LastOn, Today).FirstOrDefault() is { } wrong)
                return wrong;
            if (!Enum.IsDefined(form.Kind))
                return new Refusal("title", "Choose a kind.");
            var book = form.Book is { } known
                ? await Db.BookAsync(Id, known, stop)
                : Db.Put(new LogBook(form.Post, Id, form.Kind, form.Title!.Trim(), form.FirstOn, form.LastOn, form.IsLost));
            book?.Change(form.Kind, form.Title!.Trim(), form.FirstOn, form.LastOn, form.IsLost);
            return book is null ? new("title", "There is no such book.") : null;
        }, stop);
        return await AfterAsync(written, HrefOf(At), async () =>
        {
            TypedBook = form;
            return await ShowAsync(stop);
        });
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostEntryAsync(EntryForm form, CancellationToken stop)
    {
        (EntryId, Adds) = (form.Entry, "entry");
        var hours = TypedNumber.ParseHours(form.Hours);
        var written = await Desk.WriteFileAsync(Id, form.Post, async _ =>
        {
            if (BookEntry.Check(form.On, !string.IsNullOrWhiteSpace(form.Hours), hours, form.Text, form.Page, Today)
                .FirstOrDefault() is { } wrong)
                return wrong;
            if (form.Entry is { } known)
            {
                if (await Db.EntryToChangeAsync(Id, known, stop) is not { } entry)
                    return new("text", "There is no such entry.");
                entry.Transcribe(form.On, hours, form.Text!.Trim(), form.Page?.Trim() ?? "", User.PersonId(), Clock.GetUtcNow());
                return null;
            }
            if (await Db.BookAsync(Id, form.Book, stop) is null)
                return new Refusal("text", "Choose the book it stands in.");
            Db.Put(new BookEntry(form.Post, Id, form.Book!.Value, form.On, hours, form.Text!.Trim(), form.Page?.Trim()
                ?? "", null, User.PersonId(), Clock.GetUtcNow()));
            return null;
        }, stop);
        return await AfterAsync(written, $"{HrefOf(At)}?add=entry&book={form.Book}", async () =>
        {
            TypedEntry = form;
            return await ShowAsync(stop);
        });
    }

    /// <summary>Takes in pictures of pages, to be read into words one by one.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostPagesAsync(EntryForm form, CancellationToken stop)
    {
        Adds = "pages";
        var taken = await uploads.TakeInAsync(form.Photos, [], stop, MostPages);
        var wrong = form.Photos.Count is 0 or > MostPages
            ? new("photos", $"Choose from 1 to {MostPages} pictures of pages.")
            : taken.Wrong("photos");
        var written = await Desk.WriteFileAsync(Id, form.Post, async _ =>
        {
            if (wrong is not null)
                return wrong;
            if (await Db.BookAsync(Id, form.Book, stop) is null)
                return new Refusal("photos", "Choose the book they are of.");
            foreach (var photo in taken.Photos)
                Db.Put(new BookEntry(Guid.CreateVersion7(), Id, form.Book!.Value, null, null, "", "", photo, User.PersonId(),
                    Clock.GetUtcNow()));
            return null;
        }, stop);
        return await AfterAsync(written, HrefOf(At), async () =>
        {
            TypedEntry = form;
            return await ShowAsync(stop);
        });
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostExplainAsync(Guid post, BookKind kind, DateOnly from, DateOnly to, string? words,
        CancellationToken stop)
    {
        var written = await Desk.WriteFileAsync(Id, post, aircraft =>
        {
            if (string.IsNullOrWhiteSpace(words) || words.Trim().Length > 300)
                return Task.FromResult<Refusal?>(new("explain", "Say why, in up to 300 characters: laid up, abroad, in a museum."));
            aircraft.Explain(new(kind, from, to, words.Trim(), User.PersonId()));
            return Task.FromResult<Refusal?>(null);
        }, stop);
        return await AfterAsync(written, HrefOf(At), () => ShowAsync(stop));
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        (Books, Gaps) = await Db.BooksAsync(Aircraft, Today, stop);
        (Current, Waiting) = await Db.EntryAsync(Id, EntryId, stop);
        History = await HistoryAsync(stop);
        return true;
    }

    // Every word has to stand in the entry, in any order; a record signed here is searched in its text.
    private async Task<IReadOnlyList<HistoryLine>> HistoryAsync(CancellationToken stop)
    {
        var titles = Books.ToDictionary(book => book.Id, book => book.Title);
        var (typed, signed) = await Db.FoundInBooksAsync(Id, (Find ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries)
            .Take(8), Most, stop);
        return [.. typed.Select(
            entry => new HistoryLine(entry.On, entry.Hours?.ToString(), entry.Text, titles.GetValueOrDefault(entry.BookId, ""),
                entry, null))
            .Concat(signed.Select(record =>
            {
                var text = record.Text();
                var words = string.Join(" ", text["work"]!.AsArray().Select(line => line!.ToString())
                    .Append(text["statement"]!.ToString()));
                return new HistoryLine(Clock.DayOf(record.SignedAt), text["timeInService"]?.ToString()
                    .Replace(" h", "", StringComparison.Ordinal), words, $"signed here, {text["title"]!.ToString().ToLowerInvariant()}",
                    null, record);
            })).OrderByDescending(line => line.On is null).ThenByDescending(line => line.On).Take(Most)];
    }
}
