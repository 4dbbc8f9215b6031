using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Surveying;

/// <summary>What one of the two sides reads of a survey.</summary>
/// <param name="Job">Its walk and its aircraft.</param>
/// <param name="Stand">How it stands.</param>
/// <param name="Side">Whose it is: the seller's has neither limit, price in order, reserve nor verdict.</param>
/// <param name="Names">Who looked, by id.</param>
/// <param name="Pictures">Where its pictures are.</param>
/// <param name="Papers">What the papers tell; null on the seller's.</param>
public sealed record SideReport(Job Job, SurveyStand Stand, LinkFor Side, Func<Guid, string> Names, string Pictures, PaperTrail? Papers)
{
    public Inspection Inspection => Job.Inspection;
    public HouseRules House => Inspection.House;
    public bool IsBuyers => Side == LinkFor.Buyer;

    /// <summary>What was found, worst first, dearest first among alike.</summary>
    public IEnumerable<FindingStand> Findings => Stand.Findings.OrderByDescending(found => found.Mark.Stops)
        .ThenBy(found => found.Found.Class).ThenByDescending(found => found.Cost?.Likely ?? 0);

    /// <summary>Who answered something of it.</summary>
    public IEnumerable<string> Lookers => Inspection.Tasks.Select(task => task.By).Concat(Inspection.Discrepancies
        .Select(found => (Guid?)found.FoundBy)).OfType<Guid>().Distinct().Select(Names).Where(name => name.Length > 0).Order();
}

/// <summary>The report of a survey.</summary>
public sealed record SurveyReportView(WalkShown Walk, SideReport Report) : WalkView(Walk)
{
    public override Station At => Station.Money;
}

/// <summary>The report for the buyer, or the list for the seller, to print.</summary>
[Needs(Right.RecordWork)]
public sealed class SurveyReportModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage<SurveyReportView>(desk, db, frames)
{
    [FromQuery]
    public LinkFor Side { get; set; } = LinkFor.Buyer;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<SurveyReportView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        walk.Frame.Survey is not { } stand ? null
        : new(walk, new(walk.Job, stand, Side == LinkFor.Seller ? LinkFor.Seller : LinkFor.Buyer,
            who => walk.Weighed.People.GetValueOrDefault(who)?.Name ?? "", "/photos", await Db.PapersAsync(walk.Job.Aircraft,
                await Desk.Board.LineAsync(walk.Job.Aircraft.Id, stop), stand.Survey.Rules, stop)));
}
