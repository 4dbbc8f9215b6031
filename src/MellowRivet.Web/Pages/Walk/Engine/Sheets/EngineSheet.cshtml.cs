using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.EngineStation;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.Oil;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Files;
using MellowRivet.Web.Access;
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
}

/// <summary>A sheet of the engine station: values judged as they are typed, looks, and what they come to together.</summary>
[EnableRateLimiting("uploads")]
public sealed class EngineSheetModel(Desk desk, RivetDb db, KeptFrames frames, TimeProvider clock, PhotoFiles photos, SoundFiles sounds)
    : EnginePage(desk, db, frames, clock)
{
    [FromRoute]
    public SheetKind Kind { get; set; }

    [FromRoute]
    public Guid Carrier { get; set; }

    public SheetWork Work { get; private set; } = null!;
    public string Place => Job.Aircraft.Fitting(Carrier) is { } stay && Carrier != Engine.Id ? stay.Position : "";
    public string Self => $"/walk/{Id}/engine-sheet/{Kind.ToString().ToLowerInvariant()}/{Carrier}";
    public SheetValueForm? TypedValue { get; private set; }
    public SheetLookForm? TypedLook { get; private set; }
    public CutForm? TypedCut { get; private set; }
    public bool IsMagnetoBenched => Job.Inspection.BenchedMagnetos.Contains(Carrier);

    /// <summary>Readings of the part before this inspection and in it.</summary>
    public IReadOnlyList<Reading> All { get; private set; } = [];

    /// <summary>What was found in filters and on plugs before this inspection, latest first.</summary>
    public IReadOnlyList<FilterCut> CutsBefore { get; private set; } = [];

    /// <summary>What the values come to together, beside each one's own judgement.</summary>
    public IReadOnlyList<SheetTogether> Together { get; private set; } = [];

    /// <summary>The day, for ages.</summary>
    public DateOnly On => Today;

    public OilUse OilUse => OilUse.Of(All);

    public IReadOnlyList<OilMetal> Metals => OilMetal.Of([.. All]);

    /// <summary>The last reading of a value before this inspection.</summary>
    public Reading? LastTime(SheetValue value) =>
        All.Where(reading => reading.Kind == value.Kind && reading.Position == value.Position && reading.InspectionId != Id)
            .MaxBy(reading => reading.SeriesTime.Value);

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostValueAsync(SheetValueForm form, CancellationToken stop)
    {
        var written = await OnSheetAsync(form.Post, (job, sheet) =>
        {
            if (sheet.Values.FirstOrDefault(value => value.Kind == form.Of && value.Position == (form.Position ?? "")) is not { } value)
                return new("value", "There is no such value on this sheet.");
            var empty = string.IsNullOrWhiteSpace(form.Value);
            var typed = TypedNumber.Parse(form.Value);
            if (!empty && typed is null)
                return new("value", $"“{form.Value}” is no number.");
            return job.Inspection.Measure(form.Reading, sheet, value, typed, Unit.Find(form.Unit)
                ?? value.BandOn(job.Aircraft).Unit, User.PersonId(), Clock.GetUtcNow());
        }, stop);
        TypedValue = written.Done ? null : form;
        return await AnswerAsync(written, refusal => refusal with { Field = $"{form.Of}-{form.Position}" }, "_SheetValueSaved", stop);
    }

    /// <summary>The value that was just sent, as it stands now.</summary>
    public ValueOnSheet? Sent { get; private set; }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostLookAsync(SheetLookForm form, CancellationToken stop)
    {
        var (photo, sound, refused) = await TakeInAsync(form.Photo, form.Sound, stop);
        var written = refused is not null ? new(refused) : await OnSheetAsync(form.Post, (job, sheet) =>
            sheet.Looks.FirstOrDefault(look => look.Key == form.Key) is { } look
                ? job.Inspection.Look(sheet, look,
                    new(sheet.Carrier.Id, sheet.Kind, look.Key, form.State, form.Words?.Trim()
                        ?? "", photo, sound, User.PersonId(), Clock.GetUtcNow()))
                : new("state", "There is no such look on this sheet."), stop);
        TypedLook = written.Done ? null : form;
        return await AnswerAsync(written, refusal => refusal with { Field = $"look-{form.Key}" }, "_SheetLooks", stop);
    }

    /// <summary>The looks of a group that are still open, looked at in one go and good.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostRestAsync(Guid post, string? group, CancellationToken stop) =>
        await AnswerAsync(await OnSheetAsync(post,
            (job, sheet) => job.Inspection.LookAtRest(sheet, group, User.PersonId(), Clock.GetUtcNow()), stop), refusal => refusal,
            "_SheetLooks", stop);

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostCutAsync(CutForm form, CancellationToken stop)
    {
        var (photo, _, refused) = await TakeInAsync(form.Photo, null, stop);
        var written = refused is not null ? new(refused) : await OnSheetAsync(form.Post, (job, sheet) =>
            job.Inspection.Cut(new(form.Post, sheet.Carrier.Id, form.Place, form.Metal, form.Amount, form.Words?.Trim()
                ?? "", photo, User.PersonId(), Clock.GetUtcNow())), stop);
        TypedCut = written.Done ? null : form;
        return await AnswerAsync(written, refusal => refusal with { Field = "cut" }, null, stop);
    }

    /// <summary>A laboratory's table, taken in whole or not at all.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostLabAsync(Guid post, IFormFile? file, CancellationToken stop)
    {
        using var content = new MemoryStream();
        if (file is { Length: <= OilLabFile.MostBytes })
            await file.CopyToAsync(content, stop);
        var (samples, refusal) = file is { Length: > OilLabFile.MostBytes }
            ? (null, new("lab", $"The file is larger than {OilLabFile.MostBytes / 1024} kB."))
            : OilLabFile.Read(content.ToArray());
        var written = refusal is not null ? new(refusal) : await Desk.WriteAskingAsync(Id, post, async job => Find(job) is var (_, sheet)
            ? await Db.TakeInAsync(job.Aircraft, sheet.Carrier, samples!, User.PersonId(), Today, stop)
            : new("lab", "There is no such sheet on this aircraft."), stop);
        return await AnswerAsync(written, problem => problem with { Field = "lab" }, null, stop);
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostBenchedAsync(Guid post, bool done, CancellationToken stop) =>
        await AnswerAsync(await OnSheetAsync(post, (job, sheet) => sheet.Kind == SheetKind.Magneto
            ? job.Inspection.Bench(SheetWork.Of(sheet, job.Aircraft, job.Inspection), done)
            : new("benched", "Only a magneto has a bench inspection."), stop), refusal => refusal, null, stop);

    private Task<Written> OnSheetAsync(Guid post, Func<Job, EngineSheet, Refusal?> decide, CancellationToken stop) =>
        Desk.WriteAsync(Id, post, job => Find(job) is var (_, sheet)
            ? decide(job, sheet)
            : new("value", "There is no such sheet on this aircraft."), stop, JobParts.Engine);

    private (Component Engine, EngineSheet Sheet)? Find(Job job) =>
        job.Aircraft.Engines.Select(engine => (engine.Component, EngineSheets.Find(job.Aircraft, engine.Component, Kind, Carrier)))
        .Where(one => one.Item2 is not null).Select(one => ((Component, EngineSheet)?)(one.Component, one.Item2!)).FirstOrDefault();

    private async Task<IActionResult> AnswerAsync(Written written, Func<Refusal, Refusal> named, string? partial, CancellationToken stop)
    {
        if (written.Done && (partial is null || !Request.Headers.ContainsKey("HX-Request")))
            return Redirect(Self);
        if (!await ShowAsync(stop, written.Job))
            return NotFound();
        if (written.Refusal is { } refusal)
            Refuse(named(refusal));
        return partial is not null && Request.Headers.ContainsKey("HX-Request") ? Partial(partial, this) : Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop, Job? written = null)
    {
        if (!await LoadAsync(stop, written) || Find(Job) is not var (engine, sheet))
            return false;
        WorkOn(engine);
        Work = SheetWork.Of(sheet, Job.Aircraft, Job.Inspection);
        All = await Db.ReadOnAsync(Carrier, stop);
        if (Request.HasFormContentType && Request.Form["of"] is [{ } kind, ..])
            Sent = Work.Values.FirstOrDefault(value => value.Of.Kind == kind && value.Of.Position == Request.Form["position"]);
        if (Kind == SheetKind.Oil)
        {
            CutsBefore = [.. (await Db.FilterCutsBesideAsync(Job.Aircraft.Id, Id, stop)).Where(cut => cut.EngineId == Carrier)
                .OrderByDescending(cut => cut.At)];
        }
        Together = [.. SheetTogether.On(sheet, Job.Aircraft, Engine, Job.Inspection)];
        return true;
    }

    private async Task<(Photo?, Sound?, Refusal?)> TakeInAsync(IFormFile? photo, IFormFile? sound, CancellationToken stop)
    {
        try
        {
            Photo? picture = null;
            if (photo is { Length: > 0 })
            {
                await using var content = photo.OpenReadStream();
                var taken = await photos.TakeInAsync(content, photo.FileName, stop);
                if (taken.Refusal is { } refusal)
                    return (null, null, refusal);
                picture = taken.Photo;
            }
            if (sound is not { Length: > 0 })
                return (picture, null, null);
            await using var recorded = sound.OpenReadStream();
            var heard = await sounds.TakeInAsync(recorded, sound.FileName, stop);
            return (picture, heard.Sound, heard.Refusal);
        }
        catch (IOException)
        {
            return (null, null, new("photo", "The shop's disk didn't take the file: it may be full. Nothing was saved."));
        }
    }
}
