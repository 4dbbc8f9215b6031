using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Look;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>A verdict as it is sent.</summary>
public sealed class VerdictForm
{
    public Guid Post { get; set; }
    public Guid Task { get; set; }
    public int Version { get; set; }
    public TaskVerdict? Verdict { get; set; }
    public string? Reason { get; set; }
    public string? Value { get; set; }
    public string? Unit { get; set; }
}

/// <summary>A limit of the aircraft's own manual as it is sent.</summary>
public sealed class LimitForm
{
    public Guid Post { get; set; }
    public Guid Task { get; set; }
    public string? Low { get; set; }
    public string? High { get; set; }
    public string? Reference { get; set; }
}

/// <summary>The tasks of one zone at the engine or airframe station.</summary>
public sealed class ZoneModel(Desk desk, RivetDb db, TimeProvider clock) : WalkPage(desk, db)
{
    [FromRoute]
    public string Place { get; set; } = "";

    [FromRoute(Name = "zone")]
    public string? ZoneKey { get; set; }

    [FromQuery(Name = "task")]
    public Guid? TaskId { get; set; }

    public override Station At => Place == "engine" ? Station.Engine : Station.Airframe;
    public override string? ZoneHere => ZoneKey;

    public string Title { get; private set; } = "";
    public IReadOnlyList<ZoneProgress> Zones { get; private set; } = [];
    public ZoneProgress Progress => Zones.First(zone => zone.Key == ZoneKey);
    public ZoneProgress? NextZone => Zones.SkipWhile(zone => zone.Key != ZoneKey).Skip(1).FirstOrDefault();
    public IReadOnlyList<InspectionTask> Tasks { get; private set; } = [];
    public InspectionTask? Current { get; private set; }
    public IReadOnlyList<Rivet> ZoneSeam { get; private set; } = [];

    /// <summary>Readings of the current task's kind from before, latest first.</summary>
    public IReadOnlyList<Reading> Before { get; private set; } = [];

    /// <summary>What was typed and refused, so that it stays in its field.</summary>
    public VerdictForm? Typed { get; private set; }
    public LimitForm? TypedLimit { get; private set; }

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>Judges a value as it is typed; keeps nothing.</summary>
    public async Task<IActionResult> OnGetJudgeAsync(VerdictForm form, CancellationToken stop)
    {
        if (!await LoadAsync(stop) || Job.Inspection.Tasks.FirstOrDefault(task => task.Id == form.Task) is not { Measure: not null } task)
            return NotFound();
        if (string.IsNullOrWhiteSpace(form.Value))
            return Content("");
        return Measure(task, form, out var value) is { } problem
            ? Partial("_Refusal", problem.Message)
            : Partial("_Judgement", Inspection.BandFor(task, Job.Aircraft)!.Judge(value));
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostVerdictAsync(VerdictForm form, CancellationToken stop)
    {
        var now = clock.GetUtcNow();
        var written = await Desk.WriteAsync(Id, form.Post, job =>
        {
            if (job.Inspection.Tasks.FirstOrDefault(task => task.Id == form.Task) is not { } task || form.Verdict is not { } verdict || !Enum.IsDefined(verdict))
                return new Refusal("verdict", "Choose what you found.");
            if (task.Version != form.Version && task.Verdict != verdict)
                return new Refusal("verdict", $"{task.At?.ToLocalTime().ToString("HH:mm")}: someone set this to “{States.Of(task, job.Inspection).Word()}” while you had it open. It is left as theirs; press again to set yours.");
            if (!string.IsNullOrWhiteSpace(form.Value) && task.Measure is not null)
            {
                if (Measure(task, form, out var value) is { } problem)
                    return problem;
                job.Inspection.Record(new(form.Post, job.Aircraft.Id, job.Aircraft.CarrierOf(task.Book)?.Id, task.Measure.Kind, task.ZoneKey, value, BandUnit(task, job.Aircraft), new(),
                    job.Inspection.TimeInService, now, User.PersonId())
                { InspectionId = job.Inspection.Id, TaskId = task.Id });
            }
            return task.Set(verdict, form.Reason, job.Inspection.JudgementAt(task, job.Aircraft), User.PersonId(), now);
        }, stop);
        return await AfterAsync(written, form.Task, () => Typed = form, stop);
    }

    /// <summary>Puts the manual's own limit on file for this aircraft.</summary>
    [Needs(Right.SetLimits)]
    public async Task<IActionResult> OnPostLimitAsync(LimitForm form, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, form.Post, job =>
        {
            if (job.Inspection.Tasks.FirstOrDefault(task => task.Id == form.Task) is not { Measure: { } measure })
                return new Refusal("limit", "Only a measured task has a limit.");
            var (low, high) = (TypedNumber.Parse(form.Low), TypedNumber.Parse(form.High));
            if ((low is null && !string.IsNullOrWhiteSpace(form.Low)) || (high is null && !string.IsNullOrWhiteSpace(form.High)) || (low is null && high is null))
                return new Refusal("limit", "At least one limit, as a number.");
            if (low > high)
                return new Refusal("limit", "The lower limit is above the upper one.");
            if (string.IsNullOrWhiteSpace(form.Reference) || form.Reference.Trim().Length > 80)
                return new Refusal("limit", "The manual's reference: chapter, page, revision, up to 80 characters.");
            job.Aircraft.SetLimit(new(measure.Kind, measure.Unit, low, high, form.Reference.Trim()));
            return null;
        }, stop);
        if (written.Done)
            return Redirect($"/walk/{Id}/{Place}/{ZoneKey}?task={form.Task}");
        return await AfterAsync(written, form.Task, () => TypedLimit = form, stop);
    }

