using MellowRivet.Core;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.FixList;

/// <summary>A link for the owner, as it is sent.</summary>
public sealed record LinkForm(string? To, int Days);

/// <summary>The owner's side of the fix list.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Owner">The lines that the owner sees.</param>
/// <param name="Links">The links that were made.</param>
/// <param name="Address">The address of a link that was just made: shown once, and in its mail.</param>
/// <param name="Now">The moment.</param>
public sealed record OwnerView(WalkShown Walk, OwnerList Owner, IReadOnlyList<OwnerLink> Links, string? Address, DateTimeOffset Now)
    : WalkView(Walk)
{
    private const int UsualDays = 21;

    public override Station At => Station.FixList;

    /// <summary>The owner's mail: as typed, else where this inspection's last link went.</summary>
    public string? TypedTo => Typed<LinkForm>()?.To ?? (Links is [var last, ..] ? last.SentTo : null);
    public int TypedDays => Typed<LinkForm>()?.Days ?? UsualDays;

    public bool HoldsNow(OwnerLink link) => link.HoldsAt(Now);
}

/// <summary>The owner's side of the fix list: links made, opened and ended, what was answered.</summary>
[Needs(Right.CorrectDiscrepancies)]
public sealed class OwnerModel(Desk desk, RivetDb db, KeptFrames frames, OutgoingMail outbox, RivetSettings settings,
    TimeProvider clock)
    : WalkPage<OwnerView>(desk, db, frames)
{
    protected override bool IsOfInspections => true;

    private string? address;

    private string Here => $"/walk/{Id}/fix-list/owner";

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Makes a link, asks the owner about every open line if wanted, and puts the mail into the outbox.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostAsync(Guid post, string? to, int days, bool askAll, CancellationToken stop)
    {
        var now = clock.GetUtcNow();
        var typed = new LinkForm(to, days);
        var (link, token, refusal) = OwnerLink.Make(post, Id, to, days, Me, now);
        if (refusal is null && !OutgoingMail.Takes(to))
            refusal = new("to", "The owner's mail address: one, as name@place.");
        address = $"{settings.Address(Request)}/owner/{token}";
        using var mail = outbox.For(post);
        var written = refusal is not null ? new(refusal) : await Desk.WriteAskingAsync(Id, post, async job =>
        {
            Db.Put(link!);
            if (askAll)
                job.Inspection.AskAll(Me, now);
            return await MailAsync(mail, link!, job, stop);
        }, stop, JobParts.Discrepancies);
        if (written is { Done: true, Repeated: false })
            mail.Send();
        else
            address = null;
        return written.Refusal is { } wrong ? await AgainAsync(wrong.At(wrong.Field is "days" ? "days" : "to"), stop, typed)
            : written.Repeated ? Redirect(Here)
            : await ShowAsync(stop, new(typed, []));
    }

    private Task<Refusal?> MailAsync(WaitingMail mail, OwnerLink link, Job job, CancellationToken stop)
    {
        var (inspection, registration) = (job.Inspection, job.Aircraft.Registration);
        var asked = OwnerList.Of(inspection).Lines.Count(found => found.Disposition == Disposition.Asked);
        var (about, order) = ($"the {inspection.Kind.InWords()} of {registration}", inspection.WorkOrder);
        var until = clock.Here(link.Ends);
        const string whatThen = "On that page you approve, decline or ask, line by line.";
        return mail.WriteAsync(link.SentTo, $"{registration}: what was found, and what we ask you",
            $"""
            At {about}, work order {order}, we found things that we want to ask you about: {asked} of them now, with photos.

            {address}

            The link is for you alone and needs no sign-in. It ends on {until:yyyy-MM-dd}. {whatThen}
            """, stop);
    }

    /// <summary>Ends a link at once.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostRevokeAsync(Guid post, Guid link, CancellationToken stop) =>
        AfterAsync(Db.RevokeAsync(Id, link, post, clock, stop), Here, stop);

    protected override async Task<OwnerView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        new(walk, OwnerList.Of(walk.Job.Inspection), await Db.OwnerLinksAsync(Id, stop), address, clock.GetUtcNow());
}
