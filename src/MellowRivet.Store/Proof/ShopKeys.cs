using MellowRivet.Core;
using MellowRivet.Core.Records;
using MellowRivet.Store.Files;
using Microsoft.EntityFrameworkCore;

namespace MellowRivet.Store.Proof;

/// <summary>Something was to be signed or sealed with the shop's key, which isn't there: nothing of it is kept.</summary>
public sealed class NoKeyException() : Exception(ShopKeys.Missing.Message);

/// <summary>
/// The shop's own key: made when the shop is first opened, in a file that its owner alone may read, beside the database and never in it.
/// </summary>
public static class ShopKeys
{
    /// <summary>What is told where the key's file is gone, or is another's: above everything, since no field is wrong.</summary>
    public static readonly Refusal Missing = new(Once.Busy,
        "The shop’s key isn’t where it was (keys/shop-key.pem in the shop’s folder), and nothing is signed without it. Put it back from a "
        + "backup; where it is lost for good, ./rivet key --lost begins a new one. Nothing was changed.");

    /// <summary>Where it lies.</summary>
    public static string FileOf(RivetDb db) => Path.Combine(Path.GetDirectoryName(Path.GetFullPath(
        db.Database.GetDbConnection().DataSource))!, "keys", "shop-key.pem");

    /// <summary>The keys this shop has signed with, in their order.</summary>
    public static async Task<List<ShopKeyLine>> OwnAsync(this RivetDb db, CancellationToken stop) =>
        await db.ShopKeys.AsNoTracking().Where(line => line.ShopThere == null).OrderBy(line => line.Number).ToListAsync(stop);

    /// <summary>
    /// The key that is in force; null where its file is gone or holds another. A shop that never had one gets its first, which vouches for
    /// the chain as it stands.
    /// </summary>
    public static async Task<ShopKey?> KeyAsync(this RivetDb db, DateTimeOffset now, CancellationToken stop)
    {
        if ((await db.OwnAsync(stop)).LastOrDefault() is not { } line)
            return await BeginAsync(db, null, null, now, stop);
        foreach (var file in new[] { FileOf(db), KeptBeside(FileOf(db), line) })
        {
            if (ReadFile(file) is not { } key)
                continue;
            if (key.Fingerprint == line.Fingerprint)
                return key;
            key.Dispose();
        }
        return null;
    }

    // Where the one that was to take its place never came into force, as on a full disk, it still lies there.
    private static string KeptBeside(string file, ShopKeyLine line) =>
        Path.Combine(Path.GetDirectoryName(file)!, $"shop-key-{line.Number}.pem");

    /// <summary>Whether the key that is in force is there.</summary>
    public static async Task<bool> HasKeyAsync(this RivetDb db, DateTimeOffset now, CancellationToken stop)
    {
        using var key = await db.KeyAsync(now, stop);
        return key is not null;
    }

    /// <summary>Another key takes its place, handed over by the one in force.</summary>
    /// <param name="db">The shop.</param>
    /// <param name="lost">The one in force is gone, and can't hand over: that is kept, and told by whoever verifies.</param>
    /// <param name="now">When.</param>
    /// <param name="stop">Stops waiting.</param>
    public static async Task<(ShopKeyLine? Line, Refusal? Refusal)> ChangeKeyAsync(this RivetDb db, bool lost, DateTimeOffset now,
        CancellationToken stop)
    {
        db.Forget();
        using var old = await db.KeyAsync(now, stop);
        if (old is null && !lost)
            return (null, Missing);
        if (old is not null && lost)
            return (null, new("key", "The shop’s key is there, and can hand over to another: leave --lost out. Nothing was changed."));
        var before = (await db.OwnAsync(stop))[^1];
        using var key = await BeginAsync(db, before, old, now, stop);
        return ((await db.OwnAsync(stop))[^1], null);
    }

    // The file is on the disk before any row says that it is in force; one it takes the place of is kept beside it.
    private static async Task<ShopKey> BeginAsync(RivetDb db, ShopKeyLine? before, ShopKey? old, DateTimeOffset now, CancellationToken stop)
    {
        var file = FileOf(db);
        await using var own = db.Database.CurrentTransaction is null ? await db.Database.BeginTransactionAsync(stop) : null;
        // One whose row never came: it was made by a start that was cut short.
        var key = before is null && ReadFile(file) is { } made ? made : Write(file, before);
        db.ShopKeys.Add(ShopKeyLine.Begin(key, await db.HeadAsync(stop), now, before, old));
        await db.SaveChangesAsync(stop);
        if (own is not null)
            await own.CommitAsync(stop);
        return key;
    }

    private static ShopKey Write(string file, ShopKeyLine? before)
    {
        var key = ShopKey.Make();
        Directory.CreateDirectory(Path.GetDirectoryName(file)!);
        if (before is not null && File.Exists(file))
            File.Copy(file, KeptBeside(file, before), overwrite: true);
        Disk.Keep(file, key.ToPem());
        return key;
    }

    private static ShopKey? ReadFile(string file)
    {
        try
        {
            return File.Exists(file) ? ShopKey.Read(File.ReadAllText(file)) : null;
        }
        catch (FormatException)
        {
            return null;
        }
    }
}
