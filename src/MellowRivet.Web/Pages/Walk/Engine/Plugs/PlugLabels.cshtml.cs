using MellowRivet.Core.Fleet;
using MellowRivet.Core.Plugs;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine.Plugs;

/// <summary>The plugs of the tray.</summary>
public sealed record PlugLabelsView(WalkShown Walk, Component Engine, PlugTray Tray) : EngineView(Walk, Engine);

/// <summary>A label for each place of the plug tray, to print.</summary>
public sealed class PlugLabelsModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock)
    : EnginePage<PlugLabelsView>(desk, db, frames, clock)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override Task<PlugLabelsView?> ViewAsync(WalkShown walk, Component engine, Refused refused, CancellationToken stop) =>
        Task.FromResult<PlugLabelsView?>(new(walk, engine, PlugTray.Of(walk.Job.Aircraft, engine, walk.Job.Inspection)));
}
