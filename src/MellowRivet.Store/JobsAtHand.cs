using System.Collections.Concurrent;

namespace MellowRivet.Store;

/// <summary>
/// The inspections that were just worked on or looked at, as they were left: whoever comes next takes one up instead of loading
/// hundreds of tasks again. One is in one pair of hands at a time, so nobody sees what another is in the middle of; whoever finds
/// nothing here loads. Whether it is still the latest the database says, by the revisions of the inspection and its aircraft.
/// </summary>
public sealed class JobsAtHand
{
    /// <summary>More than a shop has in work at once; beyond it an older one is loaded again.</summary>
    public const int Most = 32;

    private readonly ConcurrentDictionary<Guid, Job> jobs = [];

    /// <summary>Takes one up, and away from everybody else; null where it isn't here.</summary>
    public Job? Take(Guid inspectionId) => jobs.TryRemove(inspectionId, out var job) ? job : null;

    /// <summary>Leaves one for the next; a signed one is not worked on any more.</summary>
    public void Lay(Job job)
    {
        if (!job.Inspection.InWork)
            return;
        if (jobs.Count >= Most && jobs.Keys.FirstOrDefault() is var other)
            jobs.TryRemove(other, out _);
        jobs[job.Inspection.Id] = job;
    }
}
