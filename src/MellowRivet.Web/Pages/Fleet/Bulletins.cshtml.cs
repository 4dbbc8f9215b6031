using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Measures;
using MellowRivet.Core.People;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Library;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.RateLimiting;

namespace MellowRivet.Web.Pages.Fleet;

/// <summary>What a decision about a bulletin rests on.</summary>
public sealed record Deciding(BulletinLine Line, BulletinCase Case, Person Me, Aircraft Aircraft);

/// <summary>Every bulletin of the shop as it stands on one aircraft: facts read off, decisions, what was done, ferry flights.</summary>
[EnableRateLimiting("uploads")]
public sealed class BulletinsModel(Desk desk, RivetDb db, Uploads uploads, TimeProvider clock) : FleetPage(desk, db, clock)
{
    private Dictionary<Guid, string> people = [];
    private ComplyForm? typed;
    private FactForm? typedFact;
    private string? reason;

    public override FileSheet At => FileSheet.Bulletins;
    protected override bool ShowsTasks => true;

    [FromQuery(Name = "b")]
    public string? Key { get; set; }

    /// <summary>Shows every one that needs nobody, too.</summary>
    [FromQuery(Name = "all")]
    public bool All { get; set; }

    public BulletinResearch Research { get; private set; } = BulletinResearch.None;
    public IReadOnlyList<StatedFact> Stated { get; private set; } = [];
    public BulletinLine? Current { get; private set; }

    public bool MayRecord => User.May(Right.RecordWork);

    public string Here => $"/aircraft/{Id}/bulletins";

    public BulletinPanel Panel =>
        new(Current!, Aircraft, Stated, InWork, false, MayKeep, MayRecord, typed, typedFact, reason, named => Problem(named),
            person => person is { } id ? people.GetValueOrDefault(id, "") : "the service");

    public FactAsked Asked(MissingFact fact) =>
        new(fact.Name, fact.Waiting[0].Key, Here, null, fact.Waiting.Count, typedFact?.Fact == fact.Name ? typedFact.Value : null,
        Current is null && typedFact?.Fact == fact.Name ? Problem("value", "fact", "photo") : null);

    public async Task<IActionResult> OnGetAsync(CancellationToken stop) => await ShowAsync(stop) ? Page() : NotFound();

    /// <summary>Takes a fact that was read off the aircraft, with the picture of its plate.</summary>
    [Needs(Right.RecordWork)]
    public async Task<IActionResult> OnPostReadAsync(FactForm form, IFormFile? photo, CancellationToken stop)
    {
        var taken = await uploads.TakeInAsync(photo, stop);
        var written = taken.Wrong("photo") is { } wrong
            ? new Written(wrong)
            : await Desk.WriteFileAsync(Id, form.Post, async aircraft =>
        {
            var line = (await LineAsync(aircraft.Id, stop)).Find(form.B);
            var target = line?.On is { } on ? aircraft.Fitting(on.ComponentId) : null;
            var (fact, refusal) = StatedFact.Take(aircraft, target, form.Fact
                ?? "", form.Value, form.Post, taken.Photo, User.PersonId(), Clock.GetUtcNow(), Today);
            if (fact is not null)
                Db.Put(fact);
            return refusal;
        }, stop);
        return await AfterAsync(written, BackTo(form.Walk, null), async () =>
        {
            typedFact = form;
            return await ShowAsync(stop);
        });
    }

    /// <summary>Adopts a bulletin as own policy, declines it, or takes either back.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostDecideAsync(Guid post, string? b, PolicyKind? kind, string? reason, Guid? walk,
        CancellationToken stop)
    {
        var written = await WriteAsync(post, b, on =>
        {
            if (kind is { } decided)
                return Enum.IsDefined(decided)
                    ? on.Case.Decide(on.Line, decided, reason, User.PersonId(), Clock.GetUtcNow())
                    : new("reason", "Adopt it or decline it.");
            on.Case.Undecide();
            return null;
        }, stop);
        this.reason = reason;
        return await AfterAsync(written, BackTo(walk, b), () => ShowAsync(stop));
    }

    /// <summary>Notes a compliance that the books tell of.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostComplyAsync(ComplyForm form, CancellationToken stop)
    {
        var hours = TypedNumber.ParseHours(form.Hours);
        var written = form.On is not { } on
            ? new Written(new Refusal("on", "The day it was done is wanted."))
            : !string.IsNullOrWhiteSpace(form.Hours) && hours is null
            ? new Written(new Refusal("hours", "Hours as a number, 1234.5."))
            : await WriteAsync(form.Post, form.B,
                at => at.Case.Comply(at.Line.Bulletin,
                    new(on, hours?.Value, at.Line.Held.Revision, form.Method?.Trim()
                        ?? "", form.Finding, form.Terminating, form.Reference?.Trim() ?? "", User.PersonId()), Today), stop);
        typed = form;
        return await AfterAsync(written, BackTo(null, form.B), () => ShowAsync(stop));
    }

    /// <summary>Takes back the latest compliance, noted by mistake.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostTakeBackAsync(Guid post, string? b, CancellationToken stop)
    {
        var written = await WriteAsync(post, b, on =>
        {
            on.Case.TakeBack();
            return null;
        }, stop);
        return await AfterAsync(written, BackTo(null, b), () => ShowAsync(stop));
    }

    /// <summary>Notes that the conditions of the bulletin's own ferry allowance are met.</summary>
    [Needs(Right.KeepFile)]
    public async Task<IActionResult> OnPostFerryAsync(Guid post, string? b, string[] ticked, Guid? walk, CancellationToken stop)
    {
        var written = await WriteAsync(post, b, on => on.Line.State == BulletinState.BeforeFlight
            ? on.Case.AllowFerry(on.Line.Bulletin, ticked, on.Aircraft.TimeInService.Value, on.Me, Today)
            : new("ferry", "It doesn’t keep the aircraft on the ground: no ferry is needed."), stop);
        return await AfterAsync(written, BackTo(walk, b), () => ShowAsync(stop));
    }

    private Task<Written> WriteAsync(Guid post, string? b, Func<Deciding, Refusal?> decide, CancellationToken stop) =>
        Desk.WriteFileAsync(Id, post, async aircraft =>
        {
            if ((await LineAsync(aircraft.Id, stop)).Find(b) is not { } line)
                return new("reason", "That bulletin isn’t on this aircraft’s list any more.");
            var me = await Db.PersonAsync(User.PersonId(), stop);
            return decide(new(line, await Db.CaseAsync(line.Held.Family, aircraft.Id, line.On?.ComponentId, stop), me, aircraft));
        }, stop);

    private async Task<BulletinResearch> LineAsync(Guid aircraftId, CancellationToken stop) =>
        (await Desk.Board.InTurnAsync(aircraftId, stop)).Research;

    private string BackTo(Guid? walk, string? b) => (walk is { } id ? $"/walk/{id}/bulletins" : Here) + (b is null ? "" : $"?b={b}");

    private async Task<bool> ShowAsync(CancellationToken stop)
    {
        if (!await LoadAsync(stop))
            return false;
        Research = await Desk.Board.ResearchAsync(Id, stop);
        Stated = await Db.StatedOnAsync([Aircraft], stop);
        people = await Db.NamesAsync(stop);
        Current = Research.Find(Key);
        return true;
    }
}
