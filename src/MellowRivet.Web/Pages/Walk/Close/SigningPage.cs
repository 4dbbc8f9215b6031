using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Identity;

namespace MellowRivet.Web.Pages.Walk.Close;

/// <summary>A page of the walk that something is signed on: by whom, by which certificate, and with the password again.</summary>
public abstract class SigningPage(Desk desk, RivetDb db, KeptFrames frames, Shelf shelf, UserManager<MellowRivet.Store.Account> users)
    : WalkPage(desk, db, frames)
{
    protected RulePack Rules => shelf.RulesFor(Job.Aircraft.Category);

    public Person Me => Person(User.PersonId())!;
    public SigningAnswer Answer => Rules.MaySign(Me, Job.Inspection.Kind, Job.Aircraft);

    /// <summary>Who signs, once the password is right; null with what is wrong beside its field.</summary>
    protected async Task<Signer?> SignerAsync(string? password)
    {
        if (Answer.By is not { } certificate)
        {
            ModelState.AddModelError("sign", Answer.Reason);
            return null;
        }
        if (await users.CheckAgainAsync(User, password) is not { } wrong)
            return new(Me, certificate);
        ModelState.AddModelError("password", wrong);
        return null;
    }
}
