using System.Globalization;
using MellowRivet.Core;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Shelves;

/// <summary>One worksheet: its edition, the draft of the next, and the editor.</summary>
[Needs(Right.Look)]
public sealed class WorksheetModel(RivetDb db, TimeProvider clock) : PageModel
{
    [FromRoute(Name = "sheet")]
    public string Key { get; set; } = "";

    /// <summary>The task that is open in the editor; "new" for one that is being added to a zone.</summary>
    [FromQuery(Name = "task")]
    public string? TaskKey { get; set; }

    [FromQuery(Name = "zone")]
    public string? ZoneKey { get; set; }

    public Edition? Current { get; private set; }
    public Edition? Draft { get; private set; }
    public IReadOnlyList<Edition> Earlier { get; private set; } = [];
    public Worksheet Sheet => (Draft ?? Current)!.Sheet;
    public IReadOnlyList<WorksheetChange> Changes { get; private set; } = [];
    public TaskForm? Task { get; private set; }
    public ZoneForm? Zone { get; private set; }
    public OfferForm Offer { get; private set; } = new();
    public string? Note { get; private set; }
    public bool MayKeep => User.May(Right.KeepShelf);

    public string? Problem(string field) => ModelState[field]?.Errors.FirstOrDefault()?.ErrorMessage;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        var pair = Sheet.Zones.SelectMany(zone => zone.Tasks.Select(task => (zone, task))).FirstOrDefault(pair => pair.task.Key == TaskKey);
        if (Draft is not null && TaskKey is not null)
            Task = pair.task is not null ? TaskForm.Of(pair.zone.Key, pair.task) : new() { Zone = ZoneKey };
        else if (Draft is not null && ZoneKey is not null)
            Zone = Sheet.Zones.FirstOrDefault(zone => zone.Key == ZoneKey) is { } zone
                ? new() { Key = zone.Key, Title = zone.Title, Station = zone.Station, Book = zone.Book,
                    Hours = zone.Hours?.ToString("0.##", CultureInfo.InvariantCulture), Looks = zone.Looks, PerEngine = zone.PerEngine }
                : new() { Looks = true };
        return Page();
    }

    public async Task<IActionResult> OnGetFileAsync(string form, int? version, CancellationToken stop)
    {
        if (!await LoadAsync(stop)
            || (version is null ? Draft ?? Current : Earlier.Append(Current!).FirstOrDefault(edition => edition?.Version == version))
            is not { } edition)
            return NotFound();
        return form == "csv"
            ? File(WorksheetCsv.Write(edition.Sheet), "text/csv", $"{Key}-{edition.Version}.csv")
            : File(System.Text.Encoding.UTF8.GetBytes(edition.Sheet.ToJson()), "application/json", $"{Key}-{edition.Version}.json");
    }

    /// <summary>Begins the draft of the next edition.</summary>
    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostBeginAsync(Guid post, CancellationToken stop) => KeepAsync(post, "", () =>
    {
        if (Draft is null)
            db.Put(Next(Current!.Sheet));
        return null;
    }, stop);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostTaskAsync(Guid post, TaskForm form, CancellationToken stop) => DraftAsync(post, "", sheet =>
    {
        var (task, refusal) = form.Read(sheet);
        return task is null ? (null, refusal) : sheet.Put(form.Zone ?? "", task);
    }, stop, () => Task = form);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostTakeOutAsync(Guid post, string task, CancellationToken stop) =>
        DraftAsync(post, "", sheet => sheet.TakeOut(task), stop);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostMoveAsync(Guid post, string task, bool down, CancellationToken stop) =>
        DraftAsync(post, $"#task-{task}", sheet => (sheet.Move(task, down), null), stop);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostZoneAsync(Guid post, ZoneForm form, CancellationToken stop) => DraftAsync(post, "", sheet =>
    {
        var hours = TypedNumber.Parse(form.Hours);
        if (hours is null && !string.IsNullOrWhiteSpace(form.Hours))
            return (null, new("zone", "Hours are a number, or nothing."));
        var key = string.IsNullOrWhiteSpace(form.Key) ? Worksheet.KeyFor(form.Title ?? "") : form.Key;
        if (string.IsNullOrWhiteSpace(form.Key) && sheet.Zones.Any(zone => zone.Key == key))
            return (null, new("zone", $"There is a zone “{key}” already."));
        return sheet.Put(new WorksheetZone(key, form.Title?.Trim()
            ?? "", form.Station, form.Book,
            [new($"{key}-first"[..Math.Min(40, key.Length + 6)], "The first task: write over it", "where it is asked for")],
            (decimal?)hours, form.Looks, form.PerEngine));
    }, stop, () => Zone = form);

    /// <summary>Gives the draft another title or basis, or says what it is ticked for beforehand.</summary>
    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostOfferAsync(Guid post, OfferForm form, CancellationToken stop) => DraftAsync(post, "", sheet =>
    {
        var offered = sheet with
        {
            Title = form.Title?.Trim() ?? "",
            Basis = form.Basis?.Trim() ?? "",
            Suits = form.Ticked ? new([.. form.Categories], [.. form.Builds], [.. form.Inspections]) : null,
        };
        return offered.Fault() is { } fault ? (null, new Refusal("offer", fault)) : (offered, null);
    }, stop, () => Offer = form);

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
        if (!await LoadAsync(stop))
            return NotFound();
        var (sheet, refusal) = await WorksheetFile.ReadAsync(file, null, Sheet, stop);
        return await KeepAsync(post, "", () =>
        {
            if (refusal is not null)
                return refusal;
            if (Draft is { } draft)
                return draft.Write(sheet!, User.PersonId(), clock.GetUtcNow());
            db.Put(Next(sheet!));
            return null;
        }, stop);
    }

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostPublishAsync(Guid post, string? note, CancellationToken stop) => KeepAsync(post, "",
        () => Draft is { } draft
            ? draft.Publish(note, User.PersonId(), clock.GetUtcNow())
            : new("draft", "There is no draft."), stop, () => Note = note);

    /// <summary>Lets a draft go. What is published stays.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostDropAsync(Guid post, CancellationToken stop)
    {
        var gone = false;
        var answer = await KeepAsync(post, "", () =>
        {
            if (Draft is { } draft)
                db.Drop(draft);
            gone = Current is null;
            return null;
        }, stop);
        return gone ? Redirect("/shelf") : answer;
    }

    private Edition Next(Worksheet sheet) =>
        new(Guid.CreateVersion7(), sheet with { Key = Key, Version = (Current?.Version ?? 0) + 1 }, true, User.PersonId(),
            clock.GetUtcNow(), "");

    private Task<IActionResult> DraftAsync(Guid post, string back, Func<Worksheet, (Worksheet? Sheet, Refusal? Refusal)> change,
        CancellationToken stop, Action? keepTyped = null) => KeepAsync(post, back, () =>
    {
        if (Draft is not { } draft)
            return new("draft", "Begin a draft first.");
        var (sheet, refusal) = change(draft.Sheet);
        return sheet is null ? refusal : draft.Write(sheet, User.PersonId(), clock.GetUtcNow());
    }, stop, keepTyped);

    private async Task<IActionResult> KeepAsync(Guid post, string back, Func<Refusal?> work, CancellationToken stop,
        Action? keepTyped = null)
    {
        var found = true;
        var written = await db.OnceAsync(post, clock, async () => (found = await LoadAsync(stop, tracking: true)) ? work() : null, stop);
        if (!found)
            return NotFound();
        if (written.Done)
            return Redirect($"/shelf/worksheets/{Key}{back}");
        await LoadAsync(stop);
        keepTyped?.Invoke();
        ModelState.AddModelError(written.Refusal!.Field, written.Refusal.Message);
        return Page();
    }

    private async Task<bool> LoadAsync(CancellationToken stop, bool tracking = false)
    {
        var editions = await db.EditionsAsync(Key, tracking, stop);
        Draft = editions.FirstOrDefault(edition => edition.IsDraft);
        Current = editions.LastOrDefault(edition => !edition.IsDraft);
        Earlier = [.. editions.Where(edition => !edition.IsDraft && edition != Current)];
        if (Draft is not null)
            Offer = OfferForm.Of(Draft.Sheet);
        Changes = Draft is { } draft && Current is { } current ? WorksheetChanges.Between(current.Sheet, draft.Sheet) : [];
        return editions.Count > 0;
    }
}
