using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Costs;

/// <summary>The kind of job, or hours, as they are sent.</summary>
public sealed record TookForm(string? Kind, string? Hours);

/// <summary>What one line takes, and took.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Line">The line.</param>
/// <param name="Kind">What kind of job it is; empty where nobody can say.</param>
/// <param name="Learned">What jobs of that kind took here.</param>
/// <param name="Kinds">Kinds that hours were booked on.</param>
/// <param name="Booked">Hours booked on it.</param>
/// <param name="Kits">Kits that fit an engine of the aircraft.</param>
/// <param name="MayPrice">Whoever looks may put prices down.</param>
/// <param name="Now">The moment.</param>
public sealed record LineView(WalkShown Walk, PricedLine Line, string Kind, Learned Learned, IReadOnlyList<string> Kinds,
    IReadOnlyList<BookedTime> Booked, IReadOnlyList<Kit> Kits, bool MayPrice, DateTimeOffset Now) : WalkView(Walk)
{
    public override Station At => Station.FixList;

    public HouseRules House => Job.Inspection.House;
    public Discrepancy? Found => Line.Priced as Discrepancy;
    public LineForm Form => Typed<LineForm>() ?? LineForm.Of(Line.Priced.Estimate);
    public TookForm? Took => Typed<TookForm>();
    public decimal HoursBooked => Booked.Sum(row => row.Hours ?? 0);
    public string Here => $"/walk/{Id}/fix-list/prices/{Line.Key}";
}

