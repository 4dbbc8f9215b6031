using MellowRivet.Core.Hangar;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Web.Pages.Walk.Tasks;

/// <summary>A station's zones as a person looks at them, and the tasks of the one they are in.</summary>
/// <param name="Station">The station.</param>
/// <param name="Key">The zone.</param>
/// <param name="Zones">The zones of the station that have something wanted.</param>
/// <param name="Counts">How many tasks of the whole walk each filter has.</param>
/// <param name="Here">Every task of the zone.</param>
/// <param name="Tasks">Those that are shown.</param>
public sealed record ZoneTasks(Station Station, string Key, IReadOnlyList<ZoneProgress> Zones, IReadOnlyDictionary<TaskFilter, int> Counts,
    IReadOnlyList<InspectionTask> Here, IReadOnlyList<InspectionTask> Tasks)
{
    /// <summary>What is shown; null where the station has no such zone.</summary>
    /// <param name="inspection">The inspection.</param>
    /// <param name="station">The station.</param>
    /// <param name="zone">The zone; null for the first that isn't done.</param>
    /// <param name="show">Which tasks are wanted.</param>
    /// <param name="open">The task that is open: it stays in sight even where it isn't wanted any more.</param>
    /// <param name="me">Whoever looks.</param>
    public static ZoneTasks? Of(Inspection inspection, Station station, string? zone, TaskFilter show, Guid? open, Guid me)
    {
        var walk = inspection.Walk.ToList();
        var counts = Enum.GetValues<TaskFilter>()
            .ToDictionary(filter => filter, filter => walk.Count(task => filter.Wants(inspection, task, me)));
        var wanted = walk.Where(task => task.Station == station && show.Wants(inspection, task, me)).Select(task => task.ZoneKey)
            .ToHashSet();
        List<ZoneProgress> zones = [.. ZoneProgress.Of(station, inspection)
            .Where(one => show == TaskFilter.All || wanted.Contains(one.Key) || one.Key == zone)];
        var key = zone ?? (zones.FirstOrDefault(one => one.Done < one.Tasks) ?? zones.FirstOrDefault())?.Key;
        var here = walk.Where(task => task.ZoneKey == key && task.Station == station).ToList();
        if (here.Count == 0)
            return null;
        List<InspectionTask> tasks = [.. here.Where(task => task.Id == open || show.Wants(inspection, task, me))];
        return new(station, key!, zones, counts, here, tasks.Count == 0 ? here : tasks);
    }

    /// <summary>The task to open: the one that is asked for, else the first that nobody has answered.</summary>
    /// <param name="open">The task that is asked for.</param>
    /// <param name="onwards">On from it to the next that is open; when all are done it stays, with the way on.</param>
    public InspectionTask Open(Guid? open, bool onwards)
    {
        var current = Tasks.FirstOrDefault(task => task.Id == open);
        return current is not null && !onwards ? current
            : Tasks.SkipWhile(task => task.Id != open).Skip(1).FirstOrDefault(IsOpen) ?? Tasks.FirstOrDefault(IsOpen) ?? current
            ?? Tasks[0];
    }

    private static bool IsOpen(InspectionTask task) => task.Verdict == TaskVerdict.NotYet;
}
