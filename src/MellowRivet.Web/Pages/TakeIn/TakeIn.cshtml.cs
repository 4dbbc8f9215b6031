using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Measures;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.TakeIn;

/// <summary>What it takes to take an aircraft in and begin its walk.</summary>
public sealed class TakeInForm
{
    public Guid Post { get; set; } = Guid.CreateVersion7();
    public Guid? Aircraft { get; set; }
    public string? Hours { get; set; }
    public InspectionKind Kind { get; set; }
    public List<string> Worksheets { get; set; } = [];
    public string? WorkOrder { get; set; }

    /// <summary>The owner's complaints, one to a line.</summary>
    public string? Squawks { get; set; }
}

/// <summary>A worksheet as it is offered: what of it would be due now.</summary>
public sealed record Offer(Worksheet Sheet, bool Suits, int Due, int Of);

[Needs(Right.Look)]
public sealed class TakeInModel(Desk desk, RivetDb db, Shelf shelf, TimeProvider clock) : PageModel
{
    [BindProperty]
    public TakeInForm Form { get; set; } = new();

    public IReadOnlyList<FleetRow> Fleet { get; private set; } = [];
    public IReadOnlyList<Offer> Worksheets { get; private set; } = [];

    /// <summary>The kinds that somebody can sign on the chosen aircraft; on any, while none is chosen.</summary>
    public IEnumerable<InspectionKind> Kinds => Chosen is { } chosen
        ? shelf.RulesFor(chosen.Category).KindsFor(chosen.Category)
        : Enum.GetValues<InspectionKind>();

    /// <summary>What the ticked lists leave uncovered of the scope of this kind; null while no aircraft is chosen.</summary>
    public Scope? Scope { get; private set; }

    /// <summary>What earlier inspections left open on the chosen aircraft.</summary>
    public IReadOnlyList<OpenItem> Open { get; private set; } = [];

    /// <summary>The aircraft that was chosen, with its parts; null while none is.</summary>
    public Aircraft? Chosen { get; private set; }

    [Needs(Right.TakeIn)]
    public async Task OnGetAsync(Guid? aircraft, InspectionKind? kind, List<string> sheets, bool ticked, CancellationToken stop)
    {
        Form.Aircraft = aircraft;
        await LoadAsync(stop);
        Form.Kind = kind is { } wanted && Kinds.Contains(wanted) ? wanted : Kinds.First();
        await OfferAsync(stop);
        Form.Worksheets = ticked ? sheets : [.. Worksheets.Where(offer => offer.Suits).Select(offer => offer.Sheet.Key)];
        await LookAheadAsync(stop);
        Form.WorkOrder = await NextWorkOrderAsync(stop);
    }

