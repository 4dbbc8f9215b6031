using MellowRivet.Core;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.DataPlate;

/// <summary>An aircraft's file that is being made.</summary>
/// <param name="Form">What is typed so far.</param>
/// <param name="Post">Under what it is sent, once.</param>
/// <param name="Offered">What usually falls due on such an aircraft, whatever the form says so far.</param>
/// <param name="Fleet">The aircraft it may be made like.</param>
/// <param name="Types">The models that are known.</param>
public sealed record NewView(AircraftForm Form, Guid Post, IReadOnlyList<DueStarter> Offered, IReadOnlyList<FleetRow> Fleet, TypeList Types)
    : PageView;

/// <summary>Makes an aircraft's file, from nothing or like one that is here.</summary>
[Needs(Right.Look)]
public sealed class NewModel(RivetDb db, Shelf shelf, TimeProvider clock) : ShopPage<NewView>
{
    [BindProperty]
    public AircraftForm Form { get; set; } = new();

    [BindProperty]
    public Guid Post { get; set; } = Guid.CreateVersion7();

    private IReadOnlyList<DueStarter> Offered => [.. shelf.DueStarters.Where(starter =>
        (starter.Categories.Count == 0 || starter.Categories.Contains(Form.Category))
            && (starter.Layouts.Count == 0 || starter.Layouts.Contains(Form.Layout))
        && starter.On is null or ComponentKind.Engine or ComponentKind.Propeller or ComponentKind.Magneto)];

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnGetAsync(Guid? from, CancellationToken stop)
    {
        if (from is { } like && await db.AircraftAsync(like, stop) is { } model)
            Form.CopyFrom(model);
        return await ShowAsync(stop);
    }

    /// <summary>The drawing and what falls due, as the choices stand; keeps nothing.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnGetDrawAsync(CancellationToken stop)
    {
        await TryUpdateModelAsync(Form, "Form");
        return await MakeAsync(stop) ? Partial("_Drawn", View) : NotFound();
    }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        ModelState.Clear();
        var wrong = Form.Problems().ToList();
        var registration = Form.Registration?.Trim();
        if (wrong.Count == 0 && await db.RegisteredAsync(registration!, stop) is { } there)
            wrong.Add(new("Form.Registration", $"{registration} has a file here already" + (there.OnlySurveyed
                ? ", as one that is only surveyed: open it from Surveys, and say that the shop looks after it." : ".")));
        if (wrong.Count > 0)
            return await ShowAsync(stop, new(Form, wrong));
        Aircraft? aircraft = null;
        var written = await db.OnceAsync(Post, clock, async () =>
        {
            if (await NameModelsAsync(stop) is { } open)
                return open;
            aircraft = db.Put(Form.Make(clock.Today(), User.Initials()));
            db.PutAll(Offered.Where(starter => Form.Starters.Contains(starter.Key)).SelectMany(starter => starter.For(aircraft)));
            return null;
        }, stop);
        db.Forget();
        return await AfterAsync(written, aircraft is null ? "/" : $"/aircraft/{aircraft.Id}", stop, Form);
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

    protected override async Task<NewView?> ViewAsync(Refused refused, CancellationToken stop) =>
        new(Form, Post, Offered, await db.FleetAsync(stop), await db.TypeListAsync(stop));
}
