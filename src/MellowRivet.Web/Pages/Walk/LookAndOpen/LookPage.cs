using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.LookAndOpen;

/// <summary>A page of the station Look &amp; open: looks, panels and bags, tools.</summary>
public abstract class LookPage(Desk desk, RivetDb db, KeptFrames frames, PhotoFiles photos) : WalkPage(desk, db, frames)
{
    public override Station At => Station.LookAndOpen;
    protected override JobParts Shows => JobParts.Tasks;

    /// <summary>The places of the walk, in order: a run and the papers are none.</summary>
    public IReadOnlyList<(string Key, string Title)> Zones => Job.Inspection.Looks.Count > 0
        ? [.. Job.Inspection.Looks.Select(zone => (zone.ZoneKey, zone.Title))]
        : [.. Job.Inspection.Walk.Select(task => (task.ZoneKey, task.ZoneTitle)).Distinct()];

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    protected virtual Task<bool> ShowAsync(CancellationToken stop) => LoadAsync(stop);

    /// <summary>Writes, then goes back to the page, or shows it again with what is wrong beside its field.</summary>
    protected Task<IActionResult> WriteAsync(Guid post, string back, Func<Job, Refusal?> decide, CancellationToken stop,
        Action? keepTyped = null, JobParts parts = JobParts.Tasks) =>
        AfterAsync(Desk.WriteAsync(Id, post, decide, stop, parts), back, stop, keepTyped);

    protected async Task<IActionResult> AfterAsync(Task<Written> writing, string back, CancellationToken stop, Action? keepTyped = null)
    {
        var written = await writing;
        if (written.Done)
            return Redirect($"/walk/{Id}/{back}");
        keepTyped?.Invoke();
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    /// <summary>Takes a picture in, where one came along.</summary>
    protected async Task<(Photo? Photo, Refusal? Refusal)> TakeInAsync(IFormFile? file, string field, CancellationToken stop)
    {
        if (file is null || file.Length == 0)
            return (null, null);
        try
        {
            await using var content = file.OpenReadStream();
            var answer = await photos.TakeInAsync(content, file.FileName, stop);
            return (answer.Photo, answer.Refusal is { } refusal ? refusal with { Field = field } : null);
        }
        catch (IOException)
        {
            return (null, new(field, "The shop's disk didn't take the picture: it may be full. Nothing was saved."));
        }
    }
}
