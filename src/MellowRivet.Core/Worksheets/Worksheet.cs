using System.Text.Encodings.Web;
using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;

namespace MellowRivet.Core.Worksheets;

/// <summary>
/// The stations of a walk, in working order: the seven of an inspection, and from paper on those of a survey, which shares the fix list.
/// </summary>
public enum Station { Arrive = 1, LookAndOpen, Engine, Airframe, Bulletins, FixList, Close, Paper, Dear, Quick, Run, Money }

public static class Stations
{
    /// <summary>Those of an inspection.</summary>
    public static readonly IReadOnlyList<Station> OfInspection = [Station.Arrive, Station.LookAndOpen, Station.Engine, Station.Airframe,
        Station.Bulletins, Station.FixList, Station.Close];

    /// <summary>Those of a survey: what is dear before what is quick to look at.</summary>
    public static readonly IReadOnlyList<Station> OfSurvey = [Station.Paper, Station.Dear, Station.Quick, Station.Run, Station.FixList,
        Station.Money];

    /// <summary>Where tasks of a survey stand.</summary>
    public static bool IsOfSurvey(this Station station) => station is Station.Paper or Station.Dear or Station.Quick or Station.Run;
}

/// <summary>How a measured task is judged.</summary>
public enum MeasureMethod
{
    /// <summary>Against its limits.</summary>
    Plain = 1,

    /// <summary>Against the aircraft's own table of tension by temperature.</summary>
    CableTension,

    /// <summary>Against a minimum, with the hours left at this wear.</summary>
    Wear,

    /// <summary>Against its limits, with the wrench it was pulled with.</summary>
    Torque,
}

/// <summary>What a measured task measures, and the limits it is judged by unless the aircraft's manual has its own.</summary>
/// <param name="Kind">The measurement's name, shared by all worksheets: "static-rpm".</param>
/// <param name="Unit">Symbol of the unit the value is kept in.</param>
/// <param name="Low">The least good value, or null.</param>
/// <param name="High">The greatest good value, or null.</param>
/// <param name="Standing">What weight the limits carry.</param>
/// <param name="Source">Where they come from.</param>
/// <param name="Method">How it is judged.</param>
public sealed record WorksheetMeasure(string Kind, string Unit, double? Low, double? High, Standing Standing, string Source,
    MeasureMethod Method = MeasureMethod.Plain)
{
    /// <summary>The limits as a band. The unit is known: a worksheet with another is refused.</summary>
    [JsonIgnore]
    public ToleranceBand Band => new(Measures.Unit.Find(Unit)!, Low, High, new(Standing, Source));
}

/// <summary>Under which build of aircraft a task is there at all.</summary>
public enum AppliesTo
{
    Every = 1, NoseWheel, TailWheel, GearedEngine, Retractable, FoldingWing, Twin, Fabric, TwoStroke, GearedFour, HardSkin, FourStroke,
}

/// <summary>What is done at a task.</summary>
public enum TaskKind { Inspect = 1, Service, Lubricate, Replace, Measure, Functional }

/// <summary>What has to be so before a task can be done.</summary>
public enum Need { PanelsOpen = 1, PowerOn, EngineHot }

/// <param name="Key">Its name in the worksheet.</param>
/// <param name="Text">What is done.</param>
/// <param name="Reference">Where it is asked for.</param>
/// <param name="Caution">What can hurt; null for most.</param>
/// <param name="Measure">What is measured; null for most.</param>
/// <param name="Compression">Answered at the compression page.</param>
/// <param name="AppliesTo">The build it is there on.</param>
/// <param name="Kind">What is done.</param>
/// <param name="With">The lubricant, fluid or part; null where it takes none.</param>
/// <param name="At">The intervals it is due at; empty for every inspection.</param>
/// <param name="Needs">What has to be so first.</param>
/// <param name="SecondPerson">An airworthiness item that a second person inspects where the shop says so.</param>
/// <param name="Same">A word that tasks of other worksheets bear that say the same.</param>
/// <param name="Covers">Paragraphs of an inspection's scope that it covers: "43D(d)(3)".</param>
/// <param name="Asks">The sheet of the engine station that answers it; null for most.</param>
/// <param name="Sampling">How a survey samples it; null in an inspection's worksheet.</param>
public sealed record WorksheetTask(
    string Key, string Text, string Reference, string? Caution = null, WorksheetMeasure? Measure = null, bool Compression = false,
    AppliesTo AppliesTo = AppliesTo.Every,
    TaskKind Kind = TaskKind.Inspect, string? With = null, IReadOnlyList<TaskInterval>? At = null, IReadOnlyList<Need>? Needs = null,
    bool SecondPerson = false, string? Same = null,
    IReadOnlyList<string>? Covers = null, Asked? Asks = null, Sampling? Sampling = null);

