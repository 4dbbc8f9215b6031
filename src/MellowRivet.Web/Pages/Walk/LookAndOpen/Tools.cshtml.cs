using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Tools;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.LookAndOpen;

/// <summary>What became of a tool that won't come back whole, as it is sent.</summary>
public sealed record AccountForm(string? Account);

/// <summary>An object that doesn't belong there, as it is sent.</summary>
public sealed record ObjectForm(string? Zone, string? What);

/// <summary>The tools at the aircraft and in the shop.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="InShop">Tools of the shop that aren't at this aircraft.</param>
/// <param name="Elsewhere">Tools that are out at another aircraft, with where.</param>
/// <param name="Today">The day, for calibrations.</param>
public sealed record ToolsView(WalkShown Walk, IReadOnlyList<Tool> InShop, IReadOnlyDictionary<Guid, string> Elsewhere, DateOnly Today)
    : LookAndOpenView(Walk)
{
    public string? Account => Typed<AccountForm>()?.Account;
    public ObjectForm? Object => Typed<ObjectForm>();
}

/// <summary>Tools counted out to the aircraft and in again, and what was found in it that doesn't belong there.</summary>
public sealed class ToolCountModel(Desk desk, RivetDb db, KeptFrames frames, Uploads uploads, WorkClock clock)
    : LookPage<ToolsView>(desk, db, frames)
{
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostOutAsync(Guid post, List<Guid> tools, CancellationToken stop)
    {
        var chosen = (await Db.ToolsAsync(stop)).Where(tool => tools.Contains(tool.Id) && !tool.IsRetired).ToList();
        return await AfterAsync(Desk.WriteAskingAsync(Id, post, async job =>
            job.Inspection.TakeOut(chosen, await Db.ToolsElsewhereAsync(Id, stop), Me, clock.GetUtcNow()), stop, JobParts.Bare),
            $"/walk/{Id}/tools", stop);
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostInAsync(Guid post, Guid tool, string? account, CancellationToken stop) => BackAsync(post, "tools",
        job => job.Inspection.BringIn(tool, account, Me, clock.GetUtcNow()), stop, new AccountForm(account));

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostObjectAsync(Guid post, string? zone, string? what, IFormFile? photo, CancellationToken stop)
    {
        var taken = await uploads.TakeInAsync(photo, stop);
        return await BackAsync(post, "tools", job => taken.Wrong("object")
            ?? job.Inspection.FindObject(post, zone, what, taken.Photo, Me, clock.GetUtcNow()), stop, new ObjectForm(zone, what));
    }

    protected override async Task<ToolsView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var here = walk.Job.Inspection.ToolsOut.Where(tool => tool.In is null).Select(tool => tool.ToolId).ToHashSet();
        return new(walk, [.. (await Db.ToolsAsync(stop)).Where(tool => !tool.IsRetired && !here.Contains(tool.Id))],
            await Db.ToolsElsewhereAsync(Id, stop), clock.Today());
    }
}
