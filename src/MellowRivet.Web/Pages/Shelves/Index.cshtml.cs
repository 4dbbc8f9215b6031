using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Shelves;

/// <summary>The title of a new worksheet as it is sent.</summary>
public sealed record NewWorksheetForm(string? Title);

/// <summary>What the shop works by.</summary>
/// <param name="Worksheets">The worksheets, as published.</param>
/// <param name="Drafts">Drafts of their next editions, by key.</param>
/// <param name="Tools">How many tools there are.</param>
/// <param name="Types">How many types are known.</param>
/// <param name="Kept">How the shop works.</param>
/// <param name="RulePacks">The rules of the authorities.</param>
/// <param name="DueStarters">What usually falls due.</param>
/// <param name="EntryTemplates">How logbook entries are worded.</param>
/// <param name="Kits">What jobs usually take.</param>
public sealed record ShelfView(IReadOnlyList<Edition> Worksheets, IReadOnlyDictionary<string, Edition> Drafts, int Tools, int Types,
    HouseRules Kept, IReadOnlyList<RulePack> RulePacks, IReadOnlyList<DueStarter> DueStarters,
    IReadOnlyList<EntryTemplate> EntryTemplates, IReadOnlyList<Kit> Kits) : PageView
{
    public HouseRules House => Typed<HouseForm>()?.ToRules() ?? Kept;
    public string? NewTitle => Typed<NewWorksheetForm>()?.Title;
}

/// <summary>What the shop works by: its worksheets, limits and rules, and how it works.</summary>
[Needs(Right.Look)]
public sealed class IndexModel(Shelf shelf, DataFolder data, RivetDb db, TimeProvider clock) : ShopPage<ShelfView>
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    public IActionResult OnGetFile(string folder, string key) =>
        folder is "rule-packs" or "due" or "who-may" or "findings" or "entries" or "kits" && Shelf.FileOf(data, folder, key) is { } path
            ? PhysicalFile(path, "application/json", $"{key}.json")
            : NotFound();

    /// <summary>How the shop works: holds at once for every inspection in work.</summary>
    [Needs(Right.ManageShop)]
    public async Task<IActionResult> OnPostHouseAsync(HouseForm form, CancellationToken stop)
    {
        var rules = form.ToRules();
        return rules.Check() is { } refusal
            ? await AgainAsync(refusal, stop, form)
            : await AfterAsync(db.OnceAsync(form.Post, clock, async () =>
            {
                await db.WorkByAsync(rules, stop);
                return null;
            }, stop), "/shelf", stop);
    }

    /// <summary>Begins a new worksheet: an empty one, or one from a file.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostNewAsync(Guid post, string? title, IFormFile? file, CancellationToken stop)
    {
        var typed = new NewWorksheetForm(title);
        var (sheet, refusal) = await WorksheetFile.ReadAsync(file, title, null, stop);
        if (sheet is null)
            return await AgainAsync(refusal!, stop, typed);
        return await AfterAsync(db.OnceAsync(post, clock, async () =>
        {
            if (await db.HasWorksheetAsync(sheet.Key, stop))
                return new Refusal("title", $"There is a worksheet “{sheet.Key}” already: open it, and send the file there.");
            db.Put(new Edition(Guid.CreateVersion7(), sheet with { Version = 1 }, true, User.PersonId(), clock.GetUtcNow(), ""));
            return null;
        }, stop), $"/shelf/worksheets/{sheet.Key}", stop, typed);
    }

    protected override async Task<ShelfView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var (tools, types) = await db.CountsAsync(stop);
        return new(await db.CurrentWorksheetsAsync(stop), await db.DraftsAsync(stop), tools, types, await db.HouseRulesAsync(stop),
            shelf.RulePacks, shelf.DueStarters, [.. shelf.EntryTemplates.Values], shelf.Kits);
    }
}
