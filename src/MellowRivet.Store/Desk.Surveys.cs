using MellowRivet.Core;
using MellowRivet.Core.Surveys;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

// Surveys: what goes on with one whose looking has ended, and what becomes of the aircraft.
public sealed partial class Desk
{
    /// <summary>
    /// Carries out a post on a survey, under way or ended: the price is talked about after the looking. In turn, once, wholly or not at
    /// all.
    /// </summary>
    /// <param name="inspectionId">The survey's walk.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="decide">Does the work, or says why not.</param>
    /// <param name="stop">Stops waiting.</param>
    public async Task<Written> SurveyAsync(Guid inspectionId, Guid post, Func<Job, Task<Refusal?>> decide, CancellationToken stop)
    {
        var written = await db.OnceAsync(post, clock, async () =>
            await LoadAsync(inspectionId, JobParts.Whole, tracking: true, stop) is { Inspection.Survey: not null } job
                ? await decide(job)
                : new("inspection", "There is no such survey."), stop);
        if (written is { Done: true, Repeated: false })
            feed.Written(inspectionId, post);
        return written;
    }

    /// <summary>
    /// The buyer bought it: what was found stays open on the aircraft, which the shop looks after from now on, and whoever owned it until
    /// now doesn't see it any more.
    /// </summary>
    public Task<Written> BoughtAsync(Guid inspectionId, Guid post, Guid by, CancellationToken stop) =>
        SurveyAsync(inspectionId, post, async job =>
        {
            var (at, today) = (clock.GetUtcNow(), clock.Today());
            if (job.Inspection.Came(new(true, by, at)) is { } refusal)
                return refusal;
            if (await db.InWorkAsync(job.Aircraft.Id, stop) is { } work)
                return new("outcome", $"{work.WorkOrder} is in work on it: what was found would pass it by. Close that one first.");
            job.Aircraft.Joins();
            db.SettleOpenItems(job.Inspection, by, today);
            foreach (var person in (await db.People.ToListAsync(stop)).Where(person => person.OwnsOn(job.Aircraft.Id, today)))
                foreach (var owned in person.Owns.Where(one => one.AircraftId == job.Aircraft.Id && one.HoldsOn(today)).ToList())
                    if (person.Own(owned with { Until = owned.From < today ? today.AddDays(-1) : today }) is { } wrong)
                        return wrong with { Field = "outcome" };
            return null;
        }, stop);

    /// <summary>It wasn't bought: it stays on file as a survey.</summary>
    public Task<Written> NotBoughtAsync(Guid inspectionId, Guid post, Guid by, CancellationToken stop) =>
        SurveyAsync(inspectionId, post, job => Task.FromResult(job.Inspection.Came(new(false, by, clock.GetUtcNow()))), stop);

    /// <summary>How a survey stands; null where there is no such survey.</summary>
    public async Task<(Job Job, SurveyStand Stand)?> SurveyStandAsync(Guid inspectionId, CancellationToken stop) =>
        await JobAsync(inspectionId, stop) is { Inspection.Survey: not null } job
            ? (job, new SurveyStand(job.Inspection, job.Aircraft, await Board.LineAsync(job.Aircraft.Id, stop)))
            : null;
}
