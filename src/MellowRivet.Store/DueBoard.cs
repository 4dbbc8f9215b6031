using System.Collections.Concurrent;
using MellowRivet.Core.Due;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>
/// The due lines of the whole shop, kept between requests: an aircraft's is reckoned anew when the revision of its file has
/// changed, or the day has. What is handed out is shared and never changed.
/// </summary>
public sealed class DueBoard
{
    private readonly ConcurrentDictionary<Guid, (int Revision, DateOnly Today, DueLine Line)> kept = [];

    /// <summary>Every aircraft's due line, by registration.</summary>
    public async Task<IReadOnlyList<DueLine>> LinesAsync(RivetDb db, DateOnly today, CancellationToken stop)
    {
        // The revisions are read before what they stand for: what is loaded may be newer than its revision, never older.
        var revisions = await db.Aircraft.AsNoTracking().Select(aircraft => new { aircraft.Id, aircraft.Revision }).ToListAsync(stop);
        var stale = revisions.Where(row => !kept.TryGetValue(row.Id, out var there) || there.Revision != row.Revision || there.Today != today).ToDictionary(row => row.Id, row => row.Revision);
        if (stale.Count > 0)
            foreach (var line in await db.DueLinesAsync(stale.Keys, today, stop))
                kept[line.Aircraft.Id] = (stale[line.Aircraft.Id], today, line);
        return [.. revisions.Select(row => kept.TryGetValue(row.Id, out var there) ? there.Line : null).OfType<DueLine>().OrderBy(line => line.Aircraft.Registration, StringComparer.Ordinal)];
    }
}
