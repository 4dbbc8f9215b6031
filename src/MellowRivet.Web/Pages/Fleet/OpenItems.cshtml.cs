using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Parts;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Core.Signing;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using MellowRivet.Web.Pages.Walk.Found;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>What was typed to clear a line, and the line.</summary>
public sealed record ClearForm(Guid Item, CorrectionForm Correction);

/// <summary>What is open on an aircraft, and what came to an end.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Open">What is open, the gravest first.</param>
/// <param name="Ended">Those that came to an end, latest first.</param>
/// <param name="Signer">Whoever looks.</param>
/// <param name="Answer">By which certificate they may clear a line.</param>
/// <param name="People">The shop's people.</param>
/// <param name="Parts">Parts on the shop's list, by the line each is for.</param>
/// <param name="House">How the shop works: its money.</param>
/// <param name="Inspections">The inspections that are here to be looked at.</param>
public sealed record OpenItemsView(FileShown File, IReadOnlyList<OpenItem> Open, IReadOnlyList<OpenItem> Ended, Person Signer,
    SigningAnswer Answer, IReadOnlyDictionary<Guid, Person> People, ILookup<string, OrderedPart> Parts, HouseRules House,
    IReadOnlySet<Guid> Inspections)
    : FileView(File)
{
    public override FilePage At => FilePage.OpenItems;

    /// <summary>What was typed to clear a line and refused; null where nothing was.</summary>
    public CorrectionForm? TypedFor(OpenItem item) =>
        Typed<ClearForm>() is { } form && form.Item == item.Id ? form.Correction : null;

    /// <summary>Parts that were ordered for an item, where it was first left open or last looked at.</summary>
    public IEnumerable<OrderedPart> PartsFor(OpenItem item) =>
        Parts[item.FirstNumber].Concat(item.Number == item.FirstNumber ? [] : Parts[item.Number]);

    public string NameOf(Guid person) => People.TryGetValue(person, out var who) ? who.Name : "";
}

/// <summary>What is open on the aircraft, whichever inspection found it, and the entry that clears a line.</summary>
[EnableRateLimiting("signing")]
public sealed class OpenItemsModel(Desk desk, RivetDb db, PasswordAgain again, TimeProvider clock)
    : FleetPage<OpenItemsView>(desk, db, clock)
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostClearAsync(Guid post, Guid item, CorrectionForm form, string? password, CancellationToken stop)
    {
        if (await LoadAsync(stop) is not { } file)
            return NotFound();
        var typed = new ClearForm(item, form);
        var (done, wrong) = form.Read(null, Today);
        if (done is null)
            return await AgainAsync(wrong!, stop, typed);
        var (parts, cleared) = (await Db.PartsByLineAsync(Id, stop), await Db.ItemAsync(item, stop));
        if (cleared is not null && OrderedPart.FittedUnseen(done, parts[cleared.FirstNumber].Concat(parts[cleared.Number]),
            Today) is { } unseen)
            return await AgainAsync(unseen, stop, typed);
        var rules = await RulesAsync(file.Aircraft, stop);
        var (signer, answer) = SignerOf(rules, file.Aircraft);
        if (answer.By is not { } certificate)
            return await AgainAsync(new("sign", answer.Reason), stop, typed);
        return await again.CheckAsync(User, password, stop) is { } bad
            ? await AgainAsync(new("password", bad), stop, typed)
            : await AfterAsync(Desk.ClearAsync(Id, item, post, rules, done, new(signer, certificate), stop), HrefOf(FilePage.OpenItems),
                stop,
                typed);
    }

    private async Task<ShopRules> RulesAsync(Aircraft aircraft, CancellationToken stop) => (await Desk.RulesAsync(stop))(aircraft);

    private (Person Signer, SigningAnswer Answer) SignerOf(ShopRules rules, Aircraft aircraft)
    {
        var me = rules.People[Me];
        return (me, rules.Pack.MayClear(me, aircraft, Today));
    }

    protected override async Task<OpenItemsView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop)
    {
        var rules = await RulesAsync(file.Aircraft, stop);
        var (signer, answer) = SignerOf(rules, file.Aircraft);
        var items = await Db.AllItemsAsync(Id, stop);
        return new(file,
            [.. items.Where(item => item.IsOpen).OrderBy(item => item.Because).ThenBy(item => item.FirstNumber, StringComparer.Ordinal)],
            [.. items.Where(item => !item.IsOpen).OrderByDescending(item => item.End!.On)
                .ThenByDescending(item => item.FirstNumber, StringComparer.Ordinal)],
            signer, answer, rules.People, await Db.PartsByLineAsync(Id, stop), await Db.HouseRulesAsync(stop),
            await Db.InspectionsOnAsync(Id, stop));
    }
}
