using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Hangar;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Hangar;
using MellowRivet.Web.Pages.Walk.Engine;

namespace MellowRivet.Web.Pages.Walk.Tasks;

/// <summary>A task with its form: the one that is open, or one that waits its turn on the device.</summary>
/// <param name="On">The zone it is in.</param>
/// <param name="Task">The task.</param>
/// <param name="Typed">What was typed and not taken.</param>
public sealed record TaskPanel(ZoneView On, InspectionTask Task, VerdictForm? Typed);

/// <summary>What takes a verdict back that was just given.</summary>
public sealed record Undo(InspectionTask Task, TaskVerdict Before, string? Reason, Guid Post);

/// <summary>
/// Two verdicts on one task: what somebody else said meanwhile stands, and what was pressed here is still in its field.
/// </summary>
public sealed record Clash(string Who, string Theirs, string Mine);

/// <summary>A value judged as it is typed, with what follows from it.</summary>
public sealed record JudgedTask(Guid Walk, InspectionTask Task, Judgement Judgement, MeasuredValue Typed, TaskEvidence Evidence)
{
    /// <summary>Keeps the value as it was read, and goes on to the fix list with its judgement.</summary>
    public string ToFixList =>
        $"/walk/{Walk}/{Seam.Place(Task.Station)}/{Task.ZoneKey}?task={Task.Id}&handler=Verdict&then=find";
}

/// <summary>What a verdict that was just given or refused left behind.</summary>
/// <param name="Undo">What takes it back; null where nothing was given.</param>
/// <param name="Clash">Another answer that stood there; null where none did.</param>
public sealed record JustPressed(Undo? Undo = null, Clash? Clash = null);

/// <summary>One zone of the walk: its tasks, the one that is open, and what is known beside it.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Place">The station's word in the address.</param>
/// <param name="Show">Which tasks are shown.</param>
/// <param name="Walked">The station's zones, and the tasks of this one.</param>
/// <param name="Current">The task that is open.</param>
/// <param name="Evidence">What is known of it from before.</param>
/// <param name="Repairs">Repairs that earlier inspections made in this zone, latest first.</param>
/// <param name="Wrenches">The wrenches in use, where a task of the zone is pulled with one.</param>
/// <param name="Who">Who is on this walk now, and where.</param>
/// <param name="Pressed">What a verdict left behind.</param>
public sealed record ZoneView(WalkShown Walk, string Place, TaskFilter Show, ZoneTasks Walked, InspectionTask Current,
    TaskEvidence Evidence,
    IReadOnlyList<EarlierFind> Repairs, IReadOnlyList<Tool> Wrenches, IReadOnlyList<Present> Who, JustPressed Pressed) : WalkView(Walk)
{
    public override Station At => Walked.Station;

    /// <summary>What the file has on the papers that the open task is about; null for none.</summary>
    public PaperTrail? Papers { get; init; }
    public override string? ZoneHere => ZoneKey;
    public override Guid? TaskHere => Current.Id;

    public string ZoneKey => Walked.Key;
    public string Title => Walked.Here[0].ZoneTitle;
    public IReadOnlyList<ZoneProgress> Zones => Walked.Zones;
    public ZoneProgress? NextZone => Zones.SkipWhile(zone => zone.Key != ZoneKey).Skip(1).FirstOrDefault();
    public ZoneLook? Look => Job.Inspection.Looks.FirstOrDefault(zone => zone.ZoneKey == ZoneKey);
    public IReadOnlyDictionary<TaskFilter, int> Counts => Walked.Counts;
    public IReadOnlyList<InspectionTask> Tasks => Walked.Tasks;
    public int Done => Walked.Here.Count(task => task.Verdict != TaskVerdict.NotYet);
    public int Of => Walked.Here.Count;
    public IReadOnlyList<Rivet> ZoneSeam => Seam.OfZone(ZoneKey, Job.Inspection);
    public Undo? Undo => Pressed.Undo;
    public Clash? Clash => Pressed.Clash;

    /// <summary>The sheets that answer tasks of this zone, by task.</summary>
    public IReadOnlyDictionary<Guid, IReadOnlyList<SheetPart>> Sheets { get; } = SheetsOf(Walk.Job, Walked);

    private static Dictionary<Guid, IReadOnlyList<SheetPart>> SheetsOf(Job job, ZoneTasks walked)
    {
        var asking = walked.Tasks.Where(task => job.Inspection.AskedBy(task) is not null).ToList();
        if (asking.Count == 0)
            return [];
        var live = InspectionJudgements.Of(job.Inspection, job.Aircraft);
        return asking.ToDictionary(task => task.Id, task => job.Inspection.SheetsFor(task, job.Aircraft, live));
    }

    /// <summary>The sheets that answer a task; none where it is answered here.</summary>
    public IReadOnlyList<SheetPart> SheetsOf(InspectionTask task) => Sheets.GetValueOrDefault(task.Id, []);

    /// <summary>Where a sheet's part is filled in.</summary>
    public string HrefOf(SheetPart part) => EngineNavView.HrefOf(Job.Inspection, part.Asked, part.EngineId, part.Carrier);

    /// <summary>A task on the page; the open one with what was typed and not taken.</summary>
    public TaskPanel PanelOf(InspectionTask task) => new(this, task, task == Current ? Typed<VerdictForm>() : null);

    /// <summary>The evidence's plot; null under two points.</summary>
    public ReadingPlot? Plot => Evidence is { Series.Count: > 1, Band: { } band } ? new(Evidence.Series, band) : null;

    /// <summary>The bulletin whose steps stand in this zone; null anywhere else.</summary>
    public BulletinLine? OfBulletin => Job.Inspection.BulletinIn(ZoneKey) is { } work
        ? Research.Lines.FirstOrDefault(line => Job.Inspection.WorkOf(line) == work)
        : null;

    public string HrefOf(InspectionTask task) =>
        $"/walk/{Id}/{Place}/{task.ZoneKey}?task={task.Id}{(Show == TaskFilter.All ? "" : $"&show={Show}")}";

    public string HrefOf(ZoneProgress zone) => zone.Href(Id) + (Show == TaskFilter.All ? "" : $"?show={Show}");

    /// <summary>A task's reading in words, or null.</summary>
    public string? ReadingOf(InspectionTask task) => Job.Inspection.ReadingAt(task) is { } reading
        ? reading.InWords
            + (reading.Conditions.Celsius is { } celsius ? $" at {celsius:0.#} °C" : "")
            + (reading.Conditions.Wrench is { } wrench ? $", {wrench.Title}" : "")
        : null;

    /// <summary>What a task was answered with, for somebody who wasn't there.</summary>
    public string SaidOf(InspectionTask task) => Job.Inspection.SaidOf(task);

    /// <summary>Who answered a task last, when and with what.</summary>
    public string LastSaid(InspectionTask task, TimeProvider clock) =>
        task.At is { } at ? $"{NameOf(task.By)}, {clock.Here(at):HH:mm}: {SaidOf(task)}" : task.Changes > 0
            ? "somebody set it back to not yet"
            : "";

    /// <summary>The task before or after one, among those shown; null at either end.</summary>
    public InspectionTask? Neighbour(InspectionTask task, int step) =>
        Tasks.Index().FirstOrDefault(one => one.Item.Id == task.Id) is { Item: not null } at
            ? Tasks.ElementAtOrDefault(at.Index + step)
            : null;
}
