using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Drawings;
using MellowRivet.Web.Hosting;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Walk.Surveying;

/// <summary>What the due items cost, as it is sent: an item, and its cost beside it.</summary>
public sealed record DueCostsForm(IReadOnlyList<Guid> Item, IReadOnlyList<string?> Cost);

/// <summary>A reserve, as it is sent.</summary>
public sealed record ReserveForm(string? Key, string? What, string? Sum);

/// <summary>What is said of an engine or propeller, as it is sent.</summary>
public sealed record PowerForm(Guid Part, TypedPower Typed);

/// <summary>A link to the report, as it is sent.</summary>
public sealed record ReportLinkForm(string? To, int Days, LinkFor For);

/// <summary>What a survey comes to.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
/// <param name="Stand">How it stands.</param>
/// <param name="MayWrite">Whoever looks may write on it, ended or not.</param>
/// <param name="Links">The links to its report.</param>
/// <param name="Address">The address of a link that was just made: shown once.</param>
/// <param name="Now">The moment.</param>
public sealed record MoneyView(WalkShown Walk, SurveyStand Stand, bool MayWrite, IReadOnlyList<OwnerLink> Links, string? Address,
    DateTimeOffset Now) : WalkView(Walk)
{
    public override Station At => Station.Money;

    public Survey Survey => Stand.Survey;
    public SurveyMoney Money => Stand.Money;
    public string Here => $"/walk/{Id}/money";

    /// <summary>Its bar; null without a price in order.</summary>
    public SurveyBar? Bar => SurveyBar.Of(Stand, Job.Inspection.House);

    /// <summary>The terms as typed, else as they stand.</summary>
    public TypedTerms Terms => Typed<TypedTerms>() ?? TypedTerms.Of(Survey.Terms);

    public string Sum(decimal sum) => Job.Inspection.House.Sum(Math.Round(sum));

    /// <summary>A spread, to read: "3,200 (2,500 to 4,800)".</summary>
    public string Sum(Spread sum) => sum.IsRange ? $"{Sum(sum.Likely)} ({Sum(sum.Low)} to {Sum(sum.High)})" : Sum(sum.Likely);
}

