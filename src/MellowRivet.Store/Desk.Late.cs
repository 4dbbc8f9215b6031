using MellowRivet.Core;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.OpenItems;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What a device has of an inspection that was signed meanwhile.</summary>
/// <param name="Post">What it was to be posted under.</param>
/// <param name="Words">What was said, in words.</param>
/// <param name="ZoneKey">The zone; null without one.</param>
/// <param name="At">When it was said.</param>
/// <param name="Photos">The pictures that came with it.</param>
/// <param name="IsCalm">It tells of nothing found or measured.</param>
public sealed record SaidLate(Guid Post, string Words, string? ZoneKey, DateTimeOffset At, IReadOnlyList<Photo> Photos, bool IsCalm);

// What was said before a signature, and arrives after it.
public sealed partial class Desk
{
    /// <summary>When an inspection was signed, where that was after something was said; null where it wasn't.</summary>
    public async Task<DateTimeOffset?> SignedSinceAsync(Guid inspectionId, DateTimeOffset said, CancellationToken stop)
    {
        var signed = await db.SignedRecords.Where(record => record.InspectionId == inspectionId).Select(record => record.SignedAt)
            .ToListAsync(stop);
        return signed.Count > 0 && signed.Min() is var first && first > said ? first : null;
    }

    /// <summary>Leaves open on the aircraft what was said of an inspection before it was signed without it.</summary>
    /// <param name="inspectionId">The inspection.</param>
    /// <param name="said">What was said.</param>
    /// <param name="classes">What words speak for.</param>
    /// <param name="by">Who said it.</param>
    /// <param name="stop">Stops waiting.</param>
    /// <returns>The number that it stands under; null where it was refused.</returns>
    public async Task<(Written Written, string? Number)> LeaveLateAsync(Guid inspectionId, SaidLate said, ClassRules classes, Guid by,
        CancellationToken stop)
    {
        var written = await db.OnceAsync(said.Post, clock, async () =>
        {
            if (await db.Inspections.Include(row => row.Tasks).FirstOrDefaultAsync(row => row.Id == inspectionId, stop) is not
                { InWork: false, IsSurvey: false } inspection
                || await SignedSinceAsync(inspectionId, said.At, stop) is not { } signedAt)
                return new("inspection", "It wasn’t signed since that was said.");
            var stem = OpenItem.NumberSinceSigned(inspection, null);
            var number = await db.OpenItems.CountAsync(item => item.AircraftId == inspection.AircraftId
                && item.FirstNumber.StartsWith(stem), stop);
            var name = await db.People.Where(person => person.Id == by).Select(person => person.Name).SingleAsync(stop);
            var late = new LateWord(said.Post, said.Words, said.ZoneKey, by, name, clock.Here(said.At), clock.Here(signedAt),
                clock.Here(clock.GetUtcNow()), said.Photos, said.IsCalm);
            await LeaveOpenAsync(inspection.AircraftId,
                [new(inspection, late, classes.Guess(said.Words, null, said.ZoneKey), number + 1, clock.Today())], stop);
            return null;
        }, stop);
        return (written, await db.OpenItems.Where(item => item.DiscrepancyId == said.Post).Select(item => item.FirstNumber)
            .FirstOrDefaultAsync(stop));
    }
}
