using System.Security.Cryptography;

namespace MellowRivet.Store.Files;

/// <summary>A file from outside on its way in: written under a name of our own and named by its SHA-256.</summary>
internal sealed class IncomingFile : IDisposable
{
    private IncomingFile(string path, long bytes, string sha256) => (Path, Bytes, Sha256) = (path, bytes, sha256);

    public string Path { get; }
    public long Bytes { get; }
    public string Sha256 { get; }

    /// <summary>Receives a file and syncs it to disk; no more than one block over the most is read.</summary>
    /// <exception cref="IOException">The disk is full or gone; nothing is kept.</exception>
    public static async Task<IncomingFile> ReceiveAsync(Stream content, string folder, long most, CancellationToken stop)
    {
        var path = System.IO.Path.Combine(folder, $"{Guid.NewGuid():N}.incoming");
        try
        {
            await using var file = new FileStream(path, FileMode.CreateNew, FileAccess.Write, FileShare.None, 1 << 16, useAsync: true);
            using var hash = IncrementalHash.CreateHash(HashAlgorithmName.SHA256);
            var buffer = new byte[1 << 16];
            long bytes = 0;
            int read;
            while (bytes <= most && (read = await content.ReadAsync(buffer, stop)) > 0)
            {
                bytes += read;
                hash.AppendData(buffer, 0, read);
                await file.WriteAsync(buffer.AsMemory(0, read), stop);
            }
            file.Flush(flushToDisk: true);
            return new(path, bytes, Convert.ToHexStringLower(hash.GetHashAndReset()));
        }
        catch
        {
            File.Delete(path);
            throw;
        }
    }

    /// <summary>The first bytes, as many as there are.</summary>
    public byte[] Head(int count)
    {
        using var file = File.OpenRead(Path);
        var head = new byte[count];
        return head[..file.ReadAtLeast(head, count, throwOnEndOfStream: false)];
    }

    /// <summary>Gives it its place; what lies there already is the same file.</summary>
    public void MoveTo(string path)
    {
        Directory.CreateDirectory(System.IO.Path.GetDirectoryName(path)!);
        File.Move(Path, path, overwrite: true);
        Disk.SyncFolder(System.IO.Path.GetDirectoryName(path)!);
    }

    public void Dispose() => File.Delete(Path);
}
