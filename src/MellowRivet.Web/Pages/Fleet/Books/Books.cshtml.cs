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

    public static BookForm Of(LogBook book) => new()
    {
        Book = book.Id,
        Kind = book.Kind,
        Title = book.Title,
        FirstOn = book.FirstOn,
        LastOn = book.LastOn,
        IsLost = book.IsLost,
    };
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

    public static EntryForm Of(BookEntry entry) => new()
    {
        Entry = entry.Id,
        Book = entry.BookId,
        On = entry.On,
        Hours = entry.Hours?.ToString(),
        Text = entry.Text,
        Page = entry.Page,
    };
}

/// <summary>What is asked of the books: the address of what is shown.</summary>
/// <param name="Find">Words to find in every entry.</param>
/// <param name="EntryId">The entry that is chosen.</param>
/// <param name="BookId">The book that is chosen.</param>
/// <param name="Adds">What is being added: a book, an entry or pages; null for nothing.</param>
public sealed record BooksAsked(string? Find, Guid? EntryId, Guid? BookId, string? Adds);


/// <summary>One line of the aircraft's history: an entry taken over from a book, or a record signed here.</summary>
public sealed record HistoryLine(DateOnly? On, string? Hours, string Text, string Book, BookEntry? Entry, SignedRecord? Record)
{
    public static HistoryLine Of(BookEntry entry, string book) => new(entry.On, entry.Hours?.ToString(), entry.Text, book, entry, null);

    public static HistoryLine Of(SignedRecord record, DateOnly on)
    {
        var text = record.Text();
        var words = string.Join(" ", text["work"]!.AsArray().Select(line => line!.ToString()).Append(text["statement"]!.ToString()));
        return new(on, text["timeInService"]?.ToString().Replace(" h", "", StringComparison.Ordinal), words,
            $"signed here, {text["title"]!.ToString().ToLowerInvariant()}", null, record);
    }
}

/// <summary>An aircraft's books.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Asked">What is asked of them.</param>
/// <param name="Books">What there is.</param>
/// <param name="Gaps">What doesn't hold together.</param>
/// <param name="History">A page of the entries and records that have the words, latest first.</param>
/// <param name="Current">The entry that is chosen.</param>
/// <param name="Waiting">How many photographed pages wait to be read.</param>
public sealed record BooksView(FileShown File, BooksAsked Asked, IReadOnlyList<LogBook> Books, IReadOnlyList<BookGap> Gaps,
    ListPage<HistoryLine> History, BookEntry? Current, int Waiting) : FileView(File)
{
    public override FilePage At => FilePage.Books;

    /// <summary>The form of a book: as typed where it was refused, else as kept.</summary>
    public BookForm Book => Typed<BookForm>()
        ?? (Books.FirstOrDefault(book => book.Id == Asked.BookId) is { } book ? BookForm.Of(book) : new());

    /// <summary>The form of an entry: as typed where it was refused, else as kept.</summary>
    public EntryForm Entry => Typed<EntryForm>() ?? (Current is { } entry
        ? EntryForm.Of(entry)
        : new() { Book = Asked.BookId ?? (Books.Count > 0 ? Books[0].Id : null) });
}

/// <summary>The aircraft's books: what there is, the gaps, and every entry to search.</summary>
public sealed class BooksModel(Desk desk, RivetDb db, Uploads uploads, TimeProvider clock) : FleetPage<BooksView>(desk, db, clock)
{
    private const int MostLines = 60, MostPages = 40, MostWords = 8;

    [FromQuery(Name = "find")]
    public string? Find { get; set; }

    [FromQuery(Name = "entry")]
    public Guid? EntryId { get; set; }

    [FromQuery(Name = "book")]
    public Guid? BookId { get; set; }

    [FromQuery(Name = "add")]
    public string? Adds { get; set; }

