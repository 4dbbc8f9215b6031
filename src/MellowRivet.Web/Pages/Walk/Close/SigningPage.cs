using MellowRivet.Core;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Web.Access;

namespace MellowRivet.Web.Pages.Walk.Close;

/// <summary>What a page shows that something is signed on.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Answer">By which certificate whoever looks may sign it, or why they may not.</param>
public abstract record SigningView(WalkShown Walk, SigningAnswer Answer) : WalkView(Walk)
{
    public Person Me => Person(Walk.Me)!;
}

/// <summary>A page of the walk that something is signed on: by whom, by which certificate, and with the password again.</summary>
public abstract class SigningPage<TView>(Desk desk, RivetDb db, KeptFrames frames, Shelf shelf,
    PasswordAgain again)
    : WalkPage<TView>(desk, db, frames) where TView : SigningView
{
    protected override bool IsOfInspections => true;

    protected RulePack RulesOf(WalkShown walk) => shelf.RulesFor(walk.Job.Aircraft.Category);

    protected SigningAnswer AnswerOf(WalkShown walk) =>
        RulesOf(walk).MaySign(walk.Weighed.People[Me], walk.Job.Inspection.Kind, walk.Job.Aircraft, walk.Weighed.Today);

    /// <summary>Who signs, once the password is right; else what is wrong, beside its field.</summary>
    protected async Task<(Signer? Signer, Refusal? Refusal)> SignerAsync(WalkShown walk, string? password,
        CancellationToken stop)
    {
        var answer = AnswerOf(walk);
        if (answer.By is not { } certificate)
            return (null, new("sign", answer.Reason));
        return await again.CheckAsync(User, password, stop) is { } wrong
            ? (null, new("password", wrong))
            : (new(walk.Weighed.People[Me], certificate), null);
    }
}
