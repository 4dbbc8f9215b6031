using MellowRivet.Core.Due;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Fleet.Due;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Due;

/// <summary>What falls due in the whole shop, most urgent first.</summary>
[Needs(Right.Look)]
public sealed class ShopDueModel(ShopBoard board) : PageModel
{
    private const int MostLines = 50;

    [FromQuery(Name = "state")]
    public DueState? Only { get; set; }

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    public ListPage<ShopDue> Shown { get; private set; } = new([], 1, 1, 0);
    public int Aircraft { get; private set; }
    public int Items { get; private set; }
    public IReadOnlyDictionary<DueState, int> Counts { get; private set; } = new Dictionary<DueState, int>();

    public async Task OnGetAsync(CancellationToken stop)
    {
        var shop = await board.StandingAsync(stop);
        (Aircraft, Items) = (shop.Aircraft.Count, shop.Due.Count);
        Counts = shop.Due.CountBy(due => due.Entry.Status.State).ToDictionary();
        Shown = ListPage.Of(Only is { } state
            ? [.. shop.Due.Where(due => due.Entry.Status.State == state)]
            : shop.Due, PageTyped, MostLines);
    }

    public async Task<IActionResult> OnGetCsvAsync(CancellationToken stop) =>
        File(DueCsv.Write([.. (await board.StandingAsync(stop)).Lines]), "text/csv", "due-shop.csv");
}
