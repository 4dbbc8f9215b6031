using MellowRivet.Core;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>Known marks of earlier inspections.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Today">The day, for how long each holds.</param>
public sealed record KnownMarksView(WalkShown Walk, DateOnly Today) : WalkView(Walk)
{
    public override Station At => Station.FixList;
}

/// <summary>Known marks of earlier inspections: each is accepted with initials, or tested again.</summary>
public sealed class KnownMarksModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock)
    : WalkPage<KnownMarksView>(desk, db, frames)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.InspectWork)]
    public Task<IActionResult> OnPostAcceptAsync(Guid post, Guid mark, CancellationToken stop) =>
        OnKnownMarkAsync(post, inspection => inspection.AcceptKnownMark(mark, Me, clock.GetUtcNow(), clock.Today()), stop);

    [Needs(Right.InspectWork)]
    public Task<IActionResult> OnPostTakeBackAsync(Guid post, Guid mark, CancellationToken stop) => OnKnownMarkAsync(post, inspection =>
    {
        inspection.UnacceptKnownMark(mark);
        return null;
    }, stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostTestAsync(Guid post, Guid mark, CancellationToken stop) =>
        OnKnownMarkAsync(post, inspection => inspection.TestKnownMarkAgain(post, mark, Me, clock.GetUtcNow()).Refusal, stop);

    private Task<IActionResult> OnKnownMarkAsync(Guid post, Func<Inspection, Refusal?> decide, CancellationToken stop) =>
        WriteAsync(post, $"/walk/{Id}/marks", job => decide(job.Inspection), stop, JobParts.Tasks | JobParts.Discrepancies);

    protected override Task<KnownMarksView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult<KnownMarksView?>(new(walk, clock.Today()));
}
