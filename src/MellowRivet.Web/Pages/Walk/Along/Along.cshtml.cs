using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;
using MellowRivet.Web.Pages.Shared;
using MellowRivet.Web.Pages.Walk.Found;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Along;

/// <param name="Walk">What every page of the walk shows.</param>
public sealed record AlongView(WalkShown Walk) : WalkView(Walk)
{
    public override Station At => Job.Inspection.IsSurvey ? Station.Paper : Station.Arrive;
}

/// <summary>What a device fetches to have an inspection with it.</summary>
/// <param name="Title">What it is called on the device.</param>
/// <param name="Start">Where it begins: what these pages lead to within the walk comes along.</param>
/// <param name="Keys">What of an address names a page of its own; without the rest it is the same page.</param>
/// <param name="Not">The pages that are nothing without the shop, by what follows the walk's own address.</param>
/// <param name="Version">Which program it is of.</param>
public sealed record AlongList(string Title, IReadOnlyList<string> Start, IReadOnlyList<string> Keys, IReadOnlyList<string> Not,
    string Version);

/// <summary>What was said on a device before its inspection was signed without it.</summary>
public sealed class LateForm
{
    public Guid Post { get; set; }
    public string? Words { get; set; }
    public string? Zone { get; set; }

    /// <summary>It tells of nothing that was found or measured.</summary>
    public bool Calm { get; set; }
    public IReadOnlyList<IFormFile> Photos { get; set; } = [];

    /// <summary>What was drawn on them, each as JSON.</summary>
    public List<string> Drawn { get; set; } = [];
}

/// <summary>Takes an inspection along, to where there is no network.</summary>
[EnableRateLimiting("uploads")]
public sealed class AlongModel(Desk desk, RivetDb db, KeptFrames frames, Uploads uploads, Shelf shelf, WorkClock clock)
    : WalkPage<AlongView>(desk, db, frames)
{
    private static readonly string[] Named = ["hole", "cylinder", "zone", "b", "step", "newTest"];

    private static readonly string[] Asking =
    [
        "close", "records", "order", "money", "survey-report", "labels", "plug-labels", "engine-logs", "pressure-altitude",
        "fix-list/owner", "fix-list/choices", "fix-list/estimate", "fix-list/report", "fix-list/prices", "along", "events",
    ];

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnGetListAsync(CancellationToken stop)
    {
        if (!await MakeAsync(stop))
            return NotFound();
        var (id, aircraft) = (View.Id, View.Job.Aircraft);
        return new JsonResult(new AlongList($"{aircraft.Registration} · {View.Job.Inspection.WorkOrder}",
            [$"/walk/{id}", .. View.Stations.Select(View.HrefOf),
                .. new[] { "find", "inspect", "marks", "look", "tags", "tools", "apart" }.Select(page => $"/walk/{id}/{page}"),
                .. aircraft.Engines.Any() ? new[] { $"/walk/{id}/compressions", $"/walk/{id}/plugs" } : []],
            Named, Asking, DeviceApi.Version));
    }

    /// <summary>What the device judges by where the shop can't be asked.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnGetJudgingAsync(CancellationToken stop) => await LookAsync(JobParts.Whole, stop) is { } job
        ? new JsonResult(Judging.Of(job.Aircraft, job.Inspection, await Db.FilterCutsBesideAsync(job.Aircraft.Id, Id, stop),
            await Db.WrenchesAsync(stop)), Judging.Json)
        : NotFound();

    /// <summary>Leaves open on the aircraft what was said before the inspection was signed without it.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostLateAsync(LateForm form, CancellationToken stop)
    {
        var at = clock.GetUtcNow();
        if (string.IsNullOrWhiteSpace(form.Words) || await Desk.SignedSinceAsync(Id, at, stop) is null)
            return new UnprocessableEntityResult();
        var taken = await uploads.TakeInAsync([.. form.Photos], [], stop);
        if (taken.Refusals.Count > 0)
            return new UnprocessableEntityResult();
        // What can't be drawn there doesn't keep the picture out.
        var (photos, _) = DrawnBefore.On(taken.Photos, form.Drawn);
        var (written, number) = await Desk.LeaveLateAsync(Id, new(form.Post, form.Words, form.Zone, at, photos, form.Calm),
            shelf.Classes, Me, stop);
        return number is null || !(written.Done || written.Repeated) ? new UnprocessableEntityResult()
            : new JsonResult(new { number, href = await HrefAsync(number, stop) });
    }

    private async Task<string> HrefAsync(string number, CancellationToken stop) =>
        $"/aircraft/{(await LookAsync(JobParts.Bare, stop))!.Aircraft.Id}/open-items#item-{number}";

    protected override Task<AlongView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        Task.FromResult<AlongView?>(new(walk));
}
