using System.Security.Cryptography;
using Microsoft.Data.Sqlite;

namespace MellowRivet.Store.Following;

/// <summary>A copy of a shop's database as SQLite's online backup made it, by its blocks: which of them a follower hasn't got.</summary>
/// <param name="At">The moment it holds, or a later one.</param>
/// <param name="Bytes">How large it is.</param>
/// <param name="Sha256">Its SHA-256: what it is called by.</param>
/// <param name="Blocks">The hash of each block, in their order.</param>
public sealed record DatabaseImage(DateTimeOffset At, long Bytes, string Sha256, IReadOnlyList<string> Blocks)
{
    /// <summary>Bytes in a block: sixteen of the database's pages.</summary>
    public const int BlockBytes = 64 * 1024;

    private const int HashBytes = 16;

    /// <summary>Reads a file to its end.</summary>
    public static async Task<DatabaseImage> OfAsync(string file, DateTimeOffset at, CancellationToken stop)
    {
        await using var content = new FileStream(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite, 1, useAsync: false);
        using var whole = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
        List<string> blocks = [];
        var block = new byte[BlockBytes];
        for (int read; (read = await content.ReadAtLeastAsync(block, BlockBytes, throwOnEndOfStream: false, stop)) > 0;)
        {
            whole.AppendData(block, 0, read);
            blocks.Add(HashOf(block.AsSpan(0, read)));
        }
        return new(at, content.Length, Convert.ToHexStringLower(whole.GetHashAndReset()), blocks);
    }

    public static string HashOf(ReadOnlySpan<byte> block) => Convert.ToBase64String(SHA256.HashData(block).AsSpan(0, HashBytes));

    /// <summary>Runs of blocks that another file hasn't got at the same place: where each begins, and how many.</summary>
    /// <param name="there">The blocks of the other one.</param>
    /// <param name="most">The most in a run.</param>
    public IEnumerable<(int From, int Count)> Differing(IReadOnlyList<string> there, int most)
    {
        for (var at = 0; at < Blocks.Count; at++)
        {
            var from = at;
            while (at < Blocks.Count && at - from < most && (at >= there.Count || there[at] != Blocks[at]))
                at++;
            if (at > from)
                yield return (from, at-- - from);
        }
    }
}

/// <summary>
/// The latest image of a shop's database, made when somebody asks and something was written since. It lies in a folder of its own, and
/// nobody waits for it who writes.
/// </summary>
/// <param name="data">The shop.</param>
/// <param name="folder">Where images lie.</param>
/// <param name="clock">The time.</param>
public sealed class DatabaseImages(DataFolder data, string folder, TimeProvider clock) : IDisposable
{
    private readonly SemaphoreSlim turn = new(1);
    private readonly SqliteConnection watching =
        new(new SqliteConnectionStringBuilder(data.ConnectionString) { Pooling = false }.ToString());
    private (DatabaseImage Image, Version Version)? latest;

    /// <summary>The one that was made last; null where none was.</summary>
    public DatabaseImage? Latest => latest?.Image;

    private string Path => System.IO.Path.Combine(folder, "image.db");

    /// <summary>The latest image. As of when it holds is told anew where nothing was written since.</summary>
    /// <exception cref="SqliteException">The database can't be read.</exception>
    /// <exception cref="IOException">It isn't there, as where its disk isn't.</exception>
    public async Task<DatabaseImage> LatestAsync(CancellationToken stop)
    {
        await turn.WaitAsync(stop);
        try
        {
            var now = clock.GetUtcNow();
            var version = await VersionAsync(stop);
            if (latest is { } there && there.Version == version && File.Exists(Path))
                return (latest = (there.Image with { At = now }, version)).Value.Image;
            Directory.CreateDirectory(folder);
            var next = $"{Path}.next";
            File.Delete(next);
            ShopDatabase.Backup(data, next);
            var image = await DatabaseImage.OfAsync(next, now, stop);
            // Whoever still reads the one before goes on reading that.
            File.Move(next, Path, overwrite: true);
            latest = (image, version);
            return image;
        }
        finally
        {
            turn.Release();
        }
    }

    /// <summary>Blocks of an image; null where there is another one by now.</summary>
    public async Task<byte[]?> BlocksAsync(string sha256, int from, int count, CancellationToken stop)
    {
        await turn.WaitAsync(stop);
        try
        {
            if (latest?.Image is not { } image || image.Sha256 != sha256 || from < 0 || count < 1 || from + count > image.Blocks.Count)
                return null;
            await using var file = File.OpenRead(Path);
            file.Position = (long)from * DatabaseImage.BlockBytes;
            var blocks = new byte[Math.Min((long)count * DatabaseImage.BlockBytes, image.Bytes - file.Position)];
            await file.ReadExactlyAsync(blocks, stop);
            return blocks;
        }
        finally
        {
            turn.Release();
        }
    }

    /// <summary>What is otherwise once somebody wrote.</summary>
    /// <param name="Counted">What SQLite counts on for this connection whenever another one, of whichever process, has written.</param>
    /// <param name="Files">When the database and its log were written, and how long they are: a file that took the database's place is
    /// another one, which this connection doesn't see.</param>
    private sealed record Version(long Counted, string Files);

    private async Task<Version> VersionAsync(CancellationToken stop)
    {
        if (!File.Exists(data.Database))
            throw new IOException($"there is no shop at {data.Path}");
        if (watching.State != System.Data.ConnectionState.Open)
            await watching.OpenAsync(stop);
        await using var ask = watching.CreateCommand();
        ask.CommandText = "PRAGMA data_version";
        return new((long)(await ask.ExecuteScalarAsync(stop))!, string.Join(' ', new[] { data.Database, $"{data.Database}-wal" }
            .Select(file => new FileInfo(file)).Select(file => file.Exists ? $"{file.LastWriteTimeUtc:O} {file.Length}" : "")));
    }

    public void Dispose()
    {
        watching.Dispose();
        turn.Dispose();
    }
}