    [Needs(Right.TakeIn)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        await LoadAsync(stop);
        await OfferAsync(stop);
        await LookAheadAsync(stop);
        var today = clock.Today();
        var order = Form.WorkOrder?.Trim();
        if (Chosen is null)
            Refuse("Aircraft", "Choose the aircraft. One that was never here gets its file first.");
        else if (!Kinds.Contains(Form.Kind))
            Refuse("Kind",
                $"On an aircraft of category {Chosen.Category.InWords()} nobody signs a {Form.Kind.InWords()} by the rule pack. There "
                + $"are: {string.Join(", ", Kinds.Select(kind => kind.InWords()))}.");
        if (TypedNumber.ParseHours(Form.Hours) is not { } shown)
        {
            Refuse("Hours", "Type the hours the meter shows: 4318.6.");
            shown = default;
        }
        if (string.IsNullOrEmpty(order) || order.Length > 20)
            Refuse("WorkOrder", "A work order of up to 20 characters.");
        var sheets = Worksheets.Select(offer => offer.Sheet).Where(sheet => Form.Worksheets.Contains(sheet.Key)).ToList();
        if (sheets.Count == 0)
            Refuse("Worksheets", "Tick at least one worksheet: its tasks are the walk.");
        if (!ModelState.IsValid)
            return Page();

        var id = Form.Post;
        var house = await db.HouseRulesAsync(stop);
        var written = await desk.WriteFileAsync(Chosen!.Id, Form.Post, async aircraft =>
        {
            if (await db.IsTakenAsync(order!, stop))
                return new("WorkOrder", $"Work order {order} is taken.");
            if (await db.InWorkAsync(aircraft.Id, stop) is not null)
                return new("Aircraft", "Its last inspection is still in work: close that one first.");
            if (aircraft.ReadMeter(aircraft.TimeBasis, today, shown.Value, User.Initials()) is { } meter)
                return new("Hours", meter.Field == MeterFault.Backwards
                    ? $"{meter.Message} If it was, note that under Times first."
                    : meter.Message);
            // In its turn: what is signed or cleared until then counts.
            var inspection = new Inspection(id, aircraft, Form.Kind, order!, sheets, today,
                await db.TasksDoneAsync(aircraft.Id, clock, stop), house, await db.KnownMarksAsync(aircraft.Id, stop),
                await db.OpenItemsAsync(aircraft.Id, stop));
            if (inspection.Tasks.Count == 0)
                return new("Worksheets", "Nothing of these worksheets is due now. Tick another one.");
            foreach (var words in (Form.Squawks ?? "").Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
                if (inspection.Hear(Guid.CreateVersion7(), words, User.PersonId(), clock.GetUtcNow()) is { } squawk)
                    return new("Squawks", squawk.Message);
            db.Put(inspection);
            return null;
        }, stop, meters: true);
        if (written.Done)
            return Redirect($"/walk/{id}/arrive");
        Refuse(written.Refusal!.Field, written.Refusal.Message);
        return Page();
    }

    // The leading list comes first: one that suits before one that doesn't, the longest before shorter ones.
    private async Task OfferAsync(CancellationToken stop)
    {
        var sheets = (await db.CurrentWorksheetsAsync(stop)).Select(edition => edition.Sheet);
        if (Chosen is not { } aircraft)
        {
            Worksheets = [.. sheets.Select(sheet => new Offer(sheet, false, sheet.Tasks.Count(), sheet.Tasks.Count()))];
            return;
        }
        var today = clock.Today();
        var done = await db.TasksDoneAsync(aircraft.Id, clock, stop);
        Worksheets = [.. sheets.Select(sheet =>
        {
            var walk = WalkList.Merge([sheet], aircraft, Form.Kind, done, today);
            return new Offer(sheet, sheet.IsOfferedFor(aircraft, Form.Kind), walk.Count(line => line.Pick.IsDue), walk.Count);
        }).OrderByDescending(offer => offer.Suits).ThenByDescending(offer => offer.Of)];
    }

    private async Task LookAheadAsync(CancellationToken stop)
    {
        if (Chosen is not { } aircraft)
            return;
        var walk = WalkList.Merge([.. Worksheets.Select(offer => offer.Sheet).Where(sheet => Form.Worksheets.Contains(sheet.Key))],
            aircraft, Form.Kind, await db.TasksDoneAsync(aircraft.Id, clock, stop), clock.Today());
        Scope = Scope.Of(shelf.RulesFor(aircraft.Category), Form.Kind, aircraft, walk.Where(line => line.Pick.IsDue)
            .SelectMany(line => line.Task.Covers ?? []));
        Open = await db.OpenItemsAsync(aircraft.Id, stop);
    }

    private async Task LoadAsync(CancellationToken stop)
    {
        Fleet = await db.FleetAsync(stop);
        Chosen = Form.Aircraft is { } chosen ? await db.AircraftAsync(chosen, stop) : null;
    }

    // One above the highest of this year; a shop that numbers its work otherwise types its own.
    private async Task<string> NextWorkOrderAsync(CancellationToken stop)
    {
        var year = $"{clock.Today():yy}-";
        var taken = await db.WorkOrdersAsync(year, stop);
        return year + (taken.Select(order => int.TryParse(order[year.Length..], out var number) ? number : 0).DefaultIfEmpty(100)
            .Max() + 1);
    }

    private void Refuse(string field, string message) => ModelState.AddModelError("Form." + field, message);
}
