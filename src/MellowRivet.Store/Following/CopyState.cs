using System.Text.Json;
using MellowRivet.Store.Files;

namespace MellowRivet.Store.Following;

/// <summary>What a folder says of itself that follows a shop: it is no shop of its own until it takes over.</summary>
/// <param name="Of">What it follows.</param>
/// <param name="AsOf">All that was kept there until this moment is in it; null before the first round.</param>
public sealed record CopyState(string Of, DateTimeOffset? AsOf)
{
    private const string Name = "follows.json", LockName = "follows.lock";

    /// <summary>What a folder says; null where it follows nothing.</summary>
    public static CopyState? In(string folder)
    {
        var file = Path.Combine(folder, Name);
        return File.Exists(file) ? JsonSerializer.Deserialize<CopyState>(File.ReadAllText(file)) : null;
    }

    public void Keep(string folder) => Disk.Keep(Path.Combine(folder, Name), JsonSerializer.Serialize(this));

    /// <summary>Keeps others from following into a folder, or from taking over in it, until this is let go of.</summary>
    /// <exception cref="IOException">Somebody does already.</exception>
    public static FileStream Lock(string folder)
    {
        try
        {
            return new(Path.Combine(folder, LockName), FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException)
        {
            throw new IOException($"Something follows into {folder} just now: end that ./rivet follow first.");
        }
    }

    /// <summary>The copy is a shop of its own from here on.</summary>
    public static void TakeOver(string folder)
    {
        using (Lock(folder))
        {
            Follower.Finish(folder);
            Follower.LetGoOfLogs(folder);
            foreach (var left in new[] { Name, Follower.Spare })
                File.Delete(Path.Combine(folder, left));
        }
        File.Delete(Path.Combine(folder, LockName));
        Disk.SyncFolder(folder);
    }
}
