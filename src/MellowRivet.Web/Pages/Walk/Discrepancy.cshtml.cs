using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>One discrepancy: its pictures, its class, and what was done about it.</summary>
public sealed class DiscrepancyModel(Desk desk, RivetDb db, TimeProvider clock) : WalkPage(desk, db)
{
    [FromRoute]
    public int Number { get; set; }

    public override Station At => Station.FixList;
    public override string? ZoneHere => Found.ZoneKey;

    public Discrepancy Found { get; private set; } = null!;
    public string? TypedAction { get; private set; }

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostCorrectAsync(Guid post, string? action, CancellationToken stop)
    {
        TypedAction = action;
        return ChangeAsync(post, found => found.Correct(action, User.PersonId(), clock.GetUtcNow()), stop);
    }

    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostClassifyAsync(Guid post, int version, DiscrepancyClass @class, bool grounded, CancellationToken stop) =>
        ChangeAsync(post, found =>
        {
            if (!Enum.IsDefined(@class))
                return new("class", "Choose what it means for the aircraft.");
            if (found.Version != version)
                return new("class", $"Someone changed this while you had it open: it is now {found.Class.InWords()}. Set yours again if it still holds.");
            found.Classify(@class, grounded);
            return null;
        }, stop);

    private async Task<IActionResult> ChangeAsync(Guid post, Func<Discrepancy, Refusal?> change, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post, job => job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number) is { } found
            ? change(found)
            : new Refusal("inspection", "There is no such discrepancy on this fix list."), stop);
        if (written.Done)
            return Redirect($"/walk/{Id}/fix-list/{Number}");
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop) || Job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number) is not { } found)
            return false;
        Found = found;
        return true;
    }
}
