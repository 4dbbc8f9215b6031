using System.Text.Json;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Records;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

/// <summary>Where work of a job can lie: the airframe, an engine, a propeller.</summary>
/// <param name="Key">Its key, as a zone of a walk.</param>
/// <param name="Title">What it is called.</param>
/// <param name="Book">The book that work there goes into.</param>
/// <param name="Part">The engine or propeller; null for the airframe.</param>
public sealed record JobZone(string Key, string Title, Book Book, Guid? Part);

/// <summary>What a job is about, where no inspection is around the work.</summary>
/// <param name="Title">What is to be done: "Oil and filter change".</param>
/// <param name="DueItem">The due item that is done by it; null for none.</param>
/// <param name="IsPreventive">A pilot who owns or operates the aircraft does it as preventive maintenance.</param>
/// <param name="Zones">Where its work can lie.</param>
public sealed record JobOf(string Title, Guid? DueItem, bool IsPreventive, IReadOnlyList<JobZone> Zones)
{
    /// <summary>Longest title, in characters.</summary>
    public const int LongestTitle = 120;

    /// <summary>Where work on an aircraft can lie.</summary>
    public static IReadOnlyList<JobZone> ZonesOf(Aircraft aircraft) =>
    [
        new("airframe", "Airframe", Book.Airframe, null),
        .. aircraft.Engines.Select(stay => Of("engine", "Engine", Book.Engine, stay)),
        .. aircraft.Propellers.Select(stay => Of("propeller", "Propeller", Book.Propeller, stay)),
    ];

    private static JobZone Of(string key, string title, Book book, Installation stay) => new(
        stay.Position.Length == 0 ? key : $"{key}-{stay.Position}", stay.Position.Length == 0 ? title : $"{title}, {stay.Position}", book,
        stay.ComponentId);
}

/// <summary>A job that is usually done without an inspection.</summary>
/// <param name="Title">What is done.</param>
/// <param name="Zone">Where: "airframe", "engine" or "propeller".</param>
public sealed record UsualJob(string Title, string Zone)
{
    /// <exception cref="FormatException">It isn't a list of jobs.</exception>
    public static IReadOnlyList<UsualJob> Parse(string json)
    {
        try
        {
            return JsonSerializer.Deserialize<List<UsualJob>>(json, Worksheet.Json)
                ?? throw new FormatException("The list of jobs is empty.");
        }
        catch (JsonException problem)
        {
            throw new FormatException($"The list of jobs can't be read: {problem.Message}", problem);
        }
    }
}

/// <summary>A job as it is sent.</summary>
/// <param name="Title">What is to be done, in words; null where a due item or an open item says it.</param>
/// <param name="Zone">Where: a key of <see cref="JobOf.ZonesOf"/>.</param>
/// <param name="Due">The due item that is done; null for none.</param>
/// <param name="Open">The open item that is put right; null for none.</param>
public sealed record TypedJob(string? Title, string? Zone, DueEntry? Due, OpenItem? Open)
{
    private static readonly string[] Inspections =
        [.. Enum.GetValues<InspectionKind>().Where(kind => kind != InspectionKind.Job && !kind.IsService()).Select(kind => kind.InWords())];

    private static bool IsInspection(string title) =>
        Inspections.Any(words => title.Contains(words, StringComparison.OrdinalIgnoreCase)) && !title.Contains("service",
            StringComparison.OrdinalIgnoreCase);

