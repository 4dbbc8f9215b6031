using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.LookAndOpen;

/// <summary>A witness mark as it is sent.</summary>
public sealed class WitnessMarkForm
{
    public Guid Post { get; set; }
    public WitnessOf? Of { get; set; }
    public WitnessAmount? Amount { get; set; }
    public string? Where { get; set; }
    public WitnessThen? Then { get; set; }
}

/// <summary>Why a first look was missed, as it is sent.</summary>
public sealed record MissedForm(string? Why);

/// <summary>The looks of each zone, one of them open.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Current">The zone that is open; null where the walk has none.</param>
/// <param name="Last">The last signed inspection of this aircraft, for its marks; null where there is none.</param>
public sealed record LookView(WalkShown Walk, ZoneLook? Current, Inspection? Last) : LookAndOpenView(Walk)
{
    public override string? ZoneHere => Zone;
    public string? Zone => Current?.ZoneKey;
    public WitnessMarkForm Mark => Typed<WitnessMarkForm>() ?? new();
    public string? Why => Typed<MissedForm>()?.Why;

    /// <summary>
    /// The mark of last time that one stands beside: of the same kind in the same zone, the worst where there were several.
    /// </summary>
    public WitnessMark? LastOf(WitnessOf of) => Last?.LastWitnessMark(Zone, of);
}

/// <summary>Each zone's way from dirty to looked at again, with what was seen before it was wiped away.</summary>
public sealed class LookModel(Desk desk, RivetDb db, KeptFrames frames, Uploads uploads, WorkClock clock)
    : LookPage<LookView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    [FromQuery(Name = "zone")]
    public string? Zone { get; set; }

    // What is written down for a mark stands beside it.
    private string Here => $"look?zone={Zone}";

    /// <summary>Does a look of this zone, and leads on to the next that waits for the same.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostLookedAsync(Guid post, LookStep look, CancellationToken stop) =>
        await LookAsync(JobParts.Tasks, stop) is not { } job ? NotFound()
            : await BackAsync(post, $"look?zone={job.Inspection.NextFor(look, Zone)?.ZoneKey ?? Zone}",
                on => on.Inspection.Looked(Zone, look, Me, clock.GetUtcNow()), stop);

    /// <summary>Every zone that waits for it was cleaned in one go.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostCleanedAsync(Guid post, CancellationToken stop) =>
        BackAsync(post, Here, job => job.Inspection.CleanedAll(Me, clock.GetUtcNow()), stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostAgainAsync(Guid post, CancellationToken stop) => BackAsync(post, Here, job =>
    {
        job.Inspection.LookAgain(Zone);
        return null;
    }, stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostMissedAsync(Guid post, string? why, CancellationToken stop) =>
        BackAsync(post, Here, job => job.Inspection.MissFirstLook(Zone, why), stop, new MissedForm(why));

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostMarkAsync(WitnessMarkForm form, IFormFile? photo, CancellationToken stop)
    {
        if (await LookAsync(JobParts.Tasks, stop) is not { Inspection: var inspection })
            return NotFound();
        Zone = ZoneOf(inspection)?.ZoneKey;
        var last = form.Of is { } of ? (await Db.LastSignedAsync(inspection, stop))?.LastWitnessMark(Zone, of) : null;
        var taken = await uploads.TakeInAsync(photo, stop);
        return await BackAsync(form.Post, Here, job => taken.Wrong("mark")
            ?? job.Inspection.See(form.Post, Zone, form.Of, form.Amount, form.Where, form.Then, last, taken.Photo, Me, clock.GetUtcNow()),
            stop, form, JobParts.Whole);
    }

    protected override async Task<LookView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        new(walk, ZoneOf(walk.Job.Inspection), await Db.LastSignedAsync(walk.Job.Inspection, stop));

    // The one that is asked for, else the first that wants a look.
    private ZoneLook? ZoneOf(Inspection inspection) => inspection.Looks.FirstOrDefault(zone => zone.ZoneKey == Zone)
        ?? inspection.Looks.FirstOrDefault(zone => zone.Next(inspection.House) is not null)
        ?? (inspection.Looks.Count > 0 ? inspection.Looks[0] : null);
}
