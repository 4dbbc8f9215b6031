using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Signing;
using MellowRivet.Store;

namespace MellowRivet.Web.Pages.Walk.Engine;

/// <summary>A sheet of the engine station in its list: where it is and how far it got.</summary>
public sealed record EngineSheetLink(string Href, string Title, string Progress, string Path);

/// <summary>The list of an engine's sheets, on any page of the station.</summary>
public sealed record EngineNavView(Job Job, Component Engine)
{
    /// <summary>Every sheet of the engine, in working order.</summary>
    public IReadOnlyList<EngineSheetLink> Links => LinksOf(Engine);

    /// <summary>
    /// The place in the list of the sheet that is open, so that a change of engine stays on it; the first where none is.
    /// </summary>
    public int Here(string path) =>
        Math.Max(0, Links.ToList().FindIndex(sheet => path.Contains(sheet.Path, StringComparison.OrdinalIgnoreCase)));

    /// <summary>The sheets of another engine of the aircraft.</summary>
    public IReadOnlyList<EngineSheetLink> LinksOf(Component engine)
    {
        var (inspection, aircraft) = (Job.Inspection, Job.Aircraft);
        var walk = $"/walk/{inspection.Id}";
        var compressions = CompressionSheet.Of(aircraft, engine, inspection);
        var tray = PlugTray.Of(aircraft, engine, inspection);
        return
        [
            new($"{walk}/compressions/{engine.Id}", "Compressions",
                $"{compressions.Cylinders.Count(cylinder => cylinder.Latest is not null)} of {compressions.Cylinders.Count}",
                "compressions"),
            new($"{walk}/plugs/{engine.Id}", "Plugs", $"{tray.Places.Count(place => place.IsFinished)} of {tray.Places.Count}", "plugs"),
            .. EngineSheets.Of(aircraft, engine).Select(sheet => LinkOf(sheet, engine)),
        ];
    }

    private EngineSheetLink LinkOf(EngineSheet sheet, Component engine)
    {
        var work = SheetWork.Of(sheet, Job.Aircraft, Job.Inspection);
        var place = sheet.Carrier.Id == engine.Id ? "" : Job.Aircraft.Fitting(sheet.Carrier.Id)?.Position ?? "";
        return new(HrefOf(Job.Inspection, sheet), $"{sheet.Kind.InWords()}{(place.Length > 0 ? $", {place}" : "")}",
            $"{work.Done} of {work.All}", $"engine-sheet/{sheet.Kind}/{sheet.Carrier.Id}".ToLowerInvariant());
    }

    /// <summary>Where something that is asked for is filled in.</summary>
    public static string HrefOf(Inspection inspection, Asked asked, Guid engineId, Guid carrier) => $"/walk/{inspection.Id}/" + asked switch
    {
        Asked.Compressions => $"compressions/{engineId}",
        Asked.Plugs => $"plugs/{engineId}",
        Asked.Filter => $"engine-sheet/oil/{engineId}",
        Asked.Run => $"engine-sheet/run/{engineId}",
        Asked.Magnetos or Asked.MagnetosInPlace => $"engine-sheet/magneto/{carrier}",
        Asked.Carburettors or Asked.Floats or Asked.Balance => $"engine-sheet/carburettor/{carrier}",
        _ => $"engine-sheet/exhaust/{engineId}",
    };

    public static string HrefOf(Inspection inspection, EngineSheet sheet) =>
        $"/walk/{inspection.Id}/engine-sheet/{sheet.Kind.ToString().ToLowerInvariant()}/{sheet.Carrier.Id}";
}
