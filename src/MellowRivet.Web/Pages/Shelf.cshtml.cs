using MellowRivet.Core.Due;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages;

public sealed class ShelfModel(Shelf shelf, DataFolder data) : PageModel
{
    public IReadOnlyList<Worksheet> Worksheets => shelf.Worksheets;
    public IReadOnlyList<RulePack> RulePacks => shelf.RulePacks;
    public IReadOnlyList<DueStarter> DueStarters => shelf.DueStarters;

    public void OnGet() { }

    public IActionResult OnGetFile(string folder, string key) =>
        folder is "worksheets" or "rule-packs" or "due" or "who-may" && Shelf.FileOf(data, folder, key) is { } path
            ? PhysicalFile(path, "application/json", $"{key}.json")
            : NotFound();
}
