using System.Text;
using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine.Logs;

/// <summary>Points as they were typed.</summary>
public sealed record PointsForm(string When, string? Points);

/// <summary>Oil pressure against altitude before and after a change.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Engine">The engine.</param>
/// <param name="Before">The points before, by altitude.</param>
/// <param name="After">The points after.</param>
public sealed record PressureAltitudeView(WalkShown Walk, Component Engine, IReadOnlyList<AltitudePoint> Before,
    IReadOnlyList<AltitudePoint> After) : EngineView(Walk, Engine)
{
    public string Self => $"/walk/{Id}/pressure-altitude/{EngineId}";
    public AltitudePlot Plot => new(Before, After);
    public PointsForm? Sent => Typed<PointsForm>();

    public string TextOf(string when) => Sent is { } typed && typed.When == when
        ? typed.Points ?? ""
        : string.Join('\n', (when == "before" ? Before : After).Select(point => $"{point.Feet:0} {point.Psi:0.#}"));
}

/// <summary>Oil pressure against altitude before and after a change: two lines on one plot, and the gain at each altitude.</summary>
public sealed class PressureAltitudeModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock)
    : EnginePage<PressureAltitudeView>(desk, db, frames, clock)
{
    private const int MostBytes = 64 * 1024;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(Guid post, string? when, string? points, IFormFile? file, CancellationToken stop)
    {
        if (file is { Length: > 0 })
        {
            var (bytes, large) = await Uploads.ReadAsync(file, "points", MostBytes, "", stop);
            if (large is not null)
                return await AgainAsync(large, stop, new PointsForm(when ?? "before", points));
            points = Encoding.UTF8.GetString(bytes).TrimStart('\ufeff').Replace(',', ' ');
        }
        var (read, refusal) = when is "before" or "after" ? AltitudeFit.Read(points) : ([], new("points", "Before or after?"));
        var written = refusal is not null ? new(refusal) : await OnEngineAsync(post, (job, engine) =>
        {
            job.Inspection.PressuresAtAltitude(engine, when!, read, Me, Clock.GetUtcNow());
            return null;
        }, stop);
        return await AfterAsync(written, AddressOf("pressure-altitude"), stop, new PointsForm(when ?? "before", points));
    }

    protected override Task<PressureAltitudeView?> ViewAsync(WalkShown walk, Component engine, Refused refused, CancellationToken stop) =>
        Task.FromResult<PressureAltitudeView?>(new(walk, engine, walk.Job.Inspection.PressuresAtAltitude(engine, "before"),
            walk.Job.Inspection.PressuresAtAltitude(engine, "after")));
}
