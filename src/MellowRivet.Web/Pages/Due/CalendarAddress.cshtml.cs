using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Due;

/// <summary>Hands out the address under which a person's calendar program reads what falls due.</summary>
[Needs(Right.Look)]
public sealed class CalendarAddressModel(RivetDb db) : PageModel
{
    /// <summary>The address made just now: shown once, kept only as its hash.</summary>
    public string? Address { get; private set; }
    public bool HasOne { get; private set; }
    public IReadOnlyList<FleetRow> Fleet { get; private set; } = [];

    public async Task OnGetAsync(CancellationToken stop)
    {
        var me = User.PersonId();
        HasOne = await db.HasCalendarKeyAsync(me, stop);
        Fleet = await db.FleetAsync(stop);
    }

    [Needs(Right.Look)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        var (key, hash) = DueApi.NewKey();
        await db.HandOutCalendarKeyAsync(User.PersonId(), hash, stop);
        await OnGetAsync(stop);
        Address = $"{Request.Scheme}://{Request.Host}/calendar/{key}";
        return Page();
    }
}
