using MellowRivet.Core.People;
using MellowRivet.Core.Records;
using MellowRivet.Store;
using MellowRivet.Store.Backups;
using MellowRivet.Store.Files;
using MellowRivet.Store.Proof;
using MellowRivet.Web.Access;
using MellowRivet.Web.Api;
using MellowRivet.Web.Hosting.Reliability;
using MellowRivet.Web.Pages.Shared;
using Microsoft.AspNetCore.Mvc;

namespace MellowRivet.Web.Pages.Keeping;

/// <summary>Room on a disk.</summary>
/// <param name="Of">What lies there.</param>
/// <param name="Free">Bytes that are free.</param>
/// <param name="Total">Bytes in all.</param>
public sealed record DiskRoom(string Of, long Free, long Total)
{
    private const long Little = 2_000_000_000;

    /// <summary>Less than a day of pictures fits.</summary>
    public bool IsShort => Free < Math.Min(Little, Total / 10);
}

/// <summary>How the shop's data is kept.</summary>
/// <param name="Last">The backup that succeeded last; null for none.</param>
/// <param name="IsLate">None did for a day and a half.</param>
/// <param name="Daily">The daily ones.</param>
/// <param name="Rooms">The disks it lies on.</param>
/// <param name="Head">The head of the chain of what was signed.</param>
/// <param name="Key">The key that is in force; null where it isn't there.</param>
/// <param name="Follow">The second machine.</param>
/// <param name="Swept">What was swept away since the start; null before.</param>
/// <param name="Folder">The shop's folder.</param>
/// <param name="Now">The moment, by the machine's clock.</param>
public sealed record KeepingView(LastBackup? Last, bool IsLate, DailyBackup Daily, IReadOnlyList<DiskRoom> Rooms, ChainHead Head,
    string? Key, FollowDesk Follow, Swept? Swept, string Folder, DateTimeOffset Now) : PageView
{
    /// <summary>The backups lie where the shop lies, as where a disk isn't there that they were meant for.</summary>
    public bool OnOneDisk => Rooms is [var shop, var backups] && (shop.Free, shop.Total) == (backups.Free, backups.Total);

    /// <summary>How long ago, in words.</summary>
    public string Ago(DateTimeOffset at) => (Now - at) switch
    {
        { TotalMinutes: < 2 } ago => $"{Math.Max(0, ago.TotalSeconds):0} s ago",
        { TotalHours: < 2 } ago => $"{ago.TotalMinutes:0} min ago",
        { TotalHours: < 48 } ago => $"{ago.TotalHours:0} h ago",
        var ago => $"{ago.TotalDays:0} days ago",
    };
}

/// <summary>How the shop's data is kept: backups, a second machine, room, the key; for whoever manages the shop.</summary>
[Needs(Right.ManageShop)]
public sealed class KeepingModel(RivetDb db, DataFolder data, DailyBackup daily, FollowDesk follow, Housekeeping housekeeping)
    : ShopPage<KeepingView>
{
    public Task<IActionResult> OnGetAsync(CancellationToken stop) => ShowAsync(stop);

    /// <summary>Backs up now, to the folder of the daily ones, beside the requests.</summary>
    [Needs(Right.ManageShop)]
    public IActionResult OnPost()
    {
        daily.Ask();
        return Redirect("/keeping");
    }

    protected override async Task<KeepingView?> ViewAsync(Refused refused, CancellationToken stop)
    {
        var now = TimeProvider.System.GetUtcNow();
        using var key = await db.KeyAsync(now, stop);
        return new(daily.Last, daily.IsLate(now), daily, [.. Rooms()], await db.HeadAsync(stop), key?.Fingerprint,
            follow, housekeeping.Swept, data.Path, now);
    }

    private IEnumerable<DiskRoom> Rooms()
    {
        yield return Room("the shop", data.Path);
        if (daily.Folder is { } folder && Directory.Exists(folder))
            yield return Room("the backups", folder);
    }

    private static DiskRoom Room(string of, string folder)
    {
        DriveInfo disk = new(Path.GetFullPath(folder));
        return new(of, disk.AvailableFreeSpace, disk.TotalSize);
    }
}
