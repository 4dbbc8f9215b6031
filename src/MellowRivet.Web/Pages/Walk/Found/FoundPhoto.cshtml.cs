using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core;
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

/// <summary>What was drawn, as it is sent.</summary>
public sealed record DrawnForm(string? Marks);

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

    /// <summary>What is drawn: as sent where it wasn't taken, else as kept.</summary>
    public string MarksJson => Typed<DrawnForm>()?.Marks ?? FoundPhotoModel.Write(Photo.Marks ?? []);

    public ReadingPlot? Plot => Growth is { } growth ? new(growth.Points, new(growth.Unit, null, null, new(Standing.Practice, ""))) : null;
}

/// <summary>One picture: drawn on, measured, and laid beside or under the earlier ones of its place.</summary>
public sealed class FoundPhotoModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage<FoundPhotoView>(desk, db, frames)
{
    private static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web)
    {
        Converters = { new JsonStringEnumConverter(JsonNamingPolicy.CamelCase, allowIntegerValues: false) },
        MaxDepth = 8,
    };

    [FromRoute]
    public int Number { get; set; }

    [FromRoute]
    public string Sha { get; set; } = "";

    [FromQuery(Name = "with")]
    public string? WithSha { get; set; }

    protected override JobParts Shows => JobParts.Tasks | JobParts.Discrepancies | JobParts.Components;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Measures what is drawn and keeps nothing.</summary>
    [Needs(Right.Look)]
    public async Task<IActionResult> OnPostMeasureAsync(string? marks, CancellationToken stop)
    {
        if (await LookAsync(JobParts.Discrepancies, stop) is not { } job || InJob(job) is not var (_, photo))
            return NotFound();
        var (drawn, refusal) = Read(marks);
        if ((refusal ?? PhotoMark.Check(drawn, photo)) is { } wrong)
            return new JsonResult(new { problem = wrong.Message });
        return new JsonResult(new { sizes = PhotoScale.SizesOf(drawn) });
    }

    /// <summary>Keeps what is drawn, beside the picture.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(Guid post, int seen, string? marks, CancellationToken stop)
    {
        var (drawn, refusal) = Read(marks);
        return refusal is not null ? await AgainAsync(refusal, stop, new DrawnForm(marks))
            : await WriteAsync(post, $"/walk/{Id}/fix-list/{Number}/photos/{Sha}", job =>
                (job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number) is { } found
                    ? found.Draw(Sha, drawn, seen)
                    : new("marks", "There is no such discrepancy on this fix list.")) is { } wrong ? wrong with { Field = "marks" } : null,
                stop, JobParts.Discrepancies, new DrawnForm(marks));
    }

    internal static string Write(IReadOnlyList<PhotoMark> marks) => JsonSerializer.Serialize(marks, Json);

    private static (IReadOnlyList<PhotoMark> Marks, Refusal? Refusal) Read(string? marks)
    {
        Refusal unreadable = new("marks", "What was drawn can't be read.");
        if (marks is null || marks.Length > 400_000)
            return ([], unreadable);
        try
        {
            return JsonSerializer.Deserialize<List<PhotoMark?>>(marks, Json) is { } read && read.All(mark => mark is not null)
                ? ([.. read.Select(mark => mark!)], null)
                : ([], unreadable);
        }
        catch (JsonException)
        {
            return ([], unreadable);
        }
    }

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
