using MellowRivet.Core.Bulletins;
using MellowRivet.Core.Compression;
using MellowRivet.Core.Discrepancies;
using MellowRivet.Core.Due;
using MellowRivet.Core.Fleet;
using MellowRivet.Core.Inspections;
using MellowRivet.Core.OpenItems;
using MellowRivet.Core.People;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>What is counted for the whole shop: whoever keeps something that was reckoned from it asks for one small table.</summary>
public enum MarkOf { Fleet = 1, Work, Bulletins, Types, People }

/// <summary>How often the shop's rows of a kind were changed. It rises in the same save as they do.</summary>
public sealed class ShopMark
{
    public MarkOf Of { get; private set; }
    public long Changes { get; private set; }
}

/// <summary>All of them at one moment.</summary>
public sealed record ShopMarks(long Fleet, long Work, long Bulletins, long Types, long People)
{
    public static async Task<ShopMarks> NowAsync(RivetDb db, CancellationToken stop)
    {
        var marks = await db.Marks.AsNoTracking().ToDictionaryAsync(mark => mark.Of, mark => mark.Changes, stop);
        return new(Of(MarkOf.Fleet), Of(MarkOf.Work), Of(MarkOf.Bulletins), Of(MarkOf.Types), Of(MarkOf.People));

        long Of(MarkOf kind) => marks.GetValueOrDefault(kind);
    }

    /// <summary>Whether what was drawn after these changes has all of the others in it.</summary>
    public bool Cover(ShopMarks others) =>
        Fleet >= others.Fleet && Work >= others.Work && Bulletins >= others.Bulletins && Types >= others.Types && People >= others.People;

    /// <summary>The same of all but the work on inspections.</summary>
    public bool CoverFiles(ShopMarks others) =>
        Fleet >= others.Fleet && Bulletins >= others.Bulletins && Types >= others.Types && People >= others.People;

    internal static MarkOf? CountedAs(object entity) => entity switch
    {
        Aircraft or Installation or Component or MeterReading or DueItem or BulletinCase or StatedFact or OpenItem => MarkOf.Fleet,
        Inspection or InspectionTask or Discrepancy or CompressionTest or Reading { InspectionId: not null } => MarkOf.Work,
        ShopBulletin => MarkOf.Bulletins,
        KnownType => MarkOf.Types,
        Person or Shop => MarkOf.People,
        _ => null,
    };

    internal static async Task RaiseAsync(RivetDb db, IEnumerable<MarkOf> kinds, CancellationToken stop)
    {
        foreach (var kind in kinds.Distinct())
            await db.Database.ExecuteSqlAsync(
                $"""
                INSERT INTO Marks (Of, Changes) VALUES ({kind.ToString()}, 1)
                ON CONFLICT (Of) DO UPDATE SET Changes = Changes + 1
                """, stop);
    }
}
