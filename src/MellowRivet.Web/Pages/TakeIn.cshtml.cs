using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Pages;

/// <summary>What it takes to take an aircraft in and begin its walk.</summary>
public sealed class TakeInForm
{
    public Guid? Known { get; set; }
    public string? Registration { get; set; }
    public string? Serial { get; set; }
    public string? Type { get; set; }
    public Category Category { get; set; }
    public Wing Wing { get; set; }
    public Gear Gear { get; set; }
    public int Seats { get; set; } = 2;
    public string Layout { get; set; } = EngineLayout.FlatFour.Key;
    public int Engines { get; set; } = 1;
    public CompressionSchool School { get; set; }
    public string? EngineSerial { get; set; }
    public string? PropellerSerial { get; set; }
    public string? Hours { get; set; }
    public InspectionKind Kind { get; set; }
    public string? Worksheet { get; set; }
    public string? WorkOrder { get; set; }
}

public sealed class TakeInModel(RivetDb db, Shelf shelf, TimeProvider clock) : PageModel
{
    [BindProperty]
    public TakeInForm Form { get; set; } = new();

    public IReadOnlyList<Aircraft> Fleet { get; private set; } = [];
    public IReadOnlyList<Worksheet> Worksheets => shelf.Worksheets;

    [Needs(Right.TakeIn)]
    public async Task OnGetAsync(CancellationToken stop)
    {
        Fleet = await db.Aircraft.AsNoTracking().OrderBy(aircraft => aircraft.Registration).ToListAsync(stop);
        if (HttpMethods.IsGet(Request.Method))
            Form.WorkOrder = await NextWorkOrderAsync(stop);
    }

    [Needs(Right.TakeIn)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        var today = DateOnly.FromDateTime(clock.GetLocalNow().DateTime);
        var hours = TypedNumber.ParseHours(Form.Hours);
        if (hours is null)
            Refuse("Hours", "Type the hours the tach shows: 4318.6.");
        if (string.IsNullOrWhiteSpace(Form.WorkOrder) || Form.WorkOrder.Trim().Length > 20)
            Refuse("WorkOrder", "A work order of up to 20 characters.");
        else if (await db.Inspections.AnyAsync(other => other.WorkOrder == Form.WorkOrder.Trim(), stop))
            Refuse("WorkOrder", $"Work order {Form.WorkOrder.Trim()} is taken.");

        var aircraft = Form.Known is { } known
            ? await db.Aircraft.Include(row => row.Components).FirstOrDefaultAsync(row => row.Id == known, stop)
            : await NewAircraftAsync(hours, stop);
        if (aircraft is not null && await db.Inspections.AnyAsync(other => other.AircraftId == aircraft.Id && other.State == InspectionState.InWork, stop))
            Refuse("Known", "Its last inspection is still in work: close that one first.");
        if (aircraft is not null && hours is { } read && ModelState.IsValid)
            Note(aircraft, today, read);
        if (!ModelState.IsValid || aircraft is null)
        {
            await OnGetAsync(stop);
            return Page();
        }

        var worksheet = shelf.Worksheets.FirstOrDefault(sheet => sheet.Key == Form.Worksheet) ?? shelf.Worksheets[0];
        var inspection = new Inspection(Guid.CreateVersion7(), aircraft, Form.Kind, Form.WorkOrder!.Trim(), worksheet, today);
        if (Form.Known is null)
            db.Aircraft.Add(aircraft);
        db.Inspections.Add(inspection);
        await db.SaveChangesAsync(stop);
        return Redirect($"/walk/{inspection.Id}");
    }

    // One above the highest of this year; a shop that numbers its work otherwise types its own.
    private async Task<string> NextWorkOrderAsync(CancellationToken stop)
    {
        var year = $"{clock.GetLocalNow():yy}-";
        var taken = await db.Inspections.Where(other => other.WorkOrder.StartsWith(year)).Select(other => other.WorkOrder).ToListAsync(stop);
        return year + (taken.Select(order => int.TryParse(order[year.Length..], out var number) ? number : 0).DefaultIfEmpty(100).Max() + 1);
    }

    private void Note(Aircraft aircraft, DateOnly today, Hours read)
    {
        try
        {
            aircraft.ReadTime(today, read);
        }
        catch (ArgumentException backwards)
        {
            Refuse("Hours", backwards.Message.Split(" (Parameter")[0]);
        }
    }

    private async Task<Aircraft?> NewAircraftAsync(Hours? hours, CancellationToken stop)
    {
        Want("Registration", Form.Registration, 12, "The registration as painted on the aircraft.");
        Want("Serial", Form.Serial, 40, "The airframe's serial number, off its data plate.");
        Want("Type", Form.Type, 60, "What kind of aircraft it is.");
        Want("EngineSerial", Form.EngineSerial, 40, "The engine's serial number, off its data plate.");
        Want("PropellerSerial", Form.PropellerSerial, 40, "The propeller's serial number.");
        if (Form.Seats is < 1 or > 20)
            Refuse("Seats", "From 1 to 20 seats.");
        if (await db.Aircraft.AnyAsync(other => other.Registration == Form.Registration!.Trim(), stop))
            Refuse("Registration", $"{Form.Registration!.Trim()} has been here: choose it above.");
        if (!ModelState.IsValid || EngineLayout.All.All(layout => layout.Key != Form.Layout))
            return null;

        var now = hours ?? default;
        var aircraft = new Aircraft(Guid.CreateVersion7(), Form.Registration!.Trim(), Form.Type!.Trim(), Form.Serial!.Trim(), Form.Category,
            new(Form.Wing, Form.Gear, Form.Engines is 2 ? 2 : 1, Form.Seats));
        foreach (var position in aircraft.Configuration.Engines == 2 ? new[] { "left", "right" } : [""])
        {
            var suffix = position == "right" ? " (right)" : "";
            var engine = new Component(Guid.CreateVersion7(), ComponentKind.Engine, position, "", Form.EngineSerial!.Trim() + suffix, now, now) { LayoutKey = Form.Layout };
            engine.JudgeCompressionBy(new(Form.School));
            aircraft.InstallEngine(engine);
            aircraft.Install(new(Guid.CreateVersion7(), ComponentKind.Propeller, position, "", Form.PropellerSerial!.Trim() + suffix, now, now));
        }
        return aircraft;
    }

    private void Want(string field, string? value, int longest, string message)
    {
        if (string.IsNullOrWhiteSpace(value) || value.Trim().Length > longest)
            Refuse(field, message);
    }

    private void Refuse(string field, string message) => ModelState.AddModelError("Form." + field, message);
}
