using System.Text;
using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Shelves;

/// <summary>What is new in an edition, as it is sent.</summary>
public sealed record NoteForm(string? Note);

/// <summary>The editions of one worksheet.</summary>
/// <param name="Current">The one that inspections begin with; null before the first is published.</param>
/// <param name="Draft">The next one; null while none is begun.</param>
/// <param name="Earlier">Those before the current one.</param>
public sealed record Editions(Edition? Current, Edition? Draft, IReadOnlyList<Edition> Earlier)
{
    public Worksheet Worksheet => (Draft ?? Current)!.Worksheet;

    /// <summary>They, in the order in which they were published; null where there is none.</summary>
    public static Editions? Of(IReadOnlyList<Edition> all)
    {
        var current = all.LastOrDefault(edition => !edition.IsDraft);
        return all.Count == 0 ? null
            : new(current, all.FirstOrDefault(edition => edition.IsDraft),
                [.. all.Where(edition => !edition.IsDraft && edition != current)]);
    }
}

/// <summary>One worksheet.</summary>
/// <param name="Of">Its editions.</param>
/// <param name="Key">Its key.</param>
/// <param name="TaskKey">The task that is open in the editor; "new" for one that is being added to a zone.</param>
/// <param name="ZoneKey">The zone that is open in the editor, or that a task is added to.</param>
/// <param name="MayKeep">Whoever looks may change it.</param>
public sealed record WorksheetView(Editions Of, string Key, string? TaskKey, string? ZoneKey, bool MayKeep) : PageView
{
    public Edition? Current => Of.Current;
    public Edition? Draft => Of.Draft;
    public IReadOnlyList<Edition> Earlier => Of.Earlier;
    public Worksheet Worksheet => Of.Worksheet;
    public string? Note => Typed<NoteForm>()?.Note;
    public OfferForm Offer => Typed<OfferForm>() ?? (Draft is null ? new() : OfferForm.Of(Draft.Worksheet));

    /// <summary>What the draft changes.</summary>
    public IReadOnlyList<WorksheetChange> Changes { get; } =
        Of is { Draft: { } draft, Current: { } current } ? WorksheetChanges.Between(current.Worksheet, draft.Worksheet) : [];

    /// <summary>The task in the editor: as typed where it was refused, else as kept; null while none is open.</summary>
    public TaskForm? Task => Typed<TaskForm>() ?? (Draft is null || TaskKey is null ? null
        : Worksheet.Zones.SelectMany(zone => zone.Tasks.Select(task => (zone, task))).FirstOrDefault(pair => pair.task.Key == TaskKey)
            is ({ } zone, { } task) ? TaskForm.Of(zone.Key, task) : new() { Zone = ZoneKey });

    /// <summary>The zone in the editor, likewise.</summary>
    public ZoneForm? Zone => Typed<ZoneForm>() ?? (Draft is null || TaskKey is not null || ZoneKey is null ? null
        : Worksheet.Zones.FirstOrDefault(zone => zone.Key == ZoneKey) is { } zone ? ZoneForm.Of(zone) : new() { Looks = true });
}

/// <summary>One worksheet: its edition, the draft of the next, and the editor.</summary>
[Needs(Right.Look)]
public sealed class WorksheetModel(RivetDb db, TimeProvider clock) : ShopPage<WorksheetView>
{
    [FromRoute(Name = "sheet")]
    public string Key { get; set; } = "";

    [FromQuery(Name = "task")]
    public string? TaskKey { get; set; }

