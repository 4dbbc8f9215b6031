using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
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

/// <summary>Panels that were opened, parts that were taken off, and the bags of their hardware.</summary>
public sealed class TagsModel(Desk desk, RivetDb db, KeptFrames frames, PhotoFiles photos, TimeProvider clock)
    : LookPage(desk, db, frames, photos)
{
    /// <summary>The tag a scanned label leads to.</summary>
    [FromQuery(Name = "tag")]
    public int? Number { get; set; }

    public TagForm Typed { get; private set; } = new();

    /// <summary>What was opened last time and isn't yet, to open with one touch.</summary>
    public IReadOnlyList<Tag> LastTime { get; private set; } = [];

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostOpenAsync(TagForm form, CancellationToken stop) => WriteAsync(form.Post, "tags",
        job => job.Inspection.Open(form.Zone, form.Kind, form.What, form.Hardware, User.PersonId(), clock.GetUtcNow()).Refusal, stop,
        () => Typed = form);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostCloseAsync(Guid post, int number, bool inside, CancellationToken stop) => WriteAsync(post, "tags",
        job => job.Inspection.Close(number, inside, User.PersonId(), clock.GetUtcNow()), stop, () => Number = number);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostReopenAsync(Guid post, int number, CancellationToken stop) => WriteAsync(post, "tags",
        job => job.Inspection.Reopen(number, User.PersonId(), clock.GetUtcNow()), stop);

    protected override async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        var zones = Zones.Select(zone => zone.Key).ToHashSet();
        LastTime = [.. ((await Db.LastSignedAsync(Job.Inspection, stop))?.Tags ?? [])
            .Where(tag => zones.Contains(tag.ZoneKey)
                && Job.Inspection.Tags.All(other => (other.ZoneKey, other.What) != (tag.ZoneKey, tag.What)))];
        return true;
    }
}
