using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Shelves;

/// <summary>A type as it is sent.</summary>
public sealed class TypeForm
{
    public Guid? Id { get; set; }
    public TypeKind Kind { get; set; } = TypeKind.Aircraft;
    public string? Maker { get; set; }
    public string? Designation { get; set; }

    /// <summary>Its other names, one a line.</summary>
    public string? Aliases { get; set; }

    /// <summary>How many changes it had when it was opened.</summary>
    public int Seen { get; set; }

    public static TypeForm Of(KnownType type) => new()
    {
        Id = type.Id,
        Kind = type.Kind,
        Maker = type.Maker,
        Designation = type.Designation,
        Aliases = string.Join("\n", type.Aliases),
        Seen = type.Changes,
    };

    public IEnumerable<string> Names => (Aliases ?? "").ReplaceLineEndings("\n").Split('\n');
}

/// <summary>The answer to a name that no list knows, as it is sent.</summary>
public sealed class SettleForm
{
    public TypeKind Kind { get; set; } = TypeKind.Aircraft;
    public string? Name { get; set; }
    public string? Means { get; set; }

    /// <summary>One of the list that isn't near; chosen by hand.</summary>
    public Guid? Other { get; set; }
    public string? Maker { get; set; }

    public TypeAnswer ToAnswer() => TypeAnswer.Of(Means == "other" ? Other?.ToString() : Means, Maker, null);
}

/// <summary>The type list.</summary>
/// <param name="Types">Every type that is known.</param>
/// <param name="Lines">One page of those that are looked for.</param>
/// <param name="Words">What is looked for.</param>
/// <param name="TypeId">The one that is being changed; null for a new one.</param>
/// <param name="Unsettled">Names that no list knows.</param>
/// <param name="OnFile">On how many aircraft and parts each type stands.</param>
public sealed record TypesView(TypeList Types, ListPage<KnownType> Lines, string? Words, Guid? TypeId,
    IReadOnlyList<UnsettledName> Unsettled,
    IReadOnlyDictionary<Guid, int> OnFile) : PageView
{
    /// <summary>So many names are asked about at once: each has the whole list to choose from.</summary>
    public const int MostUnsettled = 10;

    /// <summary>The list from its beginning: whoever looks further on, or for something, isn't asked about names first.</summary>
    public bool IsFirst => Lines.At == 1 && string.IsNullOrWhiteSpace(Words);

    /// <summary>The form of a type: as typed where it was refused, else as kept.</summary>
    public TypeForm Form => Typed<TypeForm>()
        ?? (Types.All.FirstOrDefault(type => type.Id == TypeId) is { } type ? TypeForm.Of(type) : new());

    public SettleForm Settled => Typed<SettleForm>() ?? new();

    /// <summary>Where a type is changed: beside the list as it is shown.</summary>
    public string HrefOf(KnownType type) => $"{Lines.Links("/shelf/types", ("type", $"{type.Id}"), ("q", Words)).HrefOf(Lines.At)}";
}

/// <summary>The type list: what models the shop knows, and the names that no list knows yet.</summary>
[Needs(Right.Look)]
public sealed class TypesModel(RivetDb db, ShopBoard board, TimeProvider clock) : ShopPage<TypesView>
{
    private const int MostLines = 50;
    private const string Here = "/shelf/types";

    [FromQuery(Name = "type")]
    public Guid? TypeId { get; set; }

    [FromQuery(Name = "q")]
    public string? Words { get; set; }

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostAsync(Guid post, TypeForm form, CancellationToken stop) =>
        AfterAsync(db.OnceAsync(post, clock, async () =>
        {
            var types = await db.TypesToChangeAsync(stop);
            var type = form.Id is { } id ? types.Find(row => row.Id == id) : new(Guid.CreateVersion7(), form.Kind, "", "");
            if (type is null || (form.Id is not null && type.Changes != form.Seen))
                return new("designation", "Somebody else changed it while you had it open. Theirs is kept; yours is still here.");
            // Whoever settles a name of an old shop may not know the maker; whoever types a type does.
            if (string.IsNullOrWhiteSpace(form.Maker))
                return new("maker", "Say who makes it, as on its plate.");
            var refusal = type.Describe(form.Maker, form.Designation, form.Names, new(types));
            if (refusal is null && form.Id is null)
                db.Put(type);
            return refusal;
        }, stop), Here, stop, form);

    /// <summary>Takes a type off the list that no file bears.</summary>
    [Needs(Right.KeepShelf)]
    public Task<IActionResult> OnPostRemoveAsync(Guid post, TypeForm form, CancellationToken stop) =>
        AfterAsync(db.OnceAsync(post, clock, async () =>
        {
            if (await db.FirstBearerAsync(form.Id, stop) is { } bearer)
                return new("designation", $"{bearer} bears it: put that right first.");
            // In the save, which counts it: what is kept of the shop is drawn anew without it.
            if ((await db.TypesToChangeAsync(stop)).Find(type => type.Id == form.Id) is { } there)
                db.Drop(there);
            return null;
        }, stop), Here, stop, form);

    /// <summary>Takes the answer to a name that no list knows.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostSettleAsync(Guid post, SettleForm form, CancellationToken stop)
    {
        var bulletins = await board.BulletinsAsync(stop);
        return await AfterAsync(db.OnceAsync(post, clock,
            () => db.SettleAsync(form.Kind, form.Name ?? "", form.ToAnswer(), bulletins, stop), stop), Here, stop, form);
    }

    protected override async Task<TypesView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        db.Forget();
        var shop = await board.StandingAsync(stop);
        var types = shop.Bulletins.Types;
        var words = (Words ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var found = types.All.Where(type => words.All(word =>
            $"{type.Kind.InWords()} {string.Join(' ', type.Names)}".Contains(word, StringComparison.OrdinalIgnoreCase)));
        return new(types, ListPage.Of([.. found], PageTyped, MostLines), Words, TypeId, shop.Models.Unsettled(shop.Bulletins),
            shop.Models.CountsOf(types));
    }
}
