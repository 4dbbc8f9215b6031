using MellowRivet.Core.Fleet;
using MellowRivet.Store;

namespace MellowRivet.Web.Pages.Walk.Engine;

/// <summary>The list of an engine's sheets, on any page of the station.</summary>
public sealed record EngineNavView(Job Job, Component Engine)
{
    /// <summary>The place in the list of the sheet that is open, so that a change of engine stays on it.</summary>
    public int Here(string path) =>
        Math.Max(0, EnginePage.SheetLinks(Job, Engine).ToList()
            .FindIndex(sheet => path.Contains(sheet.Path, StringComparison.OrdinalIgnoreCase)));
}
