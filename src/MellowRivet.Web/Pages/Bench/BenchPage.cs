using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Bench;

/// <summary>A sheet of the bench: what was typed, and the answer to it.</summary>
/// <param name="In">What was typed.</param>
public abstract record BenchView(BenchTyped In) : PageView;

/// <summary>
/// A calculator that needs no aircraft. It keeps nothing: what is typed stands in the address, and the answer is the one the
/// open interface gives.
/// </summary>
[OwnersSee(Through.Nothing)]
public abstract class BenchPage<TView> : ShopPage<TView> where TView : BenchView
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Answers what was typed; null where there is no such sheet.</summary>
    protected abstract TView? Answer(BenchTyped typed);

    protected sealed override Task<TView?> ViewAsync(Refused refused, CancellationToken stop) =>
        Task.FromResult(Answer(new(Request.Query)));
}
