using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.People;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Access;
using MellowRivet.Web.Look;
using Microsoft.AspNetCore.Mvc;
using Microsoft.AspNetCore.Mvc.RazorPages;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>A page on the sheet of one inspection's walk: what the sheet's frame shows is loaded here.</summary>
[Needs(Right.Look)]
public abstract class WalkPage(Desk desk, RivetDb db) : PageModel
{
    private Dictionary<Guid, Person> people = [];

    [FromRoute]
    public Guid Id { get; set; }

    public Job Job { get; private set; } = null!;
    public Readiness Readiness { get; private set; } = null!;

    /// <summary>The shop's bulletins as they stand on this aircraft.</summary>
    public BulletinResearch Research { get; private set; } = BulletinResearch.None;
    public abstract Station At { get; }

    /// <summary>The page shows the bulletins that don't apply as well.</summary>
    protected virtual bool WholeResearch => false;

    /// <summary>Where "found something" starts from.</summary>
    public virtual string? ZoneHere => null;

    /// <summary>The task that is open, where the page is a zone's.</summary>
    public virtual Guid? TaskHere => null;

    public bool MayRecord => Job.Inspection.InWork && Access.ShopSignIn.May(User, Right.RecordWork);

    protected Desk Desk => desk;
    protected RivetDb Db => db;

    /// <param name="stop">Stops waiting.</param>
    /// <param name="written">The inspection as a post just left it, so that it isn't fetched again; null to fetch it.</param>
    protected async Task<bool> LoadAsync(CancellationToken stop, Job? written = null)
    {
        if ((written ?? await desk.JobAsync(Id, stop)) is not { } job)
            return false;
        Job = job;
        Research = WholeResearch ? await desk.ResearchAsync(job.Aircraft.Id, stop) : job.Inspection.InWork ? (await desk.DueLineAsync(job.Aircraft, stop)).Research : BulletinResearch.None;
        Readiness = Readiness.Of(job.Inspection, job.Aircraft, Research);
        await LoadPeopleAsync(stop);
        return true;
    }

    protected async Task LoadPeopleAsync(CancellationToken stop)
    {
        if (people.Count == 0)
            people = await db.People.AsNoTracking().ToDictionaryAsync(person => person.Id, stop);
    }

    public string Initials(Guid? person) => person is { } id && people.TryGetValue(id, out var found) ? found.Initials : "";

    public string NameOf(Guid? person) => person is { } id && people.TryGetValue(id, out var found) ? found.Name : "";

    protected Person? Person(Guid id) => people.GetValueOrDefault(id);

    public IReadOnlyList<Rivet> SeamOf(Station station) => Seam.Of(station, Job.Inspection, Readiness.MaySign, Research);

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
