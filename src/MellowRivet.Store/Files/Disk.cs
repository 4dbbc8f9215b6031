using System.ComponentModel;
using System.Runtime.InteropServices;
using MellowRivet.Core;
using Microsoft.Data.Sqlite;

namespace MellowRivet.Store.Files;

/// <summary>
/// What a shop asks of its disk: that a file's new name survives a power cut, that nobody else reads what lies there, and a plain word
/// where there is no room. .NET opens no folder handles and has no file mode of a process, hence the calls of the C library; the product
/// runs on Linux.
/// </summary>
public static class Disk
{
    private const int ReadOnly = 0, NoSpace = 28, QuotaReached = 122;
    private const int SqliteFull = 13, SqliteWriteFailed = 778, SqliteNoSharedMemory = 4874;

    private const UnixFileMode OwnFolder = UnixFileMode.UserRead | UnixFileMode.UserWrite | UnixFileMode.UserExecute;
    private const UnixFileMode OwnFile = UnixFileMode.UserRead | UnixFileMode.UserWrite;

    /// <summary>What a person is told where a write found no room: no field of theirs is wrong.</summary>
    public static readonly Refusal NoRoom = new(Once.Busy,
        "There is no room on the disk. Nothing was changed, and nothing was lost of what you typed: it is still here. Make room on the "
        + "machine that the shop runs on, and send it again.");

    /// <summary>Whether something failed since there is no room on a disk, whatever it was wrapped in.</summary>
    public static bool IsFull(Exception? problem) => problem switch
    {
        null => false,
        SqliteException { SqliteErrorCode: SqliteFull } or SqliteException { SqliteExtendedErrorCode: SqliteWriteFailed
            or SqliteNoSharedMemory } => true,
        IOException { HResult: NoSpace or QuotaReached } => true,
        AggregateException many => many.InnerExceptions.Any(IsFull),
        _ => IsFull(problem.InnerException),
    };

    /// <summary>From here on, what this process makes is its owner's alone: folders 0700, files 0600.</summary>
    internal static void MakeForOwnerAlone() => _ = umask(0x3F);

    /// <summary>Takes from everybody but its owner what they may do with a folder, and with all that is in it.</summary>
    /// <exception cref="UnauthorizedAccessException">It is somebody else's.</exception>
    public static void TakeFromOthers(string folder)
    {
#pragma warning disable CA1416 // The product runs on Linux.
        foreach (var inner in new DirectoryInfo(folder).EnumerateFileSystemInfos("*", SearchOption.AllDirectories)
            .Prepend(new DirectoryInfo(folder)))
        {
            var (mode, own) = (inner.UnixFileMode, inner is DirectoryInfo ? OwnFolder : OwnFile);
            if ((mode & ~own) != 0 && inner.LinkTarget is null)
                inner.UnixFileMode = mode & own;
        }
#pragma warning restore CA1416
    }

    /// <summary>Writes a small file that its owner alone may read, in place of the one that is there: wholly or not at all.</summary>
    public static void Keep(string path, string text)
    {
        var next = $"{path}.next";
        File.Delete(next);
#pragma warning disable CA1416 // The product runs on Linux.
        using (var file = new FileStream(next, new FileStreamOptions
            { Mode = FileMode.CreateNew, Access = FileAccess.Write, UnixCreateMode = OwnFile }))
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

    [DllImport("libc")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static extern uint umask(uint mask);

    [DllImport("libc", SetLastError = true)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static extern int fsync(int handle);

    [DllImport("libc", SetLastError = true)]
    [DefaultDllImportSearchPaths(DllImportSearchPath.System32)]
    private static extern int close(int handle);
}
