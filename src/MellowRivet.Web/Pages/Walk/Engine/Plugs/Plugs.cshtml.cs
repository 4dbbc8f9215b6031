using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Core.Plugs;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
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

    /// <summary>The plug that was in the hole when it was said: it may sit in another by now.</summary>
    public Guid? Plug { get; set; }

    /// <summary>What stood there when it was said.</summary>
    public string? Seen { get; set; }
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
public sealed class PlugsModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock)
    : EnginePage<PlugsView>(desk, db, frames, clock)
{
    [FromQuery(Name = "hole")]
    public string? HoleTyped { get; set; }

    [FromQuery]
    public RotationPattern? Pattern { get; set; }

    private string Here => AddressOf("plugs");

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostStepAsync(PlugForm form, CancellationToken stop)
    {
        var wrench = form.Step == PlugStep.Torque ? await Db.ToolAsync(form.Wrench, stop) : null;
        var written = await OnPlugAsync(form.Post, form.Hole, (job, place) => PlugKinds.Of(form.Step) is null
            ? job.Inspection.NotePlug(place, form.Step, form.Value, Saying(form.Seen))
            : job.Inspection.Measure(form.Reading, place, form.Step, form.Value, wrench, Saying(form.Seen), Today), stop, form.Plug);
        HoleTyped = form.Hole;
        Refused? refused = written.Refusal is { } problem
            ? new(form, [problem.At($"step-{form.Step}")])
            : null;
        return !await MakeAsync(stop, refused) ? NotFound()
            : Request.Headers.ContainsKey("HX-Request") ? Partial("_PlugSaved", View)
            : written.Done ? Redirect($"{Here}?hole={form.Hole}") : Page();
    }

    /// <summary>The same was done to every plug that it is left for.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAlikeAsync(PlugForm form, CancellationToken stop)
    {
        var wrench = form.Step == PlugStep.Torque ? await Db.ToolAsync(form.Wrench, stop) : null;
        return await BackAsync(OnEngineAsync(form.Post, (job, engine) => job.Inspection.DoAlike(
            PlugTray.Of(job.Aircraft, engine, job.Inspection), form.Step, form.Value, wrench, Me, Clock.GetUtcNow(), Today), stop),
            form.Hole, stop, form);
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostDroppedAsync(Guid post, string? hole, CancellationToken stop) => BackAsync(
        OnPlugAsync(post, hole, (job, place) => job.Inspection.Dropped(place, Me, Clock.GetUtcNow()), stop), hole, stop);

    /// <summary>Two plugs change holes.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostMoveAsync(Guid post, string? from, string? to, CancellationToken stop) =>
        BackAsync(OnEngineAsync(post, (job, engine) => PlugHole.Parse(from) is { } one && PlugHole.Parse(to) is { } other
            ? job.Inspection.MovePlugs(job.Aircraft, engine, [new(one, other), new(other, one)], Me, Clock.GetUtcNow(), Today)
            : new("to", "Say where it goes: a hole such as 2B."), stop), to, stop);

    /// <summary>Every plug goes where the plan says.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostRotateAsync(Guid post, RotationPattern? pattern, string? hole, CancellationToken stop)
    {
        Pattern = pattern;
        return BackAsync(OnEngineAsync(post, (job, engine) =>
        {
            if (pattern is not { } school)
                return new("to", "Choose by which school.");
            var (plan, refusal) = PlugRotation.Plan(engine.FiringOrder, school, engine.Ignition);
            return refusal ?? job.Inspection.MovePlugs(job.Aircraft, engine, plan!.Moves, Me, Clock.GetUtcNow(), Today);
        }, stop), hole, stop);
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostFitAsync(NewPlugForm form, CancellationToken stop) =>
        BackAsync(OnEngineAsync(form.Post, (job, engine) => PlugHole.Parse(form.Hole) is { } hole
            ? job.Aircraft.FitPlug(engine, hole, form.Type, form.Number, form.Suits, Today, "replaced at the plug service", Me)
            : new("hole", "Say which hole."), stop), form.Hole, stop, form);

    /// <summary>A set of plugs put on file: one in every hole that has none.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostSetAsync(NewPlugForm form, CancellationToken stop) => BackAsync(
        OnEngineAsync(form.Post, (job, engine) => job.Aircraft.FitPlugs(engine, form.Type, form.Number, Today), stop), null, stop, form);

    private Task<Written> OnPlugAsync(Guid post, string? typed, Func<Job, TrayPlace, Refusal?> decide, CancellationToken stop,
        Guid? plug = null) => OnEngineAsync(post, (job, engine) =>
        {
            var tray = PlugTray.Of(job.Aircraft, engine, job.Inspection);
            return (plug is { } named ? tray.Of(named) : PlugHole.Parse(typed) is { } hole ? tray.At(hole) : null) is { } place
                ? decide(job, place)
                : new("step", plug is null ? "This engine has no such hole." : "That plug isn’t on this engine any more.");
        }, stop);

    private Task<IActionResult> BackAsync(Task<Written> writing, string? hole, CancellationToken stop, object? typed = null)
    {
        HoleTyped = hole;
        return AfterAsync(writing, hole is null ? Here : $"{Here}?hole={hole}", stop, typed);
    }

    protected override async Task<PlugsView?> ViewAsync(WalkShown walk, Component engine, Refused refused, CancellationToken stop)
    {
        var aircraft = walk.Job.Aircraft;
        var tray = PlugTray.Of(aircraft, engine, walk.Job.Inspection);
        var place = (PlugHole.Parse(HoleTyped) is { } hole ? tray.At(hole) : null)
            ?? tray.Places.FirstOrDefault(one => one.Next is not null) ?? tray.Places[0];
        var gaps = await Db.GapsOfAsync(tray.Places.Where(one => one.Plug is not null).Select(one => one.Plug!.Id), stop);
        // Looks of earlier inspections tell which holes foul.
        var ours = aircraft.EverOn(engine.Id, ComponentKind.Plug);
        var notes = (await Db.PlugNotesOnAsync(aircraft.Id, stop)).Where(note => ours.Contains(note.PlugId)).ToList();
        return new(walk, engine, tray, place, Pattern, await Db.WrenchesAsync(stop),
            tray.Places.Where(one => one.Plug is not null)
                .ToDictionary(one => one.Plug!.Id, one => PlugWear.Of(gaps[one.Plug!.Id], one.Limits.GapMost)),
            [.. tray.Places.Select(one => HoleHistory.Of(notes, one.Hole))],
            PlugRotation.Plan(engine.FiringOrder, Pattern ?? RotationPattern.NextInFiringOrder, engine.Ignition).Plan);
    }
}
