namespace MellowRivet.Core.Worksheets;

// Changes of a draft. Each gives a new worksheet, or says why not.
public sealed partial record Worksheet
{
    /// <summary>A worksheet to begin with: one zone, one task to write over.</summary>
    public static Worksheet Begin(string key, string title, string basis) =>
        new(key, title, 1, basis,
            [new("general", "Whole aircraft", Station.Airframe, Records.Book.Airframe,
                [new("first-task", "The first task: write over it", "where it is asked for")], Looks: false)]);

    /// <summary>A key for a title: its letters and digits, dashes between.</summary>
    public static string KeyFor(string title)
    {
        var words = string.Concat(title.ToLowerInvariant()
            .Select(letter => letter is (>= 'a' and <= 'z') or (>= '0' and <= '9') ? letter : ' '));
        var key = string.Join('-', words.Split(' ', StringSplitOptions.RemoveEmptyEntries));
        return key.Length <= 40 ? key : key[..40].TrimEnd('-');
    }

    /// <summary>Puts a task in place of the one with its key, or at the end of the zone where there is none.</summary>
    /// <param name="zoneKey">The zone it stands in from now on.</param>
    /// <param name="task">The task.</param>
    public (Worksheet? Worksheet, Refusal? Refusal) Put(string zoneKey, WorksheetTask task)
    {
        if (FaultOf(task) is { } fault)
            return (null, new("task", fault));
        if (Zones.All(zone => zone.Key != zoneKey))
            return (null, new("zone", "There is no such zone."));
        var there = Zones.FirstOrDefault(zone => zone.Tasks.Any(other => other.Key == task.Key));
        if (there?.Key == zoneKey)
            return Sound(InZone(zoneKey,
                zone => zone with { Tasks = [.. zone.Tasks.Select(other => other.Key == task.Key ? task : other)] }), "task");
        if (there is { Tasks.Count: 1 })
            return (null, new("zone", $"It is the only task of {there.Title}: take that zone out, or give it another task first."));
        var without = there is null
            ? this
            : InZone(there.Key, zone => zone with { Tasks = [.. zone.Tasks.Where(other => other.Key != task.Key)] });
        return Sound(without.InZone(zoneKey, zone => zone with { Tasks = [.. zone.Tasks, task] }), "task");
    }

    /// <summary>Takes a task out.</summary>
    public (Worksheet? Worksheet, Refusal? Refusal) TakeOut(string taskKey)
    {
        if (Zones.FirstOrDefault(zone => zone.Tasks.Any(task => task.Key == taskKey)) is not { } zone)
            return (null, new("task", "There is no such task."));
        return zone.Tasks.Count == 1
            ? (null, new("task", $"It is the only task of {zone.Title}: take the zone out instead."))
            : (InZone(zone.Key, there => there with { Tasks = [.. there.Tasks.Where(task => task.Key != taskKey)] }), null);
    }

    /// <summary>Moves a task one place up or down, over the zone's edge into the next one; at the very end it stays.</summary>
    /// <param name="taskKey">The task.</param>
    /// <param name="down">Towards the end.</param>
    public Worksheet Move(string taskKey, bool down)
    {
        var at = Zones.ToList().FindIndex(zone => zone.Tasks.Any(task => task.Key == taskKey));
        if (at < 0)
            return this;
        var tasks = Zones[at].Tasks.ToList();
        var index = tasks.FindIndex(task => task.Key == taskKey);
        var to = down ? index + 1 : index - 1;
        if (to >= 0 && to < tasks.Count)
        {
            (tasks[index], tasks[to]) = (tasks[to], tasks[index]);
            return InZone(Zones[at].Key, zone => zone with { Tasks = tasks });
        }
        var next = at + (down ? 1 : -1);
        if (next < 0 || next >= Zones.Count || tasks.Count == 1)
            return this;
        var moved = tasks[index];
        return InZone(Zones[at].Key, zone => zone with { Tasks = [.. tasks.Where(task => task != moved)] })
            .InZone(Zones[next].Key, zone => zone with { Tasks = down ? [moved, .. zone.Tasks] : [.. zone.Tasks, moved] });
    }

    /// <summary>
    /// Puts a zone in place of the one with its key, keeping that one's tasks; a new one comes last, with the task it carries.
    /// </summary>
    public (Worksheet? Worksheet, Refusal? Refusal) Put(WorksheetZone zone) => Sound(this with
    {
        Zones = Zones.Any(other => other.Key == zone.Key)
            ? [.. Zones.Select(other => other.Key == zone.Key ? zone with { Tasks = other.Tasks } : other)]
            : [.. Zones, zone],
    }, "zone");

    /// <summary>Takes a zone out with all its tasks.</summary>
    public (Worksheet? Worksheet, Refusal? Refusal) TakeOutZone(string key) => Zones.Count == 1
        ? (null, new("zone", "A worksheet keeps at least one zone."))
        : (this with { Zones = [.. Zones.Where(zone => zone.Key != key)] }, null);

    /// <summary>Moves a zone one place in walking order.</summary>
    public Worksheet MoveZone(string key, bool down)
    {
        var zones = Zones.ToList();
        var index = zones.FindIndex(zone => zone.Key == key);
        var to = down ? index + 1 : index - 1;
        if (index < 0 || to < 0 || to >= zones.Count)
            return this;
        (zones[index], zones[to]) = (zones[to], zones[index]);
        return this with { Zones = zones };
    }

    private Worksheet InZone(string key, Func<WorksheetZone, WorksheetZone> change) =>
        this with { Zones = [.. Zones.Select(zone => zone.Key == key ? change(zone) : zone)] };

    private static (Worksheet?, Refusal?) Sound(Worksheet sheet, string field) =>
        sheet.Fault() is { } fault ? (null, new(field, fault)) : (sheet, null);
}
