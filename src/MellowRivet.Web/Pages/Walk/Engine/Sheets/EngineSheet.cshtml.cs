using MellowRivet.Core;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Oil;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Walk.Engine.Sheets;

/// <summary>A value of a sheet as it is sent.</summary>
public sealed class SheetValueForm
{
    public Guid Post { get; set; }
    public Guid Reading { get; set; }
    public string? Of { get; set; }
    public string? Position { get; set; }
    public string? Value { get; set; }
    public string? Unit { get; set; }

    /// <summary>What stood there when it was typed; so for the next ones.</summary>
    public string? Seen { get; set; }
}

/// <summary>A look of a sheet as it is sent.</summary>
public sealed class SheetLookForm
{
    public Guid Post { get; set; }
    public string? Key { get; set; }
    public LookState State { get; set; }
    public string? Words { get; set; }
    public IFormFile? Photo { get; set; }
    public IFormFile? Sound { get; set; }
    public string? Seen { get; set; }
}

/// <summary>What a filter showed, as it is sent.</summary>
public sealed class CutForm
{
    public Guid Post { get; set; }
    public FilterPlace Place { get; set; }
    public FilterMetal Metal { get; set; }
    public FilterAmount Amount { get; set; }
    public string? Words { get; set; }
    public IFormFile? Photo { get; set; }
    public Dictionary<FilterPlace, string?> Seen { get; set; } = [];
}

/// <summary>An oil change as it is sent.</summary>
public sealed class FillForm
{
    public Guid Post { get; set; }
    public string? Oil { get; set; }
    public string? Amount { get; set; }
    public string? Unit { get; set; }
    public string? Filter { get; set; }
    public bool Not { get; set; }
    public string? Seen { get; set; }
}

