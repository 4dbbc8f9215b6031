using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.DataPlate;

/// <summary>What stands on the data plate, its engines, and the file as a whole.</summary>
public sealed class DataPlateModel(Desk desk, RivetDb db, Shelf shelf, TimeProvider clock) : FleetPage(desk, db, clock)
{
    public override FileSheet At => FileSheet.Plate;

    public PlateForm Form { get; private set; } = new();
    public TypeList Types { get; private set; } = TypeList.Empty;
    public Guid Post { get; } = Guid.CreateVersion7();

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        Form.Take(Aircraft);
        return Page();
    }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAsync(Guid post, [Bind(Prefix = "Form")] PlateForm form, CancellationToken stop)
    {
        ModelState.Clear();
        foreach (var problem in form.Check())
            ModelState.AddModelError("Form." + problem.Field, problem.Message);
        if (!ModelState.IsValid)
        {
            Form = form;
            return await ShowAsync(stop) ? Page() : NotFound();
        }
        var written = await Desk.WriteFileAsync(Id, post, async aircraft =>
        {
            var registration = form.Registration!.Trim();
            var inWork = await Db.InWorkAsync(Id, stop);
            if (inWork is not null && aircraft.Category != form.Category
                && shelf.RulesFor(form.Category).GoesOn(inWork, form.Category) is { } stays)
                return stays with { Field = "Form.Category" };
            if (await Db.RegisteredAsync(registration, stop) is { } there && there.Id != Id)
                return new("Form.Registration", $"{registration} has a file here already.");
            var (type, open) = await Db.NameOfAsync(TypeKind.Aircraft, form.Type,
                TypeAnswer.Of(form.TypeMeans, form.TypeMaker, form.TypeMeansAbout), "Form.Type", stop);
            if (open is not null)
                return open;
            aircraft.Describe(registration, type, form.Serial!.Trim(), form.Category, form.Configuration);
            return null;
        }, stop);
        return await AfterAsync(written, HrefOf(At), () =>
        {
            Form = form;
            return ShowAsync(stop);
        });
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        Types = await Db.TypeListAsync(stop);
        return await LoadAsync(stop);
    }
}
