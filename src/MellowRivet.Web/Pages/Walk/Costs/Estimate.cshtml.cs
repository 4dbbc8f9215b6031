using MellowRivet.Core;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Costs;

/// <summary>The estimate as it is handed to the owner, and the work with its hours and parts.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Estimate">What has a price.</param>
/// <param name="Booked">Hours booked at the inspection.</param>
/// <param name="Today">The day.</param>
public sealed record EstimateView(WalkShown Walk, JobEstimate Estimate, IReadOnlyList<BookedTime> Booked, DateOnly Today) : WalkView(Walk)
{
    public override Station At => Station.FixList;

    /// <summary>Lines that were priced and asked, agreed or declined: what the shop hasn't put to the owner isn't handed over.</summary>
    public IEnumerable<PricedLine> Lines => Estimate.Lines.Where(line => line.Priced.Decided() != Decision.Open
        && (line.Priced.Price(Estimate.House) is not null || line.Priced.Decided() != Decision.Agreed));

    public decimal HoursOn(string key) => Booked.Where(row => row.Key == key).Sum(row => row.Hours ?? 0);
}

/// <summary>The estimate for the owner, to print, and the summary of the work for whoever writes the invoice.</summary>
public sealed class EstimateModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage<EstimateView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<EstimateView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        new(walk, JobEstimate.Of(walk.Job.Inspection), await Db.BookedAtAsync(Id, stop), clock.Today());
}
