using System.Security.Cryptography;
using MellowRivet.Store.Backups;
using MellowRivet.Store.Files;

namespace MellowRivet.Store.Following;

/// <summary>What a round brought.</summary>
/// <param name="AsOf">All that was kept in the shop until this moment is in the copy.</param>
/// <param name="Blocks">How many blocks of the database came.</param>
/// <param name="Files">How many files came, or went.</param>
/// <param name="Bytes">How much came.</param>
/// <param name="Damaged">Files that aren't what their names say: the shop's disk spoilt them, and the copy doesn't take them.</param>
public sealed record FollowRound(DateTimeOffset AsOf, int Blocks, int Files, long Bytes, IReadOnlyList<string> Damaged);

/// <summary>
/// Keeps a copy of a shop that is being worked in. Each round takes the blocks of the database that changed and the files that are new, and
/// the database takes the place of the one before only when all of it is there, is the very file that the shop made, and goes on from
/// that one: whenever the other machine goes, the copy is the shop as it was at one moment, and never an earlier one.
/// </summary>
/// <param name="followed">The shop.</param>
/// <param name="copy">The folder of the copy.</param>
public sealed class Follower(IFollowed followed, DataFolder copy)
{
    /// <summary>The database of the round before, which the next one is written over.</summary>
    internal const string Spare = "rivet.db.spare";
    private const string Before = "rivet.db.before";
    private const int MostBlocks = 64, MostTries = 3;

    private string SparePath => Path.Combine(copy.Path, Spare);

    private DatabaseImage? held, spare;

    // A database has its place once all its files are here; what changes beside it later may fail without it.
    private bool hasFiles = true;

    /// <summary>Brings the copy up to the shop.</summary>
    /// <exception cref="IOException">The shop doesn't answer, or the disk has no room: the copy stays as it was.</exception>
    /// <exception cref="InvalidDataException">What came isn't what was said, or lacks what the copy has: the copy stays as it
    /// was.</exception>
    public async Task<FollowRound> RoundAsync(CancellationToken stop)
    {
        Finish(copy.Path);
        held ??= File.Exists(copy.Database) ? await DatabaseImage.OfAsync(copy.Database, default, stop) : null;
        for (var tries = 1; ; tries++)
        {
            var image = await followed.DatabaseAsync(hasFiles ? held?.Sha256 : null, stop);
            if (await FetchAsync(image, stop) is { } blocks)
            {
                // Asked for after the database, and there before it: whatever it names is among them.
                hasFiles = false;
                var files = await followed.FilesAsync(stop);
                var (count, bytes, damaged) = await FilesAsync(files, stop);
                hasFiles = true;
                Place(image);
                return new(image.At, blocks, count + DropGone(files), bytes + (long)blocks * DatabaseImage.BlockBytes, damaged);
            }
            if (tries == MostTries)
                throw new IOException("The shop is written to faster than it can be followed.");
        }
    }

    // A round that was cut short between the two names.
    internal static void Finish(string folder)
    {
        var (now, before) = (Path.Combine(folder, ShopFiles.Database), Path.Combine(folder, Before));
        if (!File.Exists(before))
            return;
        if (File.Exists(now))
            File.Move(before, Path.Combine(folder, Spare), overwrite: true);
        else
            File.Move(before, now);
    }

    // Somebody looked into the copy with another program: what that left beside it belongs to another file from now on.
    internal static void LetGoOfLogs(string folder)
    {
        foreach (var log in new[] { "-wal", "-shm" })
            File.Delete(Path.Combine(folder, ShopFiles.Database + log));
    }

