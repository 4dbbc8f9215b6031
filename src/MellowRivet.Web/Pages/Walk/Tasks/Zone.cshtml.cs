using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Hangar;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Tools;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Hangar;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Tasks;

/// <summary>A task with its form: the one that is open, or one that waits its turn on the device.</summary>
public sealed record TaskPanel(ZoneModel On, InspectionTask Task, VerdictForm? Typed);

/// <summary>What takes a verdict back that was just given.</summary>
public sealed record Undo(InspectionTask Task, TaskVerdict Before, string? Reason, Guid Post);

/// <summary>Two verdicts on one task: what somebody else said meanwhile stands, and what was pressed here is still in its field.</summary>
public sealed record Clash(string Who, string Theirs, string Mine);

/// <summary>The tasks of one zone at the engine or airframe station.</summary>
public sealed class ZoneModel(Desk desk, RivetDb db, KeptFrames frames, WalkFeed feed, TimeProvider clock) : WalkPage(desk, db, frames)
{
    [FromRoute]
    public string Place { get; set; } = "";

    [FromRoute(Name = "zone")]
    public string? ZoneKey { get; set; }

    [FromQuery(Name = "task")]
    public Guid? TaskId { get; set; }

    [FromQuery]
    public TaskFilter Show { get; set; } = TaskFilter.All;

    public override Station At => Place switch { "engine" => Station.Engine, "bulletins" => Station.Bulletins, _ => Station.Airframe };
    // The engine station shows how far its sheets are, and a compression is judged from them.
    protected override JobParts Shows => At == Station.Engine ? JobParts.Whole : JobParts.Walk;
    public override string? ZoneHere => ZoneKey;
    public override Guid? TaskHere => Current?.Id;

    public string Title { get; private set; } = "";
    public IReadOnlyList<ZoneProgress> Zones { get; private set; } = [];
    public ZoneProgress? NextZone { get; private set; }
    public ZoneLook? Look { get; private set; }

    /// <summary>The bulletin whose steps stand in this zone; null anywhere else.</summary>
    public BulletinLine? OfBulletin =>
        Job.Inspection.BulletinIn(ZoneKey) is { } work ? Research.Lines.FirstOrDefault(line => Job.Inspection.WorkOf(line) == work) : null;

    /// <summary>How many tasks of the whole walk each filter has.</summary>
    public IReadOnlyDictionary<TaskFilter, int> Counts { get; private set; } = new Dictionary<TaskFilter, int>();

    /// <summary>The tasks of this zone that are shown.</summary>
    public IReadOnlyList<InspectionTask> Tasks { get; private set; } = [];
    public int Done { get; private set; }
    public int Of { get; private set; }
    public InspectionTask? Current { get; private set; }
    public TaskPanel Panel => new(this, Current!, Typed);
    public IReadOnlyList<Rivet> ZoneSeam { get; private set; } = [];
    public Evidence Evidence { get; private set; } = Evidence.None;
    public IReadOnlyList<Tool> Wrenches { get; private set; } = [];
    /// <summary>Repairs that earlier inspections made in this zone, latest first.</summary>
    public IReadOnlyList<EarlierFind> Repairs { get; private set; } = [];
    public Undo? Undo { get; private set; }
    public Clash? Clash { get; private set; }
    public IReadOnlyList<Present> Who => feed.Who(Id);

    /// <summary>What was typed and refused, so that it stays in its field.</summary>
    public VerdictForm? Typed { get; private set; }
    public LimitForm? TypedLimit { get; private set; }
    public TableForm? TypedTable { get; private set; }

    // A post that came from the page's own script gets the page back in one answer, without a second request.
    private bool IsLive => Request.Headers.ContainsKey("X-Rivet");
    private DateOnly Today => clock.Today();

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>The forms of the zone's other open tasks, for a device that may lose its connection.</summary>
    public async Task<IActionResult> OnGetPanelsAsync(CancellationToken stop) =>
        await ShowAsync(stop) ? Partial("_Panels", this) : NotFound();