    [FromQuery(Name = "zone")]
    public string? ZoneKey { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    public async Task<IActionResult> OnGetFileAsync(string form, int? version, CancellationToken stop)
    {
        if (await EditionsAsync(stop) is not { } of
            || (version is null ? of.Draft ?? of.Current : of.Earlier.Append(of.Current).FirstOrDefault(edition =>
                edition?.Version == version)) is not { } edition)
            return NotFound();
        return form == "csv"
            ? File(WorksheetCsv.Write(edition.Worksheet), "text/csv", $"{Key}-{edition.Version}.csv")
            : File(Encoding.UTF8.GetBytes(edition.Worksheet.ToJson()), "application/json", $"{Key}-{edition.Version}.json");
    }

    /// <summary>Begins the draft of the next edition.</summary>
    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostBeginAsync(Guid post, CancellationToken stop) => KeepAsync(post, "", of =>
    {
        if (of.Draft is null)
            db.Put(Next(of, of.Worksheet));
        return null;
    }, stop);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostTaskAsync(Guid post, TaskForm form, CancellationToken stop) => DraftAsync(post, "", sheet =>
    {
        var (task, refusal) = form.Read(sheet);
        return task is null ? (null, refusal) : sheet.Put(form.Zone ?? "", task);
    }, stop, form);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostTakeOutAsync(Guid post, string task, CancellationToken stop) =>
        DraftAsync(post, "", sheet => sheet.TakeOut(task), stop);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostMoveAsync(Guid post, string task, bool down, CancellationToken stop) =>
        DraftAsync(post, $"#task-{task}", sheet => (sheet.Move(task, down), null), stop);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostZoneAsync(Guid post, ZoneForm form, CancellationToken stop) =>
        DraftAsync(post, "", form.PutIn, stop, form);

    /// <summary>Gives the draft another title or basis, or says what it is ticked for beforehand.</summary>
    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostOfferAsync(Guid post, OfferForm form, CancellationToken stop) =>
        DraftAsync(post, "", form.PutOn, stop, form);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostTakeOutZoneAsync(Guid post, string zone, CancellationToken stop) =>
        DraftAsync(post, "", sheet => sheet.TakeOutZone(zone), stop);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostMoveZoneAsync(Guid post, string zone, bool down, CancellationToken stop) =>
        DraftAsync(post, $"#zone-{zone}", sheet => (sheet.MoveZone(zone, down), null), stop);

    /// <summary>Puts a file in the draft's place.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostImportAsync(Guid post, IFormFile? file, CancellationToken stop)
    {
        if (await EditionsAsync(stop) is not { } there)
            return NotFound();
        var (sheet, refusal) = await WorksheetFile.ReadAsync(file, null, there.Worksheet, stop);
        if (sheet is null)
            return await AgainAsync(refusal!, stop);
        return await KeepAsync(post, "", of =>
        {
            if (of.Draft is { } draft)
                return draft.Write(sheet, User.PersonId(), clock.GetUtcNow());
            db.Put(Next(of, sheet));
            return null;
        }, stop);
    }

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostPublishAsync(Guid post, string? note, CancellationToken stop) => KeepAsync(post, "",
        of => of.Draft is { } draft
            ? draft.Publish(note, User.PersonId(), clock.GetUtcNow())
            : new("draft", "There is no draft."), stop, new NoteForm(note));

    /// <summary>Lets a draft go. What is published stays.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostDropAsync(Guid post, CancellationToken stop)
    {
        var gone = false;
        var answer = await KeepAsync(post, "", of =>
        {
            if (of.Draft is { } draft)
                db.Drop(draft);
            gone = of.Current is null;
            return null;
        }, stop);
        return gone ? Redirect("/shelf") : answer;
    }

    private Edition Next(Editions of, Worksheet sheet) =>
        new(Guid.CreateVersion7(), sheet with { Key = Key, Version = (of.Current?.Version ?? 0) + 1 }, true, User.PersonId(),
            clock.GetUtcNow(), "");

    private Task<IActionResult> DraftAsync(Guid post, string back, Func<Worksheet, (Worksheet? Worksheet, Refusal? Refusal)> change,
        CancellationToken stop, object? typed = null) => KeepAsync(post, back, of =>
    {
        if (of.Draft is not { } draft)
            return new("draft", "Begin a draft first.");
        var (sheet, refusal) = change(draft.Worksheet);
        return sheet is null ? refusal : draft.Write(sheet, User.PersonId(), clock.GetUtcNow());
    }, stop, typed);

    private async Task<IActionResult> KeepAsync(Guid post, string back, Func<Editions, Refusal?> work, CancellationToken stop,
        object? typed = null)
    {
        var found = true;
        var written = await db.OnceAsync(post, clock, async () =>
        {
            var of = await EditionsAsync(stop, tracking: true);
            found = of is not null;
            return of is null ? null : work(of);
        }, stop);
        return found ? await AfterAsync(written, $"/shelf/worksheets/{Key}{back}", stop, typed) : NotFound();
    }

    private async Task<Editions?> EditionsAsync(CancellationToken stop, bool tracking = false) =>
        Editions.Of(await db.EditionsAsync(Key, tracking, stop));

    protected override async Task<WorksheetView?> ViewAsync(Refused refused, CancellationToken stop) =>
        await EditionsAsync(stop) is { } of ? new(of, Key, TaskKey, ZoneKey, User.May(Right.KeepShelf)) : null;
}
