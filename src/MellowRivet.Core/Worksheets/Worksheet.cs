using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Records;

namespace MellowRivet.Core.Worksheets;

/// <summary>The seven stations of a walk, in working order.</summary>
public enum Station { Arrive, LookAndOpen, Engine, Airframe, Bulletins, FixList, Close }

/// <summary>What a measured task measures, and the limits it is judged by unless the aircraft's manual has its own.</summary>
/// <param name="Kind">The measurement's name, shared by all worksheets: "static-rpm".</param>
/// <param name="Unit">Symbol of the unit the value is kept in.</param>
/// <param name="Low">The least good value, or null.</param>
/// <param name="High">The greatest good value, or null.</param>
/// <param name="Standing">What weight the limits carry.</param>
/// <param name="Source">Where they come from.</param>
public sealed record WorksheetMeasure(string Kind, string Unit, double? Low, double? High, Standing Standing, string Source)
{
    /// <summary>The limits as a band. The unit is known: the shelf refuses a worksheet with another.</summary>
    [JsonIgnore]
    public ToleranceBand Band => new(Measures.Unit.Find(Unit)!, Low, High, new(Standing, Source));
}

/// <summary>Under which build of aircraft a task is there at all.</summary>
public enum AppliesTo { Every, NoseWheel, TailWheel, GearedEngine, Retractable, FoldingWing }

public sealed record WorksheetTask(
    string Key, string Text, string Reference, string? Caution = null, WorksheetMeasure? Measure = null,
    bool Compression = false, AppliesTo AppliesTo = AppliesTo.Every);

/// <param name="Key">Its name in the worksheet.</param>
/// <param name="Title">What is shown.</param>
/// <param name="Station">The station it stands at.</param>
/// <param name="Book">The logbook its work is entered in.</param>
/// <param name="Tasks">Its tasks in working order.</param>
/// <param name="Hours">Hours one person is expected to take, repairs not counted; null where nobody has said.</param>
public sealed record WorksheetZone(string Key, string Title, Station Station, Book Book, IReadOnlyList<WorksheetTask> Tasks, decimal? Hours = null);

/// <summary>A template of an inspection: its tasks by zone, in walking order. It lives on the shelf as a JSON file.</summary>
public sealed record Worksheet(string Key, string Title, int Version, string Basis, IReadOnlyList<WorksheetZone> Zones)
{
    public static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        RespectNullableAnnotations = true,
        RespectRequiredConstructorParameters = true,
        ReadCommentHandling = JsonCommentHandling.Skip,
    };

    /// <summary>Reads a worksheet and checks it whole.</summary>
    /// <exception cref="FormatException">It isn't JSON, a field is missing or unknown, a key stands twice, or a unit is unknown.</exception>
    public static Worksheet Parse(string json)
    {
        Worksheet sheet;
        try
        {
            sheet = JsonSerializer.Deserialize<Worksheet>(json, Json) ?? throw new FormatException("The worksheet is empty.");
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The worksheet can't be read: {problem.Message}", problem);
        }

        if (sheet.Zones.Count == 0 || sheet.Zones.Any(zone => zone.Tasks.Count == 0))
            throw new FormatException($"Worksheet '{sheet.Key}' needs zones, each with tasks.");
        var tasks = sheet.Zones.SelectMany(zone => zone.Tasks).ToList();
        var twice = tasks.GroupBy(task => task.Key).Where(group => group.Count() > 1).Select(group => group.Key)
            .Concat(sheet.Zones.GroupBy(zone => zone.Key).Where(group => group.Count() > 1).Select(group => group.Key)).ToList();
        if (twice.Count > 0)
            throw new FormatException($"Worksheet '{sheet.Key}' uses a key twice: {string.Join(", ", twice)}.");
        if (sheet.Zones.FirstOrDefault(zone => zone.Station is not (Station.Engine or Station.Airframe)) is { } stray)
            throw new FormatException($"Zone '{stray.Key}' stands at {stray.Station}; zones stand at the engine or airframe station.");
        if (tasks.FirstOrDefault(task => task.Measure is { } measure && Unit.Find(measure.Unit) is null) is { } unknown)
            throw new FormatException($"Task '{unknown.Key}' measures in '{unknown.Measure!.Unit}', which is no unit known here.");
        return sheet;
    }

    /// <summary>Whether a task is there on this aircraft.</summary>
    public static bool Applies(AppliesTo to, Aircraft aircraft) => to switch
    {
        AppliesTo.NoseWheel => aircraft.Configuration.Gear == Gear.NoseWheel,
        AppliesTo.TailWheel => aircraft.Configuration.Gear == Gear.TailWheel,
        AppliesTo.Retractable => aircraft.Configuration.Retractable,
        AppliesTo.FoldingWing => aircraft.Configuration.FoldingWing,
        AppliesTo.GearedEngine => aircraft.Engines.Any(engine => engine.Component.Layout.Geared),
        _ => true,
    };
}
