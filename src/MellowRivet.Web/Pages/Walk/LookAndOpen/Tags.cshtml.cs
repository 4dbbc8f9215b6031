using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.LookAndOpen;

/// <summary>A panel opened or a part taken off, as it is sent.</summary>
public sealed class TagForm
{
    public Guid Post { get; set; }
    public string? Zone { get; set; }
    public TagKind Kind { get; set; }
    public string? What { get; set; }
    public string? Hardware { get; set; }
}

/// <summary>Panels, parts and bags.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Number">The tag that a scanned label leads to, or that wasn't closed; null for none.</param>
/// <param name="LastTime">What was opened last time and isn't yet, to open with one touch.</param>
public sealed record TagsView(WalkShown Walk, int? Number, IReadOnlyList<Tag> LastTime) : LookAndOpenView(Walk)
{
    public TagForm Tag => Typed<TagForm>() ?? new();
}

/// <summary>Panels that were opened, parts that were taken off, and the bags of their hardware.</summary>
public sealed class TagsModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock) : LookPage<TagsView>(desk, db, frames)
{
    [FromQuery(Name = "tag")]
    public int? Number { get; set; }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostOpenAsync(TagForm form, CancellationToken stop) => BackAsync(form.Post, "tags",
        job => job.Inspection.Open(form.Zone, form.Kind, form.What, form.Hardware, Me, clock.GetUtcNow()).Refusal, stop, form);

    /// <summary>Closes one by its number, or by where and what it is: a device has no number of one that it hasn't sent yet.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostCloseAsync(Guid post, int? number, string? zone, string? what, bool inside, CancellationToken stop)
    {
        Number = number;
        return BackAsync(post, "tags", job => (number ?? job.Inspection.OpenUnder(zone, what)) is { } tag
            ? job.Inspection.Close(tag, inside, Me, clock.GetUtcNow())
            : new("close", "What it closes has no tag here: its opening wasn’t taken."), stop);
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostReopenAsync(Guid post, int number, CancellationToken stop) =>
        BackAsync(post, "tags", job => job.Inspection.Reopen(number, Me, clock.GetUtcNow()), stop);

    protected override async Task<TagsView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var view = new TagsView(walk, Number, []);
        var zones = view.Zones.Select(zone => zone.Key).ToHashSet();
        var last = (await Db.LastSignedAsync(walk.Job.Inspection, stop))?.Tags ?? [];
        return view with
        {
            LastTime = [.. last.Where(tag => zones.Contains(tag.ZoneKey)
                && walk.Job.Inspection.Tags.All(other => (other.ZoneKey, other.What) != (tag.ZoneKey, tag.What)))],
        };
    }
}
