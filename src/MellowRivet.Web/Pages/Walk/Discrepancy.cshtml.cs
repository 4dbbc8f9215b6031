using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

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

    /// <summary>Its place on the due line; null where it has none.</summary>
    public DueItem? Watched { get; private set; }

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostCorrectAsync(Guid post, string? action, CancellationToken stop)
    {
        TypedAction = action;
        return ChangeAsync(post, found =>
        {
            if (found.Correct(action, User.PersonId(), clock.GetUtcNow()) is { } refusal)
                return refusal;
            Db.DueItems.FirstOrDefault(item => item.DiscrepancyId == found.Id && item.RetiredWhy == null)?.Retire("corrected");
            return null;
        }, stop);
    }

    /// <summary>Puts a watched discrepancy on the due line: to be looked at again by a day, or within hours.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostWatchAsync(Guid post, DateOnly? by, string? hours, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
        var written = await Desk.WriteFileAsync(Job.Aircraft.Id, post, async aircraft =>
        {
            var within = TypedNumber.ParseHours(hours);
            if ((by is null && within is null) || by <= today || by is { Year: > 2199 } || within is { Value: 0 } || (within is null && !string.IsNullOrWhiteSpace(hours)))
                return new Refusal("watch", "A day to come, hours from now, or both: whichever comes first.");
            Interval interval = new(EveryHours: within?.Value, NotAfter: by);
            var source = new RuleSource(Standing.Practice, $"watched since {Job.Inspection.WorkOrder}-{Found.Number:00}");
            var item = await Db.DueItems.FirstOrDefaultAsync(row => row.DiscrepancyId == Found.Id && row.RetiredWhy == null, stop)
                ?? Db.DueItems.Add(new DueItem(Guid.CreateVersion7(), aircraft.Id, null, "", DueKind.Watch, interval, source) { DiscrepancyId = Found.Id }).Entity;
            item.Change($"Look again: {(Found.What.Length > 100 ? Found.What[..100] + "…" : Found.What)}", interval, source, item.LabourHours);
            return item.MarkDone(new(today, aircraft.TimeInService.Value, null, null, null, Job.Inspection.WorkOrder), today);
        }, stop);
        if (written.Done)
            return Redirect($"/walk/{Id}/fix-list/{Number}");
        Refuse(written.Refusal!);
        return Page();
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
        Watched = await Db.DueItems.AsNoTracking().FirstOrDefaultAsync(item => item.DiscrepancyId == found.Id && item.RetiredWhy == null, stop);
        return true;
    }
}
