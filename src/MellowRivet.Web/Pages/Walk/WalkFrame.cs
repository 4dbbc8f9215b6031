using System.Collections.Concurrent;
using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Due;
using MellowRivet.Core.People;
using MellowRivet.Core.Signing;
using MellowRivet.Core.Surveys;
using MellowRivet.Core.Worksheets;
using MellowRivet.Store;
using MellowRivet.Web.Drawings;

namespace MellowRivet.Web.Pages.Walk;

/// <summary>What a frame was drawn from.</summary>
/// <param name="Changes">The changes of the inspection.</param>
/// <param name="AircraftChanges">Those of the aircraft's file.</param>
/// <param name="Research">Its bulletins as they stood.</param>
/// <param name="People">The shop's people then.</param>
public sealed record FrameOf(int Changes, int AircraftChanges, BulletinResearch Research, IReadOnlyDictionary<Guid, Person> People)
{
    /// <summary>Whether what was drawn from this has all of the other in it.</summary>
    public bool Covers(FrameOf other) =>
        Changes >= other.Changes && AircraftChanges >= other.AircraftChanges && ReferenceEquals(Research, other.Research)
            && ReferenceEquals(People, other.People);
}

/// <summary>
/// What stands around every page of a walk: its seams, and how much stands between the aircraft and its signature. It takes the whole
/// inspection to draw, which is what every page of the walk shows until somebody writes; both are only read from then on.
/// </summary>
/// <param name="Of">What it was drawn from.</param>
/// <param name="Whole">The inspection with all that is in it.</param>
/// <param name="Seams">The seam of each station.</param>
/// <param name="ToLookAt">Tasks that nobody has answered.</param>
/// <param name="Airworthiness">Open airworthiness items.</param>
/// <param name="Other">Whatever else holds the signature up.</param>
/// <param name="Zones">Zone by zone, in walking order, who did it and who looked.</param>
/// <param name="Survey">How a survey stands; null for what is none.</param>
public sealed record WalkFrame(FrameOf Of, Job Whole, IReadOnlyDictionary<Station, IReadOnlyList<Rivet>> Seams, int ToLookAt,
    int Airworthiness, int Other, IReadOnlyList<ZoneState> Zones, SurveyStand? Survey = null)
{
    /// <param name="job">The whole inspection.</param>
    /// <param name="of">What it is drawn from.</param>
    /// <param name="rules">The rules and people it is weighed by.</param>
    /// <param name="due">What is due on its aircraft.</param>
    public static WalkFrame Draw(Job job, FrameOf of, ShopRules rules, DueLine due)
    {
        if (job.Inspection.IsSurvey)
            return Draw(job, of, rules, new SurveyStand(job.Inspection, job.Aircraft, due));
        // Bulletins are weighed at work; what was signed was weighed then.
        var research = job.Inspection.InWork ? of.Research : BulletinResearch.None;
        var ready = job.Inspection.InWork ? Readiness.Of(job.Inspection, job.Aircraft, rules, research) : Readiness.Signed(job.Inspection);
        return new(of, job, Stations.OfInspection
            .ToDictionary(station => station, station => Seam.Of(station, job.Inspection, ready.MaySign, research)),
            ready.Blockers.Count(blocker => blocker.Task is not null), ready.Unairworthy.Count,
            ready.Blockers.Count(blocker => blocker.Task is null),
            job.Inspection.JobOf is { } about
                ? [.. about.Zones.Select(zone => new ZoneState(zone.Key, zone.Title, Station.FixList, [], null, [], 0))]
                : job.Inspection.InWork ? ready.Zones : WhoseLook.Of(job.Inspection, job.Aircraft, rules));
    }

    private static WalkFrame Draw(Job job, FrameOf of, ShopRules rules, SurveyStand stand) => new(of, job, Stations.OfSurvey
        .ToDictionary(station => station, station => station == Station.Money ? Seam.OfMoney(stand, job.Inspection.Id)
            : Seam.Of(station, job.Inspection, false)), stand.NotLookedAt.Count, 0, 0,
        WhoseLook.Of(job.Inspection, job.Aircraft, rules), stand);
}

/// <summary>The latest frame of each walk that is at work.</summary>
public sealed class KeptFrames : IDisposable
{
    /// <summary>More than a shop has in work at once; beyond it one is drawn again.</summary>
    public const int Most = 64;

    private readonly ConcurrentDictionary<Guid, Kept<WalkFrame>> frames = [];

    /// <summary>The frames that are kept.</summary>
    public IEnumerable<WalkFrame> Latest => frames.Values.Select(frame => frame.Latest).OfType<WalkFrame>();

    public Task<WalkFrame> GetAsync(Guid walk, FrameOf now, Func<Task<WalkFrame>> draw, CancellationToken stop)
    {
        if (frames.Count >= Most && !frames.ContainsKey(walk) && frames.Keys.FirstOrDefault() is var other)
            frames.TryRemove(other, out _);
        return frames.GetOrAdd(walk, _ => new()).GetAsync(frame => frame.Of.Covers(now), _ => draw(), stop);
    }

    public void Dispose()
    {
        foreach (var frame in frames.Values)
            frame.Dispose();
    }
}
