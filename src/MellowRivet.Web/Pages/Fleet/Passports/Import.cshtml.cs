using MellowRivet.Core;
using MellowRivet.Core.Exchange;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Handover;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Passports;

/// <summary>An aircraft's file to be taken in.</summary>
/// <param name="Post">Under what it is sent, once.</param>
public sealed record ImportView(Guid Post) : PageView;

/// <summary>Takes in an aircraft: from its passport, or from its file that another shop, or this one, saved as JSON.</summary>
[Needs(Right.Look)]
[RequestSizeLimit(MostBytes)]
[RequestFormLimits(MultipartBodyLengthLimit = MostBytes)]
public sealed class ImportModel(RivetDb db, TimeProvider clock, PassportErrands errands, Acting acting) : ShopPage<ImportView>
{
    /// <summary>Largest passport that a browser sends; a larger one is taken in at the command line.</summary>
    public const long MostBytes = 4L * 1024 * 1024 * 1024;

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostAsync(Guid post, IFormFile? file, CancellationToken stop)
    {
        if (file is { Length: > 0 } && await IsPassportAsync(file, stop))
        {
            await using var content = file.OpenReadStream();
            await errands.CheckAsync(post, content, acting.Now!.Value.Who, stop);
            return Redirect($"/aircraft/import/{post}");
        }
        var (sent, wrong) = await Uploads.ReadTextAsync(file, "file", AircraftFile.MostBytes, "Choose a file.", stop);
        if (wrong is not null)
            return await AgainAsync(wrong, stop);
        var (read, refusal) = AircraftFile.Read(sent, clock.Today());
        return read is null
            ? await AgainAsync(refusal!, stop)
            : await AfterAsync(db.OnceAsync(post, clock, () => db.TakeInAsync(read, User.PersonId(), clock, stop), stop),
                $"/aircraft/{read.Id}", stop);
    }

    // What it is its first bytes say, never its name.
    private static async Task<bool> IsPassportAsync(IFormFile file, CancellationToken stop)
    {
        await using var content = file.OpenReadStream();
        return await PassportFiles.LooksLikeOneAsync(content, stop);
    }

    protected override Task<ImportView?> ViewAsync(Refused refused, CancellationToken stop) =>
        Task.FromResult<ImportView?>(new(Guid.CreateVersion7()));
}
