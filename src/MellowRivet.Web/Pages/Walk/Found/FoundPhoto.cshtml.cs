using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>A picture of the same place, of another day.</summary>
public sealed record OtherPhoto(Photo Photo, string Number, DateOnly On, decimal TimeInService, bool Near);

/// <summary>One picture with what is drawn on it, and the others of its place.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Found">The discrepancy it shows.</param>
/// <param name="Photo">The picture.</param>
/// <param name="Others">Pictures of the same place, latest first, then those elsewhere in the zone.</param>
/// <param name="With">The one it is compared with; null for none.</param>
/// <param name="Growth">What was measured at this place over time; null under two.</param>
public sealed record FoundPhotoView(WalkShown Walk, Discrepancy Found, Photo Photo, IReadOnlyList<OtherPhoto> Others, OtherPhoto? With,
    PlaceGrowth? Growth) : WalkView(Walk)
{
    public override Station At => Station.FixList;
    public override string? ZoneHere => Found.ZoneKey;

    /// <summary>What is drawn, in its field: as sent where it wasn't taken, else as kept.</summary>
    public string? AnnotationsJson => (Typed<DrawnForm>() ?? DrawnForm.Of(Photo)).Annotations;

    /// <summary>The same, over the picture; what can't be drawn leaves what is kept.</summary>
    public DrawnAnnotations Drawn => Typed<DrawnForm>() is { } form && form.Read(Photo) is (var annotations, null)
        ? new(Photo with { Annotations = annotations }, MayRecord, form.KnownMm, Problem("annotations"))
        : new(Photo, MayRecord, null, Problem("annotations"));

    public ReadingPlot? Plot => Growth is { } growth ? new(growth.Points, new(growth.Unit, null, null, new(Standing.Practice, ""))) : null;
}

/// <summary>One picture: drawn on, measured, and laid beside or under the earlier ones of its place.</summary>
public sealed class FoundPhotoModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage<FoundPhotoView>(desk, db, frames)
{
    [FromRoute]
    public int Number { get; set; }

    [FromRoute]
    public string Sha { get; set; } = "";

    [FromQuery(Name = "with")]
    public string? WithSha { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Measures what is drawn and keeps nothing: answers with its lines for the picture and its list.</summary>
    [Needs(Right.Look)]
    public async Task<IActionResult> OnPostMeasureAsync(DrawnForm form, CancellationToken stop)
    {
        if (await LookAsync(JobParts.Discrepancies, stop) is not { } job || InJob(job) is not var (_, photo))
            return NotFound();
        var (annotations, refusal) = form.Read(photo);
        return refusal is not null
            ? Partial("_Refusal", refusal.Message)
            : Partial("_Measured", new DrawnAnnotations(photo with { Annotations = annotations }, MayDraw: true, form.KnownMm,
                Annotation.Check(annotations, photo)?.Message));
    }

    /// <summary>Keeps what is drawn, beside the picture.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostAsync(Guid post, int seen, DrawnForm form, CancellationToken stop) =>
        WriteAsync(post, $"/walk/{Id}/fix-list/{Number}/photos/{Sha}", job =>
        {
            if (InJob(job) is not var (found, photo))
                return new("annotations", "There is no such picture on this fix list.");
            var (annotations, refusal) = form.Read(photo);
            return (refusal ?? found.Draw(Sha, annotations, seen)) is { } wrong ? wrong with { Field = "annotations" } : null;
        }, stop, JobParts.Discrepancies, form);

    private (Discrepancy Found, Photo Photo)? InJob(Job job) =>
        job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number) is { } found
        && found.Photos.FirstOrDefault(photo => photo.Sha256 == Sha) is { } photo ? (found, photo) : null;

    protected override async Task<FoundPhotoView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        if (InJob(walk.Job) is not var (found, photo))
            return null;
        var inspection = walk.Job.Inspection;
        var (number, time) = ($"{inspection.WorkOrder}-{found.Number:00}", inspection.TimeInService.Value);
        var history = PlaceHistory.Of(found.Place, await Db.EarlierFindsAsync(inspection, found.Place, stop));
        List<OtherPhoto> others =
        [
            .. Of(history.Same, false),
            .. found.Photos.Where(other => other.Sha256 != Sha)
                .Select(other => new OtherPhoto(other, number, inspection.OpenedOn, time, false)),
            .. Of(history.Near, true),
        ];
        return new(walk, found, photo, others, others.FirstOrDefault(other => other.Photo.Sha256 == WithSha),
            PlaceGrowth.Of(history, found, time));
    }

    private static IEnumerable<OtherPhoto> Of(IEnumerable<EarlierFind> finds, bool near) => finds.SelectMany(
        find => find.Found.Photos.Select(photo => new OtherPhoto(photo, find.Number, find.On, find.TimeInService, near)));
}
