using System.Text.Json;
using System.Text.Json.Nodes;

namespace MellowRivet.Core.Worksheets;

/// <summary>One difference between two editions.</summary>
/// <param name="Zone">The zone's title.</param>
/// <param name="What">The task's or zone's words.</param>
/// <param name="Change">What became of it.</param>
public sealed record WorksheetChange(string Zone, string What, string Change);

/// <summary>What changed between two editions of a worksheet.</summary>
public static class WorksheetChanges
{
    /// <summary>Tasks that are new, gone or changed, and whether the order is another; the earlier edition first.</summary>
    public static IReadOnlyList<WorksheetChange> Between(Worksheet earlier, Worksheet later)
    {
        var (before, after) = (ByKey(earlier), ByKey(later));
        List<WorksheetChange> changes = [];
        if (earlier.Title != later.Title || earlier.Basis != later.Basis || JsonOf(earlier.Suits) != JsonOf(later.Suits))
            changes.Add(new("", later.Title, "title, basis or what it is offered for"));
        foreach (var zone in later.Zones)
            if (earlier.Zones.FirstOrDefault(other => other.Key == zone.Key) is not { } was)
                changes.Add(new(zone.Title, zone.Title, "new zone"));
            else if (Differences(was with { Tasks = [] }, zone with { Tasks = [] }) is { Length: > 0 } how)
                changes.Add(new(zone.Title, zone.Title, how));
        changes.AddRange(earlier.Zones.Where(zone => later.Zones.All(other => other.Key != zone.Key))
            .Select(zone => new WorksheetChange(zone.Title, zone.Title, "zone taken out")));
        foreach (var (key, (zone, task)) in after)
            if (!before.TryGetValue(key, out var was))
                changes.Add(new(zone.Title, task.Text, "new"));
            else if (was.Zone.Key != zone.Key)
                changes.Add(new(zone.Title, task.Text, $"moved here from {was.Zone.Title}"));
            else if (Differences(was.Task, task) is { Length: > 0 } how)
                changes.Add(new(zone.Title, task.Text, how));
        changes.AddRange(before.Where(pair => !after.ContainsKey(pair.Key))
            .Select(pair => new WorksheetChange(pair.Value.Zone.Title, pair.Value.Task.Text, "taken out")));
        if (changes.Count == 0 && !before.Keys.SequenceEqual(after.Keys))
            changes.Add(new("", later.Title, "another order"));
        return changes;
    }

    private static Dictionary<string, (WorksheetZone Zone, WorksheetTask Task)> ByKey(Worksheet sheet) =>
        sheet.Zones.SelectMany(zone => zone.Tasks.Select(task => (zone, task))).ToDictionary(pair => pair.task.Key, pair => pair);

    // Which fields differ, by their names in the file.
    private static string Differences<T>(T was, T now)
    {
        var (one, other) = (JsonSerializer.SerializeToNode(was, Worksheet.Json)!.AsObject(),
            JsonSerializer.SerializeToNode(now, Worksheet.Json)!.AsObject());
        var fields = one.Where(pair => !JsonNode.DeepEquals(pair.Value, other[pair.Key]))
            .Select(pair => $"{pair.Key}: {Short(pair.Value)} → {Short(other[pair.Key])}");
        return string.Join("; ", fields);
    }

    private static string Short(JsonNode? value) => value switch
    {
        null => "none",
        JsonValue plain => plain.ToString(),
        JsonArray list => list.Count == 0 ? "none" : string.Join(", ", list.Select(item => item?.ToString())),
        JsonObject measure when measure["unit"] is not null =>
            $"{measure["low"]?.ToString() ?? "…"}–{measure["high"]?.ToString() ?? "…"} {measure["unit"]}",
        _ => "changed",
    };

    private static string JsonOf<T>(T value) => JsonSerializer.Serialize(value, Worksheet.Json);
}
