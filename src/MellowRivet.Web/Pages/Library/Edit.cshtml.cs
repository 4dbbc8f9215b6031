using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

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
}

/// <summary>Types a bulletin, or changes what is on file of one.</summary>
[Needs(Right.Look)]
public sealed class EditModel(RivetDb db, ShopBoard board, TimeProvider clock) : PageModel
{
    [FromRoute]
    public Guid? Id { get; set; }

    /// <summary>Another one that this begins from: a revision.</summary>
    [FromQuery(Name = "from")]
    public Guid? From { get; set; }

    public ShopBulletin? Held { get; private set; }
    public TypeList Types { get; private set; } = TypeList.Empty;
    public BulletinForm Form { get; private set; } = new();
    public RulePreview Preview { get; private set; } = RulePreview.Nothing;

    public string? Problem(params string[] fields) =>
        fields.Select(field => ModelState[field]?.Errors.FirstOrDefault()?.ErrorMessage).FirstOrDefault(message => message is not null);

    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        if (Held is not null)
            Form = BulletinForm.Of(Held);
        else if (From is { } from && await db.BulletinAsync(from, stop) is { } earlier)
            Form = BulletinForm.Of(earlier) with { Revision = "", Published = null, Effective = null };
        Preview = await TryAsync(Form.Rule, Form.About, stop);
        return Page();
    }

    /// <summary>Reads a rule back as it is typed, and says how it falls on the shop; keeps nothing.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnGetPreviewAsync(string? rule, ComponentKind? about, CancellationToken stop) =>
        Partial("/Pages/Library/_Preview.cshtml", await TryAsync(rule, about, stop));

    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostAsync(BulletinForm form, CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return NotFound();
        Form = form;
        var (bulletin, refusal) = form.Read(Held?.Bulletin);
        var id = Id ?? form.Post;
        var written = refusal is not null ? new Written(refusal) : await db.OnceAsync(form.Post, clock, async () =>
        {
            if (Id is { } known)
                return await db.BulletinToChangeAsync(known, stop) is { } held
                    ? held.Change(bulletin!, form.Seen)
                    : new("subject", "There is no such bulletin.");
            if (await db.IsHereAsync(bulletin!, stop))
                return new("number", $"{bulletin!.Title} of {bulletin.Issuer} is here already.");
            db.Put(new ShopBulletin(id, bulletin!, "typed here", User.PersonId(), clock.GetUtcNow()));
            return null;
        }, stop);
        if (written.Done)
            return Redirect($"/bulletins/{id}");
        ModelState.AddModelError(written.Refusal!.Field, written.Refusal.Message);
        Preview = await TryAsync(form.Rule, form.About, stop);
        return Page();
    }

    private async Task<bool> LoadAsync(CancellationToken stop)
    {
        Types = await db.TypeListAsync(stop);
        if (Id is { } id)
            Held = await db.BulletinAsync(id, stop);
        return Id is null || Held is not null;
    }

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
        return new(rule, null, [.. fleet.SelectMany(aircraft =>
        {
            var on = aircraft.Installations.Where(stay => stay.IsOn && stay.Component.Kind == about).Cast<Installation?>().ToList();
            return (about is null || on.Count == 0 ? [null] : on)
                .Select(part => (answer: new AircraftFacts(aircraft, stated, types, part).Put(rule), part))
                .Select(pair => new Tried(aircraft.Registration
                    + (pair.part is { } stay && on.Count > 1 ? $" {aircraft.PlaceOf(stay)}" : ""), pair.answer.Answer,
                    pair.answer.Answer == RuleAnswer.CannotTell
                        ? $"read off {string.Join(", ", pair.answer.Missing)}"
                        : string.Join("; ", pair.answer.Because)));
        }).OrderByDescending(tried => tried.Answer)], all.Count - fleet.Count, [.. types.UnsettledIn(rule, "")]);
    }
}
