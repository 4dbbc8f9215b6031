using System.Globalization;
using MellowRivet.Core;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Shelves;

/// <summary>A task of a worksheet as it is sent.</summary>
public sealed class TaskForm
{
    public string? Key { get; set; }
    public string? Zone { get; set; }
    public string? Text { get; set; }
    public string? Reference { get; set; }
    public TaskKind Kind { get; set; } = TaskKind.Inspect;
    public string? With { get; set; }
    public string? At { get; set; }
    public List<Need> Needs { get; set; } = [];
    public bool SecondPerson { get; set; }
    public string? Caution { get; set; }
    public AppliesTo AppliesTo { get; set; } = AppliesTo.Every;
    public string? Same { get; set; }

    /// <summary>Paragraphs of the scope, separated by commas.</summary>
    public string? Covers { get; set; }
    public Asked? Asks { get; set; }
    public bool Compression { get; set; }
    public string? Measure { get; set; }
    public string? Unit { get; set; }
    public string? Low { get; set; }
    public string? High { get; set; }
    public Standing Standing { get; set; } = Standing.Manual;
    public string? Source { get; set; }
    public MeasureMethod Method { get; set; } = MeasureMethod.Plain;

    public static TaskForm Of(string zone, WorksheetTask task) => new()
    {
        Key = task.Key,
        Zone = zone,
        Text = task.Text,
        Reference = task.Reference,
        Kind = task.Kind,
        With = task.With,
        At = string.Join(", ", task.At ?? []),
        Needs = [.. task.Needs ?? []],
        SecondPerson = task.SecondPerson,
        Caution = task.Caution,
        AppliesTo = task.AppliesTo,
        Same = task.Same,
        Covers = string.Join(", ", task.Covers ?? []),
        Asks = task.Asks,
        Compression = task.Compression,
        Measure = task.Measure?.Kind,
        Unit = task.Measure?.Unit,
        Low = task.Measure?.Low?.ToString("0.####", CultureInfo.InvariantCulture),
        High = task.Measure?.High?.ToString("0.####", CultureInfo.InvariantCulture),
        Standing = task.Measure?.Standing ?? Standing.Manual,
        Source = task.Measure?.Source,
        Method = task.Measure?.Method ?? MeasureMethod.Plain,
    };

    /// <summary>The task, or what can't be read of it.</summary>
    public (WorksheetTask? Task, Refusal? Refusal) Read(Worksheet sheet)
    {
        List<TaskInterval> at = [];
        foreach (var part in (At ?? "").Split([',', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
        {
            if (TaskInterval.Parse(part) is not { } interval)
                return (null, new("at",
                    $"“{part}” is no interval. Write 25 h, annual, 2 years, 6 months or first 25 h, with commas between."));
            at.Add(interval);
        }
        WorksheetMeasure? measure = null;
        if (!string.IsNullOrWhiteSpace(Measure))
        {
            var (low, high) = (TypedNumber.Parse(Low), TypedNumber.Parse(High));
            if ((low is null && !string.IsNullOrWhiteSpace(Low)) || (high is null && !string.IsNullOrWhiteSpace(High)))
                return (null, new("limits", "Limits are numbers; leave one empty where there is none."));
            var source = string.IsNullOrWhiteSpace(Source) ? low is null && high is null
                ? "the aircraft's manual; no limit on file yet"
                : "" : Source.Trim();
            if (source.Length == 0)
                return (null, new("limits", "Say where the limits come from."));
            measure = new(Worksheet.KeyFor(Measure), Unit ?? "", low, high, Standing, source, Method);
        }
        var key = string.IsNullOrWhiteSpace(Key) ? FreeKey(sheet) : Key.Trim();
        return (new(key, Text?.Trim() ?? "", Reference?.Trim()
            ?? "", Words(Caution), measure, Compression, AppliesTo, Kind, Words(With), at.Count > 0 ? at : null, Needs.Count > 0
            ? Needs
            : null, SecondPerson, Words(Same),
            Words(Covers)?.Split([',', ';'], StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries), Asks), null);
    }

    // From its first words, with a number where that is taken.
    private string FreeKey(Worksheet sheet)
    {
        var stem = Worksheet.KeyFor(string.Join(' ', (Text ?? "task").Split(' ').Take(4)));
        stem = stem.Length is 0 ? "task" : stem.Length > 36 ? stem[..36] : stem;
        var taken = sheet.Tasks.Select(task => task.Key).ToHashSet();
        return Enumerable.Range(1, int.MaxValue).Select(number => number == 1 ? stem : $"{stem}-{number}")
            .First(key => !taken.Contains(key));
    }

    private static string? Words(string? text) => string.IsNullOrWhiteSpace(text) ? null : text.Trim();
}

/// <summary>A zone of a worksheet as it is sent.</summary>
public sealed class ZoneForm
{
    public string? Key { get; set; }
    public string? Title { get; set; }
    public Station Station { get; set; } = Station.Airframe;
    public Book Book { get; set; }
    public string? Hours { get; set; }
    public bool Looks { get; set; }
    public bool PerEngine { get; set; }
}

/// <summary>A worksheet's name and what it is ticked for, as it is sent.</summary>
public sealed class OfferForm
{
    public string? Title { get; set; }
    public string? Basis { get; set; }
    public bool Ticked { get; set; }
    public List<Core.Fleet.Category> Categories { get; set; } = [];
    public List<AppliesTo> Builds { get; set; } = [];
    public List<Core.Inspections.InspectionKind> Inspections { get; set; } = [];

    public static OfferForm Of(Worksheet sheet) => new()
    {
        Title = sheet.Title,
        Basis = sheet.Basis,
        Ticked = sheet.Suits is not null,
        Categories = [.. sheet.Suits?.Categories ?? []],
        Builds = [.. sheet.Suits?.Builds ?? []],
        Inspections = [.. sheet.Suits?.Inspections ?? []],
    };
}

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
