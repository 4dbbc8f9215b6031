using System.Text;
using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
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

    public void Take(TimesColumns columns)
    {
        (Date, Format) = (columns.Date, columns.DateFormat);
        int? Of(MeterKind kind) => columns.Meters.TryGetValue(kind, out var column) ? column : null;
        (Tach, HourMeter, Landings, Cycles) = (Of(MeterKind.Tach), Of(MeterKind.HourMeter), Of(MeterKind.Landings), Of(MeterKind.Cycles));
    }
}

/// <summary>What the meters showed, day by day: typed, or taken in from a file after it was checked whole.</summary>
public sealed class TimesModel(Desk desk, RivetDb db, TimeProvider clock) : FleetPage(desk, db, clock)
{
    private const int Shown = 60;

    public override FileSheet At => FileSheet.Times;

    public IReadOnlyList<MeterReading> Readings { get; private set; } = [];
    public int Total { get; private set; }
    public Utilisation? Use { get; private set; }
    public MeterForm Typed { get; private set; } = new();
    public bool AsksReplaced { get; private set; }
    public ImportForm Import { get; private set; } = new();
    public TimesFile? Sent { get; private set; }
    public TimesCheck? Check { get; private set; }

    public bool MayRecord => User.May(Right.RecordWork);

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        Typed = new() { Kind = Aircraft.TimeBasis, On = Today };
        return Page();
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostReadAsync(MeterForm form, CancellationToken stop)
    {
        Refusal? asked = null;
        var written = await Desk.WriteFileAsync(Id, form.Post, aircraft => Task.FromResult(asked = Read(aircraft, form)), stop,
            meters: true);
        return await AfterAsync(written, HrefOf(At), async () =>
        {
            (Typed, AsksReplaced) = (form, asked?.Field is MeterFault.Backwards or "lastShown" or "firstShown");
            return await ShowAsync(stop);
        });
    }

    /// <summary>Shows what a file holds and what it comes to; keeps nothing.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostLookAsync(ImportForm form, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        if (form.File is { Length: <= TimesFile.MostBytes } sent)
        {
            using var buffer = new MemoryStream();
            await sent.CopyToAsync(buffer, stop);
            (form.Text, form.Name) = (Convert.ToBase64String(buffer.ToArray()), sent.FileName);
            form.Date = null;
        }
        else if (form.File is not null)
            Refuse(new("file", $"The file is larger than {TimesFile.MostBytes / 1024 / 1024} MB. Send the years one by one."));
        Typed = new() { Kind = Aircraft.TimeBasis, On = Today };
        await LookAsync(form, stop);
        return Page();
    }

    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostTakeAsync(ImportForm form, CancellationToken stop)
    {
        var written = await Desk.WriteFileAsync(Id, form.Post, aircraft =>
        {
            var (file, refusal) = TimesFile.Read(Bytes(form));
            if (file is null)
                return Task.FromResult<Refusal?>(refusal);
            var check = TimesImport.Check(file, form.Columns, aircraft, form.ReplacedAt, Today);
            if (!check.MayTake)
                return Task.FromResult<Refusal?>(new("file", "There are questions left: nothing was taken in."));
            TimesImport.Take(aircraft, check, Short(form.Name));
            return Task.FromResult<Refusal?>(null);
        }, stop, meters: true);
        return await AfterAsync(written, HrefOf(At), async () =>
        {
            var shown = await ShowAsync(stop);
            await LookAsync(form, stop);
            return shown;
        });
    }

    private static Refusal? Read(Aircraft aircraft, MeterForm form, DateOnly today, string by)
    {
        if (form.On is not { } on || on > today)
            return new("on", "The day it was read, not one to come.");
        if (TypedNumber.ParseHours(form.Shown) is not { } shown)
            return new("shown", "What the meter shows, as a figure: 4318.6.");
        MeterReplacement? replaced = null;
        if (form.Replaced)
        {
            if (TypedNumber.ParseHours(form.LastShown) is not { } last)
                return new("lastShown", "What the old one showed when it came off.");
            if (TypedNumber.ParseHours(form.FirstShown) is not { } first)
                return new("firstShown", "What the new one showed when it was fitted; usually 0.");
            replaced = new(last.Value, first.Value);
        }
        return Enum.IsDefined(form.Kind) ? aircraft.ReadMeter(form.Kind, on, shown.Value, by, replaced) : new("shown", "Choose a meter.");
    }

    private Refusal? Read(Aircraft aircraft, MeterForm form) => Read(aircraft, form, Today, User.Initials());

    private async Task LookAsync(ImportForm form, CancellationToken stop)
    {
        Import = form;
        if (string.IsNullOrEmpty(form.Text))
        {
            if (ModelState.IsValid)
                Refuse(new("file", "Choose a file."));
            return;
        }
        var (file, refusal) = TimesFile.Read(Bytes(form));
        if (file is null)
        {
            Refuse(refusal!);
            return;
        }
        Sent = file;
        if (form.Date is null)
            form.Take(file.Guess());
        var aircraft = await Db.WithMetersAsync(Id, stop);
        Check = TimesImport.Check(file, form.Columns, aircraft, form.ReplacedAt, Today);
        form.Post = Guid.CreateVersion7();
    }

    private static byte[] Bytes(ImportForm form)
    {
        try
        {
            return Convert.FromBase64String(form.Text ?? "");
        }
        catch (FormatException)
        {
            return [];
        }
    }

    private static string Short(string? name)
    {
        var plain = new StringBuilder();
        foreach (var letter in name ?? "")
            plain.Append(char.IsControl(letter) ? ' ' : letter);
        return plain.Length > 60 ? plain.ToString(0, 60) + "…" : plain.Length == 0 ? "a file" : plain.ToString();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        (Total, Readings) = await Db.LatestTimesAsync(Id, Shown, stop);
        Use = (await Desk.Board.LineAsync(Id, stop)).Now.Hours.Use;
        return true;
    }
}
