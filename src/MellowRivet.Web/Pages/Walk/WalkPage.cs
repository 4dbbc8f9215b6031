using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.Filters;
using Microsoft.AspNetCore.Mvc.RazorPages;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>A page that is about one inspection.</summary>
public interface IOfInspection
{
    /// <summary>The inspection, once it is loaded.</summary>
    Inspection? Inspection { get; }
}

/// <summary>A page on the sheet of one inspection's walk: what the sheet's frame shows is loaded here.</summary>
[OwnersSee(Through.Walk)]
[Needs(Right.Look)]
public abstract class WalkPage<TView>(Desk desk, RivetDb db, KeptFrames frames) : ShopPage<TView>, IOfInspection where TView : WalkView
{
    private Func<Aircraft, ShopRules>? rules;
    private Job? seen;

    Inspection? IOfInspection.Inspection => seen?.Inspection;

    [FromRoute]
    public Guid Id { get; set; }

    /// <summary>The page shows the bulletins that don't apply as well.</summary>
    protected virtual bool WholeResearch => false;

    /// <summary>The page has no place at a survey, of which nothing is signed and nobody is asked to approve anything.</summary>
    protected virtual bool IsOfInspections => false;

    /// <summary>The page is one of the engine's.</summary>
    protected virtual bool OfEngine => false;

    protected Desk Desk => desk;
    protected RivetDb Db => db;
    protected Guid Me => User.PersonId();

    protected sealed override async Task<TView?> ViewAsync(Refused refused, CancellationToken stop) =>
        await LoadAsync(stop) is { } walk ? await ViewAsync(walk, refused, stop) : null;

    /// <summary>Makes the view of a walk that is loaded; null where there is nothing to show.</summary>
    protected abstract Task<TView?> ViewAsync(WalkShown walk, Refused refused, CancellationToken stop);

    /// <summary>
    /// What the page shows, and the frame around it: fetched and drawn where something was written since; null where there is no such
    /// inspection.
    /// </summary>
    protected async Task<WalkShown?> LoadAsync(CancellationToken stop)
    {
        if (await desk.RevisionAsync(Id, stop) is not { } now)
            return null;
        var shop = await desk.Board.StandingAsync(stop);
        rules = desk.Rules(shop.People);
        var due = shop[now.AircraftId] ?? throw new InvalidOperationException("There is no such aircraft.");
        // The aircraft is the board's, which holds every part of it and is only read.
        var frame = await frames.GetAsync(Id, new(now.Changes, due.Changes, due.Due.Research, shop.People), async () =>
        {
            var whole = (await desk.JobAsync(Id, stop, JobParts.Whole, due.Due.Aircraft))!;
            return WalkFrame.Draw(whole, new(whole.Inspection.Changes, due.Changes, due.Due.Research, shop.People), rules(whole.Aircraft),
                due.Due);
        }, stop);
        seen = frame.Whole with { Aircraft = due.Due.Aircraft };
        var inWork = seen.Inspection.InWork;
        var research = WholeResearch ? await desk.Board.ResearchAsync(seen.Aircraft.Id, stop)
            : inWork ? due.Due.Research : BulletinResearch.None;
        return new(seen, frame, research, rules(seen.Aircraft), Me, inWork && User.May(Right.RecordWork), await db.RunningAsync(Me, stop));
    }

    /// <summary>Loads some of the inspection to answer a question about it, without the frame that a whole page has around it.</summary>
    protected async Task<Job?> LookAsync(JobParts parts, CancellationToken stop) => seen = await desk.JobAsync(Id, stop, parts);

    /// <summary>A survey has its own pages in the place of those that ask an owner or sign.</summary>
    [NonHandler]
    public override async Task OnPageHandlerExecutionAsync(PageHandlerExecutingContext context, PageHandlerExecutionDelegate next)
    {
        if (IsOfInspections && await db.IsSurveyAsync(Id, HttpContext.RequestAborted))
            context.Result = HttpMethods.IsGet(Request.Method) ? Redirect($"/walk/{Id}/money") : NotFound();
        else
            await base.OnPageHandlerExecutionAsync(context, next);
    }

    /// <summary>A page of the engine station whose engine or part came off meanwhile: the station itself says so.</summary>
    [NonHandler]
    public override void OnPageHandlerExecuted(PageHandlerExecutedContext context)
    {
        if (context.Result is NotFoundResult && HttpMethods.IsGet(Request.Method) && OfEngine && seen is { Aircraft: var aircraft }
            && (!aircraft.Engines.Any() || RouteData.Values.Values.Any(value => CameOff(aircraft, value))))
            context.Result = Redirect($"/walk/{Id}/engine");
    }

    private static bool CameOff(Aircraft aircraft, object? named) =>
        named is string id && Guid.TryParse(id, out var part) && aircraft.Installations.Any(stay => !stay.IsOn && stay.ComponentId == part);

    /// <summary>The rules of each aircraft, and the shop's people, read once for a request.</summary>
    protected async Task<Func<Aircraft, ShopRules>> RulesAsync(CancellationToken stop) => rules ??= await desk.RulesAsync(stop);

    /// <summary>Does the work on the inspection, then goes on, or shows the page again.</summary>
    protected Task<IActionResult> WriteAsync(Guid post, string onwards, Func<Job, Refusal?> decide, CancellationToken stop,
        JobParts parts = JobParts.Whole, object? typed = null) =>
        AfterAsync(desk.WriteAsync(Id, post, decide, stop, parts), onwards, stop, typed);
}
