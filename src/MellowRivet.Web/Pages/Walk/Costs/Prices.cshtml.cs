using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Costs;

/// <summary>What one line is expected to take, as it is sent.</summary>
public sealed record PriceForm(string? Key, string? Hours, string? Parts, string? Outside)
{
    /// <summary>The estimate, over what stood there.</summary>
    public (Estimate? Estimate, Refusal? Refusal) Read(Estimate? was) => Estimate.Read(Hours, Parts, Outside, was);
}

/// <summary>One line of the prices.</summary>
public sealed record PriceLine(PricesView On, PricedLine Line)
{
    public string Key => Line.Key;
    public IPriced Priced => Line.Priced;
    public Discrepancy? Found => Priced as Discrepancy;

    /// <summary>It can still be priced: nothing that is done or withdrawn changes its price.</summary>
    public bool MayPrice => On.MayPrice && Found?.IsOpen != false && Line.Kind != WorkKind.Choice;

    /// <summary>What was typed at it and not taken; null where nothing was.</summary>
    public PriceForm? Typed => On.Typed<PriceForm>() is { } form && form.Key == Key ? form : null;
}

/// <summary>What everything costs, down the list like a sheet.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Estimate">What has a price, or may have one.</param>
/// <param name="MayPrice">Whoever looks may put prices down.</param>
public sealed record PricesView(WalkShown Walk, JobEstimate Estimate, bool MayPrice) : WalkView(Walk)
{
    public override Station At => Station.FixList;

    public HouseRules House => Job.Inspection.House;

    /// <summary>Its lines: known marks cost nothing, and have none.</summary>
    public IEnumerable<PriceLine> Lines => Estimate.Lines.Where(line => line.Class != DiscrepancyClass.KnownMark
        || line.Priced.Estimate is not null).Select(line => new PriceLine(this, line));
}

/// <summary>Prices typed down the fix list.</summary>
[Needs(Right.RecordWork)]
public sealed class PricesModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage<PricesView>(desk, db, frames)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostPriceAsync(Guid post, PriceForm form, CancellationToken stop)
    {
        // A line of the list is found without the plan.
        var due = int.TryParse(form.Key, out _) ? [] : await Desk.DuePlannedAsync(Id, stop);
        var written = await Desk.WriteAsync(Id, post, job => job.Inspection.Expect(form.Key, form.Read, job.Inspection.Unpriced(due), Me,
            clock.GetUtcNow()), stop, JobParts.Discrepancies);
        if (!ReadableFields.IsByScript(Request))
            return await AfterAsync(written, $"/walk/{Id}/fix-list/prices", stop, form);
        var refused = written.Refusal is { } wrong ? new Refused(form, [wrong]) : null;
        return await MakeAsync(stop, refused) && View.Lines.FirstOrDefault(line => line.Key == form.Key) is { } line
            ? Partial("_PriceSaved", line)
            : NotFound();
    }

    protected override async Task<PricesView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var inspection = walk.Job.Inspection;
        var estimate = JobEstimate.Of(inspection);
        if (inspection.InWork)
            estimate = estimate with
            {
                Lines = [.. inspection.Unpriced(await Desk.DuePlannedAsync(inspection, stop)).Select(PricedLine.Of)
                    .Concat(estimate.Lines).OrderBy(line => line.Kind switch
                    {
                        WorkKind.Inspection => 0,
                        WorkKind.Found => 1,
                        _ => 2,
                    })],
            };
        return new(walk, estimate, inspection.InWork && User.May(Right.CorrectDiscrepancies));
    }
}
