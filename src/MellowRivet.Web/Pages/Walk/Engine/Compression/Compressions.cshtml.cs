using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Trends;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
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
}

/// <summary>One cylinder's reading as it is sent. The reading's own id is the device's, so that sending it again corrects it.</summary>
public sealed class ReadingForm
{
    public Guid Post { get; set; }
    public Guid Reading { get; set; }
    public int Cylinder { get; set; }
    public string? Value { get; set; }

    /// <summary>Everywhere it was heard to leak.</summary>
    public List<LeakPath> Leak { get; set; } = [];
}

/// <summary>A leak path as it is picked: its letter while the reading is typed, and the word on its key.</summary>
public sealed record LeakKey(LeakPath Path, char Letter, string Word)
{
    public static IReadOnlyList<LeakKey> All { get; } =
        [new(LeakPath.ExhaustValve, 'x', "exhaust"), new(LeakPath.IntakeValve, 'i', "intake"), new(LeakPath.Rings, 'r', "rings"),
            new(LeakPath.HeadGasket, 'g', "gasket"), new(LeakPath.Crack, 'c', "crack")];
}

/// <summary>How this engine's compressions are judged, as it is sent.</summary>
public sealed class JudgedByForm
{
    public Guid Post { get; set; }
    public CompressionSchool School { get; set; }
    public string? Floor { get; set; }
    public string? Reference { get; set; }
}

/// <summary>One cylinder on the drawn engine.</summary>
public sealed record CylinderView(CompressionsModel On, CylinderOnTest Cylinder);

/// <summary>The field of one try: filled where it was taken, empty where it is asked for.</summary>
public sealed record TryView(CompressionsModel On, CylinderOnTest Cylinder, Reading? Reading, bool Second);

/// <summary>The compressions of one engine: readings cylinder by cylinder, judged as typed, each with its trend.</summary>
public sealed class CompressionsModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : WalkPage(desk, db, frames)
{
    [FromRoute(Name = "engine")]
    public Guid? EngineId { get; set; }

    [FromQuery(Name = "cylinder")]
    public int? CylinderNumber { get; set; }

    /// <summary>Whose hours the trend runs on.</summary>
    [FromQuery(Name = "hours")]
    public HoursAxis? AxisTyped { get; set; }

    public HoursAxis Axis => AxisTyped ?? HoursAxis.Part;

    public string HrefOn(HoursAxis axis) =>
        $"/walk/{Id}/compressions/{EngineId}?cylinder={CylinderNumber}{(axis == HoursAxis.Part ? "" : "&hours=aircraft")}";

    [FromQuery]
    public bool NewTest { get; set; }

    public override Station At => Station.Engine;
    protected override JobParts Shows => JobParts.Engine;
    public override string? ZoneHere => CompressionTask?.ZoneKey;

    public CompressionSheet Sheet { get; private set; } = null!;
    public CylinderOnTest Cylinder { get; private set; } = null!;
    public CylinderHistory History { get; private set; } = null!;
    public TrendPlot? Plot { get; private set; }
    public TestForm Test { get; private set; } = new();
    public JudgedByForm? TypedRule { get; private set; }
    public InspectionTask? CompressionTask =>
        Job.Inspection.Tasks.FirstOrDefault(task => task.IsCompression && (task.ComponentId is null || task.ComponentId == EngineId));

