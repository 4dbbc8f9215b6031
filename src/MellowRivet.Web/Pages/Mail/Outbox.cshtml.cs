using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Mail;

/// <summary>The mail that would have left the shop.</summary>
[Needs(Right.Look)]
public sealed class OutboxModel(OutgoingMail outbox) : PageModel
{
    public IReadOnlyList<OutMail> Mails { get; private set; } = [];

    [Needs(Right.CorrectDiscrepancies)]
    public void OnGet() => Mails = outbox.List();

    /// <summary>One mail as a file that mail programs open.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public IActionResult OnGetFile(string? name) =>
        outbox.Find(name ?? "") is { } path ? PhysicalFile(path, "message/rfc822", $"{name}.eml") : NotFound();
}
