using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.LookAndOpen;

/// <summary>A witness mark as it is sent.</summary>
public sealed class MarkForm
{
    public Guid Post { get; set; }
    public WitnessOf? Of { get; set; }
    public WitnessAmount? Amount { get; set; }
    public string? Where { get; set; }
    public WitnessThen? Then { get; set; }
}

/// <summary>Each zone's way from dirty to looked at again, with what was seen before it was wiped away.</summary>
public sealed class LookModel(Desk desk, RivetDb db, KeptFrames frames, PhotoFiles photos, TimeProvider clock)
    : LookPage(desk, db, frames, photos)
{
    [FromQuery(Name = "zone")]
    public string? Zone { get; set; }

    public override string? ZoneHere => Zone;

    public ZoneLook? Current { get; private set; }

    /// <summary>The last signed inspection of this aircraft, for its marks; null where there is none.</summary>
    public Inspection? Last { get; private set; }
    public MarkForm Typed { get; private set; } = new();
    public string? Why { get; private set; }

    /// <summary>
    /// The mark of last time that one stands beside: of the same kind in the same zone, the worst where there were several.
    /// </summary>
    public WitnessMark? LastOf(WitnessOf of) =>
        Last?.WitnessMarks.Where(mark => mark.ZoneKey == Zone && mark.Of == of).MaxBy(mark => mark.Amount);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostLookedAsync(Guid post, LookStep look, CancellationToken stop) =>
        WriteAsync(post, $"look?zone={Zone}", job => job.Inspection.Looked(Zone, look, User.PersonId(), clock.GetUtcNow()), stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostAgainAsync(Guid post, CancellationToken stop) => WriteAsync(post, $"look?zone={Zone}", job =>
    {
        job.Inspection.LookAgain(Zone);
        return null;
    }, stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostMissedAsync(Guid post, string? why, CancellationToken stop) =>
        WriteAsync(post, $"look?zone={Zone}", job => job.Inspection.MissFirstLook(Zone, why), stop, () => Why = why);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostMarkAsync(MarkForm form, IFormFile? photo, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        var last = form.Of is { } of ? LastOf(of) : null;
        var (picture, refusal) = await TakeInAsync(photo, "mark", stop);
        return await WriteAsync(form.Post, $"look?zone={Zone}", job => refusal
            ?? job.Inspection.See(form.Post, Zone, form.Of, form.Amount, form.Where, form.Then, last, picture, User.PersonId(),
                clock.GetUtcNow()), stop, () => Typed = form, JobParts.Whole);
    }

    protected override async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        var looks = Job.Inspection.Looks;
        Current = looks.FirstOrDefault(zone => zone.ZoneKey == Zone)
            ?? looks.FirstOrDefault(zone => zone.Next(Job.Inspection.House) is not null) ?? (looks.Count > 0 ? looks[0] : null);
        Zone = Current?.ZoneKey;
        Last = await Db.LastSignedAsync(Job.Inspection, stop);
        return true;
    }
}
