using MellowRivet.Core;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.DataPlate;

/// <summary>An aircraft's file to be taken in.</summary>
/// <param name="Post">Under what it is sent, once.</param>
public sealed record ImportView(Guid Post) : PageView;

/// <summary>Takes in an aircraft's file that another shop, or this one, saved as JSON.</summary>
[Needs(Right.Look)]
public sealed class ImportModel(RivetDb db, TimeProvider clock) : ShopPage<ImportView>
{
    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAsync(Guid post, IFormFile? file, CancellationToken stop)
    {
        var (sent, wrong) = await Uploads.ReadTextAsync(file, "file", AircraftFile.MostBytes, "Choose a file.", stop);
        if (wrong is not null)
            return await AgainAsync(wrong, stop);
        var (read, refusal) = AircraftFile.Read(sent, clock.Today());
        return read is null
            ? await AgainAsync(refusal!, stop)
            : await AfterAsync(db.OnceAsync(post, clock, () => db.TakeInAsync(read, User.PersonId(), clock, stop), stop),
                $"/aircraft/{read.Id}", stop);
    }

    protected override Task<ImportView?> ViewAsync(Refused refused, CancellationToken stop) =>
        Task.FromResult<ImportView?>(new(Guid.CreateVersion7()));
}
