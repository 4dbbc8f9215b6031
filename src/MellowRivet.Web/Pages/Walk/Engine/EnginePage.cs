using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine;

/// <summary>A sheet of the engine station in its list: where it is and how far it got.</summary>
public sealed record EngineSheetLink(string Href, string Title, string Progress, string Path);

/// <summary>A page of the engine station about one engine of the aircraft.</summary>
public abstract class EnginePage(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage(desk, db, frames)
{
    [FromRoute(Name = "engine")]
    public Guid? EngineId { get; set; }

    public override Station At => Station.Engine;
    protected override JobParts Shows => JobParts.Engine;
    public override string? ZoneHere => Job.Inspection.Tasks.FirstOrDefault(task => task.IsCompression)?.ZoneKey ?? "engine";

    public Component Engine { get; private set; } = null!;

    protected TimeProvider Clock => clock;
    protected DateOnly Today => clock.Today();

    /// <summary>The engine the address names, or the first.</summary>
    protected Component? EngineOf(Aircraft aircraft) => (EngineId is { } id
        ? aircraft.Engines.FirstOrDefault(engine => engine.ComponentId == id)
        : aircraft.Engines.FirstOrDefault())?.Component;

    /// <summary>The other engines of a twin, to change over.</summary>
    public IReadOnlyList<Installation> Engines => [.. Job.Aircraft.Engines];

    protected async Task<bool> LoadEngineAsync(CancellationToken stop, Job? written = null)
    {
        if (!await LoadAsync(stop, written) || EngineOf(Job.Aircraft) is not { } engine)
            return false;
        WorkOn(engine);
        return true;
    }

    protected void WorkOn(Component engine) => (Engine, EngineId) = (engine, engine.Id);

    /// <summary>Does the work on the engine the address names.</summary>
    protected Task<Written> WriteAsync(Guid post, Func<Job, Component, Refusal?> decide, CancellationToken stop) =>
        Desk.WriteAsync(Id, post, job => EngineOf(job.Aircraft) is { } engine
            ? decide(job, engine)
            : new("engine", "There is no such engine on this aircraft."), stop, JobParts.Engine);

    /// <summary>Every sheet of an engine, in working order.</summary>
    public static IReadOnlyList<EngineSheetLink> SheetLinks(Job job, Component engine)
    {
        var (inspection, aircraft) = (job.Inspection, job.Aircraft);
        var walk = $"/walk/{inspection.Id}";
        var compressions = CompressionSheet.Of(aircraft, engine, inspection);
        var tray = PlugTray.Of(aircraft, engine, inspection);
        return
        [
            new($"{walk}/compressions/{engine.Id}", "Compressions",
                $"{compressions.Cylinders.Count(cylinder => cylinder.Latest is not null)} of {compressions.Cylinders.Count}",
                "compressions"),
            new($"{walk}/plugs/{engine.Id}", "Plugs", $"{tray.Places.Count(place => place.IsFinished)} of {tray.Places.Count}", "plugs"),
            .. EngineSheets.Of(aircraft, engine).Select(sheet =>
            {
                var work = SheetWork.Of(sheet, aircraft, inspection);
                var place = sheet.Carrier.Id == engine.Id ? "" : aircraft.Fitting(sheet.Carrier.Id)?.Position ?? "";
                return new EngineSheetLink(HrefOf(inspection, sheet), $"{sheet.Kind.InWords()}{(place.Length > 0 ? $", {place}" : "")}",
                    $"{work.Done} of {work.All}", $"engine-sheet/{sheet.Kind}/{sheet.Carrier.Id}".ToLowerInvariant());
            }),
        ];
    }

    public static string HrefOf(Inspection inspection, EngineSheet sheet) =>
        $"/walk/{inspection.Id}/engine-sheet/{sheet.Kind.ToString().ToLowerInvariant()}/{sheet.Carrier.Id}";
}
