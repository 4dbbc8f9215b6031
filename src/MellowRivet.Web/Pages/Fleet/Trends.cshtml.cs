using MellowRivet.Core.Trends;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>Another engine of the shop with the same layout.</summary>
public sealed record EngineChoice(Guid EngineId, Guid AircraftId, string Words);

/// <summary>Every series of an aircraft, beside another engine where wanted.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Axis">Whose hours the series run on.</param>
/// <param name="Groups">The series.</param>
/// <param name="Others">Engines of the shop with the same layout.</param>
/// <param name="Compare">The one that is laid beside; null for none.</param>
/// <param name="Beside">Its series.</param>
/// <param name="Show">Kinds that are drawn though nothing about them is unusual; "all" for every one.</param>
public sealed record TrendsView(FileShown File, HoursAxis Axis, IReadOnlyList<SeriesGroup> Groups, IReadOnlyList<EngineChoice> Others,
    Guid? Compare, IReadOnlyList<SeriesGroup> Beside, IReadOnlyList<string> Show) : FileView(File)
{
    public override FilePage At => FilePage.Trends;

    /// <summary>What is drawn: unusual, near a limit, or asked for.</summary>
    public IReadOnlyList<SeriesGroup> Drawn => [.. Groups.Where(IsDrawn)];

    /// <summary>The rest, a line each until somebody asks for it.</summary>
    public IReadOnlyList<SeriesGroup> Rest => [.. Groups.Where(group => !IsDrawn(group))];

    private bool IsDrawn(SeriesGroup group) => group.IsUnusual || group.NearsLimit || Show.Contains("all") || Show.Contains(group.Kind);

    /// <summary>
    /// Whether a series of a kind that is drawn stands in sight: the unusual ones and those near a limit do, and all where a person asked
    /// for the kind, or laid another engine beside it.
    /// </summary>
    public bool IsTold(SeriesGroup group, Series series) => series.IsUnusual || series.NearsLimit || Compare is not null
        || Show.Contains("all") || Show.Contains(group.Kind);

    /// <summary>This page with one more kind drawn, or with all.</summary>
    public string With(string kind) =>
        $"/aircraft/{Id}/trends{Query(Axis)}{(Query(Axis).Length > 0 ? "&" : "?")}"
        + string.Join('&', Show.Append(kind).Distinct().Select(one => $"show={Uri.EscapeDataString(one)}"))
        + (kind == "all" ? "" : $"#group-{kind}");

    public string Query(HoursAxis axis) =>
        string.Join('&', new[] { axis == HoursAxis.Part ? null : "hours=aircraft", Compare is { } beside ? $"compare={beside}" : null }
            .OfType<string>()) is { Length: > 0 } query ? $"?{query}" : "";

    public SmallMultiple PlotsOf(SeriesGroup group) =>
        new(group, Beside.FirstOrDefault(other => other.Kind == group.Kind && other.Unit == group.Unit)?.Series
            .SelectMany(series => series.Points.Select(point => (series.Label, point))).ToLookup(one => one.Label, one => one.point), Axis);
}

/// <summary>One small plot of a group.</summary>
public sealed record DrawnSeries(TrendsView View, SeriesGroup Group, SmallMultiple Plots, SmallPlot Plot);

/// <summary>Every series of an aircraft: unusual now first, small plots on shared axes, beside another engine where wanted.</summary>
public sealed class TrendsModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage<TrendsView>(desk, db, clock)
{
    [FromQuery]
    public Guid? Compare { get; set; }

    /// <summary>Kinds that are asked for.</summary>
    [FromQuery]
    public List<string> Show { get; set; } = [];

    /// <summary>Whose hours the series run on.</summary>
    [FromQuery(Name = "hours")]
    public HoursAxis? AxisTyped { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    protected override async Task<TrendsView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop)
    {
        var axis = AxisTyped ?? HoursAxis.Part;
        var layouts = file.Aircraft.Engines.Select(engine => engine.Component.LayoutKey).ToList();
        List<EngineChoice> others =
        [
            .. (await Desk.Board.StandingAsync(stop)).Lines.Select(line => line.Aircraft).Where(aircraft => aircraft.Id != Id)
                .SelectMany(aircraft => aircraft.Engines.Where(engine => layouts.Contains(engine.Component.LayoutKey))
                    .Select(engine => new EngineChoice(engine.ComponentId, aircraft.Id,
                        $"{aircraft.Registration} {engine.Position}".Trim())))
                .OrderBy(other => other.Words),
        ];
        IReadOnlyList<SeriesGroup> beside = others.FirstOrDefault(other => other.EngineId == Compare) is { } chosen
            && await Db.AircraftAsync(chosen.AircraftId, stop) is { } aircraft
                ? await Db.SeriesOfAsync(aircraft, axis, User.SeesFleet(), stop) : [];
        return new(file, axis, await Db.SeriesOfAsync(file.Aircraft, axis, User.SeesFleet(), stop), others, Compare, beside,
            Show);
    }
}
