using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Owners;

/// <summary>An answer that an owner gave to a line.</summary>
/// <param name="Number">The line.</param>
/// <param name="Words">A question or a remark.</param>
public sealed record OwnerForm(int Number, string? Words);

/// <summary>One answer to many lines, as it is sent.</summary>
public sealed record OwnerManyForm(OwnerLines Which, string? Under);

/// <summary>The owner's page of one inspection.</summary>
/// <param name="Link">The link it is looked at by.</param>
/// <param name="Token">Its key.</param>
/// <param name="Job">The inspection with its aircraft.</param>
/// <param name="Owner">What the owner is told and asked.</param>
/// <param name="Plan">The plan of the hangar; null once it is signed.</param>
public sealed record OwnerView(OwnerLink Link, string Token, Job Job, OwnerList Owner, PlanNow? Plan) : PageView
{
    /// <summary>What was typed to a line and refused; null where nothing was.</summary>
    public OwnerForm? TypedFor(Discrepancy found) => Typed<OwnerForm>() is { } form && form.Number == found.Number ? form : null;

    /// <summary>With so few lines all of them stand open; with more each opens by a touch.</summary>
    public bool IsShort => Owner.Lines.Count <= 6;

    public string? TypedUnder => Typed<OwnerManyForm>()?.Under;

    /// <summary>Why it was.</summary>
    public string? Why => Refused.Refusals is [var refusal, ..] ? refusal.Message : null;
}

/// <summary>The owner's page of one inspection: a link is the key, nobody signs in, and nothing else can be reached from it.</summary>
[EnableRateLimiting("owner")]
[OpenToAll("whoever has the link of a list")]
public sealed class ListModel(Desk desk, RivetDb db, PlanDesk plans, TimeProvider clock) : ShopPage<OwnerView>
{
    [FromRoute]
    public string Token { get; set; } = "";

    public async Task<IActionResult> OnGetAsync(CancellationToken stop)
    {
        if (!await MakeAsync(stop))
            return NotFound();
        await db.OpenedAsync(View.Link.Id, clock.GetUtcNow(), stop);
        return Page();
    }

    public async Task<IActionResult> OnPostAsync(Guid post, int number, OwnerAnswer answer, string? words, string? seen,
        CancellationToken stop) =>
        await db.OwnerLinkAsync(Token, clock, stop) is not { } link
            ? NotFound()
            : await AfterAsync(desk.WriteAsync(link.InspectionId, post, job => OwnerList.Of(job.Inspection)
                .Answer(number, answer, words, clock.GetUtcNow(), seen), stop, JobParts.Discrepancies),
                $"/owner/{Token}#line-{number}", stop, new OwnerForm(number, words));

    /// <summary>One answer to many lines.</summary>
    public async Task<IActionResult> OnPostManyAsync(Guid post, OwnerLines which, string? under, OwnerAnswer answer, string? seen,
        CancellationToken stop) =>
        await db.OwnerLinkAsync(Token, clock, stop) is not { } link
            ? NotFound()
            : await AfterAsync(desk.WriteAsync(link.InspectionId, post, job => OwnerList.Of(job.Inspection)
                .AnswerMany(which, under, answer, seen, clock.GetUtcNow()), stop, JobParts.Discrepancies), $"/owner/{Token}", stop,
                new OwnerManyForm(which, under));

    /// <summary>The answer to work that is no discrepancy.</summary>
    public Task<IActionResult> OnPostWorkAsync(Guid post, string? key, OwnerAnswer answer, string? seen, CancellationToken stop) =>
        SayAsync(post, owner => owner.AnswerWork(key, answer, seen, clock.GetUtcNow()), $"#{key}", stop);

    /// <summary>Takes one of the ways side by side.</summary>
    public Task<IActionResult> OnPostChooseAsync(Guid post, Guid choice, int index, string? seen, CancellationToken stop) =>
        SayAsync(post, owner => owner.Inspection.Choose(choice, index, seen, null, clock.GetUtcNow()), $"#choice-{choice:N}", stop);

    private async Task<IActionResult> SayAsync(Guid post, Func<OwnerList, Refusal?> say, string anchor, CancellationToken stop) =>
        await db.OwnerLinkAsync(Token, clock, stop) is not { } link
            ? NotFound()
            : await AfterAsync(desk.WriteAsync(link.InspectionId, post, job => say(OwnerList.Of(job.Inspection)), stop,
                JobParts.Discrepancies), $"/owner/{Token}{anchor}", stop);

    // A link that ended and one that never was look the same from outside.
    protected override async Task<OwnerView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        if (await db.OwnerLinkAsync(Token, clock, stop) is not { } link
            || await desk.JobAsync(link.InspectionId, stop, JobParts.Tasks | JobParts.Discrepancies) is not { } job)
            return null;
        Response.Headers.CacheControl = "no-store";
        return new(link, Token, job, OwnerList.Of(job.Inspection), job.Inspection.InWork ? await plans.NowAsync(stop) : null);
    }
}
