using MellowRivet.Core.Amendments;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Times;

/// <summary>A meter reading as it is sent.</summary>
public sealed class MeterForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public MeterKind Kind { get; set; }
    public DateOnly? On { get; set; }
    public string? Shown { get; set; }
    public bool Replaced { get; set; }
    public string? LastShown { get; set; }
    public string? FirstShown { get; set; } = "0";

    public TypedMeterReading ToReading() => new(Kind, On, Shown, Replaced ? new(LastShown, FirstShown) : null);
}

/// <summary>A file of readings as it is sent: first the file, then its text with what each column holds.</summary>
public sealed class ImportForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public IFormFile? File { get; set; }
    public string? Name { get; set; }
    public string? Text { get; set; }
    public int? Date { get; set; }
    public string? Format { get; set; }
    public int? Tach { get; set; }
    public int? HourMeter { get; set; }
    public int? Landings { get; set; }
    public int? Cycles { get; set; }
    public List<int> ReplacedAt { get; set; } = [];

    public TimesColumns Columns
    {
        get
        {
            var meters = new Dictionary<MeterKind, int>();
            foreach (var (kind, column) in new[]
                { (MeterKind.Tach, Tach), (MeterKind.HourMeter, HourMeter), (MeterKind.Landings, Landings), (MeterKind.Cycles, Cycles) })
                if (column is { } chosen and >= 0)
                    meters[kind] = chosen;
            return new(Math.Max(0, Date ?? 0), TimesFile.DateFormats.Contains(Format) ? Format! : TimesFile.DateFormats[0], meters);
        }
    }

    /// <summary>The file that was sent first, as it goes along with the questions about it.</summary>
    public byte[] Bytes
    {
        get
        {
            var bytes = new byte[Text?.Length ?? 0];
            return Convert.TryFromBase64String(Text ?? "", bytes, out var written) ? bytes[..written] : [];
        }
    }

    public void Take(TimesColumns columns)
    {
        (Date, Format) = (columns.Date, columns.DateFormat);
        int? Of(MeterKind kind) => columns.Meters.TryGetValue(kind, out var column) ? column : null;
        (Tach, HourMeter, Landings, Cycles) = (Of(MeterKind.Tach), Of(MeterKind.HourMeter), Of(MeterKind.Landings), Of(MeterKind.Cycles));
    }
}

/// <summary>A file of readings, and what it comes to.</summary>
/// <param name="File">The file.</param>
/// <param name="Form">What each column holds.</param>
/// <param name="Check">What it comes to by that.</param>
public sealed record SentTimes(TimesFile File, ImportForm Form, TimesCheck Check);

/// <summary>What the meters of an aircraft showed.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Readings">A page of the readings, latest first.</param>
/// <param name="Use">How much it flies; null before two readings on different days.</param>
/// <param name="Sent">A file that is looked at; null for none.</param>
/// <param name="Amended">Readings that were put right, latest first.</param>
public sealed record TimesView(FileShown File, ListPage<MeterReading> Readings, Utilisation? Use, SentTimes? Sent,
    IReadOnlyList<Amendment> Amended)
    : FileView(File)
{
    public override FilePage At => FilePage.Times;

    /// <summary>The form of a reading: as typed where it was refused, else of today.</summary>
    public MeterForm Reading => Typed<MeterForm>() ?? new() { Kind = Aircraft.TimeBasis, On = Today };

    /// <summary>What was typed to put a reading right, where it wasn't taken; null for another reading.</summary>
    public AmendForm? TypedFor(MeterReading reading) => Typed<AmendForm>() is { } form && form.Subject == reading.Id ? form : null;

    /// <summary>The reading goes back: was the meter replaced?</summary>
    public bool AsksReplaced => Problem(MeterFault.Backwards, "lastShown", "firstShown") is not null;
}

/// <summary>What the meters showed, day by day: typed, or taken in from a file after it was checked whole.</summary>
public sealed class TimesModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage<TimesView>(desk, db, clock)
{
    private const int MostLines = 60;

    private (TimesFile File, ImportForm Form)? looked;

    /// <summary>Which page of the readings, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostReadAsync(MeterForm form, CancellationToken stop) =>
        AfterAsync(Desk.WriteFileAsync(Id, form.Post,
            aircraft => Task.FromResult(form.ToReading().Take(aircraft, Today, User.Initials())), stop, meters: true),
            HrefOf(FilePage.Times), stop, form);

    /// <summary>Puts a mistyped reading right, or strikes it.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAmendAsync(AmendForm form, CancellationToken stop)
    {
        var shown = TypedNumber.ParseHours(form.Value);
        if (!form.Strike && shown is null)
            return await AgainAsync(new("amendShown", MeasureText.Read(form.Value, Unit.Hour).Problem
                ?? "What the meter showed, as a figure: 4318.6."), stop, form);
        return await AfterAsync(Desk.PutMeterRightAsync(Id, form.Subject, form.On, form.Strike ? null : shown!.Value.Value,
            form.By(User, Clock), stop), HrefOf(FilePage.Times), stop, form);
    }

    /// <summary>Shows what a file holds and what it comes to; keeps nothing.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostLookAsync(ImportForm form, CancellationToken stop)
    {
        if (form.File is not null || string.IsNullOrEmpty(form.Text))
        {
            var (bytes, wrong) = await Uploads.ReadAsync(form.File, "file", TimesFile.MostBytes, "Choose a file.", stop);
            if (wrong is not null)
                return await AgainAsync(wrong, stop);
            (form.Text, form.Name, form.Date) = (Convert.ToBase64String(bytes), form.File!.FileName, null);
        }
        var (file, refusal) = TimesFile.Read(form.Bytes);
        if (file is null)
            return await AgainAsync(refusal!, stop);
        if (form.Date is null)
            form.Take(file.Guess());
        form.Post = Guid.CreateVersion7();
        looked = (file, form);
        return await ShowAsync(stop);
    }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostTakeAsync(ImportForm form, CancellationToken stop)
    {
        var (file, refusal) = TimesFile.Read(form.Bytes);
        if (file is null)
            return await AgainAsync(refusal!, stop);
        looked = (file, form);
        return await AfterAsync(Desk.WriteFileAsync(Id, form.Post, aircraft =>
        {
            var check = TimesImport.Check(file, form.Columns, aircraft, form.ReplacedAt, Today);
            return Task.FromResult(TimesImport.Take(aircraft, check, form.Name));
        }, stop, meters: true), HrefOf(FilePage.Times), stop);
    }

    protected override async Task<TimesView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop)
    {
        var total = await Db.CountTimesAsync(Id, stop);
        var (at, pages) = ListPage.At(total, PageTyped, MostLines);
        ListPage<MeterReading> readings = new(await Db.LatestTimesAsync(Id, (at - 1) * MostLines, MostLines, stop), at, pages, total);
        var use = (await Desk.Board.LineAsync(Id, stop)).Now.Hours.Use;
        var amended = (await Db.AmendmentsOfAsync(Id, stop)).Where(amendment => amendment.Of == AmendmentOf.Meter).ToList();
        return new(file, readings, use, looked is not var (sent, form) ? null
            : new(sent, form, TimesImport.Check(sent, form.Columns, await Db.WithMetersAsync(Id, stop), form.ReplacedAt, Today)),
            amended);
    }
}
