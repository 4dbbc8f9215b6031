using System.Text.Json;
using System.Text.Json.Serialization;
using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Judgements;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Trends;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Found;

/// <summary>A picture of the same place, of another day.</summary>
public sealed record OtherPhoto(Photo Photo, string Number, DateOnly On, decimal TimeInService, bool Near);

/// <summary>One picture: drawn on, measured, and laid beside or under the earlier ones of its place.</summary>
public sealed class FoundPhotoModel(Desk desk, RivetDb db, KeptFrames frames) : WalkPage(desk, db, frames)
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

    public override Station At => Station.FixList;
    protected override JobParts Shows => JobParts.Tasks | JobParts.Discrepancies | JobParts.Components;
    public override string? ZoneHere => Found.ZoneKey;

    public Discrepancy Found { get; private set; } = null!;
    public Photo Photo { get; private set; } = null!;

    /// <summary>Pictures of the same place, latest first, then those elsewhere in the zone.</summary>
    public IReadOnlyList<OtherPhoto> Others { get; private set; } = [];

    /// <summary>The one it is compared with; null for none.</summary>
    public OtherPhoto? With { get; private set; }

    /// <summary>What was measured at this place over time; null under two.</summary>
    public ReadingPlot? Plot { get; private set; }
    public string? PlotWords { get; private set; }

    /// <summary>What was drawn and not taken, so that it stays.</summary>
    public string? TypedMarks { get; private set; }

    public string MarksJson => TypedMarks ?? JsonSerializer.Serialize(Photo.Marks ?? [], Json);

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>Measures what is drawn and keeps nothing.</summary>
    [Needs(Right.Look)]
    public async Task<IActionResult> OnPostMeasureAsync(string? marks, CancellationToken stop)
    {
        if (!await LookAsync(JobParts.Discrepancies, stop) || !TakeUp())
            return NotFound();
        var (drawn, refusal) = Read(marks);
        if ((refusal ?? PhotoMark.Check(drawn, Photo)) is { } wrong)
            return new JsonResult(new { problem = wrong.Message });
        var scale = PhotoScale.Of(drawn);
        return new JsonResult(new
            { sizes = drawn.Select(mark => mark.Kind is MarkKind.Length or MarkKind.Patch
                ? scale?.Measure(mark).InWords ?? "draw a scale first"
                : null) });
    }

    /// <summary>Keeps what is drawn, beside the picture.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostAsync(Guid post, int seen, string? marks, CancellationToken stop)
    {
        var (drawn, refusal) = Read(marks);
        if (refusal is null)
        {
            var written = await Desk.WriteAsync(Id, post,
                job => job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number) is { } found
                ? found.Draw(Sha, drawn, seen)
                : new("marks", "There is no such discrepancy on this fix list."), stop, JobParts.Discrepancies);
            if (written.Done)
                return Redirect($"/walk/{Id}/fix-list/{Number}/photos/{Sha}");
            refusal = written.Refusal;
        }
        TypedMarks = marks;
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(refusal! with { Field = "marks" });
        return Page();
    }

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

    private bool TakeUp()
    {
        if (Job.Inspection.Discrepancies.FirstOrDefault(found => found.Number == Number) is not { } found
            || found.Photos.FirstOrDefault(photo => photo.Sha256 == Sha) is not { } photo)
            return false;
        (Found, Photo) = (found, photo);
        return true;
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop) || !TakeUp())
            return false;
        var found = Found;
        var history = PlaceHistory.Of(found.Place, await Db.EarlierFindsAsync(Job.Inspection, found.Place, stop));
        var mine = found.Photos.Where(other => other.Sha256 != Sha)
            .Select(other => new OtherPhoto(other, $"{Job.Inspection.WorkOrder}-{found.Number:00}", Job.Inspection.OpenedOn,
                Job.Inspection.TimeInService.Value, false));
        Others = [.. Of(history.Same, false), .. mine, .. Of(history.Near, true)];
        With = Others.FirstOrDefault(other => other.Photo.Sha256 == WithSha);
        Measures(history);
        return true;
    }

    private static IEnumerable<OtherPhoto> Of(IEnumerable<EarlierFind> finds, bool near) =>
        finds.SelectMany(find => find.Found.Photos.Select(photo => new OtherPhoto(photo, find.Number, find.On, find.TimeInService, near)));

    // One point for each inspection: the longest length, or where none is measured the largest patch.
    private void Measures(PlaceHistory history)
    {
        var finds = history.Same.Select(find => (find.TimeInService, find.Found))
            .Append((TimeInService: Job.Inspection.TimeInService.Value, Found));
        foreach (var (kind, unit) in new[] { (MarkKind.Length, Unit.Millimetre), (MarkKind.Patch, Unit.SquareMillimetre) })
        {
            var points = finds.Select(
                find => (find.TimeInService, Size: find.Found.Photos.SelectMany(photo => photo.Measured)
                    .Where(measured => measured.Kind == kind).MaxBy(measured => measured.Value)))
                .Where(point => point.Size is not null).GroupBy(point => point.TimeInService)
                .Select(same => same.MaxBy(point => point.Size!.Value)).OrderBy(point => point.TimeInService).ToList();
            if (points.Count < 2)
                continue;
            Plot = new([.. points.Select(point => new TrendPoint((double)point.TimeInService, point.Size!.Value))],
                new(unit, null, null, new(Standing.Practice, "")));
            var (first, last) = (points[^2].Size!, points[^1].Size!);
            var (grown, apart) = (last.Value - first.Value,
                Math.Sqrt(first.Uncertainty * first.Uncertainty + last.Uncertainty * last.Uncertainty));
            PlotWords = Math.Abs(grown) <= apart
                ? $"No change that the pictures can tell: {grown:+0.0;−0.0} {unit} is within ± {apart:0.0}."
                : $"{(grown > 0 ? "Grown" : "Smaller")} by {Math.Abs(grown):0.0} ± {apart:0.0} {unit} in "
                + $"{points[^1].TimeInService - points[^2].TimeInService:0.#} h.";
            return;
        }
    }
}
