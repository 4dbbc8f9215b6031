using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>Known marks of earlier inspections: each is accepted with initials, or tested again.</summary>
public sealed class MarksModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage(desk, db, frames)
{
    public override Station At => Station.FixList;

    public DateOnly Today => clock.Today();

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await LoadAsync(stop) ? Page() : NotFound();

    [Needs(Right.InspectWork)]
    public Task<IActionResult> OnPostAcceptAsync(Guid post, Guid mark, CancellationToken stop) =>
        WriteAsync(post, job => job.Inspection.AcceptMark(mark, User.PersonId(), clock.GetUtcNow(), Today), stop);

    [Needs(Right.InspectWork)]
    public Task<IActionResult> OnPostTakeBackAsync(Guid post, Guid mark, CancellationToken stop) => WriteAsync(post, job =>
    {
        job.Inspection.UnacceptMark(mark);
        return null;
    }, stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostTestAsync(Guid post, Guid mark, CancellationToken stop) =>
        WriteAsync(post, job => job.Inspection.TestMarkAgain(post, mark, User.PersonId(), clock.GetUtcNow()).Refusal, stop);

    private async Task<IActionResult> WriteAsync(Guid post, Func<Job, Refusal?> decide, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post, decide, stop, JobParts.Tasks | JobParts.Discrepancies);
        if (written.Done)
            return Redirect($"/walk/{Id}/marks");
        if (!await LoadAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }
}