/// <summary>The money at a survey's end, and its end.</summary>
[Needs(Right.RecordWork)]
public sealed class MoneyModel(Desk desk, RivetDb db, KeptFrames frames, OutgoingMail outbox, RivetSettings settings,
    WorkClock clock)
    : WalkPage<MoneyView>(desk, db, frames)
{
    private string? address;

    private string Here => $"/walk/{Id}/money";

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Puts the terms right.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostTermsAsync(Guid post, TypedTerms typed, CancellationToken stop)
    {
        var (terms, wrong) = typed.Read();
        return terms is null ? await ShowAsync(stop, new(typed, wrong)) : await SayAsync(post, job =>
        {
            job.Inspection.Agree(terms);
            return null;
        }, "#terms", stop, typed);
    }

    /// <summary>Says who pays something found, whether it was hidden, and whether it ends the deal.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostMarkAsync(Guid post, int number, bool sellerPays, bool hidden, bool stops, string? back,
        CancellationToken stop) => SayAsync(post, job => job.Inspection.Mark(new(number, sellerPays, hidden, stops)), "#findings", stop,
            back: back);

    /// <summary>Says what due items cost.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostDueAsync(Guid post, List<Guid> item, List<string?> cost, CancellationToken stop) =>
        SayAsync(post, job =>
        {
            foreach (var (id, typed) in item.Zip(cost))
            {
                var (sum, problem) = Estimate.ReadPrice(typed, "What it costs");
                if (problem is not null)
                    return new($"due-{id}", problem);
                job.Inspection.Say(id, sum);
            }
            return null;
        }, "#due", stop, new DueCostsForm(item, cost));

    /// <summary>Says what an engine's or a propeller's money rests on.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostPowerAsync(Guid post, Guid part, TypedPower typed, CancellationToken stop) => SayAsync(post, job =>
    {
        if (job.Aircraft.Fitting(part) is null)
            return new("power", "That part is not on this aircraft.");
        var (said, refusal) = typed.Read(part);
        if (said is not null)
            job.Inspection.Say(said);
        return refusal;
    }, "#power", stop, new PowerForm(part, typed));

    /// <summary>Holds a sum in reserve, or takes it back.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostReserveAsync(Guid post, string? key, string? what, string? sum, CancellationToken stop) =>
        SayAsync(post, job =>
        {
            var held = TypedNumber.Parse(sum);
            return TypedNumber.IsNone(sum, held) || (held is null && string.IsNullOrEmpty(key))
                ? new("reserve", "A sum from 0 up, without thousands apart.")
                : job.Inspection.Hold(string.IsNullOrEmpty(key) ? $"own-{post:N}" : key, what, held is { } kept
                    ? Math.Round((decimal)Math.Clamp(kept, -1, (double)SurveyQuestion.MostMoney), 2) : null);
        }, "#reserve", stop, new ReserveForm(key, what, sum));

    /// <summary>The buyer wants it looked at further.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostGoOnAsync(Guid post, CancellationToken stop)
    {
        var line = await LineAsync(stop);
        return line is null ? NotFound() : await SayAsync(post, job =>
        {
            if (new SurveyStand(job.Inspection, job.Aircraft, line).Stop is { } told)
                job.Inspection.GoOn(told, Me, clock.GetUtcNow());
            return null;
        }, "", stop, back: $"/walk/{Id}");
    }

    /// <summary>Ends the looking.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostEndAsync(Guid post, string? why, CancellationToken stop) => SayAsync(post,
        job => job.Inspection.Closed() ?? job.Inspection.EndSurvey(job.Aircraft, why, Me, clock.GetUtcNow()), "#end", stop,
            new EndForm(why));

    /// <summary>Takes it up again.</summary>
    [Needs(Right.RecordWork)]
    public Task<IActionResult> OnPostUpAsync(Guid post, CancellationToken stop) =>
        AfterAsync(Desk.SurveyAsync(Id, post, async job => await Db.SurveyUnderWayAsync(job.Aircraft.Id, stop) is { } other
            ? new("end", $"Another survey of it, {other.WorkOrder}, is under way: end that one first.")
            : job.Inspection.TakeUpSurvey(), stop), $"{Here}#end", stop);

    /// <summary>Says that it was bought, or not.</summary>
    [Needs(Right.TakeIn)]
    public async Task<IActionResult> OnPostOutcomeAsync(Guid post, bool bought, CancellationToken stop) =>
        await LoadAsync(stop) is not { } walk ? NotFound()
        : bought ? await AfterAsync(Desk.BoughtAsync(Id, post, Me, stop), $"/aircraft/{walk.Job.Aircraft.Id}/open-items", stop)
        : await AfterAsync(Desk.NotBoughtAsync(Id, post, Me, stop), $"{Here}#end", stop);

    /// <summary>Makes a link to the report, for one of the two sides.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public async Task<IActionResult> OnPostLinkAsync(Guid post, string? to, int days, LinkFor reader, CancellationToken stop)
    {
        var typed = new ReportLinkForm(to, days, reader);
        var (link, token, refusal) = reader is LinkFor.Buyer or LinkFor.Seller
            ? OutgoingMail.Takes(to) || string.IsNullOrWhiteSpace(to) ? OwnerLink.Make(post, Id, to, days, Me, clock.GetUtcNow(), reader)
                : (null, "", new("to", "One mail address, as name@place."))
            : (null, "", new("to", "For the buyer, or for the seller."));
        address = $"{settings.Address(Request)}/survey/{token}";
        using var mail = outbox.For(post);
        var written = refusal is not null ? new Written(refusal) : await Desk.SurveyAsync(Id, post, async job =>
        {
            Db.Put(link!);
            return await MailAsync(mail, link!, job, stop);
        }, stop);
        if (written is { Done: true, Repeated: false })
            mail.Send();
        else
            address = null;
        return written.Refusal is { } wrong ? await AgainAsync(wrong.At("link"), stop, typed)
            : written.Repeated ? Redirect($"{Here}#links")
            : await ShowAsync(stop);
    }

    private Task<Refusal?> MailAsync(WaitingMail mail, OwnerLink link, Job job, CancellationToken stop)
    {
        var (inspection, registration) = (job.Inspection, job.Aircraft.Registration);
        var what = link.For == LinkFor.Buyer ? "the report" : "the list of what was found";
        return mail.WriteAsync(link.SentTo, $"{registration}: {what} of the survey",
            $"""
            {registration} was surveyed, work order {inspection.WorkOrder}. Here is {what}:

            {address}

            The link is for you alone and needs no sign-in. It ends on {clock.Here(link.Ends):yyyy-MM-dd}. {SurveyWords.NoInspection}
            """, stop);
    }

    /// <summary>Ends a link at once.</summary>
    [Needs(Right.CorrectDiscrepancies)]
    public Task<IActionResult> OnPostRevokeAsync(Guid post, Guid link, CancellationToken stop) =>
        AfterAsync(Db.RevokeAsync(Id, link, post, clock, stop), $"{Here}#links", stop);

    private async Task<Core.Due.DueLine?> LineAsync(CancellationToken stop) =>
        await Db.AircraftOfAsync(Id, stop) is { } aircraft ? await Desk.Board.LineAsync(aircraft, stop) : null;

    private Task<IActionResult> SayAsync(Guid post, Func<Job, Refusal?> say, string anchor, CancellationToken stop, object? typed = null,
        string? back = null) => AfterAsync(Desk.SurveyAsync(Id, post, job => Task.FromResult(job.Inspection.Survey!.Outcome is null
            ? say(job)
            : new Refusal("inspection", "What came of it is said: it stays as it was.")), stop),
            Url.IsLocalUrl(back) ? back! : Here + anchor, stop, typed);

    protected override async Task<MoneyView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop) =>
        walk.Frame.Survey is { } stand
            ? new(walk, stand, User.May(Right.RecordWork) && stand.Survey.Outcome is null, await Db.OwnerLinksAsync(Id, stop), address,
                clock.GetUtcNow())
            : null;
}

/// <summary>Why a survey ends early, as it is sent.</summary>
public sealed record EndForm(string? Why);
