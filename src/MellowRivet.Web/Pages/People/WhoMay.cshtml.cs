using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.People;

/// <summary>Looks up who may do a job: the owner, the owner under supervision, a mechanic, an inspector.</summary>
[Needs(Right.Look)]
public sealed class WhoMayModel(Shelf shelf) : PageModel
{
    [FromQuery(Name = "job")]
    public string? Job { get; set; }

    [FromQuery(Name = "category")]
    public Category? Category { get; set; }

    public WhoMay List => shelf.WhoMay;
    public WhoMayAnswer? Answer { get; private set; }

    public void OnGet()
    {
        if (Job?.Length > WhoMay.LongestJob)
            ModelState.AddModelError("job", $"Up to {WhoMay.LongestJob} characters: say the job in a few words.");
        else if (!string.IsNullOrWhiteSpace(Job))
            Answer = List.Ask(Job, Category);
    }
}