    /// <summary>The last reading of each cylinder before this inspection, by number.</summary>
    public IReadOnlyDictionary<int, Reading> LastTime { get; private set; } = new Dictionary<int, Reading>();

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>Judges a reading as it is typed; keeps nothing.</summary>
    public async Task<IActionResult> OnGetJudgeAsync(ReadingForm form, CancellationToken stop)
    {
        if (!await LookAsync(JobParts.Engine, stop) || Engine(Job.Aircraft) is not { } engine)
            return NotFound();
        var sheet = CompressionSheet.Of(Job.Aircraft, engine, Job.Inspection);
        if (sheet.Test is not { } test || string.IsNullOrWhiteSpace(form.Value))
            return Content("");
        var typed = TypedReading.Parse(form.Value, test.Conditions.Supply);
        if (typed.Held is not { } held)
            return Partial("_Refusal", typed.Problem);
        var cylinder = sheet.Cylinders.FirstOrDefault(place => place.Place.Number == form.Cylinder);
        var secondTry = cylinder is not null && IsSecondTry(sheet, cylinder, form.Reading);
        return Partial("_JudgedReading",
            CompressionJudge.Judge(sheet.Limits, test.Conditions, new(form.Cylinder, held, new(form.Leak), secondTry)));
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostBeginAsync(TestForm form, CancellationToken stop)
    {
        Test = form;
        var (supply, ambient, orifice) = (TypedNumber.Parse(form.Supply), TypedNumber.Parse(form.Ambient), TypedNumber.Parse(form.Orifice));
        foreach (var problem in CompressionTest.Check(supply, ambient, form.Hot, orifice, !string.IsNullOrWhiteSpace(form.Orifice),
            form.Caution))
            Refuse(problem);
        if (ModelState.IsValid)
        {
            var written = await Desk.WriteAsync(Id, form.Post, job =>
            {
                if (Engine(job.Aircraft) is not { } engine)
                    return new("inspection", "There is no such engine on this aircraft.");
                job.Inspection.Begin(new(Guid.CreateVersion7(), engine.Id, supply!.Value, ambient!.Value, form.Hot!.Value, orifice,
                    User.PersonId(), clock.GetUtcNow()));
                return null;
            }, stop);
            if (written.Done)
                return Redirect($"/walk/{Id}/compressions/{EngineId}");
            Refuse(written.Refusal!);
        }
        NewTest = true;
        return await ShowAsync(stop) ? Page() : NotFound();
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostReadingAsync(ReadingForm form, CancellationToken stop)
    {
        var written = await Desk.WriteAsync(Id, form.Post, job => Record(job, form), stop, JobParts.Engine);
        CylinderNumber = form.Cylinder;
        if (!await ShowAsync(stop, written.Job))
            return NotFound();
        if (written.Refusal is { } refusal)
            Refuse(refusal);
        // The field that was typed in is left alone: only what is said of it comes back, and what follows from it elsewhere.
        return Request.Headers.ContainsKey("HX-Request")
            ? Partial("_ReadingSaved", this)
            : written.Done ? Redirect($"/walk/{Id}/compressions/{EngineId}?cylinder={form.Cylinder}") : Page();
    }

    [Needs(Right.SetLimits)]
    public async Task<IActionResult> OnPostJudgedByAsync(JudgedByForm form, CancellationToken stop)
    {
        var floorTyped = !string.IsNullOrWhiteSpace(form.Floor);
        var floor = TypedNumber.Parse(form.Floor);
        var written = await Desk.WriteAsync(Id, form.Post, job =>
        {
            if (CompressionRule.Check(floorTyped, floor, form.Reference).FirstOrDefault() is { } problem)
                return problem;
            if (!Enum.IsDefined(form.School) || Engine(job.Aircraft) is not { } engine)
                return new("inspection", "There is no such engine or limit set.");
            engine.JudgeCompressionBy(new(form.School, floor, floorTyped ? form.Reference!.Trim() : null));
            return null;
        }, stop);
        if (written.Done)
            return Redirect($"/walk/{Id}/compressions/{EngineId}?cylinder={CylinderNumber}");
        TypedRule = form;
        Refuse(written.Refusal!);
        return await ShowAsync(stop) ? Page() : NotFound();
    }

    /// <summary>The tries of a cylinder in the test that is running.</summary>
    public IReadOnlyList<Reading> TriesNow(CylinderOnTest cylinder) =>
        [.. cylinder.Tries.Where(reading => reading.CompressionTestId == Sheet.Test?.Id)];

    private Refusal? Record(Job job, ReadingForm form)
    {
        if (Engine(job.Aircraft) is not { } engine)
            return new("inspection", "There is no such engine on this aircraft.");
        var sheet = CompressionSheet.Of(job.Aircraft, engine, job.Inspection);
        if (sheet.Test is not { } test)
            return new("value", "Read the caution and begin the test first.");
        if (sheet.Cylinders.FirstOrDefault(place => place.Place.Number == form.Cylinder) is not { } cylinder)
            return new("value", $"This engine has no cylinder {form.Cylinder}.");
        var typed = TypedReading.Parse(form.Value, test.Conditions.Supply);
        if (typed.Held is not { } held)
            return new("value", typed.Problem!);
        if (cylinder.Before.Concat(cylinder.Tries).FirstOrDefault(reading => reading.Id == form.Reading) is { } earlier)
        {
            earlier.Correct(held.Value, new Leaks(form.Leak), User.PersonId(), clock.GetUtcNow());
            return null;
        }
        job.Inspection.Record(new(form.Reading, job.Aircraft.Id, cylinder.Cylinder.Id, Reading.CompressionKind, $"{form.Cylinder}",
            held.Value, Unit.Psi,
            new(test.Hot, test.SupplyPsi, test.AmbientPsi, test.DayOrificePsi, new Leaks(form.Leak),
                IsSecondTry(sheet, cylinder, form.Reading)),
            job.Inspection.TimeInService, clock.GetUtcNow(), User.PersonId())
        { InspectionId = job.Inspection.Id, CompressionTestId = test.Id });
        return null;
    }

    private static bool IsSecondTry(CompressionSheet sheet, CylinderOnTest cylinder, Guid reading) =>
        CompressionSheet.IsSecondTry(sheet.Limits, cylinder.Tries.Where(earlier => earlier.CompressionTestId == sheet.Test?.Id)
            .TakeWhile(earlier => earlier.Id != reading));

    private Component? Engine(Aircraft aircraft) => EngineId is { } id
        ? aircraft.Engines.FirstOrDefault(engine => engine.ComponentId == id)?.Component
        : aircraft.Engines.FirstOrDefault()?.Component;

    private async Task<bool> ShowAsync(CancellationToken stop, Job? written = null)
    {
        if (!await LoadAsync(stop, written) || Engine(Job.Aircraft) is not { } engine)
            return false;
        EngineId = engine.Id;
        Sheet = CompressionSheet.Of(Job.Aircraft, engine, Job.Inspection);
        if (Sheet.Cylinders.Count == 0)
            return false;
        Cylinder = Sheet.Cylinders.FirstOrDefault(cylinder => cylinder.Place.Number == CylinderNumber) ?? Weakest() ?? Sheet.Cylinders[0];
        CylinderNumber = Cylinder.Place.Number;

        var compressions = await Db.CompressionsOfAsync(Job.Aircraft, engine, stop);
        History = CylinderHistory.Of(Job.Aircraft, engine, CylinderNumber.Value, compressions, Sheet.Test?.Conditions, Axis);
        Plot = History.Readings.Count > 0 ? new(History, Sheet.Test?.Conditions) : null;
        LastTime = Sheet.Cylinders
            .Select(cylinder => compressions.Where(reading => reading.InspectionId != Id && reading.ComponentId == cylinder.Cylinder.Id)
                .MaxBy(reading => reading.At))
            .OfType<Reading>().ToDictionary(reading => int.Parse(reading.Position));
        return true;
    }

    private CylinderOnTest? Weakest() =>
        Sheet.Cylinders.Where(cylinder => cylinder.Latest is not null).MaxBy(cylinder => cylinder.Latest!.LeakArea);
}