    public string HrefOf(InspectionTask task) => $"/walk/{Id}/{Place}/{task.ZoneKey}?task={task.Id}";

    /// <summary>A task's reading in words, or null.</summary>
    public string? ReadingOf(InspectionTask task) => Job.Inspection.ReadingAt(task) is { } reading ? $"{reading.Value:0.###} {reading.UnitSymbol}" : null;

    private static Unit BandUnit(InspectionTask task, Aircraft aircraft) => Inspection.BandFor(task, aircraft)!.Unit;

    // The value in the unit of the limits, or what is wrong with it.
    private static Refusal? Measure(InspectionTask task, VerdictForm form, out double value)
    {
        value = 0;
        var unit = Unit.Find(task.Measure!.Unit)!;
        if (TypedNumber.Parse(form.Value) is not { } typed || Math.Abs(typed) > 1_000_000)
            return new("value", $"“{form.Value?.Trim()}” is not a reading. Type a number in {unit}.");
        var given = string.IsNullOrEmpty(form.Unit) ? unit : Unit.Find(form.Unit);
        if (given is null || given.Dimension != unit.Dimension)
            return new("value", $"{form.Unit} doesn't measure this. Use one of {string.Join(", ", unit.Alternatives)}.");
        value = given.To(unit, typed);
        return value < 0 && unit.Dimension != Dimension.Temperature ? new("value", "This can't be below zero.") : null;
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
            return Page();
        }
        if (!await ShowAsync(stop))
            return NotFound();
        // On to the next task of this zone; when it is done the zone stays open with the way on.
        var next = Tasks.SkipWhile(task => task.Id != taskId).Skip(1).FirstOrDefault(task => task.Verdict == TaskVerdict.NotYet)
            ?? Tasks.FirstOrDefault(task => task.Verdict == TaskVerdict.NotYet);
        return Redirect($"/walk/{Id}/{Place}/{ZoneKey}?task={(next ?? Current)!.Id}");
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        var inspection = Job.Inspection;
        Zones = Seam.ZonesOf(At, inspection);
        ZoneKey ??= (Zones.FirstOrDefault(zone => zone.Done < zone.Tasks) ?? (Zones.Count > 0 ? Zones[0] : null))?.Key;
        Tasks = [.. inspection.Tasks.Where(task => task.ZoneKey == ZoneKey && task.Station == At).OrderBy(task => task.Order)];
        if (Tasks.Count == 0)
            return false;
        Title = Tasks[0].ZoneTitle;
        ZoneSeam = Seam.OfZone(ZoneKey!, inspection);
        Current = Tasks.FirstOrDefault(task => task.Id == TaskId) ?? Tasks.FirstOrDefault(task => task.Verdict == TaskVerdict.NotYet) ?? Tasks[0];
        // A new engine begins new series: what was read on the one before doesn't count here.
        var carrier = Job.Aircraft.CarrierOf(Current.Book)?.Id;
        if (Current.Measure is { } measure)
            Before = await Db.Readings.AsNoTracking()
                .Where(reading => reading.AircraftId == inspection.AircraftId && reading.Kind == measure.Kind && reading.ComponentId == carrier)
                .OrderByDescending(reading => reading.At).Take(12).ToListAsync(stop);
        return true;
    }
}