    /// <summary>Judges a value as it is typed; keeps nothing.</summary>
    public async Task<IActionResult> OnGetJudgeAsync(VerdictForm form, CancellationToken stop)
    {
        if (await Desk.TaskAsync(Id, form.Task, stop) is not var (job, task) || task.Measure is null)
            return NotFound();
        if (string.IsNullOrWhiteSpace(form.Value))
            return Content("");
        var wrench = await Db.ToolAsync(form.Wrench, stop);
        var (typed, refusal) = MeasureForm.Read(task, job.Aircraft, form, wrench, Today);
        if (typed is null)
            return Partial("_Refusal", refusal!.Message);
        var (judgement, missing) = TaskJudge.Judge(task, job.Aircraft, typed.Value, typed.Unit, typed.Conditions);
        if (judgement is null)
            return Partial("_Refusal", missing?.Message);
        Current = task;
        Evidence = await Evidence.OfAsync(Db, job, task, (typed.Value, typed.Conditions.Celsius), stop);
        return Partial("_JudgedTask", new JudgedTask(Id, task, judgement, typed, Evidence));
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostVerdictAsync(VerdictForm form, string? then, CancellationToken stop)
    {
        // A value on its way to the fix list is kept as it was read; without one there are only words to write.
        var toFixList = then == "find";
        if (toFixList && string.IsNullOrWhiteSpace(form.Value))
            return Redirect($"/walk/{Id}/find?zone={ZoneKey}&task={form.Task}");
        var now = clock.GetUtcNow();
        Undo? undo = null;
        Clash? clash = null;
        var wrench = await Db.ToolAsync(form.Wrench, stop);
        var written = await Desk.AnswerAsync(Id, form.Task, form.Post, async (job, task) =>
        {
            var inspection = job.Inspection;
            if (form.Verdict is not { } verdict || !Enum.IsDefined(verdict))
                return new Refusal("verdict", "Choose what you found.");
            MeasureForm? typed = null;
            // What is measured is judged, and what is judged is weighed with the whole.
            var measures = !string.IsNullOrWhiteSpace(form.Value);
            if (measures || task.IsCompression)
                await Desk.WithAsync(job, JobParts.Whole, stop);
            if (measures && task.Measure is not null && verdict != TaskVerdict.NotYet)
            {
                (typed, var problem) = MeasureForm.Read(task, job.Aircraft, form, wrench, Today);
                if (problem is not null)
                    return problem;
            }
            if (task.Changes != form.Seen
                && (task.Verdict != verdict || (typed is not null && inspection.ReadingAt(task)?.Value != typed.Value)))
            {
                clash =
                    new(
                        $"{(task.By is { } who && (await Desk.Board.PeopleAsync(stop)).TryGetValue(who, out var them)
                            ? them.Name
                            : "")} {clock.Here(task.At):HH:mm}".Trim(), SaidOf(task, inspection),
                    $"{WordOf(verdict)}{(typed is null ? "" : $" · {typed.Value:0.###} {typed.Unit}")}");
                return new Refusal("verdict", "Somebody else answered this while you had it open. Theirs is kept, yours is still here.");
            }
            if (typed is not null)
            {
                var (_, missing) = TaskJudge.Judge(task, job.Aircraft, typed.Value, typed.Unit, typed.Conditions);
                if (missing is not null)
                    return missing;
                inspection.Record(new(form.Post, job.Aircraft.Id, task.ComponentId, task.Measure!.Kind, task.ZoneKey, typed.Value,
                    typed.Unit, typed.Conditions,
                    inspection.TimeInService, now, User.PersonId())
                { InspectionId = inspection.Id, TaskId = task.Id });
            }
            undo = new(task, task.Verdict, task.Reason, form.Post);
            if (!toFixList
                && inspection.Answer(task, verdict, form.Reason, inspection.JudgementAt(task, job.Aircraft), User.PersonId(), now)
                is { } refusal)
                return refusal;
            // Any device of this person's comes back to here.
            Db.RememberPlace(User.PersonId(), Id, task.Id, now);
            return null;
        }, stop);
        Clash = clash;
        if (written.Done && toFixList)
            return Redirect($"/walk/{Id}/find?zone={ZoneKey}&task={form.Task}&judged=task/{form.Task:N}");
        if (written.Done)
            Undo = undo;
        return await AfterAsync(written, form.Task, () => Typed = form, stop);
    }

    /// <summary>Takes back a verdict that was just given, with the reading that came with it.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostUndoAsync(Guid post, Guid task, int seen, TaskVerdict before, string? reason, Guid? given,
        CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post, job =>
        {
            if (job.Inspection.Tasks.FirstOrDefault(other => other.Id == task) is not { } there || !Enum.IsDefined(before))
                return new("verdict", "There is no such task.");
            if (there.Changes != seen)
                return new("verdict", $"It was answered again since: {SaidOf(there, job.Inspection)}. Nothing was taken back.");
            if (given is { } reading)
                job.Inspection.Withdraw(there, reading, User.PersonId());
            return job.Inspection.Answer(there, before, reason, job.Inspection.JudgementAt(there, job.Aircraft), User.PersonId(),
                clock.GetUtcNow());
        }, stop);
        TaskId = task;
        if (!await ShowAsync(stop, written: written.Job))
            return NotFound();
        if (written.Refusal is { } refusal)
            Refuse(refusal);
        return IsLive || !written.Done ? Page() : Redirect(HrefOf(Current!));
    }

    /// <summary>Puts the manual's own limit on file for this aircraft.</summary>
    [Needs(Right.SetLimits)]
    public Task<IActionResult> OnPostLimitAsync(LimitForm form,
        CancellationToken stop) => OnFileAsync(form.Post, form.Task, (job, measure) =>
    {
        var (low, high) = (TypedNumber.Parse(form.Low), TypedNumber.Parse(form.High));
        if ((low is null && !string.IsNullOrWhiteSpace(form.Low)) || (high is null && !string.IsNullOrWhiteSpace(form.High))
            || (low is null && high is null))
            return new Refusal("limit", "At least one limit, as a number.");
        if (low > high)
            return new Refusal("limit", "The lower limit is above the upper one.");
        if (string.IsNullOrWhiteSpace(form.Reference) || form.Reference.Trim().Length > 80)
            return new Refusal("limit", "The manual's reference: chapter, page, revision, up to 80 characters.");
        job.Aircraft.SetLimit(new(measure.Kind, measure.Unit, low, high, form.Reference.Trim()));
        return null;
    }, () => TypedLimit = form, stop);

    /// <summary>Puts the manual's table of cable tension by temperature on file for this aircraft.</summary>
    [Needs(Right.SetLimits)]
    public Task<IActionResult> OnPostTableAsync(TableForm form,
        CancellationToken stop) => OnFileAsync(form.Post, form.Task, (job, measure) =>
    {
        var known = job.Inspection.Tasks.Where(task => task.Measure is { Method: MeasureMethod.CableTension })
            .Select(task => task.Measure!.Kind).ToHashSet();
        var (table, refusal) = CableTable.Read([.. form.Cables.Where(known.Contains).Append(measure.Kind).Distinct()], form.Rows,
            TypedNumber.Parse(form.Tolerance), form.Reference);
        if (table is null)
            return new("table", refusal!.Message);
        job.Aircraft.SetCableTable(table);
        return null;
    }, () => TypedTable = form, stop);

    /// <summary>Ties this task to one of another list that says the same, or unties it.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostTieAsync(Guid post, Guid task, Guid? to, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post, job =>
        {
            if (to is { } lead)
                return job.Inspection.Tie(task, lead);
            job.Inspection.Untie(task);
            return null;
        }, stop, JobParts.Tasks);
        return written.Done ? Redirect($"/walk/{Id}/{Place}/{ZoneKey}?task={to ?? task}")
            : await AfterAsync(written, task, () => { }, stop);
    }

    /// <summary>Takes this zone on, or gives it back.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostTakeAsync(Guid post, bool mine, CancellationToken stop)
    {
        await Desk.WriteAsync(Id, post, job =>
        {
            job.Inspection.TakeZone(ZoneKey, mine ? User.PersonId() : null);
            return null;
        }, stop, JobParts.Bare);
        return Redirect($"/walk/{Id}/{Place}/{ZoneKey}?task={TaskId}");
    }

    public string HrefOf(InspectionTask task) => $"/walk/{Id}/{Place}/{task.ZoneKey}?task={task.Id}{ShowQuery}";

    public string HrefOf(ZoneProgress zone) => zone.Href(Job.Inspection.Id) + (Show == TaskFilter.All ? "" : $"?show={Show}");

    /// <summary>A task's reading in words, or null.</summary>
    public string? ReadingOf(InspectionTask task) => Job.Inspection.ReadingAt(task) is { } reading
        ? $"{reading.Value:0.###} {reading.UnitSymbol}{(reading.Conditions.Celsius is { } celsius ? $" at {celsius:0.#} °C" : "")}"
        + $"{(reading.Conditions.Wrench is { } wrench ? $", {wrench.Title}" : "")}"
        : null;

    /// <summary>What a task was answered with, for somebody who wasn't there.</summary>
    public string SaidOf(InspectionTask task, Inspection inspection) =>
        $"{(task.Verdict == TaskVerdict.NotYet ? "not yet" : WordOf(task.Verdict))}"
        + $"{(inspection.ReadingAt(task) is { } reading ? $" · {reading.Value:0.###} {reading.UnitSymbol}" : "")}"
        + $"{(task.Reason is { } reason ? $" · {reason}" : "")}";

    public InspectionTask? Neighbour(InspectionTask task, int step)
    {
        for (var index = 0; index < Tasks.Count; index++)
            if (Tasks[index].Id == task.Id)
                return index + step >= 0 && index + step < Tasks.Count ? Tasks[index + step] : null;
        return null;
    }

    private string ShowQuery => Show == TaskFilter.All ? "" : $"&show={Show}";

    private static string WordOf(TaskVerdict verdict) => verdict switch
    {
        TaskVerdict.Good => "good",
        TaskVerdict.NotApplicable => "not on this one",
        TaskVerdict.Discrepancy => "discrepancy",
        _ => "not yet",
    };

    private async Task<IActionResult> OnFileAsync(Guid post, Guid taskId, Func<Job, WorksheetMeasure, Refusal?> put, Action keepTyped,
        CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post,
            job => job.Inspection.Tasks.FirstOrDefault(task => task.Id == taskId) is { Measure: { } measure }
            ? put(job, measure)
            : new Refusal("limit", "Only a measured task has a limit."), stop);
        return written.Done ? Redirect($"/walk/{Id}/{Place}/{ZoneKey}?task={taskId}") : await AfterAsync(written, taskId, keepTyped, stop);
    }

    private async Task<IActionResult> AfterAsync(Written written, Guid taskId, Action keepTyped, CancellationToken stop)
    {
        TaskId = taskId;
        if (written.Refusal is { } refusal)
        {
            keepTyped();
            if (!await ShowAsync(stop))
                return NotFound();
            Refuse(refusal);
            if (IsLive)
                Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return Page();
        }
        if (!await ShowAsync(stop, onwards: true, written.Job))
            return NotFound();
        return IsLive ? Page() : Redirect(HrefOf(Current!));
    }

    private async Task<bool> ShowAsync(CancellationToken stop, bool onwards = false, Job? written = null)
    {
        if (!await LoadAsync(stop, written))
            return false;
        if (Job.Inspection.Tasks.Any(task => task.IsCompression && task.Station == At))
            await AlsoAsync(JobParts.Whole, stop);
        var (inspection, me) = (Job.Inspection, User.PersonId());
        var walk = inspection.Walk.ToList();
        Counts = Enum.GetValues<TaskFilter>()
            .ToDictionary(filter => filter, filter => walk.Count(task => filter.Wants(inspection, task, me)));
        var wanted = walk.Where(task => task.Station == At && Show.Wants(inspection, task, me)).Select(task => task.ZoneKey).ToHashSet();
        Zones = [.. ZoneProgress.Of(At, inspection)
            .Where(zone => Show == TaskFilter.All || wanted.Contains(zone.Key) || zone.Key == ZoneKey)];
        ZoneKey ??= (Zones.FirstOrDefault(zone => zone.Done < zone.Tasks) ?? (Zones.Count > 0 ? Zones[0] : null))?.Key;
        NextZone = Zones.SkipWhile(zone => zone.Key != ZoneKey).Skip(1).FirstOrDefault();
        var here = walk.Where(task => task.ZoneKey == ZoneKey && task.Station == At).ToList();
        if (here.Count == 0)
            return false;
        // The task that was just answered may not be among those wanted any more: it stays in sight all the same.
        Tasks = [.. here.Where(task => task.Id == TaskId || Show.Wants(inspection, task, me))];
        if (Tasks.Count == 0)
            Tasks = here;
        (Done, Of) = (here.Count(task => task.Verdict != TaskVerdict.NotYet), here.Count);
        Title = here[0].ZoneTitle;
        Look = inspection.Looks.FirstOrDefault(zone => zone.ZoneKey == ZoneKey);
        ZoneSeam = Seam.OfZone(ZoneKey!, inspection);
        Current = Tasks.FirstOrDefault(task => task.Id == TaskId);
        if (Current is null || onwards)
            // On to the next task of this zone; when it is done the zone stays open with the way on.
            Current = Tasks.SkipWhile(task => task.Id != TaskId).Skip(1).FirstOrDefault(IsOpen) ?? Tasks.FirstOrDefault(IsOpen) ?? Current
                ?? Tasks[0];
        Evidence = await Evidence.OfAsync(Db, Job, Current, null, stop);
        Repairs = [.. (await Db.EarlierFindsAsync(inspection, new(ZoneKey!, "", null, null, null), stop, corrected: true))
            .Where(find => find.Found.Correction is { Kind: CorrectionKind.Repaired })];
        if (Tasks.Any(task => task.Measure?.Method == MeasureMethod.Torque))
            Wrenches = await Db.WrenchesAsync(stop);
        return true;
    }

    private static bool IsOpen(InspectionTask task) => task.Verdict == TaskVerdict.NotYet;
}
