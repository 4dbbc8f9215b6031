using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
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

    public const int Found = 200, PhotosEach = 2;

    /// <summary>An inspection with a long fix list, and a signed one before it to compare with. Its photos are named, not kept: a list never opens them.</summary>
    public static async Task<Inspection> MakeFixListAsync(RivetDb db, TimeProvider clock, CancellationToken stop)
    {
        var (today, at) = (clock.Today(), clock.GetUtcNow());
        var sheet = new Worksheet("short", "Short", 1, "to measure on", [.. Enumerable.Range(1, Zones).Select(zone => new WorksheetZone($"zone-{zone}", $"Zone {zone}", Station.Airframe, Book.Airframe, [new($"task-{zone}", $"Zone {zone} as a whole", "to measure on")]))]);
        db.Types.Add(new(Guid.CreateVersion7(), TypeKind.Aircraft, "Measured", "Long list"));
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0FIX", "Long list", "F-1", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
        aircraft.ReadTime(today, new(1000));
        db.Add(aircraft);
        Inspection inspection = null!;
        foreach (var back in new[] { 365, 0 })
        {
            inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, $"fix{back}", [sheet], today.AddDays(-back));
            for (var number = 0; number < Found; number++)
            {
                var found = inspection.Find(Guid.CreateVersion7(), $"Measured finding {number}, part {number % 37} worn at its edge", $"zone-{1 + number % Zones}", $"place {number}", (DiscrepancyClass)(1 + number % 4), false, null, Guid.Empty, at);
                for (var photo = 0; photo < PhotosEach; photo++)
                    found.Add(new Photo($"{number:x8}{back:x8}{photo:x48}", 4000, 3000, null, at));
            }
            db.Add(inspection);
            if (back > 0)
                inspection.Sign();
        }
        await db.SaveChangesAsync(stop);
        return inspection;
    }

    public static async Task<Inspection> MakeAsync(RivetDb db, DateOnly today, CancellationToken stop)
    {
        var sheet = new Worksheet("big", "Big", 1, "to measure on", [.. Enumerable.Range(1, Zones).Select(zone => new WorksheetZone($"zone-{zone}", $"Zone {zone}", Station.Airframe, Book.Airframe,
            [.. Enumerable.Range(1, TasksEach).Select(task => new WorksheetTask($"task-{zone}-{task}", $"Part {task} of zone {zone}: cracks, corrosion, security", "to measure on"))]))]);
        db.Types.Add(new(Guid.CreateVersion7(), TypeKind.Aircraft, "Measured", "Big"));
        var aircraft = new Aircraft(Guid.CreateVersion7(), "N0BIG", "Big", "B-1", Category.Standard, new(Wing.Low, Gear.NoseWheel, 1, 2));
        aircraft.ReadTime(today, new(1000));
        var inspection = new Inspection(Guid.CreateVersion7(), aircraft, InspectionKind.Annual, "big", [sheet], today);
        db.AddRange(aircraft, inspection);
        await db.SaveChangesAsync(stop);
        return inspection;
    }
}
