using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Core.Tools;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine.Plugs;

/// <summary>A step of one plug as it is sent.</summary>
public sealed class PlugForm
{
    public Guid Post { get; set; }
    public Guid Reading { get; set; }
    public string? Hole { get; set; }
    public PlugStep Step { get; set; }
    public string? Value { get; set; }
    public Guid? Wrench { get; set; }
}

/// <summary>A plug put in, or a set of them, as it is sent.</summary>
public sealed class NewPlugForm
{
    public Guid Post { get; set; }
    public string? Hole { get; set; }
    public string? Type { get; set; }
    public string? Number { get; set; }
    public IgnitionKind? Suits { get; set; }
}

/// <summary>The plug tray: every plug at its place, its sequence, its wear, and the rotation.</summary>
public sealed class PlugsModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock) : EnginePage(desk, db, frames, clock)
{
    [FromQuery(Name = "hole")]
    public string? HoleTyped { get; set; }

    [FromQuery]
    public RotationPattern? Pattern { get; set; }

    public PlugTray Tray { get; private set; } = null!;
    public TrayPlace Place { get; private set; } = null!;
    public IReadOnlyList<Tool> Wrenches { get; private set; } = [];
    public PlugWear? Wear { get; private set; }
    public IReadOnlyList<HoleHistory> Holes { get; private set; } = [];
    public RotationPlan? Plan { get; private set; }
    public PlugForm? Typed { get; private set; }
    public NewPlugForm? TypedPlug { get; private set; }

    /// <summary>Each plug's wear, by plug.</summary>
    public IReadOnlyDictionary<Guid, PlugWear> Wears { get; private set; } = new Dictionary<Guid, PlugWear>();

    public string Self => $"/walk/{Id}/plugs/{EngineId}";

    public RotationDrawing Drawing => new(Engine.Layout, Plan?.Moves ?? []);

