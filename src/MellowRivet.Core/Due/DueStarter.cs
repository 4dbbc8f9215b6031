using System.Text.Json;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Due;

/// <summary>Something that usually falls due on aircraft or parts of a kind: offered when one is made, never taken for granted.</summary>
/// <param name="Key">Its name on the shelf.</param>
/// <param name="What">What falls due.</param>
/// <param name="Kind">What kind of thing it is.</param>
/// <param name="Interval">How often; a starting value.</param>
/// <param name="Source">Where the interval comes from.</param>
/// <param name="DoneBy">The inspections that count as having done it.</param>
/// <param name="Categories">The categories of aircraft it goes with; empty for every.</param>
/// <param name="On">The kind of part it hangs on; null for the aircraft.</param>
/// <param name="Layouts">The engine layouts it goes with; empty for every.</param>
/// <param name="Asked">Offered without a tick: not every such aircraft needs it.</param>
public sealed record DueStarter(
    string Key, string What, DueKind Kind, Interval Interval, RuleSource Source, IReadOnlyList<InspectionKind> DoneBy,
    IReadOnlyList<Category> Categories, ComponentKind? On, IReadOnlyList<string> Layouts, bool Asked)
{
    /// <summary>Reads a shelf file of starters.</summary>
    /// <exception cref="FormatException">It isn't JSON, or a field is missing, unknown or out of range.</exception>
    public static IReadOnlyList<DueStarter> Parse(string json)
    {
        try
        {
            var starters = JsonSerializer.Deserialize<List<DueStarter>>(json, Worksheet.Json)
                ?? throw new FormatException("The list of due items is empty.");
            if (starters.FirstOrDefault(starter => starter.Interval.Check().Any()) is { } wrong)
                throw new FormatException($"Due item '{wrong.Key}': {wrong.Interval.Check().First().Message}");
            return starters;
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The list of due items can't be read: {problem.Message}", problem);
        }
    }

    /// <summary>The items it comes to on an aircraft: one, or one for each part of its kind; none where it doesn't go with it.</summary>
    public IEnumerable<DueItem> For(Aircraft aircraft)
    {
        if (Categories.Count > 0 && !Categories.Contains(aircraft.Category))
            return [];
        var engines = aircraft.Engines.ToList();
        if (Layouts.Count > 0 && !engines.Any(engine => Layouts.Contains(engine.Component.LayoutKey!)))
            return [];
        return On is { } kind
            ? aircraft.Fitted(kind).Where(part => kind != ComponentKind.Engine || Layouts.Count == 0
                || Layouts.Contains(part.Component.LayoutKey!)).Select(part => Make(null, part.ComponentId))
            : [Make(aircraft.Id, null)];
    }

    private DueItem Make(Guid? aircraft, Guid? part) => new(Guid.CreateVersion7(), aircraft, part, What, Kind, Interval, Source, DoneBy);
}
