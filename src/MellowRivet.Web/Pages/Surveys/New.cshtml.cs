using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Surveys;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Fleet.DataPlate;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Surveys;

/// <summary>A survey that is about to begin.</summary>
/// <param name="Plate">The data plate of one that was never here.</param>
/// <param name="Terms">What is agreed.</param>
/// <param name="Aircraft">The one that is here; null for one that was never.</param>
/// <param name="Fleet">Those that are, or were only surveyed.</param>
/// <param name="Post">Under what it is sent, once.</param>
/// <param name="Money">The shop's money.</param>
/// <param name="Types">The models that are known.</param>
public sealed record NewSurveyView(AircraftForm Plate, TypedTerms Terms, Guid? Aircraft, IReadOnlyList<FleetRow> Fleet, Guid Post,
    string Money, TypeList Types) : PageView;

/// <summary>Begins a survey, of an aircraft that is here or of one that was never: that one gets a light file.</summary>
[Needs(Right.TakeIn)]
public sealed class NewSurveyModel(RivetDb db, Shelf shelf, TimeProvider clock) : ShopPage<NewSurveyView>
{
    [BindProperty]
    public AircraftForm Form { get; set; } = new() { Shown = "" };

    [BindProperty]
    public Guid Post { get; set; } = Guid.CreateVersion7();

    [BindProperty]
    public Guid? Aircraft { get; set; }

    private TypedTerms terms = new(null, null, null, null, null, null, null, null, null);

    [Needs(Right.TakeIn)]
    public async Task<IActionResult> OnGetAsync(Guid? aircraft, CancellationToken stop)
    {
        Aircraft = aircraft;
        return await ShowAsync(stop);
    }

    [Needs(Right.TakeIn)]
    public async Task<IActionResult> OnPostAsync(TypedTerms typed, CancellationToken stop)
    {
        ModelState.Clear();
        terms = typed;
        var (agreed, refusals) = typed.Read();
        var wrong = refusals.ToList();
        if (Aircraft is null)
            wrong.AddRange(await WrongPlateAsync(stop));
        if (wrong.Count > 0 || agreed is null)
            return await ShowAsync(stop, new(Form, wrong));
        var written = await db.OnceAsync(Post, clock, () => BeginAsync(agreed, stop), stop);
        db.Forget();
        return await AfterAsync(written, $"/walk/{Post}/order", stop, Form);
    }

    private async Task<IEnumerable<Refusal>> WrongPlateAsync(CancellationToken stop)
    {
        // What nobody can read off, or nobody asks for, is what it usually is in a light file; the walk finds it out.
        var usual = Form.Layout == EngineLayout.InlineTwoStroke.Key ? IgnitionKind.HighEnergy : IgnitionKind.Magneto;
        (Form.Top, Form.Bottom) = (usual, usual);
        Form.EngineSerial = string.IsNullOrWhiteSpace(Form.EngineSerial) ? "not read yet" : Form.EngineSerial;
        if (Form.Engines == 2)
            Form.RightEngineSerial = string.IsNullOrWhiteSpace(Form.RightEngineSerial) ? "not read yet" : Form.RightEngineSerial;
        var wrong = Form.Problems().ToList();
        var registration = Form.Registration?.Trim();
        if (wrong.Count == 0 && await db.RegisteredAsync(registration!, stop) is not null)
            wrong.Add(new("Form.Registration", $"{registration} has a file here already: choose it above."));
        return wrong;
    }

    private async Task<Refusal?> BeginAsync(SurveyTerms agreed, CancellationToken stop)
    {
        var today = clock.Today();
        Aircraft? about;
        if (Aircraft is { } here)
        {
            about = await db.AircraftToChangeAsync(here, stop);
            if (about is null)
                return new("Aircraft", "Choose the aircraft, or type its data plate.");
            if (await db.SurveyUnderWayAsync(here, stop) is { } survey)
                return new("Aircraft", $"Its survey {survey.WorkOrder} is under way: go on with that, or end it first.");
            if (await db.InWorkAsync(here, stop) is { } work)
                return new("Aircraft",
                    $"Its {work.Kind.InFull()} {work.WorkOrder} is in work: what it finds stands there. Close that one first.");
        }
        else
        {
            if (await NameModelsAsync(stop) is { } open)
                return open;
            about = db.Put(Form.Make(today, User.Initials()));
            about.ForSurvey();
            db.PutAll(shelf.DueStarters.Where(starter => starter.Key is "engine-overhaul" or "propeller-overhaul")
                .SelectMany(starter => starter.For(about)));
        }
        var sheets = (await db.CurrentWorksheetsAsync(stop)).Select(edition => edition.Worksheet)
            .Where(sheet => sheet.IsOfSurvey && sheet.IsOfferedFor(about, InspectionKind.Survey))
            .OrderByDescending(sheet => sheet.Tasks.Count()).ToList();
        if (sheets.Count == 0)
            return new("Aircraft", "No worksheet of a survey on the Shelf is for such an aircraft: publish one first.");
        var order = TakingIn.NextOrder(today, await db.WorkOrdersAsync(TakingIn.OrdersOf(today), stop));
        db.Put(new Inspection(Post, about, order, sheets, new Survey(agreed, shelf.Surveys), today, await db.HouseRulesAsync(stop),
            Aircraft is { } known ? await db.OpenItemsAsync(known, stop) : []));
        return null;
    }

    // The models go on file by the list's own names; where it knows none, the question is put.
    private async Task<Refusal?> NameModelsAsync(CancellationToken stop)
    {
        var (type, open) = await db.NameOfAsync(TypeKind.Aircraft, Form.Type,
            TypeAnswer.Of(Form.TypeMeans, Form.TypeMaker, Form.TypeMeansAbout), "Form.Type", stop);
        Form.Type = type;
        return open;
    }

    protected override async Task<NewSurveyView?> ViewAsync(Refused refused, CancellationToken stop) =>
        new(Form, terms, Aircraft, await db.EveryAircraftAsync(stop), Post, (await db.HouseRulesAsync(stop)).Money,
            await db.TypeListAsync(stop));
}
