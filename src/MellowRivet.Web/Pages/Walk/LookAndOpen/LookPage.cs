using MellowRivet.Core;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.LookAndOpen;

/// <summary>What a page of the station Look &amp; open shows.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
public abstract record LookAndOpenView(WalkShown Walk) : WalkView(Walk)
{
    public override Station At => Station.LookAndOpen;

    /// <summary>The places of the walk, in order: a run and the papers are none.</summary>
    public IReadOnlyList<(string Key, string Title)> Zones => Job.Inspection.Looks.Count > 0
        ? [.. Job.Inspection.Looks.Select(zone => (zone.ZoneKey, zone.Title))]
        : [.. Job.Inspection.Walk.Select(task => (task.ZoneKey, task.ZoneTitle)).Distinct()];
}

/// <summary>A page of the station Look &amp; open: looks, panels and bags, tools.</summary>
public abstract class LookPage<TView>(Desk desk, RivetDb db, KeptFrames frames) : WalkPage<TView>(desk, db, frames)
    where TView : LookAndOpenView
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Writes, then goes back to a page of the station, or shows this one again with what is wrong beside its field.</summary>
    protected Task<IActionResult> BackAsync(Guid post, string page, Func<Job, Refusal?> decide, CancellationToken stop,
        object? typed = null, JobParts parts = JobParts.Tasks) =>
        WriteAsync(post, $"/walk/{Id}/{page}", decide, stop, parts, typed);
}
