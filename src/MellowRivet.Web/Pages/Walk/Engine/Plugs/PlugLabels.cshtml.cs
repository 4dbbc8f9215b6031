using MellowRivet.Core.Plugs;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine.Plugs;

/// <summary>A label for each place of the plug tray, to print.</summary>
public sealed class PlugLabelsModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : EnginePage(desk, db, frames, clock)
{
    public PlugTray Tray { get; private set; } = null!;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await LoadEngineAsync(stop))
            return NotFound();
        Tray = PlugTray.Of(Job.Aircraft, Engine, Job.Inspection);
        return Page();
    }
}
