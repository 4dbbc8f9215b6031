using MellowRivet.Core.Fleet;
using MellowRivet.Core.Trends;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What is loaded to read an aircraft's series.</summary>
public static class TrendQueries
{
    /// <summary>Every series of an aircraft that is loaded with its parts: one query, however many there are.</summary>
    public static async Task<IReadOnlyList<SeriesGroup>> SeriesOfAsync(this RivetDb db, Aircraft aircraft, CancellationToken stop) =>
        SeriesBoard.Of(aircraft, await db.Readings.AsNoTracking().Where(reading => reading.AircraftId == aircraft.Id).ToListAsync(stop));
}
