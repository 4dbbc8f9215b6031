using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Records;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

public enum InspectionKind { Annual = 1, HundredHour, Condition, Permit, Service25, Service50, Service100, Job, Survey }

public enum InspectionState { InWork = 1, SignedAirworthy, SignedUnairworthy, Surveyed }

/// <summary>An inspection of one aircraft: the tasks of the walk, what was read and what was found, until it is signed.</summary>
public sealed partial class Inspection
{
    // Null where they weren't loaded with it: what nobody fetched is not taken for nothing.
    private List<InspectionTask>? tasks;
    private List<Reading>? readings;
    private List<CompressionTest>? compressionTests;

    private Inspection() { }

    /// <summary>Begins an inspection with what is due of some worksheets, merged into one walk.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="kind">What kind of inspection.</param>
    /// <param name="workOrder">Its work order.</param>
    /// <param name="worksheets">The lists, the leading one first.</param>
    /// <param name="openedOn">The day.</param>
    /// <param name="done">What was last done when on this aircraft; nothing where there is no record.</param>
    /// <param name="house">How the shop works.</param>
    /// <param name="knownMarks">Marks that earlier inspections found benign.</param>
    /// <param name="openItems">What earlier inspections left open: it stands on the fix list from the start.</param>
    public Inspection(Guid id, Aircraft aircraft, InspectionKind kind, string workOrder, IReadOnlyList<Worksheet> worksheets,
        DateOnly openedOn,
        IReadOnlyCollection<TaskDone>? done = null, HouseRules? house = null, IEnumerable<KnownMark>? knownMarks = null,
        IEnumerable<OpenItem>? openItems = null)
    {
        (tasks, readings, compressionTests, discrepancies) = ([], [], [], []);
        Id = id;
        AircraftId = aircraft.Id;
        Kind = kind;
        WorkOrder = workOrder;
        OpenedOn = openedOn;
        TimeInService = aircraft.TimeInService;
        House = house ?? new();
        this.knownMarks = [.. knownMarks ?? []];
        this.worksheets =
            [.. worksheets.Select(sheet =>
                new WorksheetUsed(sheet.Key, sheet.Title, sheet.Version, sheet.Zones.Sum(zone => zone.Hours ?? 0)))];
        Begin(WalkList.Merge(worksheets, aircraft, kind, done ?? [], openedOn));
        CarryIn(openItems ?? []);
    }

    public Guid Id { get; private set; }
    public Guid AircraftId { get; private set; }
    public InspectionKind Kind { get; private set; }
    public string WorkOrder { get; private set; } = "";
    public DateOnly OpenedOn { get; private set; }

    /// <summary>The aircraft's time in service when it came in.</summary>
    public Hours TimeInService { get; private set; }

    /// <summary>The meter it came in with was put right while it is in work.</summary>
    public void ReckonFrom(Hours now) => TimeInService = InWork ? now : TimeInService;

    /// <summary>The shop's rules that hold for it.</summary>
    public HouseRules House { get; private set; } = new();
    public InspectionState State { get; private set; } = InspectionState.InWork;

    /// <summary>Counts saves that changed it or anything in it: what was loaded at the same count is the same.</summary>
    public int Changes { get; private set; }

    /// <exception cref="InvalidOperationException">They weren't loaded with it: so for the next ones.</exception>
    public IReadOnlyList<InspectionTask> Tasks => Loaded.List(tasks);
    public IReadOnlyList<Reading> Readings => Loaded.List(readings);
    public IReadOnlyList<CompressionTest> CompressionTests => Loaded.List(compressionTests);

    public bool InWork => State == InspectionState.InWork;

    /// <summary>Why nothing can be recorded any more, or null while it is in work.</summary>
    public Refusal? Closed() =>
        InWork ? null
        : IsSurvey ? new("inspection", "This survey has ended. Take it up again to change it.")
        : new("inspection", "This inspection is signed. A mistake is put right by a new entry, not by changing this one.");

    public CompressionTest Begin(CompressionTest test)
    {
        Loaded.List(compressionTests).Add(test);
        return test;
    }

    public Reading Record(Reading reading)
    {
        Loaded.List(readings).Add(reading);
        return reading;
    }

    /// <summary>The latest reading taken at a task.</summary>
    public Reading? ReadingAt(InspectionTask task) => Readings.Where(reading => reading.TaskId == task.Id).MaxBy(reading => reading.At);

    /// <summary>How long the temperature at a cable, or the wrench at hand, is taken for what it still is.</summary>
    public static readonly TimeSpan StillSo = TimeSpan.FromHours(2);

    /// <summary>
    /// What the last reading by a method was taken at, or with, where that is not longer ago than <see cref="StillSo"/>: said once, it
    /// stands in the next one's field, and a person may say otherwise. Null for none.
    /// </summary>
    public ReadingConditions? TakenLast(MeasureMethod method, DateTimeOffset now) => Readings
        .Where(reading => now - reading.LastAt <= StillSo && method switch
        {
            MeasureMethod.CableTension => reading.Conditions.Celsius is not null,
            MeasureMethod.Torque => reading.Conditions.Wrench is not null,
            _ => false,
        }).MaxBy(reading => reading.LastAt)?.Conditions;

