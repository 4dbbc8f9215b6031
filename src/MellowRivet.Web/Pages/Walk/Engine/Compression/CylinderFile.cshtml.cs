using MellowRivet.Core.Compression;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Oil;
using MellowRivet.Core.Plugs;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine.Compression;

/// <summary>A picture through the borescope, of this inspection or an earlier one.</summary>
public sealed record ScopePicture(string Place, SheetCheck Check, bool IsNow);

/// <summary>The case file of one cylinder.</summary>
public sealed class CylinderFileModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : EnginePage(desk, db, frames, clock)
{
    [FromRoute]
    public int Number { get; set; }

    public CylinderOnTest Cylinder { get; private set; } = null!;
    public CylinderCase Case { get; private set; } = null!;
    public IReadOnlyList<ScopePicture> Pictures { get; private set; } = [];

    /// <summary>Where the air was heard, for the drawing.</summary>
    public Core.Compression.Leaks Leak => Cylinder.Latest?.Reading.Leak ?? Core.Compression.Leaks.None;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await LoadEngineAsync(stop) || CompressionSheet.Of(Job.Aircraft, Engine, Job.Inspection) is not { } sheet
            || sheet.Cylinders.FirstOrDefault(cylinder => cylinder.Place.Number == Number) is not { } mine)
            return NotFound();
        Cylinder = mine;
        var compressions = await Db.CompressionsOfAsync(Job.Aircraft, Engine, stop);
        var added = await Db.ReadOnAsync(Engine.Id, stop, OilUse.AddedKind);
        var past = await Db.EngineSeenAsync(Job.Aircraft.Id, stop);
        var plugs = Job.Aircraft.Installations.Where(stay => stay.Component.Kind == ComponentKind.Plug && stay.ParentId == Engine.Id)
            .Select(stay => stay.ComponentId).ToHashSet();
        var log = await Db.LatestLogAsync(Engine.Id, stop);
        Case = CylinderCase.Of(sheet, Number, CylinderHistory.Of(Job.Aircraft, Engine, Number, compressions, sheet.Test?.Conditions), new(
            [.. past.SelectMany(row => row.Marks)
                .Where(mark => mark.Step == PlugStep.Look && mark.Hole.Cylinder == Number && plugs.Contains(mark.PlugId))
                .OrderByDescending(mark => mark.At).Select(mark => EnumNames.Read<PlugLook>(mark.Said))],
            OilUse.Of(added),
            [.. past.SelectMany(row => row.Cuts).Where(cut => cut.EngineId == EngineId).OrderByDescending(cut => cut.At)],
            log is { Flights: [.., var flight] } ? flight.Summary : null));
        var looks = BorescopeSheet.Of(mine.Cylinder).Looks.ToDictionary(look => look.Key, look => look.Text.Split(':')[0]);
        Pictures =
            [.. past.SelectMany(row => row.Checks.Where(check => check.ComponentId == mine.Cylinder.Id && check.Sheet == SheetKind.Borescope
                && looks.ContainsKey(check.Key)).Select(check => new ScopePicture(looks[check.Key], check, row.InspectionId == Id)))
            .OrderBy(picture => picture.Place, StringComparer.Ordinal).ThenByDescending(picture => picture.Check.At)];
        return Page();
    }
}
