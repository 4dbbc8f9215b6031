using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Library;

/// <summary>How a rule falls on one aircraft, as it is typed.</summary>
public sealed record Tried(string Registration, RuleAnswer Answer, string Why);

/// <summary>A rule as typed: read back, and tried on the shop.</summary>
/// <param name="Rule">The rule; null where it can't be read.</param>
/// <param name="Fault">Why it can't.</param>
/// <param name="OnShop">How it falls on each aircraft that it is tried on.</param>
/// <param name="Untried">How many aircraft the shop has beside those.</param>
/// <param name="Unsettled">Models that it names and no list knows.</param>
public sealed record RulePreview(Rule? Rule, string? Fault, IReadOnlyList<Tried> OnShop, int Untried,
    IReadOnlyList<UnsettledName> Unsettled)
{
    /// <summary>A rule is tried on so many aircraft: it is read back with each key.</summary>
    public const int Most = 60;

    public static readonly RulePreview Nothing = new(null, null, [], 0, []);

    /// <summary>Tries a rule on an aircraft, on each of its parts of a kind.</summary>
    public static IEnumerable<Tried> Try(Rule rule, ComponentKind? about, Aircraft aircraft, IReadOnlyList<StatedFact> stated,
        TypeList types)
    {
        var on = aircraft.Installations.Where(stay => stay.IsOn && stay.Component.Kind == about).Cast<Installation?>().ToList();
        return (about is null || on.Count == 0 ? [null] : on)
            .Select(part => (answer: new AircraftFacts(aircraft, stated, types, part).Put(rule), part))
            .Select(pair => new Tried(aircraft.Registration
                + (pair.part is { } stay && on.Count > 1 ? $" {aircraft.PlaceOf(stay)}" : ""), pair.answer.Answer,
                pair.answer.Answer == RuleAnswer.CannotTell
                    ? $"read off {string.Join(", ", pair.answer.Missing)}"
                    : string.Join("; ", pair.answer.Because)));
    }
}

/// <summary>A bulletin that is typed, or changed.</summary>
/// <param name="Held">What is on file of it; null for a new one.</param>
/// <param name="Form">The form.</param>
/// <param name="Types">The models that are known.</param>
/// <param name="Preview">Its rule, read back.</param>
public sealed record BulletinEditView(ShopBulletin? Held, BulletinForm Form, TypeList Types, RulePreview Preview) : PageView
{
    public Guid? Id => Held?.Id;
}

/// <summary>Types a bulletin, or changes what is on file of one.</summary>
[Needs(Right.Look)]
public sealed class EditModel(RivetDb db, ShopBoard board, TimeProvider clock) : ShopPage<BulletinEditView>
{
    [FromRoute]
    public Guid? Id { get; set; }

    /// <summary>Another one that this begins from: a revision.</summary>
    [FromQuery(Name = "from")]
    public Guid? From { get; set; }

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Reads a rule back as it is typed, and says how it falls on the shop; keeps nothing.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnGetPreviewAsync(string? rule, ComponentKind? about, CancellationToken stop) =>
        Partial("/Pages/Library/_Preview.cshtml", await TryAsync(rule, about, stop));

    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostAsync(BulletinForm form, CancellationToken stop)
    {
        var held = await HeldAsync(stop);
        if (Id is not null && held is null)
            return NotFound();
        var (bulletin, refusal) = form.Read(held?.Bulletin);
        if (bulletin is null)
            return await AgainAsync(refusal!, stop, form);
        var id = Id ?? form.Post;
        return await AfterAsync(db.OnceAsync(form.Post, clock, async () =>
        {
            if (Id is { } known)
                return await db.BulletinToChangeAsync(known, stop) is { } kept
                    ? kept.Change(bulletin, form.Seen)
                    : new("subject", "There is no such bulletin.");
            if (await db.IsHereAsync(bulletin, stop))
                return new("number", $"{bulletin.Title} of {bulletin.Issuer} is here already.");
            db.Put(new ShopBulletin(id, bulletin, "typed here", User.PersonId(), clock.GetUtcNow()));
            return null;
        }, stop), $"/bulletins/{id}", stop, form);
    }

    protected override async Task<BulletinEditView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var held = await HeldAsync(stop);
        if (Id is not null && held is null)
            return null;
        var form = refused.Form as BulletinForm ?? await FormAsync(held, stop);
        return new(held, form, await db.TypeListAsync(stop), await TryAsync(form.Rule, form.About, stop));
    }

    private async Task<ShopBulletin?> HeldAsync(CancellationToken stop) => Id is { } id ? await db.BulletinAsync(id, stop) : null;

    private async Task<BulletinForm> FormAsync(ShopBulletin? held, CancellationToken stop) =>
        held is not null ? BulletinForm.Of(held)
        : From is { } from && await db.BulletinAsync(from, stop) is { } earlier
            ? BulletinForm.Of(earlier) with { Revision = "", Published = null, Effective = null }
            : new();

    private async Task<RulePreview> TryAsync(string? text, ComponentKind? about, CancellationToken stop)
    {
        if (string.IsNullOrWhiteSpace(text))
            return RulePreview.Nothing;
        var (rule, fault) = RuleText.Read(text);
        if (rule is null)
            return RulePreview.Nothing with { Fault = fault };
        var all = (await board.StandingAsync(stop)).Lines.ToList();
        var fleet = all.Select(line => line.Aircraft).Take(RulePreview.Most).ToList();
        var stated = await db.StatedOnAsync(fleet, stop);
        var types = await db.TypeListAsync(stop);
        return new(rule, null,
            [.. fleet.SelectMany(aircraft => RulePreview.Try(rule, about, aircraft, stated, types))
                .OrderByDescending(tried => tried.Answer)],
            all.Count - fleet.Count, [.. types.UnsettledIn(rule, "")]);
    }
}