    /// <summary>Begins the job, or says why not.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="workOrder">Its work order.</param>
    /// <param name="house">How the shop works.</param>
    /// <param name="preventive">A pilot does it as preventive maintenance.</param>
    /// <param name="by">Who takes it.</param>
    /// <param name="today">The day.</param>
    /// <param name="at">The moment.</param>
    public (Inspection? Job, Refusal? Refusal) Begin(Guid id, Aircraft aircraft, string workOrder, HouseRules house, bool preventive,
        Guid by, DateOnly today, DateTimeOffset at)
    {
        var title = (Open?.What ?? Due?.Title ?? Title)?.Trim() ?? "";
        if (title.Length == 0 || (title.Length > JobOf.LongestTitle && Open is null))
            return (null, new("title", $"Say what is to be done, in up to {JobOf.LongestTitle} characters."));
        // An inspection has a scope and takes its own certificate; an instrument's test is entered by the shop that is rated for it.
        if (Due is { Item.Kind: DueKind.Inspection or DueKind.Instrument } || (Open is null && IsInspection(title)))
            return (null, new("title", Due is { Item.Kind: DueKind.Instrument }
                ? "That test is made and entered by whoever is rated for it: note it on the due line, with their reference."
                : "That is an inspection: it is taken in, and signed as one."));
        var zones = JobOf.ZonesOf(aircraft);
        var zone = Open is { } item
            ? zones.FirstOrDefault(one => one.Part is { } part && part == aircraft.CarriedBy(item.ComponentId)?.ComponentId)
                ?? zones.FirstOrDefault(one => one.Book == item.Book) ?? zones[0]
            : Due is { } due ? zones.FirstOrDefault(one => one.Part is { } part
                && part == aircraft.CarriedBy(due.Item.ComponentId)?.ComponentId) ?? zones[0]
            : zones.FirstOrDefault(one => one.Key == Zone);
        if (zone is null)
            return (null, new("zone", "Choose where: the airframe, an engine or a propeller."));
        var job = new Inspection(id, aircraft, workOrder, new(title.Length > JobOf.LongestTitle ? title[..JobOf.LongestTitle] : title,
            Due?.Item.Id, preventive, zones), today, house);
        if (Open is { } open)
            job.CarryIn([open]);
        else
            job.Find(Guid.CreateVersion7(), title, zone.Key, "", DiscrepancyClass.Recommended, false, null, by, at);
        return (job, null);
    }
}

// A job: work without an inspection around it, entered by 14 CFR 43.9.
public sealed partial class Inspection
{
    /// <summary>Begins a job: its work stands on a fix list of its own, and nothing else of the aircraft is looked at.</summary>
    /// <param name="id">Its id.</param>
    /// <param name="aircraft">The aircraft with its parts.</param>
    /// <param name="workOrder">Its work order.</param>
    /// <param name="of">What it is about.</param>
    /// <param name="openedOn">The day.</param>
    /// <param name="house">How the shop works.</param>
    public Inspection(Guid id, Aircraft aircraft, string workOrder, JobOf of, DateOnly openedOn, HouseRules house)
        : this(id, aircraft, InspectionKind.Job, workOrder, [], openedOn, null, house) => JobOf = of;

    /// <summary>What a job is about; null for an inspection or a service.</summary>
    public JobOf? JobOf { get; private set; }

    /// <summary>The line of the fix list that the job was taken for.</summary>
    public Discrepancy? JobLine => JobOf is null ? null : Discrepancies.MinBy(found => found.Number);

    /// <summary>Why a job can't be given up as taken by mistake; null where nothing was recorded at it.</summary>
    public Refusal? CheckGiveUp() => Closed()
        ?? (JobOf is null ? new("give-up", "An inspection is signed, and not given up.")
        : Discrepancies is not [{ Correction: null, Photos.Count: 0, Sounds.Count: 0, Videos.Count: 0, Notes.Count: 0, HasMoved: false }]
            || tags.Count + toolsOut.Count + foreignObjects.Count + squawks.Count + witnessMarks.Count + addedLines.Count > 0
            || Readings.Count + oilFills.Count + filterCuts.Count + plugNotes.Count + sheetChecks.Count + CompressionTests.Count > 0
        ? new("give-up", "Something was recorded at it: say what was done, or withdraw its line with the reason.")
        : null);

    private string ZoneOf(OpenItem item) =>
        (JobOf!.Zones.FirstOrDefault(zone => zone.Part is { } part && part == item.ComponentId)
            ?? JobOf.Zones.First(zone => zone.Book == (JobOf.Zones.Any(one => one.Book == item.Book) ? item.Book : Book.Airframe))).Key;

    private JobZone? JobZone(string? zoneKey) => JobOf?.Zones.FirstOrDefault(zone => zone.Key == zoneKey);

    /// <summary>Whether something can lie in a zone: one of the walk's, or one of the job's.</summary>
    internal bool HasZone(string? zoneKey) => JobZone(zoneKey) is not null || Tasks.Any(task => task.ZoneKey == zoneKey);
}
