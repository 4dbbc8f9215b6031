using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Due;

/// <summary>A person's calendar address.</summary>
/// <param name="Address">The address made just now: shown once, kept only as its hash.</param>
/// <param name="HasOne">They have one.</param>
/// <param name="Fleet">The aircraft it is good for.</param>
public sealed record CalendarAddressView(string? Address, bool HasOne, IReadOnlyList<FleetRow> Fleet) : PageView;

/// <summary>Hands out the address under which a person's calendar program reads what falls due.</summary>
[OwnersSee(Through.Sight)]
[Needs(Right.Look)]
public sealed class CalendarAddressModel(RivetDb db, Seen seen, RivetSettings settings) : ShopPage<CalendarAddressView>
{
    private string? made;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.Look)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        var (key, hash) = DueApi.NewKey();
        await db.HandOutCalendarKeyAsync(User.PersonId(), hash, stop);
        made = $"{settings.Address(Request)}/calendar/{key}";
        return await ShowAsync(stop);
    }

    protected override async Task<CalendarAddressView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var sight = await seen.OfAsync(User, stop);
        return new(made, await db.HasCalendarKeyAsync(User.PersonId(), stop),
            [.. (await db.FleetAsync(stop)).Where(row => sight.Sees(row.Id))]);
    }
}
