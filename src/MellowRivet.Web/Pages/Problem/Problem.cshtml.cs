using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Problem;

// Re-executed for whatever method failed, so it takes any; it only says what happened.
[IgnoreAntiforgeryToken]
[OpenToAll("it says what went wrong, and nothing of the shop")]
public sealed class ProblemModel : PageModel
{
    [BindProperty(SupportsGet = true)]
    public int Status { get; set; }
}
