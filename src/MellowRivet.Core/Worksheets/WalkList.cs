using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Worksheets;

/// <summary>One line of a walk: a task with where it comes from and where it stands.</summary>
/// <param name="Order">Its place in walking order.</param>
/// <param name="Worksheet">The worksheet it comes from.</param>
/// <param name="Zone">Its zone as this walk has it: on a twin, an engine's zone once for each engine.</param>
/// <param name="Task">The task.</param>
/// <param name="ComponentId">The engine or propeller it is about; null for the airframe.</param>
/// <param name="Pick">Whether it is due now.</param>
/// <param name="TiedTo">The order of the line that answers this one too; null for one that is answered by itself.</param>
public sealed record WalkLine(int Order, Worksheet Worksheet, WorksheetZone Zone, WorksheetTask Task, Guid? ComponentId, TaskPick Pick,
    int? TiedTo);

/// <summary>Merges worksheets into one walk.</summary>
public static class WalkList
{
    /// <summary>
    /// Merges the lists by zone in walking order. The first list's zones lead; a zone that only a later list knows comes after
    /// the one it follows there. Tasks that say the same in two lists, by their worksheets' own mark or word for word, are tied:
    /// the first is answered and the others with it.
    /// </summary>
    /// <param name="sheets">The worksheets, the leading one first.</param>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="kind">The inspection.</param>
    /// <param name="done">What was last done when, on this aircraft.</param>
    /// <param name="today">The day.</param>
    public static IReadOnlyList<WalkLine> Merge(IReadOnlyList<Worksheet> sheets, Aircraft aircraft, InspectionKind kind,
        IReadOnlyCollection<TaskDone> done, DateOnly today)
    {
        var last = done.GroupBy(task => (task.WorksheetKey, task.TaskKey, task.ComponentId))
            .ToDictionary(group => group.Key, group => group.MaxBy(task => task.On)!);
        List<WalkLine> walk = [];
        foreach (var zone in ZonesInOrder(sheets).SelectMany(zone => EachEngine(zone, aircraft)))
        {
            var part = zone.Part ?? aircraft.CarrierOf(zone.Leading.Book);
            var now = new PickNow(kind, today, aircraft.TimeInService.Value, OwnTime(aircraft, part));
            List<WalkLine> here = [];
            foreach (var (sheet, own) in sheets.SelectMany(sheet => sheet.Zones.Where(other => other.Key == zone.Leading.Key)
                .Select(other => (sheet, other))))
                foreach (var task in own.Tasks.Where(task => Worksheet.Applies(task.AppliesTo, aircraft, part)))
                    here.Add(new(walk.Count + here.Count, sheet, zone.Shown, task, part?.Id,
                        TaskPick.Of(task.At ?? [], last.GetValueOrDefault((sheet.Key, task.Key, part?.Id)), now), null));
            walk.AddRange(Tie(here));
        }
        return kind == InspectionKind.Survey ? DearFirst(walk) : walk;
    }

    // A survey goes by what not looking is worth: paper first, then what is dear, the dearest first wherever it is.
    private static List<WalkLine> DearFirst(List<WalkLine> walk)
    {
        List<WalkLine> sorted = [.. walk.OrderBy(line => line.Zone.Station)
            .ThenByDescending(line => line.Zone.Station == Station.Dear ? line.Task.Sampling?.Worth ?? 0 : 0)];
        var now = sorted.Index().ToDictionary(line => line.Item.Order, line => line.Index);
        return [.. sorted.Select(line => line with { Order = now[line.Order], TiedTo = line.TiedTo is { } lead ? now[lead] : null })];
    }

    private static List<WorksheetZone> ZonesInOrder(IReadOnlyList<Worksheet> sheets)
    {
        List<WorksheetZone> order = [];
        foreach (var sheet in sheets)
        {
            var after = -1;
            foreach (var zone in sheet.Zones)
            {
                var there = order.FindIndex(other => other.Key == zone.Key);
                if (there < 0)
                {
                    // A zone that is new goes behind its neighbour; with none, behind what stands at its station already.
                    there = (after >= 0 ? after : order.FindLastIndex(other => other.Station <= zone.Station)) + 1;
                    order.Insert(there, zone);
                }
                after = there;
            }
        }
        return order;
    }

    // The zones of a twin's engines stand once for each: what is read in them belongs to that engine or its propeller.
    private static IEnumerable<(WorksheetZone Leading, WorksheetZone Shown, Component? Part)> EachEngine(WorksheetZone zone,
        Aircraft aircraft)
    {
        var engines = aircraft.Engines.ToList();
        if (!zone.PerEngine || engines.Count < 2)
            return [(zone, zone, null)];
        return engines.Select(engine => (zone,
            zone with { Key = $"{zone.Key}-{engine.Position}", Title = $"{zone.Title}, {engine.Position}", Tasks = [] },
            zone.Book == Book.Propeller
                ? aircraft.Propellers.FirstOrDefault(propeller => propeller.Position == engine.Position)?.Component
                : engine.Component));
    }

    private static decimal? OwnTime(Aircraft aircraft, Component? part)
    {
        if (part is null)
            return aircraft.TimeInService.Value;
        var stay = aircraft.Fitting(part.Id);
        return (stay?.SinceOverhaul(aircraft.TimeInService) ?? stay?.TimeInService(aircraft.TimeInService))?.Value;
    }

    // A task that measures leads those that only look. Where one of them is due, all that are tied are done together.
    private static List<WalkLine> Tie(List<WalkLine> here)
    {
        var result = here.ToList();
        foreach (var same in here.GroupBy(line => line.Task.Same ?? Plain(line.Task.Text))
            .Where(group => group.Select(line => line.Worksheet.Key).Distinct().Count() > 1))
        {
            var lead = same.FirstOrDefault(line => line.Task.Measure is not null || line.Task.Compression) ?? same.First();
            var tied = same.Where(line => line.Worksheet.Key != lead.Worksheet.Key && line != lead && Answers(lead.Task, line.Task))
                .ToList();
            var pick = tied.Append(lead).Select(line => line.Pick).FirstOrDefault(pick => pick.IsDue) ?? lead.Pick;
            result[result.IndexOf(lead)] = lead with { Pick = pick };
            foreach (var line in tied)
                result[result.IndexOf(line)] = line with { Pick = pick, TiedTo = lead.Order };
        }
        return result;
    }

    /// <summary>Whether answering one task answers the other: it measures the same, or the other measures nothing.</summary>
    public static bool Answers(WorksheetTask lead, WorksheetTask other) =>
        other.Compression == lead.Compression && (other.Measure is null || other.Measure.Kind == lead.Measure?.Kind);

    private static string Plain(string words) => string.Concat(words.ToLowerInvariant().Where(char.IsLetterOrDigit));
}
