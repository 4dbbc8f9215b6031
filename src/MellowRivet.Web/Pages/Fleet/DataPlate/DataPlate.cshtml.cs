using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.DataPlate;

/// <summary>An aircraft's data plate and engines.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Types">The models that are known.</param>
public sealed record DataPlateView(FileShown File, TypeList Types) : FileView(File)
{
    public override FilePage At => FilePage.Plate;

    public Guid Post { get; } = Guid.CreateVersion7();

    /// <summary>The form of the plate: as typed where it was refused, else as kept.</summary>
    public PlateForm Form => Typed<PlateForm>() ?? PlateForm.Of(Aircraft);
}

/// <summary>What stands on the data plate, its engines, and the file as a whole.</summary>
public sealed class DataPlateModel(Desk desk, RivetDb db, Shelf shelf, TimeProvider clock) : FleetPage<DataPlateView>(desk, db, clock)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAsync(Guid post, [Bind(Prefix = "Form")] PlateForm form, CancellationToken stop)
    {
        ModelState.Clear();
        if (form.Problems() is [_, ..] wrong)
            return await ShowAsync(stop, new(form, wrong));
        return await AfterAsync(Desk.WriteFileAsync(Id, post, async aircraft =>
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
        }, stop), HrefOf(FilePage.Plate), stop, form);
    }

    /// <summary>An aircraft that was only surveyed is looked after from now on: whoever owns it brought it.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostJoinAsync(Guid post, CancellationToken stop) =>
        await AfterAsync(Desk.WriteFileAsync(Id, post, aircraft =>
        {
            aircraft.Joins();
            return Task.FromResult<Refusal?>(null);
        }, stop), $"/aircraft/{Id}", stop);

    protected override async Task<DataPlateView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop) =>
        new(file, await Db.TypeListAsync(stop));
}
