using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Pages;

/// <summary>Hands out the address under which a person's calendar program reads what falls due.</summary>
[Needs(Right.Look)]
public sealed class CalendarAddressModel(RivetDb db) : PageModel
{
    /// <summary>The address made just now: shown once, kept only as its hash.</summary>
    public string? Address { get; private set; }
    public bool HasOne { get; private set; }
    public IReadOnlyList<Aircraft> Fleet { get; private set; } = [];

    public async Task OnGetAsync(CancellationToken stop)
    {
        var me = User.PersonId();
        HasOne = await db.People.AnyAsync(person => person.Id == me && person.CalendarKeyHash != null, stop);
        Fleet = await db.Aircraft.AsNoTracking().OrderBy(aircraft => aircraft.Registration).ToListAsync(stop);
    }

    [Needs(Right.Look)]
    public async Task<IActionResult> OnPostAsync(CancellationToken stop)
    {
        var (key, hash) = DueApi.NewKey();
        var me = User.PersonId();
        (await db.People.SingleAsync(person => person.Id == me, stop)).HandOutCalendarKey(hash);
        await db.SaveChangesAsync(stop);
        await OnGetAsync(stop);
        Address = $"{Request.Scheme}://{Request.Host}/calendar/{key}";
        return Page();
    }
}
