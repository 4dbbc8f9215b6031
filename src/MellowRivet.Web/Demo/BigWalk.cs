using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;

namespace MellowRivet.Web.Demo;

/// <summary>An inspection of 400 tasks in ten zones, to measure on.</summary>
internal static class BigWalk
{
    public const int Zones = 10, TasksEach = 40;

    public static async Task<Inspection> MakeAsync(RivetDb db, DateOnly today, CancellationToken stop)
    {
        var sheet = new Worksheet("big", "Big", 1, "to measure on", [.. Enumerable.Range(1, Zones).Select(zone => new WorksheetZone($"zone-{zone}", $"Zone {zone}", Station.Airframe, Book.Airframe,
            [.. Enumerable.Range(1, TasksEach).Select(task => new WorksheetTask($"task-{zone}-{task}", $"Part {task} of zone {zone}: cracks, corrosion, security", "to measure on"))]))]);
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0BIG", "Big", "B-1", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
        aircraft.ReadTime(today, new(1000));
        var inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, "big", [sheet], today);
        db.AddRange(aircraft, inspection);
        await db.SaveChangesAsync(stop);
        return inspection;
    }
}
