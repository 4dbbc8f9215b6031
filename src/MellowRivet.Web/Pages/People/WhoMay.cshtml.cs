using MellowRivet.Core;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.People;

/// <summary>Who may do a job.</summary>
/// <param name="List">What an owner may do.</param>
/// <param name="Job">The job that is asked about.</param>
/// <param name="Category">The category of the aircraft; null for any.</param>
/// <param name="Answer">The answer; null before a job is asked about.</param>
public sealed record WhoMayView(WhoMay List, string? Job, Category? Category, WhoMayAnswer? Answer) : PageView;

/// <summary>Looks up who may do a job: the owner, the owner under supervision, a mechanic, an inspector.</summary>
[OwnersSee(Through.Nothing)]
[Needs(Right.Look)]
public sealed class WhoMayModel(Shelf shelf) : ShopPage<WhoMayView>
{
    private static readonly Refusal TooLong = new("job", $"Up to {WhoMay.LongestJob} characters: say the job in a few words.");

    [FromQuery(Name = "job")]
    public string? Job { get; set; }

    [FromQuery(Name = "category")]
    public Category? Category { get; set; }

    private bool IsTooLong => Job?.Length > WhoMay.LongestJob;

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => IsTooLong ? AgainAsync(TooLong, stop) : ShowAsync(stop);

    protected override Task<WhoMayView?> ViewAsync(Refused refused, CancellationToken stop) => Task.FromResult<WhoMayView?>(
        new(shelf.WhoMay, Job, Category, IsTooLong || string.IsNullOrWhiteSpace(Job) ? null : shelf.WhoMay.Ask(Job, Category)));
}