    // How many blocks came; null where the shop has gone on to another image meanwhile.
    private async Task<int?> FetchAsync(DatabaseImage image, CancellationToken stop)
    {
        if (held?.Sha256 == image.Sha256)
            return 0;
        spare ??= await SpareAsync(stop);
        var came = 0;
        var known = spare;
        // Until it is known for what it is, it is nothing: a round that is cut short reads it anew.
        spare = null;
        await using (var file = new FileStream(SparePath, FileMode.OpenOrCreate, FileAccess.ReadWrite))
        {
            foreach (var (from, count) in image.Differing(known.Blocks, MostBlocks))
            {
                if (await followed.BlocksAsync(image.Sha256, from, count, stop) is not { } blocks)
                    return null;
                file.Position = (long)from * DatabaseImage.BlockBytes;
                await file.WriteAsync(blocks, stop);
                came += count;
            }
            file.SetLength(image.Bytes);
            file.Flush(flushToDisk: true);
        }
        if ((await DatabaseImage.OfAsync(SparePath, image.At, stop)).Sha256 != image.Sha256)
        {
            File.Delete(SparePath);
            throw new InvalidDataException("The database that came isn't the one that the shop has: it is fetched anew.");
        }
        spare = image;
        if (held is not null && !await Continuity.HoldsAsync(copy.Database, SparePath, image.At, stop))
            throw new InvalidDataException("the shop there is another one, or was set back to an earlier moment: what was kept last in "
                + "this copy isn't in it, and may be nowhere else. Take over with the copy, or follow into a new folder");
        return came;
    }

    // What was fetched takes the place of the one before.
    private void Place(DatabaseImage image)
    {
        if (held?.Sha256 == image.Sha256)
            return;
        LetGoOfLogs(copy.Path);
        if (File.Exists(copy.Database))
            File.Move(copy.Database, Path.Combine(copy.Path, Before), overwrite: true);
        File.Move(SparePath, copy.Database);
        Disk.SyncFolder(copy.Path);
        Finish(copy.Path);
        (spare, held) = (held, image);
    }

    // What is there to be written over: the one before the last, a copy of the last, or nothing.
    private async Task<DatabaseImage> SpareAsync(CancellationToken stop)
    {
        if (!File.Exists(SparePath) && held is not null)
        {
            File.Copy(copy.Database, SparePath);
            return held;
        }
        return File.Exists(SparePath) ? await DatabaseImage.OfAsync(SparePath, default, stop) : new(default, 0, "", []);
    }

    private async Task<(int Count, long Bytes, IReadOnlyList<string> Damaged)> FilesAsync(IReadOnlyList<ShopFile> files,
        CancellationToken stop)
    {
        var (count, bytes) = (0, 0L);
        List<string> damaged = [];
        foreach (var file in files)
        {
            if (!ShopFiles.IsPath(file.Path) || file.Path == ShopFiles.Database)
                throw new InvalidDataException("The shop names a file that no shop has.");
            var place = new FileInfo(Path.Combine(copy.Path, file.Path));
            if (place.Exists && place.Length == file.Bytes && (file.ByHash || place.LastWriteTimeUtc == file.ChangedAt))
                continue;
            await using var content = await followed.OpenAsync(file.Path, stop);
            if (content is null)
                continue;
            // One picture that a disk spoilt keeps nobody from a copy of all the rest; a good one that is here stays.
            if (!await PutAsync(content, place, file, stop))
            {
                damaged.Add(file.Path);
                continue;
            }
            bytes += file.Bytes;
            count++;
        }
        return (count, bytes, damaged);
    }

    // What may go there goes here; a file that is named by what is in it is swept away by whoever takes over.
    private int DropGone(IReadOnlyList<ShopFile> files)
    {
        var named = files.Select(file => file.Path).ToHashSet();
        var gone = ShopFiles.Of(copy).Where(file => !file.ByHash && !named.Contains(file.Path)).ToList();
        foreach (var file in gone)
            File.Delete(Path.Combine(copy.Path, file.Path));
        return gone.Count;
    }

    // Whether it is what its name says, and was put in its place.
    private static async Task<bool> PutAsync(Stream content, FileInfo place, ShopFile file, CancellationToken stop)
    {
        Directory.CreateDirectory(place.DirectoryName!);
        var half = $"{place.FullName}.half";
        using var hash = SHA256.Create();
        await using (var to = new FileStream(half, FileMode.Create))
        await using (var hashing = new CryptoStream(to, hash, CryptoStreamMode.Write, leaveOpen: true))
        {
            await content.CopyToAsync(hashing, stop);
            await hashing.FlushFinalBlockAsync(stop);
            to.Flush(flushToDisk: true);
        }
        // An original is called by its own hash.
        if (ShopFiles.HashOf(file.Path) is { } named && named != Convert.ToHexStringLower(hash.Hash!))
        {
            File.Delete(half);
            return false;
        }
        File.SetLastWriteTimeUtc(half, file.ChangedAt);
        File.Move(half, place.FullName, overwrite: true);
        Disk.SyncFolder(place.DirectoryName!);
        return true;
    }
}
