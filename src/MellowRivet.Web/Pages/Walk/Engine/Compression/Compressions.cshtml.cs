using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Trends;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine.Compression;

/// <summary>The conditions of a new test as they are sent.</summary>
public sealed class TestForm
{
    public Guid Post { get; set; }
    public string? Supply { get; set; } = "80";
    public string? Ambient { get; set; } = "14.7";
    public string? Orifice { get; set; }
    public bool? Hot { get; set; }
    public bool Caution { get; set; }

    public TypedConditions ToConditions() => new(Supply, Ambient, Orifice, Hot, Caution);
}

/// <summary>
/// One cylinder's reading as it is sent. The reading's own id is the device's, so that sending it again corrects it.
/// </summary>
public sealed class ReadingForm
{
    public Guid Post { get; set; }
    public Guid Reading { get; set; }
    public int Cylinder { get; set; }
    public string? Value { get; set; }

    /// <summary>Everywhere it was heard to leak.</summary>
    public List<LeakPath> Leak { get; set; } = [];

    /// <summary>The part that was there when it was read: another may be in its place by now.</summary>
    public Guid? Part { get; set; }

    /// <summary>What stood there when it was read.</summary>
    public string? Seen { get; set; }

    public TypedCylinder ToCylinder() => new(Reading, Cylinder, Value, Leak, Part);
}

/// <summary>How this engine's compressions are judged, as it is sent.</summary>
public sealed class JudgedByForm
{
    public Guid Post { get; set; }
    public CompressionSchool School { get; set; }
    public string? Floor { get; set; }
    public string? Reference { get; set; }
}

/// <summary>The compressions of one engine: readings cylinder by cylinder, judged as typed, each with its trend.</summary>
public sealed class CompressionsModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock)
    : EnginePage<CompressionsView>(desk, db, frames, clock)
{
    [FromQuery(Name = "cylinder")]
    public int? CylinderNumber { get; set; }

    /// <summary>Whose hours the trend runs on.</summary>
    [FromQuery(Name = "hours")]
    public HoursAxis? AxisTyped { get; set; }

    [FromQuery]
    public bool NewTest { get; set; }

    private string Here => AddressOf("compressions");

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Judges a reading as it is typed; keeps nothing.</summary>
    public async Task<IActionResult> OnGetJudgeAsync(ReadingForm form, CancellationToken stop)
    {
        if (await LookAsync(JobParts.Engine, stop) is not { } job || EngineOf(job.Aircraft) is not { } engine)
            return NotFound();
        var (judged, problem) = CompressionSheet.Of(job.Aircraft, engine, job.Inspection).Judge(form.ToCylinder());
        return judged is not null ? Partial("_JudgedReading", judged) : problem is not null ? Partial("_Refusal", problem) : Content("");
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostBeginAsync(TestForm form, CancellationToken stop)
    {
        NewTest = true;
        IReadOnlyList<Refusal> wrong = [];
        var written = await OnEngineAsync(form.Post, (job, engine) =>
        {
            (var test, wrong) = CompressionTest.Read(form.ToConditions(), engine.Id, Me, Clock.GetUtcNow());
            if (test is null)
                return wrong[0];
            job.Inspection.Begin(test);
            return null;
        }, stop);
        return written.Done ? Redirect(Here) : await ShowAsync(stop, new(form, wrong.Count > 0 ? wrong : [written.Refusal!]));
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostReadingAsync(ReadingForm form, CancellationToken stop)
    {
        var written = await OnEngineAsync(form.Post,
            (job, engine) => job.Inspection.Record(job.Aircraft, engine, form.ToCylinder(), Saying(form.Seen)), stop);
        CylinderNumber = form.Cylinder;
        if (!await MakeAsync(stop, written.Refusal is { } refusal ? new(null, [refusal]) : null))
            return NotFound();
        // The field that was typed in is left alone: only what is said of it comes back, and what follows from it elsewhere.
        return Request.Headers.ContainsKey("HX-Request")
            ? Partial("_ReadingSaved", View)
            : written.Done ? Redirect($"{Here}?cylinder={form.Cylinder}") : Page();
    }

    [Needs(Right.SetLimits)]
    public Task<IActionResult> OnPostJudgedByAsync(JudgedByForm form, CancellationToken stop)
    {
        var (rule, wrong) = CompressionRule.Read(form.School, form.Floor, form.Reference);
        return AfterAsync(Desk.WriteAsync(Id, form.Post, job =>
        {
            if (EngineOf(job.Aircraft) is not { } engine)
                return new("inspection", "There is no such engine on this aircraft.");
            if (rule is not null)
                engine.JudgeCompressionBy(rule with { Set = User.Sets(Clock) });
            return wrong;
        }, stop), $"{Here}?cylinder={CylinderNumber}", stop, form);
    }

    protected override async Task<CompressionsView?> ViewAsync(WalkShown walk, Component engine, Refused refused, CancellationToken stop)
    {
        var (job, axis) = (walk.Job, AxisTyped ?? HoursAxis.Part);
        var sheet = CompressionSheet.Of(job.Aircraft, engine, job.Inspection);
        if (sheet.Cylinders.Count == 0)
            return null;
        var cylinder = sheet.Cylinder(CylinderNumber) ?? sheet.Weakest ?? sheet.Cylinders[0];
        var compressions = await Db.CompressionsOfAsync(job.Aircraft, engine, stop);
        var history = CylinderHistory.Of(job.Aircraft, engine, cylinder.Place.Number, compressions, sheet.Test?.Conditions, axis);
        var lastTime = sheet.Cylinders
            .Select(one => compressions.Where(reading => reading.InspectionId != Id && reading.ComponentId == one.Cylinder.Id)
                .MaxBy(reading => reading.At))
            .OfType<Reading>().ToDictionary(reading => int.Parse(reading.Position));
        return new(walk, engine, sheet, cylinder, history, lastTime, axis, NewTest);
    }
}