    /// <summary>What a task's reading was judged to be: the aircraft's own limit before the worksheet's; null without a reading.</summary>
    public Judgement? JudgementAt(InspectionTask task, Aircraft aircraft)
    {
        if (task.IsCompression)
        {
            var sheets = CompressionSheetsOf(task, aircraft).ToList();
            return sheets.Count == 0 || sheets.Any(sheet => sheet.Cylinders.Any(cylinder => cylinder.Latest is null))
                ? null
                : Judgement.Worst(sheets.Select(sheet => sheet.Assessment!.Overall));
        }
        return ReadingAt(task) is { } reading ? TaskJudge.Judge(task, aircraft, reading).Judgement : null;
    }

    /// <summary>The engines that a compression task is about: its own, or every one.</summary>
    public IEnumerable<CompressionSheet> CompressionSheetsOf(InspectionTask task, Aircraft aircraft) => aircraft.Engines
        .Where(engine => task.ComponentId is null || engine.ComponentId == task.ComponentId)
        .Select(engine => CompressionSheet.Of(aircraft, engine.Component, this));

    /// <summary>The logbook that work in a zone goes into.</summary>
    public Book BookOf(string zoneKey) =>
        JobZone(zoneKey)?.Book ?? Tasks.FirstOrDefault(task => task.ZoneKey == zoneKey)?.Book ?? Book.Airframe;

    /// <summary>The engine or propeller that a zone is about; null for neither, or for several.</summary>
    public Guid? PartOf(string zoneKey) => JobZone(zoneKey) is { } zone ? zone.Part
        : Tasks.Where(task => task.ZoneKey == zoneKey).Select(task => task.ComponentId).Distinct().Take(2).ToList() is [var only]
            ? only
            : null;

    /// <summary>Whose book something is entered in that was found or done on a part, in a zone.</summary>
    public EnteredIn EnteredIn(Aircraft aircraft, Guid? part, string zoneKey) =>
        Records.EnteredIn.Of(aircraft, part, BookOf(zoneKey), PartOf(zoneKey));

    /// <summary>The zone's title, or the key where no task stands in it.</summary>
    public string ZoneTitle(string zoneKey) =>
        JobZone(zoneKey)?.Title ?? Tasks.FirstOrDefault(task => task.ZoneKey == zoneKey)?.ZoneTitle ?? zoneKey;

    /// <summary>
    /// Lets other rules of the shop hold while it is in work. What the owner approved before agreed prices were kept is kept at the
    /// rates that held until now, where it is loaded.
    /// </summary>
    public void Work(HouseRules rules)
    {
        if (!InWork)
            return;
        foreach (var found in discrepancies ?? [])
            found.KeepAgreed(House);
        House = rules;
    }

    /// <summary>Ends the work: the open airworthiness items, and nobody's choice, decide which way.</summary>
    /// <exception cref="InvalidOperationException">It is a survey, of which nothing is ever signed.</exception>
    public void Sign()
    {
        if (IsSurvey)
            throw new InvalidOperationException(SurveyWords.NoInspection);
        State = OpenAirworthiness.Any() ? InspectionState.SignedUnairworthy : InspectionState.SignedAirworthy;
    }
}

public static class InspectionWords
{
    public static string InWords(this InspectionKind kind) => kind switch
    {
        InspectionKind.Annual => "annual",
        InspectionKind.HundredHour => "100-hour",
        InspectionKind.Permit => "permit inspection",
        InspectionKind.Service25 => "25-hour service",
        InspectionKind.Service50 => "50-hour service",
        InspectionKind.Service100 => "100-hour service",
        InspectionKind.Job => "job",
        InspectionKind.Survey => "pre-purchase survey",
        _ => "condition inspection",
    };

    /// <summary>A service is entered as maintenance (14 CFR 43.9) and takes no inspection's place.</summary>
    public static bool IsService(this InspectionKind kind) =>
        kind is InspectionKind.Service25 or InspectionKind.Service50 or InspectionKind.Service100;

    /// <summary>The kind in full, as an entry names it: "annual inspection", "100-hour service".</summary>
    public static string InFull(this InspectionKind kind) => kind switch
    {
        InspectionKind.HundredHour or InspectionKind.Annual => $"{kind.InWords()} inspection",
        _ => kind.InWords(),
    };

    /// <summary>The kind as one chooses it: what is mixed up is told apart.</summary>
    public static string InWordsToChoose(this InspectionKind kind) => kind switch
    {
        InspectionKind.Service25 or InspectionKind.Service50 or InspectionKind.Service100 => $"{kind.InWords()} (no inspection)",
        _ => kind.InFull(),
    };

    /// <summary>What a kind is, where people mix it up with another.</summary>
    public static string Means(this InspectionKind kind) => kind switch
    {
        InspectionKind.Job => "work without an inspection around it, entered as maintenance.",
        InspectionKind.Survey => "a look at what is dear before somebody buys. It is no inspection and no airworthiness statement.",
        InspectionKind.HundredHour =>
            "an inspection of the whole scope, signed under 43.11; not the oil change that is due at the same hours.",
        InspectionKind.Service25 or InspectionKind.Service50 or InspectionKind.Service100 =>
            "oil, plugs and a look around, entered as maintenance. It is no inspection under 43.15 and takes no inspection’s place; a "
            + "100-hour inspection is another kind.",
        _ => "an inspection of the whole scope.",
    };
}
