using System.Text.Json.Serialization;
using MellowRivet.Core.Books;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;

namespace MellowRivet.Core.Fleet;

/// <summary>The certification basis, which decides who may sign and which wording holds.</summary>
public enum Category { Standard = 1, ExperimentalAmateurBuilt, ExperimentalLightSport, SpecialLightSport, Permit, Other }

public enum Wing { Low = 1, High }

public enum Gear { NoseWheel = 1, TailWheel }

/// <summary>What the drawing of an aircraft is made from, and which tasks it has.</summary>
public sealed record Configuration(Wing Wing, Gear Gear, int Engines, int Seats, bool Retractable = false, bool FoldingWing = false,
    bool Fabric = false);

/// <summary>A limit of this aircraft's own maintenance manual. It stands before any limit of a worksheet.</summary>
/// <param name="Measure">The kind of measurement, as the worksheet names it: "static-rpm".</param>
/// <param name="UnitSymbol">The unit of the limits.</param>
/// <param name="Low">The least good value, or null.</param>
/// <param name="High">The greatest good value, or null.</param>
/// <param name="Reference">Where the manual says so.</param>
/// <param name="Set">Who put it on file; null for what was there before that was kept, or came with a file.</param>
public sealed record ManualLimit(string Measure, string UnitSymbol, double? Low, double? High, string Reference, WhoSet? Set = null)
{
    /// <summary>"from 2200 to 2300 rpm, manual 5-2".</summary>
    [JsonIgnore]
    public string InWords =>
        $"{(Low is { } low ? $"from {low:0.###} " : "")}{(High is { } high ? $"to {high:0.###} " : "")}{UnitSymbol}, {Reference}";

    /// <summary>The limit as it is typed, or what is wrong with it: one end at least, and where the manual says so.</summary>
    public static (ManualLimit? Limit, Refusal? Refusal) Read(string measure, string unit, string? low, string? high, string? reference)
    {
        if (Unit.Find(unit) is not { } of)
            return (null, new("limit", $"“{unit}” is no unit."));
        var (least, most) = (MeasureText.Value(low, of), MeasureText.Value(high, of));
        if (TypedNumber.IsNone(low, least) || TypedNumber.IsNone(high, most) || (least is null && most is null))
            return (null, new("limit", "At least one limit, as a number."));
        if (least > most)
            return (null, new("limit", "The lower limit is above the upper one."));
        return string.IsNullOrWhiteSpace(reference) || reference.Trim().Length > 80
            ? (null, new("limit", "The manual's reference: chapter, page, revision, up to 80 characters."))
            : (new(measure, unit, least, most, reference.Trim()), null);
    }
}

/// <summary>An aircraft that the shop looks after.</summary>
public sealed partial class Aircraft
{
    // Null where they weren't loaded with it: what nobody fetched is not taken for nothing.
    private List<Installation>? installations;
    private List<MeterReading>? meterReadings;
    private List<Meter> meters = [];
    private List<ManualLimit> limits = [];
    private List<CableTable> cableTables = [];
    private List<GapNote> gapNotes = [];
    private List<MajorWork> majorWork = [];

    private Aircraft() { }

    public Aircraft(Guid id, string registration, string type, string serialNumber, Category category, Configuration configuration)
    {
        (installations, meterReadings) = ([], []);
        Id = id;
        Describe(registration, type, serialNumber, category, configuration);
    }

    public Guid Id { get; private set; }
    public string Registration { get; private set; } = "";
    public string Type { get; private set; } = "";
    public string SerialNumber { get; private set; } = "";
    public Category Category { get; private set; }
    public Configuration Configuration { get; private set; } = new(Wing.Low, Gear.NoseWheel, 1, 2);

    /// <summary>The meter whose total is the time in service.</summary>
    public MeterKind TimeBasis { get; init; } = MeterKind.Tach;

    /// <summary>Time in service at the latest reading; zero for an aircraft that was never read.</summary>
    public Hours TimeInService { get; private set; }

    /// <summary>The day of that reading.</summary>
    public DateOnly? ReadOn { get; private set; }

    /// <summary>
    /// Counts changes of its file: its plate, parts, meter readings, due items, bulletins or open items. What was reckoned
    /// from them at the same count holds.
    /// </summary>
    public int Changes { get; private set; }

    /// <summary>Only surveyed for somebody who may buy it: it isn't in the hangar, and nothing of it is followed.</summary>
    public bool OnlySurveyed { get; private set; }

    /// <summary>Puts it on file for a survey alone.</summary>
    public void ForSurvey() => OnlySurveyed = true;

    /// <summary>It is bought, and looked after from now on.</summary>
    public void Joins() => OnlySurveyed = false;

    public IReadOnlyList<Meter> Meters => meters;
    /// <exception cref="InvalidOperationException">They weren't loaded with it.</exception>
    public IReadOnlyList<MeterReading> MeterReadings => Loaded.List(meterReadings);
    public IReadOnlyList<ManualLimit> Limits => limits;

    /// <summary>The manual's tables of cable tension by temperature.</summary>
    public IReadOnlyList<CableTable> CableTables => cableTables;

    /// <summary>Holes in the books that somebody explained.</summary>
    public IReadOnlyList<GapNote> GapNotes => gapNotes;

    /// <summary>Major repairs and alterations that are on file, with their forms.</summary>
    public IReadOnlyList<MajorWork> MajorWork => majorWork;

    /// <summary>Every part that is or was on the aircraft.</summary>
    /// <exception cref="InvalidOperationException">They weren't loaded with it.</exception>
    public IReadOnlyList<Installation> Installations => Loaded.List(installations);

    /// <summary>Puts other words on the data plate.</summary>
    public void Describe(string registration, string type, string serialNumber, Category category, Configuration configuration)
    {
        Registration = registration;
        Type = type;
        SerialNumber = serialNumber;
        Category = category;
        Configuration = configuration;
    }

    /// <summary>Puts a major repair or alteration on file; under its id it takes the place of the first.</summary>
    public void Keep(MajorWork work) => majorWork = [.. majorWork.Where(other => other.Id != work.Id), work];

    /// <summary>Takes one off file that was put there by mistake.</summary>
    public void Drop(Guid work) => majorWork = [.. majorWork.Where(other => other.Id != work)];

    /// <summary>
    /// The manual's limit for a measurement: its own, else the one that holds for both sides; null where none is on file.
    /// </summary>
    public ManualLimit? LimitOf(string measure) => limits.Find(limit => limit.Measure == measure)
        ?? limits.Find(limit => limit.Measure == Sides.BothOf(measure));

    /// <summary>What a new limit of a measurement is filed under: both sides, unless this side has one of its own.</summary>
    public string FiledUnder(string measure) => limits.Exists(limit => limit.Measure == measure) ? measure : Sides.BothOf(measure);

    /// <summary>Puts a manual limit on file in place of an earlier one for the same measurement.</summary>
    public void SetLimit(ManualLimit limit) => limits = [.. limits.Where(other => other.Measure != limit.Measure), limit];

    /// <summary>Puts a table on file; cables it is for leave the table they were in.</summary>
    public void SetCableTable(CableTable table) => cableTables =
    [
        .. cableTables.Select(other => other with { Measures = [.. other.Measures.Except(table.Measures)] })
            .Where(other => other.Measures.Count > 0), table,
    ];

    /// <summary>Explains a hole in the books, in place of an earlier explanation.</summary>
    public void Explain(GapNote note) =>
        gapNotes = [.. gapNotes.Where(other => (other.Kind, other.From, other.To) != (note.Kind, note.From, note.To)), note];
}
