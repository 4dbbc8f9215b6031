using MellowRivet.Core;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.Parts;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

// What an inspection's work is put at, and what it took.
public sealed partial class Desk
{
    /// <summary>Due items that are done with an inspection, as its plan has them.</summary>
    public async Task<IReadOnlyList<DueWork>> DuePlannedAsync(Inspection inspection, CancellationToken stop)
    {
        if (inspection.JobOf is not null || inspection.IsSurvey)
            return [];
        var line = await Board.LineAsync(inspection.AircraftId, stop);
        return [.. WorkPlan.DueOf(inspection, line.OwnItems).Where(item => !item.IsLeftOut)
            .Select(item => new DueWork(item.Entry.Item.Id, item.Entry.Title, item.Entry.Item.LabourHours))];
    }

    /// <inheritdoc cref="DuePlannedAsync(Inspection, CancellationToken)"/>
    public async Task<IReadOnlyList<DueWork>> DuePlannedAsync(Guid inspectionId, CancellationToken stop) =>
        await JobAsync(inspectionId, stop, JobParts.Tasks | JobParts.Discrepancies) is { } job
            ? await DuePlannedAsync(job.Inspection, stop) : [];

    /// <summary>Starts a person's clock on a line of an inspection. One that runs elsewhere is stopped: nobody is in two places.</summary>
    /// <param name="started">The clock, with the line it is on.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="stop">Stops waiting.</param>
    public Task<Written> StartClockAsync(BookedTime started, Guid post, CancellationToken stop) =>
        WriteAskingAsync(started.InspectionId, post, async _ =>
        {
            if (await db.RunningAsync(started.By, stop) is { } other)
            {
                if ((other.InspectionId, other.Key) == (started.InspectionId, started.Key))
                    return null;
                if (other.Stop(null, started.From) is { } refusal)
                    return refusal;
            }
            db.Put(started);
            return null;
        }, stop, JobParts.Bare);

    /// <summary>Stops a person's clock, wherever it runs.</summary>
    public Task<Written> StopClockAsync(Guid person, string? hours, Guid post, CancellationToken stop) => db.OnceAsync(post, clock,
        async () =>
        await db.RunningAsync(person, stop) is { } running ? running.Stop(hours, clock.GetUtcNow()) : null, stop);

    /// <summary>Books hours as typed, or takes off those that somebody booked by mistake.</summary>
    public Task<Written> BookAsync(BookedTime booked, Guid post, CancellationToken stop) =>
        WriteAsync(booked.InspectionId, post, _ =>
        {
            db.Put(booked);
            return null;
        }, stop, JobParts.Bare);

    /// <summary>Takes off hours that a person booked themselves, while the inspection is in work.</summary>
    public Task<Written> UnbookAsync(Guid inspectionId, Guid id, Guid by, Guid post, CancellationToken stop) =>
        WriteAskingAsync(inspectionId, post, async _ =>
        {
            if (await db.BookedAsync(id, by, stop) is not { } booked || booked.InspectionId != inspectionId)
                return new("hours", "These are not yours to take off.");
            db.Remove(booked);
            return null;
        }, stop, JobParts.Bare);

    /// <summary>
    /// Fits some of a part that came: into the aircraft's file where it takes the place of a part there, both or neither.
    /// </summary>
    /// <param name="seen">The part.</param>
    /// <param name="post">The id the form carried.</param>
    /// <param name="take">What of it is fitted, of the part as it stands in its turn.</param>
    /// <param name="stop">Stops waiting.</param>
    public Task<Written> FitAsync(OrderedPart seen, Guid post, Func<OrderedPart, TakenOut> take, CancellationToken stop)
    {
        return seen.AircraftId is { } id ? WriteFileAsync(id, post, IntoAsync, stop) : db.OnceAsync(post, clock, () => IntoAsync(null),
            stop);

        async Task<Refusal?> IntoAsync(Aircraft? aircraft) =>
            await db.OrderedParts.FirstOrDefaultAsync(row => row.Id == seen.Id, stop) is { } part
                ? part.FitInto(aircraft, take(part), clock.Today())
                : new("part", "It is not on the list any more.");
    }

    /// <summary>Clocks that run on an inspection stop with its signature; one that was forgotten says nothing, and goes.</summary>
    private async Task StopClocksAsync(Guid inspectionId, DateTimeOffset at, CancellationToken stop)
    {
        foreach (var running in await db.BookedTimes.Where(row => row.InspectionId == inspectionId && row.Hours == null).ToListAsync(stop))
            if (running.Stop(null, at) is not null)
                db.Remove(running);
    }
}