    /// <summary>The wrench that was used last here, so that it is chosen once.</summary>
    public Guid? LastWrench =>
        Typed?.Wrench ?? Job.Inspection.Readings.Where(reading => reading.Kind == PlugKinds.Torque)
            .MaxBy(reading => reading.At)?.Conditions.Wrench?.ToolId;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostStepAsync(PlugForm form, CancellationToken stop)
    {
        var tool = form.Step == PlugStep.Torque ? await Db.ToolAsync(form.Wrench, stop) : null;
        var written = await OnPlugAsync(form.Post, form.Hole, (job, place) =>
        {
            var (by, at) = (User.PersonId(), Clock.GetUtcNow());
            if (PlugKinds.Of(form.Step) is null)
                return job.Inspection.Mark(place, form.Step, form.Value, by, at);
            if (tool?.MayTorque(Today) is { } refusal)
                return refusal;
            var value = TypedNumber.Parse(form.Value);
            if (value is { } pulled && tool?.Reaches(pulled, Unit.InchPound) is { } outside)
                return outside;
            return job.Inspection.Measure(form.Reading, place, form.Step, value, tool is null
                ? null
                : new(tool.Id, tool.Title, tool.CalibratedUntil!.Value, null, null, value ?? 0), by, at);
        }, stop);
        HoleTyped = form.Hole;
        Typed = form;
        if (!await ShowAsync(stop, written.Job))
            return NotFound();
        if (written.Refusal is { } problem)
            Refuse(problem with { Field = $"step-{form.Step}" });
        else
            Typed = null;
        return Request.Headers.ContainsKey("HX-Request") ? Partial("_PlugSaved", this) : written.Done
            ? Redirect($"{Self}?hole={form.Hole}")
            : Page();
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostDroppedAsync(Guid post, string? hole, CancellationToken stop) =>
        AfterAsync(OnPlugAsync(post, hole, (job, place) => job.Inspection.Dropped(place, User.PersonId(), Clock.GetUtcNow()), stop),
            hole, stop);

    /// <summary>Two plugs change holes.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostMoveAsync(Guid post, string? from, string? to, CancellationToken stop) =>
        AfterAsync(WriteAsync(post, (job, engine) => PlugHole.Parse(from) is { } one && PlugHole.Parse(to) is { } other
            ? MovePlugs(job, engine, [new(one, other), new(other, one)])
            : new("to", "Say where it goes: a hole such as 2B."), stop), to, stop);

    /// <summary>Every plug goes where the plan says.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostRotateAsync(Guid post, RotationPattern? pattern, string? hole, CancellationToken stop)
    {
        Pattern = pattern;
        return AfterAsync(WriteAsync(post, (job, engine) =>
        {
            if (pattern is not { } school)
                return new("to", "Choose by which school.");
            var (plan, refusal) = PlugRotation.Plan(engine.FiringOrder, school, engine.Ignition);
            return refusal ?? MovePlugs(job, engine, plan!.Moves);
        }, stop), hole, stop);
    }

    private Refusal? MovePlugs(Job job, Component engine, IReadOnlyList<PlugMove> moves)
    {
        var left = moves.Where(move => move.From != move.To).Select(move => move.From).ToHashSet();
        var places = PlugTray.Of(job.Aircraft, engine, job.Inspection).Places.Where(place => left.Contains(place.Hole)).ToList();
        if (job.Aircraft.MovePlugs(engine, moves, Today) is { } refusal)
            return refusal;
        job.Inspection.PlugsMoved(places, User.PersonId(), Clock.GetUtcNow());
        return null;
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostFitAsync(NewPlugForm form, CancellationToken stop)
    {
        TypedPlug = form;
        return AfterAsync(WriteAsync(form.Post, (job, engine) => PlugHole.Parse(form.Hole) is { } hole
            ? job.Aircraft.FitPlug(engine, hole, form.Type, form.Number, form.Suits, Today, "replaced at the plug service")
            : new("hole", "Say which hole."), stop), form.Hole, stop);
    }

    /// <summary>A set of plugs put on file: one in every hole that has none.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostSetAsync(NewPlugForm form, CancellationToken stop)
    {
        TypedPlug = form;
        return AfterAsync(WriteAsync(form.Post, (job, engine) =>
        {
            if (!int.TryParse(form.Number, out var first) || first is < 1 or > 9_999_000)
                return new("first", "The number of the first plug; the others count on from it.");
            if (form.Type?.Trim().Length > 40)
                return new("first", "A type of up to 40 characters.");
            job.Aircraft.InstallPlugs(engine, form.Type?.Trim() ?? "", first, job.Aircraft.TimeInService, null, on: Today);
            return null;
        }, stop), null, stop);
    }

    private Task<Written> OnPlugAsync(Guid post, string? typed, Func<Job, TrayPlace, Refusal?> decide,
        CancellationToken stop) => WriteAsync(post, (job, engine) =>
        PlugHole.Parse(typed) is { } hole && PlugTray.Of(job.Aircraft, engine, job.Inspection).At(hole) is { } place
            ? decide(job, place)
            : new("step", "This engine has no such hole."), stop);

    private async Task<IActionResult> AfterAsync(Task<Written> writing, string? hole, CancellationToken stop)
    {
        var written = await writing;
        if (written.Done)
            return Redirect(hole is null ? Self : $"{Self}?hole={hole}");
        HoleTyped = hole;
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop, Job? written = null)
    {
        if (!await LoadEngineAsync(stop, written))
            return false;
        Tray = PlugTray.Of(Job.Aircraft, Engine, Job.Inspection);
        Place = (PlugHole.Parse(HoleTyped) is { } hole ? Tray.At(hole) : null)
            ?? Tray.Places.FirstOrDefault(place => place.Next is not null) ?? Tray.Places[0];
        Wrenches = await Db.WrenchesAsync(stop);
        var plugs = Tray.Places.Where(place => place.Plug is not null).Select(place => place.Plug!.Id);
        var byPlug = await Db.GapsOfAsync(plugs, stop);
        Wears = Tray.Places.Where(place => place.Plug is not null)
            .ToDictionary(place => place.Plug!.Id, place => PlugWear.Of(byPlug[place.Plug!.Id], place.Limits.GapMost));
        Wear = Place.Plug is { } plug ? Wears[plug.Id] : null;
        // Looks of earlier inspections tell which holes foul.
        var marks = await Db.PlugMarksOnAsync(Job.Aircraft.Id, stop);
        var ours = Job.Aircraft.Installations.Where(stay => stay.Component.Kind == ComponentKind.Plug && stay.ParentId == Engine.Id)
            .Select(stay => stay.ComponentId).ToHashSet();
        var all = marks.Where(mark => ours.Contains(mark.PlugId)).ToList();
        Holes = [.. Tray.Places.Select(place => HoleHistory.Of(all, place.Hole))];
        Plan = PlugRotation.Plan(Engine.FiringOrder, Pattern ?? RotationPattern.NextInFiringOrder, Engine.Ignition).Plan;
        return true;
    }
}
