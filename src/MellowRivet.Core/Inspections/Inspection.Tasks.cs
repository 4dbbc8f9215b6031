using System.Text.Json.Serialization;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Worksheets;

namespace MellowRivet.Core.Inspections;

/// <summary>A worksheet as the inspection began with it.</summary>
/// <param name="Key">Its name on the shelf.</param>
/// <param name="Title">What it was called.</param>
/// <param name="Version">Its edition.</param>
/// <param name="Hours">Hours it is expected to take, repairs not counted; zero where it doesn't say.</param>
public sealed record WorksheetUsed(string Key, string Title, int Version, decimal Hours);

/// <summary>A task of a worksheet that wasn't due. It can be taken in all the same.</summary>
public sealed record TaskNotDue(int Order, [property: JsonPropertyName("sheetKey")] string WorksheetKey, WorksheetZone Zone,
    WorksheetTask Task, Guid? ComponentId, bool BeforeNext,
    string Why);

// The tasks: answered, tied, taken in.
public sealed partial class Inspection
{
    private List<WorksheetUsed> worksheets = [];
    private List<TaskNotDue> notDue = [];

    /// <summary>The worksheets it began with.</summary>
    public IReadOnlyList<WorksheetUsed> Worksheets => worksheets;

    /// <summary>What the worksheets have and isn't due now.</summary>
    public IReadOnlyList<TaskNotDue> NotDue => notDue;

    /// <summary>Hours the worksheets are expected to take, repairs not counted.</summary>
    public decimal WorksheetHours => worksheets.Sum(sheet => sheet.Hours);

    /// <summary>The tasks that are answered by themselves, in walking order.</summary>
    public IEnumerable<InspectionTask> Walk => Tasks.Where(task => task.TiedTo is null).OrderBy(task => task.Order);

    /// <summary>What its tasks measure on cables.</summary>
    public IEnumerable<string> Cables => Tasks.Where(task => task.Measure is { Method: MeasureMethod.CableTension })
        .Select(task => task.Measure!.Kind).Distinct();

    /// <summary>A worksheet's title as the inspection began with it.</summary>
    public string WorksheetTitle(string key) => worksheets.FirstOrDefault(sheet => sheet.Key == key)?.Title ?? key;

    /// <summary>Tasks of other lists that say the same and are answered with this one.</summary>
    public IEnumerable<InspectionTask> TiedWith(InspectionTask lead) => Tasks.Where(task => task.TiedTo == lead.Id);

    /// <summary>Records a verdict on a task and on all that are tied to it.</summary>
    public Refusal? Answer(InspectionTask task, TaskVerdict verdict, string? reason, Judgement? judged, Guid by, DateTimeOffset at)
    {
        if (task.TiedTo is not null)
            return new("verdict", "This one is answered with the task it is tied to.");
        if (task.Set(verdict, reason, judged, by, at) is { } refusal)
            return refusal;
        foreach (var tied in TiedWith(task))
            tied.Follow(task);
        Reconsider(task.ZoneKey);
        return null;
    }

    /// <summary>The tasks that a task can be tied to.</summary>
    public IEnumerable<InspectionTask> TiesFor(InspectionTask task) =>
        Tasks.Where(lead => lead != task && WhyNotTied(task, lead) is null);

    /// <summary>Ties a task of one list to a task of another that says the same: it is answered with it from then on.</summary>
    public Refusal? Tie(Guid taskId, Guid leadId)
    {
        if (Tasks.FirstOrDefault(task => task.Id == taskId) is not { } task
            || Tasks.FirstOrDefault(other => other.Id == leadId) is not { } lead || task == lead)
            return new("tie", "Choose the task it says the same as.");
        if (WhyNotTied(task, lead) is { } refusal)
            return refusal;
        task.TieTo(lead);
        task.Follow(lead);
        return null;
    }

