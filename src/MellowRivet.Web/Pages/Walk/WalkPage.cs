using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>A page on the sheet of one inspection's walk: what the sheet's frame shows is loaded here.</summary>
[Needs(Right.Look)]
public abstract class WalkPage(Desk desk, RivetDb db, KeptFrames frames) : PageModel
{
    private Func<Aircraft, ShopRules>? rules;

    [FromRoute]
    public Guid Id { get; set; }

    public Job Job { get; private set; } = null!;

    /// <summary>What stands around the page.</summary>
    public WalkFrame Frame { get; private set; } = null!;

    /// <summary>The shop's bulletins as they stand on this aircraft.</summary>
    public BulletinResearch Research { get; private set; } = BulletinResearch.None;
    public abstract Station At { get; }

    /// <summary>What of the inspection and its aircraft the page shows.</summary>
    protected virtual JobParts Shows => JobParts.Tasks | JobParts.Discrepancies;

    /// <summary>The page shows the bulletins that don't apply as well.</summary>
    protected virtual bool WholeResearch => false;

    /// <summary>Where "found something" starts from.</summary>
    public virtual string? ZoneHere => null;

    /// <summary>The task that is open, where the page is a zone's.</summary>
    public virtual Guid? TaskHere => null;

    public bool MayRecord => Job.Inspection.InWork && Access.ShopSignIn.May(User, Right.RecordWork);

    protected Desk Desk => desk;
    protected RivetDb Db => db;

    /// <summary>Loads what the page shows, and the frame around it, which is drawn where something was written since.</summary>
    /// <param name="stop">Stops waiting.</param>
    /// <param name="written">The inspection as a post just left it, so that it isn't fetched again; null to fetch it.</param>
    protected async Task<bool> LoadAsync(CancellationToken stop, Job? written = null)
    {
        if (await desk.RevisionAsync(Id, stop) is not { } now)
            return false;
        var shop = await desk.Board.StandingAsync(stop);
        rules = desk.Rules(shop.People);
        var due = shop[now.AircraftId] ?? throw new InvalidOperationException("There is no such aircraft.");
        var job = written;
        // The aircraft is the board's, which holds every part of it and is only read.
        async Task<Job> WithAsync(JobParts parts) =>
            job = job is null ? (await desk.JobAsync(Id, stop, parts, due.Due.Aircraft))!
                : await desk.WithAsync(job, parts, stop, due.Due.Aircraft);
        Frame = await frames.GetAsync(Id, new(now.Changes, due.Changes, due.Due.Research, shop.People), async () =>
        {
            // What has to be fetched to draw it is what the page shows, too.
            var whole = await WithAsync(JobParts.Whole);
            return WalkFrame.Draw(whole, new(whole.Inspection.Changes, due.Changes, due.Due.Research, shop.People), rules(whole.Aircraft));
        }, stop);
        Job = await WithAsync(Shows);
        Weighed = rules(Job.Aircraft);
        Research = WholeResearch ? await desk.Board.ResearchAsync(Job.Aircraft.Id, stop) : Job.Inspection.InWork
            ? due.Due.Research
            : BulletinResearch.None;
        return true;
    }

    /// <summary>Loads some of the inspection to answer a question about it, without the frame that a whole page has around it.</summary>
    protected async Task<bool> LookAsync(JobParts parts, CancellationToken stop)
    {
        if (await desk.JobAsync(Id, stop, parts) is not { } job)
            return false;
        Job = job;
        return true;
    }

    /// <summary>Loads more of it: what the page turns out to show.</summary>
    protected async Task AlsoAsync(JobParts parts, CancellationToken stop) => Job = await desk.WithAsync(Job, parts, stop);

    /// <summary>A page of the engine station whose engine or part came off meanwhile: the station itself says so.</summary>
    [NonHandler]
    public override void OnPageHandlerExecuted(PageHandlerExecutedContext context)
    {
        if (context.Result is NotFoundResult && HttpMethods.IsGet(Request.Method) && Job is not null && At == Station.Engine
            && (!Job.Aircraft.Engines.Any()
                || Job.Aircraft.Installations.Any(stay => !stay.IsOn
                    && RouteData.Values.Values.Any(value => value is string id && Guid.TryParse(id, out var part)
                        && part == stay.ComponentId))))
            context.Result = Redirect($"/walk/{Id}/engine");
    }

    /// <summary>The rules and people that this inspection is weighed by.</summary>
    public ShopRules Weighed { get; private set; } = null!;

    /// <summary>The certificate by which whoever looks at the page may sign this inspection; null where they may not.</summary>
    public Certificate? Signs => Weighed.SignsBy(User.PersonId(), Job.Inspection, Job.Aircraft);

    /// <summary>The rules of each aircraft, and the shop's people, read once for a request.</summary>
    protected async Task<Func<Aircraft, ShopRules>> RulesAsync(CancellationToken stop) => rules ??= await desk.RulesAsync(stop);

    public string Initials(Guid? person) => person is { } id && Weighed.People.TryGetValue(id, out var found) ? found.Initials : "";

    public string NameOf(Guid? person) => person is { } id && Weighed.People.TryGetValue(id, out var found) ? found.Name : "";

    protected Person? Person(Guid id) => Weighed.People.GetValueOrDefault(id);

    /// <summary>Puts a refusal beside its field.</summary>
    protected void Refuse(Refusal refusal) => ModelState.AddModelError(refusal.Field, refusal.Message);

    public string? Problem(string field) => ModelState[field]?.Errors.FirstOrDefault()?.ErrorMessage;

    public static string NameOf(Station station) => station switch
    {
        Station.LookAndOpen => "Look & open",
        Station.FixList => "Fix list",
        _ => station.ToString(),
    };
}
