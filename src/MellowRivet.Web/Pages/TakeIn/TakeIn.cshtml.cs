using System.Globalization;
using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

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

    /// <summary>The hours are right, though they are many.</summary>
    public bool Sure { get; set; }

    /// <summary>It, with the worksheets that are ticked of those offered.</summary>
    public TakingIn With(IEnumerable<Worksheet> sheets) =>
        new(Kind, Hours, WorkOrder, [.. sheets.Where(sheet => Worksheets.Contains(sheet.Key))], Squawks, Sure);
}

/// <summary>An aircraft that is about to be taken in.</summary>
/// <param name="Form">What is typed so far.</param>
/// <param name="Fleet">The shop's aircraft.</param>
/// <param name="Chosen">The aircraft that was chosen, with its parts; null while none is.</param>
/// <param name="Kinds">The kinds that somebody can sign on it; on any, while none is chosen.</param>
/// <param name="Worksheets">The worksheets, the leading one first.</param>
/// <param name="Scope">What the ticked lists leave uncovered of the scope of this kind; null while no aircraft is chosen.</param>
/// <param name="Open">What earlier inspections left open on it.</param>
public sealed record TakeInView(TakeInForm Form, IReadOnlyList<FleetRow> Fleet, Aircraft? Chosen, IReadOnlyList<InspectionKind> Kinds,
    IReadOnlyList<WorksheetOffer> Worksheets, Scope? Scope, IReadOnlyList<OpenItem> Open) : PageView
{
    /// <summary>What the meter showed at last; null while no aircraft is chosen, and for one that was never read.</summary>
    public LastRead? LastRead => Chosen is null ? null : LastRead.Of(Chosen);
}

/// <summary>What the meter that time in service goes by showed at last.</summary>
public sealed record LastRead(decimal Shown, DateOnly On)
{
    public static LastRead? Of(Aircraft aircraft) => aircraft.ReadOn is { } on && aircraft.MeterOf(aircraft.TimeBasis) is { } meter
        ? new(aircraft.TimeInService.Value - meter.Offset, on)
        : null;
}

/// <summary>Takes an aircraft in: its kind of inspection, the worksheets, what the meter shows and what the owner says.</summary>
[Needs(Right.Look)]
public sealed class TakeInModel(Desk desk, RivetDb db, Shelf shelf, TimeProvider clock) : ShopPage<TakeInView>
{
    private bool untouched;

    [BindProperty]
    public TakeInForm Form { get; set; } = new();

    [Needs(Right.TakeIn)]
    public async Task<IActionResult> OnGetAsync(Guid? aircraft, InspectionKind? kind, List<string> sheets, bool ticked,
        CancellationToken stop)
    {
        var kinds = KindsOf(await ChosenAsync(aircraft, stop));
        Form = new()
        {
            Aircraft = aircraft,
            Kind = kind is { } wanted && kinds.Contains(wanted) ? wanted : kinds[0],
            Worksheets = sheets,
            WorkOrder = await NextWorkOrderAsync(stop),
        };
        // Read today already: nobody types it twice.
        if (await ChosenAsync(aircraft, stop) is { ReadOn: { } read } there && read == clock.Today())
            Form.Hours = LastRead.Of(there)?.Shown.ToString("0.0##", CultureInfo.InvariantCulture);
        untouched = !ticked;
        return await ShowAsync(stop);
    }

    [Needs(Right.TakeIn)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        var taking = Form.With(await WorksheetsAsync(stop));
        var chosen = await ChosenAsync(Form.Aircraft, stop);
        if (taking.Check(chosen, KindsOf(chosen)).Select(InForm).ToList() is [_, ..] wrong)
            return await ShowAsync(stop, new(Form, wrong));
        var house = await db.HouseRulesAsync(stop);
        var use = (await desk.Board.LineAsync(chosen!.Id, stop)).Now.Hours.Use;
        var written = await desk.WriteFileAsync(chosen.Id, Form.Post, async aircraft =>
        {
            if (await db.IsTakenAsync(taking.Order, stop))
                return new("WorkOrder", $"Work order {taking.Order} is taken.");
            if (await db.InWorkAsync(aircraft.Id, stop) is not null)
                return new("Aircraft", "Its last inspection is still in work: close that one first.");
            // In its turn: what is signed or cleared until then counts.
            var with = new BeginsWith(await db.TasksDoneAsync(aircraft.Id, clock, stop), house,
                await db.KnownMarksAsync(aircraft.Id, stop), await db.OpenItemsAsync(aircraft.Id, stop), use);
            var (inspection, refusal) = taking.Begin(Form.Post, aircraft, with, User.PersonId(), User.Initials(), clock.Today(),
                clock.GetUtcNow());
            if (inspection is not null)
                db.Put(inspection);
            return refusal;
        }, stop, meters: true);
        return written.Refusal is { } no ? await AgainAsync(InForm(no), stop, Form) : Redirect($"/walk/{Form.Post}/arrive");
    }

    private static Refusal InForm(Refusal refusal) => refusal.At("Form." + refusal.Field);

    protected override async Task<TakeInView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var fleet = await db.FleetAsync(stop);
        var sheets = await WorksheetsAsync(stop);
        if (await ChosenAsync(Form.Aircraft, stop) is not { } aircraft)
            return new(Form, fleet, null, KindsOf(null),
                [.. sheets.Select(WorksheetOffer.Of)], null, []);
        var done = await db.TasksDoneAsync(aircraft.Id, clock, stop);
        var today = clock.Today();
        var offers = WorksheetOffer.For(sheets, aircraft, Form.Kind, done, today);
        if (untouched)
            Form.Worksheets = [.. offers.Where(offer => offer.Suits).Select(offer => offer.Worksheet.Key)];
        var walk = WalkList.Merge(Form.With(offers.Select(offer => offer.Worksheet)).Worksheets, aircraft, Form.Kind, done, today);
        var scope = Scope.Of(shelf.RulesFor(aircraft.Category), Form.Kind, aircraft,
            walk.Where(line => line.Pick.IsDue).SelectMany(line => line.Task.Covers ?? []));
        return new(Form, fleet, aircraft, KindsOf(aircraft), offers, scope, await db.OpenItemsAsync(aircraft.Id, stop));
    }

    private InspectionKind[] KindsOf(Aircraft? aircraft) =>
        aircraft is null ? [.. Enum.GetValues<InspectionKind>().Where(kind => kind is not (InspectionKind.Job or InspectionKind.Survey))]
            : [.. shelf.RulesFor(aircraft.Category).KindsFor(aircraft.Category)];

    private async Task<Aircraft?> ChosenAsync(Guid? id, CancellationToken stop) =>
        id is { } chosen ? await db.AircraftAsync(chosen, stop) : null;

    private async Task<IReadOnlyList<Worksheet>> WorksheetsAsync(CancellationToken stop) =>
        [.. (await db.CurrentWorksheetsAsync(stop)).Select(edition => edition.Worksheet).Where(sheet => !sheet.IsOfSurvey)];

    private async Task<string> NextWorkOrderAsync(CancellationToken stop) =>
        TakingIn.NextOrder(clock.Today(), await db.WorkOrdersAsync(TakingIn.OrdersOf(clock.Today()), stop));
}
