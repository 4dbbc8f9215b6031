using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages;

// Re-executed for whatever method failed, so it takes any; it only says what happened.
[AllowAnonymous, IgnoreAntiforgeryToken]
public sealed class ProblemModel : PageModel
{
    [BindProperty(SupportsGet = true)]
    public int Status { get; set; }
}
