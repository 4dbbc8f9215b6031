using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.FixList;

/// <summary>What one line is expected to take, as it is sent.</summary>
public sealed record PriceForm(int Number, string? Hours, string? Parts);

/// <summary>One line of the prices.</summary>
public sealed record PriceLine(PricesView On, Discrepancy Found);

/// <summary>Hours and parts of everything open, down the list like a sheet.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="MayPrice">Whoever looks may put prices down.</param>
public sealed record PricesView(WalkShown Walk, bool MayPrice) : WalkView(Walk)
{
    public override Station At => Station.FixList;

    /// <summary>What is open, the worst first.</summary>
    public IReadOnlyList<Discrepancy> Lines =>
        [.. FixListRules.WorstFirst(Job.Inspection.Discrepancies.Where(found => found.IsOpen))];

    /// <summary>The sum of every line that has a price.</summary>
    public decimal Total => Lines.Sum(found => found.Estimate?.Total(Job.Inspection.House) ?? 0);

    /// <summary>What was typed at a line and not taken; null for another.</summary>
    public PriceForm? TypedFor(Discrepancy found) => Typed<PriceForm>() is { } form && form.Number == found.Number ? form : null;
}

/// <summary>Prices typed down the fix list.</summary>
public sealed class PricesModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage<PricesView>(desk, db, frames)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostPriceAsync(Guid post, int number, string? hours, string? parts, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post, job =>
        {
            if (job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == number) is not { } found)
                return new("estimate", "There is no such line.");
            var (estimate, refusal) = Estimate.Read(hours, parts, found.Estimate?.PartsBy);
            return estimate is null ? refusal : found.Expect(estimate);
        }, stop, JobParts.Discrepancies);
        if (!ReadableFields.IsByScript(Request))
            return await AfterAsync(written, $"/walk/{Id}/fix-list/prices", stop, new PriceForm(number, hours, parts));
        var refused = written.Refusal is { } wrong ? new Refused(new PriceForm(number, hours, parts), [wrong]) : null;
        return await MakeAsync(stop, refused) && View.Lines.FirstOrDefault(found => found.Number == number) is { } line
            ? Partial("_PriceSaved", new PriceLine(View, line))
            : NotFound();
    }

    protected override Task<PricesView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult<PricesView?>(new(walk, walk.Job.Inspection.InWork && User.May(Right.CorrectDiscrepancies)));
}