    /// <summary>Which page of the history, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    private string Here => HrefOf(FilePage.Books);

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostBookAsync(BookForm form, CancellationToken stop)
    {
        (BookId, Adds) = (form.Book, "book");
        return AfterAsync(Desk.WriteFileAsync(Id, form.Post, async _ =>
        {
            if (LogBook.Check(form.Kind, form.Title, form.FirstOn, form.LastOn, Today).FirstOrDefault() is { } wrong)
                return wrong;
            var book = form.Book is { } known
                ? await Db.BookAsync(Id, known, stop)
                : Db.Put(new LogBook(form.Post, Id, form.Kind, form.Title!.Trim(), form.FirstOn, form.LastOn, form.IsLost));
            book?.Change(form.Kind, form.Title!.Trim(), form.FirstOn, form.LastOn, form.IsLost);
            return book is null ? new("title", "There is no such book.") : null;
        }, stop), Here, stop, form);
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostEntryAsync(EntryForm form, CancellationToken stop)
    {
        (EntryId, Adds) = (form.Entry, "entry");
        var hours = TypedNumber.ParseHours(form.Hours);
        return AfterAsync(Desk.WriteFileAsync(Id, form.Post, async _ =>
        {
            if (BookEntry.Check(form.On, !string.IsNullOrWhiteSpace(form.Hours), hours, form.Text, form.Page, Today)
                .FirstOrDefault() is { } wrong)
                return wrong;
            if (form.Entry is { } known)
            {
                if (await Db.EntryToChangeAsync(Id, known, stop) is not { } entry)
                    return new("text", "There is no such entry.");
                entry.Transcribe(form.On, hours, form.Text!.Trim(), form.Page?.Trim() ?? "", Me, Clock.GetUtcNow());
                return null;
            }
            if (await Db.BookAsync(Id, form.Book, stop) is null)
                return new Refusal("text", "Choose the book it stands in.");
            Db.Put(new BookEntry(form.Post, Id, form.Book!.Value, form.On, hours, form.Text!.Trim(), form.Page?.Trim() ?? "", null, Me,
                Clock.GetUtcNow()));
            return null;
        }, stop), $"{Here}?add=entry&book={form.Book}", stop, form);
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
        if (wrong is not null)
            return await AgainAsync(wrong, stop, form);
        return await AfterAsync(Desk.WriteFileAsync(Id, form.Post, async _ =>
        {
            if (await Db.BookAsync(Id, form.Book, stop) is null)
                return new Refusal("photos", "Choose the book they are of.");
            foreach (var photo in taken.Photos)
                Db.Put(new BookEntry(Guid.CreateVersion7(), Id, form.Book!.Value, null, null, "", "", photo, Me, Clock.GetUtcNow()));
            return null;
        }, stop), Here, stop, form);
    }

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostExplainAsync(Guid post, BookKind kind, DateOnly from, DateOnly to, string? words,
        CancellationToken stop) =>
        AfterAsync(Desk.WriteFileAsync(Id, post, aircraft =>
        {
            var (note, refusal) = GapNote.Read(kind, from, to, words, Me);
            if (note is not null)
                aircraft.Explain(note);
            return Task.FromResult(refusal);
        }, stop), Here, stop);

    protected override async Task<BooksView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop)
    {
        var (books, gaps) = await Db.BooksAsync(file.Aircraft, Today, stop);
        var (current, waiting) = await Db.EntryAsync(Id, EntryId, stop);
        return new(file, new(Find, EntryId, BookId, Adds), books, gaps, await HistoryAsync(books, stop), current, waiting);
    }

    // Every word has to stand in the entry, in any order; a record signed here is searched in its text.
    private async Task<ListPage<HistoryLine>> HistoryAsync(IReadOnlyList<LogBook> books, CancellationToken stop)
    {
        var titles = books.ToDictionary(book => book.Id, book => book.Title);
        var words = (Find ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries).Take(MostWords);
        var (typed, signed) = await Db.FoundInBooksAsync(Id, words, stop);
        var all = typed.Select(entry => (entry.On, Line: (Func<HistoryLine>)(() =>
                HistoryLine.Of(entry, titles.GetValueOrDefault(entry.BookId, "")))))
            .Concat(signed.Select(record => (On: (DateOnly?)Clock.DayOf(record.SignedAt), Line: (Func<HistoryLine>)(() =>
                HistoryLine.Of(record, Clock.DayOf(record.SignedAt))))))
            .OrderByDescending(one => one.On is null).ThenByDescending(one => one.On).ToList();
        return ListPage.Of(all, PageTyped, MostLines).Select(one => one.Line());
    }
}
