using MellowRivet.Core;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Schedule;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Arrive;

/// <summary>A later edition of a worksheet than the one an inspection began with, and what changed.</summary>
public sealed record NewerEdition(Edition Edition, IReadOnlyList<WorksheetChange> Changes);

/// <summary>What a plan knows from the shop's own past.</summary>
/// <param name="Took">Hours that were booked on such inspections of this type.</param>
/// <param name="DaysIn">Days from taking in to the signature of such inspections of this type, shortest first.</param>
/// <param name="Usual">Places where sister aircraft had findings.</param>
/// <param name="Sisters">Sister aircraft that were inspected here.</param>
public sealed record PlanFromBefore(Learned Took, IReadOnlyList<int> DaysIn, IReadOnlyList<UsualPlace> Usual, int Sisters);

/// <summary>What this inspection takes.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Plan">The plan.</param>
/// <param name="Last">The last signed inspection; null where there is none.</param>
/// <param name="Newer">Worksheets that have a later edition on the shelf, by their key.</param>
/// <param name="MayKeep">Whoever looks may choose what is done.</param>
/// <param name="Before">What inspections like it took here, and what the type usually has.</param>
/// <param name="LookFirst">Zones to look into first, with the tasks that are left there.</param>
public sealed record PlanView(WalkShown Walk, WorkPlan Plan, Inspection? Last, IReadOnlyDictionary<string, NewerEdition> Newer,
    bool MayKeep, PlanFromBefore Before, IReadOnlyList<(LongWait Wait, string Title, int Left)> LookFirst)
    : WalkView(Walk)
{
    public override Station At => Station.Arrive;
}

/// <summary>What this inspection takes, on one page to print.</summary>
public sealed class PlanModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage<PlanView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    private string Here => $"/walk/{Id}/plan";
    private DateOnly Today => clock.Today();

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Leaves a due item out of the plan, or takes it in again.</summary>
    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostChooseAsync(Guid post, Guid item, bool doIt, CancellationToken stop) => WriteAsync(post, Here, job =>
    {
        job.Inspection.Plan(item, doIt);
        return null;
    }, stop, JobParts.Bare);

    /// <summary>Notes a due item as done now, with this work order.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostDoneAsync(Guid post, Guid item, CancellationToken stop)
    {
        if (await LoadAsync(stop) is not { Job: { Inspection: var inspection, Aircraft: var here } })
            return NotFound();
        return await AfterAsync(Desk.WriteFileAsync(here.Id, post, async aircraft =>
        {
            if (!inspection.InWork)
                return inspection.Closed();
            var line = await Desk.Board.InTurnAsync(aircraft.Id, stop);
            return line.Entries.FirstOrDefault(entry => entry.Item.Id == item) is { } entry
                && await Db.DueItemAsync(aircraft.Id, item, stop) is { } tracked
                ? tracked.SetDone(entry.DoneNow(Today, inspection.WorkOrder), Today)
                : new Refusal("due", "It is not on this aircraft’s due line any more.");
        }, stop), Here, stop);
    }

    /// <summary>Takes in a task that isn't due yet.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostTakeInAsync(Guid post, int order, CancellationToken stop) =>
        WriteAsync(post, Here, job => job.Inspection.TakeIn(order), stop, JobParts.Tasks);

    protected override async Task<PlanView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var inspection = walk.Job.Inspection;
        var last = await Db.LastSignedWholeAsync(inspection, stop);
        var line = await Desk.Board.LineAsync(walk.Job.Aircraft.Id, stop);
        return new(walk, WorkPlan.Of(inspection, line.OwnItems, last), last, await NewerAsync(inspection.Worksheets, stop),
            inspection.InWork && User.May(Right.KeepFile), await BeforeAsync(inspection, walk.Job.Aircraft, stop),
            await LookFirstAsync(inspection, walk.Job.Aircraft.Type, stop));
    }

    private async Task<IReadOnlyList<(LongWait Wait, string Title, int Left)>> LookFirstAsync(Inspection inspection, string type,
        CancellationToken stop)
    {
        var walk = inspection.Walk.ToLookup(task => task.ZoneKey);
        return [.. LongWaits.Of(inspection.Walk.Select(task => (task.ZoneKey, task.Text)),
                await Db.SlowFindsAsync(type, inspection.Kind, stop))
            .Select(wait => (wait, inspection.ZoneTitle(wait.ZoneKey),
                Left: walk[wait.ZoneKey].Count(task => task.Verdict == TaskVerdict.NotYet)))
            .OrderBy(wait => wait.Left == 0)];
    }

    private async Task<PlanFromBefore> BeforeAsync(Inspection inspection, Aircraft aircraft, CancellationToken stop)
    {
        var (finds, sisters) = await Db.SisterFindsAsync(aircraft, inspection.ZoneTitle, stop);
        return new(await Db.TookAsync(JobKinds.Of(inspection, aircraft.Type), clock, stop),
            await Db.DaysInAsync(inspection, aircraft.Type, clock, stop), TypeUsual.Of(finds, sisters), sisters);
    }

    private async Task<IReadOnlyDictionary<string, NewerEdition>> NewerAsync(IReadOnlyList<WorksheetUsed> sheets, CancellationToken stop)
    {
        var editions = await Db.PublishedAsync([.. sheets.Select(sheet => sheet.Key)], stop);
        return sheets
            .Select(sheet => (sheet, Then: editions[sheet.Key].FirstOrDefault(edition => edition.Version == sheet.Version),
                Now: editions[sheet.Key].MaxBy(edition => edition.Version)))
            .Where(one => one.Now is { } now && now.Version > one.sheet.Version)
            .ToDictionary(one => one.sheet.Key, one => new NewerEdition(one.Now!,
                one.Then is null ? [] : WorksheetChanges.Between(one.Then.Worksheet, one.Now!.Worksheet)));
    }
}
