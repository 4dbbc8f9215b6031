using MellowRivet.Core;
using MellowRivet.Core.Books;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Arrive;

/// <summary>Damage to pin, as it is sent: a place touched on the drawing, or a zone chosen from the list.</summary>
public sealed class PinForm
{
    public Guid Post { get; set; }
    public double? X { get; set; }
    public double? Y { get; set; }
    public string? Zone { get; set; }
    public string? Damage { get; set; }
}

/// <summary>What was said of what is aboard, as it is sent.</summary>
public sealed record AboardForm(string? Fuel, string? Oil, string? Inside);

/// <summary>An answer to one of the owner's complaints, as it is sent.</summary>
public sealed record AnswerForm(Guid Squawk, string? Answer);

/// <summary>The owner's words, as they are sent.</summary>
public sealed record WordsForm(string? Words);

/// <summary>How the aircraft came in.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Next">Where the next picture is taken from.</param>
/// <param name="Books">The aircraft's books.</param>
/// <param name="Gaps">Gaps in them.</param>
public sealed record ArriveView(WalkShown Walk, Viewpoint Next, IReadOnlyList<LogBook> Books, IReadOnlyList<BookGap> Gaps) : WalkView(Walk)
{
    public override Station At => Station.Arrive;

    public string? Words => Typed<WordsForm>()?.Words;
    public PinForm Pin => Typed<PinForm>() ?? new();
    public AnswerForm? Answered => Typed<AnswerForm>();
    public AboardForm? Aboard => Typed<AboardForm>();
}

/// <summary>
/// How the aircraft came in: what the owner said, how it looked before anything was touched, what was aboard, which books were brought.
/// </summary>
public sealed class ArriveModel(Desk desk, RivetDb db, KeptFrames frames, Uploads uploads, WorkClock clock)
    : WalkPage<ArriveView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    private string Here => $"/walk/{Id}/arrive";

    [FromQuery(Name = "from")]
    public Viewpoint? From { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostHearAsync(Guid post, string? words, CancellationToken stop) =>
        OnArrivalAsync(post, inspection => inspection.Hear(post, words, Me, clock.GetUtcNow()), stop, new WordsForm(words));

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostAnswerAsync(Guid post, Guid squawk, string? answer, CancellationToken stop) =>
        OnArrivalAsync(post, inspection => inspection.Answer(squawk, answer, Me, clock.GetUtcNow()), stop, new AnswerForm(squawk, answer));

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostPhotoAsync(Guid post, Viewpoint view, IFormFile? photo, CancellationToken stop)
    {
        From = view;
        var taken = await uploads.TakeInAsync(photo, stop);
        if (!Enum.IsDefined(view) || (taken.Photo is null && taken.Refusals.Count == 0))
            return await AgainAsync(new("photos", "Take or choose a picture."), stop);
        return await OnArrivalAsync(post, inspection =>
        {
            if (taken.Photo is { } picture)
                inspection.Photograph(view, picture, Me, clock.GetUtcNow());
            return taken.Wrong("photos");
        }, stop);
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostPinAsync(PinForm form, CancellationToken stop) => WriteAsync(form.Post, Here, job =>
    {
        var zone = AircraftDrawing.Zones(job.Aircraft.Configuration).FirstOrDefault(shape => shape.ZoneKey == form.Zone);
        return job.Inspection.Pin(form.Post, form.X ?? zone?.StateX, form.Y ?? zone?.StateY, form.Damage, Me, clock.GetUtcNow());
    }, stop, JobParts.Bare, form);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostUnpinAsync(Guid post, Guid pin, CancellationToken stop) => OnArrivalAsync(post, inspection =>
    {
        inspection.Unpin(pin);
        return null;
    }, stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostAboardAsync(Guid post, string? fuel, string? oil, string? inside, CancellationToken stop) =>
        OnArrivalAsync(post, inspection => inspection.NoteAboard(fuel, oil, inside, Me, clock.GetUtcNow()), stop,
            new AboardForm(fuel, oil, inside));

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostBooksAsync(Guid post, List<Guid> brought, string? missing, CancellationToken stop) =>
        OnArrivalAsync(post, inspection => inspection.NoteBooks(brought, missing, Me, clock.GetUtcNow()), stop);

    /// <summary>Notes another meter than the one time in service goes by, which was read at the door.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostMeterAsync(Guid post, MeterKind kind, string? shown, CancellationToken stop) =>
        await LoadAsync(stop) is not { } walk ? NotFound() : await AfterAsync(Desk.WriteFileAsync(walk.Job.Aircraft.Id, post,
            aircraft => Task.FromResult(aircraft.ReadMeter(kind, clock.Today(), shown, User.Initials())), stop, meters: true), Here, stop);

    private Task<IActionResult> OnArrivalAsync(Guid post, Func<Inspection, Refusal?> decide, CancellationToken stop,
        object? typed = null) =>
        WriteAsync(post, Here, job => decide(job.Inspection), stop, JobParts.Bare, typed);

    protected override async Task<ArriveView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var (books, gaps) = await Db.BooksAsync(walk.Job.Aircraft, clock.Today(), stop);
        return new(walk, From ?? walk.Job.Inspection.Arrival.NextView, books, gaps);
    }
}
