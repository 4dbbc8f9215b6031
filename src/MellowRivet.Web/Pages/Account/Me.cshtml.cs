using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.People;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Account;

/// <summary>Whoever looks, to themselves.</summary>
/// <param name="Person">They.</param>
/// <param name="Theirs">The aircraft that are theirs today.</param>
/// <param name="Today">The day.</param>
public sealed record MeView(Person Person, IReadOnlyList<FleetRow> Theirs, DateOnly Today) : PageView;

/// <summary>One's own page: what one may do and holds, a new password, and leaving everywhere.</summary>
[EnableRateLimiting("signing")]
[OwnersSee(Through.Sight)]
[Needs(Right.Look)]
public sealed class MeModel(RivetDb db, PasswordAgain again, IPasswordHasher<Store.Account> hasher, TimeProvider clock) : ShopPage<MeView>
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>A new password, by whoever knows the one before. Every other browser is signed out.</summary>
    [Needs(Right.Look)]
    public async Task<IActionResult> OnPostPasswordAsync(Guid post, string? before, string? password, CancellationToken stop) =>
        await again.CheckAsync(User, before, stop, "a new password", "Nothing was changed.") is { } wrong
            ? await AgainAsync(new("before", wrong), stop)
            : await AfterAsync(db.ChangePersonAsync(User.PersonId(), post, clock,
                (person, _) => db.SetPasswordAsync(hasher, person, password, User.Session(), stop), stop), "/me", stop);

    /// <summary>Leaves on every other device: one that was lost, or a browser in the clubhouse.</summary>
    [Needs(Right.Look)]
    public Task<IActionResult> OnPostLeaveOthersAsync(Guid post, CancellationToken stop) =>
        AfterAsync(db.ChangePersonAsync(User.PersonId(), post, clock, async (person, _) =>
        {
            await db.EndSessionsAsync(person.Id, User.Session(), stop);
            return null;
        }, stop), "/me", stop);

    protected override async Task<MeView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var (me, today) = (await db.PersonAsync(User.PersonId(), stop), clock.Today());
        return new(me, [.. (await db.FleetAsync(stop)).Where(row => me.OwnsOn(row.Id, today))], today);
    }
}
