using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Estimates;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.Parts;
using MellowRivet.Core.People;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What is counted for the whole shop: whoever keeps something that was reckoned from it asks for one small table.</summary>
public enum CountedRows { Fleet = 1, Work, Bulletins, Types, People, Times }

/// <summary>How often the shop's rows of a kind were changed. It rises in the same save as they do.</summary>
public sealed class ChangeCount
{
    public CountedRows Of { get; private set; }
    public long Changes { get; private set; }
}

/// <summary>All of them at one moment.</summary>
public sealed record ChangeCounts(long Fleet, long Work, long Bulletins, long Types, long People, long Times = 0)
{
    public static async Task<ChangeCounts> NowAsync(RivetDb db, CancellationToken stop)
    {
        var counts = await db.Counts.AsNoTracking().ToDictionaryAsync(row => row.Of, row => row.Changes, stop);
        return new(Of(CountedRows.Fleet), Of(CountedRows.Work), Of(CountedRows.Bulletins), Of(CountedRows.Types), Of(CountedRows.People),
            Of(CountedRows.Times));

        long Of(CountedRows kind) => counts.GetValueOrDefault(kind);
    }

    /// <summary>Whether what was drawn after these changes has all of the others in it.</summary>
    public bool Cover(ChangeCounts others) =>
        Fleet >= others.Fleet && Work >= others.Work && Bulletins >= others.Bulletins && Types >= others.Types && People >= others.People;

    /// <summary>The same of all but the work on inspections.</summary>
    public bool CoverFiles(ChangeCounts others) =>
        Fleet >= others.Fleet && Bulletins >= others.Bulletins && Types >= others.Types && People >= others.People;

    /// <summary>Whether a plan of the hangar that was made after these changes has all of the others in it.</summary>
    public bool CoverPlan(ChangeCounts others) =>
        Fleet >= others.Fleet && Work >= others.Work && People >= others.People && Times >= others.Times;

    internal static CountedRows? CountedAs(object entity) => entity switch
    {
        Aircraft or Installation or Component or MeterReading or DueItem or BulletinFollowUp or StatedFact or OpenItem => CountedRows.Fleet,
        Inspection or InspectionTask or Discrepancy or CompressionTest or Reading { InspectionId: not null } => CountedRows.Work,
        ShopBulletin => CountedRows.Bulletins,
        KnownType => CountedRows.Types,
        Person or Shop => CountedRows.People,
        OrderedPart or BookedTime => CountedRows.Times,
        _ => null,
    };

    internal static async Task RaiseAsync(RivetDb db, IEnumerable<CountedRows> kinds, CancellationToken stop)
    {
        foreach (var kind in kinds.Distinct())
            await db.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO Marks (Of, Changes) VALUES ({kind.ToString()}, 1)
                ON CONFLICT (Of) DO UPDATE SET Changes = Changes + 1
                """, stop);
    }
}
