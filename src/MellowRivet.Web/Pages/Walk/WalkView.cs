using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Pages.Shared;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>What stands on and around every page of a walk.</summary>
/// <param name="Job">What of the inspection and its aircraft the page shows.</param>
/// <param name="Frame">What stands around the page.</param>
/// <param name="Research">The shop's bulletins as they stand on this aircraft.</param>
/// <param name="Weighed">The rules and people that this inspection is weighed by.</param>
/// <param name="Me">Whoever looks at the page.</param>
/// <param name="MayRecord">They may write on it.</param>
/// <param name="Clock">Their clock that runs, here or at another inspection; null where none does.</param>
public sealed record WalkShown(Job Job, WalkFrame Frame, BulletinResearch Research, ShopRules Weighed, Guid Me, bool MayRecord,
    BookedTime? Clock);

/// <summary>What a page of a walk shows; the names are those its markup reads.</summary>
/// <param name="Walk">What every page of the walk shows.</param>
public abstract record WalkView(WalkShown Walk) : PageView
{
    /// <summary>The station it belongs to.</summary>
    public abstract Station At { get; }

    /// <summary>Where "found something" starts from.</summary>
    public virtual string? ZoneHere => null;

    /// <summary>The task that is open, where the page is a zone's.</summary>
    public virtual Guid? TaskHere => null;

    public Guid Id => Job.Inspection.Id;
    public Job Job => Walk.Job;
    public WalkFrame Frame => Walk.Frame;
    public BulletinResearch Research => Walk.Research;
    public ShopRules Weighed => Walk.Weighed;
    public bool MayRecord => Walk.MayRecord;

    /// <summary>The certificate by which whoever looks at the page may sign this inspection; null where they may not.</summary>
    public Certificate? Signs => Weighed.SignsBy(Walk.Me, Job.Inspection, Job.Aircraft);

    public string Initials(Guid? person) => Person(person)?.Initials ?? "";

    public string NameOf(Guid? person) => Person(person)?.Name ?? "";

    public Person? Person(Guid? person) => person is { } id ? Weighed.People.GetValueOrDefault(id) : null;

    /// <summary>The stations of the walk; a job has no zones to go over, and a survey has stations of its own.</summary>
    public IReadOnlyList<Station> Stations => Job.Inspection.IsSurvey ? Core.Worksheets.Stations.OfSurvey
        : Job.Inspection.JobOf is null ? Core.Worksheets.Stations.OfInspection
        : [.. new[] { Station.Engine, Station.FixList, Station.Close }
            .Where(station => station != Station.Engine || Job.Aircraft.Configuration.Engines > 0)];

    /// <summary>Where a station is.</summary>
    public string HrefOf(Station station) => Job.Inspection.JobOf is not null && station == Station.Engine
        ? $"/walk/{Id}/compressions" : $"/walk/{Id}/{Drawings.Seam.Place(station)}";

    /// <summary>The station that is shown as the one where this page is: at a survey the engine's sheets are among what is dear.</summary>
    public Station ShownAt => Job.Inspection.IsSurvey && At is Station.Engine or Station.Airframe ? Station.Dear : At;

    public string TitleOf(Station station) => station == Station.FixList && Job.Inspection.IsSurvey ? "Findings"
        : char.ToUpperInvariant(station.InWords()[0]) + station.InWords()[1..];
}
