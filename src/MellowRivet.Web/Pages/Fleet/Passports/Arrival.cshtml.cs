using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Store.Passports;
using MellowRivet.Web.Access;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Passports;

/// <summary>A passport that came, and how far it is.</summary>
/// <param name="Errand">The errand.</param>
/// <param name="KnownSince">When that key was first seen here; null where it never was.</param>
public sealed record ArrivalView(PassportErrand Errand, DateTimeOffset? KnownSince) : PageView;

/// <summary>A passport that somebody sent: being checked, checked and waiting for a yes, or taken in.</summary>
[Needs(Right.Look)]
public sealed class ArrivalModel(RivetDb db, PassportErrands errands, Acting acting) : ShopPage<ArrivalView>
{
    [FromRoute]
    public Guid Errand { get; set; }

    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.KeepFile)]
    public IActionResult OnPost()
    {
        errands.TakeIn(Errand, acting.Now!.Value.Who);
        return Redirect($"/aircraft/import/{Errand}");
    }

    protected override async Task<ArrivalView?> ViewAsync(Refused refused, CancellationToken stop) => errands.Of(Errand) is { } errand
        ? new(errand, errand.Manifest is { } manifest ? await db.KeyKnownSinceAsync(manifest.Shop.Fingerprint, stop) : null)
        : null;
}
