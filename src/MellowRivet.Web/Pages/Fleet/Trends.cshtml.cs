using MellowRivet.Core.Fleet;
using MellowRivet.Core.Trends;
using MellowRivet.Store;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>Another engine of the shop with the same layout.</summary>
public sealed record EngineChoice(Guid EngineId, Guid AircraftId, string Words);

/// <summary>Every series of an aircraft: unusual now first, small plots on shared axes, beside another engine where wanted.</summary>
public sealed class TrendsModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage(desk, db, clock)
{
    [FromQuery]
    public Guid? Compare { get; set; }

    /// <summary>Whose hours the series run on.</summary>
    [FromQuery(Name = "hours")]
    public HoursAxis? AxisTyped { get; set; }

    public HoursAxis Axis => AxisTyped ?? HoursAxis.Part;

    public string Query(HoursAxis axis) =>
        string.Join('&', new[] { axis == HoursAxis.Part ? null : "hours=aircraft", Compare is { } beside ? $"compare={beside}" : null }
            .OfType<string>()) is { Length: > 0 } query ? $"?{query}" : "";

    public override FileSheet At => FileSheet.Trends;

    public IReadOnlyList<SeriesGroup> Groups { get; private set; } = [];
    public IReadOnlyList<EngineChoice> Others { get; private set; } = [];

    private IReadOnlyList<SeriesGroup> beside = [];

    public SmallMultiple PlotsOf(SeriesGroup group) =>
        new(group, beside.FirstOrDefault(other => other.Kind == group.Kind && other.Unit == group.Unit)?.Series
        .SelectMany(series => series.Points.Select(point => (series.Label, point))).ToLookup(one => one.Label, one => one.point), Axis);

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        Groups = await Db.SeriesOfAsync(Aircraft, Axis, stop);
        var layouts = Aircraft.Engines.Select(engine => engine.Component.LayoutKey).ToList();
        Others = [.. (await Desk.Board.StandingAsync(stop)).Lines.Select(line => line.Aircraft).Where(aircraft => aircraft.Id != Id)
            .SelectMany(aircraft => aircraft.Engines.Where(engine => layouts.Contains(engine.Component.LayoutKey))
                .Select(engine => new EngineChoice(engine.ComponentId, aircraft.Id, $"{aircraft.Registration} {engine.Position}".Trim())))
                .OrderBy(other => other.Words)];
        if (Others.FirstOrDefault(other => other.EngineId == Compare) is { } chosen
            && await Db.AircraftAsync(chosen.AircraftId, stop) is { } aircraft)
            beside = await Db.SeriesOfAsync(aircraft, Axis, stop);
        return Page();
    }
}
