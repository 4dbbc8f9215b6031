using System.Globalization;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>Where a person was last on the walk of an inspection, so that any device brings them back there.</summary>
public sealed class Whereabouts
{
    public Guid PersonId { get; private set; }
    public Guid InspectionId { get; private set; }
    public Guid TaskId { get; private set; }
    public DateTimeOffset At { get; private set; }
}

public static class WhereaboutsQueries
{
    /// <summary>Notes where a person is, in one statement: their devices may come at the same moment.</summary>
    public static void RememberPlace(this RivetDb db, Guid person, Guid inspection, Guid task, DateTimeOffset at)
    {
        var instant = at.UtcDateTime.ToString("O", CultureInfo.InvariantCulture);
        db.Database.ExecuteSql($"""
            INSERT INTO Whereabouts (PersonId, InspectionId, TaskId, At) VALUES ({person}, {inspection}, {task}, {instant})
            ON CONFLICT (PersonId, InspectionId) DO UPDATE SET TaskId = excluded.TaskId, At = excluded.At
            """);
    }

    /// <summary>The task a person was at last; null where they weren't there yet.</summary>
    public static async Task<Guid?> PlaceOfAsync(this RivetDb db, Guid person, Guid inspection, CancellationToken stop) =>
        (await db.Whereabouts.AsNoTracking()
            .FirstOrDefaultAsync(row => row.PersonId == person && row.InspectionId == inspection, stop))?.TaskId;
}
