using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Apart;

/// <summary>Two answers where they stand: of one thing, or of all.</summary>
/// <param name="On">The page.</param>
/// <param name="Key">What it is about; null for all of the inspection.</param>
/// <param name="Back">Where it goes on once one is chosen.</param>
public sealed record ApartHere(WalkView On, string? Key, string Back)
{
    public IEnumerable<SaidApart> Two =>
        Key is null ? On.Job.Inspection.StillApart : On.Job.Inspection.ApartAt(Key);
}

/// <param name="Walk">What every page of the walk shows.</param>
public sealed record ApartView(WalkShown Walk) : WalkView(Walk)
{
    public override Station At => Job.Inspection.IsSurvey ? Station.Paper : Station.Close;
}

/// <summary>What was said apart: to choose between, and what was chosen.</summary>
public sealed class ApartModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage<ApartView>(desk, db, frames)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostChooseAsync(Guid post, Guid two, OfTwo chosen, string? back, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post,
            job => job.Inspection.Choose(two, chosen, job.Aircraft, Me, clock.GetUtcNow()), stop);
        return await AfterAsync(written.Refusal is { } refusal ? written with { Refusal = refusal.At($"apart-{two}") } : written,
            Url.IsLocalUrl(back) ? back : $"/walk/{Id}/apart", stop);
    }

    protected override Task<ApartView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult<ApartView?>(new(walk));
}
