using MellowRivet.Core.Due;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Fleet;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages;

/// <summary>One line of the shop's due list.</summary>
public sealed record ShopDue(DueLine Line, DueEntry Entry);

/// <summary>What falls due in the whole shop, most urgent first.</summary>
[Needs(Right.Look)]
public sealed class ShopDueModel(ShopBoard board) : PageModel
{
    /// <summary>Most lines shown: what is far off has its place on the aircraft's own due line, and in the CSV.</summary>
    private const int Most = 150;

    [FromQuery(Name = "state")]
    public DueState? Only { get; set; }

    public IReadOnlyList<ShopDue> Shown { get; private set; } = [];
    public int Aircraft { get; private set; }
    public int Items { get; private set; }
    public IReadOnlyDictionary<DueState, int> Counts { get; private set; } = new Dictionary<DueState, int>();
    public bool LeavesOut => Shown.Count == Most;

    public async Task OnGetAsync(CancellationToken stop)
    {
        var lines = (await board.NowAsync(stop)).Lines.ToList();
        var all = lines.SelectMany(line => line.Entries.Select(entry => new ShopDue(line, entry))).ToList();
        (Aircraft, Items) = (lines.Count, all.Count);
        Counts = all.GroupBy(due => due.Entry.Status.State).ToDictionary(group => group.Key, group => group.Count());
        Shown = [.. all.Where(due => Only is not { } state || due.Entry.Status.State == state)
            .OrderBy(due => DueLine.Rank(due.Entry.Status.State)).ThenBy(due => due.Entry.Status.Forecast ?? DateOnly.MaxValue).Take(Most)];
    }

    public async Task<IActionResult> OnGetCsvAsync(CancellationToken stop) => File(DueCsv.Write([.. (await board.NowAsync(stop)).Lines]), "text/csv", "due-shop.csv");
}
