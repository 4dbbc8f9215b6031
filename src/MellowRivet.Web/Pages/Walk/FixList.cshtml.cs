using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Look;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>Discrepancies of one state, in the order they were found.</summary>
public sealed record FindGroup(State Key, string Title, IReadOnlyList<Discrepancy> Found);

public sealed class FixListModel(Desk desk, RivetDb db) : WalkPage(desk, db)
{
    public override Station At => Station.FixList;

    public IReadOnlyList<FindGroup> Groups { get; private set; } = [];

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        Groups = [.. Job.Inspection.Discrepancies
            .GroupBy(States.Of).OrderByDescending(group => group.Key)
            .Select(group => new FindGroup(group.Key, group.Key == State.Good ? "corrected" : group.Key.Word(), [.. group.OrderBy(found => found.Number)]))];
        return Page();
    }
}
