using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Fleet.Passports;

/// <summary>A passport that came, and how far it is.</summary>
/// <param name="Errand">The errand.</param>
public sealed record ArrivalView(PassportErrand Errand) : PageView;

/// <summary>A passport that somebody sent: being checked, checked and waiting for a yes, or taken in.</summary>
[Needs(Right.Look)]
public sealed class ArrivalModel(PassportErrands errands, Acting acting) : ShopPage<ArrivalView>
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

    protected override Task<ArrivalView?> ViewAsync(Refused refused, CancellationToken stop) =>
        Task.FromResult(errands.Of(Errand) is { } errand ? new ArrivalView(errand) : null);
}
