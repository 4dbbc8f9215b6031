using MellowRivet.Core;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Fleet.DataPlate;

/// <summary>Takes in an aircraft's file that another shop, or this one, saved as JSON.</summary>
[Needs(Right.Look)]
public sealed class ImportModel(RivetDb db, TimeProvider clock) : PageModel
{
    public Guid Post { get; } = Guid.CreateVersion7();

    [Needs(Right.KeepFile)]
    public void OnGet() { }

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAsync(Guid post, IFormFile? file, CancellationToken stop)
    {
        if (file is null || file.Length > AircraftFile.MostBytes)
            return Refused(new("file", file is null
                ? "Choose a file."
                : $"The file is larger than {AircraftFile.MostBytes / 1024 / 1024} MB."));
        using var reader = new StreamReader(file.OpenReadStream());
        var (read, refusal) = AircraftFile.Read(await reader.ReadToEndAsync(stop), clock.Today());
        if (read is null)
            return Refused(refusal!);
        var written = await db.OnceAsync(post, clock, () => db.TakeInAsync(read, User.PersonId(), clock, stop), stop);
        return written.Done ? Redirect($"/aircraft/{read.Id}") : Refused(written.Refusal!);
    }

    private PageResult Refused(Refusal refusal)
    {
        ModelState.AddModelError(refusal.Field, refusal.Message);
        return Page();
    }
}
