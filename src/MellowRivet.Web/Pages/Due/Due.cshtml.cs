using MellowRivet.Core.Due;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Fleet.Due;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Due;

/// <summary>What falls due in the shop.</summary>
/// <param name="Lines">One page of it, most urgent first.</param>
/// <param name="Only">The state that is asked for.</param>
/// <param name="Aircraft">How many aircraft there are.</param>
/// <param name="Items">How many items are followed.</param>
/// <param name="Counts">How many are in which state.</param>
public sealed record ShopDueView(ListPage<ShopDue> Lines, DueState? Only, int Aircraft, int Items,
    IReadOnlyDictionary<DueState, int> Counts)
    : PageView;

/// <summary>What falls due in the whole shop, most urgent first.</summary>
[OwnersSee(Through.Sight)]
[Needs(Right.Look)]
public sealed class ShopDueModel(ShopBoard board, Seen seen) : ShopPage<ShopDueView>
{
    private const int MostLines = 50;

    [FromQuery(Name = "state")]
    public DueState? Only { get; set; }

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    public async Task<IActionResult> OnGetCsvAsync(CancellationToken stop) =>
        File(DueCsv.Write([.. (await board.StandingAsync(stop)).LinesFor(await seen.OfAsync(User, stop))]), "text/csv",
            "due-shop.csv");

    protected override async Task<ShopDueView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var shop = await board.StandingAsync(stop);
        var sight = await seen.OfAsync(User, stop);
        var all = shop.DueFor(sight);
        var lines = ListPage.Of(Only is { } state ? [.. all.Where(due => due.Entry.Status.State == state)] : all, PageTyped, MostLines);
        return new(lines, Only, shop.LinesFor(sight).Count(), all.Count, all.CountBy(due => due.Entry.Status.State).ToDictionary());
    }
}
