using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.FixList;

/// <summary>The owner's side of the fix list: links made, opened and ended, what was answered.</summary>
public sealed class OwnerModel(Desk desk, RivetDb db, KeptFrames frames, OutgoingMail outbox, TimeProvider clock)
    : WalkPage(desk, db, frames)
{
    public override Station At => Station.FixList;

    public OwnerList Owner { get; private set; } = null!;
    public IReadOnlyList<OwnerLink> Links { get; private set; } = [];

    /// <summary>The address of a link that was just made: shown once, and in its mail.</summary>
    public string? Address { get; private set; }
    public string? TypedTo { get; private set; }
    public int TypedDays { get; private set; } = 21;

    public bool HoldsNow(OwnerLink link) => link.HoldsAt(clock.GetUtcNow());

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>Makes a link, asks the owner about every open line if wanted, and puts the mail into the outbox.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostAsync(Guid post, string? to, int days, bool askAll, CancellationToken stop)
    {
        (TypedTo, TypedDays) = (to, days);
        var (me, now) = (User.PersonId(), clock.GetUtcNow());
        var (link, token, refusal) = OwnerLink.Make(post, Id, to, days, me, now);
        if (refusal is null && !OutgoingMail.Takes(to))
            refusal = new("to", "The owner's mail address: one, as name@place.");
        var written = refusal is not null ? new(refusal) : await Desk.WriteAsync(Id, post, job =>
        {
            Db.Put(link!);
            if (askAll)
                foreach (var found in job.Inspection.Discrepancies.Where(found => found.Disposition == Disposition.Open
                    && found.Class is not DiscrepancyClass.KnownMark))
                    found.Move(Disposition.Asked, null, job.Inspection.House, me, now);
            return null;
        }, stop, JobParts.Discrepancies);
        if (!await ShowAsync(stop))
            return NotFound();
        if (written.Refusal is { } wrong)
        {
            Refuse(wrong with { Field = wrong.Field is "days" ? "days" : "to" });
            return Page();
        }
        if (written.Repeated)
            return Redirect($"/walk/{Id}/fix-list/owner");
        Address = $"{Request.Scheme}://{Request.Host}/owner/{token}";
        var until = clock.Here(link!.Ends);
        var asked = Owner.Lines.Count(found => found.Disposition == Disposition.Asked);
        var (about, order) = ($"the {Job.Inspection.Kind.InWords()} of {Job.Aircraft.Registration}", Job.Inspection.WorkOrder);
        await outbox.SendAsync("The shop", link.SentTo, $"{Job.Aircraft.Registration}: what was found, and what we ask you",
            $"""
            At {about}, work order {order}, we found things that we want to ask you about: {asked} of them now, with photos.

            {Address}

            The link is for you alone and needs no sign-in. It ends on {until:yyyy-MM-dd}. On that page you approve, decline or ask, line by line.
            """, stop);
        return Page();
    }

    /// <summary>Ends a link at once.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostRevokeAsync(Guid post, Guid link, CancellationToken stop)
    {
        await Db.OnceAsync(post, clock, async () =>
        {
            await Db.RevokeAsync(Id, link, clock.GetUtcNow(), stop);
            return null;
        }, stop);
        return Redirect($"/walk/{Id}/fix-list/owner");
    }

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        Owner = OwnerList.Of(Job.Inspection);
        Links = await Db.OwnerLinksAsync(Id, stop);
        return true;
    }
}
