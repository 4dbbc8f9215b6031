using System.Linq.Expressions;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Store;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Hosting;

/// <summary>Every page of a shop, by name, on one of its inspections: what is measured, and what is asked for once after a start.</summary>
public sealed class ShopPages
{
    private readonly Guid? bulletin;

    private ShopPages(Inspection? work, Aircraft? aircraft, Guid? bulletin) => (Work, Aircraft, this.bulletin) = (work, aircraft, bulletin);

    /// <summary>The inspection, with its tasks and what it found; null where the shop has none of the kind.</summary>
    public Inspection? Work { get; }

    /// <summary>Its aircraft with its parts.</summary>
    public Aircraft? Aircraft { get; }

    /// <param name="db">The shop.</param>
    /// <param name="which">Which inspections will do; the first by work order is taken.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<ShopPages> OfAsync(RivetDb db, Expression<Func<Inspection, bool>> which, CancellationToken stop)
    {
        var work = await db.Inspections.AsNoTracking().Include(row => row.Tasks).Include(row => row.Discrepancies)
            .Include(row => row.Readings).Where(which).OrderBy(row => row.WorkOrder).FirstOrDefaultAsync(stop);
        return new(work, work is null
            ? null
            : await db.AircraftAsync(work.AircraftId, stop), await db.Bulletins.OrderBy(row => row.Family).Select(row => (Guid?)row.Id)
            .FirstOrDefaultAsync(stop));
    }

    public IReadOnlyList<(string Name, string Path)> All() =>
    [
        ("hangar", "/"), ("enter", "/enter"), ("due in the shop", "/due"), ("take in", "/take-in"), ("the shop's bulletins", "/bulletins"),
        ("types", "/shelf/types"), ("shelf", "/shelf"), ("a worksheet", "/shelf/worksheets/app-d"), ("tools of the shop", "/shelf/tools"),
        ("who may", "/who-may?job=replace%20a%20tyre"), ("people", "/people"), ("parts of the shop", "/parts"),
        ("plan of the hangar", "/plan"), ("my day", "/plan/me"), ("plan of the week", "/plan/week"),
        .. bulletin is { } id ? [("one bulletin", $"/bulletins/{id}")] : Array.Empty<(string, string)>(),
        .. Aircraft is { } aircraft ? OnFile(aircraft, $"/aircraft/{aircraft.Id}") : [],
        .. Work is { } work ? OnWalk(work, Aircraft!, $"/walk/{work.Id}") : [],
    ];

    private static IEnumerable<(string Name, string Path)> OnFile(Aircraft aircraft, string file) =>
    [
        ("due line", file), ("open items", $"{file}/open-items"), ("an aircraft's bulletins", $"{file}/bulletins"),
        ("parts", $"{file}/parts"), ("part to fit", $"{file}/parts?add=true"), ("times", $"{file}/times"),
        ("trends, every series", $"{file}/trends"), ("books", $"{file}/books"), ("data plate", $"{file}/data-plate"),
        ("aircraft as a file", $"{file}/file.json"), ("trends as CSV", $"{file}/trends.csv"),
        .. aircraft.Engines.Take(1).Select(engine => ("a part", $"{file}/parts?part={engine.ComponentId}")),
    ];

    private static IEnumerable<(string Name, string Path)> OnWalk(Inspection work, Aircraft aircraft, string walk) =>
    [
        ("next open", walk), ("arrive", $"{walk}/arrive"), ("plan", $"{walk}/plan"), ("look & open", $"{walk}/look"),
        ("panels and bags", $"{walk}/tags"), ("tools out", $"{walk}/tools"), ("said apart", $"{walk}/apart"), ("labels", $"{walk}/labels"),
        ("engine zone", $"{walk}/engine"), ("airframe zone", $"{walk}/airframe"),
        ("station of bulletins", $"{walk}/bulletins"), ("status of bulletins", $"{walk}/bulletins/status"),
        ("found something", $"{walk}/find"), ("fix list", $"{walk}/fix-list"), ("owner's report", $"{walk}/fix-list/report"),
        ("prices", $"{walk}/fix-list/prices"),
        ("one price", $"{walk}/fix-list/prices/{Inspection.ItselfKey}"), ("side by side", $"{walk}/fix-list/choices"),
        ("estimate", $"{walk}/fix-list/estimate"), ("known marks", $"{walk}/marks"), ("second person", $"{walk}/inspect"), ("close",
            $"{walk}/close"), ("records", $"{walk}/records"),
        .. work.Tasks.Where(task => task is { Measure: not null, Station: Core.Worksheets.Station.Airframe }).Take(1)
            .Select(task => ("measured task", $"{walk}/airframe/{task.ZoneKey}?task={task.Id}")),
        .. work.Discrepancies.OrderBy(found => found.Number).Take(1)
            .Select(found => ("one discrepancy", $"{walk}/fix-list/{found.Number}")),
        .. aircraft.Engines.Take(1).SelectMany(engine => new[]
        {
            ("compressions and trend", $"{walk}/compressions?cylinder=2"), ("plug tray", $"{walk}/plugs"),
            ("oil sheet", $"{walk}/engine-sheet/oil/{engine.ComponentId}"), ("run sheet", $"{walk}/engine-sheet/run/{engine.ComponentId}"),
            ("case of a cylinder", $"{walk}/cylinder/{engine.ComponentId}/2"), ("engine logs", $"{walk}/engine-logs"),
        }),
        .. aircraft.Fitted(ComponentKind.Magneto).Take(1)
            .Select(magneto => ("magneto sheet", $"{walk}/engine-sheet/magneto/{magneto.ComponentId}")),
    ];
}
