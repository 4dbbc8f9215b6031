using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Walk.Found;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>What is open on the aircraft, whichever inspection found it, and the entry that clears a line.</summary>
[EnableRateLimiting("sign-in")]
public sealed class OpenItemsModel(Desk desk, RivetDb db, UserManager<MellowRivet.Store.Account> users, TimeProvider clock)
    : FleetPage(desk, db, clock)
{
    public override FileSheet At => FileSheet.OpenItems;

    public IReadOnlyList<OpenItem> Open { get; private set; } = [];

    /// <summary>Those that came to an end, latest first.</summary>
    public IReadOnlyList<OpenItem> Ended { get; private set; } = [];

    /// <summary>What was typed for the line that wasn't cleared.</summary>
    public (Guid? Item, CorrectionForm Form) Typed { get; private set; } = (null, new());

    public SigningAnswer Answer { get; private set; } = null!;
    public Person Me { get; private set; } = null!;
    private ShopRules rules = null!;

    public string NameOf(Guid person) => rules.People.TryGetValue(person, out var who) ? who.Name : "";

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostClearAsync(Guid post, Guid item, CorrectionForm form, string? password, CancellationToken stop)
    {
        if (!await ShowAsync(stop))
            return NotFound();
        Typed = (item, form);
        var (done, wrong) = form.Read(null, Today);
        if (done is null)
            Refuse(wrong!);
        else if (Answer.By is not { } certificate)
            ModelState.AddModelError("sign", Answer.Reason);
        else if (await users.CheckAgainAsync(User, password) is { } bad)
            ModelState.AddModelError("password", bad);
        else
        {
            var written = await Desk.ClearAsync(item, post, rules, done, new(Me, certificate), stop);
            if (written.Done)
                return Redirect($"/aircraft/{Id}/open-items");
            await ShowAsync(stop);
            Refuse(written.Refusal!);
        }
        return Page();
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        rules = (await Desk.RulesAsync(stop))(Aircraft);
        Me = rules.People[User.PersonId()];
        Answer = rules.Pack.MayClear(Me, Aircraft);
        var items = await Db.AllItemsAsync(Id, stop);
        Open = [.. items.Where(item => item.IsOpen).OrderBy(item => item.Because).ThenBy(item => item.FirstNumber, StringComparer.Ordinal)];
        Ended = [.. items.Where(item => !item.IsOpen).OrderByDescending(item => item.End!.On)
            .ThenByDescending(item => item.FirstNumber, StringComparer.Ordinal)];
        return true;
    }
}
