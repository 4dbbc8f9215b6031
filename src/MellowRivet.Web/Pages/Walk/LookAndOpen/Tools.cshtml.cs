using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Tools;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.LookAndOpen;

/// <summary>Tools counted out to the aircraft and in again, and what was found in it that doesn't belong there.</summary>
public sealed class ToolCountModel(Desk desk, RivetDb db, KeptFrames frames, PhotoFiles photos, TimeProvider clock)
    : LookPage(desk, db, frames, photos)
{
    /// <summary>Tools of the shop that aren't at this aircraft.</summary>
    public IReadOnlyList<Tool> InShop { get; private set; } = [];

    /// <summary>Tools that are out at another aircraft, with where.</summary>
    public IReadOnlyDictionary<Guid, string> Elsewhere { get; private set; } = new Dictionary<Guid, string>();
    public string? Account { get; private set; }
    public (string? Zone, string? What) TypedObject { get; private set; }
    public DateOnly Today => clock.Today();

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostOutAsync(Guid post, List<Guid> tools, CancellationToken stop)
    {
        var chosen = (await Db.ToolsAsync(stop)).Where(tool => tools.Contains(tool.Id) && !tool.IsRetired).ToList();
        return await AfterAsync(Desk.WriteAskingAsync(Id, post, async job =>
        {
            var elsewhere = await Db.ToolsElsewhereAsync(Id, stop);
            if (chosen.FirstOrDefault(tool => elsewhere.ContainsKey(tool.Id)) is { } there)
                return new("tools", $"{there.Title} is out at {elsewhere[there.Id]}: bring it in there first.");
            chosen.ForEach(tool => job.Inspection.TakeOut(tool, User.PersonId(), clock.GetUtcNow()));
            return chosen.Count == 0 ? new Refusal("tools", "Tick the tools that go to the aircraft.") : null;
        }, stop, JobParts.Bare), "tools", stop);
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostInAsync(Guid post, Guid tool, string? account, CancellationToken stop) =>
        WriteAsync(post, "tools", job => job.Inspection.BringIn(tool, account, User.PersonId(), clock.GetUtcNow()), stop,
            () => Account = account);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostObjectAsync(Guid post, string? zone, string? what, IFormFile? photo, CancellationToken stop)
    {
        var (picture, refusal) = await TakeInAsync(photo, "object", stop);
        return await WriteAsync(post, "tools", job => refusal
            ?? job.Inspection.FindObject(post, zone, what, picture, User.PersonId(), clock.GetUtcNow()), stop,
            () => TypedObject = (zone, what));
    }

    protected override async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        var here = Job.Inspection.ToolsOut.Where(tool => tool.In is null).Select(tool => tool.ToolId).ToHashSet();
        InShop = [.. (await Db.ToolsAsync(stop)).Where(tool => !tool.IsRetired && !here.Contains(tool.Id))];
        Elsewhere = await Db.ToolsElsewhereAsync(Id, stop);
        return true;
    }
}
