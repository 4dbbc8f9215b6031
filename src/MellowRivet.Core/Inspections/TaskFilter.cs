using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

/// <summary>Which tasks of the walk a person wants before them.</summary>
public enum TaskFilter { All = 1, Open, Mine, SecondPerson, PanelsOpen, PowerOn, EngineHot }

public static class TaskFilters
{
    /// <summary>Whether a task is among those wanted. What needs something is wanted while it is open.</summary>
    /// <param name="filter">What is wanted.</param>
    /// <param name="inspection">The inspection.</param>
    /// <param name="task">The task.</param>
    /// <param name="me">Who asks: theirs are the open tasks of the zones they took on.</param>
    public static bool Wants(this TaskFilter filter, Inspection inspection, InspectionTask task, Guid me) => filter switch
    {
        TaskFilter.Open => task.Verdict == TaskVerdict.NotYet,
        TaskFilter.Mine => task.Verdict == TaskVerdict.NotYet
            && inspection.Looks.Any(zone => zone.ZoneKey == task.ZoneKey && zone.TakenBy == me),
        TaskFilter.SecondPerson => SecondPerson.Wanted(inspection.House, inspection, task),
        TaskFilter.PanelsOpen => task.Verdict == TaskVerdict.NotYet && task.Needs.Contains(Need.PanelsOpen),
        TaskFilter.PowerOn => task.Verdict == TaskVerdict.NotYet && task.Needs.Contains(Need.PowerOn),
        TaskFilter.EngineHot => task.Verdict == TaskVerdict.NotYet && task.Needs.Contains(Need.EngineHot),
        _ => true,
    };

    public static string InWords(this TaskFilter filter) => filter switch
    {
        TaskFilter.SecondPerson => "second person",
        TaskFilter.PanelsOpen => "panels open",
        TaskFilter.PowerOn => "power on",
        TaskFilter.EngineHot => "engine hot",
        _ => filter.ToString().ToLowerInvariant(),
    };
}