    private Refusal? WhyNotTied(InspectionTask task, InspectionTask lead)
    {
        if (task.ZoneKey != lead.ZoneKey || task.WorksheetKey == lead.WorksheetKey || task.ComponentId != lead.ComponentId)
            return new("tie", "Only tasks of one zone and of two lists are tied.");
        if (lead.TiedTo is not null || TiedWith(task).Any())
            return new("tie", "One of them is tied already.");
        if (task.IsCompression != lead.IsCompression || (task.Measure is not null && task.Measure.Kind != lead.Measure?.Kind))
            return new("tie", "It measures something the other doesn't: each needs its own answer.");
        if (task.Verdict != TaskVerdict.NotYet && task.Verdict != lead.Verdict)
            return new("tie",
                "It has an answer of its own, and the other would take its place. "
                + "Answer the other first, or tie them the other way round.");
        return null;
    }

    /// <summary>Lets a tied task be answered by itself again; what was said with the other stays until it is.</summary>
    public void Untie(Guid taskId) => Tasks.FirstOrDefault(task => task.Id == taskId)?.TieTo(null);

    /// <summary>
    /// An engine or propeller was changed while this is in work: what was asked of the old one is asked of the one in its place, and
    /// an answer about the old one is none about the new.
    /// </summary>
    public void Follow(Aircraft aircraft)
    {
        foreach (var task in AboutCarriers)
            if (aircraft.InPlaceOf(task.ComponentId!.Value) is { Kind: ComponentKind.Engine or ComponentKind.Propeller } fresh)
                task.IsAbout(fresh);
        notDue = [.. notDue.Select(task => task.ComponentId is { } part && aircraft.InPlaceOf(part) is { } fresh
            ? task with { ComponentId = fresh.Id }
            : task)];
    }

    // A bulletin's steps are about the very part it was taken in for, and are done where that part came off by them.
    private IEnumerable<InspectionTask> AboutCarriers =>
        Tasks.Where(task => task is { ComponentId: not null, Station: not Station.Bulletins });

    /// <summary>Engines and propellers it began with that are off now, with nothing in their place.</summary>
    public IEnumerable<Guid> PartsGone(Aircraft aircraft) =>
        AboutCarriers.Where(task => task.Verdict != TaskVerdict.NotApplicable).Select(task => task.ComponentId).OfType<Guid>().Distinct()
        .Where(part => aircraft.CarriedBy(part) is { IsOn: false } stay && stay.ComponentId == part && aircraft.InPlaceOf(part) is null);

    /// <summary>Takes in a task that isn't due yet.</summary>
    public Refusal? TakeIn(int order)
    {
        if (notDue.FirstOrDefault(other => other.Order == order) is not { } line)
            return new("task", "It is on the walk already.");
        notDue = [.. notDue.Where(other => other != line)];
        Add(new(line.Order, new(line.WorksheetKey, "", 1, "", []), line.Zone, line.Task, line.ComponentId,
            new(true, false, $"{line.Why}; taken in all the same"), null), null);
        return null;
    }

    /// <summary>
    /// Takes back a reading that its own taker just made at a task and mistyped; null where it is another's or at another task.
    /// </summary>
    public Reading? Withdraw(InspectionTask task, Guid readingId, Guid by)
    {
        var withdrawn = Readings.FirstOrDefault(reading => reading.Id == readingId && reading.TaskId == task.Id && reading.PersonId == by);
        return withdrawn is not null && Loaded.List(readings).Remove(withdrawn) ? withdrawn : null;
    }

    private void Begin(IReadOnlyList<WalkLine> walk)
    {
        var ids = walk.ToDictionary(line => line.Order, _ => Guid.CreateVersion7());
        foreach (var line in walk)
            if (line.Pick.IsDue)
                Add(line with { }, line.TiedTo is { } lead ? ids[lead] : null, ids[line.Order]);
            else
                notDue.Add(new(line.Order, line.Worksheet.Key, line.Zone with { Tasks = [] }, line.Task, line.ComponentId,
                    line.Pick.BeforeNext,
                    line.Pick.Why));
    }

    private void Add(WalkLine line, Guid? tiedTo, Guid? id = null)
    {
        Loaded.List(tasks).Add(new(id ?? Guid.CreateVersion7(), line, tiedTo));
        if (line.Zone.Looks && looks.All(zone => zone.ZoneKey != line.Zone.Key))
            looks = [.. looks, new(line.Zone.Key, line.Zone.Title)];
    }
}
