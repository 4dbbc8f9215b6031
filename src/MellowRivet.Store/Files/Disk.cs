using System.ComponentModel;
using System.Runtime.InteropServices;

namespace MellowRivet.Store.Files;

/// <summary>
/// Syncs a folder, so that a file's new name survives a power cut. .NET opens no folder handles, hence the three calls
/// of the C library; the product runs on Linux.
/// </summary>
internal static class Disk
{
    private const int ReadOnly = 0;

    /// <summary>Writes a small file that its owner alone may read, in place of the one that is there: wholly or not at all.</summary>
    public static void Keep(string path, string text)
    {
        var next = $"{path}.next";
        File.Delete(next);
#pragma warning disable CA1416 // The product runs on Linux.
        using (var file = new FileStream(next, new FileStreamOptions
            { Mode = FileMode.CreateNew, Access = FileAccess.Write, UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite }))
#pragma warning restore CA1416
        {
            file.Write(System.Text.Encoding.UTF8.GetBytes(text));
            file.Flush(flushToDisk: true);
        }
        File.Move(next, path, overwrite: true);
        SyncFolder(Path.GetDirectoryName(path)!);
    }

    public static void SyncFolder(string path)
    {
        var handle = open(path, ReadOnly);
        if (handle < 0)
            throw new IOException($"The folder can't be synced: {new Win32Exception(Marshal.GetLastPInvokeError()).Message}.");
        var failed = fsync(handle) != 0;
        _ = close(handle);
        if (failed)
            throw new IOException("The folder can't be synced to disk.");
    }

    [DllImport("libc", SetLastError = true)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static extern int open([MarshalAs(UnmanagedType.LPUTF8Str)] string path, int flags);

    [DllImport("libc", SetLastError = true)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static extern int fsync(int handle);

    [DllImport("libc", SetLastError = true)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static extern int close(int handle);
}
