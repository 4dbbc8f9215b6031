using MellowRivet.Core;
using MellowRivet.Store;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Shared;

/// <summary>What was sent and not taken: as it was typed, so that it stays in its fields, and what is wrong with which field.</summary>
/// <param name="Form">The form or the words; null where nothing has to stay.</param>
/// <param name="Refusals">What is wrong, each beside its field.</param>
public sealed record Refused(object? Form, IReadOnlyList<Refusal> Refusals)
{
    public static readonly Refused Nothing = new(null, []);
}

/// <summary>Everything that a page's markup reads. It is made at the end of a handler, in one place, and only read from then on.</summary>
public abstract record PageView
{
    /// <summary>What was sent and not taken; nothing where the page is merely looked at.</summary>
    public Refused Refused { get; init; } = Refused.Nothing;

    /// <summary>What is wrong with a field, or with the first of several that something is; null where nothing is.</summary>
    public string? Problem(params string[] fields) =>
        fields.Select(field => Refused.Refusals.FirstOrDefault(refusal => refusal.Field == field)?.Message)
            .FirstOrDefault(said => said is not null);

    /// <summary>A form that was typed and refused; null where none was, or another one.</summary>
    public T? Typed<T>() where T : class => Refused.Form as T;
}

/// <summary>A page of the shop, by what it shows: what its layout reads.</summary>
public abstract class ShopPage : PageModel
{
    public abstract PageView Shown { get; }
}

/// <summary>A page that shows one view: a handler does its work, and ends in the view of what came of it.</summary>
/// <typeparam name="TView">What its markup reads.</typeparam>
public abstract class ShopPage<TView> : ShopPage where TView : PageView
{
    public TView View { get; private set; } = null!;

    public sealed override PageView Shown => View;

    /// <summary>Makes the view of things as they stand; null where there is nothing to show.</summary>
    /// <param name="refused">What was sent and not taken.</param>
    /// <param name="stop">Stops waiting.</param>
    protected abstract Task<TView?> ViewAsync(Refused refused, CancellationToken stop);

    /// <summary>Makes the view, for a handler that answers with a part of the page; false where there is nothing to show.</summary>
    protected async Task<bool> MakeAsync(CancellationToken stop, Refused? refused = null)
    {
        var what = refused ?? Refused.Nothing;
        if (await ViewAsync(what, stop) is not { } view)
            return false;
        View = view with { Refused = what };
        // What the filters and the layout ask, too.
        foreach (var refusal in what.Refusals)
            ModelState.AddModelError(refusal.Field, refusal.Message);
        return true;
    }

    /// <summary>Shows the page.</summary>
    protected async Task<IActionResult> ShowAsync(CancellationToken stop, Refused? refused = null) =>
        await MakeAsync(stop, refused) ? Page() : NotFound();

    /// <summary>Shows the page again, with what is wrong beside its field and what was typed still in it.</summary>
    protected Task<IActionResult> AgainAsync(Refusal refusal, CancellationToken stop, object? typed = null) =>
        ShowAsync(stop, new(typed, [refusal]));

    /// <summary>Goes where the work goes on, or shows the page again.</summary>
    protected async Task<IActionResult> AfterAsync(Written written, string onwards, CancellationToken stop, object? typed = null) =>
        written.Refusal is { } refusal ? await AgainAsync(refusal, stop, typed) : Redirect(onwards);

    /// <summary>The same once it is written.</summary>
    protected async Task<IActionResult> AfterAsync(Task<Written> writing, string onwards, CancellationToken stop, object? typed = null) =>
        await AfterAsync(await writing, onwards, stop, typed);
}
