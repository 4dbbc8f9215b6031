using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

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
}

/// <summary>The type list: what models the shop knows, and the names that no list knows yet.</summary>
[Needs(Right.Look)]
public sealed class TypesModel(RivetDb db, ShopBoard board, TimeProvider clock) : PageModel
{
    private const int MostLines = 50;

    /// <summary>So many names are asked about at once: each has the whole list to choose from.</summary>
    public const int MostUnsettled = 10;

    [FromQuery(Name = "type")]
    public Guid? TypeId { get; set; }

    [FromQuery(Name = "q")]
    public string? Words { get; set; }

    public TypeList Types { get; private set; } = TypeList.Empty;

    /// <summary>Which page of them, from 1.</summary>
    [FromQuery(Name = "page")]
    public int? PageTyped { get; set; }

    public ListPage<KnownType> Shown { get; private set; } = new([], 1, 1, 0);
    public IReadOnlyList<UnsettledName> Unsettled { get; private set; } = [];

    /// <summary>On how many aircraft and parts each type stands.</summary>
    public IReadOnlyDictionary<Guid, int> OnFile { get; private set; } = new Dictionary<Guid, int>();

    /// <summary>The list from its beginning: whoever looks further on, or for something, isn't asked about names first.</summary>
    public bool IsFirst => Shown.At == 1 && string.IsNullOrWhiteSpace(Words);
    public TypeForm Form { get; private set; } = new();
    public SettleForm Settled { get; private set; } = new();

    /// <summary>Where a type is changed: beside the list as it is shown.</summary>
    public string HrefOf(KnownType type) => $"{Shown.Links("/shelf/types", ("type", $"{type.Id}"), ("q", Words)).HrefOf(Shown.At)}";

    public string? Problem(string field) => ModelState[field]?.Errors.FirstOrDefault()?.ErrorMessage;

    public async Task OnGetAsync(CancellationToken stop)
    {
        await LoadAsync(stop);
        if (Types.All.FirstOrDefault(type => type.Id == TypeId) is { } type)
            Form = new() { Id = type.Id, Kind = type.Kind, Maker = type.Maker, Designation = type.Designation,
                Aliases = string.Join("\n", type.Aliases), Seen = type.Changes };
    }

    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostAsync(Guid post, TypeForm form,
        CancellationToken stop) => await AfterAsync(await db.OnceAsync(post, clock, async () =>
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
    }, stop), () => Form = form, stop);

    /// <summary>Takes a type off the list that no file bears.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostRemoveAsync(Guid post, TypeForm form,
        CancellationToken stop) => await AfterAsync(await db.OnceAsync(post, clock, async () =>
    {
        if (await db.FirstBearerAsync(form.Id, stop) is { } bearer)
            return new("designation", $"{bearer} bears it: put that right first.");
        // In the save, which counts it: what is kept of the shop is drawn anew without it.
        if ((await db.TypesToChangeAsync(stop)).Find(type => type.Id == form.Id) is { } there)
            db.Drop(there);
        return null;
    }, stop), () => Form = form, stop);

    /// <summary>Takes the answer to a name that no list knows.</summary>
    [Needs(Right.KeepShelf)]
    public async Task<IActionResult> OnPostSettleAsync(Guid post, SettleForm form, CancellationToken stop)
    {
        var bulletins = await board.BulletinsAsync(stop);
        return await AfterAsync(await db.OnceAsync(post, clock, () =>
            db.SettleAsync(form.Kind, form.Name
                ?? "", TypeAnswer.Of(form.Means == "other" ? form.Other?.ToString() : form.Means, form.Maker, null), bulletins, stop),
                stop), () => Settled = form, stop);
    }

    private async Task<IActionResult> AfterAsync(Written written, Action typed, CancellationToken stop)
    {
        if (written.Done)
            return Redirect("/shelf/types");
        db.Forget();
        await LoadAsync(stop);
        typed();
        ModelState.AddModelError(written.Refusal!.Field, written.Refusal.Message);
        return Page();
    }

    private async Task LoadAsync(CancellationToken stop)
    {
        var shop = await board.StandingAsync(stop);
        Types = shop.Bulletins.Types;
        Unsettled = shop.Models.Unsettled(shop.Bulletins);
        OnFile = shop.Models.CountsOf(Types);
        var words = (Words ?? "").Split(' ', StringSplitOptions.RemoveEmptyEntries);
        Shown =
            ListPage.Of(
                [.. Types.All.Where(type =>
                    words.All(word => $"{type.Kind.InWords()} {string.Join(' ', type.Names)}".Contains(word,
                        StringComparison.OrdinalIgnoreCase)))], PageTyped, MostLines);
    }
}
