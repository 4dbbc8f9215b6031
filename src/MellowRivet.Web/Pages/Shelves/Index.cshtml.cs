using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.Inspections;
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

/// <summary>What the shop works by: its worksheets, limits and rules, and how it works.</summary>
[Needs(Right.Look)]
public sealed class IndexModel(Shelf shelf, DataFolder data, RivetDb db, TimeProvider clock) : PageModel
{
    public IReadOnlyList<Edition> Worksheets { get; private set; } = [];
    public IReadOnlyDictionary<string, Edition> Drafts { get; private set; } = new Dictionary<string, Edition>();
    public int Tools { get; private set; }
    public int Types { get; private set; }
    public HouseRules House { get; private set; } = new();
    public string? NewTitle { get; private set; }
    public IReadOnlyList<RulePack> RulePacks => shelf.RulePacks;
    public IReadOnlyList<DueStarter> DueStarters => shelf.DueStarters;

    public string? Problem(string field) => ModelState[field]?.Errors.FirstOrDefault()?.ErrorMessage;

    public Task OnGetAsync(CancellationToken stop) => LoadAsync(stop);

    public IActionResult OnGetFile(string folder, string key) =>
        folder is "rule-packs" or "due" or "who-may" or "findings" && Shelf.FileOf(data, folder, key) is { } path
            ? PhysicalFile(path, "application/json", $"{key}.json")
            : NotFound();

    /// <summary>How the shop works: holds at once for every inspection in work.</summary>
    [Needs(Right.ManageShop)]
    public async Task<IActionResult> OnPostHouseAsync(Guid post, SeparateInspector inspector, bool firstLook, bool askFirst,
        bool airworthinessUnasked, string? preAuthorised, string? labourRate, string? money, LookSchool? signersLook,
        CancellationToken stop)
    {
        var (unasked, rate) = (TypedNumber.Parse(preAuthorised ?? "0"), TypedNumber.Parse(labourRate ?? "0"));
        var rules = new HouseRules(inspector, firstLook, askFirst, Math.Abs(unasked ?? -1) < 1e9
            ? (decimal)(unasked ?? -1)
            : -1, airworthinessUnasked, Math.Abs(rate ?? -1) < 1e9 ? (decimal)(rate ?? -1) : -1, money?.Trim() ?? "$", signersLook);
        if (rules.Check() is { } refusal)
        {
            await LoadAsync(stop);
            House = rules;
            ModelState.AddModelError("money", refusal.Message);
            return Page();
        }
        await db.OnceAsync(post, clock, async () =>
        {
            await db.WorkByAsync(rules, stop);
            return null;
        }, stop);
        return Redirect("/shelf");
    }

    /// <summary>Begins a new worksheet: an empty one, or one from a file.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostNewAsync(Guid post, string? title, IFormFile? file, CancellationToken stop)
    {
        NewTitle = title;
        var (sheet, refusal) = await WorksheetFile.ReadAsync(file, title, null, stop);
        var key = "";
        var written = refusal is not null ? new Written(refusal) : await db.OnceAsync(post, clock, async () =>
        {
            key = sheet!.Key;
            if (await db.HasWorksheetAsync(key, stop))
                return new Refusal("title", $"There is a worksheet “{key}” already: open it, and send the file there.");
            db.Put(new Edition(Guid.CreateVersion7(), sheet with { Version = 1 }, true, User.PersonId(), clock.GetUtcNow(), ""));
            return null;
        }, stop);
        if (written.Done)
            return Redirect($"/shelf/worksheets/{(key.Length > 0 ? key : sheet!.Key)}");
        ModelState.AddModelError(written.Refusal!.Field, written.Refusal.Message);
        await LoadAsync(stop);
        return Page();
    }

    private async Task LoadAsync(CancellationToken stop)
    {
        Worksheets = await db.CurrentWorksheetsAsync(stop);
        Drafts = await db.DraftsAsync(stop);
        (Tools, Types) = await db.CountsAsync(stop);
        House = await db.HouseRulesAsync(stop);
    }
}