/// <summary>A sheet of the engine station: values judged as they are typed, looks, and what they come to together.</summary>
[EnableRateLimiting("uploads")]
public sealed class EngineSheetModel(Desk desk, RivetDb db, KeptFrames frames, WorkClock clock, Uploads uploads)
    : EnginePage<EngineSheetView>(desk, db, frames, clock)
{
    [FromRoute]
    public SheetKind Kind { get; set; }

    [FromRoute]
    public Guid Carrier { get; set; }

    private string Here => $"/walk/{Id}/engine-sheet/{Kind.ToString().ToLowerInvariant()}/{Carrier}";

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostValueAsync(SheetValueForm form, CancellationToken stop) =>
        await AnswerAsync(await OnSheetAsync(form.Post, (job, sheet) =>
            sheet.Values.FirstOrDefault(value => value.Kind == form.Of && value.Position == (form.Position ?? "")) is { } value
                ? job.Inspection.Measure(form.Reading, sheet, value, form.Value, form.Unit, job.Aircraft, Saying(form.Seen))
                : new("value", "There is no such value on this sheet."), stop), $"{form.Of}-{form.Position}", "_SheetValueSaved",
                stop, form);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostLookAsync(SheetLookForm form, CancellationToken stop)
    {
        var taken = await uploads.TakeInAsync([form.Photo], [form.Sound], stop);
        var written = await OnSheetAsync(form.Post, (job, sheet) => taken.Wrong("look")
            ?? (sheet.Looks.FirstOrDefault(look => look.Key == form.Key) is { } look
                ? job.Inspection.Look(sheet, look, new(sheet.Carrier.Id, sheet.Kind, look.Key, form.State, form.Words?.Trim() ?? "",
                    taken.Photo, taken.Sound, Me, Clock.GetUtcNow()), form.Seen ?? "")
                : new("state", "There is no such look on this sheet.")), stop);
        return await AnswerAsync(written, $"look-{form.Key}", "_SheetLooks", stop, form);
    }

    /// <summary>The looks of a group that are still open, looked at in one go and good.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostRestAsync(Guid post, string? group, CancellationToken stop) => await AnswerAsync(
        await OnSheetAsync(post, (job, sheet) => job.Inspection.LookAtRest(sheet, group, Me, Clock.GetUtcNow()), stop), null, "_SheetLooks",
        stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostCutAsync(CutForm form, CancellationToken stop)
    {
        var taken = await uploads.TakeInAsync(form.Photo, stop);
        var written = await OnSheetAsync(form.Post, (job, sheet) => taken.Wrong("cut")
            ?? job.Inspection.Cut(new(form.Post, sheet.Carrier.Id, form.Place, form.Metal, form.Amount, form.Words?.Trim() ?? "",
                taken.Photo, Me, Clock.GetUtcNow()), form.Seen.GetValueOrDefault(form.Place) ?? ""), stop);
        return await AnswerAsync(written, "cut", null, stop, form);
    }

    /// <summary>The oil was changed, or wasn't after all.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostFillAsync(FillForm form, CancellationToken stop) => await AnswerAsync(
        await OnSheetAsync(form.Post, (job, sheet) =>
        {
            if (sheet.Kind != SheetKind.Oil)
                return new("oil", "Oil is changed on the oil sheet.");
            if (form.Not)
                return job.Inspection.NotFilled(sheet.Carrier.Id, Saying(form.Seen));
            var (fill, refusal) = OilFill.Read(sheet.Carrier.Id, form.Oil, form.Amount, form.Unit, form.Filter, Me, Clock.GetUtcNow());
            if (fill is not null)
                job.Inspection.Fill(fill, form.Seen ?? "");
            return refusal;
        }, stop), null, null, stop, form);

    /// <summary>A laboratory's table, taken in whole or not at all.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostLabAsync(Guid post, IFormFile? file, CancellationToken stop)
    {
        var (bytes, refusal) = await Uploads.ReadAsync(file, "lab", OilLabFile.MostBytes, "The file is empty.", stop);
        IReadOnlyList<OilSample>? samples = null;
        if (refusal is null)
            (samples, refusal) = OilLabFile.Read(bytes);
        var written = samples is null
            ? new(refusal)
            : await Desk.WriteAskingAsync(Id, post, async job => Find(job.Aircraft) is var (_, sheet)
            ? await Db.TakeInAsync(job.Aircraft, sheet.Carrier, samples, Me, Today, stop)
            : new("lab", "There is no such sheet on this aircraft."), stop);
        return await AnswerAsync(written, "lab", null, stop);
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostBenchedAsync(Guid post, bool done, CancellationToken stop) =>
        await AnswerAsync(await OnSheetAsync(post, (job, sheet) => sheet.Kind == SheetKind.Magneto
            ? job.Inspection.Bench(SheetWork.Of(sheet, job.Aircraft, job.Inspection), done)
            : new("benched", "Only a magneto has a bench inspection."), stop), null, null, stop);

    private Task<Written> OnSheetAsync(Guid post, Func<Job, EngineSheet, Refusal?> decide, CancellationToken stop) =>
        Desk.WriteAsync(Id, post, job => (Find(job.Aircraft)?.Sheet
            ?? EngineSheets.FindGone(job.Aircraft, Kind, Carrier, job.Inspection.TimeInService)) is { } sheet
            ? decide(job, sheet)
            : new("value", "There is no such sheet on this aircraft."), stop);

    private (Component Engine, EngineSheet Sheet)? Find(Aircraft aircraft) => aircraft.Engines
        .Select(engine => (engine.Component, Sheet: EngineSheets.Find(aircraft, engine.Component, Kind, Carrier)))
        .Where(one => one.Sheet is not null).Select(one => ((Component, EngineSheet)?)(one.Component, one.Sheet!)).FirstOrDefault();

    // A sheet says by itself which engine it is of.
    protected override Component? EngineOf(Aircraft aircraft) => Find(aircraft)?.Engine;

    private async Task<IActionResult> AnswerAsync(Written written, string? field, string? partial, CancellationToken stop,
        object? typed = null)
    {
        var byScript = Request.Headers.ContainsKey("HX-Request");
        if (written.Done && (partial is null || !byScript))
            return Redirect(Here);
        // Read before its part came off, it stands with the part, and there is no page here to show it on.
        if (written is { Done: true, Job.Aircraft: { } aircraft } && Find(aircraft) is null)
            return new NoContentResult();
        Refused? refused = written.Refusal is { } refusal
            ? new(typed, [field is null ? refusal : refusal.At(field)])
            : null;
        return !await MakeAsync(stop, refused) ? NotFound() : partial is not null && byScript ? Partial(partial, View) : Page();
    }

    protected override async Task<EngineSheetView?> ViewAsync(WalkShown walk, Component engine, Refused refused, CancellationToken stop)
    {
        if (Find(walk.Job.Aircraft) is not var (_, sheet))
            return null;
        IReadOnlyList<FilterCut> cuts = Kind != SheetKind.Oil ? []
            : [.. (await Db.FilterCutsBesideAsync(walk.Job.Aircraft.Id, Id, stop)).Where(cut => cut.EngineId == Carrier)
                .OrderByDescending(cut => cut.At)];
        return new(walk, engine, SheetWork.Of(sheet, walk.Job.Aircraft, walk.Job.Inspection), await Db.ReadOnAsync(Carrier, stop), cuts,
            [.. SheetTogether.On(sheet, walk.Job.Aircraft, engine, walk.Job.Inspection)], SentValue, Today,
            Kind == SheetKind.Oil ? await Db.LastOilFillAsync(walk.Job.Aircraft.Id, Carrier, Id, stop) : null);
    }

    // The value that was just sent, so that what is said of it comes back.
    private (string Kind, string Position)? SentValue =>
        Request.HasFormContentType && Request.Form["of"] is [{ } kind, ..] ? (kind, $"{Request.Form["position"]}") : null;
}