/// <summary>
/// One line in full: hours by skill, parts with their lead times, outside work, what the last one took, and hours booked.
/// </summary>
[Needs(Right.RecordWork)]
public sealed class LineModel(Desk desk, RivetDb db, KeptFrames frames, Shelf shelf, TimeProvider clock)
    : WalkPage<LineView>(desk, db, frames)
{
    [FromRoute]
    public string Key { get; set; } = "";

    private string Here => $"/walk/{Id}/fix-list/prices/{Key}";

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostAsync(Guid post, LineForm form, CancellationToken stop) =>
        ExpectAsync(post, (_, lines) => form.Read(lines), form, stop);

    /// <summary>Puts a kit's parts on the line, counted from the engine.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostKitAsync(Guid post, string? kit, Guid engine, CancellationToken stop)
    {
        if (await LoadAsync(stop) is not { Job: var job })
            return NotFound();
        if (shelf.Kits.FirstOrDefault(one => one.Key == kit) is not { } taken
            || job.Aircraft.Engines.FirstOrDefault(stay => stay.ComponentId == engine) is not { Component: var on })
            return await AgainAsync(new("kit", "Choose a kit, and the engine it is counted from."), stop);
        var filled = await Db.LastOilFillAsync(job.Aircraft.Id, engine, Id, stop);
        return await ExpectAsync(post, (was, _) =>
        {
            var parts = (was?.HasPlainParts == true ? [] : was?.Parts ?? [])
                .Concat(taken.For(on.Layout, filled)).DistinctBy(part => (part.What, part.Number)).ToList();
            return ((was ?? Estimate.Nothing) with { Parts = parts }, null);
        }, null, stop);
    }

    /// <summary>Takes over what jobs of its kind took.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostLearnedAsync(Guid post, CancellationToken stop)
    {
        if (!await MakeAsync(stop))
            return NotFound();
        return View.Learned.Offer is not { } offer
            ? await AgainAsync(new("learned", View.Learned.InWords), stop)
            : await ExpectAsync(post, (was, _) => ((was ?? Estimate.Nothing) with { Labour = [new(Skill.Mechanic, offer)] }, null), null,
                stop);
    }

    /// <summary>Asks the owner about work that is no discrepancy, or notes the answer.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostDecideAsync(Guid post, Disposition to, CancellationToken stop) =>
        WriteAsync(post, Here, job => job.Inspection.Decide(Key, to, Me, clock.GetUtcNow()), stop, JobParts.Discrepancies);

    /// <summary>Names the kind of job.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostKindAsync(Guid post, string? kind, CancellationToken stop) =>
        await AfterAsync(Desk.WriteAskingAsync(Id, post, async job =>
        {
            if (job.Inspection.Line(Key) is not { } found)
                return new("kind", "Its kind is what it is called.");
            if (found.Call(kind) is { } refusal)
                return refusal;
            await Db.CallAsync(Id, Key, JobKinds.Of(found, shelf.Classes), stop);
            return null;
        }, stop, JobParts.Discrepancies), Here, stop, new TookForm(kind, null));

    /// <summary>Starts the clock on it.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostStartAsync(Guid post, Skill skill, CancellationToken stop) =>
        await BookableAsync(post, skill, null, stop) is not { } booked ? NotFound()
        : await AfterAsync(Desk.StartClockAsync(booked, post, stop), Here, stop);

    /// <summary>Stops the clock of whoever presses the button, wherever it runs and from any page of a walk.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostStopAsync(Guid post, string? hours, string? back, CancellationToken stop) =>
        await AfterAsync(Desk.StopClockAsync(Me, hours, post, stop), Url.IsLocalUrl(back) ? back! : Here, stop, new TookForm(null, hours));

    /// <summary>Books hours as typed.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostBookAsync(Guid post, Skill skill, string? hours, CancellationToken stop)
    {
        var (taken, refusal) = BookedTime.Read(hours);
        if (refusal is not null)
            return await AgainAsync(refusal, stop, new TookForm(null, hours));
        return await BookableAsync(post, skill, taken, stop) is not { } booked ? NotFound()
            : await AfterAsync(Desk.BookAsync(booked, post, stop), Here, stop);
    }

    /// <summary>Takes off hours that were booked by mistake.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostUnbookAsync(Guid post, Guid booked, CancellationToken stop) =>
        await AfterAsync(Desk.UnbookAsync(Id, booked, Me, post, stop), Here, stop);

    private async Task<BookedTime?> BookableAsync(Guid id, Skill skill, decimal? hours, CancellationToken stop) =>
        await MakeAsync(stop)
            ? new(id, Id, View.Line.Key, View.Kind, Me, Enum.IsDefined(skill) ? skill : Skill.Mechanic, clock.GetUtcNow(), hours)
            : null;

    private async Task<IActionResult> ExpectAsync(Guid post,
        Func<Estimate?, IReadOnlyCollection<string>, (Estimate? Estimate, Refusal? Refusal)> estimate,
        object? typed, CancellationToken stop)
    {
        // A line of the list is found without the plan.
        var due = int.TryParse(Key, out _) ? [] : await Desk.DuePlannedAsync(Id, stop);
        return await AfterAsync(Desk.WriteAsync(Id, post, job => job.Inspection.Expect(Key,
            was => estimate(was, [.. JobEstimate.Of(job.Inspection).Lines.Select(line => line.Key).Where(key => key != Key)]),
            job.Inspection.Unpriced(due), Me, clock.GetUtcNow()), stop, JobParts.Discrepancies), Here, stop, typed);
    }

    protected override async Task<LineView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop)
    {
        var (inspection, aircraft) = (walk.Job.Inspection, walk.Job.Aircraft);
        var line = JobEstimate.Of(inspection).Lines.FirstOrDefault(line => line.Key == Key)
            ?? inspection.Unpriced(await Desk.DuePlannedAsync(inspection, stop)).Select(PricedLine.Of)
                .FirstOrDefault(line => line.Key == Key);
        if (line is null or { Kind: WorkKind.Choice })
            return null;
        var kind = line.Priced switch
        {
            Discrepancy found => JobKinds.Of(found, shelf.Classes),
            PricedWork { Kind: WorkKind.Inspection } => JobKinds.Of(inspection, aircraft.Type),
            PricedWork work => JobKinds.Of(work),
            _ => "",
        };
        return new(walk, line, kind, await Db.TookAsync(kind, clock, stop), await Db.JobKindsAsync(stop),
            [.. (await Db.BookedAtAsync(Id, stop)).Where(row => row.Key == line.Key)],
            [.. shelf.Kits.Where(kit => aircraft.Engines.Any(stay => kit.IsFor(stay.Component.Layout)))],
            inspection.InWork && User.May(Right.CorrectDiscrepancies), clock.GetUtcNow());
    }
}
