using MellowRivet.Core;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Arrive;

/// <summary>What this inspection takes, on one page to print.</summary>
public sealed class PlanModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage(desk, db, frames)
{
    public override Station At => Station.Arrive;

    public WorkPlan Plan { get; private set; } = null!;
    public Inspection? Last { get; private set; }

    /// <summary>Worksheets that have a later edition on the shelf than the one the inspection began with, and what changed.</summary>
    public IReadOnlyDictionary<string, (Edition Edition, IReadOnlyList<WorksheetChange> Changes)> Newer { get; private set; } =
        new Dictionary<string, (Edition, IReadOnlyList<WorksheetChange>)>();

    public bool MayKeep => Job.Inspection.InWork && User.May(Right.KeepFile);

    private DateOnly Today => clock.Today();

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>Leaves a due item out of the plan, or takes it in again.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostChooseAsync(Guid post, Guid item, bool doIt, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post, job =>
        {
            job.Inspection.Plan(item, doIt);
            return null;
        }, stop, JobParts.Bare);
        return await AfterAsync(written, stop);
    }

    /// <summary>Notes a due item as done now, with this work order.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostDoneAsync(Guid post, Guid item, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        var written = await Desk.WriteFileAsync(Job.Aircraft.Id, post, async aircraft =>
        {
            if (!Job.Inspection.InWork)
                return Job.Inspection.Closed();
            var line = await Desk.Board.InTurnAsync(aircraft.Id, stop);
            if (line.Entries.FirstOrDefault(entry => entry.Item.Id == item) is not { } entry
                || await Db.DueItemAsync(aircraft.Id, item, stop) is not { } tracked)
                return new Refusal("due", "It is not on this aircraft’s due line any more.");
            return tracked.MarkDone(entry.DoneNow(Today, Job.Inspection.WorkOrder), Today);
        }, stop);
        return await AfterAsync(written, stop);
    }

    /// <summary>Takes in a task that isn't due yet.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostTakeInAsync(Guid post, int order, CancellationToken stop) =>
        await AfterAsync(await Desk.WriteAsync(Id, post, job => job.Inspection.TakeIn(order), stop, JobParts.Tasks), stop);

    private async Task<IActionResult> AfterAsync(Written written, CancellationToken stop)
    {
        if (written.Done)
            return Redirect($"/walk/{Id}/plan");
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        var inspection = Job.Inspection;
        Last = await Db.LastSignedWholeAsync(inspection, stop);
        var keys = inspection.Sheets.Select(sheet => sheet.Key).ToList();
        var editions = await Db.PublishedAsync(keys, stop);
        Newer = inspection.Sheets.Select(
            sheet => (sheet, then: editions[sheet.Key].FirstOrDefault(edition => edition.Version == sheet.Version), now: editions[sheet.Key]
                .MaxBy(edition => edition.Version)))
            .Where(pair => pair.now is { } now && now.Version > pair.sheet.Version)
            .ToDictionary(pair => pair.sheet.Key,
                pair => (pair.now!, pair.then is null ? [] : WorksheetChanges.Between(pair.then.Sheet, pair.now!.Sheet)));
        Plan = WorkPlan.Of(inspection, (await Desk.Board.LineAsync(Job.Aircraft.Id, stop)).OwnItems, Last);
        return true;
    }
}
