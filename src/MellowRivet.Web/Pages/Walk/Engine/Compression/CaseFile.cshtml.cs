using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine.Compression;

/// <summary>A picture through the borescope, of this inspection or an earlier one.</summary>
public sealed record ScopePicture(string Place, SheetCheck Check, bool IsNow);

/// <summary>The case file of one cylinder.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Engine">The engine.</param>
/// <param name="Cylinder">The cylinder.</param>
/// <param name="CaseFile">What it may be.</param>
/// <param name="Pictures">Pictures through its plug holes.</param>
public sealed record CaseFileView(WalkShown Walk, Component Engine, CylinderOnTest Cylinder, CaseFile CaseFile,
    IReadOnlyList<ScopePicture> Pictures) : EngineView(Walk, Engine)
{
    public int Number => Cylinder.Place.Number;

    /// <summary>Where the air was heard, for the drawing.</summary>
    public Leaks Leak => Cylinder.Latest?.Reading.Leak ?? Leaks.None;
}

/// <summary>The case file of one cylinder.</summary>
public sealed class CaseFileModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock)
    : EnginePage<CaseFileView>(desk, db, frames, clock)
{
    [FromRoute]
    public int Number { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<CaseFileView?> ViewAsync(WalkShown walk, Component engine, Refused refused, CancellationToken stop)
    {
        var aircraft = walk.Job.Aircraft;
        var sheet = CompressionSheet.Of(aircraft, engine, walk.Job.Inspection);
        if (sheet.Cylinder(Number) is not { } mine)
            return null;
        var compressions = await Db.CompressionsOfAsync(aircraft, engine, stop);
        var added = await Db.ReadOnAsync(engine.Id, stop, OilUse.AddedKind);
        var past = await Db.EngineSeenAsync(aircraft.Id, stop);
        var plugs = aircraft.EverOn(engine.Id, ComponentKind.Plug);
        var log = await Db.LatestLogAsync(engine.Id, stop);
        var around = new CaseSurroundings(
            [.. past.SelectMany(row => row.Notes)
                .Where(note => note.Step == PlugStep.Look && note.Hole.Cylinder == Number && plugs.Contains(note.PlugId))
                .OrderByDescending(note => note.At).Select(note => EnumNames.Read<PlugLook>(note.Said))],
            OilUse.Of(added),
            [.. past.SelectMany(row => row.Cuts).Where(cut => cut.EngineId == engine.Id).OrderByDescending(cut => cut.At)],
            log is { Flights: [.., var flight] } ? flight.Summary : null);
        var history = CylinderHistory.Of(aircraft, engine, Number, compressions, sheet.Test?.Conditions);
        return new(walk, engine, mine, CaseFile.Of(sheet, Number, history, around), [.. PicturesOf(mine, past)]);
    }

    private IEnumerable<ScopePicture> PicturesOf(CylinderOnTest cylinder, IEnumerable<EngineSeen> past)
    {
        var looks = BorescopeSheet.Of(cylinder.Cylinder).Looks.ToDictionary(look => look.Key, look => look.Text.Split(':')[0]);
        return past
            .SelectMany(row => row.Checks
                .Where(check => check.ComponentId == cylinder.Cylinder.Id && check.Sheet == SheetKind.Borescope
                    && looks.ContainsKey(check.Key))
                .Select(check => new ScopePicture(looks[check.Key], check, row.InspectionId == Id)))
            .OrderBy(picture => picture.Place, StringComparer.Ordinal).ThenByDescending(picture => picture.Check.At);
    }
}
