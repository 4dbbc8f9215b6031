using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine;

/// <summary>What a page about one engine of the aircraft shows.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Engine">The engine.</param>
public abstract record EngineView(WalkShown Walk, Component Engine) : WalkView(Walk)
{
    public override Station At => Station.Engine;
    public override string? ZoneHere => Job.Inspection.Tasks.FirstOrDefault(task => task.IsCompression)?.ZoneKey ?? "engine";

    public Guid EngineId => Engine.Id;

    /// <summary>The tasks of the walk that a page of the engine station answers.</summary>
    /// <param name="path">The page's address.</param>
    public IReadOnlyList<InspectionTask> AnsweredAt(string path)
    {
        var (inspection, aircraft) = (Job.Inspection, Job.Aircraft);
        var live = InspectionJudgements.Of(inspection, aircraft);
        var isRun = path == EngineNavView.HrefOf(inspection, Asked.Run, EngineId, EngineId);
        return [.. inspection.Walk.Where(task => task.IsOfEngine && (isRun
            ? Inspection.IsOfRun(task, EngineId)
            : inspection.SheetsFor(task, aircraft, live)
                .Any(part => EngineNavView.HrefOf(inspection, part.Asked, part.EngineId, part.Carrier) == path)))];
    }

    /// <summary>All engines of the aircraft, to change over on a twin.</summary>
    public IReadOnlyList<Installation> Engines => [.. Job.Aircraft.Engines];
}

/// <summary>A page of the engine station about one engine of the aircraft.</summary>
public abstract class EnginePage<TView>(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock)
    : WalkPage<TView>(desk, db, frames) where TView : EngineView
{
    [FromRoute(Name = "engine")]
    public Guid? EngineId { get; set; }

    protected override bool OfEngine => true;

    protected WorkClock Clock => clock;
    protected DateOnly Today => clock.Today();

    /// <summary>Who says something, when, and what they had before them: a form says nothing of it where nothing stood there.</summary>
    protected Saying Saying(string? seen) => new(Me, clock.GetUtcNow(), seen ?? "");

    /// <summary>The address of a page about this engine.</summary>
    protected string AddressOf(string page) => $"/walk/{Id}/{page}{(EngineId is { } engine ? $"/{engine}" : "")}";

    /// <summary>The engine the address names, or the first; null where it is not on the aircraft.</summary>
    protected virtual Component? EngineOf(Aircraft aircraft) => (EngineId is { } id
        ? aircraft.Engines.FirstOrDefault(engine => engine.ComponentId == id)
        : aircraft.Engines.FirstOrDefault())?.Component;

    protected sealed override async Task<TView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        EngineOf(walk.Job.Aircraft) is { } engine ? await ViewAsync(walk, engine, refused, stop) : null;

    /// <summary>Makes the view of an engine that is on the aircraft; null where there is nothing to show.</summary>
    protected abstract Task<TView?> ViewAsync(WalkShown walk, Component engine, Refused refused, CancellationToken stop);

    /// <summary>Does the work on the engine the address names.</summary>
    protected Task<Written> OnEngineAsync(Guid post, Func<Job, Component, Refusal?> decide, CancellationToken stop) =>
        Desk.WriteAsync(Id, post, job => EngineOf(job.Aircraft) is { } engine
            ? decide(job, engine)
            : new("engine", "There is no such engine on this aircraft."), stop);
}
