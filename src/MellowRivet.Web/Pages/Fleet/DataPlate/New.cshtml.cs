using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Fleet.DataPlate;

/// <summary>Makes an aircraft's file, from nothing or like one that is here.</summary>
[Needs(Right.Look)]
public sealed class NewModel(RivetDb db, Shelf shelf, TimeProvider clock) : PageModel
{
    [BindProperty]
    public AircraftForm Form { get; set; } = new();

    [BindProperty]
    public Guid Post { get; set; } = Guid.CreateVersion7();

    public IReadOnlyList<FleetRow> Fleet { get; private set; } = [];
    public TypeList Types { get; private set; } = TypeList.Empty;

    /// <summary>What usually falls due on such an aircraft, whatever the form says so far.</summary>
    public IReadOnlyList<DueStarter> Offered => [.. shelf.DueStarters.Where(starter =>
        (starter.Categories.Count == 0 || starter.Categories.Contains(Form.Category))
            && (starter.Layouts.Count == 0 || starter.Layouts.Contains(Form.Layout))
        && starter.On is null or ComponentKind.Engine or ComponentKind.Propeller or ComponentKind.Magneto)];

    [Needs(Right.KeepFile)]
    public async Task OnGetAsync(Guid? from, CancellationToken stop)
    {
        await LoadAsync(stop);
        if (from is { } like && await db.AircraftAsync(like, stop) is { } model)
            Form.CopyFrom(model);
    }

    /// <summary>The drawing and what falls due, as the choices stand; keeps nothing.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnGetDrawAsync()
    {
        await TryUpdateModelAsync(Form, "Form");
        return Partial("_Drawn", this);
    }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        ModelState.Clear();
        foreach (var problem in Form.Check())
            ModelState.AddModelError("Form." + problem.Field, problem.Message);
        var registration = Form.Registration?.Trim();
        if (ModelState.IsValid && await db.RegisteredAsync(registration!, stop) is not null)
            ModelState.AddModelError("Form.Registration", $"{registration} has a file here already.");
        if (!ModelState.IsValid)
        {
            await LoadAsync(stop);
            return Page();
        }
        Aircraft? aircraft = null;
        var written = await db.OnceAsync(Post, clock, async () =>
        {
            if (await NameModelsAsync(stop) is { } open)
                return open;
            aircraft = db.Put(Form.Make(clock.Today(), User.Initials()));
            db.PutAll(Offered.Where(starter => Form.Starters.Contains(starter.Key)).SelectMany(starter => starter.For(aircraft)));
            return null;
        }, stop);
        if (written.Done)
            return Redirect(written.Repeated ? "/" : $"/aircraft/{aircraft!.Id}");
        db.Forget();
        ModelState.AddModelError(written.Refusal!.Field, written.Refusal.Message);
        await LoadAsync(stop);
        return Page();
    }

    // The models go on file by the list's own names; where it knows none, the question is put.
    private async Task<Refusal?> NameModelsAsync(CancellationToken stop)
    {
        var (type, first) = await db.NameOfAsync(TypeKind.Aircraft, Form.Type,
            TypeAnswer.Of(Form.TypeMeans, Form.TypeMaker, Form.TypeMeansAbout), "Form.Type", stop);
        var (engine, second) = await db.NameOfAsync(TypeKind.Engine, Form.EnginePart,
            TypeAnswer.Of(Form.EngineMeans, Form.EngineMaker, Form.EngineMeansAbout), "Form.EnginePart", stop);
        var (propeller, third) = await db.NameOfAsync(TypeKind.Propeller, Form.PropellerPart,
            TypeAnswer.Of(Form.PropellerMeans, Form.PropellerMaker, Form.PropellerMeansAbout), "Form.PropellerPart", stop);
        if ((first ?? second ?? third) is { } open)
            return open;
        (Form.Type, Form.EnginePart, Form.PropellerPart) = (type, engine, propeller);
        return null;
    }

    private async Task LoadAsync(CancellationToken stop)
    {
        Fleet = await db.FleetAsync(stop);
        Types = await db.TypeListAsync(stop);
    }
}
