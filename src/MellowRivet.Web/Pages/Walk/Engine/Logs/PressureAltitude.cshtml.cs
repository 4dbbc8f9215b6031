using MellowRivet.Core.EngineRun;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Engine.Logs;

/// <summary>Oil pressure against altitude before and after a change: two lines on one plot, and the gain at each altitude.</summary>
public sealed class PressureAltitudeModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock)
    : EnginePage(desk, db, frames, clock)
{
    public string Self => $"/walk/{Id}/pressure-altitude/{EngineId}";
    public IReadOnlyList<AltitudePoint> Before { get; private set; } = [];
    public IReadOnlyList<AltitudePoint> After { get; private set; } = [];
    public (string When, string? Points)? Typed { get; private set; }
    public AltitudePlot Plot => new(Before, After);

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(Guid post, string? when, string? points, IFormFile? file, CancellationToken stop)
    {
        if (file is { Length: > 0 and < 64 * 1024 })
        {
            using var reader = new StreamReader(file.OpenReadStream());
            points = (await reader.ReadToEndAsync(stop)).Replace(',', ' ');
        }
        var (read, refusal) = when is "before" or "after" ? AltitudeLine.Read(points) : ([], new("points", "Before or after?"));
        var written = refusal is not null ? new(refusal) : await WriteAsync(post, (job, engine) =>
        {
            job.Inspection.PressuresAtAltitude(engine, when!, read, User.PersonId(), Clock.GetUtcNow());
            return null;
        }, stop);
        if (written.Done)
            return Redirect(Self);
        Typed = (when ?? "before", points);
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    public string TextOf(string when) =>
        Typed is { } typed && typed.When == when
            ? typed.Points ?? ""
            : string.Join('\n', (when == "before" ? Before : After).Select(point => $"{point.Feet:0} {point.Psi:0.#}"));

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadEngineAsync(stop))
            return false;
        IReadOnlyList<AltitudePoint> Of(string when) =>
            [.. Job.Inspection.Readings.Where(reading => reading.Kind == Inspection.AltitudeKind && reading.ComponentId == EngineId
                && reading.Position == when)
            .Select(reading => new AltitudePoint(reading.Conditions.Feet ?? 0, reading.Value)).OrderBy(point => point.Feet)];
        (Before, After) = (Of("before"), Of("after"));
        return true;
    }
}
