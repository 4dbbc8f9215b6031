using MellowRivet.Store.Backups;

namespace MellowRivet.Store.Following;

/// <summary>A shop that a copy elsewhere follows: on another machine, or in a folder of this one.</summary>
public interface IFollowed : IDisposable
{
    /// <summary>The latest image of its database.</summary>
    Task<DatabaseImage> DatabaseAsync(CancellationToken stop);

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

    public Task<DatabaseImage> DatabaseAsync(CancellationToken stop) => latest.LatestAsync(stop);

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
