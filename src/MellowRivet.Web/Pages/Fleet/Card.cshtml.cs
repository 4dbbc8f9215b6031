using MellowRivet.Core.Due;
using MellowRivet.Core.OpenItems;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>What comes next, on one card.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Inspections">Inspections, soonest first.</param>
/// <param name="Others">What else falls due, soonest first: services, parts, bulletins, what is watched.</param>
/// <param name="More">How much more there is than the card has room for.</param>
/// <param name="Again">What is looked at again at the next inspection: known marks, what is watched, what was left open.</param>
public sealed record CardView(FileShown File, IReadOnlyList<DueEntry> Inspections, IReadOnlyList<DueEntry> Others, int More,
    IReadOnlyList<string> Again) : FileView(File)
{
    public override FilePage At => FilePage.Due;
}

/// <summary>The card for the windscreen, with its calendar file.</summary>
public sealed class CardModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage<CardView>(desk, db, clock)
{
    /// <summary>What fits on a card of 140 × 90 mm beside the inspections.</summary>
    private const int Most = 6;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<CardView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop)
    {
        var told = (await Desk.Board.LineAsync(Id, stop)).Entries
            .Where(entry => entry.Status.Limbs.Any(limb => limb.DueOn is not null || limb.DueAt is not null)).ToList();
        var others = told.Where(entry => entry.Item.Kind != DueKind.Inspection).ToList();
        return new(file, [.. told.Where(entry => entry.Item.Kind == DueKind.Inspection)], [.. others.Take(Most)],
            Math.Max(0, others.Count - Most),
            [.. (await Db.OpenItemsAsync(Id, stop)).Select(item => $"{item.What} ({item.Because.InWords()})"),
                .. (await Db.KnownMarksAsync(Id, stop)).Select(mark => $"{mark.What} (known mark)")]);
    }
}