/// <param name="Key">Its name, the same in every worksheet that has it.</param>
/// <param name="Title">What is shown.</param>
/// <param name="Station">The station it stands at.</param>
/// <param name="Book">The logbook its work is entered in.</param>
/// <param name="Tasks">Its tasks in working order.</param>
/// <param name="Hours">Hours one person is expected to take, repairs not counted; null where nobody has said.</param>
/// <param name="Looks">A place that is looked at dirty, cleaned and looked at again; false for a run or paperwork.</param>
/// <param name="PerEngine">Stands once for each engine of a twin.</param>
public sealed record WorksheetZone(
    string Key, string Title, Station Station, Book Book, IReadOnlyList<WorksheetTask> Tasks, decimal? Hours = null, bool Looks = true,
    bool PerEngine = false);

/// <summary>Which aircraft and inspections a worksheet is ticked for beforehand; what is empty or null leaves that open.</summary>
public sealed record Suits(IReadOnlyList<Category>? Categories = null, IReadOnlyList<AppliesTo>? Builds = null,
    IReadOnlyList<InspectionKind>? Inspections = null);

/// <summary>A template of an inspection: its tasks by zone, in walking order.</summary>
/// <param name="Key">Its name on the shelf.</param>
/// <param name="Title">What is shown.</param>
/// <param name="Version">Its edition, from 1.</param>
/// <param name="Basis">What it rests on, in words.</param>
/// <param name="Zones">Its zones.</param>
/// <param name="Suits">What it is ticked for beforehand; null for nothing.</param>
public sealed partial record Worksheet(string Key, string Title, int Version, string Basis, IReadOnlyList<WorksheetZone> Zones,
    Suits? Suits = null)
{
    /// <summary>The zone that stands for the whole aircraft in the lists that ship.</summary>
    public const string WholeAircraft = "general";

    /// <summary>The most tasks a worksheet takes.</summary>
    public const int MostTasks = 1_000;

    /// <summary>Largest file taken in, in bytes.</summary>
    public const int MostBytes = 2 * 1024 * 1024;

    public static JsonSerializerOptions Json { get; } = new(JsonSerializerDefaults.Web)
    {
        Converters = { new EnumWords(JsonNamingPolicy.CamelCase) },
        UnmappedMemberHandling = JsonUnmappedMemberHandling.Disallow,
        RespectNullableAnnotations = true,
        RespectRequiredConstructorParameters = true,
        ReadCommentHandling = JsonCommentHandling.Skip,
        MaxDepth = 12,
        WriteIndented = true,
        Encoder = JavaScriptEncoder.UnsafeRelaxedJsonEscaping,
    };

    [JsonIgnore]
    public IEnumerable<WorksheetTask> Tasks => Zones.SelectMany(zone => zone.Tasks);

    /// <summary>It is for surveys, which are no inspections.</summary>
    [JsonIgnore]
    public bool IsOfSurvey => Zones.Any(zone => zone.Station.IsOfSurvey());

    /// <summary>Every interval that a task of it has, in order: its columns.</summary>
    [JsonIgnore]
    public IReadOnlyList<TaskInterval> Columns => [.. Tasks.SelectMany(task => task.At ?? []).Distinct().OrderBy(column => column.Rank)];

    /// <summary>Reads a worksheet and checks it whole.</summary>
    /// <exception cref="FormatException">It isn't JSON, a field is missing or unknown, or it doesn't hold together.</exception>
    public static Worksheet Parse(string json)
    {
        try
        {
            var sheet = FileJson.Read<Worksheet>(json, Json) ?? throw new FormatException("The worksheet is empty.");
            return sheet.Fault() is { } fault ? throw new FormatException($"Worksheet '{sheet.Key}': {fault}") : sheet;
        }
        catch (JsonException problem)
        {
            throw new FormatException(
                $"The worksheet can't be read: {problem.Message.Split(" LineNumber")[0]}"
                + $"{(problem.LineNumber is { } line ? $" (line {line + 1})" : "")}", problem);
        }
    }

    public string ToJson() => JsonSerializer.Serialize(this, Json) + "\n";

    /// <summary>What doesn't hold together, in words; null for a worksheet that can be walked.</summary>
    public string? Fault()
    {
        if (!IsKey(Key) || string.IsNullOrWhiteSpace(Title) || Title.Length > 100 || Basis.Length > 1_000 || Version < 1)
            return "it needs a key of small letters, digits and dashes, a title of up to 100 and a basis of up to 1000 "
                + "characters, and a version from 1.";
        if (Zones.Count == 0 || Zones.Any(zone => zone.Tasks.Count == 0))
            return "it needs zones, each with tasks.";
        if (Tasks.Count() > MostTasks)
            return $"it has {Tasks.Count()} tasks; {MostTasks} is the most.";
        var twice = Tasks.GroupBy(task => task.Key).Where(group => group.Count() > 1).Select(group => group.Key)
            .Concat(Zones.GroupBy(zone => zone.Key).Where(group => group.Count() > 1).Select(group => group.Key)).ToList();
        if (twice.Count > 0)
            return $"it uses a key twice: {string.Join(", ", twice)}.";
        if (Zones.Select(zone => zone.Station.IsOfSurvey()).Distinct().Count() > 1)
            return "it is for a survey, or it is for inspections: its zones stand at the stations of one of the two.";
        return Zones.Select(FaultOf).FirstOrDefault(fault => fault is not null)
            ?? Tasks.Select(FaultOf).FirstOrDefault(fault => fault is not null);
    }

    /// <summary>What is wrong with one task; null where it can stand in a worksheet.</summary>
    public static string? FaultOf(WorksheetTask task)
    {
        if (!IsKey(task.Key))
            return $"“{task.Key}” is no key: small letters, digits and dashes, up to 40.";
        if (string.IsNullOrWhiteSpace(task.Text) || task.Text.Length > 300 || string.IsNullOrWhiteSpace(task.Reference)
            || task.Reference.Length > 120)
            return $"task {task.Key} needs words of up to 300 characters and a reference of up to 120.";
        if (task.Caution?.Length > 400 || task.With?.Length > 80 || task.Same?.Length > 40 || task.At?.Count > 12 || task.Covers?.Count > 20
            || task.Covers?.Any(paragraph => paragraph.Length is 0 or > 40) == true)
            return $"task {task.Key}: a caution has up to 400 characters, the lubricant 80, the word for the same and each paragraph "
                + $"covered 40, and there are up to 12 intervals and 20 paragraphs.";
        if (task.Sampling?.Fault() is { } unsampled)
            return $"task {task.Key}: {unsampled}";
        if (task.Kind == TaskKind.Lubricate && string.IsNullOrWhiteSpace(task.With))
            return $"task {task.Key} lubricates: say with what.";
        if (task.Kind == TaskKind.Measure && task.Measure is null)
            return $"task {task.Key} measures: say what, in which unit.";
        if (task.Measure is not { } measure)
            return null;
        if (Unit.Find(measure.Unit) is null)
            return $"task {task.Key} measures in '{measure.Unit}', which is no unit known here.";
        if (!IsKey(measure.Kind) || string.IsNullOrWhiteSpace(measure.Source) || measure.Source.Length > 120)
            return $"task {task.Key}: a measurement needs a name of small letters, digits and dashes, and where its limits come "
                + $"from, up to 120 characters.";
        if (measure.Low > measure.High
            || new[] { measure.Low, measure.High }
            .Any(limit => limit is { } value && (!double.IsFinite(value) || Math.Abs(value) > 1_000_000)))
            return $"task {task.Key}: the lower limit is above the upper one, or out of range.";
        return null;
    }

    private static string? FaultOf(WorksheetZone zone)
    {
        if (!IsKey(zone.Key) || string.IsNullOrWhiteSpace(zone.Title) || zone.Title.Length > 60)
            return $"zone “{zone.Key}” needs a key of small letters, digits and dashes and a title of up to 60 characters.";
        if (zone.Station is not (Station.Engine or Station.Airframe) && !zone.Station.IsOfSurvey())
            return $"zone '{zone.Key}' stands at {zone.Station}; zones stand at the engine or airframe station, or at one of a survey's.";
        return zone.Hours is < 0 or > 200 ? $"zone '{zone.Key}': between 0 and 200 hours." : null;
    }

    private static bool IsKey(string key) =>
        key.Length is > 0 and <= 40 && key.All(letter => letter is (>= 'a' and <= 'z') or (>= '0' and <= '9') or '-');

    /// <summary>
    /// Whether it is ticked beforehand for an inspection of an aircraft. One that says nothing is there to be chosen, and ticked for none.
    /// </summary>
    public bool IsOfferedFor(Aircraft aircraft, InspectionKind kind) => Suits is { } suits
        && (suits.Categories is not { Count: > 0 } categories || categories.Contains(aircraft.Category))
        && (suits.Builds is not { Count: > 0 } builds || builds.All(build => Applies(build, aircraft)))
        && (suits.Inspections is not { Count: > 0 } kinds || kinds.Contains(kind));

    /// <summary>Whether a task is there on this aircraft.</summary>
    /// <param name="to">The build it is for.</param>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="part">The engine or propeller it is about, where that is known.</param>
    public static bool Applies(AppliesTo to, Aircraft aircraft, Component? part = null)
    {
        var engines = part?.Kind == ComponentKind.Engine ? [part] : aircraft.Engines.Select(engine => engine.Component);
        return to switch
        {
            AppliesTo.NoseWheel => aircraft.Configuration.Gear == Gear.NoseWheel,
            AppliesTo.TailWheel => aircraft.Configuration.Gear == Gear.TailWheel,
            AppliesTo.Retractable => aircraft.Configuration.Retractable,
            AppliesTo.FoldingWing => aircraft.Configuration.FoldingWing,
            AppliesTo.Twin => aircraft.Configuration.Engines > 1,
            AppliesTo.Fabric => aircraft.Configuration.Fabric,
            AppliesTo.HardSkin => !aircraft.Configuration.Fabric,
            AppliesTo.FourStroke => engines.Any(engine => engine.Layout != EngineLayout.InlineTwoStroke),
            AppliesTo.GearedEngine => engines.Any(engine => engine.Layout.Geared),
            AppliesTo.TwoStroke => engines.Any(engine => engine.Layout == EngineLayout.InlineTwoStroke),
            AppliesTo.GearedFour => engines.Any(engine => engine.Layout == EngineLayout.GearedFlatFour),
            _ => true,
        };
    }
}
