using MellowRivet.Core;
using MellowRivet.Core.Bulletins;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store;

/// <summary>A service that sends bulletins: what came out since a day.</summary>
public interface IBulletinService
{
    /// <summary>What it is called.</summary>
    string Name { get; }

    /// <summary>What came out after a day, up to another.</summary>
    /// <returns>The bulletins, or why there is no answer.</returns>
    Task<(IReadOnlyList<Bulletin> Bulletins, string? Fault)> SinceAsync(DateOnly since, DateOnly until, CancellationToken stop);
}

/// <summary>The simulated service that ships with the product: it gives out the JSON files of a folder by the day they came out.</summary>
public sealed class SimulatedBulletinService(DataFolder data) : IBulletinService
{
    public string Name => "simulated service";

    public async Task<(IReadOnlyList<Bulletin> Bulletins, string? Fault)> SinceAsync(DateOnly since, DateOnly until, CancellationToken stop)
    {
        List<Bulletin> all = [];
        foreach (var file in Directory.EnumerateFiles(data.Feed, "*.json").Order(StringComparer.Ordinal))
        {
            if (new FileInfo(file).Length > BulletinFile.MostBytes)
                return ([], $"{Path.GetFileName(file)} is larger than {BulletinFile.MostBytes / 1024 / 1024} MB.");
            var (bulletins, fault) = BulletinFile.Read(await File.ReadAllTextAsync(file, stop));
            if (fault is not null)
                return ([], $"{Path.GetFileName(file)}: {fault}");
            all.AddRange(bulletins);
        }
        return ([.. all.Where(bulletin => bulletin.Published > since && bulletin.Published <= until)
            .OrderBy(bulletin => bulletin.Published)], null);
    }
}

/// <summary>Asks the service what is new, takes it in and holds it against the whole shop at once.</summary>
public sealed class BulletinPost(RivetDb db, IBulletinService service, ShopBoard board, TimeProvider clock)
{
    private const int DaysAskedAgain = 31;

    /// <summary>Asks. What is said of it is kept beside the source; a service that fails changes nothing.</summary>
    public async Task<FeedState> AskAsync(CancellationToken stop)
    {
        var today = clock.Today();
        var since = (await db.Feeds.AsNoTracking().FirstOrDefaultAsync(row => row.Source == service.Name, stop))?.Since
            ?? DateOnly.MinValue;
        var (bulletins, fault) = await service.SinceAsync(since, today, stop);
        var said = fault ?? "";
        if (fault is null)
        {
            TakenIn? taken = null;
            var written = await db.OnceAsync(Guid.CreateVersion7(), clock, async () =>
            {
                taken = await db.TakeInAsync(bulletins, service.Name, null, clock.GetUtcNow(), stop);
                return null;
            }, stop);
            if (written.Refusal is { } refusal)
                return Unkept(since, refusal);
            said = taken!.OnTheShop((await board.NowAsync(stop)).Lines, await db.TypeListAsync(stop));
        }
        FeedState? state = null;
        var kept = await db.OnceAsync(Guid.CreateVersion7(), clock, async () =>
        {
            state = await db.Feeds.FirstOrDefaultAsync(row => row.Source == service.Name, stop)
                ?? db.Feeds.Add(new() { Source = service.Name }).Entity;
            // A month is asked for again: a service may be late with what it dates back, and what is here already is passed over.
            (state.Since, state.AskedAt, state.Said) = (fault is null ? today.AddDays(-DaysAskedAgain) : since, clock.GetUtcNow(), said);
            return null;
        }, stop);
        return kept.Refusal is { } no ? Unkept(since, no) : state!;
    }

    // Where the disk takes nothing it is said, and asked again.
    private FeedState Unkept(DateOnly since, Refusal refusal) =>
        new() { Source = service.Name, AskedAt = clock.GetUtcNow(), Since = since, Said = refusal.Message };
}
