using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Tasks;

/// <summary>The tasks of one zone at the engine or airframe station.</summary>
public sealed class ZoneModel(Desk desk, RivetDb db, KeptFrames frames, WalkFeed feed, WorkClock clock)
    : WalkPage<ZoneView>(desk, db, frames)
{
    // What the handler that is running did, for the view it ends in.
    private JustPressed pressed = new();
    private bool onwards;

    [FromRoute]
    public string Place { get; set; } = "";

    [FromRoute(Name = "zone")]
    public string? ZoneKey { get; set; }

    [FromQuery(Name = "task")]
    public Guid? TaskId { get; set; }

    [FromQuery]
    public TaskFilter Show { get; set; } = TaskFilter.All;

    private Station At => Enum.TryParse<Station>(Place, ignoreCase: true, out var station) ? station : Station.Airframe;

    protected override bool OfEngine => At == Station.Engine;

    // A post that came from the page's own script gets the page back in one answer, without a second request.
    private bool IsLive => Request.Headers.ContainsKey("X-Rivet");
    private DateOnly Today => clock.Today();

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>The forms of the zone's other open tasks, for a device that may lose its connection.</summary>
    public async Task<IActionResult> OnGetPanelsAsync(CancellationToken stop) =>
        await MakeAsync(stop) ? Partial("_Panels", View) : NotFound();

    /// <summary>Judges a value as it is typed; keeps nothing.</summary>
    public async Task<IActionResult> OnGetJudgeAsync(VerdictForm form, CancellationToken stop)
    {
        if (await Desk.TaskAsync(Id, form.Task, stop) is not var (job, task) || task.Measure is null)
            return NotFound();
        if (!form.Typed.Is)
            return Content("");
        var (read, refusal) = form.Typed.Read(task, job.Aircraft, await Db.ToolAsync(form.Wrench, stop), Today);
        if (read is null)
            return Partial("_Refusal", refusal!.Message);
        var (judgement, missing) = TaskJudge.Judge(task, job.Aircraft, read.Value, read.Unit, read.Conditions);
        if (judgement is null)
            return Partial("_Refusal", missing?.Message);
        var evidence = await Db.EvidenceAsync(job, task, (read.Value, read.Conditions.Celsius), stop);
        return Partial("_JudgedTask", new JudgedTask(Id, task, judgement, read, evidence));
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostVerdictAsync(VerdictForm form, string? then, CancellationToken stop)
    {
        // A value on its way to the fix list is kept as it was read; without one there are only words to write.
        var toFixList = then == "find";
        if (toFixList && !form.Typed.Is)
            return Redirect($"/walk/{Id}/find?zone={ZoneKey}&task={form.Task}");
        var now = clock.GetUtcNow();
        var wrench = await Db.ToolAsync(form.Wrench, stop);
        var written = await Desk.AnswerAsync(Id, form.Task, form.Post, async (job, task) =>
        {
            // What is measured is judged, and what is judged is weighed with the whole.
            if (form.Typed.Is || job.Inspection.AskedBy(task) is not null)
                await Desk.WithAsync(job, JobParts.Whole, stop);
            var undo = new Undo(task, task.Verdict, task.Reason, form.Post);
            var sent = form.ToVerdict(toFixList, clock.Late is not null);
            var (refusal, mine, isApart) = job.Inspection.Take(task, sent, job.Aircraft, wrench, Me, now, Today);
            pressed = new(refusal is null && !isApart ? undo : null, mine is null ? null : await ClashAsync(job, task, mine, stop));
            // Any device of this person's comes back to here.
            if (refusal is null)
                Db.RememberPlace(Me, Id, task.Id, now);
            return refusal;
        }, stop);
        return written.Done && toFixList
            ? Redirect($"/walk/{Id}/find?zone={ZoneKey}&task={form.Task}&judged=task/{form.Task:N}")
            : await AnsweredAsync(written, form.Task, form, stop);
    }

    private async Task<Clash> ClashAsync(Job job, InspectionTask task, string mine, CancellationToken stop)
    {
        var name = task.By is { } who ? (await Desk.Board.PeopleAsync(stop)).GetValueOrDefault(who)?.Name : null;
        return new($"{name} {clock.Here(task.At):HH:mm}".Trim(), job.Inspection.SaidOf(task), mine);
    }

    /// <summary>Takes back a verdict that was just given, with the reading that came with it.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostUndoAsync(Guid post, Guid task, int seen, TaskVerdict before, string? reason, Guid? given,
        CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post,
            job => job.Inspection.TakeBack(task, seen, before, reason, given, job.Aircraft, Me, clock.GetUtcNow()), stop);
        TaskId = task;
        var refused = written.Refusal is { } refusal ? new Refused(null, [refusal]) : null;
        return !await MakeAsync(stop, refused) ? NotFound() : IsLive || !written.Done ? Page() : Redirect(View.HrefOf(View.Current));
    }

    /// <summary>Puts the manual's own limit on file for this aircraft.</summary>
    [Needs(Right.SetLimits)]
    public Task<IActionResult> OnPostLimitAsync(LimitForm form,
        CancellationToken stop) => OnFileAsync(form.Post, form.Task, (job, measure) =>
    {
        var (limit, refusal) = ManualLimit.Read(job.Aircraft.FiledUnder(measure.Kind), measure.Unit, form.Low, form.High, form.Reference);
        if (limit is not null)
            job.Aircraft.SetLimit(limit with { Set = User.Sets(clock) });
        return refusal;
    }, form, stop);

    /// <summary>Puts the manual's table of cable tension by temperature on file for this aircraft.</summary>
    [Needs(Right.SetLimits)]
    public Task<IActionResult> OnPostTableAsync(TableForm form,
        CancellationToken stop) => OnFileAsync(form.Post, form.Task, (job, measure) =>
    {
        var cables = job.Inspection.Cables.Where(form.Cables.Contains).Append(measure.Kind).Distinct();
        var (table, refusal) = CableTable.Read([.. cables], form.Rows, MeasureText.Value(form.Tolerance, Unit.Pound), form.Reference);
        if (table is not null)
            job.Aircraft.SetCableTable(table with { Set = User.Sets(clock) });
        return refusal is null ? null : refusal with { Field = "table" };
    }, form, stop);

    /// <summary>Lets a task wait until something has cured.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostCureAsync(Guid post, Guid task, CureOf of, string? hours, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post, job => job.Inspection.LetCure(task, of, hours, Me, clock.GetUtcNow()), stop,
            JobParts.Tasks);
        return written.Done ? Redirect($"/walk/{Id}/{Place}/{ZoneKey}?task={task}") : await AnsweredAsync(written, task, null, stop);
    }

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
        return written.Done
            ? Redirect($"/walk/{Id}/{Place}/{ZoneKey}?task={to ?? task}")
            : await AnsweredAsync(written, task, null, stop);
    }

    /// <summary>Takes this zone on, or gives it back.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostTakeAsync(Guid post, bool mine, CancellationToken stop) =>
        AfterAsync(Desk.WriteAsync(Id, post, job =>
        {
            job.Inspection.TakeZone(ZoneKey, mine ? Me : null);
            return null;
        }, stop, JobParts.Bare), $"/walk/{Id}/{Place}/{ZoneKey}?task={TaskId}", stop);

    /// <summary>The second look of this zone is done with its tasks: on to where work is open.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostSecondAsync(Guid post, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post, job => job.Inspection.Looked(ZoneKey, LookStep.Second, Me, clock.GetUtcNow()), stop,
            JobParts.Tasks);
        return written.Done ? Redirect($"/walk/{Id}") : await AnsweredAsync(written, TaskId ?? Guid.Empty, null, stop);
    }

    private async Task<IActionResult> OnFileAsync(Guid post, Guid taskId, Func<Job, WorksheetMeasure, Refusal?> put, object typed,
        CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, post,
            job => job.Inspection.Tasks.FirstOrDefault(task => task.Id == taskId) is { Measure: { } measure }
                ? put(job, measure)
                : new Refusal("limit", "Only a measured task has a limit."), stop);
        return written.Done
            ? Redirect($"/walk/{Id}/{Place}/{ZoneKey}?task={taskId}")
            : await AnsweredAsync(written, taskId, typed, stop);
    }

    // On to the next task, or back to this one with what is wrong.
    private async Task<IActionResult> AnsweredAsync(Written written, Guid taskId, object? typed, CancellationToken stop)
    {
        TaskId = taskId;
        if (written.Refusal is { } refusal)
        {
            if (IsLive)
                Response.StatusCode = StatusCodes.Status422UnprocessableEntity;
            return await AgainAsync(refusal, stop, typed);
        }
        onwards = true;
        return !await MakeAsync(stop) ? NotFound() : IsLive ? Page() : Redirect(View.HrefOf(View.Current));
    }

    // What the file has on the papers that a task of a survey is about.
    private async Task<PaperTrail?> PapersAsync(Job job, InspectionTask task, CancellationToken stop) =>
        task.Sampling?.Paper is null || job.Inspection.Survey is not { } survey ? null
        : await Db.PapersAsync(job.Aircraft, await Desk.Board.LineAsync(job.Aircraft.Id, stop), survey.Rules, stop);

    /// <summary>Says whether damage or a repair that a book tells of is to be seen on the aircraft.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostLookForAsync(Guid post, Guid task, string? key, SeenThere says, CancellationToken stop) =>
        WriteAsync(post, $"/walk/{Id}/{Place}/{ZoneKey}?task={task}", job => job.Inspection.Survey is null || string.IsNullOrEmpty(key)
            ? new("damage", "There is nothing to look for.")
            : job.Inspection.LookFor(new(key, says, Me, clock.GetUtcNow())), stop, JobParts.Bare);

    protected override async Task<ZoneView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var inspection = walk.Job.Inspection;
        if (ZoneTasks.Of(inspection, At, ZoneKey, Show, TaskId, Me) is not { } walked)
            return null;
        var current = walked.Open(TaskId, onwards);
        var found = await Db.EarlierFindsAsync(inspection, new(walked.Key, "", null, null, null), stop, corrected: true);
        return new(walk, Place, Show, walked, current, await Db.EvidenceAsync(walk.Job, current, null, stop),
            [.. found.Where(find => find.Found.Correction is { Kind: CorrectionKind.Repaired })],
            walked.Tasks.Any(task => task.Measure?.Method == MeasureMethod.Torque) ? await Db.WrenchesAsync(stop) : [],
            feed.Who(Id), pressed) { Papers = await PapersAsync(walk.Job, current, stop) };
    }
}
