using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Fleet.Job;

/// <summary>A job as it is sent: what is to be done, or what a pilot did as preventive maintenance.</summary>
public sealed class JobForm
{
    public Guid Post { get; set; }
    public string? Title { get; set; }
    public string? Zone { get; set; }
    public Guid? Due { get; set; }
    public Guid? Open { get; set; }

    // What a pilot did, and the pilot's signature.
    public string? Action { get; set; }
    public string? Reference { get; set; }
    public string? PartNumber { get; set; }
    public string? SerialOut { get; set; }
    public string? SerialIn { get; set; }
    public string? Password { get; set; }

    /// <summary>What was done, in the words of the entry.</summary>
    public Correction ToCorrection() => new(Action?.Trim() ?? "", CorrectionKind.Repaired, Reference?.Trim() ?? "",
        string.IsNullOrWhiteSpace(PartNumber) ? null : [new(PartNumber.Trim(), SerialOut?.Trim() ?? "", SerialIn?.Trim() ?? "")]);
}

/// <summary>Work without an inspection around it: what it can be, and who may do it.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Zones">Where it can lie.</param>
/// <param name="Usual">Jobs that are usual.</param>
/// <param name="Due">What falls due.</param>
/// <param name="Open">What earlier inspections left open.</param>
/// <param name="MayTake">Whoever looks may take a job.</param>
/// <param name="Preventive">By which certificate whoever looks may do preventive maintenance on it, or why not.</param>
/// <param name="Asked">What the list says of the job that was typed; null before.</param>
public sealed record JobView(FileShown File, IReadOnlyList<JobZone> Zones, IReadOnlyList<UsualJob> Usual, IReadOnlyList<DueEntry> Due,
    IReadOnlyList<OpenItem> Open, bool MayTake, SigningAnswer Preventive, WhoMayAnswer? Asked) : FileView(File)
{
    public override FilePage At => FilePage.Job;

    public JobForm Form => Typed<JobForm>() ?? new();

    /// <summary>A pilot who owns or operates it: the form of preventive maintenance is theirs.</summary>
    public bool IsPilots => !MayTake && Preventive.Source is not null;

    public IEnumerable<(UsualJob Job, JobZone Zone)> Offered => Usual.SelectMany(job => Zones
        .Where(zone => zone.Key == job.Zone || zone.Key.StartsWith(job.Zone + "-", StringComparison.Ordinal)).Select(zone => (job, zone)));
}

/// <summary>Takes a job: an oil change, a tyre, a due item, an open item; or enters what its pilot did.</summary>
[EnableRateLimiting("signing")]
public sealed class JobModel(Desk desk, RivetDb db, Shelf shelf, TimeProvider clock, PasswordAgain again)
    : FleetPage<JobView>(desk, db, clock)
{
    // Words that are on the list, so that the answer is about the pilot and the aircraft.
    private static readonly WhoMayAnswer Listed = new(MayDo.Owner, [], [], [], null, "");

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Takes a job: it is in work from here on.</summary>
    [Needs(Right.TakeIn)]
    public async Task<IActionResult> OnPostAsync(JobForm form, CancellationToken stop)
    {
        var house = await Db.HouseRulesAsync(stop);
        var written = await Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            var due = await Desk.Board.InTurnAsync(Id, stop);
            TypedJob typed = new(form.Title, form.Zone, due.OwnItems.Entries.FirstOrDefault(entry => entry.Item.Id == form.Due),
                form.Open is { } open ? await Db.ItemAsync(open, stop) : null);
            if ((form.Due is not null && typed.Due is null) || (form.Open is not null && typed.Open is not { IsOpen: true }))
                return new("title", "That isn’t open or due any more.");
            if (await Db.InWorkAsync(Id, stop) is { } work)
                return new("title", $"{work.WorkOrder} is in work on it: do it there.");
            if (!shelf.RulesFor(aircraft.Category).DoesJobs(aircraft.Category))
                return new("title", $"{shelf.RulesFor(aircraft.Category).Title} has no words to enter work without an inspection with.");
            var (job, refusal) = typed.Begin(form.Post, aircraft, await OrderAsync(stop), house, preventive: false, Me, Today,
                Clock.GetUtcNow());
            if (job is not null)
                Db.Put(job);
            return refusal;
        }, stop);
        return await AfterAsync(written, $"/walk/{form.Post}", stop, form);
    }

    /// <summary>Enters and signs what a pilot did as preventive maintenance, in one turn.</summary>
    [Needs(Right.Sign)]
    public async Task<IActionResult> OnPostPreventiveAsync(JobForm form, CancellationToken stop)
    {
        if (await again.CheckAsync(User, form.Password, stop) is { } wrong)
            return await AgainAsync(new("password", wrong), stop, form);
        var (house, rules) = (await Db.HouseRulesAsync(stop), await Desk.RulesAsync(stop));
        var written = await Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            var (shop, at) = (rules(aircraft), Clock.GetUtcNow());
            if (shop.Pack.MayDoPreventive(shop.People[Me], aircraft, Ask(form, aircraft.Category), Today) is var answer
                && answer.By is null)
                return new("title", answer.Reason);
            if (await Db.InWorkAsync(Id, stop) is { } work)
                return new("title", $"{work.WorkOrder} is in work on it: tell the shop.");
            if (form.ToCorrection() is var done && done.Reference.Length == 0)
                return new("reference", "By which data: manual, chapter, revision. The entry names it.");
            TypedJob typed = new(form.Title, form.Zone, null, null);
            var (job, refusal) = typed.Begin(form.Post, aircraft, await OrderAsync(stop), house, preventive: true, Me, Today, at);
            if (job is null)
                return refusal;
            if (job.JobLine!.Correct(done, new(house with { AskFirst = false }, 0), Me, at) is { } not)
                return not;
            Db.Put(job);
            var due = await Desk.Board.InTurnAsync(Id, stop);
            return Desk.Seal(Db, new(job, aircraft, shop, due, Today, Clock), new(shop.People[Me], answer.By), at);
        }, stop);
        return await AfterAsync(written, $"/walk/{form.Post}/records", stop, form);
    }

    private WhoMayAnswer Ask(JobForm form, Core.Fleet.Category category) => shelf.WhoMay.Ask($"{form.Title} {form.Action}", category);

    private async Task<string> OrderAsync(CancellationToken stop) =>
        TakingIn.NextOrder(Today, await Db.WorkOrdersAsync(TakingIn.OrdersOf(Today), stop));

    protected override async Task<JobView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop)
    {
        var due = await Desk.Board.LineAsync(Id, stop);
        var me = (await Desk.Board.PeopleAsync(stop))[Me];
        var aircraft = file.Aircraft;
        var pilot = RulePack.IsItsPilot(me, aircraft, Today) is not null
            ? shelf.RulesFor(aircraft.Category).MayDoPreventive(me, aircraft, Listed, Today)
            : new(null, "", null);
        return new(file, JobOf.ZonesOf(aircraft), shelf.UsualJobs,
            [.. due.OwnItems.Entries.Where(entry => entry.Item.Kind is not (DueKind.Inspection or DueKind.Instrument))
            .Take(8)], await Db.OpenItemsAsync(Id, stop), User.May(Right.TakeIn), pilot,
            refused.Form is JobForm { Title: { Length: > 0 } } form ? Ask(form, aircraft.Category) : null);
    }
}
