using MellowRivet.Core;
using MellowRivet.Core.Books;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
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

/// <summary>
/// How the aircraft came in: what the owner said, how it looked before anything was touched, what was aboard, which books were brought.
/// </summary>
public sealed class ArriveModel(Desk desk, RivetDb db, KeptFrames frames, PhotoFiles photos, TimeProvider clock)
    : WalkPage(desk, db, frames)
{
    public override Station At => Station.Arrive;

    [FromQuery(Name = "from")]
    public Viewpoint? From { get; set; }

    public IReadOnlyList<LogBook> Books { get; private set; } = [];
    public IReadOnlyList<BookGap> Gaps { get; private set; } = [];

    /// <summary>What was typed and refused, so that it stays in its field.</summary>
    public string? Words { get; private set; }
    public PinForm Pin { get; private set; } = new();
    public (Guid Squawk, string? Answer) Answered { get; private set; }
    public (string? Fuel, string? Oil, string? Inside) Aboard { get; private set; }

    /// <summary>Where the next picture is taken from: the chosen viewpoint, else the first without one.</summary>
    public Viewpoint Next =>
        From ?? Enum.GetValues<Viewpoint>().Cast<Viewpoint?>()
            .FirstOrDefault(view => Job.Inspection.Arrival.Round.All(photo => photo.From != view)) ?? Viewpoint.Nose;

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostHearAsync(Guid post, string? words, CancellationToken stop) =>
        WriteAsync(post, job => job.Inspection.Hear(post, words, User.PersonId(), clock.GetUtcNow()), () => Words = words, stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostAnswerAsync(Guid post, Guid squawk, string? answer, CancellationToken stop) =>
        WriteAsync(post, job => job.Inspection.Answer(squawk, answer, User.PersonId(), clock.GetUtcNow()),
            () => Answered = (squawk, answer), stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostPhotoAsync(Guid post, Viewpoint view, IFormFile? photo, CancellationToken stop)
    {
        if (!Enum.IsDefined(view) || photo is null)
            return await WriteAsync(post, _ => new Refusal("photos", "Take or choose a picture."), () => From = view, stop);
        Photo? taken;
        try
        {
            await using var content = photo.OpenReadStream();
            (taken, var refusal) = await photos.TakeInAsync(content, photo.FileName, stop);
            if (taken is null)
                return await WriteAsync(post, _ => refusal, () => From = view, stop);
        }
        catch (IOException)
        {
            return await WriteAsync(post,
                _ => new Refusal("photos", "The shop's disk didn't take the picture: it may be full. Nothing was saved."),
                () => From = view, stop);
        }
        return await WriteAsync(post, job =>
        {
            job.Inspection.Photograph(view, taken, User.PersonId(), clock.GetUtcNow());
            return null;
        }, () => From = view, stop);
    }

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostPinAsync(PinForm form, CancellationToken stop) => WriteAsync(form.Post, job =>
    {
        var zone = AircraftDrawing.Zones(job.Aircraft.Configuration).FirstOrDefault(shape => shape.ZoneKey == form.Zone);
        return job.Inspection.Pin(form.Post, form.X ?? zone?.MarkX, form.Y ?? zone?.MarkY, form.Damage, User.PersonId(), clock.GetUtcNow());
    }, () => Pin = form, stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostUnpinAsync(Guid post, Guid pin, CancellationToken stop) => WriteAsync(post, job =>
    {
        job.Inspection.Unpin(pin);
        return null;
    }, () => { }, stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostAboardAsync(Guid post, string? fuel, string? oil, string? inside,
        CancellationToken stop) => WriteAsync(post, job =>
    {
        if (new[] { fuel, oil, inside }.Any(words => words?.Trim().Length > Discrepancy.LongestWhere))
            return new("aboard", $"Up to {Discrepancy.LongestWhere} characters each.");
        if (string.IsNullOrWhiteSpace(fuel) || string.IsNullOrWhiteSpace(inside))
            return new("aboard", "Say how much fuel is aboard, and what was left inside: “nothing” is an answer.");
        job.Inspection.Note(new OnBoard(fuel.Trim(), oil?.Trim() ?? "", inside.Trim(), User.PersonId(), clock.GetUtcNow()));
        return null;
    }, () => Aboard = (fuel, oil, inside), stop);

    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostBooksAsync(Guid post, List<Guid> brought, string? missing,
        CancellationToken stop) => WriteAsync(post, job =>
    {
        if (missing?.Trim().Length > Discrepancy.LongestWhere)
            return new("books", $"Up to {Discrepancy.LongestWhere} characters.");
        job.Inspection.Note(new BooksBrought(brought, missing?.Trim() ?? "", User.PersonId(), clock.GetUtcNow()));
        return null;
    }, () => { }, stop);

    /// <summary>Notes another meter than the one time in service goes by, which was read at the door.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostMeterAsync(Guid post, MeterKind kind, string? shown, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        var today = clock.Today();
        var written = await Desk.WriteFileAsync(Job.Aircraft.Id, post, aircraft => Task.FromResult(
            TypedNumber.ParseHours(shown) is not { } value || !Enum.IsDefined(kind)
                ? new Refusal("meter", "What the meter shows, as a figure.")
            : aircraft.ReadMeter(kind, today, value.Value, User.Initials()) is { } wrong
            ? new("meter", wrong.Message)
            : null), stop, meters: true);
        return await AfterAsync(written, () => { }, stop);
    }

    private async Task<IActionResult> WriteAsync(Guid post, Func<Job, Refusal?> decide, Action keepTyped, CancellationToken stop) =>
        await AfterAsync(await Desk.WriteAsync(Id, post, decide, stop, JobParts.Bare), keepTyped, stop);

    private async Task<IActionResult> AfterAsync(Written written, Action keepTyped, CancellationToken stop)
    {
        if (written.Done)
            return Redirect($"/walk/{Id}/arrive");
        keepTyped();
        if (!await ShowAsync(stop))
            return NotFound();
        Refuse(written.Refusal!);
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        var today = clock.Today();
        (Books, Gaps) = await Db.BooksAsync(Job.Aircraft, today, stop);
        return true;
    }
}
