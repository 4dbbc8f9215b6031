using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Mail;

/// <summary>The mail that would have left the shop.</summary>
public sealed record OutboxView(IReadOnlyList<OutMail> Mails) : PageView;

/// <summary>The mail that would have left the shop.</summary>
[Needs(Right.Look)]
public sealed class OutboxModel(OutgoingMail outbox) : ShopPage<OutboxView>
{
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>One mail as a file that mail programs open.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public IActionResult OnGetFile(string? name) =>
        outbox.Find(name ?? "") is { } path ? PhysicalFile(path, "message/rfc822", $"{name}.eml") : NotFound();

    protected override Task<OutboxView?> ViewAsync(Refused refused, CancellationToken stop) =>
        Task.FromResult<OutboxView?>(new(outbox.List()));
}
