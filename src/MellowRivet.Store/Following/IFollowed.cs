using MellowRivet.Store.Backups;

namespace MellowRivet.Store.Following;

/// <summary>A shop that a copy elsewhere follows: on another machine, or in a folder of this one.</summary>
public interface IFollowed : IDisposable
{
    /// <summary>The latest image of its database.</summary>
    /// <param name="held">The SHA-256 of the image that the copy has: the shop knows by it how far the copy is. Null for none.</param>
    /// <param name="stop">Stops it.</param>
    Task<DatabaseImage> DatabaseAsync(string? held, CancellationToken stop);

    /// <summary>Blocks of an image; null where there is another one by now.</summary>
    Task<byte[]?> BlocksAsync(string sha256, int from, int count, CancellationToken stop);

    /// <summary>Its files beside the database.</summary>
    Task<IReadOnlyList<ShopFile>> FilesAsync(CancellationToken stop);

    /// <summary>One of them; null where it is gone by now.</summary>
    Task<Stream?> OpenAsync(string path, CancellationToken stop);
}

/// <summary>A shop in a folder of this machine, as on another disk.</summary>
/// <param name="data">Its folder.</param>
/// <param name="images">Where images of its database lie on their way.</param>
/// <param name="clock">The time.</param>
public sealed class FollowedFolder(DataFolder data, string images, TimeProvider clock) : IFollowed
{
    private readonly DatabaseImages latest = new(data, images, clock);

    /// <summary>All that was kept until then is in the copy; null until the copy says that it has an image of this shop.</summary>
    public DateTimeOffset? CopyAsOf { get; private set; }

    public async Task<DatabaseImage> DatabaseAsync(string? held, CancellationToken stop)
    {
        var before = latest.Latest;
        var image = await latest.LatestAsync(stop);
        if (held is not null && new[] { image, before }.FirstOrDefault(one => one?.Sha256 == held) is { } has)
            CopyAsOf = has.At;
        return image;
    }

    public Task<byte[]?> BlocksAsync(string sha256, int from, int count, CancellationToken stop) =>
        latest.BlocksAsync(sha256, from, count, stop);

    public Task<IReadOnlyList<ShopFile>> FilesAsync(CancellationToken stop) =>
        Task.FromResult<IReadOnlyList<ShopFile>>([.. ShopFiles.Of(data)]);

    public Task<Stream?> OpenAsync(string path, CancellationToken stop) => Task.FromResult<Stream?>(
        ShopFiles.IsPath(path) && path != ShopFiles.Database && File.Exists(Path.Combine(data.Path, path))
            ? File.OpenRead(Path.Combine(data.Path, path))
            : null);

    public void Dispose() => latest.Dispose();
}
