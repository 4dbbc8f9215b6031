using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Library;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>What a decision about a bulletin rests on.</summary>
public sealed record Deciding(BulletinLine Line, BulletinFollowUp FollowUp, Person Me, Aircraft Aircraft);

/// <summary>The bulletins of the shop, looked up for one aircraft.</summary>
/// <param name="File">What every page of the file shows.</param>
/// <param name="Key">The bulletin that is asked for.</param>
/// <param name="All">Shows every one that needs nobody, too.</param>
/// <param name="Research">The bulletins.</param>
/// <param name="Stated">Facts that were read off the aircraft.</param>
/// <param name="People">Names of the shop's people.</param>
public sealed record BulletinsView(FileShown File, string? Key, bool All, BulletinResearch Research, IReadOnlyList<StatedFact> Stated,
    IReadOnlyDictionary<Guid, string> People) : FileView(File)
{
    public override FilePage At => FilePage.Bulletins;

    public BulletinLine? Current => Research.Find(Key);
    public string Here => HrefOf(FilePage.Bulletins);

    public BulletinPanel Panel =>
        new(Current!, Aircraft, Stated, InWork, false, MayKeep, MayRecord, Typed<ComplyForm>(), Typed<FactForm>(), Typed<string>(),
            named => Problem(named), person => person is { } id ? People.GetValueOrDefault(id, "") : "the service");

    public FactAsked Asked(MissingFact fact)
    {
        var typed = Typed<FactForm>() is { } form && form.Fact == fact.Name ? form : null;
        return new(fact.Name, fact.Waiting[0].Key, Here, null, fact.Waiting.Count, typed?.Value,
            Current is null && typed is not null ? Problem("value", "fact", "photo") : null);
    }
}

/// <summary>Every bulletin of the shop as it stands on one aircraft: facts read off, decisions, what was done, ferry flights.</summary>
[EnableRateLimiting("uploads")]
public sealed class BulletinsModel(Desk desk, RivetDb db, Uploads uploads, TimeProvider clock) : FleetPage<BulletinsView>(desk, db, clock)
{
    protected override bool ShowsTasks => true;

    [FromQuery(Name = "b")]
    public string? Key { get; set; }

    /// <summary>Shows every one that needs nobody, too.</summary>
    [FromQuery(Name = "all")]
    public bool All { get; set; }

    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Takes a fact that was read off the aircraft, with the picture of its plate.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostReadAsync(FactForm form, IFormFile? photo, CancellationToken stop)
    {
        var taken = await uploads.TakeInAsync(photo, stop);
        if (taken.Wrong("photo") is { } wrong)
            return await AgainAsync(wrong, stop, form);
        return await AfterAsync(Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            var line = (await LineAsync(aircraft.Id, stop)).Find(form.B);
            var target = line?.On is { } on ? aircraft.Fitting(on.ComponentId) : null;
            var (fact, refusal) = StatedFact.Take(aircraft, target, form.Fact ?? "", form.Value, form.Post, taken.Photo, Me,
                Clock.GetUtcNow(), Today);
            if (fact is not null)
                Db.Put(fact);
            return refusal;
        }, stop), BackTo(form.Walk, null), stop, form);
    }

    /// <summary>Adopts a bulletin as own policy, declines it, or takes either back.</summary>
    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostDecideAsync(Guid post, string? b, PolicyKind? kind, string? reason, Guid? walk,
        CancellationToken stop) =>
        AfterAsync(WriteAsync(post, b, on => on.FollowUp.Decide(on.Line, kind, reason, Me, Clock.GetUtcNow()), stop), BackTo(walk, b), stop,
            reason);

    /// <summary>Notes a compliance that the books tell of.</summary>
    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostComplyAsync(ComplyForm form, CancellationToken stop) =>
        AfterAsync(WriteAsync(form.Post, form.B, on =>
        {
            var (done, wrong) = form.Read(on.Line.Held.Revision, Me);
            return done is null ? wrong : on.FollowUp.Comply(on.Line.Bulletin, done, Today);
        }, stop), BackTo(null, form.B), stop, form);

    /// <summary>Takes back the latest compliance, noted by mistake.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostTakeBackAsync(Guid post, string? b, CancellationToken stop)
    {
        var signed = await Db.SignedOrdersAsync(Id, stop);
        return await AfterAsync(WriteAsync(post, b, on => on.FollowUp.TakeBack(signed), stop), BackTo(null, b), stop);
    }

    /// <summary>Notes that the conditions of the bulletin's own ferry allowance are met.</summary>
    [Needs(Right.KeepFile)]
    public Task<IActionResult> OnPostFerryAsync(Guid post, string? b, string[] ticked, Guid? walk, CancellationToken stop) =>
        AfterAsync(WriteAsync(post, b, on => on.Line.State == BulletinState.BeforeFlight
            ? on.FollowUp.AllowFerry(on.Line.Bulletin, ticked, on.Aircraft.TimeInService.Value, on.Me, Today)
            : new("ferry", "It doesn’t keep the aircraft on the ground: no ferry is needed."), stop), BackTo(walk, b), stop);

    private Task<Written> WriteAsync(Guid post, string? b, Func<Deciding, Refusal?> decide, CancellationToken stop) =>
        Desk.WriteFileAsync(Id, post, async aircraft =>
        {
            if ((await LineAsync(aircraft.Id, stop)).Find(b) is not { } line)
                return new("reason", "That bulletin isn’t on this aircraft’s list any more.");
            var me = await Db.PersonAsync(Me, stop);
            return decide(new(line, await Db.FollowUpAsync(line.Held.Family, aircraft.Id, line.On?.ComponentId, stop), me, aircraft));
        }, stop);

    private async Task<BulletinResearch> LineAsync(Guid aircraftId, CancellationToken stop) =>
        (await Desk.Board.InTurnAsync(aircraftId, stop)).Research;

    private string BackTo(Guid? walk, string? b) =>
        (walk is { } id ? $"/walk/{id}/bulletins" : HrefOf(FilePage.Bulletins)) + (b is null ? "" : $"?b={b}");

    protected override async Task<BulletinsView?> ViewAsync(FileShown file, Refused refused, CancellationToken stop) =>
        new(file, Key, All, await Desk.Board.ResearchAsync(Id, stop), await Db.StatedOnAsync([file.Aircraft], stop),
            await Db.NamesAsync(stop));
}
